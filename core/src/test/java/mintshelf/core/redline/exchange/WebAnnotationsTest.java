package mintshelf.core.redline.exchange;

import static org.assertj.core.api.Assertions.assertThat;

import com.apicatalog.jsonld.JsonLd;
import com.apicatalog.jsonld.JsonLdError;
import com.apicatalog.jsonld.document.JsonDocument;
import com.networknt.schema.InputFormat;
import com.networknt.schema.Schema;
import com.networknt.schema.SchemaRegistry;
import com.networknt.schema.SpecificationVersion;
import java.io.IOException;
import java.io.InputStream;
import java.io.StringReader;
import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.UUID;
import mintshelf.core.base.Refusal;
import mintshelf.core.drawing.Box;
import mintshelf.core.redline.Colour;
import mintshelf.core.redline.Followed;
import mintshelf.core.redline.Look;
import mintshelf.core.redline.Mark;
import mintshelf.core.redline.Point;
import mintshelf.core.redline.RedlineSvg.Placed;
import mintshelf.core.redline.Remark;
import mintshelf.core.redline.Tool;
import mintshelf.core.redline.exchange.WebAnnotations.Brought;
import mintshelf.core.redline.exchange.WebAnnotations.New;
import mintshelf.core.redline.exchange.WebAnnotations.Source;
import org.junit.jupiter.api.Test;

class WebAnnotationsTest {
    private static final Box A3 = new Box(0, 0, 420, 297);
    private static final Source SHEET = new Source("TG40-3030 version 10", "urn:sha256:" + "ab".repeat(32));
    private static final Look MOSS = new Look(Colour.MOSS, 5);

    private static Mark mark(Tool tool, String text, double... xy) {
        List<Point> points = new ArrayList<>();
        for (int i = 0; i < xy.length; i += 2) points.add(new Point(xy[i], xy[i + 1]));
        return Mark.read(tool, List.of(points), text, MOSS, 1, A3)
                .orElseThrow(r -> new IllegalStateException(r.says()));
    }

    private static Placed placed(Mark mark, String line, Remark.Reply... replies) {
        Remark remark = new Remark(
                1,
                UUID.randomUUID().toString(),
                2,
                10,
                "Model",
                "C4-2",
                Remark.Kind.QUESTION,
                Remark.State.OPEN,
                line,
                "more\nwords",
                3,
                "Hedda Lysgaard",
                "",
                Optional.empty(),
                Instant.parse("2026-11-23T15:02:00Z"),
                mark,
                Box.EMPTY,
                List.of(replies));
        return new Placed(remark, Followed.own(mark));
    }

    static List<Placed> everyTool() {
        Remark.Reply reply = new Remark.Reply(
                UUID.randomUUID().toString(), 4, "Priya", Instant.EPOCH, "Gasket <B> & \"C\"", Optional.empty());
        return List.of(
                placed(mark(Tool.CLOUD, "", 10, 10, 40, 30), "Round this", reply),
                placed(mark(Tool.ARROW_NOTE, "", 10.123456, 10, 40, 30), "<script>alert(1)</script>"),
                placed(mark(Tool.NOTE, "", 10, 10), ""),
                placed(mark(Tool.SIZE, "18", 10, 10, 26, 10, 18, 20), "rim"),
                placed(mark(Tool.INK, "", 10, 10, 20, 20, 30, 10), "ink"),
                placed(mark(Tool.HIGHLIGHT, "", 10, 10, 40, 14), "note"),
                placed(mark(Tool.STAMP, "Seen", 10, 10), ""));
    }

    private static Brought read(String json) {
        return WebAnnotations.read(json.getBytes(StandardCharsets.UTF_8), A3, 1, new Look(Colour.TEAL, 3.5))
                .orElseThrow(r -> new IllegalStateException(r.says()));
    }

    private static String code(byte[] json) {
        return WebAnnotations.read(json, A3, 1, MOSS)
                .refusal()
                .map(Refusal::code)
                .orElse("");
    }

