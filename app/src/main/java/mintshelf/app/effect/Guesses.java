package mintshelf.app.effect;

import java.time.Clock;
import java.time.Duration;
import mintshelf.app.ground.UnitOfWork;
import mintshelf.app.store.person.SignInStore;
import mintshelf.core.base.Texts;
import org.springframework.stereotype.Component;

/**
 * Brakes whoever guesses passwords, wherever one is asked for. Tries are counted in the database, by account and by address, so that all
 * nodes brake together.
 */
@Component
public class Guesses {
    /** Tries of one address at one account: who guesses is braked long before the account that is guessed at. */
    public static final int MOST_PER_PAIR = 8;

    public static final int MOST_PER_ADDRESS = 60;
    public static final int MOST_PER_ACCOUNT = 100;
    private static final Duration WINDOW = Duration.ofMinutes(15);

    private final SignInStore signIns;
    private final UnitOfWork unit;
    private final Clock clock;

    Guesses(SignInStore signIns, UnitOfWork unit, Clock clock) {
        this.signIns = signIns;
        this.unit = unit;
        this.clock = clock;
    }

    /** An address as it is counted. */
    public static String from(String address) {
        return Texts.shorten(Texts.line(address), 60);
    }

    /**
     * Notes a try and tells whether it is one too many. Noted before it is looked at: of thirty tries at once the ninth is as late as of
     * thirty one after the other. In a transaction of its own: a try stays counted, whatever becomes of the act.
     */
    public boolean isOneTooMany(String login, String address) {
        String from = from(address);
        unit.run(() -> signIns.noteSignIn(login, from, clock.instant()));
        SignInStore.Tries tries = signIns.tries(login, from, clock.instant().minus(WINDOW));
        return tries.pair() > MOST_PER_PAIR || tries.address() > MOST_PER_ADDRESS || tries.account() > MOST_PER_ACCOUNT;
    }

    /** The password was right: what was tried before is forgotten. */
    public void forget(String login, String address) {
        signIns.forgetSignIns(login, from(address));
    }
}
