package mintshelf.core.drawing;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import mintshelf.core.base.ContentHash;
import mintshelf.core.drawing.dxf.DxfDrawing;
import mintshelf.core.drawing.dxf.SaveMarks;
import org.junit.jupiter.api.Test;

class SaveMarksTest {
    private static ContentHash hash(String saved, String by, String text) {
        String file = "0\nSECTION\n2\nHEADER\n9\n$ACADVER\n1\nAC1027\n9\n$TDUPDATE\n40\n" + saved
                + "\n9\n$LASTSAVEDBY\n1\n" + by
                + "\n9\n$LTSCALE\n40\n1.0\n0\nENDSEC\n0\nSECTION\n2\nENTITIES\n0\nTEXT\n10\n1.0\n20\n2.0\n40\n2.5\n1\n"
                + text + "\n0\nENDSEC\n0\nEOF\n";
        return SaveMarks.without(DxfDrawing.read(file.getBytes(StandardCharsets.UTF_8))
                .orElseThrow(r -> new IllegalStateException(r.says())));
    }

    @Test
    void aDrawingThatWasOnlySavedAgainIsTheSameDrawing() {
        assertThat(hash("2460000.5", "Priya", "PLATE")).isEqualTo(hash("2461111.25", "Tomasz Okrent", "PLATE"));
    }

    @Test
    void anyOtherChangeMakesAnotherDrawing() {
        assertThat(hash("2460000.5", "Priya", "PLATE")).isNotEqualTo(hash("2460000.5", "Priya", "PLATES"));
        assertThat(hash("1", "$LTSCALE", "A")).isEqualTo(hash("2", "x", "A"));
    }
}
