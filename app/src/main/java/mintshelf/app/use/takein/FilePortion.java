package mintshelf.app.use.takein;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;
import java.util.function.Supplier;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.Refused;
import mintshelf.app.store.content.UploadStore;
import mintshelf.app.store.shelf.ShelfStore;
import mintshelf.app.store.shelf.ShelfStore.Folder;
import mintshelf.app.store.takein.TakeIn;
import mintshelf.app.store.takein.TakeInStore;
import mintshelf.app.store.takein.TakenFile;
import mintshelf.app.store.takein.TakenFileStore;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.core.NestedRuntimeException;
import org.springframework.dao.DataIntegrityViolationException;
import org.springframework.stereotype.Component;

/** Files some documents of a taking-in at once; where one of them cannot be, each by itself, and says of that one why. */
@Component
class FilePortion {
    private static final Logger LOG = LoggerFactory.getLogger(FilePortion.class);
    private static final int AT_ONCE = 25;

    private final TakeInStore takeIns;
    private final TakenFileStore files;
    private final UploadStore uploads;
    private final ShelfStore shelves;
    private final FileTaken file;
    private final TakeRights rights;
    private final TakeDays days;

    FilePortion(
            TakeInStore takeIns,
            TakenFileStore files,
            UploadStore uploads,
            ShelfStore shelves,
            FileTaken file,
            TakeRights rights,
            TakeDays days) {
        this.takeIns = takeIns;
        this.files = files;
        this.uploads = uploads;
        this.shelves = shelves;
        this.file = file;
        this.rights = rights;
        this.days = days;
    }

    /** Makes the folders, within the caller's transaction; gives what all portions need. */
    FileTaken.Within begin(Actor actor, TakeIn takeIn) {
        rights.ask(actor, takeIn.shelf());
        Folder top = shelves.folder(takeIn.folder())
                .filter(f -> f.shelf() == takeIn.shelf())
                .orElseThrow(NotThere::new);
        Map<String, Folder> folders = shelves.below(top, files.folders(takeIn.id()), true);
        return file.within(actor, takeIn.id(), takeIn.name(), folders, top, days);
    }

    /** All is filed: what was left out goes. */
    void done(TakeIn takeIn) {
        uploads.keepUntil(files.uploads(takeIn.id()), days.now());
    }

    /**
     * Files the next documents.
     *
     * @param within runs some work in one transaction, if it is still the caller's; else gives nothing
     * @return whether there was something; nothing where it is another's by now
     */
    Optional<Boolean> next(FileTaken.Within all, Function<Supplier<Boolean>, Optional<Boolean>> within) {
        List<List<TakenFile>> documents = files.nextDocuments(all.takeIn(), AT_ONCE);
        if (documents.isEmpty()) return Optional.of(false);
        try {
            return within.apply(() -> file(all, documents));
        } catch (RuntimeException e) {
            if (isOfTheDatabase(e)) throw e;
            // One of them: each by itself, so that the others do not wait for it.
            for (List<TakenFile> one : documents) {
                if (alone(all, one, within).isEmpty()) return Optional.empty();
            }
            return Optional.of(true);
        }
    }

    private boolean file(FileTaken.Within all, List<List<TakenFile>> documents) {
        documents.forEach(one -> file.file(all, one));
        takeIns.did(all.takeIn(), documents.size());
        return true;
    }

    private Optional<Boolean> alone(
            FileTaken.Within all, List<TakenFile> one, Function<Supplier<Boolean>, Optional<Boolean>> within) {
        try {
            return within.apply(() -> file(all, List.of(one)));
        } catch (Refused e) {
            return trouble(all, one, e.refusal().says(), within);
        } catch (DataIntegrityViolationException e) {
            return trouble(all, one, "Its number or its file name was taken since the dry run. Say another.", within);
        } catch (RuntimeException e) {
            if (isOfTheDatabase(e)) throw e;
            LOG.warn("A document of the taking-in {} could not be filed", all.takeIn(), e);
            return trouble(all, one, "It could not be filed; the log of the server says why.", within);
        }
    }

    /** Whether it is no document's fault: it is tried again as a whole. */
    private static boolean isOfTheDatabase(RuntimeException e) {
        return e instanceof NestedRuntimeException && !(e instanceof DataIntegrityViolationException);
    }

    private Optional<Boolean> trouble(
            FileTaken.Within all,
            List<TakenFile> one,
            String why,
            Function<Supplier<Boolean>, Optional<Boolean>> within) {
        return within.apply(() -> {
            files.trouble(all.takeIn(), one.stream().map(TakenFile::at).toList(), why);
            return true;
        });
    }
}
