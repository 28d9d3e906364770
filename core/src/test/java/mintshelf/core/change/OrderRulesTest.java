package mintshelf.core.change;

import static mintshelf.core.Documents.PRIYA;
import static mintshelf.core.Documents.TOMASZ;
import static mintshelf.core.Documents.document;
import static mintshelf.core.Documents.heldBy;
import static mintshelf.core.Documents.person;
import static mintshelf.core.Documents.preparing;
import static mintshelf.core.Documents.released;
import static mintshelf.core.Documents.revision;
import static mintshelf.core.Documents.withHead;
import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import mintshelf.core.access.Access;
import mintshelf.core.access.Right;
import mintshelf.core.base.Outcome;
import mintshelf.core.base.Refusal;
import mintshelf.core.document.Document;
import mintshelf.core.document.Revision;
import mintshelf.core.drawing.Primitive;
import mintshelf.core.revision.StageClass;
import org.junit.jupiter.api.Test;

class OrderRulesTest {
    private static final Access DESIGNER = person(PRIYA, Right.SEE_ALL, Right.CHANGE);
    private static final Revision A = revision("A", StageClass.RELEASED);
    private static final Revision B = revision("B", StageClass.PREPARING);

    private static PaperLine line(Optional<Long> to) {
        return new PaperLine(
                1, 1, 3, PaperLine.What.REVISE, "duplex", true, Optional.of(A.id()), to, Optional.empty(), 1);
    }

    private static String says(Document document) {
        return OrderRules.state(line(Optional.of(B.id())), document, List.of()).says();
    }

    @Test
    void whatIsReleasedIsRevisedAndWhatNeverWasIsReleasedFirst() {
        assertThat(OrderRules.line(released(), DESIGNER, List.of())).isEqualTo(Outcome.granted(PaperLine.What.REVISE));
        assertThat(OrderRules.line(preparing(Optional.empty()), DESIGNER, List.of()))
                .isEqualTo(Outcome.granted(PaperLine.What.FIRST));
    }

    private static Sequence.Ahead ahead(PaperLine.What what) {
        return new Sequence.Ahead(7, "CO 26-007", what);
    }

    private static PaperLine withdrawn(int turn) {
        return new PaperLine(
                1,
                1,
                3,
                PaperLine.What.WITHDRAW,
                "",
                true,
                Optional.of(A.id()),
                Optional.empty(),
                Optional.of(9L),
                turn);
    }

    @Test
    void aSecondOrderGoesAfterTheFirstAndStartsFromWhatItReleases() {
        Document deciding = document(Optional.of(revision("B", StageClass.DECIDING)), Optional.of(A), Optional.empty());
        assertThat(OrderRules.line(deciding, DESIGNER, List.of(ahead(PaperLine.What.REVISE))))
                .isEqualTo(Outcome.granted(PaperLine.What.REVISE));
        assertThat(OrderRules.line(preparing(Optional.empty()), DESIGNER, List.of(ahead(PaperLine.What.FIRST))))
                .isEqualTo(Outcome.granted(PaperLine.What.REVISE));
        assertThat(OrderRules.line(released(), DESIGNER, List.of(ahead(PaperLine.What.WITHDRAW)))
                        .refusal()
                        .map(Refusal::reason))
                .contains("CO 26-007 withdraws TG40-3030.");
    }

    @Test
    void theWorkOfWhatWaitsDoesNotStart() {
        assertThat(OrderRules.turn(withdrawn(1), released(), List.of())).isEmpty();
        assertThat(OrderRules.turn(
                        withdrawn(3),
                        released(),
                        List.of(
                                ahead(PaperLine.What.REVISE),
                                new Sequence.Ahead(8, "CO 26-008", PaperLine.What.REVISE))))
                .map(Refusal::reason)
                .contains("TG40-3030 goes after CO 26-007 and CO 26-008.");
        assertThat(OrderRules.state(withdrawn(2), released(), List.of()).says()).isEqualTo("waits for another order");
    }

