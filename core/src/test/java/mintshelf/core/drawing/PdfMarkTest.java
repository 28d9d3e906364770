package mintshelf.core.drawing;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Collections;
import java.util.List;
import java.util.Map;
import javax.imageio.ImageIO;
import mintshelf.core.drawing.pdf.PdfMark;
import mintshelf.core.drawing.pdf.PdfPicture;
import mintshelf.core.drawing.pdf.PdfWriter;
import org.apache.pdfbox.Loader;
import org.apache.pdfbox.pdmodel.PDDocument;
import org.apache.pdfbox.text.PDFTextStripper;
import org.junit.jupiter.api.Test;

class PdfMarkTest {
    private static byte[] font() throws IOException {
        return Files.readAllBytes(Path.of("../app/src/main/resources/static/fonts/dejavu-sans.ttf"));
    }

    private static byte[] pages(int n) throws IOException {
        Style line = new Style("OUTLINE", Style.INK, 1.0, List.of());
        Scene scene = new Scene(
                List.of(
                        new Primitive.Polyline(line, new double[] {0, 0, 420, 0, 420, 297, 0, 297}, true),
                        new Primitive.Text(line, 50, 50, 5, 0, 1, 0, 0, false, "Gland plate")),
                Map.of("OUTLINE", true),
                Map.of());
        return PdfWriter.write(Collections.nCopies(n, scene), List.of(font()), "Sheet", "")
                .bytes();
    }

    private static String text(byte[] pdf) throws IOException {
        try (PDDocument document = Loader.loadPDF(pdf)) {
            return new PDFTextStripper().getText(document);
        }
    }

    private static int occurrences(String text, String of) {
        return text.split(of, -1).length - 1;
    }

    @Test
    void everyPageSaysItAlongTwoEdgesAndKeepsWhatItSaid() throws IOException {
        byte[] marked = PdfMark.across(pages(3), font(), "Replaced by C");
        String text = text(marked).replaceAll("\\s+", "");
        assertThat(occurrences(text, "ReplacedbyC"))
                .as("upper and left edge of three pages")
                .isEqualTo(6);
        assertThat(text.replace("ReplacedbyC", "")).isEqualTo(text(pages(3)).replaceAll("\\s+", ""));
    }

    @Test
    void itIsSeen() throws IOException {
        var plain = ImageIO.read(new ByteArrayInputStream(PdfPicture.png(pages(1), 400)));
        var marked = ImageIO.read(
                new ByteArrayInputStream(PdfPicture.png(PdfMark.across(pages(1), font(), "Withdrawn"), 400)));
        assertThat(marked.getWidth()).isEqualTo(plain.getWidth());
        assertThat(marked.getHeight()).isEqualTo(plain.getHeight());
        int red = 0;
        for (int x = 0; x < marked.getWidth(); x++) {
            for (int y = 0; y < marked.getHeight(); y++) {
                int rgb = marked.getRGB(x, y);
                if (((rgb >> 16) & 255) > ((rgb >> 8) & 255) + 60) red++;
            }
        }
        assertThat(red).isGreaterThan(40);
    }

    @Test
    void longWordsFitAndLettersThatTheFontLacksAreABox() throws IOException {
        String text = text(PdfMark.across(pages(1), font(), "Withdrawn; " + "TG40-3031 ".repeat(30) + "標準"));
        assertThat(text.replaceAll("\\s+", "")).contains("Withdrawn;TG40-3031", "\u25A1\u25A1");
        assertThatThrownBy(() -> PdfMark.across(new byte[] {1, 2, 3}, font(), "x"))
                .isInstanceOf(UncheckedIOException.class);
    }
}
