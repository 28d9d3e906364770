package mintshelf.app.effect;

import java.time.Clock;
import java.util.List;
import mintshelf.app.ground.Actor;
import mintshelf.app.sight.Seen;
import mintshelf.app.store.document.DocumentStore;
import mintshelf.app.store.document.RevisionStore;
import org.springframework.stereotype.Component;

/** What follows when a document says something else of itself: it is noted, and what was signed of it falls. Within the caller's transaction. */
@Component
public class FactsChanged {
    private final DocumentStore documents;
    private final RevisionStore revisions;
    private final FallingSignOffs signOffs;
    private final PartCard card;
    private final Recorder recorder;
    private final Clock clock;

    public FactsChanged(
            DocumentStore documents,
            RevisionStore revisions,
            FallingSignOffs signOffs,
            PartCard card,
            Recorder recorder,
            Clock clock) {
        this.documents = documents;
        this.revisions = revisions;
        this.signOffs = signOffs;
        this.card = card;
        this.recorder = recorder;
        this.clock = clock;
    }

    /** @param said what changed, in words; nothing follows from nothing */
    public void note(Actor actor, Seen seen, List<String> said, String why) {
        if (said.isEmpty()) return;
        String changed = String.join(", ", said);
        note(actor, seen, "facts.changed", "changed " + changed, changed, why);
    }

    /** As {@link #note(Actor, Seen, List, String)}, of what is in force: a revision that is under way beside it is not touched. */
    public void noteReleased(Actor actor, Seen seen, List<String> said, String why) {
        if (said.isEmpty()) return;
        long item = seen.spine().id();
        documents.touch(item, clock.instant());
        recorder.note(actor, item, "facts.changed", "changed " + String.join(", ", said), why);
    }

    /** As {@link #note(Actor, Seen, List, String)}, for a line of its bill of materials. */
    public void noteLine(Actor actor, Seen seen, String says) {
        note(actor, seen, "bom.changed", says, says, "");
    }

    private void note(Actor actor, Seen seen, String act, String says, String changed, String why) {
        long item = seen.spine().id();
        documents.touch(item, clock.instant());
        recorder.note(actor, item, act, says, why);
        if (seen.pending().isEmpty()) return;
        revisions.noteHand(seen.current().id(), actor.person());
        card.follow(actor, seen, changed);
        signOffs.changed(actor, item, changed);
    }
}
