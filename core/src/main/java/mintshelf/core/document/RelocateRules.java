package mintshelf.core.document;

import java.util.ArrayList;
import java.util.List;
import mintshelf.core.access.Access;
import mintshelf.core.access.Place;
import mintshelf.core.access.Right;
import mintshelf.core.base.Refusal;
import mintshelf.core.revision.StageClass;

/** Whether a document can find another place, or another name. */
public final class RelocateRules {
    private RelocateRules() {}

    /**
     * What is in the way of moving a document to another folder; on another shelf it is seen by others and follows other routes, which is for
     * who keeps both.
     *
     * @param to the place that it would have, with its own kind
     * @param nameTaken whether a file of its name lies there already
     */
    public static List<Refusal> inTheWay(Access access, Document document, Place to, boolean nameTaken) {
        List<Refusal> inTheWay = new ArrayList<>(changing(access, document));
        boolean elsewhere = to.shelf() != document.place().shelf();
        access.ask(Right.FILE, to).ifPresent(inTheWay::add);
        if (elsewhere) {
            if (!access.may(Right.KEEP_SHELF, document.place()) || !access.may(Right.KEEP_SHELF, to)) {
                inTheWay.add(Refusal.of(
                        "relocate.keeps",
                        "To another shelf documents are moved by who keeps both.",
                        "Ask a data manager."));
            }
            if (document.pending()
                    .filter(r -> r.stage().stageClass() == StageClass.DECIDING)
                    .isPresent()) {
                inTheWay.add(Refusal.of(
                        "relocate.deciding",
                        document.number() + " is being decided on; elsewhere others would see it.",
                        "Wait for the decision, or take it back first."));
            }
        }
        if (nameTaken) {
            inTheWay.add(Refusal.of(
                    "file.name",
                    "A file named “" + document.fileName() + "” is in that folder already.",
                    "Rename one of them first, or choose another folder."));
        }
        return inTheWay;
    }

    /**
     * What is in the way of giving a document another kind: other grants, routes and facts hold for it then, which is for who keeps the shelf
     * once a revision of it was out.
     *
     * @param as the place that it has, with the kind that it would have
     */
    public static List<Refusal> anotherKind(Access access, Document document, Place as) {
        List<Refusal> inTheWay = new ArrayList<>(changing(access, document));
        access.ask(Right.FILE, as).ifPresent(inTheWay::add);
        boolean wasOut = document.released().isPresent() || document.pending().isEmpty();
        if (wasOut && !access.may(Right.KEEP_SHELF, document.place())) {
            inTheWay.add(Refusal.of(
                    "kind.keeps",
                    document.number() + " was released as what it is; who keeps the shelf gives it another kind.",
                    "Ask a data manager."));
        }
        if (document.pending()
                .filter(r -> r.stage().stageClass() == StageClass.DECIDING)
                .isPresent()) {
            inTheWay.add(Refusal.of(
                    "kind.deciding",
                    document.number() + " is being decided on as what it is.",
                    "Wait for the decision, or take it back first."));
        }
        return inTheWay;
    }

    /** What is in the way of changing where a document lies or what it is called. */
    public static List<Refusal> changing(Access access, Document document) {
        List<Refusal> inTheWay = new ArrayList<>();
        if (document.dropped()) {
            inTheWay.add(Refusal.of("document.dropped", document.number() + " is dropped.", "Bring it back first."));
        }
        access.ask(Right.CHANGE, document.place()).ifPresent(inTheWay::add);
        document.holder()
                .ifPresent(h -> inTheWay.add(
                        h.person() == access.person()
                                ? Refusal.of(
                                        "hold.mine",
                                        "You hold " + document.number()
                                                + ": the file that you work on has its place and its name.",
                                        "Check it in, or undo the check-out, first.")
                                : Refusal.of(
                                        "hold.taken",
                                        document.number() + " is held by " + h.name() + ".",
                                        "Ask them to check it in.")));
        return inTheWay;
    }
}