    @Test
    void whatIsWrittenIsReadBackAsItWas() {
        List<Placed> all = everyTool();
        Brought brought = read(WebAnnotations.write(all, SHEET));
        assertThat(brought.unread()).isEmpty();
        assertThat(brought.remarks()).hasSameSizeAs(all);
        for (int i = 0; i < all.size(); i++) {
            Remark sent = all.get(i).remark();
            New back = brought.remarks().get(i);
            assertThat(back.uid()).isEqualTo(sent.uid());
            assertThat(back.mark()).isEqualTo(sent.mark());
            assertThat(back.line()).isEqualTo(sent.line());
            assertThat(back.description()).isEqualTo("more\nwords");
            assertThat(back.kind()).isEqualTo(Remark.Kind.QUESTION);
            assertThat(back.name()).isEqualTo("Hedda Lysgaard");
            assertThat(back.at()).contains(sent.at());
        }
        assertThat(brought.answers()).singleElement().satisfies(a -> {
            assertThat(a.target()).isEqualTo(all.get(0).remark().uid());
            assertThat(a.says()).isEqualTo("Gasket <B> & \"C\"");
            assertThat(a.name()).isEqualTo("Priya");
        });
    }

    private static String resource(String name) {
        try (InputStream in = WebAnnotations.class.getResourceAsStream("/mintshelf/redline/" + name)) {
            return new String(in.readAllBytes(), StandardCharsets.UTF_8);
        } catch (IOException e) {
            throw new IllegalStateException(e);
        }
    }

    @Test
    void whatIsWrittenHoldsToItsSchema() {
        Schema schema = SchemaRegistry.withDefaultDialect(SpecificationVersion.DRAFT_2020_12)
                .getSchema(resource("annotations.schema.json"), InputFormat.JSON);
        String json = WebAnnotations.write(everyTool(), SHEET);
        assertThat(schema.validate(json, InputFormat.JSON)).isEmpty();
        assertThat(schema.validate(json.replace("\"cloud\"", "\"pen\""), InputFormat.JSON))
                .isNotEmpty();
        assertThat(schema.validate(WebAnnotations.write(List.of(), SHEET), InputFormat.JSON))
                .isEmpty();
    }

    /** Every term is known to the shipped context: the expanded document has only full names, and the model's own ones. */
    @Test
    void whatIsWrittenExpandsToTheTermsOfTheModel() throws JsonLdError {
        String json = WebAnnotations.write(everyTool(), SHEET);
        String expanded = JsonLd.expand(JsonDocument.of(new StringReader(json)))
                .loader((url, options) -> {
                    assertThat(url.toString()).isEqualTo(WebAnnotations.CONTEXT);
                    return JsonDocument.of(new StringReader(resource("anno.jsonld")));
                })
                .get()
                .toString();
        assertThat(expanded)
                .contains(
                        "http://www.w3.org/ns/oa#Annotation",
                        "http://www.w3.org/ns/oa#hasTarget",
                        "http://www.w3.org/ns/oa#SvgSelector",
                        "http://www.w3.org/ns/oa#questioning",
                        "http://purl.org/dc/terms/creator",
                        "http://www.w3.org/1999/02/22-rdf-syntax-ns#value",
                        WebAnnotations.TERMS + "tool");
        // A word that the context lacks would be dropped: so many annotations come out as went in.
        assertThat(expanded.split("oa#hasTarget", -1)).hasSize(everyTool().size() + 2);
    }

    private static String foreign(String target, String rest) {
        return "{\"@context\":\"http://www.w3.org/ns/anno.jsonld\",\"id\":\"http://example.org/a1\",\"type\":\"Annotation\""
                + rest + ",\"target\":" + target + "}";
    }

    private static String svg(String inside) {
        return "{\"source\":\"http://example.org/sheet\",\"selector\":{\"type\":\"SvgSelector\",\"value\":\"<svg>"
                + inside.replace("\"", "\\\"") + "</svg>\"}}";
    }

