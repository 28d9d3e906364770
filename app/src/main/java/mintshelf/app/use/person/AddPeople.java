package mintshelf.app.use.person;

import java.text.Normalizer;
import java.time.Clock;
import java.util.Locale;
import java.util.Optional;
import java.util.function.LongConsumer;
import mintshelf.app.effect.Placing;
import mintshelf.app.effect.Recorder;
import mintshelf.app.effect.Telling;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.HouseRules;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.Refused;
import mintshelf.app.ground.UnitOfWork;
import mintshelf.app.setup.Settings;
import mintshelf.app.store.person.GroupStore;
import mintshelf.app.store.person.PersonStore;
import mintshelf.app.store.person.PersonStore.Person;
import mintshelf.app.store.person.SignInStore;
import mintshelf.core.base.Refusal;
import mintshelf.core.base.Texts;
import org.springframework.dao.DuplicateKeyException;
import org.springframework.stereotype.Service;

/** Adds people: like somebody who is there, to a group, from a directory. A name is enough; a link sets the password. */
@Service
public class AddPeople {
    private final PersonStore people;
    private final SignInStore signIns;
    private final Placing placing;
    private final Settings settings;
    private final Telling telling;
    private final UnitOfWork unit;
    private final Recorder recorder;
    private final Clock clock;

    AddPeople(
            PersonStore people,
            SignInStore signIns,
            Placing placing,
            Settings settings,
            Telling telling,
            UnitOfWork unit,
            Recorder recorder,
            Clock clock) {
        this.people = people;
        this.signIns = signIns;
        this.placing = placing;
        this.settings = settings;
        this.telling = telling;
        this.unit = unit;
        this.recorder = recorder;
        this.clock = clock;
    }

    /** A person who was added, and the secret of the link that sets their password. It is shown once and kept nowhere. */
    public record Invited(long person, String token) {}

    /**
     * Adds a person with the groups, grants and deputy of {@code model}. A name is enough.
     *
     * @param login empty: made from the name
     */
    public Invited addLike(Actor actor, long model, String name, String login, String mail) {
        askToAdd(actor);
        Person like = people.person(model).orElseThrow(NotThere::new);
        return invited(
                actor,
                new Fresh(name, login, mail, like.zone()),
                "with the grants of " + like.name(),
                added -> placing.copy(model, added));
    }

    /** Adds a person to a group, whose grants they have then. A name is enough. */
    public Invited addTo(Actor actor, GroupStore.Group group, String name, String login, String mail) {
        askToAdd(actor);
        return invited(
                actor,
                new Fresh(name, login, mail, settings.zone().getId()),
                "to the group " + group.name(),
                added -> placing.into(group.id(), added));
    }

    /**
     * Adds a person of a directory, within the caller's act.
     *
     * @param invite whether the link that sets a password goes out by mail
     */
    long added(Actor actor, String name, String login, String mail, boolean invite) {
        askToAdd(actor);
        Fresh fresh = new Fresh(name, login, mail, settings.zone().getId()).clean(this);
        long id = add(fresh);
        if (!invite || fresh.mail().isEmpty()) return id;
        String token = People.token();
        signIns.invite(id, People.hash(token), clock.instant().plus(People.INVITATION));
        telling.invite(actor, people.person(id).orElseThrow(), token);
        return id;
    }

    private static void askToAdd(Actor actor) {
        if (!HouseRules.keeps(actor)) {
            throw Refused.because(
                    "access.missing", "Only who keeps the house rules adds people.", "Ask a data manager.");
        }
    }

    /** Somebody who comes, as typed. */
    private record Fresh(String name, String login, String mail, String zone) {
        Fresh clean(AddPeople by) {
            String cleanName = Texts.required("The name", name, 100).orElseThrow(Refused::new);
            String cleanMail = Texts.optional("The mail address", mail, 254).orElseThrow(Refused::new);
            mailRefusal(cleanMail).ifPresent(r -> {
                throw new Refused(r);
            });
            return new Fresh(
                    cleanName, login.isBlank() ? by.loginFor(cleanName) : checkedLogin(login), cleanMail, zone);
        }
    }

    private long add(Fresh fresh) {
        return people.add(fresh.login(), fresh.name(), fresh.mail(), "", "", fresh.zone(), clock.instant());
    }

    private Invited invited(Actor actor, Fresh typed, String how, LongConsumer place) {
        Fresh fresh = typed.clean(this);
        String token = People.token();
        try {
            long id = unit.run(() -> {
                long added = add(fresh);
                place.accept(added);
                signIns.invite(added, People.hash(token), clock.instant().plus(People.INVITATION));
                telling.invite(actor, people.person(added).orElseThrow(), token);
                recorder.noteHouse(actor, "person.added", "added " + fresh.name() + " " + how, "");
                return added;
            });
            return new Invited(id, token);
        } catch (DuplicateKeyException e) {
            throw Refused.because(
                    "person.login",
                    "Somebody signs in as “" + fresh.login() + "” already.",
                    "Choose another sign-in name.");
        }
    }

    /** Why a text is no mail address; nothing for an empty one. */
    static Optional<Refusal> mailRefusal(String mail) {
        if (mail.isEmpty() || (mail.length() <= 254 && mail.matches("[^@ ]+@[^@ ]+\\.[^@ ]+"))) return Optional.empty();
        return Optional.of(Refusal.of(
                "person.mail",
                "“" + Texts.shorten(mail, 60) + "” is not a mail address.",
                "Correct it, or leave it empty."));
    }

    /** Why a text is no sign-in name. */
    static Optional<Refusal> loginRefusal(String login) {
        if (login.length() <= 60 && login.matches("[\\p{L}\\p{N}._@-]+")) return Optional.empty();
        return Optional.of(Refusal.of(
                "person.login_form",
                "“" + Texts.shorten(login, 60) + "” holds something other than letters, digits, dot, hyphen.",
                "Choose another sign-in name."));
    }

    private String loginFor(String name) {
        String base = Normalizer.normalize(name, Normalizer.Form.NFKD)
                .replaceAll("[^A-Za-z ]", "")
                .strip()
                .toLowerCase(Locale.ROOT)
                .replaceAll(" +", ".");
        if (base.isEmpty()) base = "person";
        String login = base;
        for (int i = 2; people.byLogin(login).isPresent(); i++) login = base + i;
        return login;
    }

    static String checkedLogin(String login) {
        String clean = Texts.required("The sign-in name", login, 60).orElseThrow(Refused::new);
        loginRefusal(clean).ifPresent(r -> {
            throw new Refused(r);
        });
        return clean;
    }
}
