package mintshelf.app.use.person;

import java.nio.charset.StandardCharsets;
import java.time.Clock;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.Collectors;
import mintshelf.app.effect.Recorder;
import mintshelf.app.ground.UnitOfWork;
import mintshelf.app.setup.Settings;
import mintshelf.app.store.person.GrantStore;
import mintshelf.app.store.person.GroupStore;
import mintshelf.app.store.person.PersonStore;
import mintshelf.app.store.person.PersonStore.Person;
import mintshelf.app.store.person.SignOnStore;
import mintshelf.core.base.ContentHash;
import mintshelf.core.base.Texts;
import org.springframework.dao.DuplicateKeyException;
import org.springframework.stereotype.Service;

/**
 * Lets in whom the house's sign-on names: somebody it named before, else whoever has that sign-in name here and was never named, else, where
 * the house wants it, somebody new. Groups of the same names follow what it says; groups that people were put into by hand do not.
 */
@Service
public class EnterBySignOn {
    private final PersonStore people;
    private final SignOnStore subjects;
    private final GroupStore groups;
    private final GrantStore grants;
    private final Settings settings;
    private final UnitOfWork unit;
    private final Recorder recorder;
    private final Clock clock;

    EnterBySignOn(
            PersonStore people,
            SignOnStore subjects,
            GroupStore groups,
            GrantStore grants,
            Settings settings,
            UnitOfWork unit,
            Recorder recorder,
            Clock clock) {
        this.people = people;
        this.subjects = subjects;
        this.groups = groups;
        this.grants = grants;
        this.settings = settings;
        this.unit = unit;
        this.recorder = recorder;
        this.clock = clock;
    }

    /**
     * Whom the sign-on named.
     *
     * @param issuer of the token, and {@code subject}: who it is for ever
     * @param login the sign-in name, {@code name} and {@code mail} as the sign-on has them; empty for none
     * @param groups names of groups; empty where the token says nothing of groups, which leaves everything as it is
     */
    public record Named(
            String issuer, String subject, String login, String name, String mail, Optional<List<String>> groups) {}

    /** What comes of it. */
    public sealed interface Result {
        /** Signed in. */
        record In(long person, String login, String name) implements Result {}

        /** Nobody here is called so. */
        record Unknown() implements Result {}

        /** They are here no more. */
        record Left() implements Result {}
    }

    public Result enter(Named named, String address) {
        try {
            return unit.run(() -> entered(named, address));
        } catch (DuplicateKeyException e) {
            // Named by two requests at once: the other one has written it.
            return unit.run(() -> entered(named, address));
        }
    }

    private Result entered(Named named, String address) {
        ContentHash subject =
                ContentHash.compute((named.issuer() + "\n" + named.subject()).getBytes(StandardCharsets.UTF_8));
        Optional<Person> person = subjects.person(subject).flatMap(people::person);
        if (person.isEmpty()) person = first(named, subject, address);
        String who = Texts.shorten(Texts.line(named.login().isEmpty() ? named.subject() : named.login()), 60);
        if (person.isEmpty()) {
            failed(address, who, "nobody here is called so");
            return new Result.Unknown();
        }
        Person in = person.get();
        if (in.left()) {
            failed(address, who, "they have left");
            return new Result.Left();
        }
        named.groups().ifPresent(said -> follow(in, said, address));
        recorder.noteHouse(OptionalLong.of(in.id()), address, "person.signed_in", "signed in by the house's sign-on");
        return new Result.In(in.id(), in.login(), in.name());
    }

    private void failed(String address, String who, String why) {
        recorder.noteHouse(
                OptionalLong.empty(),
                address,
                "person.sign_in_failed",
                "could not sign in by the house's sign-on as “" + who + "”: " + why);
    }

    /** Named for the first time. */
    private Optional<Person> first(Named named, ContentHash subject, String address) {
        String login = Texts.shorten(Texts.line(named.login()), 60);
        if (login.isEmpty()) return Optional.empty();
        Optional<Person> here = people.byLogin(login);
        if (here.isPresent()) {
            // A second subject of the same name is somebody else.
            if (subjects.isKnown(here.get().id())) return Optional.empty();
            subjects.add(subject, here.get().id(), clock.instant());
            return here;
        }
        if (!settings.signOn().newPeople() || !login.matches("[\\p{L}\\p{N}._@-]+")) return Optional.empty();
        String name = Texts.shorten(Texts.line(named.name()), 100);
        String mail = Texts.line(named.mail());
        long added = people.add(
                login,
                name.isEmpty() ? login : name,
                mail.length() <= 254 ? mail : "",
                "",
                "",
                settings.zone().getId(),
                clock.instant());
        subjects.add(subject, added, clock.instant());
        recorder.noteHouse(
                OptionalLong.of(added), address, "person.added", "was added by the house's sign-on as " + login);
        return people.person(added);
    }

    /** Puts somebody into the groups that are named and out of those that were named before. */
    private void follow(Person person, List<String> said, String address) {
        Map<String, GroupStore.Group> known =
                groups.groups().stream().collect(Collectors.toMap(g -> Texts.key(g.name()), Function.identity()));
        Set<Long> wanted = new LinkedHashSet<>();
        said.forEach(name -> Optional.ofNullable(known.get(Texts.key(name))).ifPresent(g -> wanted.add(g.id())));
        Set<Long> before = groups.bySignOn(person.id());
        for (GroupStore.Group group : known.values()) {
            boolean member = group.people().containsKey(person.id());
            if (wanted.contains(group.id()) && !member) {
                groups.joinBySignOn(group.id(), person.id());
                note(person, address, "came into the group " + group.name());
            } else if (!wanted.contains(group.id()) && before.contains(group.id())) {
                groups.leave(group.id(), person.id());
                if (grants.isKept()) {
                    note(person, address, "went out of the group " + group.name());
                } else {
                    // Nobody would keep the house any more: whoever signs in is not turned away for that.
                    groups.joinBySignOn(group.id(), person.id());
                    note(person, address, "stays in the group " + group.name() + ": nobody else keeps the house rules");
                }
            }
        }
    }

    private void note(Person person, String address, String says) {
        recorder.noteHouse(
                OptionalLong.of(person.id()), address, "house.grants", says + ", as the house's sign-on says");
    }
}
