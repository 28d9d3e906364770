package mintshelf.app.use.person;

import java.util.Optional;
import java.util.OptionalLong;
import mintshelf.app.effect.Guesses;
import mintshelf.app.effect.Recorder;
import mintshelf.app.ground.UnitOfWork;
import mintshelf.app.store.person.PersonStore;
import mintshelf.core.base.Texts;
import org.springframework.security.crypto.bcrypt.BCryptPasswordEncoder;
import org.springframework.stereotype.Service;

/**
 * Checks a login and a password. Failures are counted in the database, by account and by address, so that all nodes brake
 * together; an unknown account takes as long as a known one and is told nothing else.
 */
@Service
public class SignIn {
    private final PersonStore people;
    private final Guesses guesses;
    private final BCryptPasswordEncoder passwords;
    private final UnitOfWork unit;
    private final Recorder recorder;
    private final String nobody;

    public SignIn(
            PersonStore people, Guesses guesses, BCryptPasswordEncoder passwords, UnitOfWork unit, Recorder recorder) {
        this.people = people;
        this.guesses = guesses;
        this.passwords = passwords;
        this.unit = unit;
        this.recorder = recorder;
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
        String from = Guesses.from(address);
        if (guesses.isOneTooMany(login, address)) {
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
            guesses.forget(login, address);
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
