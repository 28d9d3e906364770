package mintshelf.core.change;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import mintshelf.core.change.Impact.Line;
import mintshelf.core.release.ReleaseSet.Shows;
import mintshelf.core.structure.StructureGraph;
import mintshelf.core.structure.StructureGraph.Use;
import org.junit.jupiter.api.Test;

/** The example of docs/impact.md, which was worked out by hand, is what the program computes. */
class ImpactExampleTest {
    private final Map<String, Long> ids = new LinkedHashMap<>();

    private long id(String name) {
        return ids.computeIfAbsent(name, n -> 1L + ids.size());
    }

    /** The rows of the table whose head begins with these words. */
    private static List<String[]> table(List<String> lines, String head) {
        List<String[]> rows = new ArrayList<>();
        int at = lines.indexOf(head);
        assertThat(at).as(head).isNotNegative();
        for (int i = at + 2; i < lines.size() && lines.get(i).startsWith("|"); i++) {
            String[] cells = lines.get(i).substring(1).split("\\|", -1);
            for (int k = 0; k < cells.length; k++) cells[k] = cells[k].strip();
            rows.add(cells);
        }
        return rows;
    }

    @Test
    void theTablesAgree() throws IOException {
        List<String> lines = Files.readAllLines(Path.of("..", "docs", "impact.md"));
        List<Use> uses = new ArrayList<>();
        List<Shows> sheets = new ArrayList<>();
        for (String[] row : table(lines, "| document | stands in | shown by |")) {
            for (String parent : row[1].split(", ")) {
                if (!parent.isEmpty()) uses.add(new Use(id(parent), id(row[0]), 1, 1));
            }
            if (!row[2].isEmpty()) sheets.add(new Shows(id(row[2]), id(row[0])));
        }
        List<Line> changed = table(lines, "| line | interchangeable |").stream()
                .map(row -> new Line(id(row[0]), row[1].equals("yes")))
                .toList();
        StructureGraph graph = StructureGraph.of(uses);
        Map<String, String> usual = new HashMap<>();
        Map<String, String> declared = new HashMap<>();
        for (String[] row : table(lines, "| document | verdict | where the well is declared not interchangeable |")) {
            usual.put(row[0], row[1]);
            declared.put(row[0], row[2]);
        }
        assertThat(usual).hasSize(7);
        assertThat(computed(Impact.of(changed, Map.of(), Map.of(), graph::usedIn, m -> sheets)))
                .isEqualTo(usual);
        assertThat(computed(Impact.of(changed, Map.of(id("well"), false), Map.of(), graph::usedIn, m -> sheets)))
                .isEqualTo(declared);
    }

    private Map<String, String> computed(Impact impact) {
        Map<Long, String> names = new HashMap<>();
        ids.forEach((name, id) -> names.put(id, name));
        return impact.nodes().stream()
                .collect(Collectors.toMap(
                        n -> names.getOrDefault(n.item(), "?"), n -> n.verdict().words()));
    }
}
