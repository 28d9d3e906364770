package mintshelf.core.takein;

import java.time.DateTimeException;
import java.time.LocalDate;
import java.time.format.DateTimeFormatter;
import java.util.List;
import java.util.Locale;
import java.util.Optional;

/** Days as they stand in old tables. */
final class TakenDays {
    private static final List<DateTimeFormatter> FORMS = List.of(
            DateTimeFormatter.ISO_LOCAL_DATE,
            DateTimeFormatter.ofPattern("d.M.uuuu", Locale.ENGLISH),
            DateTimeFormatter.ofPattern("d MMM uuuu", Locale.ENGLISH),
            DateTimeFormatter.ofPattern("d MMMM uuuu", Locale.ENGLISH));

    private TakenDays() {}

    /** A day that is written without doubt (ISO 8601, or with the month in its usual place between dots or as a word); a time behind is left. */
    static Optional<LocalDate> read(String said) {
        String day = said.replaceFirst("[T ]\\d{1,2}:\\d{2}(:\\d{2}(\\.\\d+)?)?Z?$", "");
        for (DateTimeFormatter form : FORMS) {
            try {
                return Optional.of(LocalDate.parse(day, form));
            } catch (DateTimeException e) {
                // the next form
            }
        }
        return Optional.empty();
    }
}
