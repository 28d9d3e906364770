package mintshelf.core.drawing.pdf;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.time.Duration;
import java.util.List;
import org.apache.pdfbox.pdmodel.PDDocument;
import org.apache.pdfbox.pdmodel.PDPage;
import org.apache.pdfbox.pdmodel.PDPageContentStream;
import org.apache.pdfbox.pdmodel.font.PDType1Font;
import org.apache.pdfbox.pdmodel.font.Standard14Fonts;
import org.apache.pdfbox.pdmodel.interactive.documentnavigation.destination.PDPageFitDestination;
import org.apache.pdfbox.pdmodel.interactive.documentnavigation.outline.PDDocumentOutline;
import org.apache.pdfbox.pdmodel.interactive.documentnavigation.outline.PDOutlineItem;

/** Papers for tests. */
public final class Paper {
    private Paper() {}

    /** A PDF with a line of text in each of its pages, and a chapter for each. */
    public static byte[] pdf(String... pages) {
        return pdf(0, pages);
    }

    /** The same with a box of that size drawn on each page. */
    static byte[] pdf(int box, String... pages) {
        try (PDDocument document = new PDDocument()) {
            PDDocumentOutline outline = new PDDocumentOutline();
            for (String says : pages) {
                PDPage page = new PDPage();
                document.addPage(page);
                try (PDPageContentStream out = new PDPageContentStream(document, page)) {
                    out.beginText();
                    out.setFont(new PDType1Font(Standard14Fonts.FontName.HELVETICA), 12);
                    out.newLineAtOffset(72, 700);
                    out.showText(says);
                    out.endText();
                    if (box > 0) {
                        out.addRect(300, 300, box, box);
                        out.fill();
                    }
                }
                PDOutlineItem chapter = new PDOutlineItem();
                chapter.setTitle("About " + says);
                PDPageFitDestination to = new PDPageFitDestination();
                to.setPage(page);
                chapter.setDestination(to);
                outline.addLast(chapter);
            }
            PDOutlineItem nowhere = new PDOutlineItem();
            nowhere.setTitle("Annex\nwithout a page");
            outline.getLastChild().addLast(nowhere);
            document.getDocumentCatalog().setDocumentOutline(outline);
            ByteArrayOutputStream out = new ByteArrayOutputStream();
            document.save(out);
            return out.toByteArray();
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    static List<List<PdfText.Word>> words(byte[] pdf) {
        return PdfText.of(
                pdf,
                PdfPages.of(pdf)
                        .orElseThrow(r -> new IllegalStateException(r.says()))
                        .pages(),
                Duration.ofSeconds(20));
    }
}
