package mintshelf.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.net.http.HttpResponse;
import java.util.HashMap;
import java.util.Map;
import mintshelf.app.use.change.MoveRequest;
import mintshelf.core.revision.StageClass;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** Requests and orders for programs: lists, papers, and the acts of change by plan and run. */
class ChangeApiTest {
    private static final JsonMapper JSON = JsonMapper.builder().build();
    private final Server server = Server.shared();
    private final Orders orders = new Orders(server);
    private final long shelf = server.shelf();

    private JsonNode get(String login, String path) {
        return JSON.readTree(Web.as(server, login).get("/api/v1" + path).body());
    }

    private HttpResponse<String> run(String login, String key, Map<String, Object> act) {
        return Web.as(server, login).json("/api/v1/runs", key, JSON.writeValueAsString(act));
    }

    private JsonNode plan(String login, Map<String, Object> act) {
        return JSON.readTree(Web.as(server, login)
                .json("/api/v1/plans", Server.key(), JSON.writeValueAsString(act))
                .body());
    }

    /** Plans an act, does it by the plan's digest, and gives the paper that it is about. */
    private long done(String login, Map<String, Object> act) {
        JsonNode plan = plan(login, act);
        assertThat(plan.path("opens").asBoolean()).as(plan.toString()).isTrue();
        Map<String, Object> seen = new HashMap<>(act);
        seen.put("plan", plan.path("digest").asString());
        String key = Server.key();
        HttpResponse<String> answer = run(login, key, seen);
        assertThat(answer.statusCode()).as(answer.body()).isEqualTo(201);
        String at = answer.headers().firstValue("Location").orElseThrow();
        // Sent again it is answered alike and not done twice.
        HttpResponse<String> again = run(login, key, seen);
        assertThat(again.statusCode()).isEqualTo(201);
        assertThat(again.headers().firstValue("Location")).contains(at);
        return Long.parseLong(at.substring("/api/v1/papers/".length()));
    }

    @Test
    void anOrderGoesFromAPlanToItsNotice() {
        long a = orders.released(shelf, "cone");
        long order = done(
                "priya",
                Map.of("act", "order", "documents", new long[] {a}, "title", "Duplex", "note", "pits at berth 3"));
        JsonNode paper = get("priya", "/papers/" + order);
        assertThat(paper.path("type").asString()).isEqualTo("order");
        assertThat(paper.path("lines").get(0).path("what").asString()).isEqualTo("revise");
        assertThat(paper.path("lines").get(0).path("variant").isNull()).isTrue();
        assertThat(plan("priya", Map.of("act", "start-work", "documents", new long[] {order}))
                        .path("rows")
                        .get(0)
                        .path("refusals")
                        .get(0)
                        .path("code")
                        .asString())
                .isEqualTo("access.missing");
        done("oluwaseun", Map.of("act", "start-work", "documents", new long[] {order}));
        orders.work(a);
        orders.signed(order);
        done("oluwaseun", Map.of("act", "carry-out", "documents", new long[] {order}));
        assertThat(get("priya", "/papers/" + order).path("notice").asString()).startsWith("CN ");
        assertThat(server.document(a).released().orElseThrow().label()).contains("B");
    }

    @Test
    void aSecondOrderSaysBehindWhichItGoes() {
        long a = orders.released(shelf, "ring");
        long first = orders.ask("priya", a);
        Map<String, Object> act =
                Map.of("act", "order", "documents", new long[] {a}, "title", "Later", "note", "because");
        assertThat(plan("priya", act).path("rows").get(0).path("says").toString())
                .contains("after " + server.document(first).number());
        long second = done("priya", act);
        assertThat(get("priya", "/papers/" + second)
                        .path("lines")
                        .get(0)
                        .path("after")
                        .get(0)
                        .asString())
                .isEqualTo(server.document(first).number());
    }

    @Test
    void aPlanThatIsNotTrueAnyMoreIsAnsweredWithTheNewOne() {
        long a = orders.released(shelf, "hub");
        Map<String, Object> act =
                new HashMap<>(Map.of("act", "order", "documents", new long[] {a}, "title", "Late", "note", "because"));
        act.put("plan", plan("priya", act).path("digest").asString());
        orders.ask("tomasz", a);
        HttpResponse<String> answer = run("priya", Server.key(), act);
        assertThat(answer.statusCode()).isEqualTo(409);
        assertThat(JSON.readTree(answer.body()).path("rows").get(0).path("says").toString())
                .contains("after CO ");
        assertThat(orders.lines(orders.ask("priya", orders.released(shelf, "other"))))
                .hasSize(1);
    }

    @Test
    void requestsAreAskedAndDecidedOn() {
        long a = orders.released(shelf, "mast");
        long request = done(
                "rafael", Map.of("act", "request", "documents", new long[] {a}, "title", "Burr", "note", "it cuts"));
        assertThat(get("rafael", "/changes?show=mine").toString()).contains("\"paper\":" + request);
        server.bean(MoveRequest.class).toBoard(server.actor("rafael"), request, Server.key(), "");
        done(
                "oluwaseun",
                Map.of("act", "decide", "documents", new long[] {request}, "move", "decline", "note", "too dear"));
        assertThat(server.document(request).current().stage().stageClass()).isEqualTo(StageClass.CLOSED);
        assertThat(plan("oluwaseun", Map.of("act", "decide", "documents", new long[] {request}, "move", "decline"))
                        .path("opens")
                        .asBoolean())
                .isFalse();
        assertThat(get("oluwaseun", "/changes?show=nothing").path("code").asString())
                .isEqualTo("changes.show");
    }

    @Test
    void whatSomebodyMayNotSeeIsNotAnswered() {
        long a = orders.released(shelf, "lid");
        long order = orders.ask("priya", a);
        assertThat(Web.as(server, "rafael").get("/api/v1/papers/" + order).statusCode())
                .isEqualTo(404);
        assertThat(get("rafael", "/changes?show=everything").toString()).doesNotContain("\"paper\":" + order + ",");
    }
}
