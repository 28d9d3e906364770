package mintshelf.core.route;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import mintshelf.core.base.Refusal;
import mintshelf.core.document.Document;
import mintshelf.core.document.DropRules;
import mintshelf.core.document.Revision;

/** Whether a move opens for a document: every gate is asked, so that all that is in the way is told at once. */
public final class MoveRules {
    private MoveRules() {}

    /** The revision that work is shown by, when it stands where the move begins: while B is pending, A does not move. */
    public static Optional<Revision> revision(Move move, Document document) {
        return Optional.of(document.current()).filter(r -> r.stage().code().equals(move.from()));
    }

    /** What is in the way of the move; empty when it opens. */
    public static List<Refusal> ask(Move move, Case one, By by) {
        Document document = one.document();
        List<Refusal> inTheWay = new ArrayList<>();
        DropRules.refusal(document).ifPresent(inTheWay::add);
        if (by.hand() && !move.isMadeByRound())
            one.access().ask(move.who(), document.place()).ifPresent(inTheWay::add);
        if (revision(move, document).isEmpty()) {
            inTheWay.add(Refusal.of(
                    "move.stage",
                    document.number() + " is " + document.current().stage().name() + " now.",
                    "Look at it again; somebody moved it meanwhile."));
        }
        inTheWay.addAll(Gate.all(move.gates(), one, by));
        return List.copyOf(inTheWay);
    }
}
