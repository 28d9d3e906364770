package mintshelf.core.content;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import org.junit.jupiter.api.Test;

class ContentKindTest {
    private static ContentKind of(String text) {
        return ContentKind.of(text.getBytes(StandardCharsets.ISO_8859_1));
    }

    @Test
    void theKindComesFromTheBytes() {
        assertThat(of("")).isEqualTo(ContentKind.EMPTY);
        assertThat(of("  0\r\nSECTION\r\n  2\r\nHEADER\r\n")).isEqualTo(ContentKind.DXF);
        assertThat(of("999\nmade by hand\n0\nSECTION\n")).isEqualTo(ContentKind.DXF);
        assertThat(of("ISO-10303-21;\nHEADER;")).isEqualTo(ContentKind.STEP);
        assertThat(of("%PDF-1.7\n")).isEqualTo(ContentKind.PDF);
        assertThat(of("\u0089PNG\r\n\u001a\n")).isEqualTo(ContentKind.PNG);
        assertThat(of("<?xml version=\"1.0\"?>\n<svg xmlns=\"\">")).isEqualTo(ContentKind.SVG);
        assertThat(of("Berth 3: screen cleaned")).isEqualTo(ContentKind.TEXT);
        assertThat(of("a\0b")).isEqualTo(ContentKind.OTHER);
        assertThat(of("PK\3\4 [Content_Types].xml")).isEqualTo(ContentKind.OFFICE);
        assertThat(of("PK\3\4 plain")).isEqualTo(ContentKind.ZIP);
    }

    @Test
    void whatDoesNotShrinkIsCutLarge() {
        assertThat(CutSize.forSample(65536, 65000)).isEqualTo(CutSize.LARGE);
        assertThat(CutSize.forSample(65536, 20000)).isEqualTo(CutSize.SMALL);
    }
}
