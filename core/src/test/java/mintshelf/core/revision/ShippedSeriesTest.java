package mintshelf.core.revision;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.ArrayList;
import java.util.List;
import mintshelf.core.base.Outcome;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

class ShippedSeriesTest {
    private static List<String> first(RevisionSeries series, int n) {
        List<String> labels = new ArrayList<>();
        for (int i = 0; i < n; i++) labels.add(series.label(i).orElseThrow());
        return labels;
    }

    private static String next(RevisionSeries series, String label) {
        return series.next(label) instanceof Outcome.Granted<String> g ? g.value() : "none";
    }

    @Test
    void asmeLeavesOutTheLettersThatAreMisread() {
        RevisionSeries asme = ShippedSeries.of("asme");
        assertThat(first(asme, 20))
                .containsExactly(
                        "A", "B", "C", "D", "E", "F", "G", "H", "J", "K", "L", "M", "N", "P", "R", "T", "U", "V", "W",
                        "Y");
        for (String never : List.of("I", "O", "Q", "S", "X", "Z", "AI", "1", "", "A1")) {
            assertThat(asme.accepts(never)).as(never).isFalse();
        }
    }

    @Test
    void asmeGoesOnWithPairsAndEndsWithYy() {
        RevisionSeries asme = ShippedSeries.of("asme");
        assertThat(next(asme, "Y")).isEqualTo("AA");
        assertThat(next(asme, "AA")).isEqualTo("AB");
        assertThat(next(asme, "AY")).isEqualTo("BA");
        assertThat(asme.position("YY")).contains(20L + 400 - 1);
        assertThat(asme.next("YY").refusal().orElseThrow().code()).isEqualTo("revision.end");
    }

    @Test
    void theDashOfAnOriginalComesBeforeA() {
        RevisionSeries dash = ShippedSeries.of("asme dash");
        assertThat(first(dash, 3)).containsExactly("-", "A", "B");
        assertThat(dash.compare("-", "A")).isNegative();
        assertThat(ShippedSeries.of("asme").accepts("-")).isFalse();
    }

    @Test
    void allLettersUseAllOfThem() {
        RevisionSeries letters = ShippedSeries.of("letters");
        assertThat(letters.label(8)).contains("I");
        assertThat(next(letters, "Z")).isEqualTo("AA");
        assertThat(next(letters, "ZZ")).isEqualTo("AAA");
    }

    @Test
    void numbersCountFromTheirStartAtTheirWidth() {
        assertThat(first(ShippedSeries.of("numbers"), 3)).containsExactly("1", "2", "3");
        RevisionSeries padded = ShippedSeries.of("padded 2 0");
        assertThat(first(padded, 3)).containsExactly("00", "01", "02");
        assertThat(next(padded, "99")).isEqualTo("100");
        assertThat(padded.accepts("1")).isFalse();
        assertThat(padded.accepts("001")).isFalse();
        assertThat(ShippedSeries.of("padded 3 10").first()).isEqualTo("010");
        assertThat(ShippedSeries.of("padded 3 10").accepts("009")).isFalse();
    }

    @Test
    void twoPartsStepTheNumberAndOnRequestTheLetter() {
        TwoPart two = new TwoPart();
        assertThat(first(two, 2)).containsExactly("A.1", "A.2");
        assertThat(next(two, "A.9")).isEqualTo("A.10");
        assertThat(two.nextMajor("A.7")).isEqualTo(Outcome.granted("B.1"));
        assertThat(two.compare("A.10", "A.9")).isPositive();
        assertThat(two.compare("B.1", "A.99")).isPositive();
        assertThat(two.accepts("I.1")).isFalse();
        assertThat(two.accepts("A.0")).isFalse();
    }

    @Test
    void twoPhasesGoFromNumbersToLettersOnce() {
        TwoPhase two = new TwoPhase();
        assertThat(first(two, 2)).containsExactly("1", "2");
        assertThat(two.toProduction("4")).isEqualTo(Outcome.granted("A"));
        assertThat(two.toProduction("B").refusal().orElseThrow().code()).isEqualTo("revision.phase");
        assertThat(next(two, "A")).isEqualTo("B");
        assertThat(two.compare("999", "A")).isNegative();
    }

    @Test
    void aListOfOnesOwnEndsWithItsLastLabel() {
        RevisionSeries own = ShippedSeries.of("list P1|P2|C1");
        assertThat(next(own, "P2")).isEqualTo("C1");
        assertThat(own.next("C1").isGranted()).isFalse();
        assertThat(own.next("X").refusal().orElseThrow().code()).isEqualTo("revision.unknown");
        assertThatThrownBy(() -> ShippedSeries.of("list A|A")).isInstanceOf(IllegalArgumentException.class);
    }

    @ParameterizedTest
    @ValueSource(
            strings = {"asme", "asme dash", "letters", "numbers", "padded 2 0", "two-part", "two-phase", "list A|B|C"})
    void labelAndPositionAreInverseAndNextIsTheNextPosition(String text) {
        RevisionSeries series = ShippedSeries.of(text);
        for (long i = 0; i < 500 && series.label(i).isPresent(); i++) {
            String label = series.label(i).orElseThrow();
            assertThat(series.position(label)).contains(i);
            if (i > 0)
                assertThat(series.compare(series.label(i - 1).orElseThrow(), label))
                        .isNegative();
            if (series.label(i + 1).isPresent())
                assertThat(next(series, label)).isEqualTo(series.label(i + 1).orElseThrow());
        }
    }

    @Test
    void theNextLabelComesAfterTheLatestThatWasUsed() {
        RevisionSeries asme = ShippedSeries.of("asme");
        assertThat(RevisionRules.nextLabel(asme, List.of())).isEqualTo(Outcome.granted("A"));
        assertThat(RevisionRules.nextLabel(asme, List.of("B", "A"))).isEqualTo(Outcome.granted("C"));
        assertThat(RevisionRules.nextLabel(asme, List.of("imported-7"))).isEqualTo(Outcome.granted("A"));
    }
}
