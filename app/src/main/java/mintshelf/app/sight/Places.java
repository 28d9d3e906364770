package mintshelf.app.sight;

import java.util.List;
import mintshelf.app.store.shelf.ShelfStore;
import mintshelf.app.store.shelf.ShelfStore.Folder;
import mintshelf.core.access.Place;

/** Places of documents that are not there yet. */
public final class Places {
    private Places() {}

    /** Where a document of a kind stands in a folder, as grants ask for it. */
    public static Place of(ShelfStore shelves, Folder folder, long kind) {
        List<Long> up = shelves.pathsUp(List.of(folder.shelf())).get(folder.id()).stream()
                .map(Folder::id)
                .toList();
        boolean library =
                shelves.shelf(folder.shelf()).map(ShelfStore.Shelf::library).orElse(false);
        return new Place(folder.shelf(), up, kind, library);
    }
}
