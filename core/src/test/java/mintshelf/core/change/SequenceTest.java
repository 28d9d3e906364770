package mintshelf.core.change;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import org.junit.jupiter.api.Test;

class SequenceTest {
    @Test
    void anOrderThatWaitsForNobodyClosesNoRing() {
        assertThat(Sequence.ring(3, List.of(1L, 2L), Map.of(2L, Set.of(1L)))).isEmpty();
        assertThat(Sequence.ring(3, List.of(), Map.of())).isEmpty();
    }

    @Test
    void aRingIsNamedFromTheOrderBackToItself() {
        assertThat(Sequence.ring(1, List.of(3L), Map.of(3L, Set.of(2L), 2L, Set.of(1L))))
                .contains(List.of(1L, 3L, 2L, 1L));
        assertThat(Sequence.ring(1, List.of(1L), Map.of())).contains(List.of(1L, 1L));
    }

    /** Whatever is put on whatever in any order: where no ring was refused, all can be carried out one after the other. */
    @Test
    void withoutRingsEveryOrderComesToItsTurn() {
        for (int seed = 0; seed < 400; seed++) {
            Random random = new Random(seed);
            int orders = 2 + random.nextInt(8);
            Map<Long, List<Long>> queues = new HashMap<>();
            int refused = 0;
            for (int i = 0; i < 40; i++) {
                long document = random.nextInt(6);
                long order = random.nextInt(orders);
                List<Long> queue = queues.computeIfAbsent(document, d -> new ArrayList<>());
                if (queue.contains(order)) continue;
                if (Sequence.ring(order, queue, waits(queues)).isPresent()) refused++;
                else queue.add(order);
            }
            assertThat(emptied(queues)).as("seed %d, %d refused", seed, refused).isTrue();
        }
    }

    /** The same as said by hand: an order would wait for itself when carrying out one after the other gets stuck. */
    @Test
    void whatIsRefusedWouldBeStuck() {
        int stuck = 0;
        for (int seed = 0; seed < 400; seed++) {
            Random random = new Random(1000L + seed);
            Map<Long, List<Long>> queues = new HashMap<>();
            for (int i = 0; i < 20; i++) {
                long order = random.nextInt(5);
                List<Long> queue = queues.computeIfAbsent((long) random.nextInt(4), d -> new ArrayList<>());
                if (queue.contains(order)) continue;
                boolean ring = Sequence.ring(order, queue, waits(queues)).isPresent();
                queue.add(order);
                assertThat(emptied(queues)).isEqualTo(!ring);
                if (ring) {
                    stuck++;
                    queue.remove(queue.size() - 1);
                }
            }
        }
        assertThat(stuck).isPositive();
    }

    private static Map<Long, Set<Long>> waits(Map<Long, List<Long>> queues) {
        Map<Long, Set<Long>> waits = new HashMap<>();
        for (List<Long> queue : queues.values()) {
            for (int i = 1; i < queue.size(); i++) {
                waits.computeIfAbsent(queue.get(i), o -> new HashSet<>()).addAll(queue.subList(0, i));
            }
        }
        return waits;
    }

    private static boolean emptied(Map<Long, List<Long>> queues) {
        Map<Long, List<Long>> left = new HashMap<>();
        queues.forEach((d, queue) -> left.put(d, new ArrayList<>(queue)));
        while (true) {
            Set<Long> open = new HashSet<>();
            left.values().forEach(open::addAll);
            if (open.isEmpty()) return true;
            Set<Long> first = new HashSet<>(open);
            left.values().forEach(queue -> queue.stream().skip(1).forEach(first::remove));
            if (first.isEmpty()) return false;
            left.values().forEach(queue -> queue.removeIf(first::contains));
        }
    }
}
