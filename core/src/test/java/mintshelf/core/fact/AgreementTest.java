package mintshelf.core.fact;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Map;
import mintshelf.core.fact.Agreement.Side;
import org.junit.jupiter.api.Test;

class AgreementTest {
    private static final FactDefinition MASS = fact("mass", FactType.NUMBER);
    private static final FactDefinition MATERIAL = fact("material", FactType.TEXT);
    private static final FactDefinition COST = fact("cost", FactType.NUMBER);

    private static FactDefinition fact(String name, FactType type) {
        return new FactDefinition(name.length(), name, name, FactForm.of(type), FactUse.USUAL);
    }

    private static List<String> says(Map<FactDefinition, String> drawing, Map<FactDefinition, String> model) {
        return Agreement.of(List.of(new Side("drawing", drawing), new Side("model", model))).stream()
                .map(a -> a.fact().name() + (a.agrees() ? " = " : " # ") + a.said())
                .toList();
    }

    @Test
    void onlyWhatMoreThanOneSaysIsHeldAgainstEachOther() {
        assertThat(says(Map.of(MASS, "1", MATERIAL, ""), Map.of(MATERIAL, "316L", COST, "4")))
                .isEmpty();
        assertThat(Agreement.of(List.of())).isEmpty();
    }

    @Test
    void wordsAgreeWhateverTheirCaseAndSpaces() {
        assertThat(says(Map.of(MATERIAL, "316l"), Map.of(MATERIAL, "316L")))
                .containsExactly("material = {drawing=316l, model=316L}");
        assertThat(says(Map.of(MATERIAL, "316L"), Map.of(MATERIAL, "1.4404")))
                .containsExactly("material # {drawing=316L, model=1.4404}");
    }

    @Test
    void aRoundedNumberContradictsNoFinerOne() {
        assertThat(says(Map.of(MASS, "0.74"), Map.of(MASS, "0.7384")))
                .first()
                .asString()
                .contains(" = ");
        assertThat(says(Map.of(MASS, "0.74"), Map.of(MASS, "0.7449")))
                .first()
                .asString()
                .contains(" = ");
        assertThat(says(Map.of(MASS, "0.74"), Map.of(MASS, "0.7451")))
                .first()
                .asString()
                .contains(" # ");
        assertThat(says(Map.of(MASS, "2.50"), Map.of(MASS, "2.5")))
                .first()
                .asString()
                .contains(" = ");
        assertThat(says(Map.of(MASS, "1e400"), Map.of(MASS, "x")))
                .first()
                .asString()
                .contains(" # ");
    }

    @Test
    void threeAgreeOnlyIfEachTwoDo() {
        List<Agreement> all = Agreement.of(List.of(
                new Side("drawing", Map.of(MASS, "0.7")),
                new Side("model", Map.of(MASS, "0.74")),
                new Side("part", Map.of(MASS, "0.66"))));
        assertThat(all).hasSize(1);
        assertThat(all.get(0).agrees()).isFalse();
        assertThat(all.get(0).said().keySet()).containsExactly("drawing", "model", "part");
    }

    @Test
    void aPowerOfTenThatNobodyWritesOutIsTakenAsItStands() {
        assertThat(Agreement.sameNumber("1e-999999999", "0")).isFalse();
        assertThat(Agreement.sameNumber("1e9", "1e9")).isTrue();
        assertThat(Agreement.sameNumber("about 3", "3")).isFalse();
        assertThat(Agreement.sameNumber("0.74", "0.735")).isTrue();
        assertThat(Agreement.sameNumber("-0.7", "+0.7")).isFalse();
    }
}
