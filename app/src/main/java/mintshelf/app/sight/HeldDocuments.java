package mintshelf.app.sight;

import java.util.List;
import mintshelf.app.ground.Actor;
import mintshelf.app.store.document.ListStore;
import org.springframework.stereotype.Component;

/** What somebody holds: documents on their main lines, and on the lines of trials. */
@Component
public class HeldDocuments {
    private final ListStore lists;
    private final Trials trials;

    public HeldDocuments(ListStore lists, Trials trials) {
        this.lists = lists;
        this.trials = trials;
    }

    /** Documents whose main lines somebody holds, the longest held first. */
    public List<Long> heldBy(long person, int most) {
        return lists.heldBy(person, most);
    }

    /** What somebody holds on trials, of what the actor sees at work. */
    public List<Trials.Tried> onTrials(Actor actor, long person, int most) {
        return trials.heldBy(actor, person, most);
    }
}
