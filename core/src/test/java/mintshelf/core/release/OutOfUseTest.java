package mintshelf.core.release;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.Collection;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import java.util.stream.LongStream;
import org.junit.jupiter.api.Test;

class OutOfUseTest {
    /** Uses as pairs: what stands in what. */
    private static OutOfUse of(List<long[]> uses, Collection<Long> withdrawn, Set<Long> notInForce, Set<Long> dead) {
        return OutOfUse.of(
                withdrawn,
                id -> uses.stream().filter(u -> u[0] == id).map(u -> u[1]).toList(),
                id -> uses.stream().filter(u -> u[1] == id).map(u -> u[0]).toList(),
                id -> !notInForce.contains(id),
                id -> !dead.contains(id));
    }

    private static List<long[]> uses(long... pairs) {
        List<long[]> all = new ArrayList<>();
        for (int i = 0; i < pairs.length; i += 2) all.add(new long[] {pairs[i], pairs[i + 1]});
        return all;
    }

    @Test
    void whatStandsInNothingElseGoesWithItDownToTheBottom() {
        OutOfUse found = of(uses(1, 2, 2, 3, 1, 4), List.of(1L), Set.of(), Set.of());
        assertThat(found.items()).containsExactlyInAnyOrder(2L, 3L, 4L);
        assertThat(found.stays()).isEmpty();
    }

    @Test
    void whatIsNeededElsewhereStaysAndSaysByWhom() {
        OutOfUse found = of(uses(1, 2, 9, 2, 2, 3), List.of(1L), Set.of(), Set.of());
        assertThat(found.items()).isEmpty();
        assertThat(found.stays()).isEqualTo(Map.of(2L, 9L));
    }

    @Test
    void whatTwoNeedThatBothGoGoesToo() {
        // 3 stands in 2 and in 4, which both stand in 1 alone: it falls whichever is looked at first.
        assertThat(of(uses(1, 2, 1, 4, 4, 3, 2, 3), List.of(1L), Set.of(), Set.of())
                        .items())
                .containsExactlyInAnyOrder(2L, 3L, 4L);
        assertThat(of(uses(1, 3, 1, 2, 2, 3), List.of(1L), Set.of(), Set.of()).stays())
                .isEmpty();
    }

    @Test
    void whatIsWithdrawnAlreadyNeedsNothingAndWhatIsNotInForceIsNotAsked() {
        assertThat(of(uses(1, 2, 9, 2), List.of(1L), Set.of(), Set.of(9L)).items())
                .containsExactly(2L);
        OutOfUse found = of(uses(1, 2, 2, 3), List.of(1L), Set.of(2L), Set.of());
        assertThat(found.items()).isEmpty();
        assertThat(found.stays()).isEmpty();
    }

    @Test
    void itIsTheLargestSetThatNothingLeftNeeds() {
        Random random = new Random(3);
        for (int round = 0; round < 300; round++) {
            int n = 3 + random.nextInt(9);
            List<long[]> uses = new ArrayList<>();
            for (long p = 0; p < n; p++) {
                for (long c = p + 1; c < n; c++) if (random.nextInt(3) == 0) uses.add(new long[] {p, c});
            }
            Set<Long> dead = random.nextBoolean() ? Set.of((long) random.nextInt(n)) : Set.of();
            Set<Long> notInForce = random.nextBoolean() ? Set.of(1L + random.nextInt(n - 1)) : Set.of();
            OutOfUse found = of(uses, List.of(0L), notInForce, dead);
            Set<Long> out = new HashSet<>(found.items());
            out.add(0L);
            // Sound: nothing that is left and alive needs what goes.
            for (long[] use : uses) {
                if (out.contains(use[1]) && use[1] != 0) {
                    assertThat(out.contains(use[0]) || dead.contains(use[0])).isTrue();
                }
            }
            // Whole: whatever stood in what goes and stays is needed, or cannot go.
            for (long id : LongStream.range(1, n).toArray()) {
                boolean stood = uses.stream().anyMatch(u -> u[1] == id && out.contains(u[0]));
                if (!stood || out.contains(id)) continue;
                assertThat(found.stays().containsKey(id) || notInForce.contains(id))
                        .isTrue();
                Long by = found.stays().get(id);
                if (by != null) assertThat(out).doesNotContain(by);
            }
        }
    }
}
