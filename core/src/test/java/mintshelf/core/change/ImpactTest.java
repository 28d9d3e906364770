package mintshelf.core.change;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import java.util.TreeSet;
import java.util.stream.Collectors;
import mintshelf.core.change.Impact.Against;
import mintshelf.core.change.Impact.Line;
import mintshelf.core.change.Impact.Node;
import mintshelf.core.change.Impact.Verdict;
import mintshelf.core.release.ReleaseSet.Shows;
import mintshelf.core.structure.StructureGraph;
import mintshelf.core.structure.StructureGraph.Use;
import org.junit.jupiter.api.Test;

class ImpactTest {
    // The worked example of docs/impact.md: station 100 of well 10 and mast 40; the well of cone 11, ring 12, clamp 13.
    private static final long STATION = 100;
    private static final long WELL = 10;
    private static final long MAST = 40;
    private static final long CONE = 11;
    private static final long CONE_SHEET = 21;
    private static final long WELL_SHEET = 20;
    private static final long CLAMP = 13;
    private static final long STAFF = 200;
    private static final StructureGraph GAUGE = StructureGraph.of(List.of(
            new Use(STATION, WELL, 1, 1),
            new Use(STATION, MAST, 1, 1),
            new Use(WELL, CONE, 1, 1),
            new Use(WELL, 12, 1, 1),
            new Use(WELL, CLAMP, 4, 1),
            new Use(STAFF, CLAMP, 2, 1)));
    private static final List<Shows> SHEETS = List.of(new Shows(CONE_SHEET, CONE), new Shows(WELL_SHEET, WELL));

    private static Impact impact(List<Line> lines, Map<Long, Boolean> declared, Map<Long, Against> overrides) {
        return Impact.of(lines, declared, overrides, GAUGE::usedIn, models -> SHEETS);
    }

    private static Map<Long, Verdict> verdicts(Impact impact) {
        return impact.nodes().stream().collect(Collectors.toMap(Node::item, Node::verdict));
    }

    private static Node node(Impact impact, long item) {
        return impact.nodes().stream().filter(n -> n.item() == item).findFirst().orElseThrow();
    }

    @Test
    void anInterchangeableLineEndsAtWhatItStandsIn() {
        Impact impact = impact(List.of(new Line(CONE, true)), Map.of(), Map.of());
        assertThat(verdicts(impact))
                .containsOnly(
                        Map.entry(CONE, Verdict.REVISED),
                        Map.entry(CONE_SHEET, Verdict.ALONG),
                        Map.entry(WELL, Verdict.TAKES));
        assertThat(node(impact, WELL).because()).containsExactly(CONE);
        assertThat(node(impact, CONE_SHEET).because()).containsExactly(CONE);
        assertThat(node(impact, CONE).because()).isEmpty();
    }

    @Test
    void oneThatIsNotRevisesWhatItStandsInAndEndsALevelAbove() {
        Impact impact = impact(List.of(new Line(CONE, false)), Map.of(), Map.of());
        assertThat(verdicts(impact))
                .containsOnly(
                        Map.entry(CONE, Verdict.NEW_NUMBER),
                        Map.entry(CONE_SHEET, Verdict.ALONG),
                        Map.entry(WELL, Verdict.REVISED),
                        Map.entry(WELL_SHEET, Verdict.ALONG),
                        Map.entry(STATION, Verdict.TAKES));
        assertThat(impact.nodes().stream().map(Node::level)).containsExactly(0, 0, 1, 1, 2);
        assertThat(impact.nodes().get(1).item())
                .as("of a level the sheet comes last")
                .isEqualTo(CONE_SHEET);
        assertThat(impact.counts().keySet())
                .containsExactly(Verdict.NEW_NUMBER, Verdict.REVISED, Verdict.ALONG, Verdict.TAKES);
    }

    @Test
    void aLevelThatIsDeclaredNotInterchangeableGoesOn() {
        Impact impact = impact(List.of(new Line(CONE, false)), Map.of(WELL, false), Map.of());
        assertThat(verdicts(impact)).containsEntry(WELL, Verdict.NEW_NUMBER).containsEntry(STATION, Verdict.REVISED);
        assertThat(node(impact, STATION).because()).containsExactly(WELL);
        // Declared of one that only takes a newer component: nothing of it is changed.
        assertThat(verdicts(impact(List.of(new Line(CONE, true)), Map.of(WELL, false), Map.of())))
                .containsEntry(WELL, Verdict.TAKES)
                .doesNotContainKey(STATION);
    }

    @Test
    void ofSeveralVerdictsTheStrongestStands() {
        Impact impact = impact(List.of(new Line(CLAMP, true), new Line(CONE, false)), Map.of(), Map.of());
        assertThat(verdicts(impact)).containsEntry(WELL, Verdict.REVISED).containsEntry(STAFF, Verdict.TAKES);
        assertThat(node(impact, WELL).because())
                .as("what only would be taken is no reason")
                .containsExactly(CONE);
        Impact both = impact(List.of(new Line(CONE, false), new Line(12, false)), Map.of(), Map.of());
        assertThat(node(both, WELL).because()).containsExactly(CONE, 12L);
        Impact twice = impact(List.of(new Line(CONE, true), new Line(CONE, false)), Map.of(), Map.of());
        assertThat(verdicts(twice)).containsEntry(CONE, Verdict.NEW_NUMBER);
    }

