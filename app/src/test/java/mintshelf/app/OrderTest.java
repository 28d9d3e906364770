package mintshelf.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.concurrent.Callable;
import java.util.concurrent.Executors;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.Refused;
import mintshelf.app.sight.Contents;
import mintshelf.app.store.change.PaperStore;
import mintshelf.app.store.document.RevisionStore;
import mintshelf.app.store.document.VersionRow;
import mintshelf.app.use.change.AskForChange;
import mintshelf.app.use.change.CarryOutOrder;
import mintshelf.app.use.change.EditOrder;
import mintshelf.app.use.change.MoveOrder;
import mintshelf.app.use.change.PreviewOrder;
import mintshelf.app.use.change.ReadOrders;
import mintshelf.app.use.document.DropDocument;
import mintshelf.app.use.document.KeepFacts;
import mintshelf.app.use.document.ReadVersion;
import mintshelf.app.use.hold.CheckOut;
import mintshelf.app.use.record.ReadRecord;
import mintshelf.app.use.revision.DropRevision;
import mintshelf.app.use.revision.MoveDocument;
import mintshelf.app.use.verify.Verify;
import mintshelf.core.revision.StageClass;
import mintshelf.core.signoff.Decision;
import org.apache.pdfbox.Loader;
import org.apache.pdfbox.text.PDFTextStripper;
import org.junit.jupiter.api.Test;
import org.springframework.dao.DuplicateKeyException;

class OrderTest {
    private final Server server = Server.shared();
    private final Review review = new Review(server);
    private final long shelf = server.shelf();

    private final Orders orders = new Orders(server);

    private long released(String name) {
        return orders.released(shelf, name);
    }

    private long ask(String login, Long... items) {
        return orders.ask(login, items);
    }

    private void start(long order) {
        orders.start(order);
    }

    private void work(long item) {
        orders.work(item);
    }

    private long board(long order) {
        return orders.board(order);
    }

    private void signed(long order) {
        orders.signed(order);
    }

    private void carryOut(long order) {
        orders.carryOut(order);
    }

    private ReadOrders.View view(String login, long order) {
        return orders.view(login, order);
    }

    private String stage(long order) {
        return server.document(order).current().stage().code();
    }

    private StageClass stageOf(long item) {
        return server.document(item).current().stage().stageClass();
    }

    private static String code(Callable<?> act) {
        try {
            act.call();
            return "";
        } catch (Refused e) {
            return e.refusal().code();
        } catch (Exception e) {
            throw new AssertionError(e);
        }
    }

    @Test
    void severalDocumentsGoThroughOneOrderAndEndInANotice() throws Exception {
        long a = released("cone.dxf");
        long b = released("ring.dxf");
        long c = review.drawing(shelf, "new stud.dxf");
        long order = ask("priya", a, b, c);
        String number = server.document(order).number();
        assertThat(number).matches("CO \\d{2}-\\d{3}");
        assertThat(server.document(a).pending()).isEmpty();
        start(order);
        assertThat(stage(order)).isEqualTo("under-way");
        assertThat(server.document(a).pending().orElseThrow().label()).contains("B");
        assertThat(server.document(c).pending().orElseThrow().label()).contains("A");
        assertThat(view("hedda", order).lines())
                .extracting(l -> l.state().step())
                .containsExactly(1, 1, 2);
        assertThatThrownBy(() -> board(order)).isInstanceOf(Refused.class).hasMessageContaining("nothing checked in");
        work(a);
        work(b);
        assertThat(server.bean(ReadRecord.class).ofDocument(server.actor("hedda"), a, Integer.MAX_VALUE, 50))
                .anyMatch(e -> e.entry().says().startsWith("checked in")
                        && e.entry().says().endsWith("for " + number));
        long round = board(order);
        assertThat(List.of(stageOf(order), stageOf(a), stageOf(b), stageOf(c))).containsOnly(StageClass.DECIDING);
        review.sign("hedda", round);
        review.sign("oluwaseun", round);
        assertThat(stage(order)).isEqualTo("board");
        assertThat(server.document(a).released().orElseThrow().label()).contains("A");
        carryOut(order);

        assertThat(List.of(a, b, c)).allMatch(i -> stageOf(i) == StageClass.RELEASED);
        assertThat(server.bean(RevisionStore.class).revisions(a))
                .extracting(r -> r.revision().stage().stageClass())
                .containsExactly(StageClass.SUPERSEDED, StageClass.RELEASED);
        ReadOrders.View after = view("rafael", order);
        assertThat(after.done()).isEqualTo(3);
        long notice = after.notice().orElseThrow().spine().id();
        assertThat(server.document(notice).number()).matches("CN \\d{2}-\\d{3}");
        VersionRow paper = server.bean(ReadVersion.class).version(server.actor("rafael"), notice, 1);
        byte[] pdf = server.bean(Contents.class)
                .bytes(paper.content(), paper.content().size());
        try (var document = Loader.loadPDF(pdf)) {
            assertThat(new PDFTextStripper().getText(document))
                    .contains(number, server.document(a).number(), "duplex 2205", "A → B", "Hedda Lysgaard signed");
        }
        var csv = server.bean(ReadVersion.class).output(server.actor("rafael"), notice, 1, "CSV");
        assertThat(new String(server.bean(Contents.class).bytes(csv, csv.size()), StandardCharsets.UTF_8).lines())
                .hasSize(4)
                .anyMatch(l -> l.contains(server.document(c).number() + ","));
        assertThat(server.bean(PaperStore.class).of(a, 9))
                .singleElement()
                .matches(o -> o.notice().filter(n -> n == notice).isPresent());
        assertThat(server.bean(Verify.class).verify().problems()).isEmpty();
    }

