package mintshelf.core.structure;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.stream.LongStream;
import mintshelf.core.structure.StructureGraph.OutOfDate;
import mintshelf.core.structure.StructureGraph.Total;
import mintshelf.core.structure.StructureGraph.Use;
import org.junit.jupiter.api.Test;

class StructureGraphTest {
    private static final long STATION = 1, WELL = 2, CLAMP = 3, SCREW = 4, MAST = 5;
    private static final List<Use> USES = List.of(
            new Use(STATION, WELL, 1, 3),
            new Use(STATION, MAST, 1, 2),
            new Use(WELL, CLAMP, 4, 5),
            new Use(CLAMP, SCREW, 2, 1),
            new Use(MAST, SCREW, 6, 1));
    private static final StructureGraph GRAPH = StructureGraph.of(USES);

    @Test
    void componentsParentsTotalsAndPaths() {
        assertThat(GRAPH.components(STATION)).containsExactlyInAnyOrder(WELL, MAST, CLAMP, SCREW);
        assertThat(GRAPH.whereUsed(SCREW)).containsExactlyInAnyOrder(CLAMP, MAST, WELL, STATION);
        assertThat(GRAPH.usedIn(SCREW)).containsExactlyInAnyOrder(CLAMP, MAST);
        assertThat(GRAPH.totals(STATION).orElseThrow()).contains(new Total(SCREW, 4 * 2 + 6), new Total(CLAMP, 4));
        assertThat(GRAPH.path(STATION, SCREW)).contains(List.of(STATION, MAST, SCREW));
        assertThat(GRAPH.path(SCREW, STATION)).isEmpty();
        assertThat(GRAPH.components(99)).isEmpty();
    }

    @Test
    void aCycleIsSpelledOutBeforeItIsMadeAndQuestionsEndWhereThereIsOne() {
        assertThat(GRAPH.cycle(SCREW, WELL)).contains(List.of(SCREW, WELL, CLAMP, SCREW));
        assertThat(GRAPH.cycle(WELL, MAST)).isEmpty();
        assertThat(GRAPH.cycle(MAST, MAST)).contains(List.of(MAST, MAST));
        List<Use> round = new ArrayList<>(USES);
        round.add(new Use(SCREW, WELL, 1, 1));
        StructureGraph graph = StructureGraph.of(round);
        assertThat(graph.components(WELL)).contains(CLAMP, SCREW);
        assertThat(graph.totals(STATION)).isEmpty();
        assertThat(graph.totals(STATION)).isEqualTo(Optional.empty());
        assertThat(graph.upwards(SCREW))
                .contains(STATION, WELL, CLAMP, MAST, SCREW)
                .doesNotHaveDuplicates();
    }

    @Test
    void whatIsOutOfDateIsSoAtEveryLevelAbove() {
        int[] latest = {1, 3, 6, 1, 2};
        assertThat(GRAPH.outOfDate(latest)).containsExactly(new OutOfDate(STATION, false), new OutOfDate(WELL, true));
        assertThat(GRAPH.outOfDate(new int[] {9, 3, 5, 1, 2})).isEmpty();
        assertThat(GRAPH.upwards(CLAMP)).containsExactly(CLAMP, WELL, STATION);
    }

    @Test
    void totalsBeyondCountingSaySo() {
        List<Use> deep = new ArrayList<>();
        for (int i = 0; i < 80; i++) deep.add(new Use(i, i + 1, 1000, 1));
        assertThat(StructureGraph.of(deep).totals(0).orElseThrow())
                .contains(new Total(80, Long.MAX_VALUE), new Total(1, 1000));
    }

    /** The same questions, answered the slow way over maps. */
    private record Naive(List<Use> uses) {
        Set<Long> components(long of) {
            Set<Long> found = new HashSet<>();
            List<Long> open = new ArrayList<>(List.of(of));
            while (!open.isEmpty()) {
                long one = open.remove(open.size() - 1);
                uses.stream()
                        .filter(u -> u.parent() == one)
                        .map(Use::component)
                        .filter(c -> c != of && found.add(c))
                        .forEach(open::add);
            }
            return found;
        }

        Map<Long, Long> totals(long of) {
            Map<Long, Long> totals = new HashMap<>();
            uses.stream().filter(u -> u.parent() == of).forEach(u -> {
                totals.merge(u.component(), (long) u.quantity(), Long::sum);
                totals(u.component()).forEach((c, n) -> totals.merge(c, n * u.quantity(), Long::sum));
            });
            return totals;
        }

