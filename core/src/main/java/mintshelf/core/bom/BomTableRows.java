package mintshelf.core.bom;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.regex.Pattern;
import mintshelf.core.base.Outcome;
import mintshelf.core.base.Refusal;
import mintshelf.core.base.Texts;

/**
 * Lines of a BOM as a table has them that comes in: the heads of the table that goes out, in any order, so that one can be fetched,
 * changed and brought back. Lines further down than the first level are of other BOMs and are left aside.
 */
public final class BomTableRows {
    /** Rows of one table. */
    public static final int MOST = 500;

    private static final Set<String> LIMITS = Set.of("from day", "to day", "from serial", "to serial", "lots");
    private static final Pattern COMMA = Pattern.compile("\\d{1,9},\\d{1,6}");
    private static final Pattern THOUSAND = Pattern.compile("\\d{1,3},\\d{3}");

    private BomTableRows() {}

    /**
     * A row as it stands, decimals with a point.
     *
     * @param at its number in the table, the head being 1
     * @param columns what the table says anything of; what it has no column for stays as it is
     * @param refusal why it says nothing that could be done; nothing for most
     */
    public record Row(
            int at,
            String find,
            String number,
            String title,
            String quantity,
            String unit,
            String comes,
            String mass,
            String cost,
            String variant,
            Effectivity.Typed when,
            Set<String> columns,
            Optional<Refusal> refusal) {
        /** A cell, or what is there already where the table has no such column. */
        public String or(String column, String cell, String there) {
            return columns.contains(column) ? cell : there;
        }

        /** Whether the table has a column for one of the limits. */
        public boolean limits() {
            return columns.stream().anyMatch(LIMITS::contains);
        }

        /** What it is called among others. */
        public String shown() {
            return number.isEmpty() ? title : number;
        }
    }

    /** Heads by what they mean; of masses and costs the unit stands behind them. */
    private static Optional<String> meaning(String head) {
        String text = Texts.key(head);
        if (text.startsWith("mass")) return Optional.of("mass");
        if (text.startsWith("cost")) return Optional.of("cost");
        return switch (text) {
            case "find", "find number", "item", "pos" -> Optional.of("find");
            case "level", "number", "title", "unit", "comes", "variant", "lots" -> Optional.of(text);
            case "part number" -> Optional.of("number");
            case "quantity", "qty" -> Optional.of("quantity");
            case "from serial", "to serial", "from day", "to day" -> Optional.of(text);
            default -> Optional.empty();
        };
    }

    /** Reads a table: its first row are heads, of which number or title, and quantity, must be there. O(cells). */
    public static Outcome<List<Row>> read(List<List<String>> cells) {
        if (cells.isEmpty()) return heads();
        Map<String, Integer> columns = new TreeMap<>();
        List<String> first = cells.get(0);
        for (int i = 0; i < first.size(); i++) {
            int column = i;
            meaning(first.get(i)).ifPresent(m -> columns.putIfAbsent(m, column));
        }
        boolean named = columns.containsKey("number") || columns.containsKey("title");
        if (!named || !columns.containsKey("quantity")) return heads();
        if (cells.size() - 1 > MOST)
            return Outcome.refused(
                    "bom.table_long",
                    "The table has more than " + MOST + " rows.",
                    "Bring one with fewer; nothing was changed.");
        List<Row> rows = new ArrayList<>();
        for (int i = 1; i < cells.size(); i++) {
            List<String> row = cells.get(i);
            if (row.stream().allMatch(String::isBlank)) continue;
            String level = cell(row, columns, "level");
            if (level.isEmpty() || level.equals("1")) rows.add(row(i + 1, row, columns));
        }
        return Outcome.granted(rows);
    }

    private static Outcome<List<Row>> heads() {
        return Outcome.refused(
                "bom.table_heads",
                "The table has no heads that say what its columns are.",
                "Its first row says number (or title) and quantity, as in a table that was fetched here.");
    }

    private static String cell(List<String> row, Map<String, Integer> columns, String what) {
        Integer column = columns.get(what);
        return column == null || column >= row.size() ? "" : Texts.line(row.get(column));
    }

    private static Row row(int at, List<String> row, Map<String, Integer> columns) {
        Optional<Refusal> refusal = Optional.empty();
        String[] amounts = new String[3];
        List<String> names = List.of("quantity", "mass", "cost");
        for (int i = 0; i < 3; i++) {
            Outcome<String> decimal = decimal(cell(row, columns, names.get(i)));
            amounts[i] = decimal.toOptional().orElse("");
            if (refusal.isEmpty()) refusal = decimal.refusal();
        }
        return new Row(
                at,
                cell(row, columns, "find"),
                cell(row, columns, "number"),
                cell(row, columns, "title"),
                amounts[0],
                cell(row, columns, "unit"),
                cell(row, columns, "comes"),
                amounts[1],
                amounts[2],
                cell(row, columns, "variant"),
                new Effectivity.Typed(
                        cell(row, columns, "from day"),
                        cell(row, columns, "to day"),
                        cell(row, columns, "from serial"),
                        cell(row, columns, "to serial"),
                        cell(row, columns, "lots")),
                columns.keySet(),
                refusal);
    }

    /** A decimal comma becomes a point; where it could as well part thousands, nobody guesses. */
    static Outcome<String> decimal(String text) {
        if (!COMMA.matcher(text).matches()) return Outcome.granted(text);
        if (THOUSAND.matcher(text).matches() && !text.startsWith("0"))
            return Outcome.refused(
                    "bom.comma",
                    "“" + text + "” may be " + text.replace(',', '.') + " or " + text.replace(",", "") + ".",
                    "Write it with a point, or without the comma.");
        return Outcome.granted(text.replace(',', '.'));
    }
}
