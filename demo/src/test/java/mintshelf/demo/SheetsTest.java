package mintshelf.demo;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Map;
import mintshelf.core.base.Outcome;
import mintshelf.core.content.ContentKind;
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
    void theSameSheetIsTheSameBytes() {
        Parts.Part part = Parts.ALL.get(3);
        assertThat(part.sheet("A", "2026-11-17")).isEqualTo(part.sheet("A", "2026-11-17"));
    }
}
