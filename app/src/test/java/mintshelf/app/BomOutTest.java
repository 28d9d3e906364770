package mintshelf.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.ByteArrayInputStream;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Map;
import mintshelf.app.use.change.AskForChange;
import mintshelf.app.use.change.EditOrder;
import mintshelf.app.use.revision.StartRevisions;
import mintshelf.app.use.structure.KeepVariants;
import mintshelf.core.base.Outcome;
import mintshelf.core.bom.Variant;
import mintshelf.core.model.step.StepModel;
import mintshelf.core.model.step.StepReader;
import org.apache.pdfbox.Loader;
import org.apache.pdfbox.pdmodel.PDDocument;
import org.apache.pdfbox.text.PDFTextStripper;
import org.junit.jupiter.api.Test;

/** What of bills of materials is told elsewhere: as an exchange file, of orders, beside versions. */
class BomOutTest extends InBom {
    @Test
    void itsStructureGoesOutAsAnExchangeFileThatIsReadAgain() throws Exception {
        part("pin", Map.of("comes", "bought"));
        assembly("arm", "pin", 2);
        long top = assembly("top", "arm", 3);
        write(top, "", "", "Gl\u00fce", "1.5", "ml");
        var answer = Web.as(server, "priya").bytes("/documents/" + top + "/bom.stp");
        assertThat(answer.headers().firstValue("Content-Disposition").orElse(""))
                .contains("structure.stp");
        StepModel model =
                ((Outcome.Granted<StepModel>) StepReader.read(new ByteArrayInputStream(answer.body()))).value();
        assertThat(model.said()).isEmpty();
        assertThat(model.products())
                .extracting(StepModel.Product::id)
                .containsExactlyInAnyOrder(number("top"), number("arm"), number("pin"), "Gl\u00fce");
        assertThat(model.usages())
                .containsExactlyInAnyOrder(
                        new StepModel.Usage(number("top"), number("arm"), 3),
                        new StepModel.Usage(number("arm"), number("pin"), 2),
                        new StepModel.Usage(number("top"), "Gl\u00fce", 1));
        assertThat(model.externals())
                .extracting(StepModel.External::name)
                .containsExactlyInAnyOrder("top" + mark + ".stp", "arm" + mark + ".stp", "pin" + mark + ".stp");
        assertThat(new String(answer.body(), StandardCharsets.US_ASCII)).contains("VOLUME_MEASURE(1.5)", ",.BOUGHT.)");
        assertThat(Web.as(server, "rafael")
                        .get("/documents/" + top + "/bom.stp")
                        .statusCode())
                .isEqualTo(404);
    }

    @Test
    void whatAVersionChangesOfItIsToldWhereVersionsAreNamed() throws Exception {
        server.release("priya", part("nut", Map.of("mass", "0.01", "cost", "0.5")));
        part("cap", Map.of("mass", "0.2"));
        long top = assembly("top", "nut", 2);
        server.release("priya", top);
        server.bean(StartRevisions.class).start(priya, List.of(top), Server.key(), "more", "", true);
        server.checkIn("priya", top, model("top", "nut", 6, "cap", 1), false);
        String changed = "/documents/" + top + "/bom/changed?version=2&old=1";
        assertThat(Web.as(server, "priya").get(changed).body())
                .contains("1 added", "1 changed", "+ 0.24 kg", "+ 2.00", "1 line unknown", "with=v1");
        assertThat(Web.as(server, "priya")
                        .get("/documents/" + top + "/bom/changed?version=2&old=2")
                        .body())
                .contains("nothing differs");
        assertThat(Web.as(server, "priya")
                        .get("/documents/" + top + "/versions/2/model?with=1")
                        .body())
                .as("beside what differs of the model")
                .contains("/documents/" + top + "/bom/changed?version=2&amp;old=1");
        // Who reads what is released is told nothing of what is being prepared.
        assertThat(Web.as(server, "rafael").get(changed).statusCode()).isEqualTo(204);
        assertThat(Web.as(server, "priya")
                        .get("/documents/" + top + "/bom/changed?version=9&old=1")
                        .statusCode())
                .isEqualTo(404);
    }

    private void say(Orders orders, long order, long item, String variant) {
        server.bean(EditOrder.class)
                .edit(
                        priya,
                        order,
                        Server.key(),
                        new EditOrder.Written(
                                "wider",
                                Map.of(),
                                List.of(),
                                Map.of(),
                                List.of(),
                                List.of(),
                                Map.of(orders.line(order, item).id(), List.of(variant)),
                                "",
                                ""));
    }

