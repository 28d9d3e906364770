package mintshelf.core.next;

import java.util.Optional;
import mintshelf.core.access.Access;
import mintshelf.core.access.Right;
import mintshelf.core.base.Refusal;
import mintshelf.core.document.Document;
import mintshelf.core.hold.HoldRules;

/**
 * The one act that a document offers a person first, made likely by its state and their rights, and the reason why another one
 * is not possible now.
 *
 * @param act the primary action
 * @param instead why checking out is not offered, where somebody who may change would expect it
 */
public record NextStep(Act act, Optional<Refusal> instead) {

    /**
     * As {@link #of(Document, Access, boolean, boolean, Optional)} for somebody who is asked for nothing and has nothing to send.
     */
    public static NextStep of(Document document, Access access) {
        return of(document, access, false, false, Optional.empty());
    }

    /**
     * Asked to sign: sign. Mine: check in. Free and in preparation: send to review when the latest version is one's own work,
     * else check out; what has no file is changed on its page. Released and nothing pending: start the next revision, or ask for a change where the house keeps that. Else a copy, with the reason. Readers get a copy
     * without a word.
     *
     * @param asked whether a sign-off waits for the person
     * @param toSend whether the latest version is the person's own work, on a route that asks for sign-offs
     * @param kept why the house does not let the person start the next revision by hand
     */
    public static NextStep of(Document document, Access access, boolean asked, boolean toSend, Optional<Refusal> kept) {
        if (asked) return new NextStep(Act.SIGN, Optional.empty());
        boolean mine =
                document.holder().filter(h -> h.person() == access.person()).isPresent();
        if (mine) return new NextStep(Act.CHECK_IN, Optional.empty());
        if (!access.may(Right.CHANGE, document.place())) return new NextStep(Act.LOOK, Optional.empty());
        if (document.part() && document.isPrepared()) {
            return new NextStep(toSend ? Act.SEND : Act.CHANGE_FACTS, Optional.empty());
        }
        Optional<Refusal> refusal = HoldRules.checkOut(document, access);
        if (refusal.isEmpty()) return new NextStep(toSend ? Act.SEND : Act.CHECK_OUT, Optional.empty());
        if (document.pending().isEmpty()
                && document.released().isPresent()
                && document.holder().isEmpty()) {
            return new NextStep(kept.isEmpty() ? Act.START_REVISION : Act.ASK_FOR_CHANGE, kept);
        }
        return new NextStep(Act.LOOK, refusal);
    }
}
