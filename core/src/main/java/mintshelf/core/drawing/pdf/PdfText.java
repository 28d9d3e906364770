package mintshelf.core.drawing.pdf;

import java.io.IOException;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import mintshelf.core.drawing.Box;
import org.apache.pdfbox.Loader;
import org.apache.pdfbox.pdmodel.PDDocument;
import org.apache.pdfbox.text.PDFTextStripper;
import org.apache.pdfbox.text.TextPosition;

/** The words of a PDF with their places (ISO 32000-1, 14.8.2), page by page. Scripts and attachments are not looked at. */
public final class PdfText {
    /** Words of one page that are kept: of what is packed denser than any paper the first ones. */
    private static final int MOST_WORDS = 10_000;

    /** Words of one PDF: pages behind them are not read. */
    private static final int MOST_OF_ALL = 150_000;

    private PdfText() {}

    /** A word and where it stands: in millimetres of its page, from the lower left corner of what is shown. */
    public record Word(String text, Box box) {}

    /**
     * The words of each page, in the order of reading: of the first pages only, where they say very much or there was no time for more. A page
     * that cannot be read has none.
     *
     * @param pages as {@link PdfPages#of} gives them
     */
    public static List<List<Word>> of(byte[] pdf, List<PdfPages.Page> pages, Duration longest) {
        long until = System.nanoTime() + longest.toNanos();
        List<List<Word>> all = new ArrayList<>();
        int said = 0;
        try (PDDocument document = Loader.loadPDF(pdf)) {
            while (all.size() < pages.size() && said < MOST_OF_ALL && System.nanoTime() < until) {
                all.add(words(document, all.size(), pages.get(all.size())));
                said += all.get(all.size() - 1).size();
            }
        } catch (IOException | RuntimeException | StackOverflowError e) {
            return List.copyOf(all);
        }
        return List.copyOf(all);
    }

    private static List<Word> words(PDDocument document, int index, PdfPages.Page page) {
        try {
            Words words = new Words(page);
            words.setSortByPosition(true);
            words.setStartPage(index + 1);
            words.setEndPage(index + 1);
            words.getText(document);
            return List.copyOf(words.found);
        } catch (IOException | RuntimeException e) {
            return List.of();
        }
    }

    private static final class Words extends PDFTextStripper {
        private final PdfPages.Page page;
        private final List<Word> found = new ArrayList<>();

        Words(PdfPages.Page page) {
            this.page = page;
        }

        @Override
        protected void writeString(String text, List<TextPosition> positions) {
            int from = 0;
            // What the stripper takes for one run may have blanks in it.
            for (int i = 0; i <= positions.size(); i++) {
                if (i < positions.size() && !positions.get(i).getUnicode().isBlank()) continue;
                if (i > from) add(positions.subList(from, i));
                from = i + 1;
            }
        }

        private void add(List<TextPosition> letters) {
            if (found.size() >= MOST_WORDS) return;
            StringBuilder text = new StringBuilder();
            Box box = Box.EMPTY;
            for (TextPosition letter : letters) {
                text.append(letter.getUnicode());
                double x = letter.getX() * page.unit();
                double y = page.height() - letter.getY() * page.unit();
                double width = Math.max(0.1, letter.getWidth() * page.unit());
                double height = Math.max(0.5, letter.getHeight() * page.unit());
                box = box.with(new Box(x, y, x + width, y + height));
            }
            found.add(new Word(text.toString(), box));
        }
    }
}
