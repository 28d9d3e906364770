package mintshelf.core.notice;

import java.time.Instant;
import java.time.LocalTime;
import java.time.ZoneId;
import java.time.ZonedDateTime;
import java.time.temporal.ChronoUnit;
import java.util.Arrays;
import java.util.Optional;

/** When a mail of a notice goes out. */
public enum MailTime {
    AT_ONCE("at once"),
    HOURLY("each hour, together"),
    DAILY("each morning, together"),
    NEVER("not by mail");

    private static final LocalTime MORNING = LocalTime.of(7, 0);

    private final String words;

    MailTime(String words) {
        this.words = words;
    }

    public String words() {
        return words;
    }

    /** The moment from which a mail may go; empty for none. Hours and mornings are those of the receiver's zone. */
    public Optional<Instant> next(Instant now, ZoneId zone) {
        ZonedDateTime there = now.atZone(zone);
        return switch (this) {
            case AT_ONCE -> Optional.of(now);
            case HOURLY ->
                Optional.of(there.truncatedTo(ChronoUnit.HOURS).plusHours(1).toInstant());
            case DAILY -> {
                ZonedDateTime morning = there.toLocalDate().atTime(MORNING).atZone(zone);
                yield Optional.of((morning.toInstant().isAfter(now)
                                ? morning
                                : there.toLocalDate()
                                        .plusDays(1)
                                        .atTime(MORNING)
                                        .atZone(zone))
                        .toInstant());
            }
            case NEVER -> Optional.empty();
        };
    }

    /** A choice by its name; empty for a text that is none. */
    public static Optional<MailTime> named(String text) {
        return Arrays.stream(values()).filter(t -> t.name().equals(text)).findFirst();
    }
}