    @Test
    void onlyWhatIsInForceWithNothingUnderWayIsWithdrawn() {
        assertThat(OrderRules.withdraw(withdrawn(1), released())).isEmpty();
        assertThat(OrderRules.withdraw(withdrawn(1), document(Optional.of(B), Optional.of(A), Optional.empty())))
                .map(Refusal::reason)
                .contains("TG40-3030 has revision B under way.");
        assertThat(OrderRules.withdraw(withdrawn(1), preparing(Optional.empty())))
                .isPresent();
        assertThat(OrderRules.withdraw(withdrawn(2), released()))
                .map(Refusal::code)
                .contains("order.waits");
        assertThat(OrderRules.state(withdrawn(1), released(), List.of()).isReady())
                .isTrue();
        assertThat(OrderRules.state(withdrawn(1), document(Optional.of(B), Optional.of(A), Optional.empty()), List.of())
                        .says())
                .isEqualTo("revision B is under way");
        assertThat(OrderRules.state(
                                withdrawn(1),
                                document(Optional.empty(), Optional.of(A), Optional.of(heldBy(TOMASZ))),
                                List.of())
                        .says())
                .isEqualTo("held by Person 6");
    }

    @Test
    void whatIsDecidedOnOrNotTheirsIsNotPutOnAnOrder() {
        Document deciding = document(Optional.of(revision("B", StageClass.DECIDING)), Optional.of(A), Optional.empty());
        assertThat(OrderRules.line(deciding, DESIGNER, List.of()).refusal().map(Refusal::code))
                .contains("stage.deciding");
        assertThat(OrderRules.line(released(), person(TOMASZ, Right.SEE_ALL), List.of())
                        .refusal()
                        .map(Refusal::code))
                .contains("access.missing");
    }

    @Test
    void theWorkOnWhatIsNotInForceAnyMoreDoesNotStart() {
        assertThat(OrderRules.start(document(Optional.empty(), Optional.empty(), Optional.empty())))
                .map(Refusal::reason)
                .contains("TG40-3030 is not in force any more.");
        assertThat(OrderRules.start(released())).isEmpty();
        assertThat(OrderRules.start(preparing(Optional.empty()))).isEmpty();
    }

    @Test
    void aLineTellsHowFarItIs() {
        assertThat(OrderRules.state(line(Optional.empty()), released(), List.of())
                        .step())
                .isZero();
        assertThat(says(document(Optional.of(B), Optional.of(A), Optional.of(heldBy(TOMASZ)))))
                .isEqualTo("held by Person 6");
        assertThat(says(document(Optional.of(B), Optional.of(A), Optional.empty())))
                .isEqualTo("ready with version 4");
        assertThat(OrderRules.state(
                                line(Optional.of(B.id())),
                                document(Optional.of(B), Optional.of(A), Optional.empty()),
                                List.of("Material"))
                        .isReady())
                .isFalse();
        assertThat(says(document(Optional.of(revision("B", StageClass.DECIDING)), Optional.of(A), Optional.empty())))
                .isEqualTo("before the board");
        assertThat(OrderRules.state(
                                line(Optional.of(B.id())),
                                document(
                                        Optional.empty(),
                                        Optional.of(revision("B", StageClass.RELEASED)),
                                        Optional.empty()),
                                List.of())
                        .isDone())
                .isTrue();
    }

    @Test
    void whatTheShelfWroteIsNobodysWork() {
        Document d = document(Optional.of(B), Optional.of(A), Optional.empty());
        Document written = withHead(d, B, true);
        assertThat(says(written)).isEqualTo("nothing checked in yet");
    }

    @Test
    void aDroppedRevisionIsSaid() {
        assertThat(says(document(Optional.empty(), Optional.of(A), Optional.empty())))
                .isEqualTo("its revision was dropped");
    }