    /** As the form sends it: which lines ask at all, and a field for each variant that is chosen. */
    @Test
    void anOrderIsToldOnItsPageWhichVariantsALineIsAbout() throws Exception {
        long bar = part("bar", Map.of("cost", "48"));
        server.bean(KeepVariants.class)
                .keep(
                        priya,
                        bar,
                        Server.key(),
                        List.of(new Variant("short", "", Map.of()), new Variant("long", "", Map.of())));
        server.release("priya", bar);
        Orders orders = new Orders(server);
        long order = orders.ask("priya", bar);
        long line = orders.line(order, bar).id();
        Web web = Web.as(server, "priya");
        assertThat(web.get("/orders/" + order + "?edit").body())
                .contains("name=\"variants." + line + "\"", "name=\"variant." + line + ".1\"");
        assertThat(web.get("/orders/" + order + "/disposition?item=" + bar).body())
                .as("who decides on old ones sees what they are worth")
                .contains("One costs 48.00 EUR", "It covers short, long", "placeholder=\"48.00 each\"");
        String actKey = Server.key();
        web.post(
                "/orders/" + order + "/lines",
                Map.of(
                        "actKey",
                        actKey,
                        "reason",
                        "bends",
                        "variants." + line,
                        "x",
                        "variant." + line + ".1",
                        "long",
                        "variant." + line + ".0",
                        "short"));
        assertThat(orders.view("priya", order).lines().get(0).variants()).containsExactly("short", "long");
        assertThat(web.get("/orders/" + order).body()).contains("short, long: ");
        // A form that does not ask leaves them; one that asks and names none takes them away.
        web.post("/orders/" + order + "/lines", Map.of("actKey", Server.key(), "reason", "bends much"));
        assertThat(orders.view("priya", order).lines().get(0).variants()).hasSize(2);
        web.post(
                "/orders/" + order + "/lines",
                Map.of("actKey", Server.key(), "reason", "bends", "variants." + line, "x"));
        assertThat(orders.view("priya", order).lines().get(0).variants()).isEmpty();
    }

    @Test
    void theNoticeOfAnOrderSaysWhatItDoesToPartsAndVariants() throws Exception {
        server.release("priya", part("nut", Map.of()));
        server.release("priya", part("cap", Map.of()));
        server.release("priya", part("pin", Map.of()));
        long top = assembly("top", "nut", 2, "pin", 1);
        write(top, "", "", "Grease", "5", "g");
        KeepVariants variants = server.bean(KeepVariants.class);
        variants.keep(priya, top, Server.key(), List.of(new Variant("left", "", Map.of("mass", "1"))));
        long other = assembly("other", "nut", 1);
        server.release("priya", top);
        server.release("priya", other);
        Orders orders = new Orders(server);
        long order = orders.ask("priya", top, other);
        say(orders, order, top, "left");
        assertThat(orders.view("priya", order).lines().get(0).variants()).containsExactly("left");
        assertThatThrownBy(() -> say(orders, order, top, "right")).hasMessageContaining("has no variant “right”");
        assertThat(new String(server.bytes(order), StandardCharsets.UTF_8)).contains("\"variants\" : [ \"left\" ]");
        orders.start(order);
        server.checkOut("priya", top);
        server.checkIn("priya", top, model("top", "nut", 6, "cap", 1), false);
        server.checkOut("priya", other);
        server.checkIn("priya", other, model("other, painted", "nut", 1), false);
        variants.keep(priya, top, Server.key(), List.of(new Variant("left", "", Map.of("mass", "2"))));
        assertThat(Web.as(server, "priya").get("/orders/" + order).body())
                .contains("/documents/" + top + "/bom/changed?version=2&amp;old=1");
        orders.signed(order);
        orders.carryOut(order);
        long notice = orders.view("priya", order).notice().orElseThrow().spine().id();
        Web web = Web.as(server, "priya");
        List<String> rows = new String(
                        web.bytes("/documents/" + notice + "/versions/1/csv").body(), StandardCharsets.UTF_8)
                .lines()
                .toList();
        assertThat(rows.get(0)).endsWith("reason,parts,sha256");
        assertThat(rows)
                .filteredOn(r -> r.contains(number("top")))
                .singleElement()
                .asString()
                .contains(
                        ",left; left: mass 1 → 2,",
                        "," + number("nut") + " 2 pc → 6 pc; " + number("cap") + " added (1 pc); " + number("pin")
                                + " gone,");
        assertThat(rows)
                .filteredOn(r -> r.contains(number("other")))
                .singleElement()
                .asString()
                .as("what it is made of is as it was")
                .doesNotContain("pc");
        try (PDDocument pages = Loader.loadPDF(server.bytes(notice))) {
            assertThat(new PDFTextStripper().getText(pages).replaceAll("\\s+", " "))
                    .contains("Parts: " + number("nut") + " 2 pc → 6 pc;", "Variants: left; left: mass 1 → 2");
        }
    }

    @Test
    void ordersUnderWayOnItAreToldToWhoSeesThem() throws Exception {
        long pin = part("pin", Map.of("comes", "bought"));
        long lug = part("lug", Map.of());
        server.release("priya", pin);
        server.release("priya", lug);
        long top = assembly("top", "pin", 2, "lug", 1);
        String nothing = orders("priya", top);
        assertThat(nothing).contains("No order is under way on it.");
        String order = server.bean(AskForChange.class)
                .ask(priya, List.of(pin, lug), Server.key(), "Longer " + mark, "too short", Map.of());
        assertThat(orders("priya", top))
                .contains("1 order under way on it", order, "Longer " + mark, "1 bought part")
                .contains(number("pin"), number("lug"));
        assertThat(orders("hedda", top)).contains("Longer " + mark);
        // Who reads what is released knows of no order, though both are in force.
        server.release("priya", top);
        assertThat(orders("rafael", top)).doesNotContain("Longer").contains("No order is under way on it.");
    }

    private String orders(String login, long item) throws Exception {
        return Web.as(server, login).get("/documents/" + item + "/bom/orders").body();
    }
}
