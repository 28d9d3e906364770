package mintshelf.app.use.compare;

import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.IntStream;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.ReadingRoom;
import mintshelf.app.ground.Recent;
import mintshelf.app.ground.Refused;
import mintshelf.app.sight.Compared;
import mintshelf.app.sight.PdfSheets;
import mintshelf.app.store.content.StoredContent;
import mintshelf.core.base.Outcome;
import mintshelf.core.drawing.Box;
import mintshelf.core.drawing.compare.Comparison;
import mintshelf.core.drawing.pdf.InkOverlay;
import mintshelf.core.drawing.pdf.PdfCompare;
import mintshelf.core.drawing.pdf.PdfPages;
import mintshelf.core.drawing.pdf.PdfText;
import mintshelf.core.drawing.svg.PageOverlaySvg;
import org.springframework.stereotype.Service;

/** Compares papers page by page: their words, and their pictures one over the other. That the actor may see both was asked before. */
@Service
public class ComparePapers {
    private static final int KEPT = 40;
    private static final int KEPT_LAYERS = 4;
    private static final Duration LONGEST = Duration.ofSeconds(10);
    /** Dots of a picture's longer side. */
    private static final int DOTS = 1800;
    /** Less of the ink than that are edges that fell elsewhere. */
    private static final double SEEN = 0.002;

    private final PdfSheets pdfs;
    private final ReadingRoom room;
    private final Map<String, List<PdfCompare.Pair>> kept = Recent.most(KEPT);
    private final Map<String, InkOverlay.Layers> layers = Recent.most(KEPT_LAYERS);

    public ComparePapers(PdfSheets pdfs, ReadingRoom room) {
        this.pdfs = pdfs;
        this.room = room;
    }

    /** A page to choose. */
    public record Choice(int pair, String says, int differences) {}

    /**
     * Two papers, of which one pair of pages is shown.
     *
     * @param choices all pages
     * @param pair which of them is shown
     * @param picture whether the pictures differ where the words do not
     * @param differing pages with differences in words, or without another
     */
    public record Papers(List<Choice> choices, int pair, Compared shown, boolean picture, long differing) {}

    /**
     * Nothing where one of them is no paper, or has no pages that are shown.
     *
     * @param wanted the pair that is shown; the first one with a difference without a wish
     * @param address of the pictures' parts, to which pair and part are added
     */
    public Optional<Papers> of(StoredContent old, StoredContent now, Optional<Integer> wanted, String address) {
        if (!PdfSheets.isPaper(old) || !PdfSheets.isPaper(now)) return Optional.empty();
        List<PdfCompare.Pair> pairs = room.apart(() -> pairs(old, now));
        if (pairs.isEmpty()) return Optional.empty();
        int first = IntStream.range(0, pairs.size())
                .filter(i -> differs(pairs.get(i)))
                .findFirst()
                .orElse(0);
        int at = wanted.filter(i -> i >= 0 && i < pairs.size()).orElse(first);
        PdfCompare.Pair pair = pairs.get(at);
        boolean picture = pair.isWhole()
                && pair.differences().isEmpty()
                && layers(old, now, at).ratio() > SEEN;
        Comparison comparison = pair.comparison(words(old, pair.old()), words(now, pair.now()));
        String svg = PageOverlaySvg.of(
                box(old, now, pair),
                address + "&pair=" + at + "&part=",
                comparison.differences().stream()
                        .map(Comparison.Difference::box)
                        .toList());
        List<Choice> choices = new ArrayList<>();
        for (int i = 0; i < pairs.size(); i++) {
            choices.add(new Choice(
                    i, pairs.get(i).says(), pairs.get(i).differences().size()));
        }
        return Optional.of(new Papers(
                choices,
                at,
                new Compared(comparison, svg),
                picture,
                pairs.stream().filter(ComparePapers::differs).count()));
    }

    private static boolean differs(PdfCompare.Pair pair) {
        return !pair.isWhole() || !pair.differences().isEmpty();
    }

    private List<PdfCompare.Pair> pairs(StoredContent old, StoredContent now) {
        String key = old.hash().hex() + now.hash().hex();
        List<PdfCompare.Pair> known = kept.get(key);
        if (known != null) return known;
        boolean both = pdfs.pages(old) instanceof Outcome.Granted<PdfPages.Pages>
                && pdfs.pages(now) instanceof Outcome.Granted<PdfPages.Pages>;
        List<PdfCompare.Pair> found = both ? paired(old, now) : List.of();
        kept.put(key, found);
        return found;
    }

    /** With pages that say too much to be read: they are laid over each other, each on the one of its number. */
    private List<PdfCompare.Pair> paired(StoredContent old, StoredContent now) {
        List<List<PdfText.Word>> before = pdfs.words(old);
        List<List<PdfText.Word>> after = pdfs.words(now);
        List<PdfCompare.Pair> pairs = new ArrayList<>(PdfCompare.pages(before, after, LONGEST));
        int o = before.size();
        int n = after.size();
        int olds = pdfs.pages(old).orElseThrow(Refused::new).pages().size();
        int nows = pdfs.pages(now).orElseThrow(Refused::new).pages().size();
        while (o < olds || n < nows) {
            pairs.add(new PdfCompare.Pair(
                    o < olds ? Optional.of(o++) : Optional.empty(),
                    n < nows ? Optional.of(n++) : Optional.empty(),
                    List.of(),
                    false));
        }
        return List.copyOf(pairs);
    }

    private int words(StoredContent content, Optional<Integer> page) {
        List<List<PdfText.Word>> all = pdfs.words(content);
        return page.filter(p -> p < all.size()).map(p -> all.get(p).size()).orElse(0);
    }

    /** Around both pages, which may not be of one size. */
    private Box box(StoredContent old, StoredContent now, PdfCompare.Pair pair) {
        return pair.old()
                .map(p -> page(old, p))
                .orElse(Box.EMPTY)
                .with(pair.now().map(p -> page(now, p)).orElse(Box.EMPTY));
    }

    private Box page(StoredContent content, int index) {
        PdfPages.Page page =
                pdfs.pages(content).orElseThrow(Refused::new).pages().get(index);
        return new Box(0, 0, page.width(), page.height());
    }

    /** A part of two pages that lie over each other, as PNG: "same", "old" or "now". */
    public byte[] ink(StoredContent old, StoredContent now, int pair, String part) {
        InkOverlay.Layers all = layers(old, now, pair);
        return switch (part) {
            case "same" -> all.same();
            case "old" -> all.old();
            case "now" -> all.now();
            default -> throw new NotThere();
        };
    }

    private InkOverlay.Layers layers(StoredContent old, StoredContent now, int at) {
        String key = old.hash().hex() + now.hash().hex() + " " + at;
        InkOverlay.Layers known = layers.get(key);
        if (known != null) return known;
        return room.apart(() -> {
            List<PdfCompare.Pair> pairs = pairs(old, now);
            if (at < 0 || at >= pairs.size()) throw new NotThere();
            InkOverlay.Layers drawn = InkOverlay.of(
                    pairs.get(at).old().map(p -> png(old, p)),
                    pairs.get(at).now().map(p -> png(now, p)));
            layers.put(key, drawn);
            return drawn;
        });
    }

    private byte[] png(StoredContent content, int index) {
        return pdfs.png(content, index + 1, DOTS).orElseThrow(Refused::new);
    }
}
