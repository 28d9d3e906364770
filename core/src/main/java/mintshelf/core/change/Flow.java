package mintshelf.core.change;

import java.time.DayOfWeek;
import java.time.LocalDate;
import java.time.temporal.ChronoUnit;
import java.time.temporal.TemporalAdjusters;
import java.util.ArrayList;
import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;

/**
 * How changes flow: how many enter and leave in each week, how many wait at its end, how long those took that left. O(papers + weeks).
 *
 * @param weeks the earliest first; the last one is not over yet
 * @param took of those that left in these weeks, by what they are
 * @param causes how many of those that entered in these weeks bear each cause, the most first; papers without one are left out
 */
public record Flow(List<Week> weeks, List<Took> took, Map<String, Integer> causes) {
    /** Most weeks that are asked for at once: ten years. */
    public static final int MOST = 530;

    public Flow {
        weeks = List.copyOf(weeks);
        took = List.copyOf(took);
    }

    /**
     * A paper from when it was begun until it was decided or carried out.
     *
     * @param left the day on which it ended; empty while it is open
     * @param cause code of its cause; empty for none
     */
    public record Span(PaperType type, LocalDate entered, Optional<LocalDate> left, String cause) {}

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

    /** The flow over the last weeks, the current one among them. */
    public static Flow of(Collection<Span> spans, LocalDate today, int weeks) {
        return of(spans, 0, today, weeks);
    }

    /**
     * As {@link #of(Collection, LocalDate, int)}.
     *
     * @param older how many are open that entered long before and are not among the spans
     */
    public static Flow of(Collection<Span> spans, int older, LocalDate today, int weeks) {
        if (weeks < 1 || weeks > MOST) throw new IllegalArgumentException(weeks + " weeks");
        LocalDate first = monday(today).minusWeeks(weeks - 1L);
        int[] entered = new int[weeks];
        int[] left = new int[weeks];
        int open = older;
        Map<PaperType, List<Long>> took = new TreeMap<>();
        Map<String, Integer> causes = new TreeMap<>();
        for (Span span : spans) {
            boolean before = span.entered().isBefore(first);
            boolean gone = span.left().filter(day -> day.isBefore(first)).isPresent();
            if (before && !gone) open++;
            if (!before && !span.entered().isAfter(today)) {
                entered[week(first, span.entered())]++;
                if (!span.cause().isEmpty()) causes.merge(span.cause(), 1, Integer::sum);
            }
            if (gone || span.left().isEmpty() || span.left().get().isAfter(today)) continue;
            left[week(first, span.left().get())]++;
            took.computeIfAbsent(span.type(), t -> new ArrayList<>())
                    .add(ChronoUnit.DAYS.between(span.entered(), span.left().get()));
        }
        List<Week> all = new ArrayList<>();
        for (int i = 0; i < weeks; i++) {
            open += entered[i] - left[i];
            all.add(new Week(first.plusWeeks(i), entered[i], left[i], open));
        }
        List<Took> how = new ArrayList<>();
        took.forEach((type, days) -> how.add(took(type, days)));
        return new Flow(all, how, ordered(causes));
    }

    private static LocalDate monday(LocalDate day) {
        return day.with(TemporalAdjusters.previousOrSame(DayOfWeek.MONDAY));
    }

    private static int week(LocalDate first, LocalDate day) {
        return (int) ChronoUnit.WEEKS.between(first, day);
    }

    private static Took took(PaperType type, List<Long> days) {
        long[] sorted = days.stream().mapToLong(d -> d).sorted().toArray();
        return new Took(type, sorted.length, rank(sorted, 50), rank(sorted, 90));
    }

    /** By the nearest rank: a value that occurred. */
    private static long rank(long[] sorted, int percent) {
        int at = (sorted.length * percent + 99) / 100;
        return sorted[Math.max(1, at) - 1];
    }

    private static Map<String, Integer> ordered(Map<String, Integer> causes) {
        Map<String, Integer> ordered = new LinkedHashMap<>();
        causes.entrySet().stream()
                .sorted(Map.Entry.<String, Integer>comparingByValue()
                        .reversed()
                        .thenComparing(Map.Entry.comparingByKey()))
                .forEach(e -> ordered.put(e.getKey(), e.getValue()));
        return ordered;
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
