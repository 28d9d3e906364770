package mintshelf.app.effect;

import java.time.Clock;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import mintshelf.app.ground.Actor;
import mintshelf.app.store.structure.LinkStore;
import mintshelf.app.store.structure.LinkStore.Kind;
import org.springframework.stereotype.Component;

/** Typed links that the shelf draws and holds by itself; within the transaction of the act. */
@Component
public class Links {
    private final LinkStore store;
    private final Clock clock;

    public Links(LinkStore store, Clock clock) {
        this.store = store;
        this.clock = clock;
    }

    /** A document was checked in: its links hold against what their targets are now. */
    public void capture(long item) {
        store.capture(item);
    }

    /** A document was filed: a drawing shows the model of its number, a paper describes it. */
    public void byNumber(Actor actor, long item) {
        String mine = store.aspect(item);
        Map<Long, String> others = new HashMap<>();
        store.sameNumber(item).forEach(other -> others.put(other, store.aspect(other)));
        others.forEach((other, aspect) -> {
            String pair = mine + " " + aspect;
            switch (pair) {
                case "DRAWING MODEL" -> draw(actor, item, Kind.SHOWS, other);
                case "MODEL DRAWING" -> draw(actor, other, Kind.SHOWS, item);
                case "PAPER MODEL" -> draw(actor, item, Kind.DESCRIBES, other);
                case "MODEL PAPER" -> draw(actor, other, Kind.DESCRIBES, item);
                case "PAPER DRAWING" -> {
                    if (!List.copyOf(others.values()).contains("MODEL")) draw(actor, item, Kind.DESCRIBES, other);
                }
                default -> {
                    // Two of one aspect never share a number; others say nothing of each other.
                }
            }
        });
    }

    /** A document was made of a changed copy of another. */
    public void derived(Actor actor, long item, long from) {
        store.add(item, Kind.DERIVED_FROM, from, false, actor.person(), clock.instant());
    }

    /** A document of a new design was made of a version of another one: what becomes of that since is told there. */
    public void derived(Actor actor, long item, long from, long version) {
        store.addAt(item, Kind.DERIVED_FROM, from, version, actor.person(), clock.instant());
    }

    /** A document began as a copy of another, or of a template. */
    public void started(Actor actor, long item, long from) {
        store.add(item, Kind.STARTED_FROM, from, false, actor.person(), clock.instant());
    }

    private void draw(Actor actor, long item, Kind kind, long target) {
        store.add(item, kind, target, true, actor.person(), clock.instant());
    }
}
