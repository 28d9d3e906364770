package mintshelf.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.awt.Color;
import java.awt.image.BufferedImage;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import javax.imageio.ImageIO;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.Refused;
import mintshelf.app.store.redline.RemarkStore;
import mintshelf.app.use.redline.MakeRemark;
import mintshelf.app.use.redline.ReadRemarks;
import mintshelf.app.use.redline.TakeInRemarks;
import mintshelf.app.use.redline.TalkOfRemarks;
import mintshelf.core.drawing.Box;
import mintshelf.core.drawing.pdf.Paper;
import mintshelf.core.redline.Colour;
import mintshelf.core.redline.Look;
import mintshelf.core.redline.Point;
import mintshelf.core.redline.Remark;
import mintshelf.core.redline.Tool;
import mintshelf.database.schema.Tables;
import org.apache.pdfbox.Loader;
import org.apache.pdfbox.pdmodel.PDDocument;
import org.apache.pdfbox.pdmodel.PDPage;
import org.apache.pdfbox.pdmodel.PDPageContentStream;
import org.apache.pdfbox.pdmodel.common.PDRectangle;
import org.apache.pdfbox.pdmodel.interactive.annotation.PDAnnotation;
import org.apache.pdfbox.pdmodel.interactive.annotation.PDAnnotationText;
import org.junit.jupiter.api.Test;

/** Marks on what is no drawing: pages of PDFs, pictures, models. */
class MarkedPapersTest {
    private final Server server = Server.shared();
    private final long shelf = server.shelf();
    private final MakeRemark make = server.bean(MakeRemark.class);
    private final Web hedda = Web.as(server, "hedda");

    static byte[] pdf(int pages) {
        try (PDDocument document = new PDDocument()) {
            for (int i = 0; i < pages; i++) {
                PDPage page = new PDPage(PDRectangle.A4);
                document.addPage(page);
                try (PDPageContentStream draws = new PDPageContentStream(document, page)) {
                    draws.setNonStrokingColor(
                            new Color(40 + i, Math.floorMod(Server.key().hashCode(), 200), 90));
                    draws.addRect(72, 72, 200, 120);
                    draws.fill();
                }
            }
            ByteArrayOutputStream out = new ByteArrayOutputStream();
            document.save(out);
            return out.toByteArray();
        } catch (IOException e) {
            throw new IllegalStateException(e);
        }
    }

    static byte[] photograph(int width, int height) {
        BufferedImage image = new BufferedImage(width, height, BufferedImage.TYPE_INT_RGB);
        image.setRGB(3, 3, Server.key().hashCode());
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        try {
            ImageIO.write(image, "png", out);
        } catch (IOException e) {
            throw new IllegalStateException(e);
        }
        return out.toByteArray();
    }

    private long filed(String ending, byte[] bytes) {
        return server.file("priya", shelf, "specification", "paper " + Server.key() + "." + ending, bytes, true);
    }

    private static MakeRemark.Draft draft(String layout, Tool tool, String line, Point... points) {
        return new MakeRemark.Draft(
                layout,
                tool,
                List.of(List.of(points)),
                "",
                Remark.Kind.CHANGE,
                line,
                "",
                new Look(Colour.TEAL, 3.5),
                Box.EMPTY,
                Optional.empty());
    }

    private Remark mark(long item, int version, MakeRemark.Draft draft) {
        String to = make.make(server.actor("hedda"), item, version, Server.key(), draft);
        return server.bean(RemarkStore.class)
                .remark(Long.parseLong(to.substring(to.lastIndexOf('/') + 1)))
                .orElseThrow();
    }

    private static MakeRemark.Draft cloud(String layout, String line) {
        return draft(layout, Tool.CLOUD, line, new Point(30, 30), new Point(80, 60));
    }

    @Test
    void aPageOfAPdfIsMarkedInMillimetresUnderItsZoneAndLeadsBackToItsPage() {
        long item = filed("pdf", pdf(3));
        Remark first = mark(item, 1, cloud("", "Which edition?"));
        Remark third = mark(item, 1, cloud("Page 3", "Not our gasket"));
        assertThat(first.layout()).isEqualTo("Page 1");
        assertThat(third.number()).matches("[A-Z]\\d+-2");
        String at = "/documents/" + item + "/versions/1/";
        assertThat(hedda.get("/documents/" + item + "/remarks/" + third.id())
                        .headers()
                        .firstValue("location"))
                .hasValueSatisfying(
                        to -> assertThat(to).endsWith(at + "sheet?remark=" + third.id() + "&layout=Page+3"));
        String panel = hedda.get(at + "remarks?layout=Page%201").body();
        assertThat(panel).contains("Which edition?", "1 open on Page 3").doesNotContain("Not our gasket");
        String viewer = hedda.get(at + "sheet?layout=Page%203").body();
        assertThat(viewer)
                .contains("page?page=3", "3 of 3", "data-tool=\"size\"")
                .doesNotContain("data-measure-on");
        assertThat(hedda.get(at + "page?page=3").headers().firstValue("content-type"))
                .contains("image/png");
        assertThat(hedda.get(at + "page?page=4").body()).contains("no such page");
        assertThat(hedda.get(at + "sheet?layout=Page%204").statusCode()).isEqualTo(404);
        assertThat(hedda.get("/documents/" + item).body()).contains(at + "sheet", at + "page", "Page 1 of 3");
    }

