package mintshelf.core.drawing;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.awt.image.BufferedImage;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import mintshelf.core.drawing.pdf.PdfWriter;
import mintshelf.core.drawing.pdf.SystemFonts;
import org.apache.pdfbox.Loader;
import org.apache.pdfbox.pdmodel.PDDocument;
import org.apache.pdfbox.rendering.PDFRenderer;
import org.apache.pdfbox.text.PDFTextStripper;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class PdfWriterTest {
    private static final Style THICK = new Style("OUTLINE", Style.INK, 1.0, List.of());
    private static final Style OFF = new Style("OFF", 0xff0000, 2.0, List.of());

    static List<byte[]> fonts() throws IOException {
        return List.of(Files.readAllBytes(Path.of("../app/src/main/resources/static/fonts/dejavu-sans.ttf")));
    }

    private static Primitive.Text text(double x, double y, double angle, int across, String text) {
        return new Primitive.Text(THICK, x, y, 5, angle, 1, across, 0, false, text);
    }

    private static Scene sheet(Primitive... more) {
        List<Primitive> all = new ArrayList<>(List.of(more));
        all.add(new Primitive.Polyline(THICK, new double[] {0, 0, 420, 0, 420, 297, 0, 297}, true));
        return new Scene(all, Map.of("OUTLINE", true, "OFF", false), Map.of());
    }

    @Test
    void aSheetKeepsItsSizeAndItsTextStaysText() throws IOException {
        var written = PdfWriter.write(
                sheet(text(50, 50, 0, 0, "Søren Bødker ⌀6.6 ±0.1 45°"), text(200, 100, 90, 1, "TG40-3030")),
                fonts(),
                "TG40-3030 Gland plate",
                "TG40-3030 · C · released");
        assertThat(written.missing()).isEmpty();
        try (PDDocument document = Loader.loadPDF(written.bytes())) {
            assertThat(document.getPage(0).getMediaBox().getWidth()).isCloseTo(420 / 25.4f * 72, within(1f));
            assertThat(document.getPage(0).getMediaBox().getHeight()).isCloseTo(297 / 25.4f * 72, within(1f));
            assertThat(new PDFTextStripper().getText(document))
                    .contains("Søren Bødker ⌀6.6 ±0.1 45°")
                    .contains("TG40-3030 · C · released");
            document.getPage(0).getResources().getFontNames().forEach(name -> {
                try {
                    assertThat(document.getPage(0).getResources().getFont(name).isEmbedded())
                            .isTrue();
                } catch (IOException e) {
                    throw new UncheckedIOException(e);
                }
            });
        }
    }

    @Test
    void linesAreDrawnWhereTheyStandAndHiddenLayersAreLeftOut() throws IOException {
        Scene scene = sheet(
                new Primitive.Polyline(THICK, new double[] {100, 200, 300, 200}, false),
                new Primitive.Arc(THICK, 100, 100, 40, 0, 360),
                new Primitive.Polyline(OFF, new double[] {100, 250, 300, 250}, false));
        try (PDDocument document =
                Loader.loadPDF(PdfWriter.write(scene, fonts(), "t", "").bytes())) {
            BufferedImage image = new PDFRenderer(document).renderImageWithDPI(0, 25.4f);
            assertThat(dark(image, 200, 297 - 200)).isTrue();
            assertThat(dark(image, 140, 297 - 100)).isTrue();
            assertThat(dark(image, 100, 297 - 100)).isFalse();
            assertThat(dark(image, 200, 297 - 250)).isFalse();
        }
    }

    /** At one dot a millimetre. */
    private static boolean dark(BufferedImage image, int x, int y) {
        for (int dx = -1; dx <= 1; dx++)
            for (int dy = -1; dy <= 1; dy++) if ((image.getRGB(x + dx, y + dy) & 255) < 160) return true;
        return false;
    }

    @Test
    void layersCanBeSwitchedOnThePage() throws IOException {
        Style other = new Style("DIM", 0x00aa00, 0.25, List.of());
        Scene scene = sheet(
                new Primitive.Polyline(other, new double[] {100, 200, 300, 200}, false), text(50, 50, 0, 0, "Float"));
        try (PDDocument document =
                Loader.loadPDF(PdfWriter.write(scene, fonts(), "t", "").bytes())) {
            var layers = document.getDocumentCatalog().getOCProperties();
            assertThat(layers.getGroupNames()).containsExactlyInAnyOrder("OUTLINE", "DIM");
            layers.setGroupEnabled("DIM", false);
            BufferedImage image = new PDFRenderer(document).renderImageWithDPI(0, 25.4f);
            assertThat(dark(image, 200, 297 - 200)).isFalse();
            assertThat(dark(image, 0 + 1, 150)).isTrue();
        }
    }

    @Test
    void theSameSceneGivesTheSameBytes() throws IOException {
        Scene scene = sheet(text(50, 50, 30, 2, "Float and tape"));
        assertThat(PdfWriter.write(scene, fonts(), "t", "m").bytes())
                .isEqualTo(PdfWriter.write(scene, fonts(), "t", "m").bytes());
    }

    @Test
    void whatTheFontLacksIsToldAndTheRestIsWritten() throws IOException {
        var written = PdfWriter.write(sheet(text(50, 50, 0, 0, "pump 標 left")), fonts(), "t", "");
        assertThat(written.missing()).containsExactly((int) '標');
        try (PDDocument document = Loader.loadPDF(written.bytes())) {
            assertThat(new PDFTextStripper().getText(document)).contains("pump □ left");
        }
    }

    @Test
    void fontsOfTheMachineAreLookedForByTheirNames(@TempDir Path folder) throws IOException {
        Files.createDirectories(folder.resolve("truetype/nanum"));
        Files.write(folder.resolve("truetype/nanum/NanumGothic.ttf"), new byte[] {2});
        Files.write(folder.resolve("truetype/DroidSansFallbackFull.ttf"), new byte[] {1});
        Files.write(folder.resolve("truetype/Other.ttf"), new byte[] {3});
        assertThat(SystemFonts.below(folder)).containsExactly(new byte[] {1}, new byte[] {2});
        assertThat(SystemFonts.below(folder.resolve("none"))).isEmpty();
    }

    @Test
    void aLetterThatTheFirstFontLacksComesFromTheNext() throws IOException {
        // The box of a letter that no font has, the second font never asked for where the first has all.
        List<byte[]> two = List.of(fonts().get(0), fonts().get(0));
        assertThat(PdfWriter.write(sheet(text(50, 50, 0, 0, "all there")), two, "t", "")
                        .bytes()
                        .length)
                .isEqualTo(PdfWriter.write(sheet(text(50, 50, 0, 0, "all there")), fonts(), "t", "")
                        .bytes()
                        .length);
        assertThat(PdfWriter.write(sheet(text(50, 50, 0, 0, "標")), two, "t", "").missing())
                .hasSize(1);
    }

    @Test
    void anythingFromAGearToAQuayFitsAPage() throws IOException {
        for (double size : new double[] {0.4, 3, 900, 40_000}) {
            Scene scene = new Scene(
                    List.of(new Primitive.Polyline(THICK, new double[] {0, 0, size, size}, false)), Map.of(), Map.of());
            try (PDDocument document =
                    Loader.loadPDF(PdfWriter.write(scene, fonts(), "t", "").bytes())) {
                assertThat(document.getPage(0).getMediaBox().getWidth()).isBetween(100f, 14_400f);
            }
        }
    }
}
