package mintshelf.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.nio.charset.StandardCharsets;
import java.util.EnumMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import mintshelf.app.ground.Refused;
import mintshelf.app.sight.CheckSheets;
import mintshelf.app.store.document.VersionStore;
import mintshelf.app.store.house.CheckRuleStore;
import mintshelf.app.use.check.KeepCheckRules;
import mintshelf.app.use.check.WaiveFindings;
import mintshelf.app.use.record.ReadRecord;
import mintshelf.app.use.round.SendToReview;
import mintshelf.core.base.Refusal;
import mintshelf.core.drawing.check.CheckRules;
import mintshelf.core.drawing.check.CheckRules.Rule;
import mintshelf.core.drawing.check.CheckRules.Severity;
import org.assertj.core.api.Assertions;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;

/** Rules that the house makes binding keep a sheet from review until it is mended or let pass in words. */
class CheckRulesTest {
    private final Server server = Server.shared();
    private final Review review = new Review(server);
    private final KeepCheckRules keep = server.bean(KeepCheckRules.class);
    private final WaiveFindings waive = server.bean(WaiveFindings.class);

    private int edition() {
        return keep.of(server.actor("ines"), "drawing").edition().edition();
    }

    private void rules(CheckRules rules) {
        keep.keep(server.actor("ines"), Server.key(), "drawing", edition(), rules, "checker", "");
    }

    /** Other tests share the house: they find its rules as they were. */
    @AfterEach
    void asItWas() {
        rules(CheckRules.hints());
    }

    private static CheckRules demanding(String... facts) {
        Map<Rule, Severity> all = new EnumMap<>(CheckRules.hints().severities());
        all.put(Rule.TITLE_BLOCK, Severity.BINDING);
        return new CheckRules(all, List.of(facts), 2.5, Set.of());
    }

    @Test
    void editionsAreLaidBesideEachOtherAndSetBack() {
        int before = edition();
        keep.keep(
                server.actor("ines"), Server.key(), "drawing", before, demanding("scale"), "data-manager", "an audit");
        Web ines = Web.as(server, "ines");
        assertThat(ines.get("/check-rules/drawing?beside=0").body())
                .contains("Edition " + (before + 1) + " beside 0, as shipped")
                .contains(
                        "the title block is filled in", "was: a hint", "a data manager", "“an audit”", "Ines Kallmar");
        assertThat(ines.get("/check-rules/drawing?beside=999").statusCode()).isEqualTo(404);
        Map<String, String> back = Map.of("actKey", Server.key(), "number", "0", "edition", "" + (before + 1));
        assertThat(Web.as(server, "priya")
                        .post("/check-rules/drawing/set-back", back)
                        .statusCode())
                .isEqualTo(403);
        assertThat(ines.post("/check-rules/drawing/set-back", back).statusCode())
                .isEqualTo(302);
        assertThat(edition()).isEqualTo(before + 2);
        assertThat(keep.of(server.actor("ines"), "drawing").edition().rules()).isEqualTo(CheckRules.hints());
        assertThat(ines.get("/check-rules/drawing?beside=0").body()).contains("They say the same.");
    }

    private List<String> inTheWay(long item) {
        return server
                .bean(SendToReview.class)
                .plan(server.actor("priya"), List.of(item))
                .rows()
                .get(0)
                .inTheWay()
                .stream()
                .map(Refusal::code)
                .toList();
    }

    private String finding(long item) {
        return server
                .bean(CheckSheets.class)
                .findings(
                        server.document(item),
                        server.bean(VersionStore.class)
                                .version(item, server.document(item).head().number())
                                .orElseThrow())
                .orElseThrow()
                .stream()
                .filter(CheckSheets.Held::isInTheWay)
                .map(h -> CheckSheets.key(h.finding()))
                .findFirst()
                .orElseThrow();
    }

