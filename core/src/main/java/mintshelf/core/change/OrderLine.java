package mintshelf.core.change;

import java.util.Optional;

/**
 * A line of a change order: one document, and what happens to it.
 *
 * @param fromRevision id of the revision in force when the line was made; empty for a document that never was released
 * @param toRevision id of the revision that the order releases; empty until work on it starts
 */
public record OrderLine(
        long id,
        int position,
        long item,
        What what,
        String reason,
        Optional<Long> fromRevision,
        Optional<Long> toRevision) {
    /** What happens to the document. */
    public enum What {
        REVISE("is revised"),
        FIRST("is released for the first time");

        private final String words;

        What(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }
    }
}
