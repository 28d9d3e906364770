package mintshelf.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.HashMap;
import java.util.Map;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.Refused;
import mintshelf.app.use.change.KeepDisposition;
import mintshelf.core.change.Disposition.Place;
import mintshelf.core.change.Disposition.Written;
import org.apache.pdfbox.Loader;
import org.apache.pdfbox.text.PDFTextStripper;
import org.junit.jupiter.api.Test;

/** What becomes of the old ones: said line by line, totalled, signed with the order, announced with its notice. */
class OldOnesTest {
    private final Server server = Server.shared();
    private final Orders orders = new Orders(server);
    private final Review review = new Review(server);
    private final long shelf = server.shelf();
    private final KeepDisposition keep = server.bean(KeepDisposition.class);

    private void say(long order, long item, Place place, String quantity, String what, String cost) {
        keep.keep(
                server.actor("priya"),
                order,
                item,
                Server.key(),
                Map.of(place, new Written(quantity, what, cost, "EUR", "")));
    }

    private String paper(long order) {
        return new String(server.bytes(order), StandardCharsets.UTF_8);
    }

    @Test
    void itStandsOnItsOrderAndInWhatIsSigned() {
        long a = orders.released(shelf, "cone");
        long b = orders.released(shelf, "ring");
        long fresh = review.drawing(shelf, "new one");
        long order = orders.ask("priya", a, b, fresh);
        say(order, a, Place.STOCK, "6", "SCRAP", "792");
        say(order, b, Place.FIELD, "14", "", "");
        KeepDisposition.View view = keep.view(server.actor("priya"), order);
        assertThat(view.lines()).hasSize(2); // what is released for the first time has no old ones
        assertThat(view.totals().cost()).isEqualTo("792.00 EUR");
        assertThat(view.totals().unknown()).isEqualTo(1);
        assertThat(paper(order)).contains("\"quantity\" : \"6\"", "\"what\" : \"scrap\"");
        String page = Web.as(server, "priya").get("/orders/" + order).body();
        assertThat(page).contains("What becomes of the old ones", "6 scrap", "14 not decided", "Unknown:");
        say(order, a, Place.STOCK, "0", "", "");
        assertThat(keep.view(server.actor("priya"), order).totals().cost()).isEmpty();
    }

    @Test
    void whatCannotBeCountedIsRefusedAndNothingIsKept() {
        long a = orders.released(shelf, "axle");
        long order = orders.ask("priya", a);
        Map<String, String> form = new HashMap<>(Map.of(
                "actKey",
                Server.key(),
                "item",
                "" + a,
                "quantity.STOCK",
                "5",
                "what.STOCK",
                "USE",
                "quantity.FIELD",
                "1e308",
                "what.FIELD",
                "SCRAP"));
        assertThat(Web.as(server, "priya")
                        .post("/orders/" + order + "/disposition", form)
                        .body())
                .contains("1e308 is no quantity (in the field).");
        assertThat(keep.view(server.actor("priya"), order).isSaid()).isFalse();
        form.put("actKey", Server.key());
        form.put("quantity.FIELD", "2");
        form.put("cost.FIELD", "20");
        form.put("currency.FIELD", " ");
        assertThat(Web.as(server, "priya")
                        .post("/orders/" + order + "/disposition", form)
                        .body())
                .contains("The cost has no currency (in the field).");
        assertThat(keep.view(server.actor("priya"), order).isSaid()).isFalse();
    }

    @Test
    void beforeTheBoardItStays() throws IOException {
        long a = orders.released(shelf, "plate");
        long order = orders.ask("priya", a);
        orders.start(order);
        say(order, a, Place.STOCK, "3", "REWORK", "12.50");
        orders.work(a);
        orders.signed(order);
        assertThatThrownBy(() -> say(order, a, Place.STOCK, "4", "USE", ""))
                .isInstanceOf(Refused.class)
                .hasMessageContaining("stays");
        orders.carryOut(order);
        assertThatThrownBy(() -> say(order, orders.released(shelf, "no line"), Place.STOCK, "4", "USE", ""))
                .isInstanceOfAny(NotThere.class, Refused.class);
        byte[] page = Web.as(server, "priya")
                .bytes("/documents/" + order + "/versions/"
                        + server.document(order).head().number() + "/pdf")
                .body();
        try (var read = Loader.loadPDF(page)) {
            assertThat(new PDFTextStripper().getText(read))
                    .contains(
                            "Change order " + server.document(order).number(),
                            "place in stock, quantity 3, what rework, cost 12.50 EUR",
                            server.document(order).head().content().hex());
        }
        long notice = orders.view("priya", order).notice().orElseThrow().spine().id();
        for (String format : new String[] {"csv", "xlsx", "docx", "xml", "pdf"}) {
            String at = format.equals("pdf") ? "/versions/1/file" : "/versions/1/" + format;
            assertThat(Web.as(server, "rafael")
                            .bytes("/documents/" + notice + at)
                            .statusCode())
                    .as(format)
                    .isEqualTo(200);
        }
    }

    @Test
    void readersSeeItOnlyWithItsOrderAndChangeNothing() {
        long a = orders.released(shelf, "mast");
        long order = orders.ask("priya", a);
        assertThatThrownBy(() -> keep.keep(
                        server.actor("rafael"),
                        order,
                        a,
                        Server.key(),
                        Map.of(Place.STOCK, new Written("1", "USE", "", "", ""))))
                .isInstanceOf(NotThere.class);
        assertThat(keep.view(server.actor("hedda"), order).edits()).isFalse();
    }
}
