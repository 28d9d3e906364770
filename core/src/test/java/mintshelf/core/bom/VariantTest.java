package mintshelf.core.bom;

import static org.assertj.core.api.Assertions.assertThat;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import mintshelf.core.base.Refusal;
import org.junit.jupiter.api.Test;

class VariantTest {
    private static final Variant LEFT = new Variant("left", "P-1L", Map.of("mass", "0.41"));
    private static final Variant RIGHT = new Variant("right", "P-1R", Map.of());

    @Test
    void itIsTheDocumentButForWhatDiffers() {
        assertThat(LEFT.over(Map.of("mass", "0.5", "cost", "3"))).isEqualTo(Map.of("mass", "0.41", "cost", "3"));
        assertThat(RIGHT.over(Map.of("mass", "0.5"))).isEqualTo(Map.of("mass", "0.5"));
    }

    @Test
    void aRevisionSaysOfEachWhetherItChanged() {
        Variant heavier = new Variant("Left", "P-1L", Map.of("mass", "0.43", "cost", "9"));
        Variant wide = new Variant("wide", "", Map.of());
        assertThat(Variant.changes(List.of(LEFT, RIGHT), List.of(heavier, wide)))
                .containsExactly("Left: cost as the document says → 9, mass 0.41 → 0.43", "wide: new", "right: gone");
        assertThat(Variant.changes(List.of(LEFT, RIGHT), List.of(RIGHT, LEFT))).isEmpty();
        assertThat(Variant.changes(List.of(), List.of())).isEmpty();
    }

    @Test
    void namesAndNumbersAreOfOneEach() {
        assertThat(Variant.refusal(List.of(LEFT, RIGHT))).isEmpty();
        assertThat(code(List.of(LEFT, new Variant("LEFT", "", Map.of())))).isEqualTo("variant.name");
        assertThat(code(List.of(LEFT, new Variant("other", "p-1l", Map.of())))).isEqualTo("variant.number");
        List<Variant> many = new ArrayList<>();
        for (int i = 0; i <= Variant.MOST; i++) many.add(new Variant("v" + i, "", Map.of()));
        assertThat(code(many)).isEqualTo("variant.many");
        assertThat(Variant.name(" ").isGranted()).isFalse();
        assertThat(Variant.name("x".repeat(41)).isGranted()).isFalse();
    }

    private static String code(List<Variant> variants) {
        return Variant.refusal(variants).map(Refusal::code).orElse("");
    }

    @Test
    void twoVariantsOfOneDocumentAreTwoPartsOfABom() {
        PartFacts facts = PartFacts.of(List.of(), Map.of());
        BomPart top = facts.part(1, "", "T", "top", "A", 1, Map.of());
        BomPart left = facts.part(2, "left", "P-1L", "part", "A", 1, LEFT.over(Map.of("mass", "0.5")));
        BomPart right = facts.part(2, "right", "P-1R", "part", "A", 1, RIGHT.over(Map.of("mass", "0.5")));
        Bom old = Bom.of(List.of(top, left), List.of(List.of(line("1", 1, 4)), List.of()));
        Bom now = Bom.of(
                List.of(top, left, right), List.of(List.of(line("1", 1, 2), line("2", 2, 2)), List.of(), List.of()));
        assertThat(RollUp.of(now, RollUp.Of.MASS).top().known()).isEqualByComparingTo("1.82");
        assertThat(now.flat(Bom.For.ENGINEERING)).hasSize(2);
        BomCompare.Result compared = BomCompare.of(old, now);
        assertThat(compared.differences())
                .extracting(BomCompare.Difference::what)
                .containsExactly(BomCompare.What.CHANGED, BomCompare.What.ADDED);
        assertThat(compared.mass()).isEqualByComparingTo("0.18");
    }

    private static BomLine line(String find, int part, int quantity) {
        return new BomLine(find, part, BigDecimal.valueOf(quantity), "pc", false);
    }

    @Test
    void costsInOtherCurrenciesAreTurnedByTheRatesOfTheHouseOrSayThatThereIsNone() {
        PartFacts facts = PartFacts.of(List.of(), Map.of("DKK", new BigDecimal("0.134")));
        assertThat(facts.part(1, "", "A", "", "", 1, Map.of("cost", "100", "currency", "DKK"))
                        .cost()
                        .own()
                        .orElseThrow())
                .isEqualByComparingTo("13.4");
        BomPart other = facts.part(1, "", "A", "", "", 1, Map.of("cost", "100", "currency", "NOK"));
        assertThat(other.cost().own()).isEmpty();
        RollUp cost = RollUp.of(Bom.of(List.of(other), List.of(List.of())), RollUp.Of.COST);
        assertThat(cost.lacking())
                .extracting(RollUp.Lack::why)
                .containsExactly("its cost is in NOK, of which the house has no rate");
        assertThat(facts.part(1, "", "A", "", "", 1, Map.of("currency", "NOK")).cost())
                .isEqualTo(Worth.of(Optional.empty()));
    }
}
