package mintshelf.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import mintshelf.app.effect.HouseSeal;
import mintshelf.app.store.output.OutputStore;
import mintshelf.app.use.output.MakeOutputs;
import mintshelf.core.base.Outcome;
import mintshelf.core.document.OutputFormat;
import mintshelf.core.document.Outputs;
import mintshelf.core.drawing.dxf.DxfDrawing;
import mintshelf.core.drawing.pdf.PdfSeal;
import mintshelf.core.house.KindRule;
import mintshelf.core.house.Subject;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;

/** What a kind has made of its released versions: which copies, how they are called, what they say. */
class OutputsByKindTest extends InAHouse {
    private final Review review = new Review(server);

    @AfterEach
    void asItWas() {
        keepKind(Map.of("output.PDF", "1", "outputname", "{number}_{revision}"));
    }

    /** Makes what waits; the server makes some of it by itself meanwhile. */
    private void make(long item) throws InterruptedException {
        long version = server.document(item).head().version();
        OutputStore outputs = server.bean(OutputStore.class);
        for (int i = 0; i < 600; i++) {
            while (server.bean(MakeOutputs.class).makeNext()) {
                // until nothing waits
            }
            if (outputs.of(version).stream().noneMatch(OutputStore.Output::isWaiting)) return;
            Thread.sleep(100);
        }
    }

    private KindRule kind() {
        return (KindRule) read.editions(server.actor("ines"), Subject.KIND, "drawing")
                .get(0)
                .rule();
    }

    private String keepKind(Map<String, String> with) {
        KindRule now = kind();
        Map<String, String> form = new HashMap<>(Map.of(
                "actKey", Server.key(),
                "edition",
                        ""
                                + read.editions(server.actor("ines"), Subject.KIND, "drawing")
                                        .get(0)
                                        .number(),
                "name", now.name(),
                "series", now.series(),
                "revisions", now.revisions(),
                "taken", "start",
                "route", now.route()));
        int place = 1;
        for (KindRule.OnSheet fact : now.facts()) {
            form.put("required." + fact.fact(), fact.required().name());
            form.put("place." + fact.fact(), "" + place++);
        }
        form.putAll(with);
        return Web.as(server, "ines").post("/house/kinds/drawing", form).body();
    }

    private long released() throws InterruptedException {
        long item = review.drawing(server.shelf(), "made " + Server.key() + ".dxf");
        review.release(item);
        make(item);
        return item;
    }

    /** The sheet of the tests with a table of layers, as a program would write it. */
    private static byte[] withLayers() {
        String sheet = new String(Review.sheet("layered " + Server.key()), StandardCharsets.ISO_8859_1);
        String table =
                "0|SECTION|2|TABLES|0|TABLE|2|LAYER|5|F0|100|AcDbSymbolTable|70|1|0|LAYER|5|F1|100|AcDbSymbolTableRecord|"
                        + "100|AcDbLayerTableRecord|2|0|70|0|62|7|6|CONTINUOUS|0|ENDTAB|0|ENDSEC|";
        int at = sheet.indexOf("ENTITIES");
        at = sheet.lastIndexOf("SECTION", at);
        at = sheet.lastIndexOf("0", at);
        while (sheet.charAt(at - 1) == ' ') at--;
        return (sheet.substring(0, at) + table.replace("|", "\r\n") + sheet.substring(at))
                .getBytes(StandardCharsets.ISO_8859_1);
    }

    private long released(byte[] sheet) throws InterruptedException {
        long item = server.file("priya", server.shelf(), "drawing", "made " + Server.key() + ".dxf", sheet, true);
        server.checkIn(
                "priya",
                item,
                new String(sheet, StandardCharsets.ISO_8859_1)
                        .replace("layered", "again")
                        .getBytes(StandardCharsets.ISO_8859_1),
                false);
        review.release(item);
        make(item);
        return item;
    }

    private HttpResponse<byte[]> fetch(String login, long item, int version, String format) {
        return Web.as(server, login).bytes("/documents/" + item + "/versions/" + version + "/" + format);
    }