    @Test
    void aBindingFindingKeepsASheetFromReviewUntilItIsLetPassInWords() {
        long item = review.drawing(server.shelf(), "bound.dxf");
        assertThat(inTheWay(item)).isEmpty();
        rules(demanding("title", "colour"));
        assertThat(inTheWay(item)).containsExactly("gate.checks");
        assertThatThrownBy(() -> review.send("priya", item)).hasMessageContaining("has no colour");
        String finding = finding(item);
        assertThatThrownBy(() -> waive.waive(server.actor("priya"), item, Server.key(), finding, "just so"))
                .isInstanceOf(Refused.class)
                .hasMessageContaining("Checker");
        assertThatThrownBy(() -> waive.waive(server.actor("hedda"), item, Server.key(), finding, " "))
                .hasMessageContaining("Why it may pass");
        waive.waive(server.actor("hedda"), item, Server.key(), finding, "steel has no colour");
        assertThat(inTheWay(item)).isEmpty();
        assertThat(server.bean(ReadRecord.class).ofDocument(server.actor("ines"), item, Integer.MAX_VALUE, 5))
                .anyMatch(e -> e.entry().act().equals("check.waived")
                        && e.entry().why().equals("steel has no colour"));
        String page = Web.as(server, "hedda")
                .get("/documents/" + item + "/versions/2/checks")
                .body();
        assertThat(page).contains("Let pass by Hedda").contains("steel has no colour");
        // The next version of the same revision says the same: it stays let pass. Taken back, it is in the way again.
        server.checkOut("priya", item);
        server.checkIn("priya", item, Review.sheet("third " + Server.key()), false);
        assertThat(inTheWay(item)).isEmpty();
        long revision = server.document(item).pending().orElseThrow().id();
        long waiver = server.bean(CheckRuleStore.class)
                .waivers(List.of(revision))
                .get(revision)
                .get(0)
                .id();
        waive.takeBack(server.actor("hedda"), item, Server.key(), waiver);
        assertThat(inTheWay(item)).containsExactly("gate.checks");
    }

    @Test
    void aMendedSheetGoesToReviewAndIsNotAskedAgainThere() {
        long item = review.drawing(server.shelf(), "mended.dxf");
        rules(demanding("title"));
        assertThat(inTheWay(item)).isEmpty();
        long round = review.send("priya", item);
        rules(demanding("title", "colour"));
        review.sign("hedda", round);
        review.sign("oluwaseun", round);
        assertThat(server.document(item).released()).isPresent();
    }

    @Test
    void theHouseKeepsItsRulesOnAPage() {
        Web web = Web.as(server, "ines");
        assertThat(web.get("/check-rules").body()).contains("Drawing");
        Map<String, String> form = new LinkedHashMap<>();
        form.put("actKey", Server.key());
        form.put("edition", "" + edition());
        form.put("rule.SCALE", "BINDING");
        form.put("least", "3,5");
        form.put("layers", "outline, Dim");
        form.put("demanded", "number, title");
        form.put("waivedby", "board-member");
        assertThat(web.post("/check-rules/drawing", form).statusCode()).isEqualTo(302);
        CheckRuleStore.Edition kept = keep.of(server.actor("ines"), "drawing").edition();
        assertThat(kept.rules())
                .isEqualTo(new CheckRules(
                        Map.of(Rule.SCALE, Severity.BINDING),
                        List.of("number", "title"),
                        3.5,
                        Set.of("OUTLINE", "DIM")));
        assertThat(kept.waivedBy()).isEqualTo("board-member");
        form.put("actKey", Server.key());
        assertThat(web.post("/check-rules/drawing", form).body())
                .as("an old page")
                .contains("meanwhile");
        form.put("least", "nothing");
        assertThat(web.post("/check-rules/drawing", form).body()).contains("no height");
        assertThat(Web.as(server, "priya").get("/check-rules/drawing").statusCode())
                .isEqualTo(403);
    }

    @Test
    void whatNobodyCanReadIsAFindingThatKeepsADrawingFromReview() {
        Review review = new Review(server);
        long shelf = server.shelf();
        long text = server.file(
                "priya",
                shelf,
                "drawing",
                "no sheet " + shelf + ".txt",
                ("no sheet" + shelf).getBytes(StandardCharsets.UTF_8),
                true);
        server.checkIn("priya", text, "still no sheet " + shelf, false);
        String page = Web.as(server, "priya")
                .get("/documents/" + text + "/versions/2/checks")
                .body();
        assertThat(page).contains("The sheet is not read.").contains("not an exchange drawing");
        Refused refused = Assertions.catchThrowableOfType(Refused.class, () -> review.send("priya", text));
        assertThat(refused.refusal().reason()).contains("The sheet is not read");
        // Let pass in words by a checker, it goes; the release says that nothing was written into it.
        Web hedda = Web.as(server, "hedda");
        String key = hedda.get("/documents/" + text + "/versions/2/checks")
                .body()
                .replaceAll("(?s).*name=\"finding\" value=\"([^\"]*)\".*", "$1");
        hedda.post(
                "/documents/" + text + "/waive",
                Map.of("actKey", Server.key(), "finding", key, "words", "the customer's paper"));
        review.release(text);
        assertThat(Web.as(server, "priya").get("/documents/" + text + "/record").body())
                .contains("nothing was written into the sheet");
    }
}
