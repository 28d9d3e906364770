package mintshelf.core.fact;

import static org.assertj.core.api.Assertions.assertThat;

import java.math.BigDecimal;
import java.time.LocalDate;
import java.util.List;
import java.util.Optional;
import mintshelf.core.base.Outcome;
import org.junit.jupiter.api.Test;

class FactReaderTest {
    private static FactDefinition fact(FactType type, String unit, String pattern, String... choices) {
        return new FactDefinition(
                1, "x", "X", new FactForm(type, unit, pattern, List.of(choices), "", ""), FactUse.USUAL);
    }

    private static Optional<FactValue> value(FactDefinition fact, String raw) {
        return ((Outcome.Granted<Optional<FactValue>>) FactReader.read(fact, raw, FactLookup.AS_SAID)).value();
    }

    @Test
    void anEmptyTextIsNoValue() {
        for (FactType type : FactType.values())
            assertThat(value(fact(type, "", ""), "  ")).isEmpty();
    }

    @Test
    void numbersTakeADecimalCommaAndTheirOwnUnit() {
        FactDefinition mass = fact(FactType.NUMBER, "kg", "");
        assertThat(value(mass, "0,61")).contains(new FactValue.Quantity(new BigDecimal("0.61")));
        assertThat(value(mass, "0.61 kg")).contains(new FactValue.Quantity(new BigDecimal("0.61")));
        assertThat(FactReader.read(mass, "1,000.5", FactLookup.AS_SAID).isGranted())
                .isFalse();
        assertThat(FactReader.read(mass, "1e400", FactLookup.AS_SAID).isGranted())
                .isFalse();
        assertThat(FactReader.read(mass, "NaN", FactLookup.AS_SAID).isGranted()).isFalse();
    }

    @Test
    void theOtherTypesAreChecked() {
        assertThat(value(fact(FactType.DATE, "", ""), "2026-11-23"))
                .contains(new FactValue.Day(LocalDate.of(2026, 11, 23)));
        assertThat(FactReader.read(fact(FactType.DATE, "", ""), "2026-02-30", FactLookup.AS_SAID)
                        .isGranted())
                .isFalse();
        assertThat(value(fact(FactType.YES_NO, "", ""), "Yes")).contains(new FactValue.Words("yes"));
        assertThat(value(fact(FactType.CHOICE, "", "", "A3", "A4"), "a3")).contains(new FactValue.Words("A3"));
        assertThat(FactReader.read(fact(FactType.CHOICE, "", "", "A3"), "A7", FactLookup.AS_SAID)
                        .refusal()
                        .orElseThrow()
                        .code())
                .isEqualTo("fact.form");
        assertThat(FactReader.read(fact(FactType.TEXT, "", "\\d+:\\d+"), "1/2", FactLookup.AS_SAID)
                        .isGranted())
                .isFalse();
        assertThat(FactReader.read(fact(FactType.TEXT, "", ""), "x".repeat(501), FactLookup.AS_SAID)
                        .isGranted())
                .isFalse();
    }
}
