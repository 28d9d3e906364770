package mintshelf.core.drawing.pdf;

import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.apache.pdfbox.Loader;
import org.apache.pdfbox.pdmodel.PDDocument;
import org.apache.pdfbox.pdmodel.PDPage;
import org.apache.pdfbox.pdmodel.interactive.action.PDActionGoTo;
import org.apache.pdfbox.pdmodel.interactive.documentnavigation.destination.PDDestination;
import org.apache.pdfbox.pdmodel.interactive.documentnavigation.destination.PDPageXYZDestination;
import org.apache.pdfbox.pdmodel.interactive.documentnavigation.outline.PDOutlineItem;
import org.apache.pdfbox.pdmodel.interactive.documentnavigation.outline.PDOutlineNode;

/** The outline that a PDF brings (ISO 32000-1, 12.3.3): its chapters and the pages on which they begin. */
public final class PdfOutline {
    /** Entries that are walked, whether they have a title or not: a file may point to itself without end. */
    private static final int MOST = 1000;

    private static final double POINTS_A_MILLIMETRE = 72 / 25.4;

    private static final int DEEPEST = 8;
    private static final int LONGEST = 200;

    private PdfOutline() {}

    /**
     * A chapter.
     *
     * @param depth from 0 on
     * @param page from 1 on; 0 for one that leads to no page
     * @param down how far below the page's upper edge it begins, in mm; 0 where it does not say
     */
    public record Chapter(int depth, String title, int page, double down) {}

    /** The chapter that a place of a paper lies in: the last that begins before it. O(chapters). */
    public static Optional<Chapter> around(List<Chapter> chapters, int page, double down) {
        Chapter last = null;
        for (Chapter c : chapters) {
            boolean before = c.page() > 0 && (c.page() < page || (c.page() == page && c.down() <= down));
            boolean later =
                    last == null || c.page() > last.page() || (c.page() == last.page() && c.down() >= last.down());
            if (before && later) last = c;
        }
        return Optional.ofNullable(last);
    }

    /** The chapters in their order; none where there are none, or where they cannot be read. */
    public static List<Chapter> of(byte[] pdf) {
        List<Chapter> chapters = new ArrayList<>();
        if (!PdfRoom.isModest(pdf)) return chapters;
        try (PDDocument document = Loader.loadPDF(pdf)) {
            PDOutlineNode outline = document.getDocumentCatalog().getDocumentOutline();
            if (outline != null) new Walk(document, chapters).read(outline, 0);
        } catch (IOException | RuntimeException | StackOverflowError e) {
            // What could be read stands.
            return List.copyOf(chapters);
        }
        return List.copyOf(chapters);
    }

    private static final class Walk {
        private final PDDocument document;
        private final List<Chapter> chapters;
        private int walked;

        Walk(PDDocument document, List<Chapter> chapters) {
            this.document = document;
            this.chapters = chapters;
        }

        void read(PDOutlineNode node, int depth) throws IOException {
            if (depth >= DEEPEST) return;
            for (PDOutlineItem item = node.getFirstChild(); item != null; item = item.getNextSibling()) {
                if (++walked > MOST) return;
                String title = item.getTitle() == null
                        ? ""
                        : item.getTitle().replaceAll("\\p{Cntrl}+", " ").strip();
                if (!title.isEmpty()) {
                    chapters.add(new Chapter(
                            depth,
                            title.length() > LONGEST ? title.substring(0, LONGEST) : title,
                            page(document, item),
                            down(document, item)));
                }
                read(item, depth + 1);
            }
        }
    }

    private static double down(PDDocument document, PDOutlineItem item) throws IOException {
        PDPage page = item.findDestinationPage(document);
        PDDestination to = item.getDestination();
        if (to == null && item.getAction() instanceof PDActionGoTo go) to = go.getDestination();
        // Of a page that is turned nobody says which edge is its upper one.
        if (page == null
                || page.getRotation() % 360 != 0
                || !(to instanceof PDPageXYZDestination at)
                || at.getTop() <= 0) {
            return 0;
        }
        return Math.max(0, (page.getCropBox().getUpperRightY() - at.getTop()) / POINTS_A_MILLIMETRE);
    }

    private static int page(PDDocument document, PDOutlineItem item) throws IOException {
        PDPage page = item.findDestinationPage(document);
        return page == null ? 0 : document.getPages().indexOf(page) + 1;
    }
}
