package mintshelf.core.search;

import java.time.DateTimeException;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.Period;
import java.time.YearMonth;
import java.time.ZoneId;
import java.time.temporal.ChronoUnit;
import java.util.Locale;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import mintshelf.core.base.Days;

/** Days and stretches of time as they are typed: {@code 2026-11-23}, {@code 2026-11}, {@code 2026}, {@code today}, {@code 7d}, {@code 2w}. */
record Spans(Instant now, ZoneId zone) {
    private static final Pattern AGO = Pattern.compile("(\\d{1,4})\\s*(h|d|w|m|y)[a-z]*");

    /**
     * A stretch of time: a day, a month, a year; of no length for "so long ago".
     *
     * @param says as it stands behind "changed": "on 23 Nov 2026"
     */
    record Span(Instant from, Instant until, String says) {
        boolean isMoment() {
            return from.equals(until);
        }
    }

    Optional<Span> read(String typed) {
        String text = typed.toLowerCase(Locale.ROOT);
        LocalDate today = now.atZone(zone).toLocalDate();
        if (text.equals("today")) return Optional.of(days(today, today.plusDays(1), "today"));
        if (text.equals("yesterday")) return Optional.of(days(today.minusDays(1), today, "yesterday"));
        Optional<Length> length = length(text);
        if (length.isPresent()) {
            Instant then = now.minus(length.get().is());
            return Optional.of(new Span(then, then, length.get().says()));
        }
        try {
            if (text.matches("\\d{4}")) {
                LocalDate first = LocalDate.of(Integer.parseInt(text), 1, 1);
                return Optional.of(days(first, first.plusYears(1), text));
            }
            if (text.matches("\\d{4}-\\d{2}")) {
                LocalDate first = YearMonth.parse(text).atDay(1);
                return Optional.of(days(first, first.plusMonths(1), text));
            }
            LocalDate day = LocalDate.parse(text);
            return Optional.of(days(day, day.plusDays(1), Days.words(day)));
        } catch (DateTimeException e) {
            return Optional.empty();
        }
    }

    private Span days(LocalDate first, LocalDate behind, String says) {
        return new Span(
                first.atStartOfDay(zone).toInstant(), behind.atStartOfDay(zone).toInstant(), says);
    }

    /** How long, and in words. */
    record Length(Duration is, String says) {}

    /** "7d", "2 weeks". */
    Optional<Length> length(String typed) {
        Matcher ago = AGO.matcher(typed.toLowerCase(Locale.ROOT));
        if (!ago.matches()) return Optional.empty();
        int n = Integer.parseInt(ago.group(1));
        LocalDate today = now.atZone(zone).toLocalDate();
        return Optional.of(
                switch (ago.group(2)) {
                    case "h" -> new Length(Duration.ofHours(n), count(n, "hour"));
                    case "d" -> new Length(Duration.ofDays(n), count(n, "day"));
                    case "w" -> new Length(Duration.ofDays(7L * n), count(n, "week"));
                    case "m" -> new Length(since(today, Period.ofMonths(n)), count(n, "month"));
                    default -> new Length(since(today, Period.ofYears(n)), count(n, "year"));
                });
    }

    private static Duration since(LocalDate today, Period back) {
        return Duration.ofDays(ChronoUnit.DAYS.between(today.minus(back), today));
    }

    private static String count(int n, String one) {
        return n + " " + one + (n == 1 ? "" : "s");
    }
}
