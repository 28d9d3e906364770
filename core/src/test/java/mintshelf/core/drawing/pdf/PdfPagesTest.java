package mintshelf.core.drawing.pdf;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.awt.Color;
import java.awt.image.BufferedImage;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.util.Arrays;
import java.util.Random;
import javax.imageio.ImageIO;
import mintshelf.core.base.Outcome;
import mintshelf.core.base.Refusal;
import mintshelf.core.drawing.pdf.PdfPages.Page;
import mintshelf.core.drawing.pdf.PdfPages.Pages;
import org.apache.pdfbox.cos.COSDictionary;
import org.apache.pdfbox.cos.COSName;
import org.apache.pdfbox.cos.COSStream;
import org.apache.pdfbox.pdmodel.PDDocument;
import org.apache.pdfbox.pdmodel.PDPage;
import org.apache.pdfbox.pdmodel.PDPageContentStream;
import org.apache.pdfbox.pdmodel.common.PDRectangle;
import org.apache.pdfbox.pdmodel.common.PDStream;
import org.apache.pdfbox.pdmodel.encryption.AccessPermission;
import org.apache.pdfbox.pdmodel.encryption.StandardProtectionPolicy;
import org.apache.pdfbox.pdmodel.graphics.image.PDImageXObject;
import org.junit.jupiter.api.Test;

