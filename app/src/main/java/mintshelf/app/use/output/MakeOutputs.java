package mintshelf.app.use.output;

import java.time.Clock;
import java.time.Duration;
import java.util.Optional;
import mintshelf.app.effect.KeepContent;
import mintshelf.app.ground.ReadingRoom;
import mintshelf.app.ground.Refused;
import mintshelf.app.ground.UnitOfWork;
import mintshelf.app.store.content.StoredContent;
import mintshelf.app.store.output.OutputStore;
import mintshelf.app.store.output.OutputStore.Wanted;
import mintshelf.core.base.Outcome;
import mintshelf.core.base.Texts;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Service;

/**
 * Makes the outputs that releases ask for: a run after the move, on whatever node, again after a crash, kept once for each
 * version, format and recipe.
 */
@Service
public class MakeOutputs {
    private static final Logger LOG = LoggerFactory.getLogger(MakeOutputs.class);
    private static final Duration LEASE = Duration.ofMinutes(2);
    private static final int TRIES = 3;

    private final OutputStore outputs;
    private final KeepContent contents;
    private final Copies copies;
    private final ReadingRoom room;
    private final UnitOfWork unit;
    private final Clock clock;

    public MakeOutputs(
            OutputStore outputs, KeepContent contents, Copies copies, ReadingRoom room, UnitOfWork unit, Clock clock) {
        this.outputs = outputs;
        this.contents = contents;
        this.copies = copies;
        this.room = room;
        this.unit = unit;
        this.clock = clock;
    }

    /** Makes all that waits, one after the other. */
    @Scheduled(initialDelayString = "PT2S", fixedDelayString = "PT2S")
    public void run() {
        while (makeNext()) {
            // until nothing waits
        }
    }

    /** Whether something waited. */
    public boolean makeNext() {
        Optional<Wanted> next =
                unit.run(() -> outputs.take(clock.instant(), clock.instant().plus(LEASE)));
        if (next.isEmpty()) return false;
        Wanted wanted = next.get();
        try {
            Outcome<Copies.Made> copy = room.within(() -> copies.make(wanted));
            if (copy instanceof Outcome.Granted<Copies.Made> written) {
                unit.run(() -> {
                    StoredContent kept = contents.keep(written.value().bytes());
                    outputs.made(wanted, kept.id(), lacks(written.value()), clock.instant());
                });
            } else {
                unit.run(() ->
                        outputs.failed(wanted, copy.refusal().orElseThrow().reason()));
            }
        } catch (Refused e) {
            return false; // no room now: the lease ends, and it is made then
        } catch (RuntimeException e) {
            LOG.warn(
                    "The {} of version {} was not made, try {}",
                    wanted.format(),
                    wanted.version(),
                    wanted.tries() + 1,
                    e);
            if (wanted.tries() + 1 >= TRIES) {
                unit.run(() -> outputs.failed(wanted, "It could not be made; the log of the server says why."));
            }
        }
        return true;
    }

    private static String lacks(Copies.Made written) {
        if (written.missing().isEmpty()) return "";
        StringBuilder signs = new StringBuilder("Its font lacks: ");
        written.missing().stream().sorted().forEach(signs::appendCodePoint);
        return Texts.shorten(signs.toString(), 300);
    }
}
