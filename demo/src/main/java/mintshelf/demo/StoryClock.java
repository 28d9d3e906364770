package mintshelf.demo;

import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.ZoneId;

/** The clock of the demo: set to moments of the story while it is written, the machine's own afterwards. */
public final class StoryClock extends Clock {
    private Instant told;

    /** The story is now at this moment; each look at the clock is a millisecond later, so that nothing is simultaneous. */
    public synchronized void tell(Instant at) {
        told = at;
    }

    /** From now on the machine's own time. */
    public synchronized void goOn() {
        told = null;
    }

    @Override
    public synchronized Instant instant() {
        if (told == null) return Instant.now();
        told = told.plus(Duration.ofMillis(1));
        return told;
    }

    @Override
    public ZoneId getZone() {
        return ZoneId.of("UTC");
    }

    @Override
    public Clock withZone(ZoneId zone) {
        return Clock.system(zone);
    }
}
