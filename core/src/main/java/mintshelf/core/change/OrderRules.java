package mintshelf.core.change;

import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.stream.Collectors;
import mintshelf.core.access.Access;
import mintshelf.core.access.Right;
import mintshelf.core.base.Outcome;
import mintshelf.core.base.Refusal;
import mintshelf.core.document.Document;
import mintshelf.core.document.DropRules;
import mintshelf.core.document.Revision;
import mintshelf.core.revision.StageClass;

/** What may go on an order, and how far it is. */
public final class OrderRules {
    private OrderRules() {}

    /**
     * What a document's line would be, or why it cannot have one.
     *
     * @param ahead the open orders that the document is on already, the first one first: the new one goes after them
     */
    public static Outcome<PaperLine.What> line(Document document, Access access, List<Sequence.Ahead> ahead) {
        Optional<Refusal> dropped = DropRules.refusal(document);
        if (dropped.isPresent()) return Outcome.refused(dropped.get());
        Optional<Refusal> missing = access.ask(Right.CHANGE, document.place());
        if (missing.isPresent()) return Outcome.refused(missing.get());
        if (!ahead.isEmpty()) {
            Sequence.Ahead last = ahead.get(ahead.size() - 1);
            if (last.what() == PaperLine.What.WITHDRAW) {
                return Outcome.refused(
                        "order.withdraws",
                        last.number() + " withdraws " + document.number() + ".",
                        "After that there is nothing to be changed; leave it out.");
            }
            // It starts from what the last one of them releases.
            return Outcome.granted(PaperLine.What.REVISE);
        }
        if (isDecided(document)) {
            return Outcome.refused(
                    "stage.deciding", document.number() + " is being decided on.", "Take it back first, or wait.");
        }
        if (document.released().isEmpty() && document.pending().isPresent())
            return Outcome.granted(PaperLine.What.FIRST);
        if (document.released().isEmpty()) {
            return Outcome.refused(
                    "order.ended",
                    document.number() + " is "
                            + document.current().stage().name().toLowerCase(Locale.ROOT) + ".",
                    "Nothing of it is in force to be changed.");
        }
        return Outcome.granted(PaperLine.What.REVISE);
    }

    private static boolean isDecided(Document document) {
        return document.pending()
                .filter(r -> r.stage().stageClass() == StageClass.DECIDING)
                .isPresent();
    }

    /** Why a document's line cannot be that it is withdrawn; nothing when it can. */
    public static Optional<Refusal> withdraw(PaperLine line, Document document) {
        if (line.waits()) {
            return Optional.of(Refusal.of(
                    "order.waits",
                    "Another order is on " + document.number() + " before this one.",
                    "Withdraw it when that one is carried out."));
        }
        if (document.released().isEmpty() || document.pending().isPresent()) {
            return Optional.of(Refusal.of(
                    "order.withdraw",
                    document.released().isEmpty()
                            ? document.number() + " is not in force."
                            : document.number() + " has revision "
                                    + document.pending().get().shown() + " under way.",
                    "Only what is in force, with nothing under way, is withdrawn by an order."));
        }
        return Optional.empty();
    }

    /** Why a document's line cannot be that its facts change only; nothing when it can. */
    public static Optional<Refusal> factsOnly(PaperLine line, Document document) {
        if (line.waits()) {
            return Optional.of(Refusal.of(
                    "order.waits",
                    "Another order is on " + document.number() + " before this one.",
                    "Change its facts when that one is carried out."));
        }
        if (document.released().isEmpty()) {
            return Optional.of(Refusal.of(
                    "order.facts",
                    document.number() + " is not in force.",
                    "Fill its facts on its fact sheet while it is under way."));
        }
        return document.pending()
                .map(r -> Refusal.of(
                        "order.facts",
                        document.number() + " has revision " + r.shown() + " under way.",
                        "Let that take the facts along, or drop it first."));
    }

    /** What is in the way of a line as its order says it: what is asked when the work starts. */
    public static Optional<Refusal> begins(PaperLine line, Document document) {
        return switch (line.what()) {
            case WITHDRAW -> withdraw(line, document);
            case FACTS -> factsOnly(line, document);
            case REVISE, FIRST, NEW -> start(document);
        };
    }

