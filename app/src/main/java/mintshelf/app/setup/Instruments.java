package mintshelf.app.setup;

import io.micrometer.core.instrument.Gauge;
import io.micrometer.core.instrument.MeterRegistry;
import io.micrometer.core.instrument.binder.MeterBinder;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.Optional;
import java.util.function.ToDoubleFunction;
import mintshelf.app.store.verify.RunningStore;
import org.springframework.stereotype.Component;

/** What whoever watches the server reads besides what every server tells: what waits, what failed, what is open. Asked at most each 15 s. */
@Component
public class Instruments implements MeterBinder {
    private static final Duration FRESH = Duration.ofSeconds(15);
    private static final Duration FAILURES = Duration.ofDays(14);
    private static final Duration THERE = Duration.ofMinutes(15);

    private final RunningStore running;
    private final Clock clock;
    private Instant readAt = Instant.MIN;
    private Reading reading = new Reading(NONE, NONE, NONE, new RunningStore.Counts(0, 0, 0, 0));

    private static final RunningStore.Work NONE = new RunningStore.Work(0, 0, 0, Optional.empty(), "");

    private record Reading(
            RunningStore.Work mails, RunningStore.Work outputs, RunningStore.Work runs, RunningStore.Counts counts) {}

    public Instruments(RunningStore running, Clock clock) {
        this.running = running;
        this.clock = clock;
    }

    private synchronized Reading read() {
        Instant now = clock.instant();
        if (readAt.plus(FRESH).isBefore(now)) {
            readAt = now;
            reading = new Reading(
                    running.mails(now, now.minus(FAILURES)),
                    running.outputs(now),
                    running.runs(now, now.minus(FAILURES)),
                    running.counts(now.minus(THERE)));
        }
        return reading;
    }

    @Override
    public void bindTo(MeterRegistry registry) {
        gauge(
                registry,
                "mint.mails.waiting",
                "Mails that wait to be sent",
                r -> r.mails().waiting());
        gauge(
                registry,
                "mint.mails.failed",
                "Mails that failed in two weeks",
                r -> r.mails().failed());
        gauge(
                registry,
                "mint.outputs.waiting",
                "Outputs that wait to be made",
                r -> r.outputs().waiting());
        gauge(
                registry,
                "mint.outputs.failed",
                "Outputs that could not be made",
                r -> r.outputs().failed());
        gauge(
                registry,
                "mint.runs.working",
                "Runs that are at work",
                r -> r.runs().waiting());
        gauge(
                registry,
                "mint.runs.stopped",
                "Runs that stopped in two weeks",
                r -> r.runs().failed());
        gauge(
                registry,
                "mint.rounds.open",
                "Rounds that are open",
                r -> r.counts().openRounds());
        gauge(
                registry,
                "mint.holds.open",
                "Documents that are held",
                r -> r.counts().openHolds());
        gauge(
                registry,
                "mint.people",
                "People who have not left",
                r -> r.counts().people());
        gauge(
                registry,
                "mint.people.there",
                "People who asked for a page in a quarter of an hour",
                r -> r.counts().signedIn());
    }

    private void gauge(MeterRegistry registry, String name, String says, ToDoubleFunction<Reading> value) {
        Gauge.builder(name, this, me -> value.applyAsDouble(me.read()))
                .description(says)
                .register(registry);
    }
}
