package mintshelf.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.Callable;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.Refused;
import mintshelf.app.store.change.PaperStore;
import mintshelf.app.use.change.AskForChange;
import mintshelf.app.use.change.ComeBack;
import mintshelf.app.use.change.GoOnWithRequest;
import mintshelf.app.use.change.MoveOrder;
import mintshelf.app.use.change.MoveRequest;
import mintshelf.app.use.change.OpenRequest;
import mintshelf.app.use.change.ReadChanges;
import mintshelf.app.use.change.ReadRequests;
import mintshelf.app.use.change.WriteRequest;
import mintshelf.app.use.document.KeepFacts;
import mintshelf.app.use.today.ReadToday;
import mintshelf.core.change.Cause;
import mintshelf.core.change.Goal;
import mintshelf.core.change.Priority;
import mintshelf.core.revision.StageClass;
import mintshelf.core.signoff.Decision;
import org.junit.jupiter.api.Test;

/** A change is asked for, decided on, and goes on alone or on an order. */
class RequestTest {
    private final Server server = Server.shared();
    private final Review review = new Review(server);
    private final long shelf = server.shelf();
    private final WriteRequest write = server.bean(WriteRequest.class);
    private final MoveRequest move = server.bean(MoveRequest.class);

    private long released(String name) {
        long item = review.drawing(shelf, name + " " + Server.key() + ".dxf");
        review.release(item);
        return item;
    }

    private long ask(String login, Priority priority, List<String> evidence, Long... items) {
        return asked(server, login, priority, evidence, items);
    }

    private static long asked(Server server, String login, Priority priority, List<String> evidence, Long... items) {
        String to = server.bean(OpenRequest.class)
                .open(
                        server.actor(login),
                        List.of(items),
                        Server.key(),
                        new OpenRequest.Says(
                                "Cone pits",
                                "pits at berth 3",
                                Optional.of(Cause.FIELD),
                                priority,
                                Map.of(items[0], "duplex"),
                                evidence));
        return Long.parseLong(to.substring("/requests/".length()));
    }

    private long ask(String login, Long... items) {
        return asked(server, login, items);
    }

    /** A request over released documents that is being written. */
    static long asked(Server server, String login, Long... items) {
        return asked(server, login, Priority.USUAL, List.of(), items);
    }

    private long board(String login, long request) {
        move.toBoard(server.actor(login), request, Server.key(), "please");
        return review.store().openRound(request).orElseThrow();
    }

    private void accept(long request) {
        review.sign("oluwaseun", board("priya", request));
    }

    private ReadRequests.View view(String login, long request) {
        return server.bean(ReadRequests.class).request(server.actor(login), request);
    }

    private StageClass stands(long item) {
        return server.document(item).current().stage().stageClass();
    }

    private String stage(long item) {
        return server.document(item).current().stage().code();
    }

    private static String code(Callable<?> act) {
        try {
            act.call();
            return "";
        } catch (Refused e) {
            return e.refusal().code();
        } catch (NotThere e) {
            return "not there";
        } catch (Exception e) {
            throw new AssertionError(e);
        }
    }

    private List<String> told(String login) {
        return server.bean(ReadToday.class).today(server.actor(login)).notices().stream()
                .map(n -> n.says())
                .toList();
    }

    @Test
    void itIsWrittenDecidedAndStartsTheRevisionsAlone() {
        long a = released("cone");
        long b = released("ring");
        long request = ask("priya", a, b);
        assertThat(server.document(request).number()).matches("CR \\d{2}-\\d{3}");
        assertThat(view("hedda", request).lines()).hasSize(2);
        assertThat(view("hedda", request).lines().get(0).from()).isEqualTo("A");
        assertThat(Web.as(server, "hedda").get("/documents/" + a).body())
                .contains(">Changes</h2>", server.document(request).number());
        long round = board("priya", request);
        assertThat(stands(request)).isEqualTo(StageClass.DECIDING);
        assertThat(code(() -> write.name(server.actor("priya"), request, Server.key(), List.of(a))))
                .isEqualTo("paper.frozen");
        assertThat(Web.as(server, "oluwaseun").get("/rounds/" + round).body()).contains("Cone pits");
        review.sign("oluwaseun", round);
        assertThat(stage(request)).isEqualTo("accepted");
        assertThat(server.document(a).pending()).as("nothing starts by itself").isEmpty();
        GoOnWithRequest goOn = server.bean(GoOnWithRequest.class);
        goOn.start(server.actor("priya"), request, Server.key());
        assertThat(server.document(a).pending().orElseThrow().label()).contains("B");
        assertThat(server.document(b).pending()).isPresent();
        assertThat(view("priya", request).lines().get(0).to()).isEqualTo("B");
        assertThat(code(() -> goOn.start(server.actor("priya"), request, Server.key())))
                .isEqualTo("request.started");
    }