    @Test
    void aDocumentIsOnOneOpenOrderAndGoesNowhereWithoutIt() {
        long a = released("one.dxf");
        long order = ask("priya", a);
        assertThat(code(() -> ask("tomasz", a))).isEqualTo("order.refused");
        start(order);
        work(a);
        assertThat(code(() -> review.send("priya", a))).isEqualTo("send.refused");
        long first = review.drawing(shelf, "first on order.dxf");
        ask("priya", first);
        assertThat(code(() -> server.bean(DropDocument.class).drop(server.actor("priya"), first, Server.key(), "no")))
                .isEqualTo("document.named");
        assertThat(code(() -> server.bean(DropRevision.class)
                        .drop(
                                server.actor("priya"),
                                a,
                                Server.key(),
                                server.document(a).head().number(),
                                "no")))
                .isEqualTo("order.goes_with");
    }

    @Test
    void onlyABoardMemberStartsStopsAndCarriesOut() {
        long a = released("who.dxf");
        long order = ask("priya", a);
        assertThat(code(() -> server.bean(MoveOrder.class).start(server.actor("priya"), order, Server.key())))
                .isEqualTo("access.missing");
        start(order);
        work(a);
        signed(order);
        assertThatThrownBy(() -> server.bean(CarryOutOrder.class).carryOut(server.actor("priya"), order, Server.key()))
                .isInstanceOf(Refused.class)
                .hasMessageContaining("Your roles");
        carryOut(order);
        assertThat(code(() -> {
                    carryOut(order);
                    return 0;
                }))
                .isEqualTo("order.refused");
    }

    @Test
    void nothingIsCarriedOutBeforeTheBoardHasSigned() {
        long a = released("unsigned.dxf");
        long order = ask("priya", a);
        start(order);
        work(a);
        long round = board(order);
        review.sign("hedda", round);
        assertThat(server.bean(PreviewOrder.class)
                        .preview(server.actor("oluwaseun"), order)
                        .says())
                .anyMatch(s -> s.contains("decided to go out"));
        assertThat(code(() -> {
                    carryOut(order);
                    return 0;
                }))
                .isEqualTo("order.refused");
        assertThat(server.document(a).released().orElseThrow().label()).contains("A");
    }

    @Test
    void aReturnSendsAllOfItBackAndItCanComeAgain() {
        long a = released("ret a.dxf");
        long b = released("ret b.dxf");
        long order = ask("priya", a, b);
        start(order);
        work(a);
        work(b);
        long round = board(order);
        review.answer("hedda", round, Decision.RETURNED, "ring is wrong");
        assertThat(stage(order)).isEqualTo("under-way");
        assertThat(List.of(stageOf(a), stageOf(b))).containsOnly(StageClass.PREPARING);
        work(b);
        signed(order);
        carryOut(order);
        assertThat(stage(order)).isEqualTo("carried-out");
    }

    @Test
    void whatWasSignedAndWaitsDoesNotChangeUnlessItIsTakenBack() {
        long a = released("wait.dxf");
        long order = ask("priya", a);
        start(order);
        work(a);
        signed(order);
        assertThat(code(() -> server.bean(KeepFacts.class)
                        .keep(
                                server.actor("priya"),
                                a,
                                Server.key(),
                                server.document(a).title(),
                                Map.of("material", "304"),
                                Map.of())))
                .isEqualTo("round.signed");
        server.bean(MoveDocument.class)
                .move(
                        server.actor("priya"),
                        a,
                        Server.key(),
                        "take-back",
                        server.document(a).head().number(),
                        "one more hole");
        assertThat(stage(order)).isEqualTo("under-way");
        assertThat(stageOf(a)).isEqualTo(StageClass.PREPARING);
        assertThat(review.store().openRound(order)).isEmpty();
    }

