package mintshelf.core.bom;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.math.BigDecimal;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.junit.jupiter.api.Test;

class BomTest {
    private static final Boms PUMP = Boms.of("pump")
            .part("head", Comes.MADE, "pc", "9", "")
            .part("kit", Comes.PHANTOM, "pc", "", "")
            .part("motor", Comes.BOUGHT, "pc", "3.5", "80")
            .part("rotor", Comes.MADE, "pc", "1", "20")
            .part("screw", Comes.LIBRARY, "pc", "0.01", "0.1")
            .part("hose", Comes.BOUGHT, "m", "0.2", "4")
            .part("grease", Comes.BOUGHT, "g", "", "0.05")
            .line("pump", "head", "2", "pc")
            .line("pump", "kit", "3", "pc")
            .line("pump", "motor", "1", "pc")
            .line("head", "screw", "4", "pc")
            .line("head", "hose", "250", "mm")
            .line("kit", "screw", "8", "pc")
            .line("kit", "grease", "5", "g")
            .line("motor", "rotor", "1", "pc");

    private static List<String> shown(Bom bom, Bom.Tree tree) {
        return tree.rows().stream()
                .map(r -> "  ".repeat(r.depth()) + r.find() + " "
                        + bom.part(r.line().part()).number() + " "
                        + r.needed().map(BomCompare::plain).orElse("?"))
                .toList();
    }

    private static Map<String, String> needed(Bom bom, Bom.For who) {
        Map<String, String> needed = new HashMap<>();
        bom.flat(who)
                .forEach(t -> needed.put(
                        bom.part(t.place()).number(), BomCompare.plain(t.needed()) + (t.whole() ? "" : " at least")));
        return needed;
    }

    @Test
    void theTreeSaysHowManyOneOfTheTopNeedsAndStopsAtWhatComesWhole() {
        Bom bom = PUMP.bom();
        assertThat(shown(bom, bom.tree(false, 40, 100)))
                .containsExactly(
                        "1 head 2",
                        "  1/1 screw 8",
                        "  1/2 hose 0.5",
                        "2 kit 3",
                        "  2/1 screw 24",
                        "  2/2 grease 15",
                        "3 motor 1");
        assertThat(shown(bom, bom.tree(false, 1, 100))).containsExactly("1 head 2", "2 kit 3", "3 motor 1");
        assertThat(bom.tree(false, 40, 4).cut()).isTrue();
        assertThat(bom.tree(false, 40, 7).cut()).isFalse();
    }

    @Test
    void phantomsAreDissolvedIntoWhatIsAboveThem() {
        Bom bom = PUMP.bom();
        assertThat(shown(bom, bom.tree(true, 40, 100)))
                .containsExactly(
                        "1 head 2", "  1/1 screw 8", "  1/2 hose 0.5", "2/1 screw 24", "2/2 grease 15", "3 motor 1");
        assertThat(shown(bom, bom.tree(true, 1, 100)))
                .containsExactly("1 head 2", "2/1 screw 24", "2/2 grease 15", "3 motor 1");
    }

    @Test
    void aPhantomOfNothingStandsForItself() {
        Bom bom = Boms.of("a")
                .part("kit", Comes.PHANTOM, "pc", "1", "2")
                .line("a", "kit", "2", "pc")
                .bom();
        assertThat(shown(bom, bom.tree(true, 40, 100))).containsExactly("1 kit 2");
        assertThat(needed(bom, Bom.For.MANUFACTURING)).isEqualTo(Map.of("kit", "2"));
    }

    @Test
    void flatSumsOverThePathsForWhoeverAsks() {
        Bom bom = PUMP.bom();
        assertThat(needed(bom, Bom.For.ENGINEERING))
                .isEqualTo(Map.of("head", "2", "kit", "3", "motor", "1", "screw", "32", "hose", "0.5", "grease", "15"));
        assertThat(needed(bom, Bom.For.PURCHASING))
                .isEqualTo(Map.of("motor", "1", "screw", "32", "hose", "0.5", "grease", "15"));
        assertThat(needed(bom, Bom.For.MANUFACTURING)).doesNotContainKey("kit").hasSize(5);
    }