    @Test
    void theBoardReturnsDefersDeclinesAndWhoAskedIsTold() {
        long a = released("clamp");
        long request = ask("priya", a);
        String number = server.document(request).number();
        long round = board("priya", request);
        review.answer("oluwaseun", round, Decision.RETURNED, "which berth?");
        assertThat(stage(request)).isEqualTo("written");
        assertThat(server.bean(WriteRequest.class)
                        .say(
                                server.actor("priya"),
                                request,
                                Server.key(),
                                "pits at berth 3, the outer one",
                                Optional.of(Cause.SAFETY),
                                Priority.SOON,
                                Map.of(),
                                List.of()))
                .isEqualTo("/requests/" + request);
        board("priya", request);
        LocalDate later = LocalDate.now(java.time.ZoneOffset.UTC).plusDays(20);
        assertThat(code(() -> move.decide(
                        server.actor("oluwaseun"), request, Server.key(), "defer", "the test runs", Optional.empty())))
                .isEqualTo("request.until");
        assertThat(code(() ->
                        move.decide(server.actor("priya"), request, Server.key(), "decline", "no", Optional.empty())))
                .as("who only changes documents declines nothing")
                .isEqualTo("access.missing");
        move.decide(server.actor("oluwaseun"), request, Server.key(), "defer", "the test runs", Optional.of(later));
        assertThat(stage(request)).isEqualTo("deferred");
        assertThat(view("priya", request).paper().deferredUntil()).contains(later);
        assertThat(review.store().openRound(request)).isEmpty();
        assertThat(told("priya")).anyMatch(s -> s.contains("deferred " + number) && s.contains("the test runs"));
        server.db().execute("update paper set deferred_until = '2026-01-05' where item = ?", request);
        assertThat(server.bean(ComeBack.class).tell()).isPositive();
        assertThat(server.bean(ComeBack.class).tell()).as("told once").isZero();
        assertThat(told("priya")).anyMatch(s -> s.startsWith(number + " was deferred until today"));
        assertThat(code(() ->
                        move.decide(server.actor("oluwaseun"), request, Server.key(), "accept", "x", Optional.empty())))
                .isEqualTo("not there");
        long again = board("priya", request);
        assertThat(view("priya", request).paper().deferredUntil()).isEmpty();
        move.decide(server.actor("oluwaseun"), request, Server.key(), "decline", "never", Optional.empty());
        assertThat(stage(request)).isEqualTo("declined");
        assertThat(told("priya")).anyMatch(s -> s.contains("declined " + number));
        assertThat(code(() -> {
                    review.sign("oluwaseun", again);
                    return "";
                }))
                .as("from an old tab")
                .isNotEmpty();
        assertThat(stage(request)).isEqualTo("declined");
        assertThat(Web.as(server, "hedda").get("/documents/" + a).body()).doesNotContain(">Changes</h2>");
    }

    @Test
    void severalAreDecidedOnAtOnceAllOrNone() {
        long one = ask("priya", released("one"));
        long two = ask("priya", released("two"));
        long three = ask("priya", released("three"));
        board("priya", one);
        board("priya", two);
        Web board = Web.as(server, "oluwaseun");
        String plan = board.get("/changes/decision?items=" + one + "&items=" + three + "&move=decline")
                .body();
        assertThat(plan)
                .contains("Decline 2 requests", server.document(three).number())
                .doesNotContain("Decline these 2");
        assertThat(code(() -> move.decide(
                        server.actor("oluwaseun"),
                        List.of(one, three),
                        Server.key(),
                        "decline",
                        "no",
                        Optional.empty())))
                .isEqualTo("move.stage");
        assertThat(stage(one)).isEqualTo("board");
        board.post(
                "/changes/decision",
                Map.of("actKey", Server.key(), "items", one + "," + two, "move", "decline", "reason", "too dear"));
        assertThat(List.of(stage(one), stage(two))).containsOnly("declined");
    }

