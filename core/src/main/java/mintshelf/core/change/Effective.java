package mintshelf.core.change;

import java.time.LocalDate;
import java.time.format.DateTimeParseException;
import java.util.Optional;
import mintshelf.core.base.Days;
import mintshelf.core.base.Outcome;
import mintshelf.core.base.Texts;

/**
 * From when on what a change order changes counts.
 *
 * @param from a day as in ISO 8601, a serial number, a lot
 */
public record Effective(By by, String from) {
    private static final int MOST = 60;

    /** What is counted by. */
    public enum By {
        DATE("a day"),
        SERIAL("a serial number"),
        LOT("a lot");

        private final String words;

        By(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }
    }

    /** What somebody wrote; nothing where both are empty, which means with the release. */
    public static Outcome<Optional<Effective>> of(String by, String from) {
        if (by.isEmpty() && from.isBlank()) return Outcome.granted(Optional.empty());
        if (by.isEmpty())
            return Outcome.refused(
                    "effective.by", "From what it counts is not said.", "Choose a day, a serial number or a lot.");
        By kind;
        try {
            kind = By.valueOf(by);
        } catch (IllegalArgumentException e) {
            return Outcome.refused(
                    "effective.by", "It counts from nothing that there is.", "Choose a day, a serial number or a lot.");
        }
        Outcome<String> text = Texts.required("From which " + kind.words().substring(2), from, MOST);
        if (!(text instanceof Outcome.Granted<String> said))
            return Outcome.refused(text.refusal().orElseThrow());
        if (kind == By.DATE) {
            try {
                LocalDate.parse(said.value());
            } catch (DateTimeParseException e) {
                return Outcome.refused("effective.day", said.value() + " is no day.", "Write it as 2026-11-24.");
            }
        }
        return Outcome.granted(Optional.of(new Effective(kind, said.value())));
    }

    /** As in "effective {words}". */
    public String words() {
        return switch (by) {
            case DATE -> "from " + Days.words(LocalDate.parse(from));
            case SERIAL -> "from serial " + from;
            case LOT -> "from lot " + from;
        };
    }
}
