package mintshelf.core.drawing.pdf;

import java.awt.image.BufferedImage;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import javax.imageio.ImageIO;
import mintshelf.core.base.Outcome;
import org.apache.pdfbox.Loader;
import org.apache.pdfbox.contentstream.operator.Operator;
import org.apache.pdfbox.cos.COSBase;
import org.apache.pdfbox.pdmodel.PDDocument;
import org.apache.pdfbox.pdmodel.PDPage;
import org.apache.pdfbox.pdmodel.common.PDRectangle;
import org.apache.pdfbox.pdmodel.graphics.image.PDImage;
import org.apache.pdfbox.rendering.PDFRenderer;
import org.apache.pdfbox.rendering.PageDrawer;
import org.apache.pdfbox.rendering.PageDrawerParameters;

/**
 * The pages of a PDF that somebody brought, and pictures of them. Held for its room before it is opened; pictures in it beyond
 * {@link #LARGEST_IMAGE} are left out, and what takes longer than {@link #LONGEST} to draw is refused.
 */
public final class PdfPages {
    /** Pages that are shown; further ones are told, not shown. */
    public static final int MOST = 500;

    /** Pixels of one picture on a page. */
    static final long LARGEST_IMAGE = 40_000_000;

    /** Nanoseconds for one page. */
    private static final long LONGEST = 10_000_000_000L;

    private static final double MILLIMETRE = 25.4 / 72;

    private PdfPages() {}

    /**
     * A page as it is read: turned as the file says.
     *
     * @param width in millimetres
     * @param height in millimetres
     * @param left where what is shown begins, in points of the file; {@code bottom} likewise
     * @param unit millimetres of a point
     * @param turned whether it is shown turned
     */
    public record Page(double width, double height, double left, double bottom, double unit, boolean turned) {
        /** How millimetres of it lie on the page. */
        PdfWriter.Fit fit() {
            double scale = MILLIMETRE / unit;
            return new PdfWriter.Fit(scale, -left * unit, -bottom * unit, width / unit, height / unit);
        }
    }

    /**
     * @param pages the first {@link #MOST} of them
     * @param count of all
     */
    public record Pages(List<Page> pages, int count) {
        public Pages {
            pages = List.copyOf(pages);
        }
    }

    private static <T> Outcome<T> unread(String why) {
        return Outcome.refused(
                "pdf.unread", "The pages of this PDF cannot be shown: " + why + ".", "Fetch a copy and open it there.");
    }

    /** Its pages, or why none can be shown: a password, damage, too much in it. O(bytes). */
    public static Outcome<Pages> of(byte[] pdf) {
        if (!PdfRoom.isModest(pdf)) return unread("it is packed too densely");
        try (PDDocument document = Loader.loadPDF(pdf)) {
            int count = document.getNumberOfPages();
            List<Page> pages = new ArrayList<>();
            for (int i = 0; i < Math.min(count, MOST); i++) pages.add(page(document.getPage(i)));
            return pages.isEmpty() ? unread("it has none") : Outcome.granted(new Pages(pages, count));
        } catch (IOException | RuntimeException e) {
            return unread("it is damaged, or needs a password");
        }
    }

    private static Page page(PDPage page) {
        PDRectangle box = page.getCropBox();
        double unit = MILLIMETRE * Math.max(1, page.getUserUnit());
        double width = Math.max(1, box.getWidth() * unit);
        double height = Math.max(1, box.getHeight() * unit);
        boolean sideways = page.getRotation() % 180 != 0;
        return new Page(
                sideways ? height : width,
                sideways ? width : height,
                box.getLowerLeftX(),
                box.getLowerLeftY(),
                unit,
                page.getRotation() % 360 != 0);
    }

    /**
     * A page as PNG.
     *
     * @param index from 0 on
     * @param longest pixels of its longer side
     */
    public static Outcome<byte[]> png(byte[] pdf, int index, int longest) {
        if (!PdfRoom.isModest(pdf)) return unread("it is packed too densely");
        try (PDDocument document = Loader.loadPDF(pdf)) {
            if (index < 0 || index >= Math.min(document.getNumberOfPages(), MOST)) return unread("it has no such page");
            PDRectangle box = document.getPage(index).getCropBox();
            float scale = longest / Math.max(1, Math.max(box.getWidth(), box.getHeight()));
            BufferedImage image = new Bounded(document).renderImage(index, scale);
            ByteArrayOutputStream out = new ByteArrayOutputStream();
            ImageIO.write(image, "png", out);
            return Outcome.granted(out.toByteArray());
        } catch (TakesLong e) {
            return unread("to draw the page takes too long");
        } catch (IOException | RuntimeException e) {
            return unread("it is damaged, or needs a password");
        }
    }

    private static final class TakesLong extends IOException {
        TakesLong() {
            super("The page takes too long");
        }
    }

    private static final class Bounded extends PDFRenderer {
        Bounded(PDDocument document) {
            super(document);
            setSubsamplingAllowed(true);
        }

        @Override
        protected PageDrawer createPageDrawer(PageDrawerParameters parameters) throws IOException {
            long until = System.nanoTime() + LONGEST;
            return new PageDrawer(parameters) {
                @Override
                public void drawImage(PDImage image) throws IOException {
                    if ((long) image.getWidth() * image.getHeight() <= LARGEST_IMAGE) super.drawImage(image);
                }

                @Override
                protected void processOperator(Operator operator, List<COSBase> operands) throws IOException {
                    if (System.nanoTime() > until) throw new TakesLong();
                    super.processOperator(operator, operands);
                }
            };
        }
    }
}
