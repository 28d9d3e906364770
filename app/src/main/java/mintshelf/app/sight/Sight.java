package mintshelf.app.sight;

import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.Refused;
import mintshelf.app.store.document.SpineStore;
import mintshelf.core.base.Refusal;
import mintshelf.core.document.DropRules;
import org.springframework.stereotype.Component;

/** Loads documents as a person may see them. What they may not know of is not there. */
@Component
public class Sight {
    private final SpineStore spines;

    public Sight(SpineStore spines) {
        this.spines = spines;
    }

    public Seen of(Actor actor, long item) {
        return spines.spine(item).flatMap(s -> Seen.by(actor, s)).orElseThrow(NotThere::new);
    }

    /** In the order asked for; those that may not be seen are left out. */
    public Map<Long, Seen> of(Actor actor, Collection<Long> items) {
        Map<Long, Seen> seen = new LinkedHashMap<>();
        spines.spines(items).forEach((id, spine) -> Seen.by(actor, spine).ifPresent(s -> seen.put(id, s)));
        return seen;
    }

    /**
     * Locks the documents first, then loads them as they stand now. Refused when one is not there for the actor, and for papers of
     * changes, which their own pages move.
     */
    public List<Seen> locked(Actor actor, Collection<Long> items) {
        List<Seen> all = lockedWithPapers(actor, items);
        for (Seen seen : all) {
            if (!seen.spine().isChangePaper()) continue;
            throw Refused.because(
                    "change.paper",
                    seen.document().number() + " is a " + seen.spine().kindName() + "; changes write it.",
                    "Its own page says what can be done; nothing was changed.");
        }
        return all;
    }

    /** As {@link #locked}, papers of changes too. */
    public List<Seen> lockedWithPapers(Actor actor, Collection<Long> items) {
        List<Seen> all = lockedWithDropped(actor, items);
        for (Seen seen : all) {
            DropRules.refusal(seen.document()).ifPresent(r -> {
                throw new Refused(r);
            });
        }
        return all;
    }

    /** As {@link #lockedWithPapers}, dropped documents too: for who brings them back. */
    public List<Seen> lockedWithDropped(Actor actor, Collection<Long> items) {
        spines.lock(items);
        Map<Long, Seen> seen = of(actor, items);
        if (seen.size() != items.size()) throw new NotThere();
        return List.copyOf(seen.values());
    }

    public Seen locked(Actor actor, long item) {
        return locked(actor, List.of(item)).get(0);
    }

    /**
     * Refuses an act on a picture that is not true any more.
     *
     * @param expected number of the latest version that the page showed
     */
    public static void expectVersion(Seen seen, int expected) {
        int now = seen.document().head().number();
        if (now == expected) return;
        throw new Refused(new Refusal(
                "page.old",
                seen.document().number() + " is at version " + now + " now; your page showed version " + expected + ".",
                "Look at it again; nothing was changed."));
    }
}
