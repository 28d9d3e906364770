package mintshelf.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Map;
import mintshelf.app.store.person.GroupStore;
import mintshelf.app.use.columns.BomColumns;
import mintshelf.core.bom.Bom;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;

/** Which facts a bill of materials shows: for each purpose, one's own choice before that of one's group. */
class BomColumnsTest extends InBom {
    private final BomColumns columns = server.bean(BomColumns.class);
    private final Web web = Web.as(server, "priya");
    private final Web house = Web.as(server, "ines");

    private void choose(Web who, String purpose, String group, String... facts) {
        who.postAll(
                "/me/bom-columns",
                Map.of(
                        "actKey",
                        List.of(Server.key()),
                        "who",
                        List.of(purpose),
                        "group",
                        List.of(group),
                        "column",
                        List.of(facts)));
    }

    private void forget(String purpose) {
        web.post("/me/bom-columns", Map.of("actKey", Server.key(), "who", purpose, "forget", "x"));
    }

    /** Others share the house. */
    @AfterEach
    void asItWas() {
        for (Bom.For who : Bom.For.values()) columns.forget(priya, Server.key(), who);
    }

    private String page(long item, String purpose) {
        return web.get("/documents/" + item + "/bom?who=" + purpose).body();
    }

    @Test
    void eachPurposeHasColumnsOfItsOwnAndTablesHaveThem() throws Exception {
        part("pin", Map.of("material", "316L " + mark));
        long top = assembly("top", "pin", 2);
        assertThat(page(top, "engineering")).doesNotContain("316L " + mark).contains("/me/bom-columns?who=engineering");
        choose(web, "engineering", "", "material", "nonsense", "mass");
        assertThat(page(top, "engineering")).contains("<td>316L " + mark + "</td>", "<th scope=\"col\">Material</th>");
        assertThat(page(top, "manufacturing")).doesNotContain("316L " + mark);
        assertThat(web.get("/documents/" + top + "/bom/rows?from=0").body()).contains("<td>316L " + mark + "</td>");
        String csv = new String(web.bytes("/documents/" + top + "/bom.csv").body(), StandardCharsets.UTF_8);
        assertThat(csv.lines().findFirst().orElse("")).endsWith("variant,Material");
        assertThat(csv).contains(",316L " + mark);
        assertThat(Web.as(server, "tomasz").get("/documents/" + top + "/bom").body())
                .as("one's own choice is nobody else's")
                .doesNotContain("316L " + mark);
        assertThat(web.get("/me/bom-columns?who=purchasing").body())
                .as("what stands there anyway is no choice")
                .doesNotContain("value=\"supplier\"", "value=\"mass\"")
                .contains("value=\"material\"");
        assertThat(web.get("/me/bom-columns?who=anybody").statusCode()).isEqualTo(404);
    }

    @Test
    void aGroupsChoiceCountsForWhoChoseNothingAndIsMadeByWhoKeepsTheHouse() {
        part("pin", Map.of("material", "316L " + mark));
        long top = assembly("top", "pin", 2);
        GroupStore groups = server.bean(GroupStore.class);
        long group = groups.addGroup("Buyers " + mark);
        groups.join(group, priya.person());
        assertThat(web.get("/me/bom-columns?who=manufacturing").body()).doesNotContain("name=\"group\"");
        choose(web, "manufacturing", Long.toString(group), "material");
        assertThat(page(top, "manufacturing")).as("it is not for her to say").doesNotContain("316L " + mark);
        assertThat(house.get("/me/bom-columns?who=manufacturing").body()).contains("Buyers " + mark);
        choose(house, "manufacturing", Long.toString(group), "material");
        assertThat(page(top, "manufacturing")).contains("<td>316L " + mark + "</td>");
        assertThat(house.get("/record").body())
                .contains("bills of materials for manufacturing show Buyers " + mark + " material");
        choose(web, "manufacturing", "");
        assertThat(page(top, "manufacturing")).as("none is a choice too").doesNotContain("316L " + mark);
        assertThat(web.get("/me/bom-columns?who=manufacturing").body()).contains("As for everybody");
        forget("manufacturing");
        assertThat(page(top, "manufacturing")).contains("316L " + mark);
        choose(house, "manufacturing", Long.toString(group));
        assertThat(page(top, "manufacturing")).doesNotContain("316L " + mark);
    }
}
