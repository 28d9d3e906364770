package mintshelf.core.signoff;

import biweekly.Biweekly;
import biweekly.ICalendar;
import biweekly.component.VEvent;
import biweekly.property.DateEnd;
import biweekly.util.ICalDate;
import biweekly.util.com.google.ical.compat.javautil.DateIterator;
import java.time.LocalDate;
import java.time.temporal.ChronoUnit;
import java.util.Date;
import java.util.Map;
import java.util.Optional;
import java.util.TimeZone;
import java.util.TreeMap;
import mintshelf.core.base.Outcome;
import mintshelf.core.base.Refusal;
import mintshelf.core.base.Texts;

/** Reads the days on which a house does not work out of a calendar file (iCalendar, RFC 5545). */
public final class Holidays {
    /** Letters of a file, days of an event, days of a calendar: what is more is no list of holidays. */
    public static final int MOST_LETTERS = 1_000_000;

    private static final int LONGEST_DAYS = 60;
    public static final int MOST = 1000;
    private static final int MOST_REPEATS = 4000;
    private static final int EVENTS = 5000;

    private Holidays() {}

    /**
     * The all-day events of a calendar as days with their names; those that repeat within the years asked for. Events that have an hour
     * are nobody's holiday and are passed over.
     *
     * @param from first day that is of interest
     * @param until last one
     */
    public static Outcome<Map<LocalDate, String>> read(String text, LocalDate from, LocalDate until) {
        if (text.length() > MOST_LETTERS) {
            return no("The file is longer than " + MOST_LETTERS + " letters.", "Give one that holds holidays alone.");
        }
        ICalendar calendar;
        try {
            calendar = Biweekly.parse(text).first();
        } catch (RuntimeException e) {
            calendar = null;
        }
        if (calendar == null) return no("This is no calendar file.", "Give one in iCalendar form (.ics).");
        if (calendar.getEvents().size() > EVENTS) {
            return no("It has more than " + EVENTS + " events.", "Give one that holds holidays alone.");
        }
        Map<LocalDate, String> days = new TreeMap<>();
        for (VEvent event : calendar.getEvents()) {
            Optional<Refusal> wrong;
            try {
                wrong = add(days, event, from, until);
            } catch (RuntimeException e) {
                // Rules of repetition that no calendar can follow, such as the thirteenth month.
                return no("One of its events repeats by a rule that cannot be followed.", "Take that event out.");
            }
            if (wrong.isPresent()) return Outcome.refused(wrong.get());
        }
        if (days.isEmpty()) {
            return no(
                    "It has no all-day event between " + from + " and " + until + ".",
                    "Holidays are all-day events; give a file that has some.");
        }
        return Outcome.granted(days);
    }

    private static Outcome<Map<LocalDate, String>> no(String reason, String remedy) {
        return Outcome.refused("calendar.file", reason, remedy + " Nothing was changed.");
    }

    private static Optional<Refusal> add(Map<LocalDate, String> days, VEvent event, LocalDate from, LocalDate until) {
        if (event.getDateStart() == null || event.getDateStart().getValue() == null) return Optional.empty();
        ICalDate start = event.getDateStart().getValue();
        if (start.hasTime()) return Optional.empty();
        LocalDate first = day(start);
        DateEnd end = event.getDateEnd();
        // The end of an all-day event is the day after its last one (RFC 5545, 3.6.1).
        long length = end == null || end.getValue() == null ? 1 : ChronoUnit.DAYS.between(first, day(end.getValue()));
        String said =
                event.getSummary() == null ? "" : Texts.line(event.getSummary().getValue());
        String name = said.isBlank() ? "Holiday" : Texts.shorten(said, 60);
        if (length > LONGEST_DAYS) {
            return Optional.of(Refusal.of(
                    "calendar.file",
                    "“" + name + "” takes " + length + " days.",
                    "A holiday takes at most " + LONGEST_DAYS + ". Nothing was changed."));
        }
        if (event.getRecurrenceRule() != null && event.getRecurrenceRule().getValue() != null) {
            boolean months =
                    event.getRecurrenceRule().getValue().getByMonth().stream().allMatch(m -> m >= 1 && m <= 12);
            if (!months) throw new IllegalArgumentException("A month that is none");
        }
        // Dates of all-day events are read in the machine's zone and have to be walked in it.
        DateIterator all = event.getDateIterator(TimeZone.getDefault());
        for (int i = 0; all.hasNext() && i < MOST_REPEATS; i++) {
            LocalDate begins = day(all.next());
            if (begins.isAfter(until)) break;
            for (long d = 0; d < Math.max(1, length); d++) {
                LocalDate day = begins.plusDays(d);
                if (!day.isBefore(from) && !day.isAfter(until)) days.putIfAbsent(day, name);
            }
            if (days.size() > MOST) {
                return Optional.of(Refusal.of(
                        "calendar.file",
                        "It has more than " + MOST + " holidays.",
                        "Give one that holds holidays alone. Nothing was changed."));
            }
        }
        return Optional.empty();
    }

    private static LocalDate day(Date date) {
        return date instanceof ICalDate c && c.getRawComponents() != null
                ? LocalDate.of(
                        c.getRawComponents().getYear(),
                        c.getRawComponents().getMonth(),
                        c.getRawComponents().getDate())
                : date.toInstant().atZone(TimeZone.getDefault().toZoneId()).toLocalDate();
    }
}
