package mintshelf.app.effect;

import java.util.Optional;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.Refused;
import mintshelf.app.ground.UnitOfWork;
import mintshelf.app.store.person.PersonStore;
import org.springframework.security.crypto.bcrypt.BCryptPasswordEncoder;
import org.springframework.stereotype.Component;

/**
 * Asks somebody who is signed in for their password again: what a signature can want, so that nobody signs at a desk that was left open.
 * Guesses are counted as those at the sign-in are, and brake both.
 */
@Component
public class PasswordAgain {
    private final PersonStore people;
    private final Guesses guesses;
    private final BCryptPasswordEncoder passwords;
    private final UnitOfWork unit;
    private final Recorder recorder;

    PasswordAgain(
            PersonStore people, Guesses guesses, BCryptPasswordEncoder passwords, UnitOfWork unit, Recorder recorder) {
        this.people = people;
        this.guesses = guesses;
        this.passwords = passwords;
        this.unit = unit;
        this.recorder = recorder;
    }

    /**
     * Whether the actor said their password; refused in words where what was said is another one. To be asked outside the act's
     * transaction: a wrong guess stays counted when the act is refused.
     *
     * @param said empty where nothing was asked
     */
    public boolean said(Actor actor, String said) {
        if (said.isEmpty()) return false;
        if (guesses.isOneTooMany(actor.login(), actor.address())) {
            throw Refused.because(
                    "sign.braked", "Too many wrong passwords.", "Wait a quarter of an hour; nothing was signed.");
        }
        Optional<PersonStore.Credentials> known = people.credentials(actor.login());
        if (known.isEmpty()) {
            throw Refused.because(
                    "sign.no_password",
                    "You have no password on this shelf, and this rule asks for it.",
                    "Ask a data manager for the link that sets one; nothing was signed.");
        }
        boolean right = known.filter(c -> !c.left() && passwords.matches(said, c.passwordHash()))
                .isPresent();
        if (!right) {
            unit.run(
                    () -> recorder.noteHouse(actor, "person.password_failed", "gave a wrong password for signing", ""));
            throw Refused.because("sign.password", "That is not your password.", "Type it again; nothing was signed.");
        }
        unit.run(() -> guesses.forget(actor.login(), actor.address()));
        return true;
    }
}
