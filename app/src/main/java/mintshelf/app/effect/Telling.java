package mintshelf.app.effect;

import java.time.Clock;
import java.time.Instant;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Comparator;
import java.util.HashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import mintshelf.app.ground.Actor;
import mintshelf.app.setup.Settings;
import mintshelf.app.store.notice.NoticeStore;
import mintshelf.app.store.outbox.OutboxStore;
import mintshelf.app.store.person.GrantStore;
import mintshelf.app.store.person.PersonStore;
import mintshelf.core.access.Place;
import mintshelf.core.access.Right;
import mintshelf.core.base.Texts;
import mintshelf.core.signoff.Ask;
import mintshelf.core.signoff.Asked;
import mintshelf.core.signoff.Round;
import mintshelf.core.signoff.SignOffLine;
import mintshelf.core.signoff.SignOffRules;
import org.springframework.stereotype.Component;

/** Tells people what is asked of them and what became of their work: on Today at once, by mail through the outbox. */
@Component
public class Telling {
    private final PersonStore people;
    private final GrantStore grants;
    private final OutboxStore outbox;
    private final Post post;
    private final NoticeStore notices;
    private final Settings settings;
    private final Clock clock;

    public Telling(
            PersonStore people,
            GrantStore grants,
            OutboxStore outbox,
            Post post,
            NoticeStore notices,
            Settings settings,
            Clock clock) {
        this.settings = settings;
        this.people = people;
        this.grants = grants;
        this.outbox = outbox;
        this.post = post;
        this.notices = notices;
        this.clock = clock;
    }

    /** The people who have a role at all the places. */
    public List<Long> withRole(String role, Collection<Place> places) {
        return people.withRole(role).stream()
                .filter(p -> places.stream()
                        .allMatch(place -> grants.access(p.id(), p.name()).has(role, place)))
                .map(PersonStore.Person::id)
                .toList();
    }

    /**
     * The people whom a line of a rule asks, by name.
     *
     * @param authors who worked on it: where the line wants four eyes they do not count
     */
    public List<PersonStore.Person> candidates(SignOffLine line, Set<Long> authors, Collection<Place> places) {
        Set<Long> members = line.who().kind() == Asked.Kind.GROUP
                ? people.members(line.who().id())
                : Set.of();
        return people.asked(line.who()).stream()
                .filter(p -> !line.fourEyes() || !authors.contains(p.id()))
                .filter(p -> SignOffRules.asks(line, members, grants.access(p.id(), p.name()), places))
                .toList();
    }

    /** The people who could answer an ask, by name: whom its line asks, and whoever was named for it or stands in. */
    public List<PersonStore.Person> candidates(Ask ask, Set<Long> authors, Collection<Place> places) {
        LocalDate today = LocalDate.ofInstant(clock.instant(), settings.zone());
        Set<Long> others = new LinkedHashSet<>();
        ask.person().ifPresent(others::add);
        ask.deputy(today).ifPresent(others::add);
        List<PersonStore.Person> all = new ArrayList<>(candidates(ask.line(), authors, places));
        all.forEach(p -> others.remove(p.id()));
        people.people(others).stream()
                .filter(p -> !ask.line().fourEyes() || !authors.contains(p.id()))
                .filter(p -> SignOffRules.canAnswer(ask, grants.access(p.id(), p.name()), places, today))
                .forEach(all::add);
        return all;
    }

    /** Who may sign there at all: whom a question that names a person or a group can be put to instead. */
    public List<PersonStore.Person> signers(SignOffLine line, Set<Long> authors, Collection<Place> places) {
        if (line.who().kind() == Asked.Kind.ROLE) return candidates(line, authors, places);
        Map<Long, PersonStore.Person> all = new TreeMap<>();
        grants.rolesWith(Right.SIGN).forEach(role -> people.withRole(role).forEach(p -> all.put(p.id(), p)));
        return all.values().stream()
                .filter(p -> !line.fourEyes() || !authors.contains(p.id()))
                .filter(p -> SignOffRules.maySign(grants.access(p.id(), p.name()), places))
                .sorted(Comparator.comparing(PersonStore.Person::name))
                .toList();
    }

    /** Mails an ask to the person it names and whoever stands in for them today, or to everybody who may answer it. */
    public void ask(Actor by, Round round, Ask ask, Set<Long> authors, Collection<Place> places, String what) {
        say("sign.asked", by.person(), round, ask, authors, places, what);
    }