    @Test
    void aNoticeOfManyLinesGoesOverPagesAndLosesNone() {
        List<ChangeNotice.Row> rows = new ArrayList<>();
        for (int i = 0; i < 60; i++) {
            rows.add(new ChangeNotice.Row(
                    "TG40-" + (1000 + i),
                    "Pulley axle of the second station with a long title that breaks",
                    "is revised",
                    "A",
                    "B",
                    i,
                    "material changed ".repeat(9),
                    "ab".repeat(32),
                    "",
                    ""));
        }
        ChangeNotice notice = new ChangeNotice(
                "CN 26-001",
                "CO 26-001",
                "Duplex",
                "pitting\nat berth 3",
                "23 Nov 2026",
                "from serial 0152",
                List.of("CR 26-014 Cone pits"),
                rows,
                List.of(
                        new ChangeNotice.Old("LS18-1020", "in stock", "6", "use as is", "", "fresh water"),
                        new ChangeNotice.Old("LS18-1020", "on order", "0", "", "", ""),
                        new ChangeNotice.Old("LS18-1020", "in the field", "14", "", "", "")),
                "792.00 EUR",
                1,
                List.of("Hedda signed"),
                List.of());
        var pages = notice.pages(NoticeForm.USUAL);
        assertThat(pages).hasSizeGreaterThan(2);
        List<String> texts = pages.stream()
                .flatMap(p -> p.primitives().stream())
                .filter(p -> p instanceof Primitive.Text)
                .map(p -> ((Primitive.Text) p).text())
                .toList();
        rows.forEach(r -> assertThat(texts).containsOnlyOnce(r.number()));
        assertThat(texts)
                .contains(
                        "CN 26-001 · page 1 of " + pages.size(),
                        "Hedda signed",
                        "By order CO 26-001, 23 Nov 2026, effective from serial 0152",
                        "Answers CR 26-014 Cone pits",
                        "in stock: 6 use as is (fresh water)",
                        "on order: none",
                        "in the field: 14 not decided",
                        "Known cost 792.00 EUR. Of one place something is unknown.");
        pages.forEach(p -> p.primitives().stream()
                .filter(x -> x instanceof Primitive.Text)
                .forEach(x -> assertThat(((Primitive.Text) x).y()).isBetween(14.0, 280.0)));
    }

    @Test
    void longWordsAreCutAndNothingIsLost() {
        String text = "a " + "x".repeat(100) + " b";
        assertThat(String.join("", PaperLayout.wrap(text, 40)).replace(" ", "")).isEqualTo(text.replace(" ", ""));
        assertThat(PaperLayout.wrap(text, 40)).allMatch(l -> l.length() <= 40);
    }

    private static PaperLine of(PaperLine.What what, Optional<Long> to, int turn) {
        return new PaperLine(1, 1, 3, what, "", true, Optional.of(A.id()), to, Optional.empty(), turn);
    }

    @Test
    void factsAloneChangeOfWhatIsInForceWithNothingUnderWay() {
        PaperLine line = of(PaperLine.What.FACTS, Optional.empty(), 1);
        Document out = released();
        assertThat(line.releases()).isFalse();
        assertThat(OrderRules.begins(line, out)).isEmpty();
        assertThat(OrderRules.state(line, out, List.of("Material")).isReady())
                .as("what its own revision lacks is no matter")
                .isTrue();
        assertThat(OrderRules.state(of(PaperLine.What.FACTS, Optional.of(A.id()), 0), out, List.of())
                        .isDone())
                .isTrue();
        Document draft = preparing(Optional.empty());
        assertThat(OrderRules.factsOnly(line, draft).orElseThrow().code()).isEqualTo("order.facts");
        assertThat(OrderRules.state(line, draft, List.of()).step()).isEqualTo(1);
        assertThat(OrderRules.factsOnly(of(PaperLine.What.FACTS, Optional.empty(), 2), out)
                        .orElseThrow()
                        .code())
                .isEqualTo("order.waits");
    }
}
