package mintshelf.core.change;

import java.util.Optional;

/**
 * A line of a request or an order: one document, and what happens to it.
 *
 * @param interchangeable whether the new one can take the place of the old one in form, fit and function
 * @param fromRevision id of the revision in force when the line was made; empty for a document that never was released
 * @param toRevision id of the revision that the order releases, or of which it changed facts; empty until that begins, and for one that
 *     is withdrawn
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

    /** Whether its document goes on with the revision that it has: what it says of itself changes, not its file. */
    public boolean factsOnly() {
        return what == What.FACTS;
    }

    /** Whether there are old ones of which something becomes. */
    public boolean hasOld() {
        return what == What.REVISE || what == What.WITHDRAW;
    }

    /** Whether the order releases a revision of its document. */
    public boolean releases() {
        return !withdraws() && !factsOnly();
    }

    /** What happens to the document. */
    public enum What {
        REVISE("is revised"),
        FIRST("is released for the first time"),
        NEW("is made new by the order"),
        FACTS("changes facts only"),
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
