package mintshelf.core.signoff;

import java.time.DayOfWeek;
import java.time.LocalDate;
import java.time.temporal.ChronoUnit;
import java.time.temporal.TemporalAdjusters;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/**
 * Days side by side, as the picture of a sign-off rule has them: working days wide, days of the weekend narrow. Lengths are pixels of the
 * picture.
 */
public final class DayAxis {
    private static final int WORKING = 40;
    private static final int FREE = 18;
    private static final int FEWEST_WEEKS = 4;
    private static final int MOST_WEEKS = 16;

    private final WorkingDays calendar;
    private final List<Day> days;

    private DayAxis(WorkingDays calendar, List<Day> days) {
        this.calendar = calendar;
        this.days = List.copyOf(days);
    }

    /**
     * A day on the axis.
     *
     * @param holiday what it is called, where nobody works on it though it is no weekend
     */
    public record Day(LocalDate day, int x, int width, boolean weekend, Optional<String> holiday) {
        public boolean isWorking() {
            return !weekend && holiday.isEmpty();
        }

        public boolean isMonday() {
            return day.getDayOfWeek() == DayOfWeek.MONDAY;
        }
    }

    /** Whole weeks from the one that a day is in to the one after another: four at the least, sixteen at the most. */
    public static DayAxis of(LocalDate from, LocalDate until, WorkingDays calendar) {
        LocalDate first = from.with(TemporalAdjusters.previousOrSame(DayOfWeek.MONDAY));
        long weeks = Math.min(MOST_WEEKS, Math.max(FEWEST_WEEKS, ChronoUnit.WEEKS.between(first, until) + 2));
        List<Day> days = new ArrayList<>();
        int x = 0;
        for (long i = 0; i < weeks * 7; i++) {
            LocalDate day = first.plusDays(i);
            int width = calendar.isWeekend(day) ? FREE : WORKING;
            days.add(new Day(day, x, width, calendar.isWeekend(day), calendar.holiday(day)));
            x += width;
        }
        return new DayAxis(calendar, days);
    }

    public List<Day> days() {
        return days;
    }

    public int width() {
        Day last = days.get(days.size() - 1);
        return last.x() + last.width();
    }

    public LocalDate first() {
        return days.get(0).day();
    }

    public LocalDate last() {
        return days.get(days.size() - 1).day();
    }

    /** Where a day begins; the axis' ends for days beside it. */
    public int start(LocalDate day) {
        if (day.isBefore(first())) return 0;
        if (day.isAfter(last())) return width();
        return at(day).x();
    }

    /** Where a day ends; the axis' ends for days beside it. */
    public int end(LocalDate day) {
        if (day.isBefore(first())) return 0;
        if (day.isAfter(last())) return width();
        return at(day).x() + at(day).width();
    }

    /** The middle of a day; the axis' ends for days beside it. */
    public int middle(LocalDate day) {
        return (start(day) + end(day)) / 2;
    }

    private Day at(LocalDate day) {
        return days.get((int) ChronoUnit.DAYS.between(first(), day));
    }

    /** A piece of a line between two days. */
    public record Piece(int from, int to, boolean counts) {}

    /** The line from one day to another, in pieces: those of working days count, others do not. */
    public List<Piece> line(LocalDate from, LocalDate to) {
        List<Piece> pieces = new ArrayList<>();
        for (LocalDate day = from; !day.isAfter(to) && !day.isAfter(last()); day = day.plusDays(1)) {
            int begins = day.equals(from) ? middle(day) : start(day);
            int ends = day.equals(to) ? middle(day) : end(day);
            boolean counts = calendar.isWorking(day);
            Piece before = pieces.isEmpty() ? null : pieces.get(pieces.size() - 1);
            if (before != null && before.counts() == counts) {
                pieces.set(pieces.size() - 1, new Piece(before.from(), ends, counts));
            } else if (ends > begins) {
                pieces.add(new Piece(begins, ends, counts));
            }
        }
        return pieces;
    }
}
