package mintshelf.app.use.search;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.ReadingRoom;
import mintshelf.app.sight.Seen;
import mintshelf.app.sight.Sheets;
import mintshelf.app.sight.Sight;
import mintshelf.app.store.content.StoredContent;
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
    private final Sheets sheets;
    private final ReadingRoom room;

    FindAlike(NodeIndex index, TextStore texts, Sight sight, Sheets sheets, ReadingRoom room) {
        this.sheets = sheets;
        this.room = room;
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
        if (own.isEmpty()) {
            Map<Long, Seen> seen = sight.of(actor, index.alike(actor.access(), own.sample(), title, item, MOST));
            return new View(
                    of,
                    false,
                    seen.values().stream().map(s -> new Like(s, 0, List.of())).toList());
        }
        List<Like> likes = closer(actor, own, title, item);
        return new View(of, true, likes.subList(0, Math.min(MOST, likes.size())));
    }

    /** The drawings that a file is most like, which is not filed yet; empty for what is no drawing, or like none. */
    public List<Like> near(Actor actor, StoredContent file, int least, int most) {
        Traits own = room.apart(
                () -> sheets.opened(file).flatMap(Sheets::scene).map(Traits::of).orElse(new Traits(List.of())));
        if (own.isEmpty()) return List.of();
        return closer(actor, own, List.of(), 0).stream()
                .filter(l -> l.percent() >= least)
                .limit(most)
                .toList();
    }

    private List<Like> closer(Actor actor, Traits own, List<String> title, long except) {
        Map<Long, Seen> seen = sight.of(actor, index.alike(actor.access(), own.sample(), title, except, CLOSER));
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
        return likes;
    }
}
