package mintshelf.core.drawing.pdf;

import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import org.apache.pdfbox.Loader;
import org.apache.pdfbox.cos.COSName;
import org.apache.pdfbox.pdmodel.PDDocument;
import org.apache.pdfbox.pdmodel.PDPage;
import org.apache.pdfbox.pdmodel.PDPageContentStream;
import org.apache.pdfbox.pdmodel.common.PDRectangle;
import org.apache.pdfbox.pdmodel.font.PDFont;
import org.apache.pdfbox.pdmodel.font.PDType0Font;
import org.apache.pdfbox.util.Matrix;

/**
 * Words across the margins of pages that were written here: along the upper edge and, turned, along the left one, on white within a frame,
 * so that they are read over whatever stands there. Text, which a reader finds and copies. O(bytes).
 */
public final class PdfMark {
    private static final float BRICK_RED = 0.62f;
    private static final float BRICK_GREEN = 0.17f;
    private static final float BRICK_BLUE = 0.13f;

    private PdfMark() {}

    /**
     * The same pages with the mark.
     *
     * @param pdf as {@link PdfWriter} wrote it
     * @param font TrueType; letters that it lacks are a box
     */
    public static byte[] across(byte[] pdf, byte[] font, String says) {
        try (PDDocument document = Loader.loadPDF(pdf)) {
            PDFont letters = PDType0Font.load(document, new ByteArrayInputStream(font), true);
            String known = known(letters, says);
            // A seal vouches for every byte: of what is written over it has none any more.
            document.getDocumentCatalog().setAcroForm(null);
            document.getDocumentCatalog().getCOSObject().removeItem(COSName.PERMS);
            for (PDPage page : document.getPages()) {
                page.getCOSObject().removeItem(COSName.ANNOTS);
            }
            for (PDPage page : document.getPages()) mark(document, page, letters, known);
            ByteArrayOutputStream bytes = new ByteArrayOutputStream(pdf.length + 20_000);
            document.save(bytes);
            return bytes.toByteArray();
        } catch (IOException e) {
            throw new UncheckedIOException("The pages cannot be read", e);
        }
    }

    private static String known(PDFont font, String text) {
        StringBuilder known = new StringBuilder();
        text.codePoints().forEach(c -> {
            String letter = Character.toString(c);
            try {
                font.encode(letter);
                known.append(letter);
            } catch (IOException | IllegalArgumentException e) {
                known.append('\u25A1');
            }
        });
        return known.toString();
    }

    private static void mark(PDDocument document, PDPage page, PDFont font, String says) throws IOException {
        PDRectangle box = page.getMediaBox();
        try (PDPageContentStream out =
                new PDPageContentStream(document, page, PDPageContentStream.AppendMode.APPEND, true, true)) {
            float shorter = Math.min(box.getWidth(), box.getHeight());
            float size = Math.max(6, Math.min(36, shorter / 32));
            float width = font.getStringWidth(says) / 1000 * size;
            float fits = Math.min(1, shorter * 0.9f / Math.max(1, width));
            float height = size * fits;
            float length = width * fits;
            float inset = height * 0.4f;
            band(
                    out,
                    font,
                    says,
                    height,
                    length,
                    Matrix.getTranslateInstance(
                            box.getLowerLeftX() + (box.getWidth() - length) / 2,
                            box.getUpperRightY() - height - 2 * inset));
            Matrix turned = Matrix.getTranslateInstance(
                    box.getLowerLeftX() + height + 2 * inset, box.getLowerLeftY() + (box.getHeight() - length) / 2);
            turned.rotate(Math.PI / 2);
            band(out, font, says, height, length, turned);
        }
    }

    private static void band(PDPageContentStream out, PDFont font, String says, float height, float length, Matrix at)
            throws IOException {
        float edge = height * 0.35f;
        out.saveGraphicsState();
        out.transform(at);
        out.setNonStrokingColor(1f, 1f, 1f);
        out.setStrokingColor(BRICK_RED, BRICK_GREEN, BRICK_BLUE);
        out.setLineWidth(Math.max(0.7f, height / 14));
        out.addRect(-edge, -edge, length + 2 * edge, height + 1.4f * edge);
        out.fillAndStroke();
        out.setNonStrokingColor(BRICK_RED, BRICK_GREEN, BRICK_BLUE);
        out.beginText();
        out.setFont(font, height);
        out.showText(says);
        out.endText();
        out.restoreGraphicsState();
    }
}
