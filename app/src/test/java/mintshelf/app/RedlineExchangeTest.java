package mintshelf.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.ByteArrayOutputStream;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.util.Base64;
import java.util.List;
import java.util.Map;
import mintshelf.app.ground.NotThere;
import mintshelf.app.store.redline.RemarkStore;
import mintshelf.app.use.redline.MakeRemark;
import mintshelf.app.use.redline.TakeInRemarks;
import mintshelf.app.use.redline.TalkOfRemarks;
import mintshelf.app.use.today.ReadToday;
import mintshelf.core.redline.Point;
import mintshelf.core.redline.Remark;
import mintshelf.core.redline.Remark.State;
import mintshelf.core.redline.Tool;
import org.apache.pdfbox.Loader;
import org.apache.pdfbox.pdmodel.PDDocument;
import org.apache.pdfbox.pdmodel.interactive.annotation.PDAnnotation;
import org.apache.pdfbox.pdmodel.interactive.annotation.PDAnnotationText;
import org.junit.jupiter.api.Test;

/** Remarks in numbers: very many on a sheet, out of the house and back. */
class RedlineExchangeTest {
    private final Server server = Server.shared();
    private final long shelf = server.shelf();
    private final TalkOfRemarks talk = server.bean(TalkOfRemarks.class);

    private long drawing() {
        byte[] sheet = RedlineTest.sheet(2.75).getBytes(StandardCharsets.US_ASCII);
        return server.file("priya", shelf, "drawing", "given " + Server.key() + ".dxf", sheet, true);
    }

    private Remark mark(String login, long item, MakeRemark.Draft draft) {
        String to = server.bean(MakeRemark.class).make(server.actor(login), item, 1, Server.key(), draft);
        return server.bean(RemarkStore.class)
                .remark(Long.parseLong(to.substring(to.lastIndexOf('/') + 1)))
                .orElseThrow();
    }

    private List<String> told(String login) {
        return server.bean(ReadToday.class).today(server.actor(login)).notices().stream()
                .map(n -> n.says())
                .toList();
    }

    private static Remark copy(Remark r, String line) {
        return new Remark(
                0,
                Server.key(),
                r.item(),
                r.version(),
                r.layout(),
                "",
                r.kind(),
                r.state(),
                line,
                "",
                r.author(),
                r.authorName(),
                "",
                r.round(),
                r.at(),
                r.mark(),
                r.view(),
                List.of());
    }

    @Test
    void ofVeryManyTheListBeginsWithTheFirstAndTheSheetHasAll() {
        long item = drawing();
        Remark first = mark("hedda", item, RedlineTest.cloud("first"));
        long version = server.document(item).head().version();
        RemarkStore store = server.bean(RemarkStore.class);
        for (int i = 0; i < 205; i++) {
            store.add(copy(first, "n" + i), version, "D3");
        }
        Web hedda = Web.as(server, "hedda");
        String path = "/documents/" + item + "/versions/1/remarks";
        String part = hedda.get(path).body();
        assertThat(part).contains("206 remarks", "List the other 6");
        assertThat(part.split("data-row=", -1)).hasSize(201);
        assertThat(part.split("data-remark=", -1)).hasSize(207);
        assertThat(hedda.get(path + "?all=true").body().split("data-row=", -1)).hasSize(207);
    }

    @Test
    void aCopyWithMarksIsADrawingWithALayerOfThemOrAPage() throws Exception {
        long item = drawing();
        Remark first = mark("hedda", item, RedlineTest.cloud("Larger"));
        mark("hedda", item, RedlineTest.draft(Tool.NOTE, "Chamfer", new Point(300, 200)));
        Web priya = Web.as(server, "priya");
        String path = "/documents/" + item + "/versions/1/marked.";
        String dxf = priya.get(path + "dxf").body();
        assertThat(dxf).contains("REDLINES", "Larger", "Chamfer");
        assertThat(priya.get(path + "dxf?ids=" + first.id()).body())
                .contains("Larger")
                .doesNotContain("Chamfer");
        try (InputStream body = priya.stream(path + "pdf");
                PDDocument pdf = Loader.loadPDF(body.readAllBytes())) {
            List<PDAnnotation> marks = pdf.getPage(0).getAnnotations();
            assertThat(marks).extracting(PDAnnotation::getContents).containsExactly("Larger", "Chamfer");
            assertThat(marks.get(0).getCOSObject().getString("Subj")).startsWith(first.number());
        }
        assertThat(new String(server.bytes(item), StandardCharsets.US_ASCII))
                .as("the version stays as it is")
                .doesNotContain("REDLINES");
        assertThat(Web.as(server, "rafael").get(path + "dxf").statusCode()).isEqualTo(404);
        long bare = drawing();
        assertThat(priya.get("/documents/" + bare + "/versions/1/marked.dxf").body())
                .contains("No mark stands on this sheet");
    }

    private String takeIn(String login, long item, String json) {
        return server.bean(TakeInRemarks.class)
                .take(server.actor(login), item, 1, "", Server.key(), json.getBytes(StandardCharsets.UTF_8));
    }

