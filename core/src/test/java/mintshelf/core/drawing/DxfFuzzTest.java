package mintshelf.core.drawing;

import static org.assertj.core.api.Assertions.assertThat;

import com.code_intelligence.jazzer.junit.FuzzTest;
import java.util.List;
import java.util.Map;
import java.util.Set;
import mintshelf.core.base.Outcome;
import mintshelf.core.drawing.check.CheckRules;
import mintshelf.core.drawing.check.SheetCheck;
import mintshelf.core.drawing.compare.SheetCompare;
import mintshelf.core.drawing.dxf.DrawingFacts;
import mintshelf.core.drawing.dxf.DrawingWords;
import mintshelf.core.drawing.dxf.DxfDrawing;
import mintshelf.core.drawing.dxf.DxfEdit;
import mintshelf.core.drawing.svg.SvgWriter;
import mintshelf.core.drawing.titleblock.SheetMap;
import mintshelf.core.stamp.SheetStamp;

/**
 * Whatever the bytes are, reading, drawing, checking and writing end without an error. In the build the inputs that were kept run;
 * {@code JAZZER_FUZZ=1 mvn test -pl core -Dtest=DxfFuzzTest} looks for new ones.
 */
class DxfFuzzTest {
    private static final SheetStamp.Values VALUES = new SheetStamp.Values(
            Map.of("number", "TG40-3030", "revision", "B"),
            List.of(Map.of("revision", "A", "description", "first release"), Map.of("revision", "B")),
            true);

    @FuzzTest(maxDuration = "10m")
    void read(byte[] bytes) {
        Outcome<DxfDrawing> read = DxfDrawing.read(bytes);
        if (!(read instanceof Outcome.Granted<DxfDrawing> granted)) {
            assertThat(read.refusal().orElseThrow().reason()).isNotBlank();
            return;
        }
        DxfDrawing drawing = granted.value();
        assertThat(new DxfEdit(drawing).bytes()).isEqualTo(bytes);
        DrawingFacts.of(drawing);
        DrawingWords.of(drawing, 10_000);
        for (String layout : drawing.layouts()) {
            if (!(drawing.scene(layout, 0) instanceof Outcome.Granted<Scene> scene)) continue;
            SvgWriter.write(scene.value(), "fuzzed");
            if (scene.value().primitives().size() > 2000) continue;
            assertThat(SheetCompare.compare(scene.value(), scene.value(), 1).isEmpty())
                    .isTrue();
        }
        SheetMap map = SheetMap.readyMade();
        SheetCheck.check(drawing, CheckRules.hints(), map.read(drawing), Map.of("number", "TG40-3030"), Set.of());
        if (SheetStamp.write(bytes, map, VALUES) instanceof Outcome.Granted<SheetStamp.Stamped> written) {
            assertThat(SheetStamp.prove(bytes, written.value().bytes(), map, VALUES))
                    .isEmpty();
        }
    }
}
