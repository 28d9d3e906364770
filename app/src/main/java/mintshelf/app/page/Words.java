package mintshelf.app.page;

import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import java.time.ZonedDateTime;
import java.time.format.DateTimeFormatter;
import java.time.format.TextStyle;
import java.time.temporal.ChronoUnit;
import java.util.Arrays;
import java.util.Locale;
import java.util.stream.Collectors;
import mintshelf.core.base.Numbers;
import mintshelf.core.base.Texts;

/** How pages word dates, ages, sizes and names, in a person's time zone. Given to every template as {@code w}. */
public record Words(ZoneId zone, Instant now) {
    private static final DateTimeFormatter MOMENT = DateTimeFormatter.ofPattern("d MMM yyyy, HH:mm", Locale.ENGLISH);
    private static final DateTimeFormatter DAY = DateTimeFormatter.ofPattern("d MMM yyyy", Locale.ENGLISH);
    private static final DateTimeFormatter DAY_OF_YEAR = DateTimeFormatter.ofPattern("d MMM", Locale.ENGLISH);
    private static final DateTimeFormatter CLOCK = DateTimeFormatter.ofPattern("HH:mm", Locale.ENGLISH);
    private static final DateTimeFormatter LONG_DAY = DateTimeFormatter.ofPattern("EEEE, d MMM yyyy", Locale.ENGLISH);
    private static final DateTimeFormatter WEEKDAY = DateTimeFormatter.ofPattern("EEE HH:mm", Locale.ENGLISH);

    /** "23 Nov 2026, 14:05". */
    public String moment(Instant at) {
        return MOMENT.format(at.atZone(zone));
    }

    /** The day in the person's own zone. */
    public LocalDate today() {
        return now.atZone(zone).toLocalDate();
    }

    /** "23 Nov 2026". */
    public String day(Instant at) {
        return DAY.format(at.atZone(zone));
    }

    public String day(LocalDate day) {
        return DAY.format(day);
    }

    /** "26 Nov" within the year, else with the year. */
    public String shortDay(LocalDate day) {
        return day.getYear() == now.atZone(zone).getYear() ? DAY_OF_YEAR.format(day) : DAY.format(day);
    }

    /** For lists: "today 14:05", "Fri 16:40" within a week, "14 Oct" within the year, else with the year. */
    public String shortly(Instant at) {
        ZonedDateTime then = at.atZone(zone);
        LocalDate today = now.atZone(zone).toLocalDate();
        long days = ChronoUnit.DAYS.between(then.toLocalDate(), today);
        if (days == 0) return "today " + CLOCK.format(then);
        if (days > 0 && days < 7) return WEEKDAY.format(then);
        return then.getYear() == today.getYear() ? DAY_OF_YEAR.format(then) : DAY.format(then);
    }

    /** For holds: "09:40" today, else the weekday within a week, else the day. */
    public String since(Instant at) {
        ZonedDateTime then = at.atZone(zone);
        long days = ChronoUnit.DAYS.between(then.toLocalDate(), now.atZone(zone).toLocalDate());
        if (days == 0) return CLOCK.format(then);
        if (days == 1) return "yesterday";
        if (days < 7) return DateTimeFormatter.ofPattern("EEEE", Locale.ENGLISH).format(then);
        return DAY_OF_YEAR.format(then);
    }

    /** "Tuesday, 24 Nov 2026". */
    public String weekday(LocalDate day) {
        return day.getDayOfWeek().getDisplayName(TextStyle.SHORT, Locale.ENGLISH);
    }

    public String weekday(Instant at) {
        return LONG_DAY.format(at.atZone(zone));
    }

    /** "3 days", "2 hours", "just now". */
    public String age(Instant at) {
        Duration age = Duration.between(at, now);
        if (age.toMinutes() < 1) return "just now";
        if (age.toHours() < 1) return Numbers.count(age.toMinutes(), "minute", "minutes");
        if (age.toDays() < 1) return Numbers.count(age.toHours(), "hour", "hours");
        return Numbers.count(age.toDays(), "day", "days");
    }

    public String size(long bytes) {
        return Numbers.size(bytes);
    }

    public String count(long n, String one, String many) {
        return Numbers.count(n, one, many);
    }

    public String number(long n) {
        return Numbers.grouped(n);
    }

    /** A measure without more figures than it needs: "40.5". */
    public String plain(double n) {
        return Numbers.plain(n);
    }

    /** How much more or less a measure is: "0.5 more". */
    public String more(double n) {
        return Numbers.plain(Math.abs(n)) + (n < 0 ? " less" : " more");
    }

    /** The first line of a comment, at most 72 characters. */
    public String firstLine(String comment) {
        return Texts.shorten(comment.split("\n", 2)[0], 72);
    }

    /** "PM" for Priya Malhan. */
    public String initials(String name) {
        return Arrays.stream(name.split(" +"))
                .filter(part -> !part.isEmpty())
                .map(part -> new String(Character.toChars(part.codePointAt(0))).toUpperCase(Locale.ROOT))
                .limit(2)
                .collect(Collectors.joining());
    }

    /** The first name, for lists. */
    public String first(String name) {
        return name.split(" ", 2)[0];
    }

    /** With a capital first letter. */
    public String capital(String text) {
        return text.isEmpty() ? text : text.substring(0, 1).toUpperCase(Locale.ROOT) + text.substring(1);
    }
}
