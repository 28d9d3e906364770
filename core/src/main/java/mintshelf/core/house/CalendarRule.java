package mintshelf.core.house;

import java.time.DayOfWeek;
import java.time.LocalDate;
import java.time.format.TextStyle;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.EnumSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import mintshelf.core.base.Refusal;
import mintshelf.core.signoff.Holidays;
import mintshelf.core.signoff.WorkingDays;

/** The calendar of the house: on which days nobody works. */
public record CalendarRule(Set<DayOfWeek> weekend, List<Holiday> holidays) implements Rule {
    /** The one calendar of a house. */
    public static final String CODE = "house";

    /** A day that is not worked on. */
    public record Holiday(LocalDate day, String name) {}

    public CalendarRule {
        weekend = weekend.isEmpty() ? Set.of() : Set.copyOf(EnumSet.copyOf(weekend));
        holidays = holidays.stream().sorted(Comparator.comparing(Holiday::day)).toList();
    }

    @Override
    public Subject subject() {
        return Subject.CALENDAR;
    }

    @Override
    public String code() {
        return CODE;
    }

    @Override
    public String name() {
        return "The house's calendar";
    }

    @Override
    public List<RuleLine> lines(House house) {
        List<RuleLine> lines = new ArrayList<>();
        lines.add(RuleLine.of(
                "Weekend",
                weekend.isEmpty()
                        ? "none"
                        : String.join(
                                ", ",
                                weekend.stream()
                                        .sorted()
                                        .map(d -> d.getDisplayName(TextStyle.FULL, Locale.ENGLISH))
                                        .toList())));
        for (Holiday h : holidays) lines.add(RuleLine.of(h.day().toString(), h.name()));
        return List.copyOf(lines);
    }

    @Override
    public List<Refusal> ask(House house) {
        List<Refusal> wrong = new ArrayList<>();
        if (weekend.size() == DayOfWeek.values().length) {
            wrong.add(Refusal.of("calendar.weekend", "Then nobody works on any day.", "Leave one to work on."));
        }
        if (holidays.size() > Holidays.MOST) {
            wrong.add(Refusal.of(
                    "calendar.long", "More than " + Holidays.MOST + " holidays are listed.", "Take old ones away."));
        }
        holidays.forEach(h -> Rule.named(h.name(), 60).ifPresent(wrong::add));
        if (holidays.stream().map(Holiday::day).distinct().count() < holidays.size()) {
            wrong.add(Refusal.of("calendar.twice", "A day stands twice.", "Take one away."));
        }
        return wrong.stream().distinct().toList();
    }

    /** The days that it leaves to work on. */
    public WorkingDays days() {
        Map<LocalDate, String> named = new LinkedHashMap<>();
        holidays.forEach(h -> named.put(h.day(), h.name()));
        return new WorkingDays(weekend, named);
    }

    /** The calendar with these days besides; the name that a day has already stays. */
    public CalendarRule with(Map<LocalDate, String> more) {
        Map<LocalDate, String> all = new TreeMap<>(more);
        holidays.forEach(h -> all.put(h.day(), h.name()));
        List<Holiday> listed = new ArrayList<>();
        all.forEach((day, name) -> listed.add(new Holiday(day, name)));
        return new CalendarRule(weekend, listed);
    }
}