    @Test
    void aLineSaysItselfWhetherItIsInterchangeable() {
        Impact impact = impact(
                List.of(new Line(CONE, false), new Line(WELL, true)),
                Map.of(WELL, false),
                Map.of(WELL, new Against(Optional.empty())));
        assertThat(verdicts(impact)).containsEntry(WELL, Verdict.REVISED).containsEntry(STATION, Verdict.TAKES);
    }

    @Test
    void whatPeopleSayAgainstTheRuleStandsAndTheReachFollowsIt() {
        Impact spared = impact(List.of(new Line(CONE, false)), Map.of(), Map.of(WELL, new Against(Optional.empty())));
        assertThat(verdicts(spared)).containsOnlyKeys(CONE, CONE_SHEET);
        assertThat(spared.spared()).containsExactly(WELL);
        Impact stronger = impact(
                List.of(new Line(CONE, true)), Map.of(), Map.of(WELL, new Against(Optional.of(Verdict.NEW_NUMBER))));
        assertThat(node(stronger, WELL).proposed()).contains(Verdict.TAKES);
        assertThat(verdicts(stronger)).containsEntry(STATION, Verdict.REVISED);
        Impact same =
                impact(List.of(new Line(CONE, true)), Map.of(), Map.of(WELL, new Against(Optional.of(Verdict.TAKES))));
        assertThat(node(same, WELL).proposed()).as("said as the rule says").isEmpty();
        assertThat(verdicts(impact(
                        List.of(new Line(CONE, true)),
                        Map.of(),
                        Map.of(MAST, new Against(Optional.of(Verdict.REVISED))))))
                .as("what is not reached stays out")
                .doesNotContainKey(MAST);
    }

    @Test
    void saysWhyInWords() {
        Impact impact = impact(List.of(new Line(CONE, false), new Line(12, false)), Map.of(WELL, false), Map.of());
        assertThat(node(impact, WELL).says(Long::toString))
                .isEqualTo("needs a new number: it is not interchangeable and refers to 11 and 1 more");
        assertThat(node(impact, STATION).says(Long::toString))
                .isEqualTo("is revised: it refers to 10, which needs a new number");
        assertThat(node(impact, CONE_SHEET).says(Long::toString)).isEqualTo("comes along: it shows 11");
        assertThat(node(impact, CONE).says(Long::toString)).contains("not interchangeable");
        Impact taken = impact(List.of(new Line(CONE, true), new Line(12, true)), Map.of(), Map.of());
        assertThat(node(taken, WELL).says(Long::toString)).isEqualTo("takes 11 and 1 more as they are");
        Impact against = impact(
                List.of(new Line(CONE, true)), Map.of(), Map.of(WELL, new Against(Optional.of(Verdict.REVISED))));
        assertThat(node(against, WELL).says(Long::toString)).isEqualTo("is revised, against “takes it as it is”");
    }

    @Test
    void aRingEndsAndNothingIsTouchedByNothing() {
        StructureGraph ring = StructureGraph.of(
                List.of(new Use(1, 2, 1, 1), new Use(2, 3, 1, 1), new Use(3, 1, 1, 1), new Use(4, 1, 1, 1)));
        Impact all = Impact.of(
                List.of(new Line(1, false)), Map.of(2L, false, 3L, false), Map.of(), ring::usedIn, models -> List.of());
        assertThat(verdicts(all))
                .containsOnly(
                        Map.entry(1L, Verdict.NEW_NUMBER),
                        Map.entry(2L, Verdict.NEW_NUMBER),
                        Map.entry(3L, Verdict.NEW_NUMBER),
                        Map.entry(4L, Verdict.REVISED));
        assertThat(Impact.of(List.of(), Map.of(), Map.of(), ring::usedIn, models -> SHEETS)
                        .nodes())
                .isEmpty();
    }

