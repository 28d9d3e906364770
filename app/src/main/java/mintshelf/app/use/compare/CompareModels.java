package mintshelf.app.use.compare;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.util.Map;
import java.util.Optional;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.ReadingRoom;
import mintshelf.app.ground.Recent;
import mintshelf.app.sight.ContentInput;
import mintshelf.app.store.content.ContentStore;
import mintshelf.app.store.content.StoredContent;
import mintshelf.core.base.Outcome;
import mintshelf.core.content.ContentKind;
import mintshelf.core.model.compare.ModelCompare;
import mintshelf.core.model.compare.ModelComparison;
import mintshelf.core.model.compare.ModelFile;
import org.springframework.stereotype.Service;

/** Compares models in words. Contents never change, so that a comparison is kept by the hashes of its two. */
@Service
public class CompareModels {
    private static final int KEPT = 200;
    /** What a byte of a file takes while its faces are read. */
    private static final int SPREAD = 10;

    private final BroughtFile brought;
    private final ContentStore contents;
    private final ReadingRoom room;
    private final Map<String, Optional<ModelComparison>> kept = Recent.most(KEPT);

    CompareModels(BroughtFile brought, ContentStore contents, ReadingRoom room) {
        this.brought = brought;
        this.contents = contents;
        this.room = room;
    }

    /** Whether both are models whose differences are told in words. */
    public static boolean are(StoredContent old, StoredContent now) {
        return old.kind() == ContentKind.STEP && now.kind() == ContentKind.STEP;
    }

    /** Compares two contents; nothing where one is no such model, cannot be read, or is too large for this server. The actor may see both. */
    public Optional<ModelComparison> compare(StoredContent old, StoredContent now) {
        if (!are(old, now)) return Optional.empty();
        String key = old.hash().hex() + now.hash().hex();
        Optional<ModelComparison> known = kept.get(key);
        if (known != null) return known;
        // What there is no room for is not kept: it may be there the next time.
        if (!room.takes(SPREAD * (old.size() + now.size()))) return Optional.empty();
        Optional<ModelComparison> found = read(old).flatMap(a -> read(now).map(b -> ModelCompare.compare(a, b)));
        kept.put(key, found);
        return found;
    }

    private Optional<ModelFile> read(StoredContent content) {
        try {
            Outcome<ModelFile> read = ModelFile.read(() -> new ContentInput(contents, content.id(), content.size()));
            return read.toOptional();
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /** What a file that the actor brought changes against the document's head, or against its head on a trial. */
    public Optional<ModelComparison> brought(Actor actor, long item, String token, Optional<Long> trial) {
        return brought.of(actor, item, token, trial).flatMap(two -> compare(two.head(), two.now()));
    }
}