    /** Mails an ask again to those of whom it waits; how many that are. */
    public int remind(long by, Round round, Ask ask, Set<Long> authors, Collection<Place> places) {
        return say("sign.reminded", by, round, ask, authors, places, "");
    }

    private int say(
            String code, long by, Round round, Ask ask, Set<Long> authors, Collection<Place> places, String what) {
        Instant now = clock.instant();
        List<PersonStore.Person> asked = waitedFor(round, ask, authors, places);
        if (asked.isEmpty()) return 0;
        long event =
                outbox.event(code, Optional.of(round.id()), Optional.empty(), by, what, "/rounds/" + round.id(), now);
        int mails = 0;
        for (PersonStore.Person person : asked) {
            if (post.mail(event, code, person.id(), Optional.of(ask.id()), now)) mails++;
        }
        return mails;
    }

    /** Of whom an ask waits now: the person it names, their deputy while they are away, or everybody who may answer and has not. */
    public List<PersonStore.Person> waitedFor(Round round, Ask ask, Set<Long> authors, Collection<Place> places) {
        LocalDate today = LocalDate.ofInstant(clock.instant(), settings.zone());
        Optional<Long> deputy = ask.deputy(today);
        Set<Long> answered = new LinkedHashSet<>();
        round.answers(ask).forEach(s -> answered.add(s.person()));
        return candidates(ask, authors, places).stream()
                .filter(p -> ask.person().filter(named -> named != p.id()).isEmpty()
                        || deputy.filter(d -> d == p.id()).isPresent())
                .filter(p -> !answered.contains(p.id()))
                .toList();
    }

    /** Tells whoever keeps order at all the places, and who sent it, that a question is late. */
    public void raise(Round round, Collection<Place> places, long item, String says) {
        Instant now = clock.instant();
        Set<Long> receivers = new LinkedHashSet<>(Set.of(round.by()));
        receivers.addAll(having(Right.KEEP_SHELF, places));
        String to = "/rounds/" + round.id();
        long event = outbox.event("round.late", Optional.of(round.id()), Optional.of(item), round.by(), says, to, now);
        for (long receiver : receivers) {
            Optional<PersonStore.Person> person = people.person(receiver).filter(p -> !p.left());
            if (person.isEmpty()) continue;
            notices.tell(receiver, "round.late", Optional.of(item), round.by(), says, to, now);
            post.mail(event, "round.late", receiver, Optional.empty(), now);
        }
    }

    /** Of some people those who see work in preparation at a place: whoever left it behind is not told of it. */
    public Set<Long> seeing(Collection<Long> some, Place place) {
        return having(Right.SEE_ALL, some, place);
    }

    /** Of some people those who see what is released at a place. */
    public Set<Long> reading(Collection<Long> some, Place place) {
        return having(Right.SEE_RELEASED, some, place);
    }

    private Set<Long> having(Right right, Collection<Long> some, Place place) {
        Set<Long> all = new LinkedHashSet<>();
        people.people(new LinkedHashSet<>(some)).stream()
                .filter(p -> !p.left() && grants.access(p.id(), p.name()).may(right, place))
                .forEach(p -> all.add(p.id()));
        return all;
    }

    /** Who has a right at all the places. */
    public Set<Long> having(Right right, Collection<Place> places) {
        Set<Long> all = new LinkedHashSet<>();
        grants.rolesWith(right).stream()
                .flatMap(role -> people.withRole(role).stream())
                .filter(p -> places.stream()
                        .allMatch(place -> grants.access(p.id(), p.name()).may(right, place)))
                .forEach(p -> all.add(p.id()));
        return all;
    }

    /** The asks of a round that wait and that nobody is left to answer. */
    public List<Ask> nobodyLeft(Round round, Set<Long> authors, Collection<Place> places) {
        Map<Long, Set<Long>> could = new HashMap<>();
        for (Ask ask : round.waiting()) {
            Set<Long> people = new LinkedHashSet<>();
            candidates(ask, authors, places).forEach(p -> people.add(p.id()));
            could.put(ask.id(), people);
        }
        return SignOffRules.nobodyLeft(round, could);
    }

