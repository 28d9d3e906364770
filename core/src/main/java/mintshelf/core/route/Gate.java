package mintshelf.core.route;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import mintshelf.core.base.Refusal;
import mintshelf.core.document.Document;

/**
 * What a move demands of a document before it opens. A new one costs a record here, a line in {@link Gates} and a test: previews
 * and acts, pages and programs ask the same object.
 */
public sealed interface Gate {
    /** As kept in a route's edition; stable. */
    String code();

    /** As in "when {words}". */
    String words();

    /**
     * What is in the way; empty when it opens.
     *
     * @param one what is known of the document now
     * @param by what the asking act settles itself
     */
    List<Refusal> ask(Case one, By by);

    /** A check-out of somebody else keeps it; one's own ends with an act that says so. */
    record HeldByNobody() implements Gate {
        @Override
        public String code() {
            return "HELD_BY_NOBODY";
        }

        @Override
        public String words() {
            return "nobody holds it";
        }

        @Override
        public List<Refusal> ask(Case one, By by) {
            return one
                    .document()
                    .holder()
                    .filter(h ->
                            !(by.endsOwnHold() && h.person() == one.access().person()))
                    .map(h -> h.person() == one.access().person()
                            ? Refusal.of(
                                    "gate.held",
                                    "You hold " + one.document().number() + ".",
                                    "Check it in or undo the check-out first.")
                            : Refusal.of(
                                    "gate.held",
                                    one.document().number() + " is held by " + h.name() + ".",
                                    "Ask " + h.name() + " to check it in."))
                    .stream()
                    .toList();
        }
    }

    record FactsFilled() implements Gate {
        @Override
        public String code() {
            return "FACTS_FILLED";
        }

        @Override
        public String words() {
            return "the facts that its kind requires are filled";
        }

        @Override
        public List<Refusal> ask(Case one, By by) {
            List<String> empty = one.emptyFacts();
            if (empty.isEmpty()) return List.of();
            return List.of(Refusal.of(
                    "gate.facts", "Not filled: " + String.join(", ", empty) + ".", "Fill them on its fact sheet."));
        }
    }

    /** A revision moves with work of its own: not with the version of the one before, nor with what only the shelf wrote. */
    record OwnVersion() implements Gate {
        @Override
        public String code() {
            return "OWN_VERSION";
        }

        @Override
        public String words() {
            return "something was checked in for it";
        }

        @Override
        public List<Refusal> ask(Case one, By by) {
            Document document = one.document();
            boolean outside = document.pending()
                    .filter(r -> r.id() != document.head().revision()
                            || document.head().written())
                    .isPresent();
            if (!outside) return List.of();
            return List.of(Refusal.of(
                    "move.no_version",
                    document.part()
                            ? "Nothing of it was changed for revision "
                                    + document.current().shown() + " yet."
                            : "Nothing was checked in for revision "
                                    + document.current().shown() + " yet.",
                    document.part() ? "Change what it says of itself." : "Check it out and check in what changed."));
        }
    }

    /** Files that it refers to are known. */
    record ReferencesFound() implements Gate {
        @Override
        public String code() {
            return "REFERENCES_FOUND";
        }

        @Override
        public String words() {
            return "the files that it refers to are found";
        }

        @Override
        public List<Refusal> ask(Case one, By by) {
            return one.lostReferences().stream().toList();
        }
    }

    /** Findings of binding rules are mended or let pass in words; on review the sheet has to be readable as well. */
    record ChecksPassed() implements Gate {
        @Override
        public String code() {
            return "CHECKS_PASSED";
        }

        @Override
        public String words() {
            return "no binding rule is broken";
        }

        @Override
        public List<Refusal> ask(Case one, By by) {
            return one.findings(false);
        }
    }

    /** As {@link ChecksPassed}, and somebody is to look at the sheet: one that nobody can read is in the way. */
    record SheetPassed() implements Gate {
        @Override
        public String code() {
            return "SHEET_PASSED";
        }

        @Override
        public String words() {
            return "its sheet is read and no binding rule is broken";
        }

        @Override
        public List<Refusal> ask(Case one, By by) {
            return one.findings(true);
        }
    }

    /** What stands in it is released, or is released in the same act. */
    record ComponentsReleased() implements Gate {
        private static final int NAMED = 3;

        @Override
        public String code() {
            return "COMPONENTS_RELEASED";
        }

        @Override
        public String words() {
            return "its components are released";
        }

        @Override
        public List<Refusal> ask(Case one, By by) {
            List<String> open = one.components().stream()
                    .filter(c -> !c.released() && !one.movesAlong(c.item()))
                    .map(Case.Within::number)
                    .distinct()
                    .toList();
            if (open.isEmpty()) return List.of();
            int more = open.size() - NAMED;
            return List.of(Refusal.of(
                    "gate.components",
                    "Not released: " + String.join(", ", open.subList(0, Math.min(NAMED, open.size())))
                            + (more > 0 ? " and " + more + " more" : "") + ".",
                    "Release them first, or with it."));
        }
    }

    /** A drawing shows its model as it is: it was changed, or looked at, since the model was. */
    record DrawingNotOlderThanModel() implements Gate {
        @Override
        public String code() {
            return "DRAWING_NOT_OLDER";
        }

        @Override
        public String words() {
            return "it is not older than the model that it shows";
        }

