package mintshelf.app.use.notice;

import java.util.List;
import java.util.Optional;
import mintshelf.app.effect.Recorder;
import mintshelf.app.effect.Telling;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.Acts;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.Refused;
import mintshelf.app.sight.Grants;
import mintshelf.app.sight.Seen;
import mintshelf.app.sight.Sight;
import mintshelf.app.store.person.PersonStore;
import mintshelf.core.base.Texts;
import org.springframework.stereotype.Service;

/** Shows a page of a document to a colleague, with a line of text: on their Today and by mail. Whether they may see it is asked before. */
@Service
public class ShowTo {
    private static final int PEOPLE = 500;

    private final Sight sight;
    private final PersonStore people;
    private final Grants grants;
    private final Telling telling;
    private final Recorder recorder;
    private final Acts acts;

    ShowTo(Sight sight, PersonStore people, Grants grants, Telling telling, Recorder recorder, Acts acts) {
        this.sight = sight;
        this.people = people;
        this.grants = grants;
        this.telling = telling;
        this.recorder = recorder;
        this.acts = acts;
    }

    /** A document that is to be shown, and the people to whom it could be. */
    public record Showing(Seen seen, List<PersonStore.Person> people) {}

    public Showing showing(Actor actor, long item) {
        Seen seen = sight.of(actor, item);
        return new Showing(
                seen,
                people.people("", 0, PEOPLE).stream()
                        .filter(p -> !p.left() && p.id() != actor.person())
                        .toList());
    }

    /**
     * Shows it.
     *
     * @param page of the document that is shown, an address of this server
     */
    public String show(Actor actor, String key, long item, long person, String text, String page) {
        String said = Texts.optional("The line", text, 300).orElseThrow(Refused::new);
        String of = "/documents/" + item;
        if (!page.matches("/documents/" + item + "(/[a-z0-9/-]{0,80})?(\\?[a-z0-9=&_-]{0,60})?")) {
            throw Refused.because("show.page", "That is no page of this document.", "Show the document itself.");
        }
        return acts.once(actor, key, () -> {
            Seen mine = sight.of(actor, item);
            PersonStore.Person to = people.person(person).filter(p -> !p.left()).orElseThrow(NotThere::new);
            Actor there = grants.actor(to.id()).orElseThrow(NotThere::new);
            Optional<Seen> theirs =
                    Optional.ofNullable(sight.of(there, List.of(item)).get(item));
            // What is in preparation stays with those who see it; so does the page of a single version.
            boolean bare = page.equals(of) || page.startsWith(of + "?");
            if (theirs.isEmpty() || (mine.all() && !theirs.get().all() && !bare)) {
                throw Refused.because(
                        "show.access",
                        to.name()
                                + (theirs.isEmpty()
                                        ? " may not see this document."
                                        : " sees only what is in force, not this page."),
                        theirs.isEmpty()
                                ? "A data manager can give them a grant; nothing was sent."
                                : "Show the document itself; nothing was sent.");
            }
            telling.tell(
                    actor,
                    List.of(to.id()),
                    "shown.page",
                    Optional.empty(),
                    item,
                    actor.name() + " shows you " + mine.document().number() + (said.isEmpty() ? "" : ": " + said),
                    page);
            recorder.note(actor, item, "document.shown", "showed it to " + to.name(), said);
            return of + "?shown";
        });
    }
}
