package mintshelf.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.LocalDate;
import java.time.ZoneOffset;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import mintshelf.app.ground.Refused;
import mintshelf.app.store.change.PaperStore;
import mintshelf.app.store.document.SuccessorStore;
import mintshelf.app.use.change.CarryOutOrder;
import mintshelf.app.use.change.EditOrder;
import mintshelf.app.use.change.MoveRequest;
import mintshelf.app.use.change.PreviewOrder;
import mintshelf.app.use.change.WriteRequest;
import mintshelf.app.use.revision.StartRevisions;
import mintshelf.core.change.PaperLine;
import mintshelf.core.revision.StageClass;
import org.junit.jupiter.api.Test;

/** What carrying an order out does beside releasing: documents leave, requests are decided, people are told. */
class CarryOutTest {
    private final Server server = Server.shared();
    private final Orders orders = new Orders(server);
    private final Review review = new Review(server);
    private final long shelf = server.shelf();

    private String number(long item) {
        return server.document(item).number();
    }

    private StageClass stands(long item) {
        return server.document(item).current().stage().stageClass();
    }

    private void withdraw(long order, long item, String instead) {
        server.bean(EditOrder.class)
                .edit(
                        server.actor("priya"),
                        order,
                        Server.key(),
                        new EditOrder.Written(
                                "316L goes",
                                Map.of(),
                                List.of(),
                                Map.of(orders.line(order, item).id(), instead),
                                List.of(),
                                List.of(),
                                Map.of(),
                                "SERIAL",
                                "0152"));
    }

    @Test
    void aLineWithdrawsADocumentAndNamesWhatTakesItsPlace() {
        long old = orders.released(shelf, "weld note");
        long fresh = review.drawing(shelf, "weld note, duplex");
        long order = orders.ask("priya", old, fresh);
        withdraw(order, old, number(fresh));
        assertThat(orders.line(order, old).what()).isEqualTo(PaperLine.What.WITHDRAW);
        orders.start(order);
        assertThat(server.document(old).pending()).isEmpty();
        orders.work(fresh);
        orders.signed(order);
        PreviewOrder.Preview preview = server.bean(PreviewOrder.class).preview(server.actor("oluwaseun"), order);
        assertThat(preview.steps().get(0).effects())
                .containsExactly(
                        "Revision A is withdrawn.",
                        number(fresh) + " " + server.document(fresh).title() + " takes its place.");
        orders.carryOut(order);
        assertThat(stands(old)).isEqualTo(StageClass.WITHDRAWN);
        assertThat(stands(fresh)).isEqualTo(StageClass.RELEASED);
        assertThat(server.bean(SuccessorStore.class).of(old)).contains(fresh);
        assertThat(orders.view("priya", order).lines())
                .extracting(l -> l.state().says())
                .containsExactly("withdrawn", "released");
        assertThat(Web.as(server, "priya").get("/orders/" + order).body())
                .contains("effective from serial 0152", "takes its place");
        assertThat(Web.as(server, "priya").get("/documents/" + fresh).body())
                .contains("carried out, effective from serial 0152");
    }

    @Test
    void whatIsUnderWayIsNotWithdrawnByAnOrder() {
        long a = orders.released(shelf, "plate");
        long order = orders.ask("priya", a);
        assertThatThrownBy(() -> withdraw(order, a, "NO-SUCH-NUMBER")).isInstanceOf(Refused.class);
        withdraw(order, a, "");
        server.bean(StartRevisions.class).start(server.actor("priya"), List.of(a), Server.key(), "r", "", false);
        assertThatThrownBy(() -> orders.start(order))
                .isInstanceOf(Refused.class)
                .hasMessageContaining("under way");
        assertThat(stands(a)).isEqualTo(StageClass.PREPARING);
        assertThat(orders.line(order, a).successor()).isEmpty();
    }

