package mintshelf.core.base;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Map;
import mintshelf.core.base.Plan.Row;
import org.junit.jupiter.api.Test;

class PlanTest {
    private static final Refusal HELD = Refusal.of("held", "It is held.", "Ask for it.");
    private static final Refusal EMPTY = Refusal.of("facts", "Not filled: Material.", "Fill it.");

    @Test
    void itOpensWhenSomethingGoesAndNothingThatShouldCannot() {
        assertThat(new Plan<>(List.of(Row.asked("a", List.of()), Row.stays("b"))).opens())
                .isTrue();
        assertThat(new Plan<>(List.of(Row.asked("a", List.of()), Row.asked("b", List.of(HELD)))).opens())
                .isFalse();
        assertThat(new Plan<>(List.of(Row.stays("b"))).opens()).isFalse();
        assertThat(new Plan<String>(List.of()).opens()).isFalse();
    }

    @Test
    void whatIsInTheWayIsSaidOnceAndGroupedByWhatLiftsIt() {
        Plan<String> plan = new Plan<>(List.of(
                Row.asked("a", List.of(HELD, EMPTY)), Row.asked("b", List.of(HELD)), Row.asked("c", List.of())));
        assertThat(plan.refusals()).containsExactly(HELD, EMPTY);
        assertThat(plan.grouped()).isEqualTo(Map.of("Ask for it.", List.of("a", "b"), "Fill it.", List.of("a")));
        assertThat(plan.going()).containsExactly("c");
        assertThat(plan.sentence()).isEqualTo("1 goes, 2 cannot.");
    }

    @Test
    void theSentenceCounts() {
        assertThat(new Plan<String>(List.of()).sentence()).isEqualTo("Nothing is in it.");
        assertThat(new Plan<>(List.of(Row.asked(1, List.of()), Row.asked(2, List.of()), Row.stays(3))).sentence())
                .isEqualTo("2 go, 1 stays.");
    }
}
