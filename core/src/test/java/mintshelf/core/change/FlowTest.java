package mintshelf.core.change;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import mintshelf.core.change.Flow.Share;
import mintshelf.core.change.Flow.Span;
import mintshelf.core.change.Flow.Took;
import mintshelf.core.change.Flow.Week;
import org.junit.jupiter.api.Test;

class FlowTest {
    /** A Thursday. */
    private static final LocalDate TODAY = LocalDate.parse("2026-11-26");

    private static Span span(PaperType type, String entered, String left, String cause) {
        return new Span(
                type,
                LocalDate.parse(entered),
                left.isEmpty() ? Optional.empty() : Optional.of(LocalDate.parse(left)),
                cause,
                "TG40");
    }

    @Test
    void weeksCountWhatEnteredLeftAndWaits() {
        Flow flow = Flow.of(
                List.of(
                        span(PaperType.REQUEST, "2026-10-01", "", "FIELD"),
                        span(PaperType.REQUEST, "2026-10-01", "2026-10-20", "FIELD"),
                        span(PaperType.REQUEST, "2026-11-16", "2026-11-22", "COST"),
                        span(PaperType.ORDER, "2026-11-10", "2026-11-24", ""),
                        span(PaperType.REQUEST, "2026-11-26", "", "COST")),
                TODAY,
                3);
        assertThat(flow.weeks())
                .containsExactly(
                        new Week(LocalDate.parse("2026-11-09"), 1, 0, 2),
                        new Week(LocalDate.parse("2026-11-16"), 1, 1, 2),
                        new Week(LocalDate.parse("2026-11-23"), 1, 1, 2));
        assertThat(flow.took())
                .containsExactly(new Took(PaperType.REQUEST, 1, 6, 6), new Took(PaperType.ORDER, 1, 14, 14));
        assertThat(flow.causes()).containsExactly(new Share("COST", 2, 1, 1, 6, 6), new Share("FIELD", 0, 0, 1, 0, 0));
        assertThat(flow.products())
                .as("what left before these weeks is none of them")
                .containsExactly(new Share("TG40", 3, 2, 2, 6, 14));
        assertThat(flow.highest()).isEqualTo(2);
        assertThat(flow.busiest()).isEqualTo(1);
    }

    @Test
    void theMedianAndNineOfTenAreDaysThatOccurred() {
        List<Span> spans = new ArrayList<>();
        for (int days = 1; days <= 10; days++) {
            LocalDate left = TODAY.minusDays(1);
            spans.add(new Span(PaperType.REQUEST, left.minusDays(days), Optional.of(left), "", "TG40"));
        }
        assertThat(Flow.of(spans, TODAY, 4).took()).containsExactly(new Took(PaperType.REQUEST, 10, 5, 9));
    }

    @Test
    void withoutPapersNothingFlowsAndTheWeeksHaveALimit() {
        Flow empty = Flow.of(List.of(), TODAY, 12);
        assertThat(empty.weeks()).hasSize(12).allMatch(w -> w.waiting() == 0);
        assertThat(empty.took()).isEmpty();
        assertThat(empty.highest()).isZero();
        assertThatThrownBy(() -> Flow.of(List.of(), TODAY, 0)).isInstanceOf(IllegalArgumentException.class);
        assertThatThrownBy(() -> Flow.of(List.of(), TODAY, Flow.MOST + 1)).isInstanceOf(IllegalArgumentException.class);
    }

    @Test
    void whatWaitsIsWhatWasThereAndEnteredAndHasNotLeft() {
        for (long seed = 0; seed < 300; seed++) {
            Random random = new Random(seed);
            List<Span> spans = new ArrayList<>();
            for (int i = 0; i < random.nextInt(60); i++) {
                LocalDate entered = TODAY.minusDays(random.nextInt(200));
                LocalDate left = entered.plusDays(random.nextInt(80));
                boolean open = left.isAfter(TODAY) || random.nextInt(4) == 0;
                spans.add(new Span(
                        random.nextBoolean() ? PaperType.ORDER : PaperType.REQUEST,
                        entered,
                        open ? Optional.empty() : Optional.of(left),
                        random.nextInt(3) == 0 ? "" : "C" + random.nextInt(3),
                        "P" + random.nextInt(3)));
            }
            Flow flow = Flow.of(spans, TODAY, 1 + random.nextInt(20));
            for (Week week : flow.weeks()) {
                LocalDate end = week.monday().plusDays(6);
                long waiting = spans.stream()
                        .filter(s -> !s.entered().isAfter(end)
                                && s.left().filter(l -> !l.isAfter(end)).isEmpty())
                        .count();
                assertThat(week.waiting())
                        .as("seed %s, week of %s", seed, week.monday())
                        .isEqualTo((int) waiting);
            }
            int now = flow.weeks().get(flow.weeks().size() - 1).waiting();
            assertThat(flow.products().stream().mapToInt(Share::open).sum())
                    .as("seed %s: each waits for one product", seed)
                    .isEqualTo(now);
            assertThat(flow.products().stream().mapToInt(Share::left).sum())
                    .isEqualTo(flow.weeks().stream().mapToInt(Week::left).sum());
            assertThat(flow.causes().stream().mapToInt(Share::open).sum()).isLessThanOrEqualTo(now);
        }
    }
}
