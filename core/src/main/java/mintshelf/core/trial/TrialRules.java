package mintshelf.core.trial;

import java.util.Collection;
import java.util.Locale;
import java.util.Optional;
import mintshelf.core.access.Access;
import mintshelf.core.access.Place;
import mintshelf.core.access.Right;
import mintshelf.core.base.Refusal;
import mintshelf.core.document.Document;
import mintshelf.core.document.DropRules;
import mintshelf.core.document.Holder;
import mintshelf.core.hold.HoldRules;
import mintshelf.core.revision.StageClass;

/** When a trial is started, adopted and dropped. Each question answers with nothing (it may be) or with what is in the way. */
public final class TrialRules {
    /** Trials under way on one document: more are lost sight of. */
    public static final int MOST_OPEN = 9;

    /** Documents of one trial. */
    public static final int MOST_TOGETHER = 100;

    private TrialRules() {}

    /**
     * Whether a trial may begin on a document: whatever its stage, while it is not out of use; its own versions and holds are not
     * touched by it.
     *
     * @param open trials that are under way on it
     */
    public static Optional<Refusal> start(Document document, Access access, int open) {
        Optional<Refusal> dropped = DropRules.refusal(document);
        if (dropped.isPresent()) return dropped;
        Optional<Refusal> missing = access.ask(Right.CHANGE, document.place());
        if (missing.isPresent()) return missing;
        if (document.part()) return Optional.of(HoldRules.noFile(document));
        StageClass stage = document.current().stage().stageClass();
        if (stage == StageClass.WITHDRAWN || stage == StageClass.CLOSED) {
            return Optional.of(Refusal.of(
                    "trial.out_of_use",
                    document.number() + " is "
                            + document.current().stage().name().toLowerCase(Locale.ROOT) + "; nothing is tried on it.",
                    "Leave it out, or begin a new document from it."));
        }
        if (open >= MOST_OPEN) {
            return Optional.of(Refusal.of(
                    "trial.many",
                    document.number() + " has " + open + " trials under way.",
                    "Adopt or drop one of them first."));
        }
        return Optional.empty();
    }

    /** How the original stands to a trial of it. */
    public enum Original {
        /** As it was when the trial began: the result takes its place. */
        AS_IT_WAS,
        /** It has moved on: what differs is held against that. */
        MOVED_ON
    }

    /** @param from id of the version of the original at which the trial began */
    public static Original original(Document original, long from) {
        return original.head().version() == from ? Original.AS_IT_WAS : Original.MOVED_ON;
    }

    /**
     * Whether what was made on a trial's line may become the next version of its original.
     *
     * @param original on its main line
     * @param tried the same on the line of the trial
     */
    public static Optional<Refusal> adopt(Document original, Document tried, Access access) {
        if (tried.holder().isPresent()) {
            Holder holder = tried.holder().get();
            return Optional.of(
                    holder.person() == access.person()
                            ? Refusal.of(
                                    "hold.mine",
                                    "You hold " + tried.number() + ".",
                                    "Check it in or undo the check-out first.")
                            : Refusal.of(
                                    "hold.taken",
                                    tried.number() + " is held by " + holder.name() + ".",
                                    "Ask " + holder.name() + " to check it in."));
        }
        Optional<Refusal> between = HoldRules.between(original, access);
        if (between.isPresent()) return between;
        if (tried.head().content().equals(original.head().content())) {
            return Optional.of(Refusal.of(
                    "trial.same",
                    original.number() + " has the same content as its trial already.",
                    "Leave it out; there is nothing to adopt."));
        }
        return Optional.empty();
    }

    /** Whether somebody may drop a trial: who started it, or who keeps the shelves of all its documents. */
    public static Optional<Refusal> drop(long startedBy, String byName, Collection<Place> places, Access access) {
        boolean keeps = !places.isEmpty() && places.stream().allMatch(p -> access.may(Right.KEEP_SHELF, p));
        if (startedBy == access.person() || keeps) return Optional.empty();
        return Optional.of(Refusal.of(
                "access.missing", "Only " + byName + " or a data manager drops this trial.", "Ask one of them."));
    }
}
