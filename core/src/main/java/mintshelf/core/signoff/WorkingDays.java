package mintshelf.core.signoff;

import java.time.DayOfWeek;
import java.time.LocalDate;
import java.util.EnumSet;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;

/**
 * The days on which a house works: questions are due, reminded and raised by them. All is linear in the days walked over.
 *
 * @param weekend days of the week on which nobody works; not all seven
 * @param holidays other days on which nobody works, with their names
 */
public record WorkingDays(Set<DayOfWeek> weekend, Map<LocalDate, String> holidays) {
    /** Saturday and Sunday, no holidays. */
    public static final WorkingDays USUAL = new WorkingDays(EnumSet.of(DayOfWeek.SATURDAY, DayOfWeek.SUNDAY), Map.of());

    public WorkingDays {
        weekend = Set.copyOf(weekend);
        holidays = Map.copyOf(holidays);
        if (weekend.size() == DayOfWeek.values().length) throw new IllegalArgumentException("No day is worked on");
    }

    public boolean isWorking(LocalDate day) {
        return !isWeekend(day) && !holidays.containsKey(day);
    }

    public boolean isWeekend(LocalDate day) {
        return weekend.contains(day.getDayOfWeek());
    }

    /** What a day that is not worked on is called; empty for weekends and working days. */
    public Optional<String> holiday(LocalDate day) {
        return Optional.ofNullable(holidays.get(day));
    }

    /** The day that is a number of working days after another; that one itself for none. */
    public LocalDate due(LocalDate from, int workingDays) {
        LocalDate day = from;
        for (int left = workingDays; left > 0; ) {
            day = day.plusDays(1);
            if (isWorking(day)) left--;
        }
        return day;
    }

    /** The working day before a day. */
    public LocalDate before(LocalDate day) {
        LocalDate earlier = day.minusDays(1);
        while (!isWorking(earlier)) earlier = earlier.minusDays(1);
        return earlier;
    }

    /** How many working days a question is over its day; 0 for one that is not. */
    public int over(LocalDate due, LocalDate today) {
        int days = 0;
        for (LocalDate day = due; day.isBefore(today); ) {
            day = day.plusDays(1);
            if (isWorking(day)) days++;
        }
        return days;
    }

    /** The holidays in their order. */
    public Map<LocalDate, String> inOrder() {
        return new TreeMap<>(holidays);
    }
}