    @Test
    void aSumSaysWhatItLacksAndCountsWhatComesWholeOnce() {
        Bom bom = PUMP.bom();
        RollUp mass = RollUp.of(bom, RollUp.Of.MASS);
        // 2 heads: 4 screws and a quarter of a metre of hose; 3 kits: 8 screws and 5 g of grease; a motor without its
        // rotor.
        assertThat(mass.top().known()).isEqualByComparingTo("3.935");
        assertThat(mass.top().complete()).isTrue();
        assertThat(mass.of(PUMP.at("head")).known()).isEqualByComparingTo("0.09");
        RollUp cost = RollUp.of(bom, RollUp.Of.COST);
        assertThat(cost.top().known()).isEqualByComparingTo("85.95");
        Boms lacking = Boms.of("lamp")
                .part("bulb", Comes.BOUGHT, "pc", "", "2")
                .part("wire", Comes.BOUGHT, "m", "0.1", "1")
                .line("lamp", "bulb", "1", "pc")
                .line("lamp", "wire", "2", "pc")
                .line("lamp", "wire", "3", "m");
        RollUp some = RollUp.of(lacking.bom(), RollUp.Of.MASS);
        assertThat(some.top().complete()).isFalse();
        assertThat(some.top().known()).isEqualByComparingTo("0.3");
        assertThat(some.lacking())
                .extracting(RollUp.Lack::why)
                .containsExactlyInAnyOrder("no mass", "2 pc of it, which is counted in m");
    }

    private static Bom lamp(Optional<Worth.Instead> weighed, boolean open) {
        BomPart top = new BomPart(1, "L", "lamp", "A", 1, Comes.MADE, "pc", Optional.empty(), Optional.empty());
        BomPart bulb =
                new BomPart(2, "B", "bulb", "A", 1, Comes.BOUGHT, "pc", Optional.of(BigDecimal.TEN), Optional.empty());
        BomPart wire = new BomPart(3, "W", "wire", "A", 1, Comes.BOUGHT, "pc", Optional.empty(), Optional.empty());
        Effectivity late = Effectivity.read(new Effectivity.Typed("", "", "0150", "", ""))
                .toOptional()
                .orElseThrow();
        return Bom.of(
                List.of(top.instead(weighed, Optional.empty()), bulb, wire),
                List.of(
                        List.of(
                                new BomLine("1", 1, BigDecimal.ONE, "pc", false),
                                new BomLine("2", 1, BigDecimal.valueOf(2), "pc", true, late, open),
                                new BomLine("3", 2, BigDecimal.ONE, "pc", false)),
                        List.of(),
                        List.of()));
    }

    @Test
    void aLineOfSomeProductsCountsForNothingWhereNobodyAskedForOneAndIsNamed() {
        Bom bom = lamp(Optional.empty(), true);
        RollUp mass = RollUp.of(bom, RollUp.Of.MASS);
        assertThat(mass.top().known()).isEqualByComparingTo("10");
        assertThat(mass.lacking())
                .extracting(RollUp.Lack::why)
                .containsExactlyInAnyOrder("only serial 0150 on", "no mass");
        assertThat(needed(bom, Bom.For.PURCHASING)).isEqualTo(Map.of("B", "1 at least", "W", "1"));
        assertThat(bom.tree(false, 40, 100).rows().get(1).needed()).isEmpty();
        assertThat(RollUp.of(lamp(Optional.empty(), false), RollUp.Of.MASS)
                        .top()
                        .known())
                .isEqualByComparingTo("30");
    }

    @Test
    void whatWasWeighedCountsInThePlaceOfTheSum() {
        Bom bom = lamp(Optional.of(new Worth.Instead(new BigDecimal("12.5"), "weighed")), true);
        RollUp mass = RollUp.of(bom, RollUp.Of.MASS);
        assertThat(mass.top()).isEqualTo(new RollUp.Value(new BigDecimal("12.5"), true));
        assertThat(mass.ofLines(0)).isEqualByComparingTo("10");
        // What the lines lack does not matter then.
        assertThat(mass.lacking()).isEmpty();
        assertThat(RollUp.of(bom, RollUp.Of.COST).top().complete()).isFalse();
    }

