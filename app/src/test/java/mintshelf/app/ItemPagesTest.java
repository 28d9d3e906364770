package mintshelf.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Map;
import mintshelf.app.ground.Actor;
import mintshelf.app.use.document.KeepFacts;
import mintshelf.app.use.revision.StartRevisions;
import mintshelf.app.use.structure.KeepBomLines;
import mintshelf.app.use.structure.KeepBomLines.Typed;
import org.junit.jupiter.api.Test;

/** One thing on one page: what bears its number, for who works on it and for who reads. */
class ItemPagesTest {
    private final Server server = Server.shared();
    private final long shelf = server.shelf();
    private final String mark = Server.key().substring(0, 6);
    private final Actor priya = server.actor("priya");
    private final long model = server.file(
            "priya",
            shelf,
            "part-model",
            "lid" + mark + ".stp",
            "L" + mark,
            StructureTest.assembly("lid" + mark),
            false);

    private long drawing() throws Exception {
        return server.file(
                "priya", shelf, "drawing", "lid" + mark + ".dxf", "L" + mark, InDesign.plate("5", "deburr"), false);
    }

    private String page(String login, long item) throws Exception {
        return Web.as(server, login).get("/documents/" + item + "/item").body();
    }

    private void say(long item, String fact, String value) {
        server.bean(KeepFacts.class)
                .keep(priya, item, Server.key(), server.document(item).title(), Map.of(fact, value), Map.of());
    }

    @Test
    void drawingAndModelStandBesideEachOtherWhicheverIsAsked() throws Exception {
        long drawing = drawing();
        say(model, "mass", "0.7384");
        say(drawing, "mass", "0.74");
        say(model, "material", "316L");
        say(drawing, "material", "1.4404");
        String ofModel = page("priya", model);
        assertThat(ofModel.replaceAll("value=\"[^\"]{30,}\"|content=\"[^\"]{30,}\"", ""))
                .contains("aria-label=\"Versions and revisions of all of them over time\"", "Do they agree?")
                .contains("0.74 kg", "everywhere", "1.4404 on the drawing, 316L on the model")
                .contains("/check-out?items=" + drawing + "," + model, "of drawing and model");
        assertThat(ofModel.split("class=\"item-look\"")).hasSize(3);
        assertThat(page("priya", drawing)).contains("of drawing and model");
        // Each page leads to it.
        assertThat(Web.as(server, "priya").get("/documents/" + drawing).body())
                .contains("/documents/" + drawing + "/item", "with its part model");
    }

    @Test
    void theActIsOnThoseThatItCanBeDoneWith() throws Exception {
        long drawing = drawing();
        server.checkOut("priya", model);
        assertThat(page("priya", model)).contains("/check-in?items=" + model + "\"", ">of model<");
        assertThat(page("hedda", drawing)).doesNotContain("/check-in?items", "/check-out?items");
    }

    @Test
    void readersSeeWhatIsReleasedOfItAlone() throws Exception {
        long drawing = drawing();
        server.release("priya", model);
        assertThat(Web.as(server, "rafael")
                        .get("/documents/" + drawing + "/item")
                        .statusCode())
                .isEqualTo(404);
        String before = stable(page("rafael", model));
        assertThat(before).doesNotContain("drawing").contains(">model<");
        server.bean(StartRevisions.class).start(priya, List.of(model), Server.key(), "wider", "", true);
        server.checkIn("priya", model, StructureTest.assembly("lid wider" + mark), false);
        say(drawing, "material", "secret" + mark);
        String after = stable(page("rafael", model));
        assertThat(after).doesNotContain("secret" + mark, "wider", "v2");
        assertThat(after.replace(" <span class=\"quiet\">· being revised</span>", ""))
                .isEqualTo(before);
    }

    /** Without what each answer has anew. */
    private static String stable(String page) {
        return page.replaceAll("[A-Za-z0-9_-]{60,}", "");
    }

    @Test
    void aThingOfOneDocumentIsOneLine() throws Exception {
        String page = page("priya", model);
        assertThat(page).doesNotContain("Do they agree?").contains("Nowhere yet.", "Who holds what");
    }

    @Test
    void whereItStandsIsToldOverFilesAndLinesByHand() throws Exception {
        long top = server.file(
                "priya",
                shelf,
                "assembly-model",
                "top" + mark + ".stp",
                "T" + mark,
                StructureTest.assembly("top" + mark, "lid" + mark + ".stp", 3),
                false);
        long other = server.file(
                "priya",
                shelf,
                "assembly-model",
                "o" + mark + ".stp",
                "O" + mark,
                StructureTest.assembly("o" + mark),
                false);
        server.bean(KeepBomLines.class)
                .write(priya, other, Server.key(), new Typed(0, "", "L" + mark, "", "2", "pc", "", "", ""));
        assertThat(page("priya", model))
                .contains("/documents/" + top + "/item", ">× 3<", "/documents/" + other + "/item", ">2 pc, by hand<");
    }

    @Test
    void aStructureReadByItemsShowsWhatElseBearsEachNumber() throws Exception {
        long drawing = drawing();
        long top = server.file(
                "priya",
                shelf,
                "assembly-model",
                "top" + mark + ".stp",
                "T" + mark,
                StructureTest.assembly("top" + mark, "lid" + mark + ".stp", 3),
                false);
        Web web = Web.as(server, "priya");
        String at = "/documents/" + top + "/structure";
        assertThat(web.get(at).body()).contains("by=item\"").doesNotContain(">drawing</a>");
        assertThat(web.get(at + "?by=item").body())
                .contains("/documents/" + model + "/item\"", "/documents/" + drawing + "\"", ">drawing</a>")
                .contains("view=latest&amp;by=item");
        assertThat(web.get(at + "?by=anything&only=").body()).doesNotContain(">drawing</a>");
        server.release("priya", model);
        server.release("priya", top);
        assertThat(Web.as(server, "rafael")
                        .get(at + "?view=as-released&by=item")
                        .body())
                .as("a drawing in preparation is not there for who reads what is released")
                .contains("L" + mark)
                .doesNotContain(">drawing</a>", "/item\"");
    }

    @Test
    void linesOfAnOrderOnOneThingStandTogether() throws Exception {
        long drawing = drawing();
        server.release("priya", model);
        new Review(server).release(drawing);
        Orders orders = new Orders(server);
        long between = orders.released(shelf, "other" + mark + ".dxf");
        long order = orders.ask("priya", model, between, drawing);
        assertThat(orders.view("priya", order).lines())
                .extracting(l -> l.line().item())
                .containsExactly(model, drawing, between);
        assertThat(Web.as(server, "priya").get("/orders/" + order).body())
                .contains(
                        "part model, with its drawing",
                        "drawing, with its part model",
                        "/documents/" + model + "/item");
    }

    @Test
    void whatWasDroppedAndPapersOfChangesAreNoThing() throws Exception {
        assertThat(Web.as(server, "priya").get("/documents/999999/item").statusCode())
                .isEqualTo(404);
        assertThat(Web.as(server, "nobody").get("/documents/" + model + "/item").statusCode())
                .isEqualTo(404);
    }
}
