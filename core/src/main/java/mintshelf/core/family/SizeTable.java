package mintshelf.core.family;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import mintshelf.core.base.Outcome;

/**
 * The sizes of a family: a table whose first row names its columns, one of them the number of the part that a row is, others measures:
 * {@code number, d1 mm, d2 mm}. A column is a measure where at least half of what stands in it is a number; the others say something.
 */
public record SizeTable(List<Measure> measures, List<Size> sizes) {
    /** Rows and columns that are read. */
    public static final int MOST = 5_000;

    private static final Set<String> NUMBERS =
            Set.of("number", "part", "part number", "document", "part no", "part no.");
    private static final double SAME = 1e-6;

    public SizeTable {
        measures = List.copyOf(measures);
        sizes = List.copyOf(sizes);
    }

    /** A column of measures; its unit is empty where the head says none. */
    public record Measure(int column, String name, String unit) {
        public String labelled() {
            return unit.isEmpty() ? name : name + ", " + unit;
        }
    }

    /**
     * A row.
     *
     * @param number of the part; empty where the row names none
     * @param values by the name of the measure; those that are no number are left out
     */
    public record Size(String number, Map<String, Double> values, List<String> cells) {
        public Size {
            values = Map.copyOf(values);
            cells = List.copyOf(cells);
        }
    }

    /**
     * A size held against what is wanted.
     *
     * @param off the largest deviation, as a part of what is wanted; 0 for one that fits
     * @param more by measure, how much more it has than wanted; those that fit are left out
     */
    public record Match(Size size, double off, Map<String, Double> more) {
        public boolean fits() {
            return off <= SAME;
        }
    }

    /** Reads a table; refused where it has no column of numbers of parts, or no measure. O(cells). */
    public static Outcome<SizeTable> of(List<List<String>> rows) {
        if (rows.isEmpty()) return none("It is empty.");
        List<String> head = rows.get(0);
        int number = -1;
        for (int i = head.size() - 1; i >= 0; i--) {
            if (NUMBERS.contains(head.get(i).strip().toLowerCase(Locale.ROOT))) number = i;
        }
        if (number < 0) return none("No column of it is headed “number”.");
        List<List<String>> body = rows.subList(1, Math.min(rows.size(), MOST + 1)).stream()
                .filter(r -> r.stream().anyMatch(c -> !c.isBlank()))
                .toList();
        List<Measure> measures = new ArrayList<>();
        for (int i = 0; i < head.size(); i++) {
            int column = i;
            if (i == number || head.get(i).isBlank()) continue;
            long said = body.stream().filter(r -> !cell(r, column).isEmpty()).count();
            long read = body.stream()
                    .filter(r -> value(cell(r, column)).isPresent())
                    .count();
            String name = head.get(i).strip();
            if (read > 0
                    && 2 * read >= said
                    && measures.stream().noneMatch(m -> m.name().equals(name(name)))) {
                measures.add(new Measure(i, name(name), unit(name)));
            }
        }
        if (measures.isEmpty()) return none("No column of it is a measure.");
        int numbers = number;
        List<Size> sizes = new ArrayList<>();
        for (List<String> row : body) {
            Map<String, Double> values = new LinkedHashMap<>();
            for (Measure m : measures) value(cell(row, m.column())).ifPresent(v -> values.put(m.name(), v));
            sizes.add(new Size(cell(row, numbers), values, row));
        }
        return Outcome.granted(new SizeTable(measures, sizes));
    }

    private static Outcome<SizeTable> none(String why) {
        return Outcome.refused(
                "family.none", why, "A size family has a column “number” and columns of measures, one part a row.");
    }

    private static String cell(List<String> row, int column) {
        return column < row.size() ? row.get(column).strip() : "";
    }

    /** "d1, mm", "d1 mm", "d1 [mm]", "d1 (mm)": the name before the unit. */
    private static String name(String head) {
        String unit = unit(head);
        if (unit.isEmpty()) return head;
        String name = head.substring(0, head.lastIndexOf(unit)).replaceAll("[\\s,\\[(]+$", "");
        return name.isEmpty() ? head : name;
    }

    private static String unit(String head) {
        for (String unit : List.of("mm", "kg", "g", "m", "°", "N", "Nm", "bar", "in")) {
            if (head.matches("(?s).+[\\s,\\[(]" + java.util.regex.Pattern.quote(unit) + "[\\])]?")) return unit;
        }
        return "";
    }

    /** A number as people write it: "40", "40.5", "40,5"; nothing for another text, and for what no part measures. */
    public static Optional<Double> value(String text) {
        String plain = text.strip();
        if (plain.isEmpty() || plain.length() > 20) return Optional.empty();
        if (plain.indexOf('.') < 0 && plain.indexOf(',') == plain.lastIndexOf(',')) plain = plain.replace(',', '.');
        if (!plain.matches("-?\\d+(\\.\\d+)?")) return Optional.empty();
        return Optional.of(Double.valueOf(plain));
    }

    /**
     * The sizes that are nearest to what is wanted, those that fit first; of those that say nothing of a measure that is wanted none. In the
     * table's order where several are as near. O(rows × measures).
     *
     * @param wanted by the name of the measure; empty for the table as it stands
     */
    public List<Match> nearest(Map<String, Double> wanted, int most) {
        return sizes.stream()
                .filter(s -> s.values().keySet().containsAll(wanted.keySet()))
                .map(s -> match(s, wanted))
                .sorted(Comparator.comparingDouble(Match::off))
                .limit(most)
                .toList();
    }

    private static Match match(Size size, Map<String, Double> wanted) {
        double off = 0;
        Map<String, Double> more = new LinkedHashMap<>();
        for (Map.Entry<String, Double> one : wanted.entrySet()) {
            double is = size.values().getOrDefault(one.getKey(), 0.0);
            double by = Math.abs(is - one.getValue()) / Math.max(1e-9, Math.abs(one.getValue()));
            if (by > SAME) more.put(one.getKey(), is - one.getValue());
            off = Math.max(off, by);
        }
        return new Match(size, off <= SAME ? 0 : off, more);
    }

    /** A size that has a measured length somewhere. */
    public record Near(Measure measure, Match match) {}

    /**
     * Where a length that was measured stands, the nearest first: each size once, with the measure that is nearest. O(rows × measures).
     *
     * @param within the largest deviation, as a part of what was measured
     */
    public List<Near> near(double measured, double within, int most) {
        List<Near> all = new ArrayList<>();
        for (Size size : sizes) {
            measures.stream()
                    .filter(m -> size.values().containsKey(m.name()))
                    .map(m -> new Near(m, match(size, Map.of(m.name(), measured))))
                    .min(Comparator.comparingDouble(n -> n.match().off()))
                    .filter(n -> n.match().off() <= within)
                    .ifPresent(all::add);
        }
        all.sort(Comparator.comparingDouble(n -> n.match().off()));
        return List.copyOf(all.subList(0, Math.min(most, all.size())));
    }
}
