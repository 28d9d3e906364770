package mintshelf.core.numbering;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class RangeRulesTest {
    @ParameterizedTest
    @CsvSource({"1, true", "1000, true", "0, false", "-3, false", "1001, false", "2147483647, false"})
    void aRangeHasAtLeastOneNumberAndAtMostAThousand(int count, boolean fits) {
        assertThat(RangeRules.ask(count).isEmpty()).isEqualTo(fits);
    }

    @Test
    void whatIsReservedForSomebodyIsTheirs() {
        assertThat(RangeRules.use("D-7", Optional.of(4L), "Tomasz", 4)).isEmpty();
        assertThat(RangeRules.use("D-7", Optional.empty(), "", 5)).isEmpty();
        assertThat(RangeRules.use("D-7", Optional.of(4L), "Tomasz", 5)
                        .orElseThrow()
                        .reason())
                .isEqualTo("D-7 is reserved for Tomasz.");
    }
}
