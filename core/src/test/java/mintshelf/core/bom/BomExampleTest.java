package mintshelf.core.bom;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.Test;

/** The example of docs/bom.md, which was worked out by hand, is what the program computes. */
class BomExampleTest {
    /** The rows below a head, cells without their spaces. */
    private static List<String[]> table(List<String> lines, String head) {
        List<String[]> rows = new ArrayList<>();
        int at = lines.indexOf(head);
        assertThat(at).as(head).isPositive();
        for (int i = at + 2; i < lines.size() && lines.get(i).startsWith("|"); i++) {
            String[] cells = lines.get(i).substring(1).split("\\|", -1);
            for (int c = 0; c < cells.length; c++) cells[c] = cells[c].strip();
            rows.add(cells);
        }
        return rows;
    }

    @Test
    void whatWasWorkedOutByHandIsWhatIsComputed() throws IOException {
        List<String> doc = Files.readAllLines(Path.of("..", "docs", "bom.md"));
        Boms boms = new Boms();
        for (String[] p : table(doc, "| part | comes | unit | mass | cost |"))
            boms.part(p[0], Comes.of(p[1]).orElseThrow(), p[2], p[3], p[4]);
        for (String[] l : table(doc, "| in | find | part | quantity | unit |")) boms.line(l[0], l[2], l[3], l[4], l[1]);
        Bom bom = boms.bom();
        RollUp mass = RollUp.of(bom, RollUp.Of.MASS);
        RollUp cost = RollUp.of(bom, RollUp.Of.COST);
        Map<String, Bom.Total> all = new HashMap<>();
        bom.flat(Bom.For.ENGINEERING).forEach(t -> all.put(bom.part(t.place()).number(), t));
        List<String> bought = bom.flat(Bom.For.PURCHASING).stream()
                .map(t -> bom.part(t.place()).number())
                .toList();
        List<String[]> rows = table(doc, "| part | needed | for purchasing | mass of one | cost of one |");
        assertThat(rows).hasSize(10);
        for (String[] row : rows) {
            int place = boms.at(row[0]);
            if (place != 0)
                assertThat(Optional.ofNullable(all.get(row[0])).orElseThrow().needed())
                        .as(row[0])
                        .isEqualByComparingTo(row[1]);
            assertThat(bought.contains(row[0])).as(row[0]).isEqualTo(row[2].equals("yes"));
            assertThat(mass.of(place).known()).as(row[0]).isEqualByComparingTo(row[3].replace("over ", ""));
            assertThat(mass.of(place).complete()).as(row[0]).isEqualTo(!row[3].startsWith("over"));
            assertThat(cost.of(place).known()).as(row[0]).isEqualByComparingTo(row[4]);
            assertThat(cost.of(place).complete()).as(row[0]).isTrue();
        }
        assertThat(all).doesNotContainKey("disc");
    }
}
