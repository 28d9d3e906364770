package mintshelf.app.page.redline;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.EnumMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import mintshelf.core.redline.Colour;
import mintshelf.core.redline.RedlineSvg.Placed;
import mintshelf.core.redline.Remark;
import mintshelf.core.redline.Remark.State;

/**
 * What stands beside a sheet with remarks.
 *
 * @param rows in the order of their zones: the first {@link #LISTED}, or all
 * @param sets of reviewers, by round
 * @param counts by state, those that there are
 * @param more how many rows the list lacks
 */
public record RemarkPanel(List<Placed> rows, List<Set> sets, Map<State, Integer> counts, int more) {
    static final int LISTED = 200;

    /**
     * The remarks of one reviewer in one round.
     *
     * @param key as rows name it
     */
    public record Set(String key, String initials, String says, Colour colour, int count) {}

    /** @param most rows that are listed */
    static RemarkPanel of(List<Placed> placed, List<Long> rounds, int most) {
        List<Placed> all = new ArrayList<>(placed);
        all.sort(Comparator.comparing((Placed p) -> zone(p.remark().number()))
                .thenComparing(p -> p.remark().id()));
        Map<String, List<Remark>> sets = new LinkedHashMap<>();
        Map<State, Integer> counts = new EnumMap<>(State.class);
        for (Placed p : all) {
            sets.computeIfAbsent(set(p.remark()), k -> new ArrayList<>()).add(p.remark());
            counts.merge(p.remark().state(), 1, Integer::sum);
        }
        List<Set> named = new ArrayList<>();
        sets.forEach((key, remarks) -> {
            Remark first = remarks.get(0);
            int round = first.round().map(r -> rounds.indexOf(r) + 1).orElse(0);
            named.add(new Set(
                    key,
                    first.initials(),
                    first.by() + (round > 0 ? ", round " + round : ""),
                    first.mark().look().colour(),
                    remarks.size()));
        });
        named.sort(Comparator.comparing(Set::says));
        int listed = Math.min(most, all.size());
        return new RemarkPanel(List.copyOf(all.subList(0, listed)), named, counts, all.size() - listed);
    }

    /** The set that a remark belongs to: of its author, or of who wrote it outside; in its round. */
    private static String set(Remark remark) {
        String whose = remark.outside().isEmpty() ? Long.toString(remark.author()) : remark.outside();
        return whose + " " + remark.round().map(String::valueOf).orElse("");
    }

    /** The key of a remark's set, as its row names it. */
    public String setOf(Remark remark) {
        return set(remark);
    }

    /** Where a remark stands on a model; empty for one on a sheet. */
    public String spaceOf(Remark remark) {
        return remark.mark().space().map(SpaceForm::of).orElse("");
    }

    /** How a number is sorted: letter, column, the rest. */
    private static String zone(String number) {
        StringBuilder key = new StringBuilder();
        for (String part : number.split("(?<=\\D)(?=\\d)|(?<=\\d)(?=\\D)")) {
            key.append(part.matches("\\d+") ? "0".repeat(Math.max(0, 6 - part.length())) + part : part);
        }
        return key.toString();
    }

    public int total() {
        return rows.size() + more;
    }
}