    @Test
    void aRemarkNamesTheChapterThatItStandsIn() {
        long item = filed("pdf", Paper.pdf("purpose", "conditions"));
        mark(item, 1, cloud("Page 2", "At what temperature?"));
        String at = "/documents/" + item + "/versions/1/";
        assertThat(hedda.get(at + "remarks?layout=Page%202").body()).contains("in About conditions");
        assertThat(hedda.get(at + "remarks?layout=Page%201").body()).contains("1 open on Page 2 (About conditions)");
        assertThat(server.db()
                        .fetch(Tables.RECORD_ENTRY, Tables.RECORD_ENTRY.ITEM.eq(item))
                        .getValues(Tables.RECORD_ENTRY.SAYS))
                .anyMatch(says -> says.startsWith("made remark") && says.endsWith("in “About conditions”"));
        assertThat(server.db().fetch(Tables.NOTICE, Tables.NOTICE.ITEM.eq(item)).getValues(Tables.NOTICE.SAYS))
                .anyMatch(says -> says.contains("in “About conditions”: At what temperature?"));
    }

    @Test
    void aPictureIsMarkedInItsDotsAndHasNoSizes() {
        long item = filed("png", photograph(800, 600));
        Remark scratch =
                mark(item, 1, draft("", Tool.ARROW_NOTE, "Scratch here", new Point(700, 500), new Point(400, 300)));
        assertThat(scratch.layout()).isEmpty();
        assertThat(scratch.number()).isEqualTo("R-1");
        assertThatThrownBy(() ->
                        mark(item, 1, draft("", Tool.SIZE, "", new Point(1, 1), new Point(90, 1), new Point(9, 9))))
                .isInstanceOf(Refused.class)
                .hasMessageContaining("A picture has no sizes");
        assertThatThrownBy(() -> mark(item, 1, draft("", Tool.NOTE, "", new Point(9000, 1))))
                .isInstanceOf(Refused.class)
                .hasMessageContaining("off the sheet");
        String viewer = hedda.get("/documents/" + item + "/versions/1/sheet").body();
        assertThat(viewer).contains("versions/1/picture", "data-tool=\"ink\"").doesNotContain("data-tool=\"size\"");
    }

    @Test
    void onALaterVersionTheyStandWhereTheyStoodAndSaySo() {
        long item = filed("pdf", pdf(2));
        Remark second = mark(item, 1, cloud("Page 2", "Wrong table"));
        server.checkIn("priya", item, pdf(2), true);
        ReadRemarks read = server.bean(ReadRemarks.class);
        assertThat(read.on(server.actor("hedda"), item, 2, "Page 2").placed())
                .singleElement()
                .satisfies(p -> assertThat(p.followed().says()).isEqualTo("stands where it stood on version 1"));
        server.checkIn("priya", item, pdf(1), true);
        // Its page is gone: it is still found, on the version that has it.
        assertThat(read.address(server.actor("hedda"), second)).contains("/versions/1/sheet");
        assertThat(read.elsewhere(read.on(server.actor("hedda"), item, 3, ""), 3))
                .singleElement()
                .satisfies(e -> assertThat(e.layout()).isEqualTo("Page 2"));
    }

    @Test
    void theyGoOutWithTheirPageAndComeBackToIt() {
        long item = filed("pdf", pdf(2));
        Remark remark = mark(item, 1, cloud("Page 2", "Which standard?"));
        String at = "/documents/" + item + "/versions/1/";
        String page = hedda.get(at + "marked.html?layout=Page%202").body();
        assertThat(page).contains("data:image/png;base64,", "Which standard?");
        assertThat(hedda.get(at + "marked.html?layout=Page%202&sheet=no").body())
                .contains("Which standard?")
                .doesNotContain("data:image/png;base64,");
        assertThat(hedda.get(at + "marked.html").body()).contains("No mark stands on this sheet");
        assertThat(hedda.get(at + "marked.dxf?layout=Page%202").statusCode()).isEqualTo(404);
        assertThat(hedda.get(at + "send-remarks?layout=Page%202").body()).contains("Which standard?", "Page 2");
        String json = hedda.get(at + "marked.json?layout=Page%202")
                .body()
                .replace(
                        remark.uid(),
                        "11111111-2222-4333-8444-"
                                + Server.key().substring(0, 12).replace("-", "a"));
        String took = server.bean(TakeInRemarks.class)
                .take(server.actor("priya"), item, 1, "Page 2", Server.key(), json.getBytes(StandardCharsets.UTF_8));
        assertThat(took).isEqualTo("took in 1 remark");
        assertThat(server.bean(ReadRemarks.class)
                        .on(server.actor("hedda"), item, 1, "Page 2")
                        .placed())
                .hasSize(2);
    }