        @Override
        public List<Refusal> ask(Case one, By by) {
            return one.newerModels().stream()
                    .map(model -> Refusal.of(
                            "gate.older",
                            "The model " + model + " was changed after this sheet.",
                            "Check in the sheet that shows it, or link them anew under Refers to."))
                    .toList();
        }
    }

    /** What can be looked at is what is released: the neutral copy of a file that only its own program reads is of its latest version. */
    record NeutralCopyCurrent() implements Gate {
        @Override
        public String code() {
            return "NEUTRAL_CURRENT";
        }

        @Override
        public String words() {
            return "its neutral copy is of the latest version, where its file needs one";
        }

        @Override
        public List<Refusal> ask(Case one, By by) {
            return one.neutralInTheWay();
        }
    }

    /** Whoever asked for a change on its sheet says that it is made, or it is declined in words. */
    record NoOpenChangeRemark() implements Gate {
        private static final int NAMED = 3;

        @Override
        public String code() {
            return "NO_OPEN_CHANGE_REMARK";
        }

        @Override
        public String words() {
            return "no remark on its sheet asks for a change";
        }

        @Override
        public List<Refusal> ask(Case one, By by) {
            List<String> open = one.openChanges();
            if (open.isEmpty()) return List.of();
            String number = one.document().number();
            int more = open.size() - NAMED;
            String named = String.join(", ", open.subList(0, Math.min(NAMED, open.size())))
                    + (more > 0 ? " and " + more + " more" : "");
            return List.of(Refusal.of(
                    "gate.remarks",
                    open.size() == 1
                            ? "A change is wanted on " + number + ": remark " + named + " is open."
                            : "Changes are wanted on " + number + ": remarks " + named + " are open.",
                    "Set them done on its sheet, or decline them in words."));
        }
    }

    /** What an open order takes along moves with the order. */
    record NotOnAnOrder() implements Gate {
        @Override
        public String code() {
            return "NOT_ON_AN_ORDER";
        }

        @Override
        public String words() {
            return "no order takes it along";
        }

        @Override
        public List<Refusal> ask(Case one, By by) {
            if (by.isOrder()) return List.of();
            return one
                    .order()
                    .map(number -> Refusal.of(
                            "order.goes_with",
                            one.document().number() + " goes with " + number + ".",
                            "The order puts it before the board and releases it."))
                    .stream()
                    .toList();
        }
    }

    /** What goes by the decision on an order, not by a hand of its own. */
    record DecidedWithOrder() implements Gate {
        @Override
        public String code() {
            return "DECIDED_WITH_ORDER";
        }

        @Override
        public String words() {
            return "the order that took it up is carried out";
        }

        @Override
        public List<Refusal> ask(Case one, By by) {
            if (by.isOrder()) return List.of();
            return List.of(Refusal.of(
                    "gate.with_order",
                    one.document().number() + " is decided with an order.",
                    "Put it on an order, or before the board by itself."));
        }
    }

    record LinesReady() implements Gate {
        @Override
        public String code() {
            return "LINES_READY";
        }

        @Override
        public String words() {
            return "all its lines are ready";
        }

        @Override
        public List<Refusal> ask(Case one, By by) {
            return one.linesInTheWay();
        }
    }

    /** What was asked for is reached: by facts, or by what the order shows for it. */
    record GoalsReached() implements Gate {
        @Override
        public String code() {
            return "GOALS_REACHED";
        }

        @Override
        public String words() {
            return "the goals of its requests are met, or something shows it";
        }

        @Override
        public List<Refusal> ask(Case one, By by) {
            return one.goalsInTheWay();
        }
    }

    /** The last signature makes the move. */
    record SignedOff() implements Gate {
        @Override
        public String code() {
            return "SIGNED_OFF";
        }

        @Override
        public String words() {
            return "everybody who is asked has signed";
        }

        @Override
        public List<Refusal> ask(Case one, By by) {
            return unsigned(one, by, "The last sign-off makes the move.");
        }
    }

    /** The signatures open the move; a person makes it: a board's, a release clerk's hand. */
    record BoardSigned() implements Gate {
        @Override
        public String code() {
            return "BOARD_SIGNED";
        }

        @Override
        public String words() {
            return "everybody who is asked has signed, and a hand makes it";
        }

        @Override
        public List<Refusal> ask(Case one, By by) {
            return unsigned(one, by, "It opens with the last sign-off.");
        }
    }

    /** Others read why: taking something out of force, or back from its signers, asks for words. */
    record ReasonGiven() implements Gate {
        @Override
        public String code() {
            return "REASON_GIVEN";
        }

        @Override
        public String words() {
            return "a reason is given";
        }

        @Override
        public List<Refusal> ask(Case one, By by) {
            // A preview has no words yet: the page asks for them.
            Optional<String> none = by.reason().filter(String::isBlank);
            if (none.isEmpty()) return List.of();
            return List.of(Refusal.of("move.reason", "It needs a reason.", "Others read it."));
        }
    }

    private static List<Refusal> unsigned(Case one, By by, String remedy) {
        if (by.isSigned()) return List.of();
        List<String> missing = one.missingSignOffs();
        if (missing.isEmpty()) return List.of();
        return List.of(Refusal.of("gate.sign_offs", "Not signed yet: " + String.join(", ", missing) + ".", remedy));
    }

    /** All refusals of several gates, in their order. */
    static List<Refusal> all(List<Gate> gates, Case one, By by) {
        List<Refusal> inTheWay = new ArrayList<>();
        gates.forEach(gate -> inTheWay.addAll(gate.ask(one, by)));
        return List.copyOf(inTheWay);
    }
}
