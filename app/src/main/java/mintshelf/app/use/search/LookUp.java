package mintshelf.app.use.search;

import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import mintshelf.app.ground.Actor;
import mintshelf.app.sight.Sight;
import mintshelf.app.store.document.ListStore;
import mintshelf.app.store.person.PersonStore;
import mintshelf.app.store.pin.PinStore;
import mintshelf.core.document.Document;
import org.springframework.stereotype.Service;

/** Whom and what a field could name, while somebody types. */
@Service
public class LookUp {
    private static final int MOST = 12;

    private final PersonStore people;
    private final PinStore pins;
    private final ListStore lists;
    private final Sight sight;
    private final Search search;

    LookUp(PersonStore people, PinStore pins, ListStore lists, Sight sight, Search search) {
        this.pins = pins;
        this.lists = lists;
        this.sight = sight;
        this.people = people;
        this.search = search;
    }

    /**
     * Something to choose.
     *
     * @param value as the field keeps it
     * @param says what it is, beside
     */
    public record Found(String value, String says) {}

    /** People who are here, by letters of their name or login. */
    public List<Found> people(Actor actor, String letters) {
        return people.with(letters.strip(), MOST).stream()
                .map(p -> new Found(p.login(), p.name()))
                .toList();
    }

    /** Documents that the actor may know of, by number, title or file name. */
    public List<Found> documents(Actor actor, String words) {
        if (words.isBlank()) return atHand(actor);
        return search.find(actor, Search.Wish.first(words, MOST)).hits().stream()
                .map(hit -> hit.seen().document())
                .map((Document d) -> new Found(d.number(), d.title()))
                .distinct()
                .toList();
    }

    /** Before anything is typed: what is pinned, then what was open last. */
    private List<Found> atHand(Actor actor) {
        Set<Long> items = new LinkedHashSet<>();
        pins.of(actor.person()).stream()
                .filter(p -> p.kind() == PinStore.Kind.ITEM)
                .forEach(p -> items.add(p.target()));
        lists.recent(actor.person(), MOST).forEach(r -> items.add(r.item()));
        return sight.of(actor, items).values().stream()
                .map(s -> new Found(s.document().number(), s.document().title()))
                .distinct()
                .limit(MOST)
                .toList();
    }
}
