package mintshelf.core.reuse;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import java.util.stream.Collectors;
import mintshelf.core.base.Refusal;
import mintshelf.core.reuse.Design.Becomes;
import mintshelf.core.reuse.Design.By;
import mintshelf.core.reuse.Design.Thing;
import mintshelf.core.reuse.Design.Verdict;
import org.junit.jupiter.api.Test;

/** What becomes of each thing of a design that another one begins from. */
class DesignTest {
    private static final NumberRule RULE =
            NumberRule.of("TG40-####", "TG41-####").orElseThrow(r -> new IllegalStateException(r.says()));
    private static final Optional<Refusal> LIBRARY =
            Optional.of(Refusal.of("access.library", "It lies on a library shelf.", ""));

    /** Numbers of a house, with how often they were asked for. */
    private static final class House implements Design.Numbers {
        private final Map<String, Long> others = new HashMap<>();
        private final Set<String> used = new TreeSet<>();
        private int asked;

        House(String... used) {
            for (String one : used) this.used.add(one.toLowerCase(java.util.Locale.ROOT));
        }

        @Override
        public Set<String> used(Collection<String> keys) {
            asked++;
            return keys.stream()
                    .filter(k -> used.contains(k) || others.containsKey(k))
                    .collect(Collectors.toSet());
        }

        @Override
        public Optional<Long> other(Thing thing, String key) {
            return Optional.ofNullable(others.get(key));
        }
    }

    private static Thing thing(long id, String number, Long... below) {
        return new Thing(id, number, List.of(below), RULE.apply(number), Optional.empty());
    }

    /** 1 head: 2 housing, 3 cover group (4 lid, 5 screw), 5 screw. */
    private static List<Thing> head() {
        return List.of(
                thing(1, "TG40-3000", 2L, 3L, 5L),
                thing(2, "TG40-3010"),
                thing(3, "TG40-3100", 4L, 5L),
                thing(4, "TG40-3110"),
                thing(5, "ISO 4762 M6"));
    }

    private static Verdict of(Map<Long, Verdict> all, long id) {
        return Optional.ofNullable(all.get(id)).orElseThrow();
    }

    private static String told(Map<Long, Verdict> all, long id) {
        Verdict one = of(all, id);
        return one.becomes() + " " + one.number() + (one.by() == By.NONE ? "" : " " + one.by())
                + one.refused().map(r -> " !" + r.code()).orElse("")
                + one.settled().map(r -> " ~" + r.code()).orElse("");
    }

    @Test
    void whatTheRuleFitsIsNewAndTheOthersAreShared() {
        House house = new House();
        Map<Long, Verdict> all = Design.settle(head(), Map.of(), house);
        assertThat(told(all, 1)).isEqualTo("NEW TG41-3000 RULE");
        assertThat(told(all, 4)).isEqualTo("NEW TG41-3110 RULE");
        assertThat(told(all, 5)).isEqualTo("SHARED ISO 4762 M6");
        assertThat(house.asked).isEqualTo(1);
    }

    @Test
    void theNumberSaysWhatBecomesOfAThing() {
        House house = new House();
        house.others.put("iso 4762 m8", 77L);
        Map<Long, Verdict> all = Design.settle(head(), Map.of(2L, "X-1", 3L, "tg40-3100", 5L, "ISO 4762 M8"), house);
        assertThat(told(all, 2)).isEqualTo("NEW X-1 TYPED");
        assertThat(told(all, 3)).isEqualTo("SHARED TG40-3100 TYPED");
        assertThat(told(all, 5)).isEqualTo("EXCHANGED ISO 4762 M8 TYPED");
        assertThat(of(all, 5).other()).contains(77L);
        // What stands in something shared alone belongs to that.
        assertThat(of(all, 4).becomes()).isEqualTo(Becomes.WITHIN);
        all = Design.settle(head(), Map.of(3L, " "), house);
        assertThat(told(all, 3)).isEqualTo("LEFT_OUT  TYPED");
        assertThat(of(all, 4).becomes()).isEqualTo(Becomes.WITHIN);
        assertThat(of(all, 5).becomes()).isEqualTo(Becomes.SHARED);
    }

    @Test
    void ofATakenNumberTheNextFreeOneIsTakenAndNoneThatAnotherOneWants() {
        List<Thing> all = new ArrayList<>(head());
        all.set(0, thing(1, "TG40-3000", 2L, 3L, 5L, 6L));
        all.add(thing(6, "TG40-3011"));
        Map<Long, Verdict> settled = Design.settle(all, Map.of(), new House("tg41-3010", "tg41-3012"));
        assertThat(told(settled, 2)).isEqualTo("NEW TG41-3013 NEXT_FREE ~design.taken");
        assertThat(told(settled, 6)).isEqualTo("NEW TG41-3011 RULE");
        assertThat(of(settled, 2).settled().orElseThrow().says()).contains("TG41-3010 is taken", "TG41-3013");
    }

