package mintshelf.app.store.document;

import java.time.Instant;
import java.util.Optional;
import mintshelf.app.store.content.StoredContent;
import mintshelf.app.store.house.Kind;
import mintshelf.app.store.shelf.ShelfStore.Folder;
import mintshelf.core.document.Document;

/**
 * A document as lists and pages show it.
 *
 * @param releasedVersion number of the version that the released revision was released with
 * @param content of the head version
 * @param path its folder and those above it, the lowest first
 * @param strays how many strays are kept beside it
 */
public record Spine(
        Document document,
        String kindName,
        String kindCode,
        String glyph,
        String authorName,
        long author,
        Instant changed,
        Optional<Integer> releasedVersion,
        StoredContent content,
        java.util.List<Folder> path,
        int strays) {
    public long id() {
        return document.id();
    }

    public long folder() {
        return path.get(0).id();
    }

    /** Whether it is a paper of a change, which its own page moves. */
    public boolean isChangePaper() {
        return Kind.isChangePaper(kindCode);
    }
}
