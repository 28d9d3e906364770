package mintshelf.core.change;

import java.util.Optional;

/**
 * A line of a request or an order: one document, and what happens to it.
 *
 * @param interchangeable whether the new one can take the place of the old one in form, fit and function
 * @param fromRevision id of the revision in force when the line was made; empty for a document that never was released
 * @param toRevision id of the revision that the order releases; empty until work on it starts
 */
public record PaperLine(
        long id,
        int position,
        long item,
        What what,
        String reason,
        boolean interchangeable,
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
