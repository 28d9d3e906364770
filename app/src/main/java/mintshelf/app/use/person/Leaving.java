package mintshelf.app.use.person;

import java.time.Clock;
import java.util.List;
import java.util.Optional;
import java.util.OptionalLong;
import mintshelf.app.effect.HandOver;
import mintshelf.app.effect.Recorder;
import mintshelf.app.effect.Telling;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.HouseRules;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.Refused;
import mintshelf.app.ground.UnitOfWork;
import mintshelf.app.sight.Grants;
import mintshelf.app.store.person.PersonStore;
import mintshelf.app.store.person.PersonStore.Person;
import mintshelf.core.access.Access;
import org.springframework.stereotype.Service;

/** Somebody has left: no sign-in, no rights, no session, at once; what they held and were asked goes to whoever is named. */
@Service
public class Leaving {
    private static final int PEOPLE = 1000;

    private final PersonStore people;
    private final HandOver handOver;
    private final Grants grants;
    private final Telling telling;
    private final Sessions sessions;
    private final UnitOfWork unit;
    private final Recorder recorder;
    private final Clock clock;

    Leaving(
            PersonStore people,
            HandOver handOver,
            Grants grants,
            Telling telling,
            Sessions sessions,
            UnitOfWork unit,
            Recorder recorder,
            Clock clock) {
        this.people = people;
        this.handOver = handOver;
        this.grants = grants;
        this.telling = telling;
        this.sessions = sessions;
        this.unit = unit;
        this.recorder = recorder;
        this.clock = clock;
    }

    /**
     * What somebody's leaving would do.
     *
     * @param standsInFor names of those whom they stand in for
     * @param heirs who could take over
     */
    public record Plan(Person person, HandOver.Carried carried, List<String> standsInFor, List<Person> heirs) {}

    public Plan plan(Actor actor, long id) {
        HouseRules.ask(actor);
        Person person = leaving(actor, id);
        return new Plan(
                person,
                handOver.carried(actor, id),
                people.standIns(id).stream().map(Person::name).toList(),
                people.people("", 0, PEOPLE).stream()
                        .filter(p -> !p.left() && p.id() != id)
                        .toList());
    }

    private Person leaving(Actor actor, long id) {
        if (id == actor.person()) {
            throw Refused.because(
                    "person.own", "You keep this house.", "Another data manager says that you have left.");
        }
        return people.person(id).filter(p -> !p.left()).orElseThrow(NotThere::new);
    }

    /**
     * Notes that somebody has left.
     *
     * @param heir who takes over; 0 for nobody: holds end, and what was asked is asked of everybody whom the rules ask
     */
    public void leave(Actor actor, long id, long heir) {
        HouseRules.ask(actor);
        Person person = leaving(actor, id);
        Optional<Access> to = heir == 0
                ? Optional.empty()
                : Optional.of(grants.actor(heir)
                        .filter(a -> heir != id)
                        .orElseThrow(NotThere::new)
                        .access());
        unit.run(() -> {
            handOver.handOn(actor, person, to, person.name() + " has left");
            for (Person away : people.standIns(id)) {
                people.setAway(away.id(), away.awayFrom(), away.awayUntil(), OptionalLong.empty());
                telling.news(
                        actor,
                        List.of(away.id()),
                        "person.stands_in",
                        person.name() + " has left and stands in for you no more: name somebody else",
                        "/people/" + away.id());
            }
            people.leave(id, clock.instant());
            recorder.noteHouse(
                    actor,
                    "person.left",
                    "noted that " + person.name() + " has left"
                            + to.map(a -> "; " + a.name() + " takes over").orElse(""),
                    "");
        });
        sessions.endAll(person.login());
    }
}