    /** Being written, before its board, deferred: the order decides all of them, after it has said so. */
    @Test
    void undecidedRequestsAreAcceptedWithTheirOrder() {
        MoveRequest move = server.bean(MoveRequest.class);
        long a = orders.released(shelf, "cone");
        long b = orders.released(shelf, "ring");
        long c = orders.released(shelf, "clamp");
        long written = RequestTest.asked(server, "rafael", a);
        long asked = RequestTest.asked(server, "priya", b);
        move.toBoard(server.actor("priya"), asked, Server.key(), "");
        long deferred = RequestTest.asked(server, "priya", c);
        move.toBoard(server.actor("priya"), deferred, Server.key(), "");
        move.decide(
                server.actor("oluwaseun"),
                deferred,
                Server.key(),
                "defer",
                "in spring",
                Optional.of(LocalDate.now(ZoneOffset.UTC).plusDays(90)));
        long order = orders.askFor("priya", written, a);
        orders.addTo("priya", order, asked, b);
        orders.addTo("priya", order, deferred, c);
        orders.start(order);
        orders.work(a);
        orders.work(b);
        orders.work(c);
        orders.signed(order);
        // What the board has signed for does not say something else afterwards.
        assertThatThrownBy(() ->
                        server.bean(WriteRequest.class).name(server.actor("rafael"), written, Server.key(), List.of(c)))
                .isInstanceOf(Refused.class)
                .hasMessageContaining("The board decides on it with its order");
        assertThat(Web.as(server, "rafael").get("/requests/" + written).body())
                .doesNotContain("Change reason and lines");
        String page = Web.as(server, "oluwaseun")
                .get("/orders/" + order + "/carry-out")
                .body();
        assertThat(page).contains("is accepted with it; its own round ends", number(written), number(deferred));
        orders.carryOut(order);
        assertThat(List.of(stands(written), stands(asked), stands(deferred))).containsOnly(StageClass.RELEASED);
        assertThat(review.store().openRound(asked)).isEmpty();
        assertThat(server.bean(PaperStore.class).request(deferred).orElseThrow().deferredUntil())
                .isEmpty();
        assertThat(orders.told("rafael"))
                .anyMatch(s -> s.contains("accepted " + number(written) + ", decided with " + number(order)));
    }

    @Test
    void aStoppedOrderLetsItsRequestsGoAsTheyWere() {
        long a = orders.released(shelf, "hub");
        long request = RequestTest.asked(server, "priya", a);
        long order = orders.askFor("priya", request, a);
        assertThat(Web.as(server, "priya").get("/orders/" + order).body())
                .contains("being written: accepted when the order is carried out");
        orders.stop(order);
        assertThat(orders.stage(request)).isEqualTo("written");
        assertThat(Web.as(server, "priya").get("/requests/" + request).body()).contains("Put it on an order");
    }

    @Test
    void noHandAcceptsARequestAsIfAnOrderDidIt() {
        long a = orders.released(shelf, "pin");
        long request = RequestTest.asked(server, "priya", a);
        assertThat(Web.as(server, "oluwaseun")
                        .post(
                                "/requests/" + request + "/decision",
                                Map.of("actKey", Server.key(), "move", "along", "reason", "quickly"))
                        .statusCode())
                .isEqualTo(404);
        assertThat(Web.as(server, "oluwaseun")
                        .post(
                                "/documents/" + request + "/moves/along",
                                Map.of(
                                        "actKey",
                                        Server.key(),
                                        "version",
                                        Integer.toString(
                                                server.document(request).head().number()),
                                        "remark",
                                        "quickly"))
                        .statusCode())
                .isGreaterThanOrEqualTo(400);
        assertThat(orders.stage(request)).isEqualTo("written");
    }

    @Test
    void whoIsToldIsSeenBeforeAndCanBeChanged() {
        long a = orders.released(shelf, "mast");
        long order = orders.ask("priya", a);
        orders.start(order);
        orders.work(a);
        orders.signed(order);
        String page = Web.as(server, "oluwaseun")
                .get("/orders/" + order + "/carry-out")
                .body();
        assertThat(page).contains("opened the order", "signed", "Others too");
        long priya = server.actor("priya").person();
        long tomasz = server.actor("tomasz").person();
        server.bean(CarryOutOrder.class)
                .carryOut(server.actor("oluwaseun"), order, Server.key(), Optional.of(List.of(priya, tomasz)));
        String says = "carried out " + number(order);
        assertThat(orders.told("priya")).anyMatch(s -> s.contains(says));
        assertThat(orders.told("tomasz")).anyMatch(s -> s.contains(says));
        assertThat(orders.told("hedda")).noneMatch(s -> s.contains(says));
    }

    @Test
    void anOrderWhoseDocumentWasWithdrawnDoesNotStart() {
        long a = orders.released(shelf, "clip");
        long first = orders.ask("priya", a);
        long second = orders.askAfter("priya", first, a);
        withdraw(first, a, "");
        orders.through(first);
        assertThat(stands(a)).isEqualTo(StageClass.WITHDRAWN);
        assertThatThrownBy(() -> orders.start(second))
                .isInstanceOf(Refused.class)
                .hasMessageContaining("is not in force any more");
        assertThat(server.document(a).pending()).isEmpty();
    }
}