    /** The PDF itself goes out with the marks as its annotations, those that it had stay, and an answer to them comes back. */
    @Test
    void aPdfGoesOutWithItsOwnPagesAndTheMarksAsAnnotations() throws IOException {
        byte[] own = pdf(2);
        try (PDDocument document = Loader.loadPDF(own)) {
            PDAnnotationText before = new PDAnnotationText();
            before.setContents("from the supplier");
            before.setRectangle(new PDRectangle(20, 20, 20, 20));
            document.getPage(1).setAnnotations(List.of(before));
            document.getPage(1).setCropBox(new PDRectangle(20, 30, 500, 700));
            own = saved(document);
        }
        long item = filed("pdf", own);
        Remark remark = mark(item, 1, cloud("Page 2", "Which standard?"));
        String at = "/documents/" + item + "/versions/1/marked.pdf?layout=Page%202";
        byte[] out = hedda.bytes(at).body();
        byte[] back;
        try (PDDocument document = Loader.loadPDF(out)) {
            assertThat(document.getNumberOfPages()).isEqualTo(2);
            assertThat(document.getPage(0).getAnnotations()).isEmpty();
            List<PDAnnotation> notes = new ArrayList<>(document.getPage(1).getAnnotations());
            assertThat(notes).extracting(PDAnnotation::getContents).contains("from the supplier", "Which standard?");
            PDAnnotation mine = notes.stream()
                    .filter(n -> remark.uid().equals(n.getAnnotationName()))
                    .findFirst()
                    .orElseThrow();
            // From 30 mm in the crop box on: 20 pt + 30 mm.
            assertThat((double) mine.getRectangle().getLowerLeftX())
                    .isBetween(20 + 26 * 72 / 25.4, 20 + 30 * 72 / 25.4);
            PDAnnotationText answer = new PDAnnotationText();
            answer.setInReplyTo(mine);
            answer.setTitlePopup("Ada Quay");
            answer.setContents("The one of last year");
            answer.setRectangle(mine.getRectangle());
            notes.add(answer);
            document.getPage(1).setAnnotations(notes);
            back = saved(document);
        }
        TakeInRemarks take = server.bean(TakeInRemarks.class);
        assertThat(take.take(server.actor("priya"), item, 1, "Page 2", Server.key(), back))
                .contains("1 reply", "1 was here already");
        assertThat(server.bean(RemarkStore.class)
                        .remark(remark.id())
                        .orElseThrow()
                        .replies())
                .hasSize(1);
        assertThat(Loader.loadPDF(hedda.bytes(at + "&sheet=no").body()).getNumberOfPages())
                .isEqualTo(1);
    }

    @Test
    void overPreviewsLieTheOpenMarksAlone() {
        long item = filed("pdf", pdf(1));
        Remark open = mark(item, 1, cloud("", "still open"));
        Remark done = mark(item, 1, cloud("", "made already"));
        server.bean(TalkOfRemarks.class)
                .set(server.actor("priya"), item, List.of(done.id()), Server.key(), Remark.State.DONE, "");
        String at = "/documents/" + item + "/versions/1/marks";
        assertThat(hedda.get(at).body())
                .contains("data-remark=\"" + open.id() + "\"")
                .doesNotContain("data-remark=\"" + done.id() + "\"");
        assertThat(hedda.get("/documents/" + item).body()).contains("data-marks-at=\"" + at + "\"");
        assertThat(hedda.get("/documents/" + item + "/peek?face=look").body()).contains("data-marks-at");
        assertThat(Web.as(server, "rafael").get(at).statusCode()).isEqualTo(404);
    }

