package mintshelf.app.use.relocate;

import mintshelf.app.effect.Recorder;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.Refused;
import mintshelf.app.ground.UnitOfWork;
import mintshelf.app.store.shelf.ShelfStore;
import mintshelf.app.store.shelf.ShelfStore.Folder;
import mintshelf.core.access.Right;
import mintshelf.core.document.FileName;
import org.springframework.dao.DuplicateKeyException;
import org.springframework.stereotype.Service;

/** Folders get other names; what lies in them stays where it is. */
@Service
public class Folders {
    private final ShelfStore shelves;
    private final Recorder recorder;
    private final UnitOfWork unit;

    public Folders(ShelfStore shelves, Recorder recorder, UnitOfWork unit) {
        this.shelves = shelves;
        this.recorder = recorder;
        this.unit = unit;
    }

    /** Gives a folder another name; its shelf's id. */
    public long rename(Actor actor, long id, String name) {
        Folder folder = shelves.folder(id)
                .filter(f -> !f.isRoot() && actor.access().enters(f.shelf()))
                .orElseThrow(NotThere::new);
        boolean library =
                shelves.shelf(folder.shelf()).map(ShelfStore.Shelf::library).orElse(false);
        if (!actor.access().mayOn(Right.KEEP_SHELF, folder.shelf(), library)) {
            throw Refused.because(
                    "access.missing", "Only who keeps a shelf renames its folders.", "Ask a data manager.");
        }
        String clean = FileName.folder("The name", name).orElseThrow(Refused::new);
        if (clean.equals(folder.name())) return folder.shelf();
        try {
            unit.run(() -> {
                shelves.renameFolder(folder, clean);
                recorder.noteHouse(actor, "folder.renamed", "renamed the folder " + folder.name() + " to " + clean, "");
            });
            return folder.shelf();
        } catch (DuplicateKeyException e) {
            throw Refused.because(
                    "folder.name", "There is a folder named “" + clean + "” here already.", "Choose another name.");
        }
    }
}
