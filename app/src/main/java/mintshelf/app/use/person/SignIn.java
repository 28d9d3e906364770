package mintshelf.app.use.person;

import java.time.Clock;
import java.time.Duration;
import java.util.Optional;
import java.util.OptionalLong;
import mintshelf.app.effect.Recorder;
import mintshelf.app.ground.UnitOfWork;
import mintshelf.app.store.person.PersonStore;
import mintshelf.app.store.person.SignInStore;
import mintshelf.core.base.Texts;
import org.springframework.security.crypto.bcrypt.BCryptPasswordEncoder;
import org.springframework.stereotype.Service;

/**
 * Checks a login and a password. Failures are counted in the database, by account and by address, so that all nodes brake
 * together; an unknown account takes as long as a known one and is told nothing else.
 */
@Service
public class SignIn {
    /** Tries of one address at one account: who guesses is braked long before the account that is guessed at. */
    static final int MOST_PER_PAIR = 8;

    static final int MOST_PER_ADDRESS = 60;
    static final int MOST_PER_ACCOUNT = 100;
    static final Duration WINDOW = Duration.ofMinutes(15);

    private final PersonStore people;
    private final SignInStore signIns;
    private final BCryptPasswordEncoder passwords;
    private final UnitOfWork unit;
    private final Recorder recorder;
    private final Clock clock;
    private final String nobody;

    public SignIn(
            PersonStore people,
            SignInStore signIns,
            BCryptPasswordEncoder passwords,
            UnitOfWork unit,
            Recorder recorder,
            Clock clock) {
        this.people = people;
        this.signIns = signIns;
        this.passwords = passwords;
        this.unit = unit;
        this.recorder = recorder;
        this.clock = clock;
        this.nobody = passwords.encode("nobody");
    }

    /** What a sign-in comes to. */
    public sealed interface Result {
        /** Signed in. */
        record In(long person, String login, String name) implements Result {}

        /** Login and password do not belong together. */
        record Wrong() implements Result {}

        /** Too many failures; try again later. */
        record Braked() implements Result {}
    }

    public Result signIn(String login, String password, String address) {
        // Noted before it is looked at: of thirty tries at once the ninth is as late as of thirty one after the other.
        String from = Texts.shorten(Texts.line(address), 60);
        unit.run(() -> signIns.noteSignIn(login, from, clock.instant()));
        SignInStore.Tries tries = signIns.tries(login, from, clock.instant().minus(WINDOW));
        boolean braked = tries.pair() > MOST_PER_PAIR
                || tries.address() > MOST_PER_ADDRESS
                || tries.account() > MOST_PER_ACCOUNT;
        if (braked) {
            noteFailed(login, from, "too many tries");
            return new Result.Braked();
        }
        Optional<PersonStore.Credentials> known = people.credentials(login).filter(c -> !c.left());
        boolean right = passwords.matches(
                password, known.map(PersonStore.Credentials::passwordHash).orElse(nobody));
        if (known.isEmpty() || !right) {
            noteFailed(login, from, "name and password do not belong together");
            return new Result.Wrong();
        }
        PersonStore.Credentials person = known.get();
        unit.run(() -> {
            signIns.forgetSignIns(login, from);
            recorder.noteHouse(OptionalLong.of(person.person()), Texts.line(address), "person.signed_in", "signed in");
        });
        return new Result.In(person.person(), person.login(), person.name());
    }

    private void noteFailed(String login, String address, String why) {
        unit.run(() -> recorder.noteHouse(
                OptionalLong.empty(),
                address,
                "person.sign_in_failed",
                "could not sign in as “" + Texts.shorten(Texts.line(login), 60) + "”: " + why));
    }
}
