package mintshelf.app.sight;

import java.util.List;
import mintshelf.app.ground.Actor;
import mintshelf.app.store.shelf.ShelfStore;
import mintshelf.app.store.shelf.ShelfStore.Folder;
import mintshelf.app.store.shelf.ShelfStore.Shelf;
import mintshelf.core.access.Right;
import org.springframework.stereotype.Component;

/** Where somebody may put documents. */
@Component
public class IntoFolders {
    private final ShelfStore shelves;

    public IntoFolders(ShelfStore shelves) {
        this.shelves = shelves;
    }

    /** A shelf with the folders into which somebody can put something. */
    public record Target(Shelf shelf, List<Folder> folders) {}

    /** The shelves on which the actor may file anything; whether this document into that folder is asked by the act. */
    public List<Target> of(Actor actor) {
        return shelves.shelves().stream()
                .filter(s -> actor.access().enters(s.id()) && actor.access().mayOn(Right.FILE, s.id(), s.library()))
                .map(s -> new Target(s, shelves.folders(s.id())))
                .toList();
    }
}
