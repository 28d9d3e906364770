package mintshelf.app.sight;

import mintshelf.app.ground.Actor;
import mintshelf.app.store.person.PersonStore;
import org.springframework.stereotype.Component;

/** People as those who act: with the grants and the zone that they have now. */
@Component
public class Grants {
    private final PersonStore people;

    public Grants(PersonStore people) {
        this.people = people;
    }

    /** @param address from where they ask */
    public Actor actor(long person, String login, String name, String address) {
        String zone = people.person(person).map(PersonStore.Person::zone).orElse("UTC");
        return new Actor(people.access(person, name), login, zone, address);
    }
}
