package mintshelf.core.redline;

import java.util.Optional;
import mintshelf.core.access.Access;
import mintshelf.core.access.Place;
import mintshelf.core.access.Right;
import mintshelf.core.base.Refusal;
import mintshelf.core.redline.Remark.State;

/** Who may mark a sheet, answer a remark, set it done, decline, withdraw, reopen it. Needs no hold and changes no document. */
public final class RemarkRules {
    private RemarkRules() {}

    /** What is in the way of marking a sheet there; empty for who may redline and sees work in preparation. */
    public static Optional<Refusal> mark(Access access, Place place) {
        if (access.may(Right.REDLINE, place) && access.may(Right.SEE_ALL, place)) return Optional.empty();
        return Optional.of(Refusal.of(
                "access.missing",
                "You may not mark redlines here.",
                "Ask somebody whose role has it, or a data manager."));
    }

    /** What is in the way of a reply; empty for whoever may redline, or change the document. */
    public static Optional<Refusal> reply(Remark remark, Access access, Place place) {
        if (remark.state() == State.WITHDRAWN) {
            return refusal("remark.withdrawn", remark.number() + " was withdrawn.", "Make a remark of your own.");
        }
        return mayTalk(access, place)
                ? Optional.empty()
                : refusal("access.missing", "You may not answer remarks here.", "Ask a designer of this document.");
    }

    private static boolean mayTalk(Access access, Place place) {
        return access.may(Right.REDLINE, place) || access.may(Right.CHANGE, place);
    }

    /** The state after a reply: another's words answer it, its author's ask again. */
    public static State afterReply(Remark remark, long person) {
        if (!remark.state().isOpen()) return remark.state();
        return person == remark.author() ? State.OPEN : State.ANSWERED;
    }

    /**
     * What is in the way of setting a remark to a state.
     *
     * @param why words with it; declining needs some
     */
    public static Optional<Refusal> set(Remark remark, State to, String why, Access access, Place place) {
        if (remark.state() == to || (to == State.OPEN && remark.state().isOpen())) {
            return refusal(
                    "remark.already",
                    remark.number() + " is " + remark.state().words() + " already.",
                    "Look at it again; nothing was changed.");
        }
        boolean own = remark.author() == access.person();
        boolean works = access.may(Right.CHANGE, place);
        if (to == State.WITHDRAWN || (to == State.OPEN && remark.state() == State.WITHDRAWN)) {
            return own
                    ? Optional.empty()
                    : refusal(
                            "remark.others",
                            remark.number() + " is " + remark.authorName() + "'s.",
                            "Its author withdraws it; you can decline it in words.");
        }
        if (remark.state() == State.WITHDRAWN) {
            return refusal("remark.withdrawn", remark.number() + " was withdrawn.", "Its author can open it again.");
        }
        if (to == State.ANSWERED) {
            return refusal("remark.state", "A remark is answered by a reply.", "Write one.");
        }
        if (to == State.OPEN) {
            return own || mayTalk(access, place)
                    ? Optional.empty()
                    : refusal("access.missing", "You may not open remarks again here.", "Reply to it instead.");
        }
        if (!own && !works) {
            return refusal(
                    "access.missing",
                    "Only " + remark.authorName() + " and who may change the document set it " + to.words() + ".",
                    "Reply to it instead.");
        }
        if (to == State.DECLINED && why.isBlank()) {
            return refusal("remark.why", "Declining needs words.", "Say why; its author reads it.");
        }
        return Optional.empty();
    }

    /** What is in the way of writing a remark or its mark anew: only its author does, while nobody has answered. */
    public static Optional<Refusal> edit(Remark remark, Access access) {
        if (remark.author() != access.person()) {
            return refusal(
                    "remark.others", remark.number() + " is " + remark.authorName() + "'s.", "Reply to it instead.");
        }
        boolean answered = remark.replies().stream().anyMatch(r -> r.person() != access.person());
        if (answered || remark.state() != State.OPEN) {
            return refusal(
                    "remark.answered",
                    remark.number() + " was answered or is closed.",
                    "Reply to it, or withdraw it and make another.");
        }
        return Optional.empty();
    }

    private static Optional<Refusal> refusal(String code, String reason, String remedy) {
        return Optional.of(Refusal.of(code, reason, remedy));
    }
}
