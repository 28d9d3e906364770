package mintshelf.app.use.house;

import java.util.ArrayList;
import java.util.List;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.HouseRules;
import mintshelf.app.sight.Grants;
import mintshelf.app.store.house.HouseStore;
import mintshelf.app.store.house.Kind;
import mintshelf.app.store.person.PersonStore;
import mintshelf.app.store.person.PersonStore.Person;
import mintshelf.app.store.shelf.ShelfStore;
import mintshelf.core.access.Place;
import mintshelf.core.access.Right;
import mintshelf.core.house.DistributionRule.Sentence;
import mintshelf.core.signoff.Asked;
import org.springframework.stereotype.Service;

/** Whom the sentences of the distribution mean today, by name, and who of them would see nothing of it. */
@Service
public class ReadDistribution {
    private final PersonStore people;
    private final HouseStore house;
    private final ShelfStore shelves;
    private final Grants grants;

    ReadDistribution(PersonStore people, HouseStore house, ShelfStore shelves, Grants grants) {
        this.people = people;
        this.house = house;
        this.shelves = shelves;
        this.grants = grants;
    }

    /**
     * The people of a sentence.
     *
     * @param names of those who are told
     * @param blind names of those who see nothing there, and are told nothing
     */
    public record Told(List<String> names, List<String> blind) {}

    public Told told(Actor actor, Sentence sentence) {
        HouseRules.ask(actor);
        List<Place> places = places(sentence);
        List<String> names = new ArrayList<>();
        List<String> blind = new ArrayList<>();
        for (Person p : people.asked(sentence.who())) {
            boolean sees = grants.actor(p.id())
                    .filter(who -> places.stream()
                            .anyMatch(place -> who.access().may(Right.SEE_ALL, place)
                                    || (sentence.moment().isForReaders()
                                            && who.access().may(Right.SEE_RELEASED, place))))
                    .isPresent();
            (sees ? names : blind).add(p.name());
        }
        return new Told(names, blind);
    }

    /** The people whom a group, a role or a name means today. */
    public List<String> names(Actor actor, Asked who) {
        HouseRules.ask(actor);
        return people.asked(who).stream().map(Person::name).toList();
    }

    private List<Place> places(Sentence sentence) {
        long kind = house.kindCalled(sentence.kind()).map(Kind::id).orElse(0L);
        return shelves.shelves().stream()
                .filter(s -> sentence.shelf().isEmpty() || sentence.shelf().equals(Long.toString(s.id())))
                .map(s -> new Place(s.id(), List.of(), kind, s.library()))
                .toList();
    }
}
