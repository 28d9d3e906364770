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
     * Mine: check in. Free and in preparation: check out. Released and nothing pending: start the next revision. Else a copy,
     * with the reason. Readers get a copy without a word.
     */
    public static NextStep of(Document document, Access access) {
        boolean mine =
                document.holder().filter(h -> h.person() == access.person()).isPresent();
        if (mine) return new NextStep(Act.CHECK_IN, Optional.empty());
        if (!access.may(Right.CHANGE, document.place())) return new NextStep(Act.LOOK, Optional.empty());
        Optional<Refusal> refusal = HoldRules.checkOut(document, access);
        if (refusal.isEmpty()) return new NextStep(Act.CHECK_OUT, Optional.empty());
        if (document.pending().isEmpty()
                && document.released().isPresent()
                && document.holder().isEmpty()) {
            return new NextStep(Act.START_REVISION, Optional.empty());
        }
        return new NextStep(Act.LOOK, refusal);
    }
}
