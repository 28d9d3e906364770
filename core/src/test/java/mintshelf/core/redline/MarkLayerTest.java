package mintshelf.core.redline;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Random;
import mintshelf.core.Dxf;
import mintshelf.core.base.Outcome;
import mintshelf.core.drawing.Primitive;
import mintshelf.core.drawing.Scene;
import mintshelf.core.drawing.compare.Comparison;
import mintshelf.core.drawing.compare.SheetCompare;
import mintshelf.core.drawing.dxf.DxfDrawing;
import mintshelf.core.drawing.dxf.MarkLayer;
import org.assertj.core.data.Offset;
import org.junit.jupiter.api.Test;

/** Marks in a copy of a drawing: read back as they are drawn, with every byte of the drawing in its place. */
class MarkLayerTest {
    private static List<String> tags(String version, boolean table) {
        List<String> tags = new ArrayList<>(
                List.of("0 SECTION", "2 HEADER", "9 $ACADVER", "1 " + version, "9 $HANDSEED", "5 30", "0 ENDSEC"));
        if (table) {
            tags.addAll(List.of(
                    "0 SECTION",
                    "2 TABLES",
                    "0 TABLE",
                    "2 LAYER",
                    "5 2",
                    "100 AcDbSymbolTable",
                    "70 1",
                    "0 LAYER",
                    "5 10",
                    "330 2",
                    "100 AcDbSymbolTableRecord",
                    "100 AcDbLayerTableRecord",
                    "2 0",
                    "70 0",
                    "62 7",
                    "6 CONTINUOUS",
                    "370 -3",
                    "390 F",
                    "0 ENDTAB",
                    "0 ENDSEC"));
        }
        tags.addAll(List.of(
                "0 SECTION",
                "2 ENTITIES",
                "0 LINE",
                "5 21",
                "100 AcDbEntity",
                "8 0",
                "100 AcDbLine",
                "10 0.0",
                "20 0.0",
                "11 420.0",
                "21 0.0",
                "0 CIRCLE",
                "5 22",
                "100 AcDbEntity",
                "8 0",
                "100 AcDbCircle",
                "10 120.0",
                "20 120.0",
                "40 2.75",
                "0 LINE",
                "5 23",
                "100 AcDbEntity",
                "8 0",
                "100 AcDbLine",
                "10 0.0",
                "20 297.0",
                "11 420.0",
                "21 297.0",
                "0 ENDSEC",
                "0 EOF"));
        return tags;
    }

    private static byte[] bytes(String version, boolean table) {
        return Dxf.of("\r\n", StandardCharsets.US_ASCII, tags(version, table).toArray(String[]::new));
    }

    private static DxfDrawing read(byte[] bytes) {
        return DxfDrawing.read(bytes).orElseThrow(r -> new IllegalStateException(r.says()));
    }

    private static Scene scene(byte[] bytes) {
        return read(bytes).scene().orElseThrow(r -> new IllegalStateException(r.says()));
    }

    private static List<Primitive> marks(Scene sheet, int n) {
        Random random = new Random(5);
        List<Primitive> all = new ArrayList<>();
        for (int i = 0; i < n; i++) {
            Mark mark = Sheets.chanceMark(random, sheet);
            all.addAll(MarkPaint.paint(RemarkRulesTest.remark(mark, Remark.State.OPEN), Followed.own(mark), 1));
        }
        return all;
    }

    private static byte[] with(byte[] sheet, List<Primitive> marks) {
        return MarkLayer.with(read(sheet), marks, MarkPaint.LAYER)
                .orElseThrow(r -> new IllegalStateException(r.says()));
    }

    @Test
    void theDrawingIsAsItWasAndTheMarksStandOnALayerOfTheirOwn() {
        List<String> plain = new ArrayList<>(tags("AC1015", true));
        plain.remove("370 -3");
        byte[] binary = Dxf.binary(plain, true);
        for (byte[] sheet : List.of(bytes("AC1009", false), bytes("AC1015", true), bytes("AC1027", true), binary)) {
            Scene before = scene(sheet);
            List<Primitive> marks = marks(before, 20);
            Scene after = scene(with(sheet, marks));
            assertThat(after.said()).isEqualTo(before.said());
            assertThat(after.notDrawn()).isEmpty();
            Comparison compared = SheetCompare.compare(before, after);
            assertThat(compared.same()).isEqualTo(before.primitives().size());
            assertThat(compared.removed() + compared.changed() + compared.shifted())
                    .isZero();
            List<Primitive> drawn = after.primitives().stream()
                    .filter(p -> p.style().layer().equals("REDLINES"))
                    .toList();
            assertThat(after.primitives()).hasSize(before.primitives().size() + drawn.size());
            assertThat(texts(drawn)).isEqualTo(texts(marks));
            assertThat(length(drawn)).isCloseTo(length(marks), Offset.offset(length(marks) * 0.001));
        }
    }

    @Test
    void handlesAreFreeAndTheSeedIsBeyondThem() {
        byte[] sheet = bytes("AC1015", true);
        String after = new String(with(sheet, marks(scene(sheet), 4)), StandardCharsets.US_ASCII);
        List<String> lines = Arrays.asList(after.split("\r\n"));
        List<Long> handles = new ArrayList<>();
        for (int i = 0; i + 1 < lines.size(); i += 2) {
            boolean seed = i >= 2 && lines.get(i - 1).equals("$HANDSEED");
            if (lines.get(i).strip().equals("5") && !seed)
                handles.add(Long.parseLong(lines.get(i + 1).strip(), 16));
        }
        long seed = Long.parseLong(lines.get(lines.indexOf("$HANDSEED") + 2).strip(), 16);
        assertThat(handles).doesNotHaveDuplicates().allMatch(h -> h < seed);
        // The new layer is made like the first: what this version asks of one is there.
        assertThat(after).contains("REDLINES\r\n 70\r\n0\r\n 62\r\n1\r\n  6\r\nCONTINUOUS\r\n370\r\n-3\r\n390\r\nF");
    }

    @Test
    void aLayerOfThatNameStaysWhatItIs() {
        byte[] once = with(bytes("AC1015", true), marks(scene(bytes("AC1015", true)), 2));
        Scene twice = scene(with(once, marks(scene(bytes("AC1015", true)), 3)));
        assertThat(twice.layers().keySet()).contains("REDLINES", "REDLINES_2");
    }

    @Test
    void aDrawingWithoutATableWhereItsVersionAsksForOneIsRefused() {
        Outcome<byte[]> none = MarkLayer.with(read(bytes("AC1015", false)), List.of(), "REDLINES");
        assertThat(none.refusal()).hasValueSatisfying(r -> assertThat(r.code()).isEqualTo("sheet.no_tables"));
    }

    private static List<String> texts(List<Primitive> all) {
        return all.stream()
                .filter(Primitive.Text.class::isInstance)
                .map(p -> ((Primitive.Text) p).text())
                .sorted()
                .toList();
    }

    /** Of all that is drawn by lines and arcs; solids and what covers others are no lines. */
    private static double length(List<Primitive> all) {
        double sum = 0;
        for (Primitive p : all) {
            if (p instanceof Primitive.Arc arc) sum += Math.toRadians(arc.sweep()) * arc.radius();
            if (!(p instanceof Primitive.Polyline line)) continue;
            double[] q = line.points();
            int n = q.length / 2;
            for (int i = 0; i < (line.closed() ? n : n - 1); i++) {
                int k = (i + 1) % n;
                sum += Math.hypot(q[2 * k] - q[2 * i], q[2 * k + 1] - q[2 * i + 1]);
            }
        }
        return sum;
    }
}
