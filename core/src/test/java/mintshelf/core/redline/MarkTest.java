package mintshelf.core.redline;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Random;
import java.util.stream.Stream;
import mintshelf.core.base.Outcome;
import mintshelf.core.base.Refusal;
import mintshelf.core.drawing.Box;
import mintshelf.core.drawing.Primitive;
import mintshelf.core.drawing.Scene;
import org.junit.jupiter.api.Test;

class MarkTest {
    private static final Box A3 = new Box(0, 0, 420, 297);

    private static List<Point> points(double... xy) {
        List<Point> all = new ArrayList<>();
        for (int i = 0; i + 1 < xy.length; i += 2) all.add(new Point(xy[i], xy[i + 1]));
        return all;
    }

    private static Outcome<Mark> read(Tool tool, List<List<Point>> strokes, String text) {
        return Mark.read(tool, strokes, text, Sheets.LOOK, 1, A3);
    }

    private static String code(Outcome<Mark> read) {
        return read.refusal().map(Refusal::code).orElse("");
    }

    @Test
    void whatIsNoMarkIsRefusedInWords() {
        assertThat(code(read(Tool.CLOUD, List.of(points(1, 1)), ""))).isEqualTo("mark.form");
        assertThat(code(read(Tool.CLOUD, List.of(points(5, 5, 5, 5)), ""))).isEqualTo("mark.form");
        assertThat(code(read(Tool.INK, List.of(), ""))).isEqualTo("mark.form");
        assertThat(code(read(Tool.INK, List.of(points(5, 5)), ""))).isEqualTo("mark.form");
        assertThat(code(read(Tool.NOTE, List.of(points(Double.NaN, 5)), ""))).isEqualTo("mark.form");
        assertThat(code(read(Tool.NOTE, List.of(points(Double.POSITIVE_INFINITY, 5)), "")))
                .isEqualTo("mark.form");
        assertThat(code(read(Tool.NOTE, List.of(points(5, 1e9)), ""))).isEqualTo("mark.off");
        assertThat(code(read(Tool.STAMP, List.of(points(5, 5)), ""))).isEqualTo("text.missing");
        assertThat(code(read(Tool.STAMP, List.of(points(5, 5)), "x".repeat(25))))
                .isEqualTo("text.long");
        assertThat(code(read(Tool.SIZE, List.of(points(5, 5, 9, 5, 7, 8)), "x".repeat(25))))
                .isEqualTo("text.long");
        List<Point> million = Collections.nCopies(1_000_000, new Point(1, 2));
        assertThat(code(read(Tool.INK, List.of(million), ""))).isEqualTo("mark.long");
        assertThat(code(read(Tool.INK, Collections.nCopies(61, points(1, 1, 2, 2)), "")))
                .isEqualTo("mark.long");
    }

    @Test
    void aSizeSaysWhatIsWantedAndWhatIsMeasuredAtTheScaleOfItsView() {
        Mark half = Mark.read(Tool.SIZE, List.of(points(10, 10, 18, 10, 14, 20)), " 18 ", Sheets.LOOK, 0.5, A3)
                .orElseThrow(r -> new IllegalStateException(r.says()));
        assertThat(half.says()).isEqualTo("18 wanted, 16 measured");
        assertThat(half.with(new Look(Colour.TEAL, 7)).says()).isEqualTo(half.says());
    }

    @Test
    void lettersAreOfTheSeries() {
        assertThat(new Look(Colour.TEAL, 4.2).letters()).isEqualTo(3.5);
        assertThat(new Look(Colour.TEAL, 1e9).letters()).isEqualTo(10);
        assertThat(new Look(Colour.TEAL, -1).letters()).isEqualTo(2.5);
        assertThat(new Look(Colour.TEAL, Double.NaN).letters()).isIn(Look.LETTERS);
    }

