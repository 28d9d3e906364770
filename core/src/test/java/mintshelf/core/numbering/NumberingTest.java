package mintshelf.core.numbering;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Map;
import java.util.OptionalLong;
import mintshelf.core.base.Outcome;
import org.junit.jupiter.api.Test;

class NumberingTest {
    private static NumberKey key(String raw) {
        return ((Outcome.Granted<NumberKey>) NumberKey.of(raw)).value();
    }

    private static NumberPattern pattern(String text) {
        return ((Outcome.Granted<NumberPattern>) NumberPattern.parse(text)).value();
    }

    @Test
    void numbersCompareWithoutCaseAndWithOneHyphen() {
        assertThat(key("tg40\u20133030").key()).isEqualTo(key("TG40-3030").key());
        assertThat(key(" TG40-3030 ").number()).isEqualTo("TG40-3030");
        assertThat(key("\u2163-1").key()).isEqualTo(key("IV-1").key());
        assertThat(key("TG\u00ad40").key()).isEqualTo(key("TG40").key());
    }

    @Test
    void aSortKeyPutsTwoBeforeTen() {
        assertThat(key("TG40-2").sort()).isLessThan(key("TG40-10").sort());
    }

    @Test
    void whatNoFileNameTakesIsNoNumber() {
        for (String bad : new String[] {"", "  ", "a/b", "..", "a\\b", "a:b", "x".repeat(61)}) {
            assertThat(NumberKey.of(bad).isGranted()).as(bad).isFalse();
        }
    }

    @Test
    void checkCharactersFollowIso7064() {
        // The standard's own examples: 0794 with MOD 11-2 has check character 0, 079 has X.
        assertThat(CheckCharacter.MOD_11_2.of("0794")).isEqualTo('0');
        assertThat(CheckCharacter.MOD_11_2.of("079")).isEqualTo('X');
        assertThat(CheckCharacter.MOD_37_2.of("G123489654321")).isEqualTo('Y');
        assertThat(CheckCharacter.MOD_11_2.fits("07940")).isTrue();
        assertThat(CheckCharacter.MOD_11_2.fits("07490")).isFalse();
    }

    @Test
    void aPatternRendersAndReadsItsOwnNumbers() {
        NumberPattern p = pattern("CO {yy}-{n:3}");
        assertThat(p.render(7, 2026, Map.of())).isEqualTo(Outcome.granted("CO 26-007"));
        assertThat(p.counterIn("co 26-019", 2026, Map.of())).isEqualTo(OptionalLong.of(19));
        assertThat(p.counterIn("CO 25-019", 2026, Map.of())).isEmpty();
        assertThat(p.counterIn("CO 26-1234", 2026, Map.of())).isEqualTo(OptionalLong.of(1234));
        assertThat(p.counterIn("CO 26-0019", 2026, Map.of())).isEmpty();
    }

    @Test
    void stepsFactsAndCheckCharactersHaveTheirPlace() {
        assertThat(pattern("TG40-{n:4:10}").render(303, 2026, Map.of())).isEqualTo(Outcome.granted("TG40-3030"));
        assertThat(pattern("TG40-{n:4:10}").counterIn("TG40-3035", 2026, Map.of()))
                .isEmpty();
        assertThat(pattern("{material}-{n:2}").render(4, 2026, Map.of("material", "316L")))
                .isEqualTo(Outcome.granted("316L-04"));
        assertThat(pattern("{material}-{n:2}")
                        .render(4, 2026, Map.of())
                        .refusal()
                        .orElseThrow()
                        .code())
                .isEqualTo("series.fact");
        assertThat(pattern("{n:4}{check}").render(794, 2026, Map.of())).isEqualTo(Outcome.granted("07940"));
        assertThat(pattern("{n:4}{check}").counterIn("07941", 2026, Map.of())).isEmpty();
    }

    @Test
    void aPatternNeedsOneCounterAndClosedBraces() {
        assertThat(NumberPattern.parse("TG40").refusal().orElseThrow().code()).isEqualTo("series.counter");
        assertThat(NumberPattern.parse("{n:2}{n:2}").isGranted()).isFalse();
        assertThat(NumberPattern.parse("{n:2}{").isGranted()).isFalse();
    }

    @Test
    void numbersThatShareTheirFixedPartsShareACounter() {
        assertThat(pattern("CO {yy}-{n:3}").scopeKey(2026, Map.of())).isEqualTo(Outcome.granted("CO 26-#"));
    }
}
