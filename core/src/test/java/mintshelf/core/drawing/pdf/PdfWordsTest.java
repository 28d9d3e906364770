package mintshelf.core.drawing.pdf;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.time.Duration;
import java.util.Arrays;
import org.apache.pdfbox.pdmodel.PDDocument;
import org.apache.pdfbox.pdmodel.PDPage;
import org.apache.pdfbox.pdmodel.PDPageContentStream;
import org.apache.pdfbox.pdmodel.encryption.AccessPermission;
import org.apache.pdfbox.pdmodel.encryption.StandardProtectionPolicy;
import org.apache.pdfbox.pdmodel.font.PDType1Font;
import org.apache.pdfbox.pdmodel.font.Standard14Fonts;
import org.junit.jupiter.api.Test;

class PdfWordsTest {
    private static final Duration LONG = Duration.ofSeconds(20);

    private static byte[] pdf(boolean locked, String... pages) throws IOException {
        try (PDDocument document = new PDDocument()) {
            for (String says : pages) {
                PDPage page = new PDPage();
                document.addPage(page);
                try (PDPageContentStream out = new PDPageContentStream(document, page)) {
                    out.beginText();
                    out.setFont(new PDType1Font(Standard14Fonts.FontName.HELVETICA), 12);
                    out.newLineAtOffset(60, 700);
                    out.showText(says);
                    out.endText();
                }
            }
            if (locked) document.protect(new StandardProtectionPolicy("owner", "user", new AccessPermission()));
            ByteArrayOutputStream out = new ByteArrayOutputStream();
            document.save(out);
            return out.toByteArray();
        }
    }

    @Test
    void linesOfAllPagesAreReadEachOnce() throws IOException {
        byte[] file = pdf(false, "Specification of the gauge", "Anchor nuts 120 Nm", "Anchor nuts 120 Nm");
        assertThat(PdfWords.of(file, 40_000, LONG)).containsExactly("Specification of the gauge", "Anchor nuts 120 Nm");
        assertThat(PdfWords.of(file, 30, LONG)).containsExactly("Specification of the gauge");
        assertThat(PdfWords.of(file, 40_000, Duration.ZERO)).isEmpty();
    }

    @Test
    void whatIsLockedOrBrokenSaysNothing() throws IOException {
        assertThat(PdfWords.of(pdf(true, "secret words"), 40_000, LONG)).isEmpty();
        byte[] whole = pdf(false, "half of it");
        for (int cut = 0; cut < whole.length; cut += 97) {
            assertThat(PdfWords.of(Arrays.copyOf(whole, cut), 40_000, LONG).size())
                    .isLessThanOrEqualTo(1);
        }
        assertThat(PdfWords.of(new byte[0], 40_000, LONG)).isEmpty();
    }
}
