package mintshelf.app.use.relocate;

import java.util.List;
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

    private Folder kept(Actor actor, long id, String refused) {
        Folder folder = shelves.folder(id)
                .filter(f -> !f.isRoot() && actor.access().enters(f.shelf()))
                .orElseThrow(NotThere::new);
        boolean library =
                shelves.shelf(folder.shelf()).map(ShelfStore.Shelf::library).orElse(false);
        if (!actor.access().mayOn(Right.KEEP_SHELF, folder.shelf(), library)) {
            throw Refused.because("access.missing", refused, "Ask a data manager.");
        }
        return folder;
    }

    /** Says whether what lies in a folder comes to every desk of its shelf; the shelf's id. */
    public long everyDesk(Actor actor, long id, boolean comes) {
        Folder folder = kept(actor, id, "Only who keeps a shelf says what comes to every desk.");
        if (comes == isOnEveryDesk(folder)) return folder.shelf();
        unit.run(() -> {
            shelves.everyDesk(id, comes);
            if (!comes && isOnEveryDesk(folder)) {
                throw Refused.because(
                        "folder.above",
                        "A folder above " + folder.name() + " comes to every desk, with all that lies in it.",
                        "Change it there, or move this folder's documents.");
            }
            recorder.noteHouse(
                    actor,
                    "folder.every_desk",
                    comes
                            ? "lets the folder " + folder.name() + " come to every desk of its shelf"
                            : "lets the folder " + folder.name() + " come to desks on request only",
                    "");
        });
        return folder.shelf();
    }

    private boolean isOnEveryDesk(Folder folder) {
        return shelves.onEveryDesk(List.of(folder.shelf())).contains(folder.id());
    }

    /** Gives a folder another name; its shelf's id. */
    public long rename(Actor actor, long id, String name) {
        Folder folder = kept(actor, id, "Only who keeps a shelf renames its folders.");
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
