package mintshelf.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.HashMap;
import java.util.Map;
import mintshelf.app.use.revision.StartRevisions;
import mintshelf.core.revision.StageClass;
import org.junit.jupiter.api.Test;

/** An assembly is withdrawn with what nothing else needs, or alone; never with what something needs. */
class WithdrawAlongTest {
    private final Server server = Server.shared();
    private final Review review = new Review(server);
    private final long shelf = server.shelf();

    private long over(String name, long... components) {
        long item = review.drawing(shelf, name + " " + Server.key() + ".dxf");
        for (long c : components) server.refer(server.document(item).head().version(), c, "part " + c + ".dxf");
        review.release(item);
        return item;
    }

    private String number(long item) {
        return server.document(item).number();
    }

    private String page(long item) {
        return Web.as(server, "ines")
                .get("/documents/" + item + "/moves/withdraw")
                .body();
    }

    private String withdraw(long item, String along) {
        Map<String, String> form = new HashMap<>(Map.of(
                "actKey",
                Server.key(),
                "expected",
                "" + server.document(item).head().number(),
                "remark",
                "cast now"));
        if (!along.isEmpty()) form.put("along", along);
        return Web.as(server, "ines")
                .post("/documents/" + item + "/moves/withdraw", form)
                .body();
    }

    private boolean gone(long item) {
        return server.document(item).current().stage().stageClass() == StageClass.WITHDRAWN;
    }

    @Test
    void whatNothingElseNeedsGoesWithItInOneActAndTheRestSaysWhyItStays() {
        long screw = over("screw");
        long liner = over("liner");
        long clamp = over("clamp", liner, screw);
        long other = over("other", screw);
        long top = over("top", clamp);
        String page = page(top);
        assertThat(page)
                .contains("Nothing else needs these", "value=\"" + clamp + "\"", "value=\"" + liner + "\"")
                .contains("stays: " + number(other) + " needs it")
                .doesNotContain("value=\"" + screw + "\"");
        withdraw(top, clamp + "," + liner);
        assertThat(gone(top)).isTrue();
        assertThat(gone(clamp)).isTrue();
        assertThat(gone(liner)).isTrue();
        assertThat(gone(screw)).isFalse();
        assertThat(Web.as(server, "hedda")
                        .get("/documents/" + liner + "/record")
                        .body())
                .contains("cast now");
    }

    @Test
    void withoutAChoiceItGoesAlone() {
        long part = over("part");
        long top = over("alone", part);
        withdraw(top, "");
        assertThat(gone(top)).isTrue();
        assertThat(gone(part)).isFalse();
    }

    @Test
    void whatIsNeededMeanwhileOrNeverBelongedKeepsAllWhereItIs() {
        long part = over("part");
        long between = over("between", part);
        long top = over("top", between);
        long stranger = over("stranger");
        assertThat(withdraw(top, "" + stranger)).contains(number(stranger) + " cannot go along");
        // Its assembly stays: the part is needed.
        assertThat(withdraw(top, "" + part))
                .contains(number(part) + " cannot go along: " + number(between) + " needs it");
        assertThat(page(top)).contains("value=\"" + part + "\"");
        long late = over("late", part);
        assertThat(withdraw(top, between + "," + part)).contains(number(late) + " needs it");
        assertThat(gone(top)).isFalse();
        assertThat(gone(between)).isFalse();
        assertThat(gone(part)).isFalse();
    }

    @Test
    void whatIsWorkedOnStaysAndNoOtherMoveTakesAnythingAlong() {
        long part = over("part");
        long top = over("top", part);
        server.bean(StartRevisions.class)
                .start(server.actor("priya"), java.util.List.of(part), Server.key(), "B", "", true);
        assertThat(page(top)).doesNotContain("name=\"along\"");
        withdraw(top, "" + part);
        assertThat(gone(top)).isFalse();
        long pending = review.drawing(shelf, "pending " + Server.key() + ".dxf");
        Map<String, String> form = Map.of(
                "actKey",
                Server.key(),
                "expected",
                "" + server.document(pending).head().number(),
                "remark",
                "",
                "along",
                "" + top);
        assertThat(Web.as(server, "ines")
                        .post("/documents/" + pending + "/moves/review", form)
                        .statusCode())
                .isNotIn(302, 500);
        assertThat(gone(top)).isFalse();
    }
}
