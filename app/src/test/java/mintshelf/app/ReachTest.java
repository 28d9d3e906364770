package mintshelf.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import mintshelf.app.ground.Refused;
import mintshelf.app.store.change.PaperStore;
import mintshelf.app.use.change.AskForChange;
import mintshelf.app.use.change.KeepImpact;
import mintshelf.app.use.change.KeepImpact.Says;
import mintshelf.app.use.change.MoveOrder;
import mintshelf.app.use.change.ReadImpact;
import mintshelf.core.change.Impact.Verdict;
import org.assertj.core.api.Assertions;
import org.junit.jupiter.api.Test;

/** How far an order reaches over the structure, what people say against it, what is taken into it. */
class ReachTest {
    private final Server server = Server.shared();
    private final Review review = new Review(server);
    private final long shelf = server.shelf();

    private long over(String name, long... components) {
        long item = review.drawing(shelf, name + " " + Server.key() + ".dxf");
        for (long c : components) server.refer(server.document(item).head().version(), c, "part " + c + ".dxf");
        review.release(item);
        return item;
    }

    private long order(Long... items) {
        String to = server.bean(AskForChange.class)
                .ask(server.actor("priya"), List.of(items), Server.key(), "Cone", "pits", Map.of());
        return Long.parseLong(to.substring("/orders/".length()));
    }

    private ReadImpact.View view(long order) {
        return server.bean(ReadImpact.class).of(server.actor("priya"), order);
    }

    private Optional<Verdict> verdict(long order, long item) {
        return view(order).reach().rows().stream()
                .filter(r -> r.seen().spine().id() == item)
                .map(r -> r.node().verdict())
                .findFirst();
    }

    private void say(long order, long item, Says says, String why) {
        server.bean(KeepImpact.class).say(server.actor("priya"), order, item, Server.key(), says, why);
    }

    @Test
    void aLineThatIsNotInterchangeableRevisesWhatItStandsInAndOneClickTakesThatIn() {
        long cone = over("cone");
        long well = over("well", cone);
        long station = over("station", well);
        long order = order(cone);
        assertThat(verdict(order, well)).contains(Verdict.TAKES);
        assertThat(verdict(order, station)).isEmpty();
        say(order, cone, Says.NEW_NUMBER, "");
        assertThat(verdict(order, well)).contains(Verdict.REVISED);
        assertThat(verdict(order, station)).contains(Verdict.TAKES);
        Web priya = Web.as(server, "priya");
        String page = priya.get("/changes/" + order + "/reach").body();
        assertThat(page)
                .contains(
                        "3 documents are touched",
                        "is revised: it refers to " + server.document(cone).number(),
                        "Take it into the order");
        assertThat(priya.get("/orders/" + order).body()).contains("How far it reaches", "One of them has work");
        priya.post("/ask-for-change", Map.of("actKey", Server.key(), "items", "" + well, "order", "" + order));
        assertThat(server.bean(PaperStore.class).lines(order)).hasSize(2);
        assertThat(view(order).reach().proposed()).isEmpty();
        assertThat(Web.as(server, "rafael").get("/changes/" + order + "/reach").statusCode())
                .isEqualTo(404);
    }

    @Test
    void whatIsSaidAgainstTheRuleNeedsWordsStandsAndCanBeTakenBack() {
        long cone = over("cone");
        long well = over("well", cone);
        long station = over("station", well);
        long order = order(cone);
        Assertions.assertThatThrownBy(() -> say(order, well, Says.NEW_NUMBER, " "))
                .isInstanceOf(Refused.class);
        say(order, well, Says.NEW_NUMBER, "each is proved by its own test");
        assertThat(verdict(order, well)).contains(Verdict.NEW_NUMBER);
        assertThat(verdict(order, station)).contains(Verdict.REVISED);
        assertThat(Web.as(server, "hedda").get("/changes/" + order + "/reach").body())
                .contains("Priya Malhan said so", "each is proved by its own test");
        say(order, well, Says.SPARED, "it is scrapped");
        assertThat(verdict(order, well)).isEmpty();
        assertThat(view(order).spared()).hasSize(1);
        say(order, well, Says.AS_BY_RULE, "");
        assertThat(verdict(order, well)).contains(Verdict.TAKES);
        Assertions.assertThatThrownBy(() -> say(order, cone, Says.SPARED, "no"))
                .isInstanceOf(Refused.class)
                .hasMessageContaining("is a line");
    }

