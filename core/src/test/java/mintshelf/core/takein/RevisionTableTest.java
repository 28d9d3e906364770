package mintshelf.core.takein;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;

class RevisionTableTest {
    @Test
    void rowsAreKeptAsOneText() {
        List<Map<String, String>> rows = List.of(
                Map.of("revision", "A", "description", "a = b,\tc\nd"), Map.of("revision", "B", "date", "2011-10-14"));
        assertThat(RevisionTable.rows(RevisionTable.text(rows)))
                .containsExactly(Map.of("revision", "A", "description", "a = b, c d"), rows.get(1));
        assertThat(RevisionTable.rows("")).isEmpty();
    }
}