    @Test
    void aLineThatBeganToBeOfSomeProductsOnlyDiffers() {
        Bom always = Bom.of(
                List.of(
                        lamp(Optional.empty(), true).part(0),
                        lamp(Optional.empty(), true).part(1)),
                List.of(List.of(new BomLine("2", 1, BigDecimal.valueOf(2), "pc", true)), List.of()));
        Effectivity late = lamp(Optional.empty(), true).lines(0).get(1).when();
        Bom some = Bom.of(
                List.of(always.part(0), always.part(1)),
                List.of(List.of(new BomLine("2", 1, BigDecimal.valueOf(2), "pc", true, late, true)), List.of()));
        assertThat(BomCompare.of(always, some).differences())
                .singleElement()
                .satisfies(d -> assertThat(d.says()).containsExactly("always → serial 0150 on"));
        assertThat(BomCompare.of(some, some).differences()).isEmpty();
    }

    @Test
    void aRingStandsInTheListAndCountsForNothing() {
        Bom bom = Boms.of("a")
                .part("b", Comes.MADE, "pc", "", "")
                .part("c", Comes.BOUGHT, "pc", "1", "1")
                .line("a", "b", "2", "pc")
                .line("b", "a", "1", "pc")
                .line("b", "c", "1", "pc")
                .bom();
        assertThat(bom.rings())
                .singleElement()
                .satisfies(r -> assertThat(r[1].number()).isEqualTo("a"));
        assertThat(bom.tree(false, 40, 100).rows()).hasSize(3).anyMatch(Bom.Row::ring);
        assertThat(needed(bom, Bom.For.PURCHASING)).isEqualTo(Map.of("c", "2"));
        RollUp mass = RollUp.of(bom, RollUp.Of.MASS);
        assertThat(mass.top().complete()).isFalse();
        assertThat(mass.lacking()).extracting(RollUp.Lack::why).containsExactly("it stands above itself");
    }

    @Test
    void lengthsAndVolumesConvertOthersDoNot() {
        assertThat(BomUnits.in(new BigDecimal("250"), "mm", "m"))
                .hasValueSatisfying(v -> assertThat(v).isEqualByComparingTo("0.25"));
        assertThat(BomUnits.in(new BigDecimal("2"), "l", "ml"))
                .hasValueSatisfying(v -> assertThat(v).isEqualByComparingTo("2000"));
        assertThat(BomUnits.in(BigDecimal.ONE, "ml", "g")).isEmpty();
        assertThat(BomUnits.in(BigDecimal.ONE, "m", "m2")).isEmpty();
        assertThat(BomUnits.in(BigDecimal.ONE, "pc", "kg")).isEmpty();
    }

    @Test
    void whatIsNoQuantityUnitOrFindNumberIsRefusedInWords() {
        for (String bad :
                List.of("", "-1", "0", "0.000", "1e308", "NaN", "1,5", "1.0000001", "12345678901", "½", "1 2"))
            assertThat(BomUnits.quantity(bad).refusal()).as(bad).isPresent();
        assertThat(BomUnits.quantity(" 2.50 ").orElseThrow(r -> new IllegalStateException(r.says())))
                .isEqualTo("2.5");
        assertThat(BomUnits.unit("furlong").refusal()).isPresent();
        assertThat(BomUnits.unit("").orElseThrow(r -> new IllegalStateException(r.says())))
                .isEqualTo("pc");
        for (String bad : List.of("", "0", "00A", "1.2", "12AB", "1234567", "-3", "x"))
            assertThat(FindNumbers.read(bad).refusal()).as(bad).isPresent();
        assertThat(FindNumbers.read("12a").orElseThrow(r -> new IllegalStateException(r.says())))
                .isEqualTo("12A");
    }

    @Test
    void findNumbersStayAndAreNotGivenAgain() {
        Map<String, String> known = Map.of("a", "1", "b", "2", "gone", "7");
        assertThat(FindNumbers.assign(List.of("b", "new", "a", "newer"), known)).containsExactly("2", "8", "1", "9");
        assertThat(FindNumbers.assign(List.of("x", "y"), Map.of())).containsExactly("1", "2");
        assertThat(FindNumbers.twice(List.of("1", "2", "1"))).contains("1");
        assertThat(FindNumbers.highest(List.of("3", "12B", "7"))).isEqualTo(12);
        assertThat(FindNumbers.compare("2", "10")).isNegative();
        assertThat(FindNumbers.compare("2A", "2")).isPositive();
    }

