package mintshelf.app.ground;

import java.nio.charset.StandardCharsets;
import java.time.Clock;
import java.util.Optional;
import java.util.UUID;
import java.util.function.Supplier;
import mintshelf.app.store.act.ActStore;
import org.springframework.stereotype.Component;

/** Runs an act once, whatever number of times its form is posted. */
@Component
public class Acts {
    private final UnitOfWork unit;
    private final ActStore acts;
    private final Clock clock;

    public Acts(UnitOfWork unit, ActStore acts, Clock clock) {
        this.unit = unit;
        this.acts = acts;
        this.clock = clock;
    }

    /** The first one's answer; not to somebody who asks for something else under its key. */
    private static String answered(ActStore.Done done) {
        boolean other = done.said().isPresent()
                && Asked.now().isPresent()
                && !done.said().equals(Asked.now());
        if (other) {
            throw Refused.because(
                    "act.other",
                    "This key was used for something else.",
                    "Load the page again, or take a new key; what was done first stands, nothing else was done.");
        }
        return done.result();
    }

    /** Whether the actor has done something under a key: asked for again, it is answered and not done anew. */
    public boolean isDone(Actor actor, String key) {
        return acts.isDone(actor.person(), key);
    }

    /** The key of a second act that follows a first one by itself: the same form posted twice does it once, too. */
    public static String following(String key) {
        return UUID.nameUUIDFromBytes(key.getBytes(StandardCharsets.US_ASCII)).toString();
    }

    /** A try that is over. */
    private static final class Rehearsed extends RuntimeException {
        Rehearsed() {
            super("", null, false, false);
        }
    }

    /** Runs {@code work} in a transaction that is taken back, whatever came of it. */
    public void rehearse(Runnable work) {
        try {
            unit.run((Runnable) () -> {
                work.run();
                throw new Rehearsed();
            });
        } catch (Rehearsed e) {
            // As it was to end.
        }
    }

    /**
     * Runs {@code work} in one transaction with its key; a second post gets the first one's result.
     *
     * @param key made by the form, a UUID
     * @param work gives what is to be told, mostly the address of the page that shows the result
     */
    public String once(Actor actor, String key, Supplier<String> work) {
        if (!key.matches("[0-9a-fA-F-]{36}")) {
            throw Refused.because(
                    "act.key", "The page was sent without its key.", "Load the page again; nothing was done.");
        }
        return unit.run(() -> {
            Optional<ActStore.Done> done = acts.claim(actor.person(), key, Asked.now(), clock.instant());
            if (done.isPresent()) return answered(done.get());
            String result = work.get();
            acts.result(actor.person(), key, result);
            return result;
        });
    }
}
