package mintshelf.core.signoff;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.DayOfWeek;
import java.time.LocalDate;
import java.util.EnumSet;
import java.util.List;
import java.util.Map;
import java.util.Random;
import mintshelf.core.signoff.DayAxis.Piece;
import org.junit.jupiter.api.Test;

/** When lines are asked and due by the calendar of a house, and how that is drawn. */
class RuleDaysTest {
    private static final LocalDate TUESDAY = LocalDate.parse("2026-11-24");
    private static final WorkingDays HARBOUR =
            new WorkingDays(WorkingDays.USUAL.weekend(), Map.of(LocalDate.parse("2026-11-30"), "Harbour day"));
    private static final List<SignOffLine> LINES = List.of(
            new SignOffLine(1, "checker", 2, "checked", "", "", 2),
            new SignOffLine(2, "board-member", 1, "approved", "", "", 3),
            new SignOffLine(2, "quality", 1, "seen", "", "", 1));

    private static LocalDate day(String text) {
        return LocalDate.parse("2026-" + text);
    }

    @Test
    void aStepIsAskedWhenTheOneBeforeIsDueAndHolidaysDoNotCount() {
        List<RuleDays.Span> spans = RuleDays.of(LINES, TUESDAY, HARBOUR);
        assertThat(spans).extracting(RuleDays.Span::asked).containsExactly(TUESDAY, day("11-26"), day("11-26"));
        assertThat(spans).extracting(RuleDays.Span::due).containsExactly(day("11-26"), day("12-02"), day("11-27"));
        assertThat(spans.get(2).raised()).as("Monday is the harbour's").isEqualTo(day("12-02"));
        assertThat(spans.get(1).before()).isEqualTo(day("12-01"));
        assertThat(spans.get(0).isReminded()).isTrue();
        assertThat(spans.get(2).isReminded())
                .as("due the day after it is asked")
                .isFalse();
        assertThat(RuleDays.end(spans, TUESDAY)).isEqualTo(day("12-02"));
    }

    @Test
    void aWeekWithoutAWorkingDayIsNone() {
        assertThatThrownBy(() -> new WorkingDays(EnumSet.allOf(DayOfWeek.class), Map.of()))
                .isInstanceOf(IllegalArgumentException.class);
    }

    /** Counting forth and back agree, whatever the calendar. */
    @Test
    void workingDaysAddUp() {
        Random random = new Random(5);
        for (int i = 0; i < 300; i++) {
            EnumSet<DayOfWeek> weekend = EnumSet.noneOf(DayOfWeek.class);
            for (DayOfWeek d : DayOfWeek.values()) if (random.nextInt(3) == 0 && weekend.size() < 6) weekend.add(d);
            LocalDate holiday = TUESDAY.plusDays(random.nextInt(20));
            WorkingDays days = new WorkingDays(weekend, Map.of(holiday, "x"));
            int n = random.nextInt(12);
            LocalDate due = days.due(TUESDAY, n);
            assertThat(days.over(TUESDAY, due)).isEqualTo(n);
            assertThat(n == 0 || days.isWorking(due)).isTrue();
            assertThat(days.isWorking(days.before(due))).isTrue();
            assertThat(days.over(days.before(due), due)).isLessThanOrEqualTo(1);
        }
    }

    @Test
    void theAxisHasWholeWeeksAndFreeDaysAreNarrow() {
        DayAxis axis = DayAxis.of(TUESDAY, day("12-04"), HARBOUR);
        assertThat(axis.first()).isEqualTo(day("11-23"));
        assertThat(axis.days()).hasSize(28);
        assertThat(axis.width()).isEqualTo(4 * (5 * 40 + 2 * 18));
        assertThat(axis.middle(TUESDAY)).isEqualTo(60);
        assertThat(axis.start(day("11-01"))).isZero();
        assertThat(axis.end(LocalDate.parse("2027-11-01"))).isEqualTo(axis.width());
        assertThat(axis.line(day("11-26"), day("12-02")))
                .containsExactly(new Piece(140, 200, true), new Piece(200, 276, false), new Piece(276, 336, true));
        assertThat(axis.line(TUESDAY, TUESDAY)).isEmpty();
        assertThat(DayAxis.of(TUESDAY, TUESDAY.plusYears(3), HARBOUR).days()).hasSize(16 * 7);
    }
}
