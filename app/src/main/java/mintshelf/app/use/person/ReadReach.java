package mintshelf.app.use.person;

import java.util.ArrayList;
import java.util.EnumMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import mintshelf.app.effect.Telling;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.HouseRules;
import mintshelf.app.ground.NotThere;
import mintshelf.app.sight.Grants;
import mintshelf.app.sight.Seen;
import mintshelf.app.sight.Sight;
import mintshelf.app.store.house.HouseStore;
import mintshelf.app.store.person.GrantStore;
import mintshelf.app.store.person.PersonStore;
import mintshelf.app.store.person.PersonStore.Person;
import mintshelf.app.store.shelf.ShelfStore;
import mintshelf.core.access.Grant;
import mintshelf.core.access.Place;
import mintshelf.core.access.Right;
import org.springframework.stereotype.Service;

/** Who may do what, both ways: the people of a document, and how far a person reaches. */
@Service
public class ReadReach {
    private final PersonStore people;
    private final Grants grants;
    private final ShelfStore shelves;
    private final Telling telling;
    private final Sight sight;
    private final GrantStore all;
    private final HouseStore house;

    ReadReach(
            PersonStore people,
            Grants grants,
            ShelfStore shelves,
            Telling telling,
            Sight sight,
            GrantStore all,
            HouseStore house) {
        this.people = people;
        this.grants = grants;
        this.shelves = shelves;
        this.telling = telling;
        this.sight = sight;
        this.all = all;
        this.house = house;
    }

    /** What a person may do on a shelf: the right in words, with the grants that give it. */
    public record OnShelf(String shelf, Map<String, String> may) {}

    /** How far a person reaches, by shelf; grants for single kinds and folders stand among their roles. For data managers. */
    public List<OnShelf> ofPerson(Actor actor, long person) {
        HouseRules.ask(actor);
        Actor who = grants.actor(person).orElseThrow(NotThere::new);
        List<OnShelf> reach = new ArrayList<>();
        for (ShelfStore.Shelf shelf : shelves.shelves()) {
            Place place = new Place(shelf.id(), List.of(), 0, shelf.library());
            Map<String, String> may = new LinkedHashMap<>();
            for (Right right : Right.values()) {
                List<Grant> through = who.access().through(right, place);
                if (!through.isEmpty()) may.put(right.words(), through.get(0).says());
            }
            reach.add(new OnShelf(shelf.name(), may));
        }
        return reach;
    }

    /** Who has which role where, of the grants that reach documents of a kind: "Drawing office is Designer, everywhere". For data managers. */
    public List<String> ofKind(Actor actor, String kind) {
        HouseRules.ask(actor);
        long id = house.kindCalled(kind).orElseThrow(NotThere::new).id();
        return all.allGrants().stream()
                .filter(g -> g.scope().kind().isEmpty() || g.scope().kind().getAsLong() == id)
                .map(g -> g.to() + " is " + g.role().name() + ", " + g.where())
                .sorted()
                .toList();
    }

    /** Who may do what to a document, by name and right, for who sees work in preparation there; nobody's name for others. */
    public Map<Right, List<String>> ofDocument(Actor actor, long item) {
        Seen seen = sight.of(actor, item);
        Map<Right, List<String>> may = new EnumMap<>(Right.class);
        if (!seen.all()) return may;
        for (Right right : Right.values()) {
            Set<Long> having = telling.having(right, List.of(seen.document().place()));
            may.put(right, people.people(having).stream().map(Person::name).toList());
        }
        return may;
    }
}
