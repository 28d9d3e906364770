package mintshelf.core.reuse;

import static org.assertj.core.api.Assertions.assertThat;

import mintshelf.core.base.Outcome;
import mintshelf.core.base.Refusal;
import org.junit.jupiter.api.Test;

/** Numbers of one design become those of another. */
class NumberRuleTest {
    private static NumberRule rule(String from, String to) {
        return NumberRule.of(from, to).orElseThrow(r -> new IllegalStateException(r.says()));
    }

    private static String code(String from, String to) {
        return NumberRule.of(from, to).refusal().map(Refusal::code).orElse("");
    }

    @Test
    void figuresGoAlongAndWhatStandsAroundThemIsExchanged() {
        NumberRule rule = rule("TG40-####", "TG41-####");
        assertThat(rule.apply("TG40-3010")).contains("TG41-3010");
        assertThat(rule.apply("tg40-3010")).contains("TG41-3010");
        assertThat(rule.apply("TG40-30105")).isEmpty();
        assertThat(rule.apply("TG40-301")).isEmpty();
        assertThat(rule.apply("XTG40-3010")).isEmpty();
        assertThat(rule.apply("TG40-30A0")).isEmpty();
        assertThat(rule("P.#-##", "Q#.##").apply("PX1-23")).isEmpty();
        assertThat(rule("P.#-##", "Q#.##").apply("P.1-23")).contains("Q1.23");
    }

    @Test
    void aStarIsTheRestOfANumber() {
        NumberRule rule = rule("TG40-3*", "TG41-7*");
        assertThat(rule.apply("TG40-3")).contains("TG41-7");
        assertThat(rule.apply("TG40-3010-left")).contains("TG41-7010-left");
        assertThat(rule.apply("TG40-4010")).isEmpty();
    }

    @Test
    void aRuleThatSaysNothingOrMakesOneOfTwoIsRefused() {
        assertThat(code("", "TG41-####")).isEqualTo("rule.empty");
        assertThat(code("TG40-####", " ")).isEqualTo("rule.empty");
        assertThat(code("TG40-####", "TG41-###")).isEqualTo("rule.signs");
        assertThat(code("TG40-####", "TG41-3000")).isEqualTo("rule.signs");
        assertThat(code("TG*-#", "TH*-#")).isEqualTo("rule.rest");
        assertThat(code("TG40-####", "tg40-####")).isEqualTo("rule.same");
        assertThat(code("TG40\u2011####", "TG40-####")).isEqualTo("rule.same");
        assertThat(code("T".repeat(61), "U")).isEqualTo("rule.long");
        assertThat(NumberRule.of("A#", "B#") instanceof Outcome.Granted).isTrue();
    }

    @Test
    void aRuleIsProposedThatFitsTheTop() {
        assertThat(NumberRule.like("TG40-3000")).isEqualTo("TG40-####");
        assertThat(NumberRule.like("ISO 3601 40 x 2")).isEqualTo("ISO 3601 40 x #");
        assertThat(NumberRule.like("3000-B")).isEqualTo("####-B");
        assertThat(NumberRule.like("float")).isEqualTo("float*");
        assertThat(rule("float*", "buoy*").apply("float")).contains("buoy");
    }

    @Test
    void theNextOnesAreAsWideAsTheNumberAndEndWhereItsFiguresEnd() {
        assertThat(NumberRule.after("TG41-3050", 2)).containsExactly("TG41-3051", "TG41-3052");
        assertThat(NumberRule.after("TG41-0009-B", 1)).containsExactly("TG41-0010-B");
        assertThat(NumberRule.after("TG41-98", 5)).containsExactly("TG41-99");
        assertThat(NumberRule.after("float", 3)).isEmpty();
        assertThat(NumberRule.after("9".repeat(40), 3)).isEmpty();
    }

    @Test
    void fileNamesFollow() {
        assertThat(NumberRule.fileName("tg40-3010-housing.dxf", "TG40-3010", "TG41-3010"))
                .isEqualTo("tg41-3010-housing.dxf");
        assertThat(NumberRule.fileName("TG40-3010.STP", "TG40-3010", "TG41-3010"))
                .isEqualTo("TG41-3010.stp");
        assertThat(NumberRule.fileName("tg40_3010 housing.dxf", "TG40-3010", "TG41-3010"))
                .isEqualTo("tg41_3010 housing.dxf");
        assertThat(NumberRule.fileName("housing.dxf", "TG40-3010", "TG41-3010")).isEqualTo("TG41-3010.dxf");
        assertThat(NumberRule.fileName("no ending", "X", "Y")).isEqualTo("Y");
        // Signs of patterns in a number are signs.
        assertThat(NumberRule.fileName("a+b(1).dxf", "A+B(1)", "C$1")).isEqualTo("c$1.dxf");
        assertThat(NumberRule.fileName("3010.dxf", "3010", "4010")).isEqualTo("4010.dxf");
    }
}