    private static byte[] saved(PDDocument document) throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        document.save(out);
        return out.toByteArray();
    }

    private static final String EYE = "|1 2 3|0 -100 0 0 0 0 0 0 1 80";

    private Map<String, String> onModel(String tool, String space) {
        Map<String, String> form = new HashMap<>();
        form.put("actKey", Server.key());
        form.put("layout", "3D");
        form.put("tool", tool);
        form.put("kind", "change");
        form.put("line", "Further apart");
        form.put("text", tool.equals("size") ? "62" : "");
        form.put("colour", "teal");
        form.put("letters", "3.5");
        form.put("space", space);
        return form;
    }

    @Test
    void aSizeOnAModelSaysHowFarItsHolesAreApart() {
        byte[] cube =
                ("solid a\nfacet normal 0 0 1\nouter loop\nvertex 0 0 0\nvertex 1 0 0\nvertex 0 1 0\nendloop\nendfacet\n"
                                + "endsolid a " + Server.key())
                        .getBytes(StandardCharsets.US_ASCII);
        long item = server.file("priya", shelf, Server.PLAIN, "body " + Server.key() + ".stl", cube, true);
        String at = "/documents/" + item + "/versions/1/remarks";
        assertThat(hedda.post(at, onModel("size", "axis 0 0 0 0 0 1 4.5;axis 60 0 3 0 0 1 4.5" + EYE))
                        .statusCode())
                .isEqualTo(302);
        String panel = hedda.get(at).body();
        assertThat(panel)
                .contains("62 wanted, 60 measured: Further apart", "axis of Ø 9 to axis of Ø 9", "R-1")
                .contains("data-space=\"axis 0.000000 0.000000 0.000000 0.000000 0.000000 1.000000 4.500000;")
                .doesNotContain("Send remarks");
        Remark kept = server.bean(RemarkStore.class).of(item).get(0);
        assertThat(kept.mark().space().orElseThrow().picks()).hasSize(2);
        assertThat(hedda.get("/documents/" + item + "/remarks/" + kept.id())
                        .headers()
                        .firstValue("location"))
                .hasValueSatisfying(to -> assertThat(to).endsWith("/versions/1/model?remark=" + kept.id()));
        assertThat(hedda.get("/documents/" + item + "/remarks").headers().firstValue("location"))
                .hasValueSatisfying(to -> assertThat(to).endsWith("/versions/1/model"));
        assertThat(hedda.get("/documents/" + item).body())
                .contains("/documents/" + item + "/remarks\"", "on its model");
        assertThat(hedda.get("/documents/" + item + "/versions/1/send-remarks").statusCode())
                .isEqualTo(404);
        for (String bad : List.of(
                "",
                "axis",
                "axis 0 0 0 0 0 1 4.5" + EYE,
                "hole 0 0 0 0 0 1 4.5;edge 0 0 0 1 0 0 0" + EYE,
                "axis 0 0 0 0 0 1 NaN;edge 0 0 0 1 0 0 0" + EYE,
                "edge 0 0 0 0 0 0 0;edge 0 0 0 1 0 0 0" + EYE,
                "axis 0 0 0 0 0 1 4.5;".repeat(200) + EYE)) {
            assertThat(hedda.post(at, onModel("size", bad)).statusCode())
                    .as(bad)
                    .isNotIn(302, 500);
        }
        assertThat(hedda.post(at, onModel("cloud", "point 0 0 0 0 0 0 0" + EYE)).statusCode())
                .isNotIn(302, 500);
        assertThat(hedda.get("/documents/" + item + "/versions/1/model").body())
                .contains("data-tool=\"arrow-note\"", "data-mark-pick=\"faces\"")
                .doesNotContain("data-tool=\"ink\"");
    }

    @Test
    void aSpaceOnASheetIsNoMarkOfIt() {
        long item = filed("pdf", pdf(1));
        Map<String, String> form = onModel("note", "point 0 0 0 0 0 0 0" + EYE);
        form.put("layout", "");
        assertThat(hedda.post("/documents/" + item + "/versions/1/remarks", form)
                        .statusCode())
                .isNotIn(302, 500);
    }

    @Test
    void whoeverSeesOnlyWhatIsReleasedFindsNoneAndNoTools() {
        long item = filed("pdf", pdf(1));
        mark(item, 1, cloud("", "Which edition?"));
        Web rafael = Web.as(server, "rafael");
        assertThat(rafael.get("/documents/" + item + "/versions/1/page?page=1").statusCode())
                .isEqualTo(404);
        assertThatThrownBy(() -> server.bean(ReadRemarks.class).on(server.actor("rafael"), item, 1, ""))
                .isInstanceOf(NotThere.class);
    }

    @Test
    void aLockedPdfIsACardThatSaysWhy() {
        long item = filed("pdf", "%PDF-1.7\nnothing of a page".getBytes(StandardCharsets.US_ASCII));
        assertThat(hedda.get("/documents/" + item).body())
                .contains("No picture: The pages of this PDF cannot be shown");
        assertThat(hedda.get("/documents/" + item + "/versions/1/sheet").statusCode())
                .isNotEqualTo(500);
    }
}
