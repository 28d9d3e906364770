package mintshelf.app.use.search;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import mintshelf.app.ground.Actor;
import mintshelf.app.sight.Seen;
import mintshelf.app.sight.Sight;
import mintshelf.app.store.content.TextStore;
import mintshelf.app.store.document.ListStore;
import mintshelf.core.search.SearchText;
import org.springframework.stereotype.Service;

/** Finds documents by number, title and file name. */
@Service
public class Search {
    private static final int MOST_SAYING = 5000;

    private final ListStore lists;
    private final TextStore texts;
    private final Sight sight;

    public Search(ListStore lists, TextStore texts, Sight sight) {
        this.lists = lists;
        this.texts = texts;
        this.sight = sight;
    }

    /**
     * A document that was found.
     *
     * @param says the line of its content that says what was looked for; empty when its name does
     */
    public record Hit(Seen seen, String says) {}

    /** What of a search reads as a question for facts, which it cannot answer. */
    public static List<String> notUnderstood(String text) {
        return SearchText.read(text).notUnderstood();
    }

    /** Up to {@code most} hits from the {@code from}th on. */
    public List<Hit> find(Actor actor, String text, int from, int most) {
        SearchText search = SearchText.read(text);
        // Numbers and names come first: where they fill what is shown, no sheet need say it.
        List<Long> ids = lists.search(search, actor.access(), List.of(), from, most);
        Map<Long, Long> saying = Map.of();
        if (ids.size() < most) {
            saying = texts.find(search, actor.access(), MOST_SAYING);
            if (!saying.isEmpty()) ids = lists.search(search, actor.access(), saying.keySet(), from, most);
        }
        Map<Long, Long> shown = new HashMap<>(saying);
        shown.keySet().retainAll(ids);
        Map<Long, String> words = texts.words(shown.values());
        return sight.of(actor, ids).values().stream()
                .map(seen -> new Hit(
                        seen,
                        search.line(words.getOrDefault(
                                shown.getOrDefault(seen.spine().id(), 0L), ""))))
                .toList();
    }
}
