package mintshelf.core.base;

import java.time.LocalDate;
import java.time.format.DateTimeFormatter;
import java.util.Locale;

/** Days as they stand in sentences. */
public final class Days {
    private static final DateTimeFormatter DAY = DateTimeFormatter.ofPattern("d MMM yyyy", Locale.ENGLISH);

    private Days() {}

    /** As in "26 Nov 2026", whatever the machine's own language. */
    public static String words(LocalDate day) {
        return DAY.format(day);
    }
}
