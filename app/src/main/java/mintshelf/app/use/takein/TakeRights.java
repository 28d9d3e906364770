package mintshelf.app.use.takein;

import mintshelf.app.ground.Actor;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.Refused;
import mintshelf.app.store.shelf.ShelfStore;
import mintshelf.core.access.Right;
import org.springframework.stereotype.Component;

/** Who takes in: who keeps the shelf and files on it, for what is released as it is was signed by nobody here. */
@Component
class TakeRights {
    private final ShelfStore shelves;

    TakeRights(ShelfStore shelves) {
        this.shelves = shelves;
    }

    boolean may(Actor actor, ShelfStore.Shelf shelf) {
        return actor.access().mayOn(Right.KEEP_SHELF, shelf.id(), shelf.library())
                && actor.access().mayOn(Right.FILE, shelf.id(), shelf.library());
    }

    ShelfStore.Shelf ask(Actor actor, long shelf) {
        ShelfStore.Shelf on =
                shelves.shelf(shelf).filter(s -> actor.access().enters(shelf)).orElseThrow(NotThere::new);
        if (may(actor, on)) return on;
        throw Refused.because(
                "access.missing",
                "Only who keeps a shelf and files on it takes in what was released elsewhere.",
                "Ask a data manager.");
    }
}