    @Test
    void anAcceptedOneGoesOnAnOrderOnceAndIsFreeWhenThatIsStopped() {
        long a = released("liner");
        long request = ask("priya", a);
        AskForChange orders = server.bean(AskForChange.class);
        AskForChange.Said takes = new AskForChange.Said(Map.of(), Map.of(), Optional.of(request));
        accept(request);
        String to = orders.ask(server.actor("priya"), List.of(a), Server.key(), "Liner", "longer", takes);
        long order = Long.parseLong(to.substring("/orders/".length()));
        assertThat(view("priya", request).order().orElseThrow().spine().id()).isEqualTo(order);
        assertThat(Web.as(server, "hedda").get(to).body())
                .contains("Takes up", server.document(request).number());
        assertThat(code(() -> server.bean(GoOnWithRequest.class).start(server.actor("priya"), request, Server.key())))
                .isEqualTo("request.refused");
        server.bean(MoveOrder.class).stop(server.actor("oluwaseun"), order, Server.key(), "another way");
        assertThat(view("priya", request).order()).isEmpty();
        orders.ask(server.actor("priya"), List.of(a), Server.key(), "Liner", "again", takes);
        assertThat(view("priya", request).order()).isPresent();
    }

    @Test
    void whoSeesWhatIsReleasedAsksAndFollowsTheirOwnAlone() {
        long a = released("mast");
        long request = ask("rafael", a);
        Web rafael = Web.as(server, "rafael");
        assertThat(rafael.get("/requests/" + request).body()).contains("pits at berth 3", "Put it before the board");
        assertThat(rafael.get("/changes?show=mine").body())
                .contains(server.document(request).number());
        assertThat(rafael.get("/requests/" + request).body()).doesNotContain("How far it would reach");
        assertThat(rafael.get("/changes/" + request + "/reach").statusCode()).isEqualTo(404);
        long other = ask("priya", a);
        assertThat(rafael.get("/requests/" + other).statusCode()).isEqualTo(404);
        assertThat(rafael.get("/changes").body())
                .doesNotContain(server.document(other).number());
        assertThat(rafael.get("/documents/" + a).body())
                .doesNotContain(server.document(other).number());
        board("rafael", request);
        move.decide(server.actor("oluwaseun"), request, Server.key(), "decline", "as it is", Optional.empty());
        assertThat(told("rafael")).anyMatch(s -> s.contains("declined") && s.contains("as it is"));
        long pending = review.drawing(shelf, "unseen " + Server.key() + ".dxf");
        assertThat(code(() -> ask("rafael", pending))).isEqualTo("not there");
        assertThat(code(() -> ask("priya", pending))).isEqualTo("request.refused");
        assertThat(code(() -> ask("nobody", a))).isEqualTo("not there");
    }

    @Test
    void goalsHoldWhatIsPreparedAgainstWhatIsInForce() {
        long a = review.drawing(shelf, "goal " + Server.key() + ".dxf");
        keep(a, "2.0");
        review.release(a);
        long request = ask("priya", a);
        write.addGoal(server.actor("priya"), request, Server.key(), a, "mass", Goal.Relation.AT_MOST, "+10 %");
        assertThat(code(() -> write.addGoal(
                        server.actor("priya"), request, Server.key(), a, "material", Goal.Relation.AT_MOST, "x")))
                .isEqualTo("goal.order");
        assertThat(code(() -> write.addGoal(
                        server.actor("priya"), request, Server.key(), a + 1, "mass", Goal.Relation.AT_MOST, "3")))
                .isEqualTo("goal.line");
        assertThat(code(() -> write.addGoal(
                        server.actor("priya"), request, Server.key(), a, "colour", Goal.Relation.EQUAL, "red")))
                .isEqualTo("goal.fact");
        assertThat(view("priya", request).goals().get(0).judgement().state()).isEqualTo(Goal.State.OPEN);
        accept(request);
        server.bean(GoOnWithRequest.class).start(server.actor("priya"), request, Server.key());
        keep(a, "2.2");
        assertThat(view("priya", request).goals().get(0).judgement().state()).isEqualTo(Goal.State.MET);
        keep(a, "2.3");
        assertThat(view("hedda", request).goals().get(0).judgement().state()).isEqualTo(Goal.State.NOT_MET);
        assertThat(Web.as(server, "hedda").get("/requests/" + request).body())
                .contains("not met", "2 kg before, 2.3 kg after: +15.0 %");
        server.checkOut("priya", a);
        server.checkIn("priya", a, Review.sheet("lighter " + Server.key()), false);
        keep(a, "2.1");
        review.release(a);
        assertThat(view("hedda", request).goals().get(0).judgement().says("kg"))
                .as("once it is out, before is still what it was")
                .isEqualTo("2 kg before, 2.1 kg after: +5.0 %");
        assertThat(Web.as(server, "hedda").get("/changes").body()).contains("Flow", "A request took");
    }

    private void keep(long item, String mass) {
        server.bean(KeepFacts.class)
                .keep(
                        server.actor("priya"),
                        item,
                        Server.key(),
                        server.document(item).title(),
                        Map.of("mass", mass),
                        Map.of());
    }