    @Test
    void moreWaysThanAnyoneCouldWalkEndAllTheSame() {
        Boms boms = Boms.of("top").part("p0", Comes.PHANTOM, "pc", "", "").line("top", "p0", "1", "pc");
        for (int i = 1; i < 50; i++) {
            boms.part("p" + i, Comes.PHANTOM, "pc", "", "");
            boms.line("p" + (i - 1), "p" + i, "1", "pc").line("p" + (i - 1), "p" + i, "2", "pc");
        }
        Bom bom = boms.bom();
        assertThat(bom.tree(true, Bom.DEEPEST, 1000).cut()).isTrue();
        assertThat(bom.tree(false, Bom.DEEPEST, 1000).cut()).isTrue();
        assertThat(bom.flat(Bom.For.ENGINEERING)).hasSize(50);
        assertThat(RollUp.of(bom, RollUp.Of.MASS).lacking()).hasSize(1);
    }

    @Test
    void whatLeadsNowhereIsNoBom() {
        assertThatThrownBy(() -> Bom.of(List.of(), List.of())).isInstanceOf(IllegalArgumentException.class);
        BomPart one = PUMP.bom().part(0);
        assertThatThrownBy(() ->
                        Bom.of(List.of(one), List.of(List.of(new BomLine("1", 1, BigDecimal.ONE, "pc", false)))))
                .isInstanceOf(IllegalArgumentException.class);
    }

    /** The flat list and the sums are those of a walk over every path. */
    @Test
    void sumsAreThoseOfAWalkOverAllPaths() {
        for (long seed = 0; seed < 1000; seed++) {
            Bom bom = Boms.random(seed);
            Map<Integer, BigDecimal> needed = new HashMap<>();
            Set<Integer> partly = new HashSet<>();
            naive(bom, 0, Optional.of(BigDecimal.ONE), needed, partly);
            List<Bom.Total> flat = bom.flat(Bom.For.ENGINEERING);
            Set<Integer> places = new HashSet<>();
            for (Bom.Total t : flat) {
                places.add(t.place());
                assertThat(t.needed())
                        .as("seed %d part %d", seed, t.place())
                        .isEqualByComparingTo(needed.getOrDefault(t.place(), BigDecimal.ZERO));
                assertThat(t.whole()).as("seed %d part %d", seed, t.place()).isEqualTo(!partly.contains(t.place()));
            }
            assertThat(places).containsAll(needed.keySet());
            Value mass = new Value();
            naiveMass(bom, 0, BigDecimal.ONE, mass);
            RollUp rolled = RollUp.of(bom, RollUp.Of.MASS);
            assertThat(rolled.top().known()).as("seed %d", seed).isEqualByComparingTo(mass.sum);
            assertThat(rolled.top().complete()).as("seed %d", seed).isEqualTo(mass.complete);
            assertThat(rolled.lacking().isEmpty()).as("seed %d", seed).isEqualTo(mass.complete);
        }
    }

    private static final class Value {
        private BigDecimal sum = BigDecimal.ZERO;
        private boolean complete = true;
    }

    private static void naive(
            Bom bom, int part, Optional<BigDecimal> times, Map<Integer, BigDecimal> needed, Set<Integer> partly) {
        if (part != 0 && bom.part(part).comes().isWhole()) return;
        for (BomLine line : bom.lines(part)) {
            Optional<BigDecimal> quantity =
                    times.flatMap(t -> bom.quantity(line).map(q -> q.multiply(t)));
            quantity.ifPresent(q -> needed.merge(line.part(), q, BigDecimal::add));
            if (quantity.isEmpty()) partly.add(line.part());
            naive(bom, line.part(), quantity, needed, partly);
        }
    }

    private static void naiveMass(Bom bom, int part, BigDecimal times, Value value) {
        List<BomLine> lines = bom.lines(part);
        if (lines.isEmpty() || (part != 0 && bom.part(part).comes().isWhole())) {
            Optional<BigDecimal> own = bom.part(part).weighs();
            if (own.isEmpty()) value.complete = false;
            own.ifPresent(o -> value.sum = value.sum.add(o.multiply(times)));
            return;
        }
        for (BomLine line : lines) {
            Optional<BigDecimal> quantity = bom.quantity(line);
            if (quantity.isEmpty()) value.complete = false;
            else naiveMass(bom, line.part(), times.multiply(quantity.get()), value);
        }
    }
}
