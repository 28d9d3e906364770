package mintshelf.app.use.person;

import java.time.LocalDate;
import java.util.List;
import java.util.Optional;
import java.util.OptionalLong;
import mintshelf.app.effect.Recorder;
import mintshelf.app.effect.Telling;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.Acts;
import mintshelf.app.ground.HouseRules;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.Refused;
import mintshelf.app.sight.RoundSight;
import mintshelf.app.store.person.PersonStore;
import mintshelf.app.store.person.PersonStore.Person;
import mintshelf.core.signoff.Away;
import org.springframework.stereotype.Service;

/** Who is away from when until when, and who signs for them meanwhile. One says so oneself, or who keeps the house rules does. */
@Service
public class SetAway {
    private final PersonStore people;
    private final RoundSight rounds;
    private final Telling telling;
    private final Acts acts;
    private final Recorder recorder;

    public SetAway(PersonStore people, RoundSight rounds, Telling telling, Acts acts, Recorder recorder) {
        this.people = people;
        this.rounds = rounds;
        this.telling = telling;
        this.acts = acts;
        this.recorder = recorder;
    }

    public static boolean may(Actor actor, long person) {
        return actor.person() == person || HouseRules.keeps(actor);
    }

    /** The day of the house. */
    public LocalDate today() {
        return rounds.today();
    }

    private Away.Deputy deputy(long id) {
        Person other = people.person(id).orElseThrow(NotThere::new);
        Optional<Away> away = other.awayUntil()
                .map(until -> new Away(
                        other.awayFrom().orElse(LocalDate.MIN),
                        until,
                        other.standsIn().isPresent()
                                ? Optional.of(other.standsIn().getAsLong())
                                : Optional.empty(),
                        ""));
        return new Away.Deputy(other.id(), other.name(), other.left(), away);
    }

    /** @param standsIn empty for nobody: what is asked by name then waits */
    public String away(Actor actor, String key, long person, LocalDate from, LocalDate until, Optional<Long> standsIn) {
        ask(actor, person);
        return acts.once(actor, key, () -> {
            Person who = people.person(person).orElseThrow(NotThere::new);
            Optional<Away.Deputy> deputy = standsIn.map(this::deputy);
            Away.ask(person, from, until, deputy, rounds.today()).ifPresent(r -> {
                throw new Refused(r);
            });
            people.setAway(
                    person,
                    Optional.of(from),
                    Optional.of(until),
                    standsIn.map(OptionalLong::of).orElse(OptionalLong.empty()));
            String days = " away from " + from + " until " + until;
            String words = deputy.map(d -> "; " + d.name() + " stands in").orElse("; nobody stands in");
            recorder.noteHouse(
                    actor,
                    "person.away",
                    (actor.person() == person ? "is" : "noted that " + who.name() + " is") + days + words,
                    "");
            deputy.ifPresent(d -> telling.news(
                    actor,
                    List.of(d.person()),
                    "person.stands_in",
                    who.name() + " is" + days + "; you stand in and are asked what is asked of " + who.name(),
                    "/in-tray"));
            return "/people/" + person + "?away";
        });
    }

    /** Somebody is there again, or will not go. */
    public String back(Actor actor, String key, long person) {
        ask(actor, person);
        return acts.once(actor, key, () -> {
            Person who = people.person(person).orElseThrow(NotThere::new);
            if (who.awayUntil().isPresent()) {
                people.setAway(person, Optional.empty(), Optional.empty(), OptionalLong.empty());
                recorder.noteHouse(
                        actor,
                        "person.back",
                        actor.person() == person ? "is there again" : "noted that " + who.name() + " is there again",
                        "");
            }
            return "/people/" + person;
        });
    }

    private static void ask(Actor actor, long person) {
        if (may(actor, person)) return;
        throw Refused.because(
                "access.missing", "One says oneself when one is away, or a data manager does.", "Nothing was changed.");
    }
}
