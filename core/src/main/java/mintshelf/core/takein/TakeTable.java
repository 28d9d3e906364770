package mintshelf.core.takein;

import java.util.ArrayList;
import java.util.EnumMap;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import mintshelf.core.base.Outcome;
import mintshelf.core.base.Refusal;
import mintshelf.core.base.Texts;

/**
 * What a table says of the files of a taking-in, a line each.
 *
 * @param unknown heads of columns that mean nothing here
 */
public record TakeTable(List<Line> lines, List<String> unknown) {
    public static final TakeTable NONE = new TakeTable(List.of(), List.of());

    /** Heads of the columns that tell what becomes of a file: they go out and say nothing when they come back. */
    public static final List<String> TOLD = List.of("what becomes of it", "in the way");

    /** Lines of one table. */
    public static final int MOST = 100_000;

    /**
     * A line of the table.
     *
     * @param line its number in the table, the head being 1
     * @param says what its cells say, blank ones left out
     * @param facts by the short name of the fact, blank ones left out
     */
    public record Line(int line, Map<Column, String> says, Map<String, String> facts) {
        public String of(Column column) {
            return says.getOrDefault(column, "");
        }
    }

    /**
     * Reads a table: one head, then a line each file. Columns may stand in any order; a column of a fact is headed by the fact's short
     * name or its label.
     *
     * @param facts the short names of the facts of the house, by the keys of their names and labels
     */
    public static Outcome<TakeTable> of(List<List<String>> rows, Map<String, String> facts) {
        if (rows.isEmpty()) {
            return Outcome.refused("table.empty", "The table is empty.", "Its first line names the columns.");
        }
        if (rows.size() > MOST) {
            return Outcome.refused(
                    "table.long", "The table has more than " + MOST + " lines.", "Take in the drive in parts.");
        }
        List<String> heads = rows.get(0).stream().map(Texts::line).toList();
        Map<Integer, Column> columns = new HashMap<>();
        Map<Integer, String> ofFacts = new HashMap<>();
        List<String> unknown = new ArrayList<>();
        for (int i = 0; i < heads.size(); i++) {
            Optional<Column> column = Column.of(heads.get(i));
            String fact = facts.get(Texts.key(heads.get(i)));
            if (column.isPresent() && !columns.containsValue(column.get())) columns.put(i, column.get());
            else if (column.isEmpty() && fact != null && !ofFacts.containsValue(fact)) ofFacts.put(i, fact);
            else if (!heads.get(i).isEmpty() && !TOLD.contains(Texts.key(heads.get(i)))) unknown.add(heads.get(i));
        }
        if (!columns.containsValue(Column.FILE) && !columns.containsValue(Column.NUMBER)) {
            return Outcome.refused(Refusal.of(
                    "table.heads",
                    "No column is headed “file” or “number”, so no line says which file it means.",
                    "Head the columns: " + heads() + "; those of facts by their names."));
        }
        List<Line> lines = new ArrayList<>();
        for (int r = 1; r < rows.size(); r++) {
            Map<Column, String> says = new EnumMap<>(Column.class);
            Map<String, String> said = new HashMap<>();
            List<String> cells = rows.get(r);
            for (int i = 0; i < cells.size(); i++) {
                String cell = Texts.shorten(Texts.line(cells.get(i)), 500);
                if (cell.isEmpty()) continue;
                if (columns.containsKey(i)) says.put(columns.get(i), cell);
                else if (ofFacts.containsKey(i)) said.put(ofFacts.get(i), cell);
            }
            if (!says.isEmpty() || !said.isEmpty()) lines.add(new Line(r + 1, says, said));
        }
        return Outcome.granted(new TakeTable(lines, unknown));
    }

    /** The heads that are known, in words. */
    public static String heads() {
        List<String> heads = new ArrayList<>();
        for (Column column : Column.values()) heads.add(column.head());
        return String.join(", ", heads);
    }
}
