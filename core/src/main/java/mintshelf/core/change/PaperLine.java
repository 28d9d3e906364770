package mintshelf.core.change;

import java.util.Optional;

/**
 * A line of a request or an order: one document, and what happens to it.
 *
 * @param interchangeable whether the new one can take the place of the old one in form, fit and function
 * @param fromRevision id of the revision in force when the line was made; empty for a document that never was released
 * @param toRevision id of the revision that the order releases; empty until work on it starts, and for one that is withdrawn
 * @param successor what takes the place of one that is withdrawn
 * @param turn 1 where it is this order's turn on the document, more where others go before it, 0 where it has ended
 */
public record PaperLine(
        long id,
        int position,
        long item,
        What what,
        String reason,
        boolean interchangeable,
        Optional<Long> fromRevision,
        Optional<Long> toRevision,
        Optional<Long> successor,
        int turn) {
    /** Whether open orders on the same document go before this one. */
    public boolean waits() {
        return turn > 1;
    }

    public boolean withdraws() {
        return what == What.WITHDRAW;
    }

    /** What happens to the document. */
    public enum What {
        REVISE("is revised"),
        FIRST("is released for the first time"),
        WITHDRAW("is withdrawn");

        private final String words;

        What(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }
    }
}
