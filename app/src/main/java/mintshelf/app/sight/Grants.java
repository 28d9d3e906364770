package mintshelf.app.sight;

import java.util.Optional;
import mintshelf.app.ground.Actor;
import mintshelf.app.store.person.GrantStore;
import mintshelf.app.store.person.PersonStore;
import mintshelf.core.access.Access;
import org.springframework.stereotype.Component;

/** People as those who act: with the grants and the zone that they have now. */
@Component
public class Grants {
    private final PersonStore people;
    private final GrantStore grants;

    public Grants(PersonStore people, GrantStore grants) {
        this.people = people;
        this.grants = grants;
    }

    /** Who acts without being there, in a run or by mail; none who has left. */
    public Optional<Actor> actor(long person) {
        return people.person(person)
                .filter(p -> !p.left())
                .map(p -> new Actor(grants.access(p.id(), p.name()), p.login(), p.zone(), "run"));
    }

    /** @param address from where they ask */
    public Actor actor(long person, String login, String name, String address) {
        String zone = people.person(person).map(PersonStore.Person::zone).orElse("UTC");
        return new Actor(grants.access(person, name), login, zone, address);
    }

    /** The server itself, where it does by itself what its people would see all together: reminding, for one. It signs nothing. */
    public Actor server() {
        return new Actor(new Access(0, "Mint Shelf", grants.allGrants()), "", "UTC", "server");
    }
}
