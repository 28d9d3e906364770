package mintshelf.app.store;

import java.time.Instant;
import java.time.LocalDateTime;
import java.time.ZoneOffset;
import java.time.temporal.ChronoUnit;

/** Instants as the database keeps them: DATETIME(6) in UTC. */
public final class Times {
    private Times() {}

    public static LocalDateTime utc(Instant at) {
        return LocalDateTime.ofInstant(at.truncatedTo(ChronoUnit.MICROS), ZoneOffset.UTC);
    }

    public static Instant instant(LocalDateTime at) {
        return at.toInstant(ZoneOffset.UTC);
    }
}
