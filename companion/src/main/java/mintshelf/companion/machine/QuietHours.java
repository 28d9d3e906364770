package mintshelf.companion.machine;

import java.time.DateTimeException;
import java.time.LocalTime;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * Hours in which nothing is told: from one time of the day to another, over midnight where the first is later.
 *
 * @param from the first quiet minute
 * @param to the first minute that is not
 */
public record QuietHours(LocalTime from, LocalTime to) {
    private static final Pattern WRITTEN = Pattern.compile("(\\d{1,2}:\\d{2})\\s*[-–]\\s*(\\d{1,2}:\\d{2})");

    /** Reads "18:00-07:30"; nothing for what says no two times. */
    public static Optional<QuietHours> read(String text) {
        Matcher m = WRITTEN.matcher(text.strip());
        if (!m.matches()) return Optional.empty();
        try {
            return Optional.of(new QuietHours(time(m.group(1)), time(m.group(2))));
        } catch (DateTimeException e) {
            return Optional.empty();
        }
    }

    private static LocalTime time(String text) {
        return LocalTime.parse(text.length() == 4 ? "0" + text : text);
    }

    /** Whether a time is among them; two times that are the same are no hours. */
    public boolean has(LocalTime time) {
        boolean overMidnight = from.isAfter(to);
        return overMidnight ? !time.isBefore(from) || time.isBefore(to) : !time.isBefore(from) && time.isBefore(to);
    }

    /** As it is read. */
    public String text() {
        return from + "-" + to;
    }
}