    /** Whether the work of an order can start as far as a line goes: nothing of others before it on its document. */
    public static Optional<Refusal> turn(PaperLine line, Document document, List<Sequence.Ahead> ahead) {
        if (!line.waits()) return Optional.empty();
        return Optional.of(Refusal.of(
                "order.waits",
                document.number() + " goes after "
                        + ahead.stream().map(Sequence.Ahead::number).collect(Collectors.joining(" and ")) + ".",
                "It starts from what that releases; take the line off to start without it."));
    }

    /**
     * What keeps a line's work from starting. A revision that is under way already is taken along.
     */
    public static Optional<Refusal> start(Document document) {
        if (document.pending().isEmpty() && document.released().isEmpty()) {
            return Optional.of(Refusal.of(
                    "order.ended",
                    document.number() + " is not in force any more.",
                    "Take it off, and ask for the change of what took its place."));
        }
        if (document.pending().isEmpty()) {
            return document.holder()
                    .map(h -> Refusal.of(
                            "hold.taken",
                            document.number() + " is held by " + h.name() + ".",
                            "Ask " + h.name() + " first."));
        }
        if (document.pending().get().stage().stageClass() == StageClass.DECIDING) {
            return Optional.of(Refusal.of(
                    "stage.deciding", document.number() + " is being decided on.", "Take it back first, or wait."));
        }
        return Optional.empty();
    }

    /**
     * How far a line is.
     *
     * @param emptyFacts labels of required facts that are not filled
     */
    public static LineState state(PaperLine line, Document document, List<String> emptyFacts) {
        if (line.waits()) return new LineState(0, "waits for another order");
        if (line.withdraws()) return withdrawal(document);
        if (line.factsOnly()) return facts(line, document);
        if (line.toRevision().isEmpty()) return new LineState(0, "starts with the order");
        long revision = line.toRevision().get();
        Optional<Revision> pending = document.pending().filter(r -> r.id() == revision);
        if (pending.isEmpty()) {
            boolean out = document.released().filter(r -> r.id() == revision).isPresent();
            if (out) return new LineState(LineState.LAST, "released");
            boolean newer =
                    document.released().isPresent() && document.released().get().id() > revision;
            return newer
                    ? new LineState(LineState.LAST, "released, superseded since")
                    : new LineState(1, "its revision was dropped");
        }
        if (pending.get().stage().stageClass() == StageClass.DECIDING) return new LineState(3, "before the board");
        if (document.holder().isPresent()) {
            return new LineState(1, "held by " + document.holder().get().name());
        }
        // What began as a copy is no work until something of its own is checked in.
        boolean copy = line.what() == PaperLine.What.NEW && document.head().number() == 1;
        if (copy || document.head().revision() != revision || document.head().written()) {
            return new LineState(1, "nothing checked in yet");
        }
        if (!emptyFacts.isEmpty()) return new LineState(1, "not filled: " + String.join(", ", emptyFacts));
        return new LineState(2, "ready with version " + document.head().number());
    }

    /**
     * As {@link #state(PaperLine, Document, List)}, where it is known what the order says.
     *
     * @param saysFacts whether it says of a line that changes facts only which
     */
    public static LineState state(PaperLine line, Document document, List<String> emptyFacts, boolean saysFacts) {
        LineState state = state(line, document, emptyFacts);
        boolean unsaid = line.factsOnly() && state.isReady() && !saysFacts;
        return unsaid ? new LineState(1, "no fact is said to change") : state;
    }

    private static LineState facts(PaperLine line, Document document) {
        if (line.toRevision().isPresent()) return new LineState(LineState.LAST, "facts changed");
        return factsOnly(line, document)
                .map(r -> new LineState(
                        1,
                        document.pending()
                                .map(p -> "revision " + p.shown() + " is under way")
                                .orElse("is not in force")))
                .orElse(new LineState(2, "changes when the order is carried out"));
    }

    private static LineState withdrawal(Document document) {
        if (document.released().isEmpty() && document.pending().isEmpty())
            return new LineState(LineState.LAST, "withdrawn");
        if (document.holder().isPresent()) {
            return new LineState(1, "held by " + document.holder().get().name());
        }
        if (document.pending().isPresent()) {
            return new LineState(1, "revision " + document.pending().get().shown() + " is under way");
        }
        return new LineState(2, "goes when the order is carried out");
    }
}
