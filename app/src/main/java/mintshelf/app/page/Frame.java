package mintshelf.app.page;

import jakarta.servlet.http.HttpServletRequest;
import java.time.Clock;
import java.time.ZoneId;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import java.util.function.IntSupplier;
import java.util.function.Supplier;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.HouseRules;
import mintshelf.app.setup.Settings;
import mintshelf.app.sight.Seen;
import mintshelf.app.sight.Waiting;
import mintshelf.app.use.person.Choices;
import mintshelf.app.use.verify.DiskSpace;
import mintshelf.core.access.Right;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.ControllerAdvice;
import org.springframework.web.bind.annotation.ModelAttribute;

/** What every page has: the person, how dates are worded, the settings, a key for its next act. */
@ControllerAdvice
public class Frame {
    private final Actors actors;
    private final Choices choices;
    private final Clock clock;
    private final Settings settings;
    private final DiskSpace disk;
    private final Waiting waiting;

    public Frame(Actors actors, Choices choices, Clock clock, Settings settings, DiskSpace disk, Waiting waiting) {
        this.disk = disk;
        this.waiting = waiting;
        this.actors = actors;
        this.choices = choices;
        this.clock = clock;
        this.settings = settings;
    }

    /** The person whose page it is. What a page does not show is not asked for: a picture or a file costs nothing here. */
    public static final class Me {
        private final Actor actor;
        private final Supplier<Map<String, String>> load;
        private final IntSupplier count;
        private Map<String, String> settings;
        private int waiting = -1;

        Me(Actor actor, Supplier<Map<String, String>> load, IntSupplier count) {
            this.actor = actor;
            this.load = load;
            this.count = count;
        }

        public long getId() {
            return actor.person();
        }

        public String getName() {
            return actor.name();
        }

        public boolean isKeepsHouse() {
            return HouseRules.keeps(actor);
        }

        /** Whether anything can be asked of the person, or sent by them: who only reads has no in-tray. */
        public boolean isAsked() {
            return isWorks() || actor.access().maySomewhere(Right.SIGN);
        }

        /** Whether the person changes or files anything: who only reads has no desk. */
        public boolean isWorks() {
            return actor.access().maySomewhere(Right.CHANGE) || actor.access().maySomewhere(Right.FILE);
        }

        /** How many questions stand in the in-tray. */
        public int getWaiting() {
            if (waiting < 0) waiting = count.getAsInt();
            return waiting;
        }

        /** How a document of a list stands for this person. */
        public SpineRow row(Seen seen) {
            return row(seen, List.of());
        }

        /** @param toSign documents that wait for this person's signature; null for none */
        public SpineRow row(Seen seen, Collection<Long> toSign) {
            return SpineRow.of(seen, actor.person(), toSign == null ? List.of() : toSign);
        }

        public String setting(String name, String otherwise) {
            if (settings == null) settings = load.get();
            return settings.getOrDefault(name, otherwise);
        }
    }

    @ModelAttribute
    void add(HttpServletRequest request, Model model) {
        Actor actor = actors.of(request);
        model.addAttribute("w", new Words(ZoneId.of(actor == null ? "UTC" : actor.zone()), clock.instant()));
        model.addAttribute("actKey", UUID.randomUUID().toString());
        model.addAttribute("demo", settings.demo());
        model.addAttribute("disk", actor != null && HouseRules.keeps(actor) ? disk.says() : "");
        if (actor == null) return;
        model.addAttribute("me", new Me(actor, () -> choices.settings(actor.person()), () -> waiting.count(actor)));
    }
}
