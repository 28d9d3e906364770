package mintshelf.app.page;

import jakarta.servlet.http.HttpServletRequest;
import java.time.Clock;
import java.time.ZoneId;
import java.util.Map;
import java.util.UUID;
import mintshelf.app.setup.Settings;
import mintshelf.app.use.Actor;
import mintshelf.app.use.person.People;
import mintshelf.core.access.Right;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.ControllerAdvice;
import org.springframework.web.bind.annotation.ModelAttribute;

/** What every page has: the person, how dates are worded, the settings, a key for its next act. */
@ControllerAdvice
public class Frame {
    private final Actors actors;
    private final People people;
    private final Clock clock;
    private final Settings settings;

    public Frame(Actors actors, People people, Clock clock, Settings settings) {
        this.actors = actors;
        this.people = people;
        this.clock = clock;
        this.settings = settings;
    }

    /** The person whose page it is. */
    public record Me(long id, String name, boolean keepsHouse, Map<String, String> settings) {
        public String setting(String name, String otherwise) {
            return settings.getOrDefault(name, otherwise);
        }
    }

    @ModelAttribute
    void add(HttpServletRequest request, Model model) {
        Actor actor = actors.of(request);
        model.addAttribute("w", new Words(ZoneId.of(actor == null ? "UTC" : actor.zone()), clock.instant()));
        model.addAttribute("actKey", UUID.randomUUID().toString());
        model.addAttribute("demo", settings.demo());
        if (actor == null) return;
        model.addAttribute(
                "me",
                new Me(
                        actor.person(),
                        actor.name(),
                        actor.access().maySomewhere(Right.KEEP_HOUSE_RULES),
                        people.settings(actor.person())));
    }
}