    @Test
    void whatOthersWriteIsReadInItsUsualForms() {
        String words = ",\"body\":\"round it\",\"creator\":{\"name\":\"Jens\",\"email\":\"mailto:jens@example.org\"}";
        New cloud = read(foreign(svg("<circle cx=\"100\" cy=\"-90\" r=\"10\"/>"), words))
                .remarks()
                .get(0);
        assertThat(cloud.mark().tool()).isEqualTo(Tool.CLOUD);
        assertThat(cloud.mark().box()).isEqualTo(new Box(90, 80, 110, 100));
        assertThat(cloud.line()).isEqualTo("round it");
        assertThat(cloud.name()).isEqualTo("Jens <jens@example.org>");
        assertThat(cloud.mark().look()).isEqualTo(new Look(Colour.TEAL, 3.5));
        New ink = read(foreign(svg("<path d=\"M10,-10 l5,-5 h5 v-5 c1,1 2,2 3,-3\"/>"), ""))
                .remarks()
                .get(0);
        assertThat(ink.mark().tool()).isEqualTo(Tool.INK);
        assertThat(ink.mark().strokes().get(0))
                .containsExactly(
                        new Point(10, 10), new Point(15, 15), new Point(20, 15), new Point(20, 20), new Point(23, 23));
        String part =
                "{\"source\":\"x\",\"selector\":[{\"type\":\"FragmentSelector\",\"value\":\"xywh=10,-40,20,10\"}]}";
        assertThat(read(foreign(part, "")).remarks().get(0).mark().box()).isEqualTo(new Box(10, 30, 30, 40));
        // The same file brings the same ids.
        assertThat(read(foreign(part, "")).remarks().get(0).uid())
                .isEqualTo(read(foreign(part, "")).remarks().get(0).uid());
    }

    @Test
    void hostileFilesEndInWords() {
        assertThat(code("no json".getBytes(StandardCharsets.UTF_8))).isEqualTo("annotations.form");
        assertThat(code("{}".getBytes(StandardCharsets.UTF_8))).isEqualTo("annotations.form");
        assertThat(code(new byte[WebAnnotations.LARGEST + 1])).isEqualTo("annotations.large");
        assertThat(code("[".repeat(5000).getBytes(StandardCharsets.UTF_8))).isEqualTo("annotations.form");
        String many = "[" + (foreign(svg("<path d=\"M1 -1L2 -2\"/>"), "") + ",").repeat(2000) + "{}]";
        assertThat(code(many.getBytes(StandardCharsets.UTF_8))).isEqualTo("annotations.many");
        for (String svg : List.of(
                "<script>alert(1)</script>",
                "<path d=\"M1 -1L9e9 -2\"/>",
                "<path d=\"M1 -1LNaN -2\"/>",
                "<path transform=\"scale(9)\" d=\"M1 -1L2 -2\"/>",
                "<path d=\"M" + "1 -1 ".repeat(5000) + "\"/>",
                "<rect x=\"a\" width=\"3\"/>",
                "<path",
                "<image href=\"file:///etc/passwd\"/>")) {
            Brought brought = read(foreign(svg(svg), ",\"body\":\"x\""));
            assertThat(brought.remarks()).as(svg).isEmpty();
            assertThat(brought.unread()).singleElement().asString().contains("marks nothing that lies on the sheet");
        }
        String bomb =
                "{\"source\":\"x\",\"selector\":{\"type\":\"SvgSelector\",\"value\":\"<!DOCTYPE svg [<!ENTITY a 'b'>]><svg><path d='&a;'/></svg>\"}}";
        assertThat(read(foreign(bomb, "")).remarks()).isEmpty();
        // Long words are cut, control characters are no words.
        String longer = read(foreign(svg("<path d=\"M1 -1L2 -2\"/>"), ",\"body\":\"" + "w".repeat(400) + "\\u0007\""))
                .remarks()
                .get(0)
                .line();
        assertThat(longer).hasSizeLessThanOrEqualTo(Remark.LONGEST_LINE).doesNotContain("\u0007");
        assertThat(longer.toLowerCase(Locale.ROOT)).startsWith("www");
    }

    @Test
    void aReplyToNothingIsTold() {
        String reply = "{\"type\":\"Annotation\",\"motivation\":\"replying\",\"body\":\"yes\",\"target\":\"http://x\"}";
        assertThat(read("[" + reply + "]").unread()).containsExactly("A reply says nothing, or to nothing.");
    }
}
