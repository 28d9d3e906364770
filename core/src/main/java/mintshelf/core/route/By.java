package mintshelf.core.route;

import java.util.Optional;

/**
 * By what a move is asked for: what the asking act settles itself is not in its way.
 *
 * @param hand whether a person makes the move, who needs the right for it
 * @param endsOwnHold whether the act ends the check-out of who makes it
 * @param isSigned whether the sign-offs are there, the last one by this act
 * @param isOrder whether the order that takes it along makes the move
 * @param reason what was said; empty where nothing could be said yet, as in a preview
 */
public record By(boolean hand, boolean endsOwnHold, boolean isSigned, boolean isOrder, Optional<String> reason) {
    /** A person's hand, seen before it acts. */
    public static final By HAND = new By(true, false, false, false, Optional.empty());

    /** Sending to review: one's own check-out ends in the same act. */
    public static final By SENDING = new By(true, true, false, false, Optional.empty());

    /** The last sign-off of a round. */
    public static final By LAST_SIGN_OFF = new By(false, false, true, false, Optional.empty());

    /** An order before its board, or carried out: its own move asked for the right, its board has signed. */
    public static final By ORDER = new By(false, false, true, true, Optional.empty());

    /** As {@link #ORDER}, with these words. */
    public static By orderSaying(String reason) {
        return new By(false, false, true, true, Optional.of(reason));
    }

    /** A person's hand, with these words. */
    public static By handSaying(String reason) {
        return new By(true, false, false, false, Optional.of(reason));
    }
}