    @Test
    void evidenceNamesExactVersionsAndIsWhatTheBoardSigns() {
        long a = released("shaft");
        String number = server.document(a).number();
        long request = ask("priya", Priority.USUAL, List.of(number + " v1", number, "", number + " v1"), a);
        assertThat(view("priya", request).evidence()).hasSize(2);
        write.addEvidence(server.actor("priya"), request, Server.key(), number + " v2 with v1", "the seat");
        write.addEvidence(server.actor("priya"), request, Server.key(), number + " v2 with v1", "twice");
        assertThat(view("priya", request).evidence()).hasSize(3);
        assertThat(view("priya", request).evidence().get(2).href()).endsWith("/versions/2/compare?old=1");
        for (String typed : List.of("D-99999 v1", number + " v77", "", "x".repeat(300), number + " v2 with v99")) {
            assertThat(code(() -> write.addEvidence(server.actor("priya"), request, Server.key(), typed, "")))
                    .as(typed)
                    .startsWith("evidence.");
        }
        String said = Web.as(server, "priya")
                .get("/documents/" + request + "/versions/"
                        + server.document(request).head().number() + "/file")
                .body();
        assertThat(said).contains("\"evidence\"", "\"against\" : 1", "\"cause\" : \"failed in use\"", "sha256");
    }

    @Test
    void wantedNowTellsWhoWasToldOfTheReleasedOne() {
        long a = review.drawing(shelf, "told " + Server.key() + ".dxf");
        review.release(a);
        long quiet = ask("priya", a);
        assertThat(told("rafael"))
                .noneMatch(s -> s.contains(server.document(quiet).number()));
        server.db()
                .execute(
                        "insert into notice (person, at, code, item, says, target) values (?, utc_timestamp(6), 'followed.release', ?, 'x', '/')",
                        server.actor("rafael").person(),
                        a);
        long now = ask("priya", Priority.NOW, List.of(), a);
        assertThat(told("rafael"))
                .anyMatch(s -> s.contains(server.document(now).number()) && s.contains("now: Cone pits"));
        assertThat(told("hedda"))
                .noneMatch(s -> s.contains("now: Cone pits")
                        && s.contains(server.document(now).number()));
    }

    @Test
    void theLastSignOffAndTheDeclineAtOnceHaveOneOutcome() throws Exception {
        for (int i = 0; i < 12; i++) {
            long request = ask("priya", released("race"));
            long round = board("priya", request);
            var pool = Executors.newFixedThreadPool(2);
            List<Future<String>> both = new ArrayList<>();
            both.add(pool.submit(() -> code(() -> {
                review.sign("oluwaseun", round);
                return "";
            })));
            both.add(pool.submit(() -> code(() ->
                    move.decide(server.actor("ines"), request, Server.key(), "decline", "no", Optional.empty()))));
            List<String> codes = new ArrayList<>();
            for (Future<String> one : both) codes.add(one.get());
            pool.shutdown();
            assertThat(codes)
                    .as("one goes, one is refused in words")
                    .filteredOn(String::isEmpty)
                    .hasSize(1);
            assertThat(stage(request)).isEqualTo(codes.get(0).isEmpty() ? "accepted" : "declined");
        }
    }

    @Test
    void theListCountsWhatIsOpenMineAndToDecide() {
        long request = ask("priya", released("listed"));
        ReadChanges read = server.bean(ReadChanges.class);
        int open = read.list(server.actor("priya"), ReadChanges.Which.OPEN, 0, 40)
                .counts()
                .get(ReadChanges.Which.OPEN);
        board("priya", request);
        ReadChanges.View board = read.list(server.actor("oluwaseun"), ReadChanges.Which.TO_DECIDE, 0, 500);
        assertThat(board.groups().get(0).rows()).anyMatch(r -> r.seen().spine().id() == request && r.yours());
        assertThat(read.list(server.actor("hedda"), ReadChanges.Which.OPEN, 0, 500)
                        .groups()
                        .get(0)
                        .rows())
                .anyMatch(r -> r.seen().spine().id() == request
                        && !r.yours()
                        && r.waits().contains("board member"));
        move.decide(server.actor("oluwaseun"), request, Server.key(), "decline", "no", Optional.empty());
        assertThat(read.list(server.actor("priya"), ReadChanges.Which.OPEN, 0, 40)
                        .counts())
                .containsEntry(ReadChanges.Which.OPEN, open - 1);
        assertThatThrownBy(() -> view("nobody", request)).isInstanceOf(NotThere.class);
        assertThat(server.bean(PaperStore.class).request(request)).isPresent();
    }
}
