package mintshelf.core.drawing.pdf;

import com.github.difflib.DiffUtils;
import com.github.difflib.patch.AbstractDelta;
import com.github.difflib.patch.DeltaType;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import mintshelf.core.drawing.Box;
import mintshelf.core.drawing.compare.Comparison;
import mintshelf.core.drawing.compare.Comparison.Difference;
import mintshelf.core.drawing.pdf.PdfText.Word;

/**
 * What two PDFs say differently, page by page and word by word: E. W. Myers, An O(ND) difference algorithm and its variations, Algorithmica
 * 1 (1986).
 */
public final class PdfCompare {
    /** Differences of one page that are named; what follows is told, not listed. */
    public static final int NAMED = 200;

    private static final int WORDS_SAID = 12;

    private PdfCompare() {}

    /**
     * Two pages that belong together, or one that has no other.
     *
     * @param old from 0 on; empty for one that is only in the new one
     * @param now from 0 on; empty for one that is only in the old one
     * @param differences in their words
     */
    public record Pair(Optional<Integer> old, Optional<Integer> now, List<Difference> differences) {
        public Pair {
            differences = List.copyOf(differences);
        }

        /** As a choice says it: "page 3", "page 4, was 3", "page 5, only in new". */
        public String says() {
            if (now.isEmpty()) return "page " + (old.orElseThrow() + 1) + ", only in old";
            String page = "page " + (now.get() + 1);
            if (old.isEmpty()) return page + ", only in new";
            return old.get().equals(now.get()) ? page : page + ", was " + (old.get() + 1);
        }

        public boolean isWhole() {
            return old.isPresent() && now.isPresent();
        }

        /** As the comparison of two sheets says it. */
        public Comparison comparison(int olds, int nows) {
            int changed = count(Comparison.Kind.CHANGED);
            int removed = count(Comparison.Kind.ONLY_IN_OLD);
            int added = count(Comparison.Kind.ONLY_IN_NEW);
            return new Comparison(
                    olds, nows, Math.max(0, nows - changed - added), changed, 0, removed, added, differences);
        }

        private int count(Comparison.Kind kind) {
            return (int) differences.stream().filter(d -> d.kind() == kind).count();
        }
    }

    /** All pages in the order of the new one, with those that are only in the old one where they stood. */
    public static List<Pair> pages(List<List<Word>> old, List<List<Word>> now) {
        List<Pair> pairs = new ArrayList<>();
        int o = 0;
        int n = 0;
        // Pages that say the same hold the others in their place.
        for (AbstractDelta<String> delta : DiffUtils.diff(said(old), said(now)).getDeltas()) {
            int before = delta.getSource().getPosition();
            while (o < before) pairs.add(pair(old, now, o++, n++));
            int olds = delta.getSource().size();
            int nows = delta.getTarget().size();
            int both = Math.min(olds, nows);
            for (int i = 0; i < both; i++) pairs.add(pair(old, now, o++, n++));
            for (int i = both; i < olds; i++) pairs.add(new Pair(Optional.of(o++), Optional.empty(), List.of()));
            for (int i = both; i < nows; i++) pairs.add(new Pair(Optional.empty(), Optional.of(n++), List.of()));
        }
        while (n < now.size()) pairs.add(pair(old, now, o++, n++));
        return List.copyOf(pairs);
    }

    private static List<String> said(List<List<Word>> pages) {
        return pages.stream()
                .map(p -> p.stream().map(Word::text).collect(Collectors.joining(" ")))
                .toList();
    }

    private static Pair pair(List<List<Word>> old, List<List<Word>> now, int o, int n) {
        return new Pair(Optional.of(o), Optional.of(n), words(old.get(o), now.get(n)));
    }

    /** The differences of two pages in the order of reading. */
    static List<Difference> words(List<Word> old, List<Word> now) {
        List<Difference> all = new ArrayList<>();
        for (AbstractDelta<String> delta : DiffUtils.diff(
                        old.stream().map(Word::text).toList(),
                        now.stream().map(Word::text).toList())
                .getDeltas()) {
            List<Word> before =
                    part(old, delta.getSource().getPosition(), delta.getSource().size());
            List<Word> after =
                    part(now, delta.getTarget().getPosition(), delta.getTarget().size());
            if (all.size() < NAMED) all.add(difference(all.size() + 1, delta.getType(), before, after));
        }
        return all;
    }

    private static List<Word> part(List<Word> words, int from, int size) {
        return words.subList(from, from + size);
    }

    private static Difference difference(int number, DeltaType type, List<Word> before, List<Word> after) {
        Comparison.Kind kind = type == DeltaType.INSERT
                ? Comparison.Kind.ONLY_IN_NEW
                : type == DeltaType.DELETE ? Comparison.Kind.ONLY_IN_OLD : Comparison.Kind.CHANGED;
        String says = kind == Comparison.Kind.CHANGED
                ? said(before, "") + " → " + said(after, "")
                : said(before, said(after, ""));
        Box box = Box.EMPTY;
        for (Word word : after.isEmpty() ? before : after) box = box.with(word.box());
        return new Difference(number, kind, box, "", says, true, false, List.of(), List.of());
    }

    private static String said(List<Word> words, String otherwise) {
        if (words.isEmpty()) return otherwise;
        String text = words.stream().limit(WORDS_SAID).map(Word::text).collect(Collectors.joining(" "));
        return "“" + text + (words.size() > WORDS_SAID ? " …" : "") + "”";
    }

    /** Words in which a phrase stands, joined; case does not matter. Each hit as the words that it begins in and ends in. */
    public static List<List<Word>> find(List<Word> page, String phrase, int most) {
        List<String> wanted = List.of(phrase.strip().toLowerCase(Locale.ROOT).split("\\s+"));
        List<List<Word>> hits = new ArrayList<>();
        if (phrase.isBlank()) return hits;
        Set<Integer> taken = new HashSet<>();
        for (int i = 0; i + wanted.size() <= page.size() && hits.size() < most; i++) {
            if (!taken.contains(i) && stands(page, i, wanted)) {
                hits.add(page.subList(i, i + wanted.size()));
                for (int k = 0; k < wanted.size(); k++) taken.add(i + k);
            }
        }
        return hits;
    }

    /** The first may end with its word, the last begin with it; of one word any part. */
    private static boolean stands(List<Word> page, int at, List<String> wanted) {
        for (int k = 0; k < wanted.size(); k++) {
            String word = page.get(at + k).text().toLowerCase(Locale.ROOT);
            String want = wanted.get(k);
            boolean fits = wanted.size() == 1
                    ? word.contains(want)
                    : k == 0 ? word.endsWith(want) : k == wanted.size() - 1 ? word.startsWith(want) : word.equals(want);
            if (!fits) return false;
        }
        return true;
    }
}