    @Test
    void annotationsGoOutAndComeBackOnce() {
        long item = drawing();
        Remark first = mark("hedda", item, RedlineTest.cloud("Larger"));
        talk.reply(server.actor("priya"), item, first.id(), Server.key(), "How far?");
        String given = Web.as(server, "priya")
                .get("/documents/" + item + "/versions/1/marked.json")
                .body();
        assertThat(given).contains("urn:uuid:" + first.uid(), "Larger", "How far?", "AnnotationCollection");
        // What is here already is not doubled.
        assertThat(takeIn("priya", item, given)).isEqualTo("2 were here already");
        // A copy of the same sheet elsewhere takes all of it in, as a set of who wrote it.
        long other = drawing();
        assertThat(takeIn("priya", other, given)).isEqualTo("took in 1 remark, 1 reply");
        assertThat(takeIn("priya", other, given)).isEqualTo("2 were here already");
        Remark taken = server.bean(RemarkStore.class).of(other).get(0);
        assertThat(taken.by()).isEqualTo("Hedda Lysgaard (outside)");
        assertThat(taken.authorName()).isEqualTo("Priya Malhan");
        assertThat(taken.mark()).isEqualTo(first.mark());
        assertThat(taken.state()).isEqualTo(State.ANSWERED);
        assertThat(taken.replies())
                .singleElement()
                .satisfies(r -> assertThat(r.name()).isEqualTo("Priya Malhan (outside)"));
        // A reply that came back joins its thread and tells who asked.
        String reply = "{\"type\":\"Annotation\",\"id\":\"urn:uuid:" + Server.key()
                + "\",\"motivation\":\"replying\",\"creator\":{\"name\":\"Jens\",\"email\":\"mailto:jens@example.org\"},"
                + "\"body\":\"0.5 mm\",\"target\":\"urn:uuid:" + first.uid() + "\"}";
        assertThat(takeIn("priya", item, reply)).isEqualTo("took in 1 reply");
        assertThat(told("hedda")).anyMatch(s -> s.startsWith("Jens <jens@example.org> replied to " + first.number()));
        assertThat(takeIn("priya", item, reply)).isEqualTo("1 was here already");
        String stranger = reply.replace(first.uid(), Server.key())
                .replaceFirst("urn:uuid:[0-9a-f-]{36}", "urn:uuid:" + Server.key());
        assertThat(takeIn("priya", item, stranger)).isEqualTo("1 could not be read");
        assertThatThrownBy(() -> takeIn("priya", item, "<html>")).hasMessageContaining("no collection");
        assertThatThrownBy(() -> takeIn("rafael", item, given)).isInstanceOf(NotThere.class);
    }

    @Test
    void whatIsSentIsChosenWithItsFormItsNameAndItsSize() throws Exception {
        long item = drawing();
        Remark first = mark("hedda", item, RedlineTest.cloud("Larger"));
        Remark second = mark("hedda", item, RedlineTest.draft(Tool.NOTE, "Chamfer", new Point(300, 200)));
        Web priya = Web.as(server, "priya");
        String at = "/documents/" + item + "/versions/1/";
        assertThat(priya.get(at + "send-remarks").body())
                .contains("Larger", "Chamfer", "As what: 2 remarks", "With the sheet", "Without it")
                .contains(", version 1 with remarks", " kB");
        assertThat(priya.get(at + "send-remarks?ids=" + second.id()).body()).contains("As what: 1 remark");
        String page = priya.get(at + "marked.html?ids=" + first.id()).body();
        assertThat(page)
                .startsWith("<!DOCTYPE html>")
                .contains("Larger", "urn:uuid:" + first.uid())
                .doesNotContain("Chamfer");
        String bare = priya.get(at + "marked.html?sheet=no").body();
        assertThat(bare.length()).isLessThan(page.length() + 3000);
        assertThat(page).contains(">note ");
        assertThat(bare).contains("class=\"bare\"").doesNotContain(">note ");
        assertThat(priya.get(at + "marked.html?called=For+Ada")
                        .headers()
                        .firstValue("Content-Disposition")
                        .orElse("")
                        .replace("%20", " "))
                .contains("For Ada.html");
        for (String path : List.of("send-remarks", "marked.html", "marked.pdf?sheet=no")) {
            assertThat(Web.as(server, "rafael").get(at + path).statusCode()).isEqualTo(404);
        }
    }

    @Test
    void aPdfThatCameBackJoinsItsThreadsOnce() throws Exception {
        long item = drawing();
        Remark first = mark("hedda", item, RedlineTest.cloud("Larger"));
        byte[] back;
        try (PDDocument pdf = Loader.loadPDF(Web.as(server, "priya")
                .bytes("/documents/" + item + "/versions/1/marked.pdf?sheet=no")
                .body())) {
            List<PDAnnotation> marks = pdf.getPage(0).getAnnotations();
            PDAnnotationText answer = new PDAnnotationText();
            answer.setAnnotationName("reader-7");
            answer.setInReplyTo(marks.get(0));
            answer.setTitlePopup("Ada Quay");
            answer.setContents("By 0.4 at most");
            answer.setRectangle(marks.get(0).getRectangle());
            marks.add(answer);
            pdf.getPage(0).setAnnotations(marks);
            ByteArrayOutputStream out = new ByteArrayOutputStream();
            pdf.save(out);
            back = out.toByteArray();
        }
        TakeInRemarks take = server.bean(TakeInRemarks.class);
        assertThat(take.take(server.actor("priya"), item, 1, "", Server.key(), back))
                .isEqualTo("took in 1 reply, 1 was here already");
        assertThat(take.take(server.actor("priya"), item, 1, "", Server.key(), back))
                .isEqualTo("2 were here already");
        assertThat(told("hedda"))
                .anyMatch(s -> s.startsWith("Ada Quay (outside) replied to " + first.number())
                        && s.endsWith("By 0.4 at most"));
        String sent = "data:application/pdf;base64," + Base64.getEncoder().encodeToString(back);
        assertThat(Web.as(server, "priya")
                        .post(
                                "/documents/" + item + "/versions/1/annotations",
                                Map.of("actKey", Server.key(), "annotations", sent))
                        .body())
                .contains("2 were here already");
    }
}
