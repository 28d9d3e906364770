package mintshelf.app.use.search;

import java.util.List;
import mintshelf.app.store.document.ListStore;
import mintshelf.app.use.Actor;
import mintshelf.app.use.Seen;
import mintshelf.app.use.Sight;
import mintshelf.core.search.SearchText;
import org.springframework.stereotype.Service;

/** Finds documents by number, title and file name. */
@Service
public class Search {
    private final ListStore lists;
    private final Sight sight;

    public Search(ListStore lists, Sight sight) {
        this.lists = lists;
        this.sight = sight;
    }

    /** Up to {@code most} hits from the {@code from}th on. */
    public List<Seen> find(Actor actor, String text, int from, int most) {
        List<Long> ids = lists.search(SearchText.read(text), actor.access(), from, most);
        return List.copyOf(sight.of(actor, ids).values());
    }
}
