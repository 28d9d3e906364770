package mintshelf.app.store.document;

import java.time.Instant;
import java.util.Optional;
import mintshelf.app.store.content.StoredContent;
import mintshelf.core.base.ContentHash;

/** A version as the strip and the history show it. */
public record VersionRow(
        long id,
        int number,
        long revision,
        String fileName,
        StoredContent content,
        ContentHash digest,
        String comment,
        long author,
        String authorName,
        MadeBy madeBy,
        Instant at,
        Optional<Integer> base,
        Optional<Integer> copyOf) {
    /** Whose it is, in words: what the shelf wrote it wrote for somebody. */
    public String by() {
        return madeBy == MadeBy.STAMPED ? "Mint Shelf for " + authorName : authorName;
    }

    /** How a version came about. */
    public enum MadeBy {
        FILED,
        CHECKED_IN,
        REINSTATED,
        ADOPTED,
        STAMPED,
        /** It came from an old drive, as it was. */
        TAKEN_IN
    }
}