    @Test
    void everyFormatThatAKindNamesIsMadeOnceAndCalledByItsPattern() throws Exception {
        keepKind(Map.of(
                "output.PDF",
                "1",
                "output.DXF",
                "1",
                "output.SVG",
                "1",
                "output.PNG",
                "1",
                "outputname",
                "{number} Rev {revision}"));
        assertThat(kind().outputs().formats())
                .containsExactly(OutputFormat.PDF, OutputFormat.DXF, OutputFormat.SVG, OutputFormat.PNG);
        long item = released(withLayers());
        int version = server.document(item).head().number();
        String number = server.document(item).number();
        String page = Web.as(server, "rafael").get("/documents/" + item).body();
        assertThat(page).contains("Fetch the PDF", "Fetch the DXF", "Fetch the SVG", "Fetch the PNG");

        HttpResponse<byte[]> pdf = fetch("rafael", item, version, "pdf");
        assertThat(pdf.headers().firstValue("Content-Disposition").orElse("").replace("%20", " "))
                .contains(number + " Rev A.pdf");
        PdfSeal.Proof proof = server.bean(HouseSeal.class).proof(pdf.body()).orElseThrow();
        assertThat(proof.unchanged()).isTrue();

        HttpResponse<byte[]> dxf = fetch("rafael", item, version, "dxf");
        String copy = new String(dxf.body(), StandardCharsets.ISO_8859_1);
        assertThat(copy).contains("MINT_SHELF", number).contains("uncontrolled when printed");
        assertThat(DxfDrawing.read(dxf.body()) instanceof Outcome.Granted<DxfDrawing>)
                .isTrue();

        String svg = new String(fetch("rafael", item, version, "svg").body(), StandardCharsets.UTF_8);
        assertThat(svg).startsWith("<svg").contains("uncontrolled when printed").doesNotContain("<script");
        byte[] png = fetch("rafael", item, version, "png").body();
        assertThat(png).startsWith(0x89, 'P', 'N', 'G');
        assertThat(fetch("rafael", item, version, "step").statusCode()).isEqualTo(404);
        assertThat(fetch("nobody", item, version, "svg").statusCode()).isEqualTo(404);
    }

    @Test
    void whatCannotBeMadeSaysWhy() throws InterruptedException {
        keepKind(Map.of("output.DXF", "1", "outputname", "{number}"));
        long item = released();
        assertThat(Web.as(server, "priya").get("/documents/" + item).body())
                .contains("No DXF: The drawing has no table of layers");
    }

    @Test
    void whatIsOutOfForceIsFetchedAsAPdfThatSaysSoAndIsSealedAgain() throws InterruptedException {
        keepKind(Map.of("output.PDF", "1", "output.SVG", "1", "outputname", "{number}_{revision}"));
        long item = released();
        int version = server.document(item).head().number();
        server.bean(mintshelf.app.use.revision.StartRevisions.class)
                .start(server.actor("priya"), List.of(item), Server.key(), "thicker", "", false);
        server.checkOut("priya", item);
        server.checkIn("priya", item, Review.sheet("thicker " + Server.key()), false);
        review.release(item);
        make(item);
        assertThat(new String(fetch("priya", item, version, "svg").body(), StandardCharsets.UTF_8))
                .contains("Replaced by B", "Fetch its PDF");
        byte[] pdf = fetch("priya", item, version, "pdf").body();
        PdfSeal.Proof proof = server.bean(HouseSeal.class).proof(pdf).orElseThrow();
        assertThat(proof.unchanged()).isTrue();
        assertThat(Web.as(server, "priya")
                        .get("/documents/" + item + "?version=" + version)
                        .body())
                .contains("Fetch the PDF of version")
                .doesNotContain("Fetch the SVG of version");
    }

    @Test
    void aNameThatManyWouldHaveIsRefusedAndNothingIsKept() {
        Outputs before = kind().outputs();
        assertThat(keepKind(Map.of("output.PDF", "1", "outputname", "{title}"))).contains("Put {number} into the name");
        assertThat(keepKind(Map.of("output.PDF", "1", "outputname", "{number}{owner}")))
                .contains("{owner}");
        assertThat(kind().outputs()).isEqualTo(before);
    }

    @Test
    void aKindThatNamesNothingMakesNothing() throws InterruptedException {
        keepKind(Map.of("outputname", "{number}"));
        assertThat(kind().outputs().formats()).isEmpty();
        long item = released();
        long version = server.document(item).head().version();
        assertThat(server.bean(OutputStore.class).of(version)).isEmpty();
    }

    @Test
    void theSealIsMadeOnceForAllNodes() {
        HouseSeal one = server.bean(HouseSeal.class);
        byte[] certificate = one.certificate();
        HouseSeal other = new HouseSeal(
                server.bean(mintshelf.app.store.output.SealStore.class),
                server.bean(mintshelf.app.setup.Settings.class),
                server.bean(mintshelf.app.ground.UnitOfWork.class),
                server.bean(java.time.Clock.class));
        assertThat(other.certificate()).isEqualTo(certificate);
        assertThat(Web.as(server, "rafael").bytes("/seal.cer").body()).isEqualTo(certificate);
        assertThat(one.name()).startsWith("Mint Shelf on ");
    }
}
