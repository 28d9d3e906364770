package mintshelf.core.base;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/**
 * What an act over a set will do, before it does it: each row goes, stays as it is, or cannot go and says why. The act carries out
 * the same plan, or answers with the one that has become true meanwhile.
 *
 * @param <R> what a row is about
 */
public record Plan<R>(List<Row<R>> rows) {
    public Plan {
        rows = List.copyOf(rows);
    }

    /** How a row stands. */
    public enum Stand {
        GOES,
        STAYS,
        CANNOT
    }

    /**
     * @param refusals all that is in the way; empty unless it cannot go
     */
    public record Row<R>(R of, Stand stand, List<Refusal> refusals) {
        public Row {
            refusals = List.copyOf(refusals);
        }

        public static <R> Row<R> stays(R of) {
            return new Row<>(of, Stand.STAYS, List.of());
        }

        /** Goes when nothing is in the way. */
        public static <R> Row<R> asked(R of, List<Refusal> inTheWay) {
            return new Row<>(of, inTheWay.isEmpty() ? Stand.GOES : Stand.CANNOT, inTheWay);
        }

        public boolean goes() {
            return stand == Stand.GOES;
        }
    }

    /** Whether the act can be done: something goes, and nothing that should go cannot. */
    public boolean opens() {
        return rows.stream().anyMatch(Row::goes) && rows.stream().noneMatch(r -> r.stand() == Stand.CANNOT);
    }

    public List<R> going() {
        return rows.stream().filter(Row::goes).map(Row::of).toList();
    }

    /** All that is in the way, row by row; said once where several rows say the same. */
    public List<Refusal> refusals() {
        return rows.stream().flatMap(r -> r.refusals().stream()).distinct().toList();
    }

    /** What cannot go, by its remedy: one thing to do for many rows stands once. */
    public Map<String, List<R>> grouped() {
        Map<String, List<R>> byRemedy = new LinkedHashMap<>();
        for (Row<R> row : rows) {
            row.refusals().stream()
                    .map(Refusal::remedy)
                    .distinct()
                    .forEach(remedy -> byRemedy.computeIfAbsent(remedy, r -> new ArrayList<>())
                            .add(row.of()));
        }
        return byRemedy;
    }

    private long count(Stand stand) {
        return rows.stream().filter(r -> r.stand() == stand).count();
    }

    /** In words: "12 go, 2 stay, 1 cannot." */
    public String sentence() {
        List<String> parts = new ArrayList<>();
        long goes = count(Stand.GOES);
        long stays = count(Stand.STAYS);
        long cannot = count(Stand.CANNOT);
        if (goes > 0) parts.add(goes + (goes == 1 ? " goes" : " go"));
        if (stays > 0) parts.add(stays + (stays == 1 ? " stays" : " stay"));
        if (cannot > 0) parts.add(cannot + " cannot");
        return parts.isEmpty() ? "Nothing is in it." : String.join(", ", parts) + ".";
    }
}
