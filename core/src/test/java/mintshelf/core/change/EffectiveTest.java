package mintshelf.core.change;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Optional;
import mintshelf.core.base.Outcome;
import mintshelf.core.base.Refusal;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class EffectiveTest {
    @ParameterizedTest
    @CsvSource({"DATE, 2026-12-01, from 1 Dec 2026", "SERIAL, 0152, from serial 0152", "LOT, L 26/48, from lot L 26/48"
    })
    void itCountsFromADayASerialNumberOrALot(String by, String from, String words) {
        assertThat(Effective.of(by, from).map(e -> e.orElseThrow().words())).isEqualTo(Outcome.granted(words));
    }

    @Test
    void nothingSaidIsWithTheRelease() {
        assertThat(Effective.of("", " ")).isEqualTo(Outcome.granted(Optional.empty()));
    }

    @ParameterizedTest
    @CsvSource({
        "'', 0152, effective.by",
        "WEEK, 48, effective.by",
        "DATE, 31 Nov, effective.day",
        "DATE, 2026-02-30, effective.day",
        "SERIAL, '', text.missing"
    })
    void whatIsNoDayAndNoNumberIsRefused(String by, String from, String code) {
        assertThat(Effective.of(by, from).refusal().map(Refusal::code)).contains(code);
    }
}
