package mintshelf.demo;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Map;
import java.util.Set;
import mintshelf.core.base.Outcome;
import mintshelf.core.content.ContentKind;
import mintshelf.core.drawing.check.CheckRules;
import mintshelf.core.drawing.check.Finding;
import mintshelf.core.drawing.check.SheetCheck;
import mintshelf.core.drawing.dxf.DxfDrawing;
import mintshelf.core.drawing.titleblock.SheetMap;
import org.junit.jupiter.api.Test;

class SheetsTest {
    @Test
    void everySheetOfTheStoryIsADrawingWhoseTitleBlockSaysWhatItIs() {
        for (Parts.Part part : Parts.ALL) {
            byte[] bytes = part.sheet("A", "2026-11-17");
            assertThat(ContentKind.of(bytes)).isEqualTo(ContentKind.DXF);
            DxfDrawing tags = ((Outcome.Granted<DxfDrawing>) DxfDrawing.read(bytes)).value();
            assertThat(tags.version()).isEqualTo("AC1009");
            Map<String, String> said = SheetMap.readyMade().read(tags);
            assertThat(said)
                    .containsEntry("number", part.number())
                    .containsEntry("title", part.title())
                    .containsEntry("revision", "A");
        }
    }

    @Test
    void partsListsAndBalloonsOfTheAssembliesAgreeAndNoSheetBreaksABindingRule() {
        for (Parts.Part part : Parts.ALL) {
            byte[] bytes = part.sheet("A", "2026-11-17");
            DxfDrawing drawing = ((Outcome.Granted<DxfDrawing>) DxfDrawing.read(bytes)).value();
            List<Finding> found = SheetCheck.check(
                    drawing, CheckRules.hints(), SheetMap.readyMade().read(drawing), Map.of(), Set.of());
            assertThat(found)
                    .as(part.number())
                    .extracting(Finding::rule)
                    .doesNotContain(
                            CheckRules.Rule.BALLOONS,
                            CheckRules.Rule.SHEET_FORMAT,
                            CheckRules.Rule.SCALE,
                            CheckRules.Rule.OFF_SHEET,
                            CheckRules.Rule.DIMENSION_WRONG,
                            CheckRules.Rule.UNREAD);
        }
    }

    @Test
    void theSameSheetIsTheSameBytes() {
        Parts.Part part = Parts.ALL.get(3);
        assertThat(part.sheet("A", "2026-11-17")).isEqualTo(part.sheet("A", "2026-11-17"));
    }
}
