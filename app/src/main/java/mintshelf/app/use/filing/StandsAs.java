package mintshelf.app.use.filing;

import java.time.Clock;
import java.util.Optional;
import mintshelf.app.effect.PastRevisions;
import mintshelf.app.effect.Recorder;
import mintshelf.app.ground.Actor;
import mintshelf.app.store.house.HouseStore;
import mintshelf.app.store.house.Kind;
import mintshelf.app.store.shelf.ShelfStore;
import mintshelf.core.access.Right;
import mintshelf.core.base.Refusal;
import mintshelf.core.revision.StageClass;
import org.springframework.stereotype.Component;

/** What was released elsewhere stands here as it is: said by who keeps the shelf, for nobody signed it here. */
@Component
class StandsAs {
    private final ShelfStore shelves;
    private final HouseStore house;
    private final PastRevisions past;
    private final Recorder recorder;
    private final Clock clock;

    StandsAs(ShelfStore shelves, HouseStore house, PastRevisions past, Recorder recorder, Clock clock) {
        this.shelves = shelves;
        this.house = house;
        this.past = past;
        this.recorder = recorder;
        this.clock = clock;
    }

    static boolean may(Actor actor, ShelfStore.Shelf shelf) {
        return actor.access().mayOn(Right.KEEP_SHELF, shelf.id(), shelf.library())
                && actor.access().mayOn(Right.FILE, shelf.id(), shelf.library());
    }

    /** Why a document of a kind cannot stand as released on a shelf. */
    Optional<Refusal> refusal(Actor actor, Kind kind, long shelf) {
        if (shelves.shelf(shelf).filter(s -> may(actor, s)).isEmpty()) {
            return Optional.of(Refusal.of(
                    "access.missing",
                    "Only who keeps a shelf says that something was released elsewhere.",
                    "File it in preparation, or ask a data manager."));
        }
        if (house.latest(kind, shelf).firstOf(StageClass.RELEASED).isEmpty()) {
            return Optional.of(Refusal.of(
                    "take.route",
                    "A " + kind.name() + " goes a route on which nothing is released.",
                    "File it in preparation."));
        }
        return Optional.empty();
    }

    /** Puts what was just filed in force, with what it refers to as that stands. */
    void settle(Actor actor, FileRows.Made made) {
        ReadyRow ready = made.ready();
        past.release(ready.kind(), ready.folder(), made.item(), made.revision(), made.version(), clock.instant());
        recorder.note(
                actor,
                made.item(),
                "document.taken_in",
                1,
                "took it in as released" + ready.label().map(l -> " " + l).orElse("") + ", as it was",
                "");
    }
}
