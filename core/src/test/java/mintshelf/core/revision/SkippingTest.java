package mintshelf.core.revision;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import mintshelf.core.base.Outcome;
import mintshelf.core.base.Refusal;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/** Labels that skip ahead, and the steps that a series offers. */
class SkippingTest {
    private static Outcome<String> to(String series, List<String> used, String wanted) {
        return RevisionRules.skipTo(ShippedSeries.of(series), used, wanted);
    }

    @Test
    void aLaterLabelIsGivenAndAnEarlierOneIsNot() {
        assertThat(to("asme", List.of("A", "B"), "E")).isEqualTo(Outcome.granted("E"));
        assertThat(to("asme", List.of("A", "B"), " d ")).isEqualTo(Outcome.granted("D"));
        assertThat(to("asme", List.of(), "C")).isEqualTo(Outcome.granted("C"));
        for (String back : List.of("A", "B", "b")) {
            assertThat(to("asme", List.of("A", "B"), back).refusal().map(Refusal::code))
                    .as(back)
                    .contains("revision.back");
        }
        for (String none : List.of("I", "7", "", "A1", "ZZZ", "x".repeat(500))) {
            assertThat(to("asme", List.of("A"), none).refusal().map(Refusal::code))
                    .as(none)
                    .contains("revision.unknown");
        }
    }

    /** What was dropped outside the house, or used in another series, is not in the way of what comes. */
    @Test
    void labelsOfAnotherSeriesDoNotCount() {
        assertThat(to("numbers", List.of("A", "B"), "3")).isEqualTo(Outcome.granted("3"));
    }

    @ParameterizedTest
    @CsvSource({"asme, B, C", "two-part, A.3, A.4;B.1", "two-phase, 2, 3;A", "two-phase, B, C", "numbers, 4, 5"})
    void aSeriesOffersItsSteps(String series, String latest, String steps) {
        assertThat(RevisionRules.steps(ShippedSeries.of(series), List.of(latest)))
                .containsExactly(steps.split(";"));
    }

    @Test
    void aNewDocumentBeginsWithTheFirst() {
        assertThat(RevisionRules.steps(ShippedSeries.of("two-part"), List.of())).containsExactly("A.1");
    }

    /** However far one skips, what follows comes after it and nothing comes twice. */
    @ParameterizedTest
    @ValueSource(strings = {"asme", "letters", "numbers", "two-part", "two-phase"})
    void nothingComesTwice(String name) {
        RevisionSeries series = ShippedSeries.of(name);
        Random random = new Random(11);
        List<String> used = new ArrayList<>();
        for (int i = 0; i < 60; i++) {
            Outcome<String> next = RevisionRules.nextLabel(series, used);
            if (!(next instanceof Outcome.Granted<String> granted)) break;
            long at = series.position(granted.value()).orElseThrow() + random.nextInt(4);
            String wanted = series.label(at).orElse(granted.value());
            assertThat(RevisionRules.skipTo(series, used, wanted)).isEqualTo(Outcome.granted(wanted));
            assertThat(used).doesNotContain(wanted);
            used.add(wanted);
        }
        assertThat(used).hasSizeGreaterThan(20);
    }
}
