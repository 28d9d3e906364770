package mintshelf.app.use.search;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import mintshelf.app.ground.Actor;
import mintshelf.app.sight.Seen;
import mintshelf.app.sight.Sight;
import mintshelf.app.store.content.TextStore;
import mintshelf.app.store.search.NodeIndex;
import mintshelf.core.drawing.alike.Alike;
import mintshelf.core.drawing.alike.Traits;
import mintshelf.core.search.SearchText;
import org.springframework.stereotype.Service;

/** Documents like one that is there: drawings by their shapes and notes, others by their titles. */
@Service
public class FindAlike {
    private static final int MOST = 24;
    /** Looked at closer than the index does. */
    private static final int CLOSER = 80;

    private static final int SHORTEST_WORD = 3;

    private final NodeIndex index;
    private final TextStore texts;
    private final Sight sight;

    FindAlike(NodeIndex index, TextStore texts, Sight sight) {
        this.index = index;
        this.texts = texts;
        this.sight = sight;
    }

    /** A document that is like it; without a share where its title alone is. */
    public record Like(Seen seen, int percent, List<String> says) {}

    /**
     * What is like a document.
     *
     * @param drawn whether its shapes were compared, not only its title
     */
    public record View(Seen of, boolean drawn, List<Like> likes) {}

    public View like(Actor actor, long item) {
        Seen of = sight.of(actor, item);
        long content = of.spine().content().id();
        Traits own = Traits.read(texts.traits(List.of(content)).getOrDefault(content, ""));
        List<String> title = SearchText.words(of.document().title()).stream()
                .filter(w -> w.length() >= SHORTEST_WORD)
                .toList();
        List<Long> found = index.alike(actor.access(), own.sample(), title, item, own.isEmpty() ? MOST : CLOSER);
        Map<Long, Seen> seen = sight.of(actor, found);
        if (own.isEmpty()) {
            return new View(
                    of,
                    false,
                    seen.values().stream().map(s -> new Like(s, 0, List.of())).toList());
        }
        Map<Long, String> traits = texts.traits(
                seen.values().stream().map(s -> s.spine().content().id()).toList());
        List<Like> likes = new ArrayList<>();
        for (Seen s : seen.values()) {
            Alike alike = Alike.of(
                    own, Traits.read(traits.getOrDefault(s.spine().content().id(), "")));
            if (alike.much() >= Alike.LITTLE) {
                likes.add(new Like(s, (int) Math.round(100 * alike.much()), alike.says()));
            }
        }
        likes.sort(Comparator.comparingInt((Like l) -> -l.percent()));
        return new View(of, true, likes.subList(0, Math.min(MOST, likes.size())));
    }
}
