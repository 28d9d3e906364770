package mintshelf.app.sight;

import java.time.Duration;
import java.util.List;
import java.util.Map;
import mintshelf.app.ground.ReadingRoom;
import mintshelf.app.ground.Recent;
import mintshelf.app.store.content.StoredContent;
import mintshelf.core.base.Numbers;
import mintshelf.core.base.Outcome;
import mintshelf.core.content.ContentKind;
import mintshelf.core.drawing.pdf.PdfOutline;
import mintshelf.core.drawing.pdf.PdfPages;
import mintshelf.core.drawing.pdf.PdfPages.Pages;
import mintshelf.core.drawing.pdf.PdfText;
import mintshelf.core.drawing.pdf.PdfText.Word;
import mintshelf.core.drawing.pdf.TiffPages;
import org.springframework.stereotype.Component;

/** Pages of PDFs, whoever wrote them. Contents never change: what was found out once is kept by their hash. */
@Component
public class PdfSheets {
    /** PDFs beyond that are fetched, not shown. */
    private static final long LARGEST = 48L << 20;

    private static final int KEPT = 500;
    private static final int KEPT_PICTURES = 24;
    private static final int KEPT_WORDS = 4;
    private static final Duration LONGEST_READING = Duration.ofSeconds(20);
    /** Pixels of a picture's longer side, by what it is for. */
    public static final int TO_READ = 2600;

    public static final int TO_SEE = 1100;
    /** Bytes of a dot in the making, twice, as the page and its groups take them. */
    private static final long DOT = 2 * 4;

    private final Contents contents;
    private final ReadingRoom room;
    private final Map<String, Outcome<Pages>> pages = Recent.most(KEPT);
    private final Map<String, List<List<Word>>> words = Recent.most(KEPT_WORDS);
    private final Map<String, List<PdfOutline.Chapter>> chapters = Recent.most(KEPT_WORDS);
    private final Map<String, byte[]> pictures = Recent.most(KEPT_PICTURES);

    public PdfSheets(Contents contents, ReadingRoom room) {
        this.contents = contents;
        this.room = room;
    }

    /** Whether a content is shown page by page: a PDF, a scan. */
    public static boolean isPaper(StoredContent content) {
        return content.kind() == ContentKind.PDF || isScan(content);
    }

    private static boolean isScan(StoredContent content) {
        return content.kind() == ContentKind.TIFF;
    }

    /** Its pages, or why they are not shown. */
    public Outcome<Pages> pages(StoredContent content) {
        String hash = content.hash().hex();
        Outcome<Pages> known = pages.get(hash);
        if (known != null) return known;
        // Whether there is room depends on what else the request reads: that is found out anew.
        if (opened(content, 0) instanceof Outcome.Refused<Boolean> no) return Outcome.refused(no.why());
        Outcome<Pages> found = isScan(content) ? TiffPages.of(bytes(content)) : PdfPages.of(bytes(content));
        pages.put(hash, found);
        return found;
    }

    private byte[] bytes(StoredContent content) {
        return contents.bytes(content, content.size());
    }

    /** Whether there is room to open it. */
    private Outcome<Boolean> opened(StoredContent content, long besides) {
        if (!isPaper(content)) return Outcome.refused("pdf.none", "It has no pages.", "");
        if (content.size() > LARGEST || !room.takes(3 * content.size() + besides)) {
            return Outcome.refused(
                    "pdf.large",
                    "It has " + Numbers.size(content.size()) + "; papers of up to " + Numbers.size(LARGEST)
                            + " are shown here.",
                    "Fetch a copy and open it there.");
        }
        return Outcome.granted(true);
    }

    /**
     * A page as PNG.
     *
     * @param page from 1 on
     * @param longest {@link #TO_READ} or {@link #TO_SEE}
     */
    public Outcome<byte[]> png(StoredContent content, int page, int longest) {
        String key = content.hash().hex() + page + " " + longest;
        byte[] known = pictures.get(key);
        if (known != null) return Outcome.granted(known);
        Outcome<Boolean> opened = opened(content, DOT * longest * longest);
        if (opened instanceof Outcome.Refused<Boolean> no) return Outcome.refused(no.why());
        Outcome<byte[]> drawn = isScan(content)
                ? TiffPages.png(bytes(content), page - 1, longest)
                : PdfPages.png(bytes(content), page - 1, longest);
        if (drawn instanceof Outcome.Granted<byte[]> png) pictures.put(key, png.value());
        return drawn;
    }

    /**
     * The words of each of its pages with their places; none of a scan, and of what says very much those of its first pages. Read once, and kept
     * while few others are read.
     */
    public List<List<Word>> words(StoredContent content) {
        String hash = content.hash().hex();
        List<List<Word>> known = words.get(hash);
        if (known != null) return known;
        if (!(pages(content) instanceof Outcome.Granted<Pages> paper)) return List.of();
        List<List<Word>> read = isScan(content)
                ? paper.value().pages().stream().map(p -> List.<Word>of()).toList()
                : PdfText.of(bytes(content), paper.value().pages(), LONGEST_READING);
        words.put(hash, read);
        return read;
    }

    /** Its chapters, where it says them. */
    public List<PdfOutline.Chapter> chapters(StoredContent content) {
        List<PdfOutline.Chapter> known = chapters.get(content.hash().hex());
        if (known != null) return known;
        boolean opened = opened(content, 0) instanceof Outcome.Granted<Boolean>;
        if (!opened || isScan(content)) return List.of();
        List<PdfOutline.Chapter> read = PdfOutline.of(bytes(content));
        chapters.put(content.hash().hex(), read);
        return read;
    }
}