    @Test
    void aPlainDocumentOnAnOrderThatChangesBeforeTheBoardLetsItsSignOffsFall() {
        long plain = server.released(shelf, "plain on order.txt");
        long order = ask("priya", plain);
        start(order);
        server.checkOut("tomasz", plain);
        server.checkIn("tomasz", plain, "second", false);
        long round = board(order);
        review.sign("hedda", round);
        server.checkOut("tomasz", plain);
        server.checkIn("tomasz", plain, "third, unseen", false);
        assertThat(review.store().round(round).orElseThrow().signOffs()).noneMatch(s -> s.stands());
        review.sign("hedda", round);
        review.sign("oluwaseun", round);
        carryOut(order);
        assertThat(server.document(plain).released().orElseThrow().label()).contains("B");
    }

    @Test
    void stoppingFreesTheDocuments() {
        long a = released("stop.dxf");
        long order = ask("priya", a);
        start(order);
        server.bean(MoveOrder.class).stop(server.actor("oluwaseun"), order, Server.key(), "not worth it");
        assertThat(stage(order)).isEqualTo("stopped");
        assertThat(view("hedda", order).order().endedWhy()).isEqualTo("not worth it");
        long again = ask("priya", a);
        start(again);
        assertThat(server.document(a).pending().orElseThrow().label()).contains("B");
    }

    @Test
    void linesChangeWhileOutlinedAndAreFrozenAfterwards() {
        long a = released("edit a.dxf");
        long b = released("edit b.dxf");
        long c = released("edit c.dxf");
        long order = ask("priya", a, b);
        AskForChange change = server.bean(AskForChange.class);
        change.addTo(server.actor("priya"), order, List.of(c), Server.key(), Map.of(c, "goes along"));
        var lines = server.bean(PaperStore.class).lines(order);
        assertThat(lines).extracting(l -> l.item()).containsExactly(a, b, c);
        server.bean(EditOrder.class)
                .edit(
                        server.actor("priya"),
                        order,
                        Server.key(),
                        EditOrder.Written.of(
                                "pitting, and a leak",
                                Map.of(lines.get(0).id(), "other weld"),
                                List.of(lines.get(1).id())));
        assertThat(server.bean(PaperStore.class).lines(order))
                .extracting(l -> l.reason())
                .containsExactly("other weld", "goes along");
        assertThat(server.document(order).head().number()).isEqualTo(4);
        assertThat(ask("tomasz", b)).isPositive();
        start(order);
        assertThat(code(() -> server.bean(EditOrder.class)
                        .edit(
                                server.actor("priya"),
                                order,
                                Server.key(),
                                EditOrder.Written.of("x", Map.of(), List.of()))))
                .isEqualTo("order.frozen");
    }

    @Test
    void anOrderIsAPaperThatOnlyItsOwnPageMoves() {
        long a = released("paper.dxf");
        long order = ask("priya", a);
        assertThat(code(() ->
                        server.bean(CheckOut.class).take(server.actor("priya"), List.of(order), Server.key(), "", "")))
                .isEqualTo("change.paper");
        assertThat(code(() -> server.bean(MoveDocument.class)
                        .move(server.actor("ines"), order, Server.key(), "start", 2, "")))
                .isEqualTo("change.paper");
        assertThatThrownBy(() -> view("rafael", order)).isInstanceOf(NotThere.class);
    }

    @Test
    void ofTwoOrdersAskedAtOnceOverOneDocumentOneIsOpened() throws Exception {
        for (int i = 0; i < 6; i++) {
            long a = released("race order " + i + ".dxf");
            var pool = Executors.newFixedThreadPool(2);
            List<Callable<String>> both =
                    List.of(() -> tried(() -> ask("priya", a)), () -> tried(() -> ask("tomasz", a)));
            List<String> said = new ArrayList<>();
            for (var done : pool.invokeAll(both)) said.add(done.get());
            pool.shutdown();
            assertThat(said).containsOnlyOnce("");
        }
    }

    /** Nothing, or what kept it: a refusal, or the database's own. */
    private static String tried(Callable<?> act) {
        try {
            act.call();
            return "";
        } catch (Refused | DuplicateKeyException e) {
            return "refused";
        } catch (Exception e) {
            throw new AssertionError(e);
        }
    }

    @Test
    void anOrderWithADocumentThatHasNoReviewOfItsOwnIsTakenBack() {
        long plain = server.file("priya", shelf, "plain on order " + Server.key() + ".txt", "p" + Server.key(), false);
        long drawing = released("with review " + Server.key() + ".dxf");
        long order = ask("priya", drawing, plain);
        start(order);
        work(drawing);
        server.checkOut("priya", plain);
        server.checkIn("priya", plain, "worked " + plain, false);
        board(order);
        assertThat(Web.as(server, "priya")
                        .post(
                                "/documents/" + order + "/moves/back",
                                Map.of(
                                        "actKey",
                                        Server.key(),
                                        "expected",
                                        "" + server.document(order).head().number(),
                                        "remark",
                                        "one line more"))
                        .statusCode())
                .isEqualTo(302);
        assertThat(stage(order)).isEqualTo("under-way");
        assertThat(stageOf(plain)).isEqualTo(StageClass.PREPARING);
        assertThat(stageOf(drawing)).isEqualTo(StageClass.PREPARING);
    }
}