class PdfPagesTest {
    private static byte[] saved(PDDocument document) throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        document.save(out);
        return out.toByteArray();
    }

    /** Pages of A4, each with a dark square in its lower left corner. */
    private static PDDocument pages(int count) throws IOException {
        PDDocument document = new PDDocument();
        for (int i = 0; i < count; i++) {
            PDPage page = new PDPage(PDRectangle.A4);
            document.addPage(page);
            try (PDPageContentStream draws = new PDPageContentStream(document, page)) {
                draws.setNonStrokingColor(Color.BLACK);
                draws.addRect(0, 0, 72, 72);
                draws.fill();
            }
        }
        return document;
    }

    private static Pages of(byte[] pdf) {
        return PdfPages.of(pdf).orElseThrow(r -> new IllegalStateException(r.says()));
    }

    private static BufferedImage drawn(byte[] pdf, int index, int longest) throws IOException {
        byte[] png = PdfPages.png(pdf, index, longest).orElseThrow(r -> new IllegalStateException(r.says()));
        return ImageIO.read(new ByteArrayInputStream(png));
    }

    private static String code(Outcome<?> outcome) {
        return outcome.refusal().map(Refusal::code).orElse("");
    }

    @Test
    void pagesAreAsLargeAsTheyAreReadInMillimetres() throws IOException {
        try (PDDocument document = pages(3)) {
            document.getPage(1).setRotation(90);
            document.getPage(2).setUserUnit(2);
            Pages pages = of(saved(document));
            assertThat(pages.count()).isEqualTo(3);
            assertThat(pages.pages().get(0).width()).isCloseTo(210, within(0.1));
            assertThat(pages.pages().get(1).width()).isCloseTo(297, within(0.1));
            assertThat(pages.pages().get(1).height()).isCloseTo(210, within(0.1));
            assertThat(pages.pages().get(2).height()).isCloseTo(594, within(0.1));
        }
    }

    @Test
    void aPageIsDrawnAsItIsTurned() throws IOException {
        try (PDDocument document = pages(2)) {
            document.getPage(1).setRotation(90);
            byte[] pdf = saved(document);
            BufferedImage upright = drawn(pdf, 0, 842);
            assertThat(upright.getHeight()).isBetween(840, 843);
            assertThat(upright.getRGB(5, upright.getHeight() - 5) & 0xff).isLessThan(30);
            assertThat(upright.getRGB(5, 5) & 0xff).isGreaterThan(220);
            BufferedImage turned = drawn(pdf, 1, 842);
            assertThat(turned.getWidth()).isBetween(840, 843);
            assertThat(turned.getRGB(5, 5) & 0xff).isLessThan(30);
        }
    }

    @Test
    void ofVeryManyPagesTheFirstAreShownAndAllAreCounted() throws IOException {
        try (PDDocument document = new PDDocument()) {
            for (int i = 0; i < PdfPages.MOST + 3; i++) document.addPage(new PDPage());
            byte[] pdf = saved(document);
            assertThat(of(pdf).count()).isEqualTo(PdfPages.MOST + 3);
            assertThat(of(pdf).pages()).hasSize(PdfPages.MOST);
            assertThat(code(PdfPages.png(pdf, PdfPages.MOST, 100))).isEqualTo("pdf.unread");
            assertThat(code(PdfPages.png(pdf, -1, 100))).isEqualTo("pdf.unread");
        }
    }

    @Test
    void whatCannotBeShownIsRefusedInWords() throws IOException {
        assertThat(code(PdfPages.of(new byte[0]))).isEqualTo("pdf.unread");
        assertThat(code(PdfPages.of("%PDF-1.7 nothing".getBytes(java.nio.charset.StandardCharsets.US_ASCII))))
                .isEqualTo("pdf.unread");
        try (PDDocument document = pages(1)) {
            document.protect(new StandardProtectionPolicy("owner", "user", new AccessPermission()));
            byte[] locked = saved(document);
            assertThat(code(PdfPages.of(locked))).isEqualTo("pdf.unread");
            assertThat(code(PdfPages.png(locked, 0, 100))).isEqualTo("pdf.unread");
        }
    }

    @Test
    void aPictureOfAThousandMillionDotsIsLeftOut() throws IOException {
        try (PDDocument document = pages(1)) {
            COSStream bits = new COSStream();
            bits.setItem(COSName.TYPE, COSName.XOBJECT);
            bits.setItem(COSName.SUBTYPE, COSName.IMAGE);
            bits.setInt(COSName.WIDTH, 40_000);
            bits.setInt(COSName.HEIGHT, 40_000);
            bits.setInt(COSName.BITS_PER_COMPONENT, 1);
            bits.setItem(COSName.COLORSPACE, COSName.DEVICEGRAY);
            try (var out = bits.createOutputStream(COSName.FLATE_DECODE)) {
                out.write(new byte[200_000]);
            }
            PDImageXObject image = new PDImageXObject(new PDStream(bits), null);
            PDPage page = document.getPage(0);
            try (PDPageContentStream draws =
                    new PDPageContentStream(document, page, PDPageContentStream.AppendMode.APPEND, true)) {
                draws.drawImage(image, 200, 200, 100, 100);
            }
            BufferedImage drawn = drawn(saved(document), 0, 842);
            assertThat(drawn.getRGB(5, drawn.getHeight() - 5) & 0xff)
                    .as("the rest is there")
                    .isLessThan(30);
            assertThat(drawn.getRGB(250, drawn.getHeight() - 250) & 0xff).isGreaterThan(220);
        }
    }

    @Test
    void aStripOfPaperTakesNoMoreRoomThanAnother() throws IOException {
        try (PDDocument document = new PDDocument()) {
            document.addPage(new PDPage(new PDRectangle(14_000, 10)));
            document.addPage(new PDPage(new PDRectangle(0, 0)));
            byte[] pdf = saved(document);
            assertThat(drawn(pdf, 0, 2600).getWidth()).isBetween(2598, 2602);
            Page none = of(pdf).pages().get(1);
            assertThat(none.width()).isPositive();
        }
    }

    @Test
    void noDamageBringsItDown() throws IOException {
        Random random = new Random(11);
        try (PDDocument document = pages(2)) {
            COSDictionary catalog = document.getDocumentCatalog().getCOSObject();
            assertThat(catalog.size()).isPositive();
            byte[] good = saved(document);
            for (int i = 0; i < 150; i++) {
                byte[] bad = Arrays.copyOf(good, good.length - random.nextInt(good.length / 2));
                for (int k = 0; k < 12; k++) bad[random.nextInt(bad.length)] = (byte) random.nextInt();
                assertThat(code(PdfPages.of(bad))).isIn("", "pdf.unread");
                assertThat(code(PdfPages.png(bad, 0, 60))).isIn("", "pdf.unread");
            }
        }
    }
}