    @Test
    void everyInkStandsOutFromThePaper() {
        for (Colour colour : Colour.values()) {
            assertThat(1.05 / (luminance(colour.rgb()) + 0.05))
                    .as(colour.code())
                    .isGreaterThanOrEqualTo(4.5);
            assertThat(Colour.of(colour.code())).contains(colour);
        }
    }

    private static double luminance(int rgb) {
        double[] part = {0.2126, 0.7152, 0.0722};
        double sum = 0;
        for (int i = 0; i < 3; i++) {
            double c = (rgb >> (16 - 8 * i) & 255) / 255.0;
            sum += part[i] * (c <= 0.03928 ? c / 12.92 : Math.pow((c + 0.055) / 1.055, 2.4));
        }
        return sum;
    }

    @Test
    void toolsAreFoundByTheirCodes() {
        for (Tool tool : Tool.values()) assertThat(Tool.of(tool.code())).contains(tool);
        assertThat(Tool.of("pen")).isEmpty();
    }

    @Test
    void everyMarkIsDrawnWithItsNumberAndItsWords() {
        Scene sheet = Sheets.scene(Sheets.plate());
        Random random = new Random(3);
        for (int i = 0; i < 200; i++) {
            Mark mark = Sheets.chanceMark(random, sheet);
            Remark remark = RemarkRulesTest.remark(mark, Remark.State.OPEN);
            List<Primitive> drawn = MarkPaint.paint(remark, Followed.own(mark), 1);
            assertThat(texts(drawn)).contains("C4-2", "Round this edge");
            for (Primitive p : drawn) {
                assertThat(p.style().layer()).isEqualTo(MarkPaint.LAYER);
                Box box = p.box();
                assertThat(Stream.of(box.minX(), box.minY(), box.maxX(), box.maxY()))
                        .allMatch(Double::isFinite);
            }
        }
    }

    @Test
    void whatIsWithdrawnIsStruckAndSaysNothingOnTheSheet() {
        Mark mark = Sheets.mark(Tool.CLOUD, Sheets.scene(Sheets.plate()), 112, 112, 128, 128);
        Remark open = RemarkRulesTest.remark(mark, Remark.State.OPEN);
        Remark withdrawn = RemarkRulesTest.remark(mark, Remark.State.WITHDRAWN);
        assertThat(texts(MarkPaint.paint(withdrawn, Followed.own(mark), 1))).containsExactly("C4-2");
        assertThat(MarkPaint.paint(withdrawn, Followed.own(mark), 1)
                        .get(0)
                        .style()
                        .colour())
                .as("paler than an open one")
                .isGreaterThan(MarkPaint.paint(open, Followed.own(mark), 1)
                        .get(0)
                        .style()
                        .colour());
    }

    @Test
    void longLinesAreBrokenAtBlanksIntoThree() {
        assertThat(MarkPaint.lines("")).isEmpty();
        assertThat(MarkPaint.lines("round this edge, the cable chafes"))
                .containsExactly("round this edge, the cable", "chafes");
        assertThat(MarkPaint.lines("word ".repeat(40))).hasSize(3).allMatch(l -> l.length() <= 30);
        assertThat(MarkPaint.lines("x".repeat(90))).hasSize(1).allMatch(l -> l.length() <= 30);
    }

    @Test
    void thePictureHoldsEscapedTextOnly() {
        Mark mark = Sheets.mark(Tool.NOTE, Sheets.scene(Sheets.plate()), 50, 50);
        Remark remark = RemarkRulesTest.remark(mark, Remark.State.OPEN, "<script>x</script>");
        String svg = RedlineSvg.over(List.of(new RedlineSvg.Placed(remark, Followed.own(mark))), A3, 1);
        assertThat(svg).contains("data-remark=\"7\"").contains("&lt;script&gt;").doesNotContain("<script");
    }

    private static List<String> texts(List<Primitive> drawn) {
        return drawn.stream()
                .filter(Primitive.Text.class::isInstance)
                .map(p -> ((Primitive.Text) p).text())
                .toList();
    }
}
