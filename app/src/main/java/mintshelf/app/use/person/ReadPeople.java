package mintshelf.app.use.person;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.HouseRules;
import mintshelf.app.ground.NotThere;
import mintshelf.app.store.person.GrantStore;
import mintshelf.app.store.person.GroupStore;
import mintshelf.app.store.person.PersonStore;
import mintshelf.app.store.person.PersonStore.Person;
import mintshelf.core.access.Access;
import mintshelf.core.access.Grant;
import mintshelf.core.access.Place;
import mintshelf.core.access.Right;
import org.springframework.stereotype.Service;

/** People as others see them: their cards, who is in which group, who can do what through which grant. */
@Service
public class ReadPeople {
    private final PersonStore people;
    private final GrantStore grants;
    private final GroupStore groups;

    public ReadPeople(PersonStore people, GrantStore grants, GroupStore groups) {
        this.people = people;
        this.grants = grants;
        this.groups = groups;
    }

    /** A person with what their contact card shows. */
    public record Card(Person person, List<String> groups, Optional<Person> standsIn, List<Grant> grants) {}

    public Card card(Actor actor, long id) {
        Person person = people.person(id).orElseThrow(NotThere::new);
        Optional<Person> deputy =
                person.standsIn().isPresent() ? people.person(person.standsIn().getAsLong()) : Optional.empty();
        boolean own = actor.person() == id || HouseRules.keeps(actor);
        return new Card(
                person,
                groups.groupsOf(id),
                deputy,
                own ? grants.access(id, person.name()).grants() : List.of());
    }

    /** People in the order of their names. */
    public List<Person> people(Actor actor, String afterName, long afterId, int most) {
        return people.people(afterName, afterId, most);
    }

    public Map<Long, List<String>> groups(List<Person> of) {
        return groups.groupsOf(of.stream().map(Person::id).toList());
    }

    /** "Who can do this here, and through which grant?" Who sees released versions only is told of their own grants. */
    public List<Grant> through(Actor actor, Right right, Place place) {
        if (!actor.access().may(Right.SEE_ALL, place)) return actor.access().through(right, place);
        return new Access(0, "", grants.allGrants()).through(right, place);
    }
}
