package mintshelf.core.route;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import mintshelf.core.access.Access;
import mintshelf.core.base.Refusal;
import mintshelf.core.document.Document;
import mintshelf.core.document.DropRules;
import mintshelf.core.document.Revision;
import mintshelf.core.revision.StageClass;

/** Whether a move opens for a document: every gate is asked, so that all that is in the way is told at once. */
public final class MoveRules {
    private MoveRules() {}

    /** The revision that work is shown by, when it stands where the move begins: while B is pending, A does not move. */
    public static Optional<Revision> revision(Move move, Document document) {
        return Optional.of(document.current()).filter(r -> r.stage().code().equals(move.from()));
    }

    /** Whether the move asks for a reason in words: taking something out of force does, and taking it back from its signers. */
    public static boolean asksReason(Route route, Move move) {
        return route.stage(move.to()).stageClass() == StageClass.WITHDRAWN || move.does(Effect.END_ROUND);
    }

    /**
     * What is in the way of the move; empty when it opens.
     *
     * @param emptyFacts labels of the facts that the kind requires and the revision lacks
     */
    public static List<Refusal> ask(Move move, Document document, Access access, List<String> emptyFacts) {
        return ask(move, document, access, emptyFacts, List.of("the sign-offs of its round"));
    }

    /**
     * As {@link #ask(Move, Document, Access, List)}, for a document whose round is known.
     *
     * @param missingSignOffs in words, what the round still lacks: "checked by a checker"
     */
    public static List<Refusal> ask(
            Move move, Document document, Access access, List<String> emptyFacts, List<String> missingSignOffs) {
        List<Refusal> inTheWay = new ArrayList<>();
        DropRules.refusal(document).ifPresent(inTheWay::add);
        if (!move.isMadeByRound()) access.ask(move.who(), document.place()).ifPresent(inTheWay::add);
        if (revision(move, document).isEmpty()) {
            inTheWay.add(Refusal.of(
                    "move.stage",
                    document.number() + " is " + document.current().stage().name() + " now.",
                    "Look at it again; somebody moved it meanwhile."));
        }
        boolean outsideHead = document.pending()
                .filter(r -> r.stage().code().equals(move.from())
                        && (r.id() != document.head().revision()
                                || document.head().written()))
                .isPresent();
        if (outsideHead) {
            inTheWay.add(Refusal.of(
                    "move.no_version",
                    "Nothing was checked in for revision " + document.current().shown() + " yet.",
                    "Check it out and check in what changed."));
        }
        for (Gate gate : move.gates()) {
            switch (gate) {
                case HELD_BY_NOBODY ->
                    document.holder()
                            .ifPresent(holder -> inTheWay.add(
                                    holder.person() == access.person()
                                            ? Refusal.of(
                                                    "gate.held",
                                                    "You hold it.",
                                                    "Check it in or undo the check-out first.")
                                            : Refusal.of(
                                                    "gate.held",
                                                    "It is held by " + holder.name() + ".",
                                                    "Ask " + holder.name() + " to check it in.")));
                case SIGNED_OFF, BOARD_SIGNED -> {
                    if (!missingSignOffs.isEmpty()) {
                        inTheWay.add(Refusal.of(
                                "gate.sign_offs",
                                "Not signed yet: " + String.join(", ", missingSignOffs) + ".",
                                gate == Gate.SIGNED_OFF
                                        ? "The last sign-off makes the move."
                                        : "It opens with the last sign-off."));
                    }
                }
                case LINES_READY -> {
                    // Of other documents than this one: whoever moves an order asks its lines.
                }
                case FACTS_FILLED -> {
                    if (!emptyFacts.isEmpty()) {
                        inTheWay.add(Refusal.of(
                                "gate.facts",
                                "Not filled: " + String.join(", ", emptyFacts) + ".",
                                "Fill them on its fact sheet."));
                    }
                }
            }
        }
        return List.copyOf(inTheWay);
    }
}
