package mintshelf.core.document;

import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import mintshelf.core.access.Access;
import mintshelf.core.access.Right;
import mintshelf.core.base.Refusal;
import mintshelf.core.revision.StageClass;

/** Dropping a document that was filed by mistake, and bringing it back. What others name is not dropped. */
public final class DropRules {
    /** How long a dropped document can be brought back; afterwards its bytes go. */
    public static final Duration KEPT = Duration.ofDays(90);

    private DropRules() {}

    /** What keeps every act from a dropped document; empty for one that is there. */
    public static Optional<Refusal> refusal(Document document) {
        if (!document.dropped()) return Optional.empty();
        return refusal(
                "document.dropped",
                document.number() + " was dropped.",
                "A data manager can bring it back for " + KEPT.toDays() + " days.");
    }

    /**
     * What is known of a document beside its own row when it is to be dropped.
     *
     * @param author whether the person filed it
     * @param wasReleased whether any revision of it was ever released
     * @param namedBy where it is named, in words: "TG40-3000, which it stands in", "the order CO 26-007"
     */
    public record Known(boolean author, boolean wasReleased, List<String> namedBy) {}

    /** What is in the way of dropping; its author or who keeps the shelf drops what was never released and nobody names. */
    public static Optional<Refusal> drop(Document document, Access access, Known known) {
        Optional<Refusal> gone = refusal(document);
        if (gone.isPresent()) return gone;
        boolean own = known.author() && access.may(Right.CHANGE, document.place());
        if (!own && !access.may(Right.KEEP_SHELF, document.place())) {
            return refusal("access.missing", "Only its author or a data manager drops a document.", "Ask one of them.");
        }
        if (known.wasReleased()) {
            return refusal(
                    "document.released",
                    document.number() + " was released; it stays readable.",
                    "Start its next revision instead.");
        }
        if (document.pending()
                .filter(r -> r.stage().stageClass() == StageClass.DECIDING)
                .isPresent()) {
            return refusal("stage.deciding", document.number() + " is being decided on.", "Take it back first.");
        }
        if (document.holder().filter(h -> h.person() != access.person()).isPresent()) {
            String holder = document.holder().get().name();
            return refusal(
                    "hold.taken", document.number() + " is held by " + holder + ".", "Ask " + holder + " first.");
        }
        if (!known.namedBy().isEmpty()) {
            return refusal(
                    "document.named",
                    document.number() + " is named by " + String.join(", ", known.namedBy()) + ".",
                    "What names it would say something untrue: take it out there first, or keep it.");
        }
        return Optional.empty();
    }

    /** What is in the way of bringing a dropped document back. */
    public static Optional<Refusal> bringBack(Document document, Access access, Instant droppedAt, Instant now) {
        if (!document.dropped()) {
            return refusal("document.there", document.number() + " is there.", "Nothing need be brought back.");
        }
        Optional<Refusal> missing = access.ask(Right.KEEP_SHELF, document.place());
        if (missing.isPresent()) return missing;
        if (!now.isBefore(droppedAt.plus(KEPT))) {
            return refusal(
                    "document.freed",
                    document.number() + " was dropped more than " + KEPT.toDays() + " days ago.",
                    "Its bytes are let go; file it anew.");
        }
        return Optional.empty();
    }

    private static Optional<Refusal> refusal(String code, String reason, String remedy) {
        return Optional.of(Refusal.of(code, reason, remedy));
    }
}
