package mintshelf.app.use.takein;

import java.time.Clock;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalTime;
import mintshelf.app.setup.Settings;
import org.springframework.stereotype.Component;

/** Days of old papers as moments of the house. */
@Component
class TakeDays {
    private final Settings settings;
    private final Clock clock;

    TakeDays(Settings settings, Clock clock) {
        this.settings = settings;
        this.clock = clock;
    }

    Instant now() {
        return clock.instant();
    }

    LocalDate today() {
        return LocalDate.ofInstant(clock.instant(), settings.zone());
    }

    /** A day has no hour: at noon it is the same day nearly everywhere. Today's is now, for nothing is released before it is there. */
    Instant at(LocalDate day) {
        return day.equals(today())
                ? clock.instant()
                : day.atTime(LocalTime.NOON).atZone(settings.zone()).toInstant();
    }
}
