package mintshelf.app.use.person;

import java.nio.charset.StandardCharsets;
import java.security.SecureRandom;
import java.time.Clock;
import java.time.DateTimeException;
import java.time.Duration;
import java.time.ZoneId;
import java.util.Base64;
import java.util.Locale;
import java.util.Optional;
import java.util.OptionalLong;
import mintshelf.app.effect.Placing;
import mintshelf.app.effect.Recorder;
import mintshelf.app.effect.Telling;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.HouseRules;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.Refused;
import mintshelf.app.ground.UnitOfWork;
import mintshelf.app.store.person.PersonStore;
import mintshelf.app.store.person.PersonStore.Person;
import mintshelf.app.store.person.SignInStore;
import mintshelf.core.base.ContentHash;
import mintshelf.core.base.Texts;
import org.springframework.security.crypto.bcrypt.BCryptPasswordEncoder;
import org.springframework.stereotype.Service;

/** People: who they are, adding one like another, the first one of an empty server, their passwords. */
@Service
public class People {
    static final Duration INVITATION = Duration.ofDays(14);
    /** BCrypt takes 72 bytes and would ignore the rest. */
    private static final int LONGEST_PASSWORD = 72;

    private static final int SHORTEST_PASSWORD = 12;
    /** Without letters and digits that are taken for each other. */
    private static final String CODE = "ABCDEFGHJKMNPQRSTUVWXYZ23456789";

    private static final SecureRandom RANDOM = new SecureRandom();

    private final PersonStore people;
    private final SignInStore signIns;
    private final Placing placing;
    private final BCryptPasswordEncoder passwords;
    private final Sessions sessions;
    private final Telling telling;
    private final UnitOfWork unit;
    private final Recorder recorder;
    private final Clock clock;

    public People(
            PersonStore people,
            SignInStore signIns,
            Placing placing,
            BCryptPasswordEncoder passwords,
            Sessions sessions,
            Telling telling,
            UnitOfWork unit,
            Recorder recorder,
            Clock clock) {
        this.people = people;
        this.signIns = signIns;
        this.placing = placing;
        this.passwords = passwords;
        this.sessions = sessions;
        this.telling = telling;
        this.unit = unit;
        this.recorder = recorder;
        this.clock = clock;
    }

    public boolean serverIsEmpty() {
        return people.isEmpty();
    }

    /** Makes the first person of an empty server its data manager. Refused as soon as there is anybody. */
    public long addFirst(String name, String login, String password, String zone, String code, String address) {
        String cleanName = Texts.required("The name", name, 100).orElseThrow(Refused::new);
        String cleanLogin = AddPeople.checkedLogin(login);
        String hash = hashed(password, cleanLogin);
        String cleanZone = checkedZone(zone);
        return unit.run(() -> {
            if (!people.isEmpty()) {
                throw Refused.because("server.in_use", "This server has people already.", "Sign in.");
            }
            if (!signIns.begin(hash(code.strip().toUpperCase(Locale.ROOT)), clock.instant())) {
                throw Refused.because(
                        "first.code",
                        "That is not the code that the server printed.",
                        "It stands on the console on which the server was started.");
            }
            long id = people.add(cleanLogin, cleanName, "", "", "", cleanZone, clock.instant());
            people.setPassword(id, hash);
            placing.keeper(id);
            recorder.noteHouse(OptionalLong.of(id), address, "person.first", "began as the first data manager");
            return id;
        });
    }

    /** A code for the first start of an empty server; empty where there is somebody. Printed where the server is started. */
    public Optional<String> firstCode() {
        if (!people.isEmpty()) return Optional.empty();
        StringBuilder code = new StringBuilder();
        for (int i = 0; i < 8; i++) code.append(CODE.charAt(RANDOM.nextInt(CODE.length())));
        unit.run(() -> signIns.offerFirst(hash(code.toString())));
        return Optional.of(code.toString());
    }

    /** Changes one's own password; the old one is asked for. */
    public void changePassword(Actor actor, String old, String fresh) {
        String known = people.credentials(actor.login())
                .map(PersonStore.Credentials::passwordHash)
                .orElseThrow(NotThere::new);
        if (!passwords.matches(old, known)) {
            throw Refused.because("password.wrong", "The old password is another one.", "Nothing was changed.");
        }
        String hash = hashed(fresh, actor.login());
        unit.run(() -> {
            people.setPassword(actor.person(), hash);
            recorder.noteHouse(actor, "person.password_set", "changed the password", "");
        });
        sessions.endOthers(actor);
    }

    /** A new link that sets a password, for somebody who lost theirs or never had one. The ones before it stay as they are. */
    public AddPeople.Invited inviteAgain(Actor actor, long id) {
        HouseRules.ask(actor);
        Person person = people.person(id).filter(p -> !p.left()).orElseThrow(NotThere::new);
        String token = token();
        unit.run(() -> {
            signIns.invite(id, hash(token), clock.instant().plus(INVITATION));
            recorder.noteHouse(actor, "person.invited", "invited " + person.name() + " again", "");
            telling.invite(actor, person, token);
        });
        return new AddPeople.Invited(id, token);
    }

    private static String checkedZone(String zone) {
        try {
            return zone.isBlank() ? "UTC" : ZoneId.of(zone).getId();
        } catch (DateTimeException e) {
            return "UTC";
        }
    }

    /** Sets the password of the person whom the link was sent to; the link works once. */
    public String acceptInvitation(String token, String password, String address) {
        return unit.run(() -> {
            long id = signIns.invited(hash(token), clock.instant())
                    .orElseThrow(() -> Refused.because(
                            "invitation.old",
                            "This link was used or is too old.",
                            "Ask a data manager for a new one."));
            Person person = people.person(id).orElseThrow(NotThere::new);
            people.setPassword(id, hashed(password, person.login()));
            signIns.useInvitation(hash(token), clock.instant());
            recorder.noteHouse(OptionalLong.of(id), address, "person.password_set", "set a password");
            return person.login();
        });
    }

    /** Whom a link that can still be used is for. */
    public Optional<Person> invitedBy(String token) {
        return unit.run(() -> signIns.invited(hash(token), clock.instant())).flatMap(people::person);
    }

    /** Whether the link can still be used. */
    public boolean isOpen(String token) {
        return unit.run(() -> signIns.invited(hash(token), clock.instant()).isPresent());
    }

    private String hashed(String password, String login) {
        if (password.length() < SHORTEST_PASSWORD) {
            throw Refused.because(
                    "password.short",
                    "A password has at least " + SHORTEST_PASSWORD + " characters.",
                    "A few words in a row are easy to keep in mind.");
        }
        if (password.getBytes(StandardCharsets.UTF_8).length > LONGEST_PASSWORD) {
            throw Refused.because("password.long", "A password has at most 72 characters.", "Choose a shorter one.");
        }
        if (WeakPasswords.isCommon(password)) {
            throw Refused.because(
                    "password.common", "That password is one of those that are tried first.", "Choose another one.");
        }
        if (password.chars().distinct().count() < 5 || Texts.key(password).contains(Texts.key(login))) {
            throw Refused.because("password.weak", "That password is easy to guess.", "Choose another one.");
        }
        return passwords.encode(password);
    }

    static String token() {
        byte[] bytes = new byte[32];
        RANDOM.nextBytes(bytes);
        return Base64.getUrlEncoder().withoutPadding().encodeToString(bytes);
    }

    static ContentHash hash(String token) {
        return ContentHash.compute(token.getBytes(StandardCharsets.UTF_8));
    }
}