    @Test
    void aSecondDesignByTheSameRuleAsksForAllItsNumbersAtOnce() {
        House house = new House();
        List<Thing> things = new ArrayList<>();
        List<Long> below = new ArrayList<>();
        for (long i = 2; i <= 400; i++) below.add(i);
        things.add(thing(1, "TG40-3000", below.toArray(new Long[0])));
        for (long i = 2; i <= 400; i++) things.add(thing(i, "TG40-" + (1000 + 21 * i)));
        things.forEach(t -> house.used.add(t.proposed().orElseThrow().toLowerCase(java.util.Locale.ROOT)));
        Map<Long, Verdict> all = Design.settle(things, Map.of(), house);
        assertThat(house.asked).isEqualTo(2);
        assertThat(all.values()).allMatch(v -> v.isNew() && v.by() == By.NEXT_FREE);
        assertThat(all.values().stream().map(Verdict::number)).doesNotHaveDuplicates();
    }

    @Test
    void whatIsUsedTwiceOrIsNoNumberKeepsAllFromBeingMade() {
        House house = new House("tg41-9000");
        assertThat(told(Design.settle(head(), Map.of(2L, "TG41-9000"), house), 2))
                .isEqualTo("SHARED TG41-9000 TYPED !number.used");
        Map<Long, Verdict> twice = Design.settle(head(), Map.of(2L, "X-1", 4L, "x\u20111"), house);
        assertThat(twice.values().stream().filter(v -> v.refused().isPresent())).hasSize(1);
        assertThat(told(twice, 4)).endsWith("!design.twice");
        assertThat(told(Design.settle(head(), Map.of(2L, "a/b"), house), 2)).endsWith("!number.form");
        assertThat(told(Design.settle(head(), Map.of(1L, ""), house), 1)).endsWith("!design.top");
        assertThat(told(Design.settle(head(), Map.of(1L, "TG40-3000"), house), 1))
                .endsWith("!design.top");
    }

    @Test
    void whatSomebodyTypesIsTheirsWhateverTheRuleSays() {
        Map<Long, Verdict> all = Design.settle(head(), Map.of(4L, "TG41-3010"), new House());
        assertThat(told(all, 4)).isEqualTo("NEW TG41-3010 TYPED");
        assertThat(told(all, 2)).isEqualTo("NEW TG41-3011 NEXT_FREE ~design.taken");
    }

    @Test
    void twoOfOneThingDoNotBecomeOne() {
        House house = new House();
        house.others.put("x-9", 9L);
        Map<Long, Verdict> both = Design.settle(head(), Map.of(2L, "X-9", 3L, "X-9"), house);
        assertThat(both.values().stream().filter(v -> v.refused().isPresent())).hasSize(1);
        house.others.put("iso 4762 m6", 5L);
        assertThat(told(Design.settle(head(), Map.of(2L, "ISO 4762 M6"), house), 2))
                .endsWith("!design.both");
        // In two things they may.
        Map<Long, Verdict> apart = Design.settle(head(), Map.of(2L, "X-9", 4L, "X-9"), house);
        assertThat(apart.values()).allMatch(v -> v.refused().isEmpty());
    }

    @Test
    void ofALibraryNothingIsMadeAndThatIsSaid() {
        Thing screw = new Thing(5, "ISO 4762 M6", List.of(), Optional.of("TG41-0005"), LIBRARY);
        List<Thing> all = new ArrayList<>(head());
        all.set(4, screw);
        assertThat(told(Design.settle(all, Map.of(), new House()), 5)).isEqualTo("SHARED ISO 4762 M6 ~access.library");
        assertThat(told(Design.settle(all, Map.of(5L, "NEW-1"), new House()), 5))
                .isEqualTo("SHARED ISO 4762 M6 ~access.library");
        all.set(0, new Thing(1, "TG40-3000", List.of(2L), RULE.apply("TG40-3000"), LIBRARY));
        assertThat(told(Design.settle(all, Map.of(), new House()), 1)).contains("!access.library");
    }

    @Test
    void wordsOfTitlesAreExchangedAndNoTitleIsEmpty() {
        List<Design.Words> words = List.of(new Design.Words("Encoder", "Sensor"), new Design.Words("", "x"));
        assertThat(Design.retitled("Encoder head, Encoder side", words)).isEqualTo("Sensor head, Sensor side");
        assertThat(Design.retitled("Lid", List.of(new Design.Words("Lid", " "))))
                .isEqualTo("Lid");
        assertThat(Design.retitled("Lid, short", List.of(new Design.Words("Lid", "a".repeat(300)))))
                .hasSizeLessThanOrEqualTo(200);
    }

    @Test
    void aRingOfThingsEnds() {
        List<Thing> ring = List.of(thing(1, "TG40-0001", 2L), thing(2, "TG40-0002", 1L));
        assertThat(Design.settle(ring, Map.of(), new House()).values()).allMatch(Verdict::isNew);
    }
}
