package mintshelf.core.drawing.pdf;

import com.github.difflib.DiffUtils;
import com.github.difflib.algorithm.myers.MyersDiffWithLinearSpace;
import com.github.difflib.patch.AbstractDelta;
import java.time.Duration;
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

    /** Words of a page that are compared one by one: no page that people read has more. */
    private static final int MOST_COMPARED = 4000;

    private static final int WORDS_SAID = 12;

    private PdfCompare() {}

    /**
     * Two pages that belong together, or one that has no other.
     *
     * @param old from 0 on; empty for one that is only in the new one
     * @param now from 0 on; empty for one that is only in the old one
     * @param differences in their words
     * @param compared whether their words were compared: not where they say very much, or where there was no time left
     */
    public record Pair(Optional<Integer> old, Optional<Integer> now, List<Difference> differences, boolean compared) {
        public Pair {
            differences = List.copyOf(differences);
        }

        /** As a choice says it: "page 3", "page 4, was 3", "page 5, only in new". */
        public String says() {
            if (now.isEmpty()) return "page " + (old.orElseThrow() + 1) + ", only in old";
            String page = "page " + (now.get() + 1);
            if (old.isEmpty()) return page + ", only in new";
            return (old.get().equals(now.get()) ? page : page + ", was " + (old.get() + 1))
                    + (compared ? "" : ", words not compared");
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

    /** A stretch that differs: from where, and how much of either. */
    private record Run(int old, int olds, int now, int nows) {
        boolean touches(Run next) {
            return old + olds == next.old && now + nows == next.now;
        }

        Run with(Run next) {
            return new Run(old, olds + next.olds, now, nows + next.nows);
        }
    }

    /** In linear space: two pages that say nothing alike take no more room than two that do. */
    private static List<Run> runs(List<String> old, List<String> now) {
        List<Run> runs = new ArrayList<>();
        for (AbstractDelta<String> delta :
                DiffUtils.diff(old, now, new MyersDiffWithLinearSpace<String>()).getDeltas()) {
            Run run = new Run(
                    delta.getSource().getPosition(),
                    delta.getSource().size(),
                    delta.getTarget().getPosition(),
                    delta.getTarget().size());
            int last = runs.size() - 1;
            if (last >= 0 && runs.get(last).touches(run))
                runs.set(last, runs.get(last).with(run));
            else runs.add(run);
        }
        return runs;
    }

    /** Pages on their way through two papers. */
    private static final class Walk {
        private final List<List<Word>> olds;
        private final List<List<Word>> nows;
        private final long until;
        private final List<Pair> pairs = new ArrayList<>();
        private int old;
        private int now;

        Walk(List<List<Word>> olds, List<List<Word>> nows, long until) {
            this.olds = olds;
            this.nows = nows;
            this.until = until;
        }

        void both() {
            List<Word> before = olds.get(old);
            List<Word> after = nows.get(now);
            boolean compares =
                    before.size() <= MOST_COMPARED && after.size() <= MOST_COMPARED && System.nanoTime() < until;
            pairs.add(new Pair(
                    Optional.of(old++),
                    Optional.of(now++),
                    compares ? words(before, after) : List.of(),
                    compares || before.equals(after)));
        }

        void gone() {
            pairs.add(new Pair(Optional.of(old++), Optional.empty(), List.of(), true));
        }

        void fresh() {
            pairs.add(new Pair(Optional.empty(), Optional.of(now++), List.of(), true));
        }
    }

    /**
     * All pages in the order of the new one, with those that are only in the old one where they stood.
     *
     * @param longest after which pages are paired and their words no longer compared
     */
    public static List<Pair> pages(List<List<Word>> old, List<List<Word>> now, Duration longest) {
        Walk walk = new Walk(old, now, System.nanoTime() + longest.toNanos());
        // Pages that say the same hold the others in their place.
        for (Run run : runs(said(old), said(now))) {
            while (walk.old < run.old()) walk.both();
            int both = Math.min(run.olds(), run.nows());
            for (int i = 0; i < both; i++) walk.both();
            for (int i = both; i < run.olds(); i++) walk.gone();
            for (int i = both; i < run.nows(); i++) walk.fresh();
        }
        while (walk.now < now.size()) walk.both();
        return List.copyOf(walk.pairs);
    }

    private static List<String> said(List<List<Word>> pages) {
        return pages.stream()
                .map(p -> p.stream().map(Word::text).collect(Collectors.joining(" ")))
                .toList();
    }

    /** The differences of two pages in the order of reading. */
    static List<Difference> words(List<Word> old, List<Word> now) {
        List<Difference> all = new ArrayList<>();
        for (Run run : runs(
                old.stream().map(Word::text).toList(),
                now.stream().map(Word::text).toList())) {
            if (all.size() == NAMED) break;
            all.add(difference(
                    all.size() + 1,
                    old.subList(run.old(), run.old() + run.olds()),
                    now.subList(run.now(), run.now() + run.nows())));
        }
        return all;
    }

    private static Difference difference(int number, List<Word> before, List<Word> after) {
        Comparison.Kind kind = before.isEmpty()
                ? Comparison.Kind.ONLY_IN_NEW
                : after.isEmpty() ? Comparison.Kind.ONLY_IN_OLD : Comparison.Kind.CHANGED;
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
