package mintshelf.core.release;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import mintshelf.core.base.Refusal;
import mintshelf.core.release.ReleaseSet.Member;
import mintshelf.core.release.ReleaseSet.Shows;
import mintshelf.core.release.ReleaseSet.Why;
import mintshelf.core.structure.StructureGraph.Use;
import org.junit.jupiter.api.Test;

class ReleaseSetTest {
    private static Use use(long parent, long component) {
        return new Use(parent, component, 1, 1);
    }

    private static List<Long> items(ReleaseSet set) {
        return set.members().stream().map(Member::item).toList();
    }

    @Test
    void whatStandsInItAndIsNotInForceGoesAlongComponentsFirst() {
        List<Use> uses = List.of(use(1, 2), use(1, 3), use(2, 4), use(3, 5), use(4, 6));
        ReleaseSet set = ReleaseSet.of(List.of(1L), uses, List.of(), i -> i == 3 || i == 6);
        assertThat(items(set)).containsExactly(4L, 2L, 1L);
        assertThat(set.members().get(0)).isEqualTo(new Member(4, Why.COMPONENT, 2));
        // 5 stands in what is in force: that is enough.
        assertThat(set.enough()).containsExactlyInAnyOrder(3L, 6L);
    }

    @Test
    void aModelAndItsSheetGoTogetherModelFirst() {
        List<Shows> shows = List.of(new Shows(10, 20), new Shows(11, 21));
        assertThat(items(ReleaseSet.of(List.of(10L), List.of(), shows, i -> false)))
                .containsExactly(20L, 10L);
        assertThat(items(ReleaseSet.of(List.of(20L), List.of(), shows, i -> false)))
                .containsExactly(20L, 10L);
        ReleaseSet known = ReleaseSet.of(List.of(10L), List.of(), shows, i -> i == 20);
        assertThat(items(known)).containsExactly(10L);
        assertThat(known.enough()).containsExactly(20L);
    }

    @Test
    void whatIsAskedForGoesThoughARevisionOfItIsInForce() {
        assertThat(items(ReleaseSet.of(List.of(1L, 1L), List.of(use(1, 1)), List.of(), i -> true)))
                .containsExactly(1L);
        assertThat(items(ReleaseSet.of(List.of(), List.of(use(1, 2)), List.of(), i -> false)))
                .isEmpty();
    }

    @Test
    void aRingEnds() {
        ReleaseSet set = ReleaseSet.of(List.of(1L), List.of(use(1, 2), use(2, 3), use(3, 1)), List.of(), i -> false);
        assertThat(items(set)).containsExactlyInAnyOrder(1L, 2L, 3L);
    }

    @Test
    void theSetIsSoundAndTheSmallest() {
        for (int seed = 0; seed < 200; seed++) {
            Random random = new Random(seed);
            int n = 4 + random.nextInt(40);
            List<Use> uses = new ArrayList<>();
            List<Shows> shows = new ArrayList<>();
            for (int i = 0; i < n * 2; i++) {
                int parent = 1 + random.nextInt(n);
                int component = 1 + random.nextInt(n);
                if (parent < component) uses.add(use(parent, component));
                if (random.nextInt(6) == 0) shows.add(new Shows(100 + parent, parent));
            }
            Set<Long> force = new HashSet<>();
            for (long i = 1; i <= n; i++) if (random.nextInt(3) == 0) force.add(i);
            ReleaseSet set = ReleaseSet.of(List.of(1L), uses, shows, force::contains);
            Set<Long> in = new HashSet<>(items(set));
            assertThat(in).as("each once").hasSameSizeAs(set.members());
            Map<Long, Integer> place = new HashMap<>();
            items(set).forEach(i -> place.put(i, place.size()));
            for (Use u : uses) {
                if (!in.contains(u.parent())) continue;
                boolean sound = in.contains(u.component()) || force.contains(u.component());
                assertThat(sound).as("seed " + seed).isTrue();
                if (in.contains(u.component()))
                    assertThat(place.get(u.component())).isLessThan(place.get(u.parent()));
            }
            // Nobody is in it without a reason that is in it, and nobody who is in force but who was asked for.
            for (Member m : set.members()) {
                if (m.why() == Why.ASKED) continue;
                assertThat(in).as("seed " + seed).contains(m.of());
                assertThat(force).doesNotContain(m.item());
            }
        }
    }

    @Test
    void whatLacksNothingGoesAlone() {
        List<Use> uses = List.of(use(1, 2), use(2, 3), use(2, 4), use(5, 6));
        List<Shows> shows = List.of(new Shows(30, 3));
        // 30 shows 3 and cannot go: neither 3 nor what it stands in goes; 4 lacks nothing, 5 stands on what is in
        // force.
        assertThat(ReleaseSet.alone(List.of(1L, 2L, 3L, 4L, 5L), uses, shows, Set.of(6L)))
                .containsExactly(4L, 5L);
        assertThat(ReleaseSet.alone(List.of(1L, 2L, 3L, 4L, 30L), uses, shows, Set.of()))
                .containsExactly(1L, 2L, 3L, 4L, 30L);
    }

    @Test
    void blocksAreGroupedByWhatHelps() {
        Refusal held = Refusal.of("gate.held", "A is held by Priya.", "Ask Priya to check it in.");
        Refusal too = Refusal.of("gate.held", "B is held by Priya.", "Ask Priya to check it in.");
        Refusal facts = Refusal.of("gate.facts", "Not filled: Material.", "Fill them on its fact sheet.");
        List<Blocks.Block> blocks = Blocks.of(List.of(
                new Blocks.Kept(1, List.of(facts, held)),
                new Blocks.Kept(2, List.of(too)),
                new Blocks.Kept(3, List.of())));
        assertThat(blocks).extracting(Blocks.Block::code).containsExactly("gate.held", "gate.facts");
        assertThat(blocks.get(0).items()).containsExactly(1L, 2L);
        assertThat(blocks.get(0).reasons()).containsExactly("A is held by Priya.", "B is held by Priya.");
        assertThat(blocks.get(1).items()).containsExactly(1L);
    }
}
