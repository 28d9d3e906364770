package mintshelf.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalLong;
import mintshelf.app.effect.HouseSeal;
import mintshelf.app.ground.UnitOfWork;
import mintshelf.app.store.house.RouteStore;
import mintshelf.app.store.house.RuleStore;
import mintshelf.app.store.output.OutputStore;
import mintshelf.app.use.output.MakeOutputs;
import mintshelf.core.base.Outcome;
import mintshelf.core.document.OutputFormat;
import mintshelf.core.document.Outputs;
import mintshelf.core.drawing.dxf.DxfDrawing;
import mintshelf.core.drawing.pdf.PdfSeal;
import mintshelf.core.house.DistributionRule;
import mintshelf.core.house.KindRule;
import mintshelf.core.house.Subject;
import mintshelf.core.notice.MailTime;
import mintshelf.core.notice.Moment;
import mintshelf.core.signoff.Asked;
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

    /** What goes with a mail is what the distribution names, of what the release made: here the DXF with its line. */
    @Test
    void theDistributionMailsTheCopyThatItNames() throws Exception {
        keepKind(Map.of("output.PDF", "1", "output.DXF", "1", "outputname", "{number} Rev {revision}"));
        distribute(DistributionRule.Way.DXF);
        try {
            long item = released(withLayers());
            String mailed = "";
            for (int i = 0; i < 100 && mailed.isEmpty(); i++) {
                server.db().execute("update delivery set next_at = now() where state = 'WAITING'");
                server.post();
                mailed = mailed(item);
                Thread.sleep(50);
            }
            assertThat(mailed)
                    .isEqualTo("mailed " + server.document(item).number() + " A.dxf to "
                            + server.actor("rafael").name());
        } finally {
            distribute(null);
        }
    }

    private String mailed(long item) {
        return String.join(
                "\n",
                server.db()
                        .fetch("select says from record_entry where item = ? and act = 'file.mailed'", item)
                        .getValues(0, String.class));
    }

    /** Rafael is told of each release with that; nobody of none. */
    private void distribute(DistributionRule.Way way) {
        Asked rafael = new Asked(
                Asked.Kind.PERSON, Long.toString(server.actor("rafael").person()));
        List<DistributionRule.Sentence> sentences = way == null
                ? List.of()
                : List.of(new DistributionRule.Sentence(
                        Moment.RELEASE, "drawing", "", rafael, way, Optional.of(MailTime.AT_ONCE)));
        server.bean(UnitOfWork.class)
                .run(() -> server.bean(RuleStore.class)
                        .add(
                                new DistributionRule(sentences),
                                new RouteStore.Made(OptionalLong.empty(), Instant.now(), "for a test")));
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
