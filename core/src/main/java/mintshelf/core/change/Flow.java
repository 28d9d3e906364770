package mintshelf.core.change;

import java.time.DayOfWeek;
import java.time.LocalDate;
import java.time.temporal.ChronoUnit;
import java.time.temporal.TemporalAdjusters;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;

/**
 * How changes flow: how many enter and leave in each week, how many wait at its end, how long those took that left; the same by cause
 * and by product. O(papers + weeks).
 *
 * @param weeks the earliest first; the last one is not over yet
 * @param took of those that left in these weeks, by what they are
 * @param causes those that bear each cause, the one that most entered for first; papers without one are left out
 * @param products those of each product, likewise
 */
public record Flow(List<Week> weeks, List<Took> took, List<Share> causes, List<Share> products) {
    /** Most weeks that are asked for at once: ten years. */
    public static final int MOST = 530;

    public Flow {
        weeks = List.copyOf(weeks);
        took = List.copyOf(took);
        causes = List.copyOf(causes);
        products = List.copyOf(products);
    }

    /**
     * A paper from when it was begun until it was decided or carried out.
     *
     * @param left the day on which it ended; empty while it is open
     * @param cause code of its cause; empty for none
     * @param product under what it is filed
     */
    public record Span(PaperType type, LocalDate entered, Optional<LocalDate> left, String cause, String product) {}

    /**
     * @param monday its first day
     * @param waiting open at its end, or now
     */
    public record Week(LocalDate monday, int entered, int left, int waiting) {}

    /**
     * How long papers of a type took, in days.
     *
     * @param median half of them took no longer
     * @param ninety nine of ten took no longer
     */
    public record Took(PaperType type, int papers, long median, long ninety) {}

    /**
     * The papers of one cause or product.
     *
     * @param of its code
     * @param open how many wait now
     * @param median in days, of those that left; 0 where none did
     */
    public record Share(String of, int entered, int left, int open, long median, long ninety) {}

    /** What is counted of a share. */
    private static final class Counted {
        private final List<Long> days = new ArrayList<>();
        private int entered;
        private int open;

        private Share share(String of) {
            long[] sorted = sorted(days);
            return new Share(of, entered, sorted.length, open, rank(sorted, 50), rank(sorted, 90));
        }
    }

    /**
     * The flow over the last weeks, the current one among them.
     *
     * @param spans all that are open, and those that ended in these weeks at least
     */
    public static Flow of(Collection<Span> spans, LocalDate today, int weeks) {
        if (weeks < 1 || weeks > MOST) throw new IllegalArgumentException(weeks + " weeks");
        LocalDate first = monday(today).minusWeeks(weeks - 1L);
        int[] entered = new int[weeks];
        int[] left = new int[weeks];
        int open = 0;
        Map<PaperType, List<Long>> took = new TreeMap<>();
        Map<String, Counted> causes = new TreeMap<>();
        Map<String, Counted> products = new TreeMap<>();
        for (Span span : spans) {
            boolean before = span.entered().isBefore(first);
            boolean gone = span.left().filter(day -> day.isBefore(first)).isPresent();
            if (before && gone) continue;
            List<Counted> shares = new ArrayList<>();
            shares.add(products.computeIfAbsent(span.product(), p -> new Counted()));
            if (!span.cause().isEmpty()) shares.add(causes.computeIfAbsent(span.cause(), c -> new Counted()));
            if (before) open++;
            if (!before && !span.entered().isAfter(today)) {
                entered[week(first, span.entered())]++;
                shares.forEach(s -> s.entered++);
            }
            boolean ended = span.left().filter(day -> !day.isAfter(today)).isPresent();
            if (!ended) {
                shares.forEach(s -> s.open++);
            } else if (!gone) {
                left[week(first, span.left().get())]++;
                long days = ChronoUnit.DAYS.between(span.entered(), span.left().get());
                took.computeIfAbsent(span.type(), t -> new ArrayList<>()).add(days);
                shares.forEach(s -> s.days.add(days));
            }
        }
        List<Week> all = new ArrayList<>();
        for (int i = 0; i < weeks; i++) {
            open += entered[i] - left[i];
            all.add(new Week(first.plusWeeks(i), entered[i], left[i], open));
        }
        List<Took> how = new ArrayList<>();
        took.forEach((type, days) -> how.add(took(type, days)));
        return new Flow(all, how, shares(causes), shares(products));
    }

    private static LocalDate monday(LocalDate day) {
        return day.with(TemporalAdjusters.previousOrSame(DayOfWeek.MONDAY));
    }

    private static int week(LocalDate first, LocalDate day) {
        return (int) ChronoUnit.WEEKS.between(first, day);
    }

    private static Took took(PaperType type, List<Long> days) {
        long[] sorted = sorted(days);
        return new Took(type, sorted.length, rank(sorted, 50), rank(sorted, 90));
    }

    private static long[] sorted(List<Long> days) {
        return days.stream().mapToLong(d -> d).sorted().toArray();
    }

    /** By the nearest rank: a value that occurred; 0 of nothing. */
    private static long rank(long[] sorted, int percent) {
        if (sorted.length == 0) return 0;
        int at = (sorted.length * percent + 99) / 100;
        return sorted[Math.max(1, at) - 1];
    }

    private static List<Share> shares(Map<String, Counted> counted) {
        return counted.entrySet().stream()
                .map(e -> e.getValue().share(e.getKey()))
                .sorted(Comparator.comparingInt(Share::entered)
                        .thenComparingInt(Share::open)
                        .reversed()
                        .thenComparing(Share::of))
                .toList();
    }

    /** The most that waited at the end of a week. */
    public int highest() {
        return weeks.stream().mapToInt(Week::waiting).max().orElse(0);
    }

    /** The most that entered or left in a week. */
    public int busiest() {
        return weeks.stream()
                .mapToInt(w -> Math.max(w.entered(), w.left()))
                .max()
                .orElse(0);
    }
}
