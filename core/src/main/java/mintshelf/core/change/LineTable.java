package mintshelf.core.change;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import mintshelf.core.base.Outcome;
import mintshelf.core.base.Refusal;
import mintshelf.core.base.Texts;
import mintshelf.core.numbering.NumberKey;

/** The lines of a request or an order as a table that goes out and comes back: by number, in any order, with further columns or without. */
public final class LineTable {
    /** Heads of the columns that go out; only the number has to come back. */
    public static final List<String> COLUMNS = List.of("number", "title", "what", "from", "to", "reason");

    /** Rows that are read of a table. */
    public static final int MOST = 5000;

    private LineTable() {}

    /**
     * A row that came back.
     *
     * @param at its place in the table, the head being 1
     * @param what happens to the document, where the table says it
     * @param reason where the table has such a column
     */
    public record Row(int at, String number, Optional<PaperLine.What> what, Optional<String> reason) {
        /** The same row under the number that its document bears now. */
        public Row named(String now) {
            return new Row(at, now, what, reason);
        }
    }

    /** A line that is there. */
    public record Line(String number, PaperLine.What what, String reason) {}

    /** What a row does to the lines. */
    public enum Does {
        SAME("stays as it is"),
        ADDED("is added"),
        CHANGED("changes");

        private final String words;

        Does(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }
    }

    /** A row beside the lines: what it does, in words, or why not. */
    public record Planned(Row row, Does does, List<String> says, Optional<Refusal> refusal) {
        public Planned {
            says = List.copyOf(says);
        }
    }

    /**
     * Reads a table.
     *
     * @param cells rows of texts, the head first; empty rows are passed over
     * @param down whether an empty reason is the one above it
     * @return refused for a table without a column of numbers, an empty one, one of too many rows, or a row that says what no line does
     */
    public static Outcome<List<Row>> read(List<List<String>> cells, boolean down) {
        if (cells.isEmpty()) return Outcome.refused("table.empty", "The table is empty.", "Take one that has a head.");
        Map<String, Integer> columns = new HashMap<>();
        for (int i = 0; i < cells.get(0).size(); i++) {
            columns.putIfAbsent(Texts.line(cells.get(0).get(i)).toLowerCase(Locale.ROOT), i);
        }
        if (!columns.containsKey("number")) {
            return Outcome.refused(
                    "table.head",
                    "The first row names no column “number”.",
                    "Fetch the lines as a table, and change that one.");
        }
        List<Row> rows = new ArrayList<>();
        String above = "";
        for (int i = 1; i < cells.size(); i++) {
            List<String> row = cells.get(i);
            String number = cell(row, columns.get("number"));
            if (row.stream().allMatch(String::isBlank)) continue;
            if (number.isEmpty()) {
                return Outcome.refused(
                        "table.number", "Row " + (i + 1) + " has no number.", "Write one, or leave the row out.");
            }
            Optional<String> reason = Optional.ofNullable(columns.get("reason")).map(c -> cell(row, c));
            if (down && reason.filter(String::isEmpty).isPresent()) reason = Optional.of(above);
            above = reason.orElse("");
            if (above.length() > 500) {
                return Outcome.refused(
                        "text.long",
                        "The reason in row " + (i + 1) + " has " + above.length() + " letters.",
                        "500 are taken; shorten it.");
            }
            Outcome<Optional<PaperLine.What>> what = what(i + 1, cell(row, columns.getOrDefault("what", -1)));
            if (!(what instanceof Outcome.Granted<Optional<PaperLine.What>> said)) {
                return Outcome.refused(what.refusal().orElseThrow());
            }
            rows.add(new Row(i + 1, number, said.value(), reason));
            if (rows.size() > MOST) {
                return Outcome.refused(
                        "table.long", "The table has more than " + MOST + " rows.", "Bring it in portions.");
            }
        }
        return rows.isEmpty()
                ? Outcome.refused("table.empty", "The table has a head and no rows.", "Nothing would change.")
                : Outcome.granted(rows);
    }

    private static String cell(List<String> row, int at) {
        return at < 0 || at >= row.size() ? "" : Texts.line(row.get(at));
    }

    private static Outcome<Optional<PaperLine.What>> what(int row, String words) {
        if (words.isEmpty()) return Outcome.granted(Optional.empty());
        for (PaperLine.What what : PaperLine.What.values()) {
            if (what.words().equalsIgnoreCase(words)) return Outcome.granted(Optional.of(what));
        }
        return Outcome.refused(
                "table.what",
                "Row " + row + " says “" + Texts.shorten(words, 60) + "”.",
                "A line " + PaperLine.What.REVISE.words() + ", " + PaperLine.What.WITHDRAW.words() + " or "
                        + PaperLine.What.FACTS.words() + "; or leave the cell empty.");
    }

    /**
     * Holds rows against the lines that are there. Lines without a row stay. O(rows + lines).
     *
     * @param order whether what happens to a line may be changed by a row: of an order, not of a request
     */
    public static List<Planned> plan(List<Row> rows, List<Line> lines, boolean order) {
        Map<String, Line> known = new HashMap<>();
        lines.forEach(l -> known.put(key(l.number()), l));
        Set<String> seen = new HashSet<>();
        List<Planned> plan = new ArrayList<>();
        for (Row row : rows) {
            String key = key(row.number());
            Line line = known.get(key);
            if (!seen.add(key)) {
                plan.add(new Planned(
                        row,
                        Does.SAME,
                        List.of(),
                        Optional.of(Refusal.of(
                                "table.twice",
                                row.number() + " stands in the table twice.",
                                "Leave row " + row.at() + " out."))));
            } else if (line == null) {
                plan.add(new Planned(row, Does.ADDED, List.of(), Optional.empty()));
            } else {
                plan.add(changed(row, line, order));
            }
        }
        return plan;
    }

    private static String key(String number) {
        return NumberKey.of(number) instanceof Outcome.Granted<NumberKey> granted
                ? granted.value().key()
                : Texts.key(number);
    }

    /** What somebody chooses for a document in force; whether a document is new says the document. */
    private static boolean turns(PaperLine.What what) {
        return what == PaperLine.What.REVISE || what == PaperLine.What.WITHDRAW || what == PaperLine.What.FACTS;
    }

    private static Planned changed(Row row, Line line, boolean order) {
        List<String> says = new ArrayList<>();
        Optional<Refusal> refusal = Optional.empty();
        Optional<PaperLine.What> what = row.what().filter(w -> w != line.what());
        if (what.isPresent()) {
            boolean may = order && turns(line.what()) && turns(what.get());
            if (may) says.add(what.get().words());
            else {
                refusal = Optional.of(Refusal.of(
                        "table.turns",
                        row.number() + " " + line.what().words() + ", and the table says that it "
                                + what.get().words() + ".",
                        "Leave that cell as it went out."));
            }
        }
        row.reason()
                .filter(r -> !r.equals(line.reason()))
                .ifPresent(r -> says.add(r.isEmpty() ? "loses its reason" : "“" + Texts.shorten(r, 120) + "”"));
        return new Planned(row, says.isEmpty() ? Does.SAME : Does.CHANGED, says, refusal);
    }
}
