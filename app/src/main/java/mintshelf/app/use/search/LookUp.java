package mintshelf.app.use.search;

import java.util.List;
import mintshelf.app.ground.Actor;
import mintshelf.app.store.person.PersonStore;
import mintshelf.core.document.Document;
import org.springframework.stereotype.Service;

/** Whom and what a field could name, while somebody types. */
@Service
public class LookUp {
    private static final int MOST = 12;

    private final PersonStore people;
    private final Search search;

    LookUp(PersonStore people, Search search) {
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
        if (words.isBlank()) return List.of();
        return search.find(actor, Search.Wish.first(words, MOST)).hits().stream()
                .map(hit -> hit.seen().document())
                .map((Document d) -> new Found(d.number(), d.title()))
                .distinct()
                .toList();
    }
}
