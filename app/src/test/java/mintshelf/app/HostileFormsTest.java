package mintshelf.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import mintshelf.app.use.change.AskForChange;
import org.junit.jupiter.api.Test;

/** What the forms of rounds and orders are sent that no page of ours sends: a sentence each time, and nothing done. */
class HostileFormsTest {
    private final Server server = Server.shared();
    private final Review review = new Review(server);
    private final long shelf = server.shelf();
    private final long sent = review.drawing(shelf, "hostile sent.dxf");
    private final long free = review.drawing(shelf, "hostile free.dxf");
    private final long round = review.send("priya", sent);
    private final long order = Long.parseLong(server.bean(AskForChange.class)
            .ask(
                    server.actor("priya"),
                    List.of(server.released(shelf, "hostile ordered.txt")),
                    Server.key(),
                    "Order",
                    "because",
                    Map.of())
            .substring("/orders/".length()));

    private String answer(String login, String path, Map<String, String> fields) {
        Web web = Web.as(server, login);
        web.get("/today");
        Map<String, String> form = new HashMap<>(fields);
        form.put("actKey", Server.key());
        var response = web.post(path, form);
        assertThat(response.body()).doesNotContain("Exception").doesNotContain("at mintshelf.");
        return response.statusCode() + " "
                + response.body().replaceAll("(?s)<[^>]+>", " ").replaceAll("\\s+", " ");
    }

    @Test
    void answersThatFitNoQuestion() {
        String path = "/rounds/" + round + "/answer";
        String seen = review.digest("hedda", round);
        Map<Map<String, String>, String> expected = new LinkedHashMap<>();
        expected.put(Map.of("seen", "x", "decision", "signed"), "409 .*has moved on since your page.*");
        expected.put(Map.of("seen", seen, "decision", "nonsense"), "400 .*Something was missing.*");
        expected.put(Map.of("seen", seen, "decision", "returned", "remark", " "), "409 .*needs a word why.*");
        expected.put(
                Map.of("seen", seen, "decision", "remarked", "remark", "x".repeat(100_000)),
                "409 .*2 000 are the most.*".replace(' ', '.'));
        expected.forEach((form, says) ->
                assertThat(answer("hedda", path, form)).as(form.keySet() + says).matches(says));
        assertThat(answer("priya", path, Map.of("seen", seen, "decision", "signed")))
                .matches("409 .*This asks a checker.*");
        assertThat(answer("hedda", "/rounds/999999999/answer", Map.of("seen", seen, "decision", "signed")))
                .startsWith("404");
        assertThat(review.store().round(round).orElseThrow().signOffs()).isEmpty();
    }

    @Test
    void sendingWhatCannotBeSentToPeopleWhoCannotBeAsked() {
        assertThat(answer("priya", "/send-to-review", Map.of("items", "" + sent)))
                .matches("409 .*in review already.*");
        assertThat(answer("priya", "/send-to-review", Map.of("items", "-1"))).startsWith("404");
        assertThat(answer("priya", "/send-to-review", Map.of("items", "" + free, "named.0", "999999999")))
                .matches("409 .*cannot sign this any more.*");
        assertThat(answer("priya", "/send-to-review", Map.of("items", "" + free, "version." + free, "1")))
                .matches("409 .*your page showed version 1.*");
        assertThat(review.store().openRound(free)).isEmpty();
    }

    @Test
    void ordersThatChangeNothingOrTooMuch() {
        String items = "" + free;
        assertThat(answer("priya", "/ask-for-change", Map.of("items", items, "title", "", "reason", "x")))
                .matches("409 .*In short is empty.*");
        assertThat(answer("priya", "/ask-for-change", Map.of("items", items, "title", "T", "reason", "x".repeat(5000))))
                .matches("409 .*The reason has.*");
        assertThat(answer("priya", "/ask-for-change", Map.of("items", items, "order", "999999999")))
                .startsWith("404");
        assertThat(answer("priya", "/ask-for-change", Map.of("items", "" + order, "title", "T", "reason", "x")))
                .matches("409 .*changes write it.*");
        for (String act : List.of("start", "carry-out")) {
            assertThat(answer("oluwaseun", "/orders/" + free + "/" + act, Map.of()))
                    .as(act)
                    .startsWith("404");
        }
        assertThat(answer("oluwaseun", "/orders/" + order + "/carry-out", Map.of()))
                .matches("409 .*is Outlined.*");
        assertThat(answer("priya", "/orders/" + order + "/board", Map.of())).matches("409 .*is Outlined.*");
        assertThat(answer("oluwaseun", "/orders/" + order + "/stop", Map.of("reason", " ")))
                .matches("409 .*The reason is empty.*");
        assertThat(server.document(order).current().stage().code()).isEqualTo("outlined");
    }
}