    /** Tells who sent a round when nobody is left to answer it: it would wait without end. */
    public void tellWhenStuck(
            Actor by, Round round, Set<Long> authors, Collection<Place> places, long item, String named) {
        List<Ask> stuck = nobodyLeft(round, authors, places);
        if (stuck.isEmpty()) return;
        String what = String.join(
                ", ", stuck.stream().map(a -> "“" + a.line().meaning() + "”").toList());
        notices.tell(
                round.by(),
                "round.stuck",
                Optional.of(item),
                by.person(),
                stuckSays(named, what),
                "/rounds/" + round.id(),
                clock.instant());
        if (round.by() == by.person()) return;
        long event = outbox.event(
                "round.stuck",
                Optional.of(round.id()),
                Optional.of(item),
                by.person(),
                stuckSays(named, what),
                "/rounds/" + round.id(),
                clock.instant());
        post.mail(event, "round.stuck", round.by(), Optional.empty(), clock.instant());
    }

    private static String stuckSays(String named, String what) {
        return "Nobody is left who could sign " + named + " as " + what + ": ask others, or take it back";
    }

    /** Everybody who was asked in a round so far: the people named, and whoever has the role that an ask names. */
    public Set<Long> asked(Round round, Set<Long> authors, Collection<Place> places) {
        int until = round.openStep().orElse(Integer.MAX_VALUE);
        Set<Long> all = new LinkedHashSet<>();
        for (Ask ask : round.asks()) {
            if (ask.line().step() > until) continue;
            ask.person()
                    .ifPresentOrElse(
                            all::add, () -> candidates(ask, authors, places).forEach(p -> all.add(p.id())));
        }
        return all;
    }

    /** Mails a link that sets a password; once it is sent, the outbox forgets it. */
    public void invite(Actor by, PersonStore.Person person, String token) {
        if (person.mail().isEmpty()) return;
        Instant now = clock.instant();
        long event = outbox.event(
                OutboxStore.INVITED,
                Optional.empty(),
                Optional.empty(),
                by.person(),
                by.name() + " invites you to Mint Shelf; you sign in as " + person.login(),
                "/invitations/" + token,
                now);
        outbox.mail(event, person.id(), Optional.empty(), now);
    }

    /** Tells people on Today and by mail; who did it is not told. */
    public void tell(
            Actor by,
            Collection<Long> receivers,
            String code,
            Optional<Long> round,
            long item,
            String says,
            String to) {
        Instant now = clock.instant();
        Set<Long> others = new LinkedHashSet<>(receivers);
        others.remove(by.person());
        if (others.isEmpty()) return;
        long event = outbox.event(code, round, Optional.of(item), by.person(), says, Texts.shorten(to, 200), now);
        for (long person : others) {
            notices.tell(person, code, Optional.of(item), by.person(), says, to, now);
            post.mail(event, code, person, Optional.empty(), now);
        }
    }

    /** Tells somebody what was done in their name while they were not there. */
    public void self(Actor actor, String code, long item, String says, String to) {
        Instant now = clock.instant();
        String target = Texts.shorten(to, 200);
        long event = outbox.event(code, Optional.empty(), Optional.of(item), actor.person(), says, target, now);
        notices.tell(actor.person(), code, Optional.of(item), actor.person(), says, target, now);
        post.mail(event, code, actor.person(), Optional.empty(), now);
    }

    /** Tells people what came about by itself, in nobody's name but that of who began it. */
    public void byItself(long begun, Collection<Long> receivers, String code, long item, String says, String to) {
        Instant now = clock.instant();
        String target = Texts.shorten(to, 200);
        long event = outbox.event(code, Optional.empty(), Optional.of(item), begun, says, target, now);
        for (long person : new LinkedHashSet<>(receivers)) {
            notices.tell(person, code, Optional.of(item), begun, says, target, now);
            post.mail(event, code, person, Optional.empty(), now);
        }
    }

    /** Tells of something that concerns no document. */
    public void news(Actor by, Collection<Long> receivers, String code, String says, String to) {
        Instant now = clock.instant();
        Set<Long> others = new LinkedHashSet<>(receivers);
        others.remove(by.person());
        if (others.isEmpty()) return;
        long event = outbox.event(code, Optional.empty(), Optional.empty(), by.person(), says, to, now);
        for (long person : others) {
            notices.tell(person, code, Optional.empty(), by.person(), says, to, now);
            post.mail(event, code, person, Optional.empty(), now);
        }
    }
}
