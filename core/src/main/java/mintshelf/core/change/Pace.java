package mintshelf.core.change;

import java.util.ArrayList;
import java.util.Collection;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.OptionalInt;
import java.util.TreeMap;

/**
 * How long papers stay at a stage, in days, over a time that is cut into equal parts.
 *
 * @param papers how many left it
 * @param median half of them stayed no longer
 * @param ninety nine of ten stayed no longer
 * @param medians of each part of the time, the earliest first; empty where none left
 */
public record Pace(PaperType type, String stage, int papers, int median, int ninety, List<OptionalInt> medians) {
    public Pace {
        medians = List.copyOf(medians);
    }

    /**
     * Papers that left a stage in one part of the time after as many days.
     *
     * @param part from 0
     */
    public record Stays(PaperType type, String stage, int part, int days, int papers) {}

    private record At(PaperType type, String stage) {}

    /** How many papers stayed how many days. */
    private static final class Counts {
        private final TreeMap<Integer, Integer> papers = new TreeMap<>();
        private int all;

        private void add(Stays stays) {
            papers.merge(stays.days(), stays.papers(), Integer::sum);
            all += stays.papers();
        }

        /** By the nearest rank: a number of days that occurred. */
        private OptionalInt rank(int percent) {
            if (all == 0) return OptionalInt.empty();
            long rank = Math.max(1, ((long) all * percent + 99) / 100);
            for (var days : papers.entrySet()) {
                rank -= days.getValue();
                if (rank <= 0) return OptionalInt.of(days.getKey());
            }
            throw new IllegalStateException("more ranks than papers");
        }
    }

    /** What stayed at one stage: altogether, and in each part of the time. */
    private static final class Place {
        private final Counts all = new Counts();
        private final List<Counts> parts = new ArrayList<>();

        private Place(int parts) {
            for (int i = 0; i < parts; i++) this.parts.add(new Counts());
        }

        private void add(Stays stays) {
            all.add(stays);
            parts.get(Math.max(0, Math.min(parts.size() - 1, stays.part()))).add(stays);
        }

        private Pace pace(At at) {
            return new Pace(
                    at.type(),
                    at.stage(),
                    all.all,
                    all.rank(50).orElseThrow(),
                    all.rank(90).orElseThrow(),
                    parts.stream().map(c -> c.rank(50)).toList());
        }
    }

    /**
     * The pace of each stage that papers left, requests before orders, the one where they stay longest first. O(stays).
     *
     * @param parts into how many the time is cut
     */
    public static List<Pace> of(Collection<Stays> stays, int parts) {
        Map<At, Place> places = new HashMap<>();
        for (Stays one : stays) {
            if (one.papers() <= 0) continue;
            places.computeIfAbsent(new At(one.type(), one.stage()), a -> new Place(parts))
                    .add(one);
        }
        List<Pace> paces = new ArrayList<>();
        places.forEach((at, place) -> paces.add(place.pace(at)));
        paces.sort(Comparator.comparing(Pace::type)
                .thenComparing(Comparator.comparingInt(Pace::median).reversed())
                .thenComparing(Pace::stage));
        return paces;
    }
}