    /** A structure with rings, lines, declarations and overrides drawn by chance. */
    private record Chance(
            int size,
            List<Use> uses,
            List<Shows> shows,
            List<Line> lines,
            Map<Long, Boolean> declared,
            Map<Long, Against> overrides) {
        static Chance of(long seed) {
            Random random = new Random(seed);
            int size = 3 + random.nextInt(14);
            List<Use> uses = new ArrayList<>();
            for (int i = 0; i < size * 2; i++) {
                uses.add(new Use(1 + random.nextInt(size), 1 + random.nextInt(size), 1 + random.nextInt(4), 1));
            }
            List<Shows> shows = new ArrayList<>();
            for (int i = 0; i < size / 2; i++) {
                // Some sheets stand in the structure themselves.
                long sheet = random.nextInt(4) == 0 ? 1L + random.nextInt(size) : 100L + random.nextInt(4);
                long model = 1L + random.nextInt(size);
                if (sheet != model) shows.add(new Shows(sheet, model));
            }
            List<Line> lines = new ArrayList<>();
            for (int i = 0; i < 1 + random.nextInt(3); i++) {
                lines.add(new Line(1 + random.nextInt(size), random.nextBoolean()));
            }
            Map<Long, Boolean> declared = new HashMap<>();
            Map<Long, Against> overrides = new HashMap<>();
            for (long id = 1; id <= size; id++) {
                if (random.nextInt(3) == 0) declared.put(id, random.nextBoolean());
                if (random.nextInt(6) == 0) {
                    int to = random.nextInt(5); // the last spares it
                    overrides.put(
                            id,
                            new Against(
                                    to == 4
                                            ? Optional.empty()
                                            : Optional.of(
                                                    List.of(Verdict.values()).get(to))));
                }
            }
            return new Chance(size, uses, shows, lines, declared, overrides);
        }

        Impact impact(List<Line> of) {
            return Impact.of(of, declared, overrides, StructureGraph.of(uses)::usedIn, models -> shows);
        }

        /** By the sentences of the rule, over and over all documents until nothing is added: slow and plain. */
        Map<Long, Verdict> naive() {
            Map<Long, Verdict> rule = new HashMap<>();
            boolean changed = true;
            while (changed) {
                Map<Long, Verdict> before = new HashMap<>(rule);
                for (Line l : lines) raise(rule, l.item(), l.interchangeable() ? Verdict.REVISED : Verdict.NEW_NUMBER);
                for (Use u : uses) {
                    if (u.parent() == u.component()) continue;
                    Optional<Verdict> below = stands(rule, u.component());
                    if (below.equals(Optional.of(Verdict.REVISED))) raise(rule, u.parent(), Verdict.TAKES);
                    if (below.equals(Optional.of(Verdict.NEW_NUMBER)))
                        raise(rule, u.parent(), keeps(u.parent()) ? Verdict.REVISED : Verdict.NEW_NUMBER);
                }
                changed = !rule.equals(before);
            }
            Set<Long> worked = rule.keySet().stream()
                    .filter(i -> stands(rule, i)
                            .filter(v -> v == Verdict.REVISED || v == Verdict.NEW_NUMBER)
                            .isPresent())
                    .collect(Collectors.toSet());
            for (Shows s : shows) if (worked.contains(s.model())) raise(rule, s.drawing(), Verdict.ALONG);
            Map<Long, Verdict> all = new HashMap<>();
            for (long item : rule.keySet()) stands(rule, item).ifPresent(v -> all.put(item, v));
            return all;
        }

        private static void raise(Map<Long, Verdict> rule, long item, Verdict to) {
            rule.merge(item, to, (a, b) -> a.compareTo(b) >= 0 ? a : b);
        }

        private Optional<Verdict> stands(Map<Long, Verdict> rule, long item) {
            boolean line = lines.stream().anyMatch(l -> l.item() == item);
            Against said = overrides.get(item);
            if (!line && said != null && rule.containsKey(item)) return said.verdict();
            return Optional.ofNullable(rule.get(item));
        }

        private boolean keeps(long item) {
            List<Line> own = lines.stream().filter(l -> l.item() == item).toList();
            if (!own.isEmpty()) return own.stream().allMatch(Line::interchangeable);
            return declared.getOrDefault(item, true);
        }
    }

    @Test
    void sameAsTheRuleAppliedOverAndOver() {
        for (long seed = 0; seed < 4000; seed++) {
            Chance chance = Chance.of(seed);
            assertThat(verdicts(chance.impact(chance.lines())))
                    .as("seed " + seed)
                    .isEqualTo(chance.naive());
        }
    }

    @Test
    void theOrderOfTheLinesDoesNotMatterAndALineMoreNeverWeakensAVerdict() {
        for (long seed = 0; seed < 1000; seed++) {
            Chance chance = Chance.of(seed);
            List<Line> turned = new ArrayList<>(chance.lines());
            java.util.Collections.reverse(turned);
            assertThat(chance.impact(turned)).as("seed " + seed).isEqualTo(chance.impact(chance.lines()));
            Chance bare = new Chance(chance.size(), chance.uses(), chance.shows(), chance.lines(), Map.of(), Map.of());
            Map<Long, Verdict> less = verdicts(bare.impact(bare.lines().subList(0, 1)));
            Map<Long, Verdict> more = verdicts(bare.impact(bare.lines()));
            less.forEach((item, verdict) -> assertThat(more.get(item)).isGreaterThanOrEqualTo(verdict));
        }
    }

    @Test
    void everyReasonIsTouchedItselfAndEveryTouchedDocumentHasOne() {
        for (long seed = 0; seed < 1000; seed++) {
            Chance chance = Chance.of(seed);
            Impact impact = chance.impact(chance.lines());
            Set<Long> touched = new TreeSet<>(verdicts(impact).keySet());
            for (Node node : impact.nodes()) {
                assertThat(touched).as("seed " + seed).containsAll(node.because());
                if (!node.line())
                    assertThat(node.because())
                            .as("seed " + seed + " of " + node)
                            .isNotEmpty();
            }
        }
    }
}
