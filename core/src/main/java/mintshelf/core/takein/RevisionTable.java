package mintshelf.core.takein;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;

/** What a sheet says of its revisions, kept as one of the facts that its file says of itself. */
public final class RevisionTable {
    /** The fact's name. */
    public static final String KEY = "revision_table";

    private RevisionTable() {}

    /** Rows as one text, for where a list of facts is kept: a row a line, a value with its name a cell. */
    public static String text(List<Map<String, String>> rows) {
        return rows.stream()
                .map(row -> row.entrySet().stream()
                        .map(e -> e.getKey() + "=" + e.getValue().replaceAll("\\s+", " "))
                        .collect(Collectors.joining("\t")))
                .collect(Collectors.joining("\n"));
    }

    /** What {@link #text} made of rows. */
    public static List<Map<String, String>> rows(String text) {
        List<Map<String, String>> rows = new ArrayList<>();
        for (String line : text.split("\n")) {
            Map<String, String> row = new LinkedHashMap<>();
            for (String cell : line.split("\t")) {
                int at = cell.indexOf('=');
                if (at > 0) row.put(cell.substring(0, at), cell.substring(at + 1));
            }
            if (!row.isEmpty()) rows.add(row);
        }
        return rows;
    }
}
