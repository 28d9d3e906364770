package mintshelf.demo.practice;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import mintshelf.core.base.Outcome;
import mintshelf.core.drawing.Box;
import mintshelf.core.drawing.dxf.DxfDrawing;
import mintshelf.demo.sheet.DxfWriter;
import mintshelf.demo.sheet.DxfWriter.Layer;
import org.assertj.core.data.Offset;
import org.junit.jupiter.api.Test;

class SheetEditTest {
    private static byte[] plate() {
        DxfWriter dxf = new DxfWriter();
        dxf.box(Layer.OUTLINE, 0, 0, 80, 50);
        dxf.circle(Layer.OUTLINE, 20, 25, 4.5);
        dxf.circle(Layer.OUTLINE, 60, 25, 4.5);
        dxf.text(Layer.TEXT, 5, 60, 3.5, "GLAND PLATE");
        dxf.across(0, 0, 80, 0, -12, 2, "");
        return dxf.bytes(100, 80);
    }

    private static SheetEdit open(byte[] bytes) {
        return ((Outcome.Granted<SheetEdit>) SheetEdit.of(bytes)).value();
    }

    private static String text(byte[] bytes) {
        return new String(bytes, StandardCharsets.ISO_8859_1);
    }

    private static Box extents(byte[] bytes) {
        return ((Outcome.Granted<DxfDrawing>) DxfDrawing.read(bytes))
                .value()
                .scene()
                .orElseThrow(r -> new IllegalStateException(r.reason()))
                .extents();
    }

    @Test
    void aFileThatIsNotChangedComesBackByteForByte() {
        assertThat(open(plate()).bytes()).isEqualTo(plate());
        byte[] windows = text(plate()).replaceAll("\r?\n", "\r\n").getBytes(StandardCharsets.ISO_8859_1);
        assertThat(open(windows).bytes()).isEqualTo(windows);
    }

    @Test
    void aHoleIsResizedDrilledAndPlugged() {
        SheetEdit edit = open(plate());
        assertThat(says(edit.resize(24.4, 25, 1, 12))).isEqualTo("The hole of 9 has 12 now.");
        assertThat(says(edit.drill(40, 25, 6.5))).isEqualTo("Drilled a hole of 6.5.");
        assertThat(says(edit.plug(60, 25, 1))).isEqualTo("The hole of 9 is plugged.");
        assertThat(circles(edit.bytes())).containsExactlyInAnyOrder(6.0, 3.25);
        assertThat(edit.plug(60, 25, 1).refusal().orElseThrow().reason()).contains("no circle");
        assertThat(edit.drill(1, 1, -2).refusal()).isPresent();
    }

    private static List<Double> circles(byte[] bytes) {
        List<Double> radii = new ArrayList<>();
        String[] lines = text(bytes).split("\r?\n");
        for (int i = 0; i < lines.length; i++) {
            if (!lines[i].equals("CIRCLE")) continue;
            for (int k = i + 1; k < lines.length; k += 2) {
                if (lines[k].strip().equals("40")) {
                    radii.add(Double.valueOf(lines[k + 1].strip()));
                    break;
                }
            }
        }
        return radii;
    }

    @Test
    void whatLiesInAWindowIsPulledAndItsDimensionFollows() {
        SheetEdit edit = open(plate());
        String said = says(edit.pull(new Box(50, -5, 90, 55), 10, 0));
        assertThat(said).contains("1 dimension follows");
        Box now = extents(edit.bytes());
        assertThat(now.maxX()).isEqualTo(extents(plate()).maxX() + 10, Offset.offset(0.01));
        assertThat(now.minX()).isEqualTo(extents(plate()).minX(), Offset.offset(0.01));
        assertThat(text(edit.bytes()).lines()).contains("180").doesNotContain("160");
        assertThat(edit.pull(new Box(500, 500, 501, 501), 1, 1).refusal()).isPresent();
    }

    @Test
    void lengthsAreThoseOfThePartOnASheetThatEnlargesIt() {
        SheetEdit edit = open(plate()).at(2);
        assertThat(says(edit.resize(20, 25, 1, 6))).isEqualTo("The hole of 4.5 has 6 now.");
        assertThat(circles(edit.bytes())).contains(6.0);
    }

    @Test
    void aTextGetsOtherWordsWithWhatTheCodePageLacksEscaped() {
        SheetEdit edit = open(plate());
        assertThat(says(edit.retext(8, 61, 2, "GLAND PLATE ⌀9"))).contains("GLAND PLATE");
        assertThat(text(edit.bytes())).contains("GLAND PLATE \\U+23009");
        assertThat(edit.retext(8, 61, 2, "\n").refusal()).isPresent();
    }

    @Test
    void whatIsNoDrawingIsRefused() {
        assertThat(SheetEdit.of("solid x".getBytes(StandardCharsets.US_ASCII)).refusal())
                .isPresent();
        assertThat(SheetEdit.of(new byte[0]).refusal()).isPresent();
        assertThat(SheetEdit.of(text(plate()).substring(0, 900).getBytes(StandardCharsets.US_ASCII))
                        .refusal())
                .isPresent();
    }

    private static String says(Outcome<String> outcome) {
        return outcome.orElseThrow(r -> new IllegalStateException(r.reason()));
    }
}
