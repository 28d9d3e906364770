package mintshelf.core.structure;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.stream.LongStream;
import mintshelf.core.structure.GraphLayout.Spot;
import mintshelf.core.structure.StructureGraph.Use;
import org.junit.jupiter.api.Test;

class GraphLayoutTest {
    @Test
    void everyDocumentStandsAboveItsComponentsAndNoTwoInOnePlace() {
        for (int seed = 0; seed < 100; seed++) {
            Random random = new Random(seed);
            int n = 1 + random.nextInt(12);
            List<Use> uses = new ArrayList<>();
            for (int i = random.nextInt(20); i > 0; i--) {
                int a = random.nextInt(n);
                int b = random.nextInt(n);
                if (a != b) uses.add(new Use(Math.min(a, b), Math.max(a, b), 1, 1));
            }
            List<Spot> spots = GraphLayout.of(LongStream.range(0, n).boxed().toList(), uses);
            Map<Long, Integer> rows = new HashMap<>();
            spots.forEach(s -> rows.put(s.document(), s.row()));
            assertThat(rows).hasSize(n);
            assertThat(spots.stream().map(s -> s.row() + " " + s.place()).toList())
                    .doesNotHaveDuplicates();
            for (Use u : uses) assertThat(rows.get(u.parent())).isGreaterThan(rows.get(u.component()));
        }
    }

    @Test
    void aRingEndsAllTheSame() {
        List<Use> ring = List.of(new Use(1, 2, 1, 1), new Use(2, 3, 1, 1), new Use(3, 1, 1, 1));
        assertThat(GraphLayout.of(List.of(1L, 2L, 3L), ring)).hasSize(3);
    }

    @Test
    void neighboursStandNearEachOther() {
        List<Use> uses = List.of(new Use(10, 1, 1, 1), new Use(11, 2, 1, 1), new Use(12, 3, 1, 1));
        List<Spot> spots = GraphLayout.of(List.of(1L, 2L, 3L, 12L, 11L, 10L), uses);
        assertThat(spots.stream().filter(s -> s.row() == 1).map(Spot::document)).containsExactly(10L, 11L, 12L);
    }
}
