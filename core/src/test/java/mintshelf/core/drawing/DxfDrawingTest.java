package mintshelf.core.drawing;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Map;
import mintshelf.core.base.Outcome;
import mintshelf.core.drawing.dxf.DxfDrawing;
import mintshelf.core.drawing.titleblock.SheetMap;
import org.junit.jupiter.api.Test;

class DxfDrawingTest {
    private static DxfDrawing read(byte[] bytes) {
        return ((Outcome.Granted<DxfDrawing>) DxfDrawing.read(bytes)).value();
    }

    private static String sheet(String eol) {
        return String.join(
                eol,
                List.of(
                        "  0",
                        "SECTION",
                        "  2",
                        "HEADER",
                        "  9",
                        "$ACADVER",
                        "  1",
                        "AC1015",
                        "  9",
                        "$DWGCODEPAGE",
                        "  3",
                        "ANSI_1252",
                        "  0",
                        "ENDSEC",
                        "  0",
                        "SECTION",
                        "  2",
                        "ENTITIES",
                        "  0",
                        "INSERT",
                        "  2",
                        "TITLE",
                        " 66",
                        "1",
                        "  0",
                        "ATTRIB",
                        "  1",
                        "TG40-3030",
                        "  2",
                        "NUMBER",
                        "  0",
                        "ATTRIB",
                        "  1",
                        "S\u00f8ren's \\U+00D85 %%c5.5",
                        "  2",
                        "TITLE",
                        "  0",
                        "SEQEND",
                        "  0",
                        "ENDSEC",
                        "  0",
                        "EOF",
                        ""));
    }

    @Test
    void aTitleBlockIsReadInItsCodePageWithAnyLineEnds() {
        for (String eol : List.of("\r\n", "\n", "\r")) {
            DxfDrawing tags = read(sheet(eol).getBytes(Charset.forName("windows-1252")));
            assertThat(tags.version()).isEqualTo("AC1015");
            assertThat(SheetMap.readyMade().read(tags))
                    .isEqualTo(Map.of("number", "TG40-3030", "title", "S\u00f8ren's \u00d85 \u23005.5"));
        }
    }

    @Test
    void fromAc1021OnTextIsUtf8() {
        byte[] bytes = sheet("\n").replace("AC1015", "AC1021").getBytes(StandardCharsets.UTF_8);
        assertThat(SheetMap.readyMade().read(read(bytes)).get("title")).startsWith("S\u00f8ren");
    }

    @Test
    void whatIsNoDrawingIsRefusedWithItsLine() {
        assertThat(DxfDrawing.read("hello\nworld\n".getBytes(StandardCharsets.UTF_8))
                        .refusal()
                        .orElseThrow()
                        .reason())
                .contains("Line 1 ");
        assertThat(DxfDrawing.read(new byte[0]).refusal().orElseThrow().code()).isEqualTo("dxf.empty");
        assertThat(DxfDrawing.read("0\nSECTION\n2".getBytes(StandardCharsets.UTF_8))
                        .refusal()
                        .orElseThrow()
                        .code())
                .isEqualTo("dxf.empty");
    }
}
