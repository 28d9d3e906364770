package mintshelf.app.use.document;

import java.util.ArrayList;
import java.util.List;
import java.util.stream.Collectors;
import mintshelf.app.ground.ReadingRoom;
import mintshelf.app.sight.PdfSheets;
import mintshelf.app.store.content.StoredContent;
import mintshelf.core.base.Outcome;
import mintshelf.core.base.Texts;
import mintshelf.core.drawing.Box;
import mintshelf.core.drawing.pdf.PdfCompare;
import mintshelf.core.drawing.pdf.PdfOutline.Chapter;
import mintshelf.core.drawing.pdf.PdfPages;
import mintshelf.core.drawing.pdf.PdfText.Word;
import org.springframework.stereotype.Service;

/** The chapters of papers, and where words stand in them. That the actor may see the content was asked before. */
@Service
public class ReadPaper {
    private static final int MOST = 100;
    private static final int AROUND = 5;
    private static final int LONGEST = 100;

    private final PdfSheets pdfs;
    private final ReadingRoom room;

    public ReadPaper(PdfSheets pdfs, ReadingRoom room) {
        this.pdfs = pdfs;
        this.room = room;
    }

    public List<Chapter> chapters(StoredContent content) {
        return room.apart(() -> pdfs.chapters(content));
    }

    /**
     * A place where a phrase stands.
     *
     * @param page from 1 on
     * @param says the words around it
     * @param at its box on the page, in millimetres: "x1 y1 x2 y2"
     */
    public record Hit(int page, String says, String at) {}

    /**
     * @param more whether there are more than are given
     * @param unread from which page on nothing was looked for; 0 where all of it was
     */
    public record Hits(List<Hit> hits, boolean more, int unread) {}

    /** Where a phrase stands, page by page; nothing for an empty one. */
    public Hits find(StoredContent content, String phrase) {
        String wanted = Texts.shorten(Texts.line(phrase), LONGEST);
        if (wanted.isBlank()) return new Hits(List.of(), false, 0);
        return room.apart(() -> {
            List<Hit> hits = new ArrayList<>();
            List<List<Word>> pages = pdfs.words(content);
            for (int i = 0; i < pages.size() && hits.size() <= MOST; i++) {
                for (List<Word> hit : PdfCompare.find(pages.get(i), wanted, MOST + 1 - hits.size())) {
                    hits.add(new Hit(i + 1, around(pages.get(i), hit), at(hit)));
                }
            }
            int all = pdfs.pages(content) instanceof Outcome.Granted<PdfPages.Pages> paper
                    ? paper.value().count()
                    : 0;
            return new Hits(
                    List.copyOf(hits.subList(0, Math.min(MOST, hits.size()))),
                    hits.size() > MOST,
                    pages.size() < all ? pages.size() + 1 : 0);
        });
    }

    private static String around(List<Word> page, List<Word> hit) {
        int at = page.indexOf(hit.get(0));
        return page.subList(Math.max(0, at - AROUND), Math.min(page.size(), at + hit.size() + AROUND)).stream()
                .map(Word::text)
                .collect(Collectors.joining(" "));
    }

    private static String at(List<Word> hit) {
        Box box = Box.EMPTY;
        for (Word word : hit) box = box.with(word.box());
        return Math.round(box.minX()) + " " + Math.round(box.minY()) + " " + Math.round(box.maxX() + 1) + " "
                + Math.round(box.maxY() + 1);
    }
}
