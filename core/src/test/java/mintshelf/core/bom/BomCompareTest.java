package mintshelf.core.bom;

import static org.assertj.core.api.Assertions.assertThat;

import java.math.BigDecimal;
import java.util.List;
import java.util.Optional;
import mintshelf.core.bom.BomCompare.Difference;
import mintshelf.core.bom.BomCompare.Result;
import mintshelf.core.bom.BomCompare.What;
import org.junit.jupiter.api.Test;

class BomCompareTest {
    private static Boms base() {
        return Boms.of("head")
                .part("lid", "A", Comes.MADE, "pc", "0.7", "60")
                .part("box", "A", Comes.MADE, "pc", "", "")
                .part("screw", Comes.LIBRARY, "pc", "0.01", "0.1")
                .part("ring", Comes.LIBRARY, "pc", "0.02", "1");
    }

    private static final Bom OLD = base().line("head", "lid", "1", "pc")
            .line("head", "box", "1", "pc")
            .line("head", "screw", "6", "pc")
            .line("box", "ring", "2", "pc")
            .bom();

    private static List<String> said(Result result) {
        return result.differences().stream()
                .map(d -> d.what() + " " + d.part().number() + " " + String.join(", ", d.says()))
                .map(String::strip)
                .toList();
    }

    private static Bom of(BomPart part, String quantity) {
        BomPart top = new BomPart(1, "top", "", "", 0, Comes.MADE, "pc", Optional.empty(), Optional.empty());
        return Bom.of(
                List.of(top, part),
                List.of(List.of(new BomLine("1", 1, new BigDecimal(quantity), "pc", false)), List.of()));
    }

    @Test
    void differencesAreNamedTheFirstOfThemAndHowManyMoreThereAre() {
        BomPart plain = new BomPart(2, "G-1", "Gusset", "", 0, Comes.MADE, "pc", Optional.empty(), Optional.empty());
        BomPart left = plain.lacking("left", "");
        assertThat(BomCompare.of(of(plain, "4"), of(plain, "6")).named(5)).isEqualTo("G-1 4 pc → 6 pc");
        assertThat(BomCompare.of(of(plain, "4"), of(left, "3")).named(5))
                .as("a variant is a part of its own")
                .contains("G-1, left");
        assertThat(BomCompare.of(of(plain, "4"), of(plain, "4")).named(5)).isEmpty();
        Bom none = Bom.of(List.of(of(plain, "4").top()), List.of(List.of()));
        assertThat(BomCompare.of(none, of(left, "3")).named(5)).isEqualTo("G-1, left added (3 pc)");
        assertThat(BomCompare.of(of(plain, "4"), none).named(5)).isEqualTo("G-1 gone");
    }

    @Test
    void nothingDiffersFromItself() {
        for (long seed = 0; seed < 200; seed++) {
            Bom bom = Boms.random(seed);
            assertThat(BomCompare.of(bom, bom).differences())
                    .as("seed %d", seed)
                    .isEmpty();
        }
    }

    @Test
    void addedAndGoneAreTheSameTurnedRound() {
        for (long seed = 0; seed < 300; seed++) {
            Bom one = Boms.random(seed);
            Bom other = Boms.random(seed + 1);
            Result there = BomCompare.of(one, other);
            Result back = BomCompare.of(other, one);
            assertThat(there.count(What.ADDED)).as("seed %d", seed).isEqualTo(back.count(What.GONE));
            assertThat(there.count(What.EXCHANGED)).as("seed %d", seed).isEqualTo(back.count(What.EXCHANGED));
            assertThat(there.count(What.CHANGED)).as("seed %d", seed).isEqualTo(back.count(What.CHANGED));
            assertThat(there.mass())
                    .as("seed %d", seed)
                    .isEqualByComparingTo(back.mass().negate());
        }
    }

    @Test
    void quantitiesRevisionsAndFindNumbersAreToldWithWhatTheyWeighAndCost() {
        Bom now = Boms.of("head")
                .part("lid", "B", Comes.MADE, "pc", "0.75", "")
                .part("box", "A", Comes.MADE, "pc", "", "")
                .part("screw", Comes.LIBRARY, "pc", "0.01", "0.1")
                .part("ring", Comes.LIBRARY, "pc", "0.02", "1")
                .line("head", "lid", "1", "pc")
                .line("head", "box", "1", "pc")
                .line("head", "screw", "8", "pc", "9")
                .line("box", "ring", "2", "pc")
                .bom();
        Result result = BomCompare.of(OLD, now);
        assertThat(said(result))
                .containsExactlyInAnyOrder("CHANGED lid A → B", "CHANGED screw 6 pc → 8 pc, find 3 → 9");
        assertThat(result.mass()).isEqualByComparingTo("0.07");
        assertThat(result.unknownMass()).isZero();
        assertThat(result.unknownCost()).isEqualTo(1);
        Difference screws = result.differences().stream()
                .filter(d -> d.part().number().equals("screw"))
                .findFirst()
                .orElseThrow();
        assertThat(screws.mass().orElseThrow()).isEqualByComparingTo("0.02");
        assertThat(screws.cost().orElseThrow()).isEqualByComparingTo("0.2");
    }

    @Test
    void whatWentElsewhereHasMovedWhatTookItsFindNumberWasExchanged() {
        Bom moved = base().line("head", "lid", "1", "pc")
                .line("head", "box", "1", "pc")
                .line("box", "screw", "6", "pc", "4")
                .line("box", "ring", "2", "pc", "1")
                .bom();
        assertThat(said(BomCompare.of(OLD, moved))).containsExactly("MOVED screw from 3");
        Bom exchanged = base().part("bolt", Comes.LIBRARY, "pc", "0.03", "0.2")
                .line("head", "lid", "1", "pc")
                .line("head", "box", "1", "pc")
                .line("head", "bolt", "6", "pc")
                .line("box", "ring", "2", "pc")
                .bom();
        Result result = BomCompare.of(OLD, exchanged);
        assertThat(said(result)).containsExactly("EXCHANGED bolt was screw");
        assertThat(result.mass()).isEqualByComparingTo("0.12");
    }

    @Test
    void ofAnAssemblyThatIsNewOrGoneWhatIsInItIsNotToldAsWell() {
        Boms more = base().part("arm", Comes.MADE, "pc", "", "").part("bolt", Comes.LIBRARY, "pc", "0.03", "0.2");
        Bom now = more.line("head", "lid", "1", "pc")
                .line("head", "box", "1", "pc")
                .line("head", "screw", "6", "pc")
                .line("head", "arm", "1", "pc")
                .line("box", "ring", "2", "pc")
                .line("arm", "bolt", "3", "pc")
                .bom();
        assertThat(said(BomCompare.of(OLD, now))).containsExactly("ADDED arm");
        assertThat(said(BomCompare.of(now, OLD))).containsExactly("GONE arm");
        assertThat(BomCompare.of(OLD, now).differences().get(0).mass().orElseThrow())
                .isEqualByComparingTo("0.09");
    }

    @Test
    void anEarlierVersionOfWhatIsOnTopIsNotADifferenceOfItsOwn() {
        Bom a = Boms.of("head")
                .part("lid", Comes.MADE, "pc", "1", "1")
                .line("head", "lid", "1", "pc")
                .bom();
        Bom b = Boms.of("other head")
                .part("lid", Comes.MADE, "pc", "1", "1")
                .line("other head", "lid", "1", "pc")
                .bom();
        assertThat(BomCompare.of(a, b).differences()).isEmpty();
    }
}
