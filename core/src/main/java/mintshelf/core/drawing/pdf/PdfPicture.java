package mintshelf.core.drawing.pdf;

import java.awt.image.BufferedImage;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import javax.imageio.ImageIO;
import org.apache.pdfbox.Loader;
import org.apache.pdfbox.pdmodel.PDDocument;
import org.apache.pdfbox.rendering.PDFRenderer;

/** A page of PDF as a picture, for places that show no vectors, such as mails. */
public final class PdfPicture {
    private PdfPicture() {}

    /** The first page as PNG, {@code width} pixels wide. */
    public static byte[] png(byte[] pdf, int width) {
        try (PDDocument document = Loader.loadPDF(pdf)) {
            float points = document.getPage(0).getMediaBox().getWidth();
            BufferedImage image = new PDFRenderer(document).renderImage(0, width / points);
            ByteArrayOutputStream out = new ByteArrayOutputStream();
            ImageIO.write(image, "png", out);
            return out.toByteArray();
        } catch (IOException e) {
            throw new UncheckedIOException("Reading from memory failed", e);
        }
    }
}