    @Test
    void aLevelKeepsItsNumberWhenSomebodySaysSo() {
        long cone = over("cone");
        long well = over("well", cone);
        long order = order(cone);
        say(order, cone, Says.NEW_NUMBER, "");
        say(order, well, Says.INTERCHANGEABLE, "as ever");
        assertThat(verdict(order, well)).contains(Verdict.REVISED);
        int version = server.document(order).head().number();
        String paper = Web.as(server, "priya")
                .get("/documents/" + order + "/versions/" + version + "/file")
                .body();
        assertThat(paper).contains("\"reach\"", "as ever", "\"interchangeable\" : false");
        server.bean(MoveOrder.class).stop(server.actor("oluwaseun"), order, Server.key(), "no");
        Assertions.assertThatThrownBy(() -> say(order, well, Says.SPARED, "late"))
                .isInstanceOf(Refused.class)
                .hasMessageContaining("what it says stays");
    }

    @Test
    void manyAreFoldedFilteredFoundAndOpened() {
        long screw = over("screw");
        long last = 0;
        for (int i = 0; i < 14; i++) last = over("plate " + i, screw);
        long order = order(screw);
        Web priya = Web.as(server, "priya");
        String at = "/changes/" + order + "/reach";
        assertThat(priya.get(at).body()).contains("15 documents are touched", "5 more take it as it is");
        assertThat(priya.get(at + "?open=1").body()).doesNotContain("more take it as it is");
        String found = priya.get(at + "?find=" + server.document(last).number().toLowerCase(Locale.ROOT))
                .body();
        assertThat(found).contains("13 more take it as it is", "One by one, 1 of 15");
        assertThat(priya.get(at + "?only=REVISED").body()).contains("14 more take it as it is");
        assertThat(priya.get(at + "?find=nothing+like+it").body()).contains("Nothing of it fits");
        assertThat(priya.get(at + "?page=99&open=x,99999&only=no").statusCode()).isEqualTo(200);
    }

    @Test
    void programsAskForTheSameAndAreToldWhatIsWrong() throws Exception {
        long cone = over("cone");
        long well = over("well", cone);
        long station = over("station", well);
        String plan = plan("{\"act\":\"impact\",\"lines\":[{\"document\":" + cone
                + ",\"interchangeable\":false}],\"declared\":[{\"document\":" + well + ",\"interchangeable\":false}]}");
        assertThat(plan)
                .contains(
                        "\"verdict\":\"NEW_NUMBER\"",
                        "\"document\":" + station,
                        "\"verdict\":\"REVISED\"",
                        "\"because\":[" + well + "]",
                        "2 need new numbers, 1 is revised.");
        assertThat(plan("{\"act\":\"impact\"}")).contains("act.field");
        assertThat(plan("{\"act\":\"impact\",\"lines\":[]}")).contains("404");
        assertThat(plan("{\"act\":\"move\",\"move\":\"release\"}")).contains("act.field");
    }

    private String plan(String body) throws Exception {
        HttpRequest request = HttpRequest.newBuilder(URI.create(server.origin() + "/api/v1/plans"))
                .header("Content-Type", "application/json")
                .header("Authorization", "Bearer " + ApiTest.token(server, "priya", false))
                .POST(HttpRequest.BodyPublishers.ofString(body))
                .build();
        return HttpClient.newHttpClient()
                .send(request, HttpResponse.BodyHandlers.ofString())
                .body();
    }
}
