package mintshelf.core.drawing.pdf;

import java.awt.image.BufferedImage;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import javax.imageio.ImageIO;
import org.apache.pdfbox.Loader;
import org.apache.pdfbox.pdmodel.PDDocument;
import org.apache.pdfbox.pdmodel.common.PDRectangle;
import org.apache.pdfbox.rendering.PDFRenderer;

/** A page of PDF as a picture, for places that show no vectors, such as mails. */
public final class PdfPicture {
    private PdfPicture() {}

    /** The first page as PNG whose longer side has so many pixels: a strip of a sheet takes no more room than others. */
    public static byte[] within(byte[] pdf, int longest) {
        try (PDDocument document = Loader.loadPDF(pdf)) {
            PDRectangle page = document.getPage(0).getMediaBox();
            return drawn(document, longest / Math.max(page.getWidth(), page.getHeight()));
        } catch (IOException e) {
            throw new UncheckedIOException("The page cannot be read", e);
        }
    }

    /** The first page as PNG, {@code width} pixels wide. */
    public static byte[] png(byte[] pdf, int width) {
        try (PDDocument document = Loader.loadPDF(pdf)) {
            return drawn(document, width / document.getPage(0).getMediaBox().getWidth());
        } catch (IOException e) {
            throw new UncheckedIOException("Reading from memory failed", e);
        }
    }

    private static byte[] drawn(PDDocument document, float scale) throws IOException {
        BufferedImage image = new PDFRenderer(document).renderImage(0, scale);
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        ImageIO.write(image, "png", out);
        return out.toByteArray();
    }
}
