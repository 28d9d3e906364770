package mintshelf.app.use.document;

import java.time.Clock;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import mintshelf.app.effect.FactValues;
import mintshelf.app.effect.FactsChanged;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.Acts;
import mintshelf.app.ground.Refused;
import mintshelf.app.sight.Seen;
import mintshelf.app.sight.Sight;
import mintshelf.app.store.document.RevisionStore;
import mintshelf.core.access.Right;
import mintshelf.core.base.Refusal;
import mintshelf.core.base.Texts;
import mintshelf.core.document.Document;
import org.springframework.stereotype.Service;

/** Changes of a document without its file: its title and facts. */
@Service
public class KeepFacts {
    private final Sight sight;
    private final RevisionStore revisions;
    private final FactValues values;
    private final FactsChanged changed;
    private final Acts acts;
    private final Clock clock;

    public KeepFacts(
            Sight sight, RevisionStore revisions, FactValues values, FactsChanged changed, Acts acts, Clock clock) {
        this.sight = sight;
        this.revisions = revisions;
        this.values = values;
        this.changed = changed;
        this.acts = acts;
        this.clock = clock;
    }

    /**
     * Keeps the title and the typed facts of the revision that the actor sees; all of them or none. In a round they may still be put
     * right: then the sign-offs that were given fall. Of what is in force only what the house lets change.
     *
     * @param title empty where the page did not offer it
     * @param was what the page showed, by fact name; a fact that somebody changed since is not overwritten unseen
     */
    public String keep(
            Actor actor, long item, String key, String title, Map<String, String> typed, Map<String, String> was) {
        return keep(actor, item, key, title, typed, was, "");
    }

    /**
     * As {@link #keep(Actor, long, String, String, Map, Map)}.
     *
     * @param reason why what is in force changes; some facts ask for it, the record says it
     */
    public String keep(
            Actor actor,
            long item,
            String key,
            String title,
            Map<String, String> typed,
            Map<String, String> was,
            String reason) {
        String why = Texts.optional("The reason", reason, 500).orElseThrow(Refused::new);
        return acts.once(actor, key, () -> {
            Seen seen = sight.locked(actor, item);
            Document document = seen.document();
            long revision = seen.current().id();
            List<String> said = new ArrayList<>();
            String newTitle = title.isBlank() && titleRefusal(actor, seen).isPresent()
                    ? document.title()
                    : Texts.required("The title", title, 200).orElseThrow(Refused::new);
            if (!newTitle.equals(document.title())) {
                titleRefusal(actor, seen).ifPresent(r -> {
                    throw new Refused(r);
                });
                revisions.setTitle(item, revision, newTitle, clock.instant());
                said.add("title “" + document.title() + "” → “" + newTitle + "”");
            }
            said.addAll(values.type(actor, seen, typed, was, why));
            changed.note(actor, seen, said, why);
            return "/documents/" + item;
        });
    }

    /** Why an actor may not change the title; nothing when they may. */
    public static Optional<Refusal> titleRefusal(Actor actor, Seen seen) {
        Document document = seen.document();
        Optional<Refusal> missing = actor.access().ask(Right.CHANGE, document.place());
        if (missing.isPresent()) return missing;
        if (seen.pending().isEmpty()) {
            return Optional.of(Refusal.of(
                    "stage.closed",
                    document.number() + " is not under way; its title does not change.",
                    "Start the next revision first."));
        }
        return FactValues.heldByAnother(actor, document);
    }
}