        Set<Long> outOfDate(Map<Long, Integer> latest) {
            Set<Long> all = new TreeSet<>();
            Set<Long> documents = new TreeSet<>(latest.keySet());
            for (long d : documents) {
                Set<Long> here = new HashSet<>(components(d));
                here.add(d);
                boolean old = uses.stream()
                        .anyMatch(
                                u -> here.contains(u.parent()) && u.captured() < latest.getOrDefault(u.component(), 0));
                if (old) all.add(d);
            }
            return all;
        }
    }

    @Test
    void answersAreThoseOfTheSlowWayOnAnyGraph() {
        for (int seed = 0; seed < 400; seed++) {
            Random random = new Random(seed);
            boolean cycles = seed % 4 == 0;
            int documents = 2 + random.nextInt(9);
            List<Use> uses = new ArrayList<>();
            for (int i = random.nextInt(18); i >= 0; i--) {
                int a = random.nextInt(documents);
                int b = random.nextInt(documents);
                if (a == b) continue;
                boolean down = cycles || a < b;
                uses.add(new Use(10L * (down ? a : b), 10L * (down ? b : a), 1 + random.nextInt(4), random.nextInt(4)));
            }
            if (uses.isEmpty()) continue;
            StructureGraph graph = StructureGraph.of(uses);
            Naive naive = new Naive(uses);
            Map<Long, Integer> latest = new TreeMap<>();
            for (long d : graph.documents()) latest.put(d, random.nextInt(4));
            for (long d : graph.documents()) {
                assertThat(set(graph.components(d))).as("seed " + seed).isEqualTo(naive.components(d));
                for (long c : graph.components(d))
                    assertThat(set(graph.whereUsed(c))).contains(d);
                Map<Long, Long> needed = graph.neededAbove(d);
                assertThat(set(graph.whereUsed(d))).as("seed " + seed).containsAll(needed.keySet());
                if (cycles) continue;
                assertThat(needed.keySet()).as("seed " + seed).isEqualTo(set(graph.whereUsed(d)));
                needed.forEach((above, n) -> assertThat(naive.totals(above)).containsEntry(d, n));
                Map<Long, Long> totals = new HashMap<>();
                graph.totals(d).orElseThrow().forEach(t -> totals.put(t.component(), t.quantity()));
                assertThat(totals).as("seed " + seed).isEqualTo(naive.totals(d));
                List<Long> order = LongStream.of(graph.upwards(d)).boxed().toList();
                for (Use u : uses) {
                    if (!order.contains(u.parent()) || !order.contains(u.component())) continue;
                    assertThat(order.indexOf(u.component())).as("seed " + seed).isLessThan(order.indexOf(u.parent()));
                }
            }
            int[] versions = latest.values().stream().mapToInt(v -> v).toArray();
            assertThat(graph.outOfDate(versions).stream()
                            .map(OutOfDate::document)
                            .toList())
                    .as("seed " + seed)
                    .containsExactlyElementsOf(naive.outOfDate(latest));
        }
    }

    @Test
    void aGraphWithReplacedUsesIsTheOneThatIsBuiltAnew() {
        for (int seed = 0; seed < 200; seed++) {
            Random random = new Random(seed);
            List<Use> before = uses(random);
            List<Use> after = uses(random);
            Set<Long> changed = new HashSet<>(List.of(random.nextLong(6), random.nextLong(12)));
            List<Use> expected = new ArrayList<>(
                    before.stream().filter(u -> !changed.contains(u.parent())).toList());
            expected.addAll(
                    after.stream().filter(u -> changed.contains(u.parent())).toList());
            StructureGraph graph = StructureGraph.of(before).with(changed, after);
            StructureGraph fresh = StructureGraph.of(expected);
            for (long d = 0; d < 14; d++) {
                assertThat(graph.usesOf(d)).as("seed " + seed).containsExactlyInAnyOrderElementsOf(fresh.usesOf(d));
                assertThat(set(graph.components(d))).as("seed " + seed).isEqualTo(set(fresh.components(d)));
                assertThat(set(graph.whereUsed(d))).as("seed " + seed).isEqualTo(set(fresh.whereUsed(d)));
            }
        }
    }

    private static List<Use> uses(Random random) {
        List<Use> uses = new ArrayList<>();
        for (int i = random.nextInt(12); i > 0; i--) {
            uses.add(new Use(random.nextInt(7), 7 + random.nextInt(7), 1 + random.nextInt(3), random.nextInt(5)));
        }
        return uses;
    }

    private static Set<Long> set(long[] ids) {
        return new HashSet<>(LongStream.of(ids).boxed().toList());
    }
}
