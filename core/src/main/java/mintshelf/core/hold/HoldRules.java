package mintshelf.core.hold;

import java.util.Locale;
import java.util.Optional;
import mintshelf.core.access.Access;
import mintshelf.core.access.Right;
import mintshelf.core.base.ContentHash;
import mintshelf.core.base.Refusal;
import mintshelf.core.document.Document;
import mintshelf.core.document.DropRules;
import mintshelf.core.document.Holder;
import mintshelf.core.revision.StageClass;

/** Who may take, give back and break a hold. Each question answers with nothing (it may be) or with what is in the way. */
public final class HoldRules {
    private HoldRules() {}

    /** Whether the person may check the document out. */
    public static Optional<Refusal> checkOut(Document document, Access access) {
        Optional<Refusal> dropped = DropRules.refusal(document);
        if (dropped.isPresent()) return dropped;
        Optional<Refusal> missing = access.ask(Right.CHANGE, document.place());
        if (missing.isPresent()) return missing;
        if (document.part()) return Optional.of(noFile(document));
        if (document.holder().isPresent()) {
            Holder holder = document.holder().get();
            if (holder.person() == access.person()) {
                return refusal(
                        "hold.mine",
                        "You hold " + document.number() + " already.",
                        "Fetch its file again, or check it in.");
            }
            return refusal(
                    "hold.taken",
                    document.number() + " is held by " + holder.name() + ".",
                    "Ask " + holder.name() + " to check it in.");
        }
        if (document.pending().isEmpty()) {
            boolean released = document.released().isPresent();
            return refusal(
                    "stage.closed",
                    document.number() + " is "
                            + document.current().stage().name().toLowerCase(Locale.ROOT) + ".",
                    released ? "Start the next revision; that checks it out too." : "");
        }
        if (document.pending().get().stage().stageClass() != StageClass.PREPARING) {
            return refusal(
                    "stage.deciding",
                    document.number() + " is being decided on; its content does not change meanwhile.",
                    "It can be changed again once it is returned.");
        }
        return Optional.empty();
    }

    /** Why nothing of a part without a file is brought, fetched or brought back. */
    public static Refusal noFile(Document document) {
        return Refusal.of("part.no_file", document.number() + " has no file.", "Change what it says of itself.");
    }

    /**
     * Whether a version may be made that does not come back under a hold: an earlier one made current again, a stray adopted. While
     * somebody holds the document, the person too, it may not: what comes back under the hold would overwrite it unseen.
     */
    public static Optional<Refusal> between(Document document, Access access) {
        return checkOut(document, access)
                .map(r -> r.code().equals("hold.mine")
                        ? Refusal.of(
                                "hold.mine",
                                "You hold " + document.number() + ".",
                                "Check it in or undo the check-out first; then this can be made a version.")
                        : r);
    }

    /** Whether the person may give the hold back unchanged, or check in under it. */
    public static Optional<Refusal> useHold(Document document, Access access) {
        if (document.holder().isEmpty()) {
            return refusal(
                    "hold.none", "Nobody holds " + document.number() + " any more.", "Check it out again first.");
        }
        Holder holder = document.holder().get();
        if (holder.person() != access.person()) {
            return refusal(
                    "hold.taken",
                    document.number() + " is held by " + holder.name() + ".",
                    "What you bring is kept beside the document as a stray.");
        }
        return Optional.empty();
    }

    /** Whether the person may end somebody else's hold. */
    public static Optional<Refusal> breakHold(Document document, Access access, String reason) {
        if (document.holder().isEmpty()) {
            return refusal("hold.none", "Nobody holds " + document.number() + " any more.", "");
        }
        Optional<Refusal> missing = access.ask(Right.KEEP_SHELF, document.place());
        if (missing.isPresent()) return missing;
        if (reason.isBlank()) {
            return refusal("hold.reason", "Breaking a hold needs a reason.", "The holder reads it.");
        }
        return Optional.empty();
    }

    /**
     * What a file that comes back is, beside its bytes.
     *
     * @param onlySaved whether nothing but times of saving differs from the latest version
     * @param ring why it cannot stand where it stands in the structure
     * @param moved how many components were captured at another version than the latest version captured
     */
    public record Brought(ContentHash content, boolean onlySaved, Optional<Refusal> ring, int moved) {
        public Brought(ContentHash content) {
            this(content, false, Optional.empty(), 0);
        }
    }

    /**
     * What becomes of a file that comes back under the person's own hold. Identical is what has the same bytes and the same captured
     * components.
     */
    public static Returned checkIn(Document document, Access access, Brought brought, long expectedHold) {
        Optional<Refusal> refused = useHold(document, access);
        if (refused.isPresent()) return new Returned.KeptAsStray(refused.get());
        Optional<Refusal> right = access.ask(Right.CHANGE, document.place());
        if (right.isPresent()) return new Returned.KeptAsStray(right.get());
        Holder holder = document.holder().orElseThrow();
        if (holder.hold() != expectedHold) {
            return new Returned.KeptAsStray(Refusal.of(
                    "hold.other",
                    "The check-out that this page showed has ended; " + document.number() + " is held anew.",
                    "Look at the latest version before you check in."));
        }
        if (holder.baseVersion() != document.head().version()) {
            return new Returned.KeptAsStray(Refusal.of(
                    "base.old",
                    document.number() + " has moved on to version "
                            + document.head().number() + " since this check-out.",
                    "Compare the two, then adopt the stray if it is the better one."));
        }
        if (document.pending().isEmpty() || document.pending().get().stage().stageClass() != StageClass.PREPARING) {
            return new Returned.KeptAsStray(Refusal.of(
                    "stage.closed",
                    document.number() + " is in a stage in which its content does not change.",
                    "Start the next revision, then adopt the stray."));
        }
        if (brought.ring().isPresent())
            return new Returned.KeptAsStray(brought.ring().get());
        boolean same = brought.content().equals(document.head().content());
        if (same) return brought.moved() > 0 ? new Returned.TakesUp(brought.moved()) : new Returned.Unchanged();
        if (brought.onlySaved() && brought.moved() == 0) return new Returned.OnlySaved();
        return new Returned.NewVersion(document.head().number());
    }

    private static Optional<Refusal> refusal(String code, String reason, String remedy) {
        return Optional.of(Refusal.of(code, reason, remedy));
    }
}
