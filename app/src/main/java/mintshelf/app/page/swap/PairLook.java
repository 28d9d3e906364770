package mintshelf.app.page.swap;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.ReadingRoom;
import mintshelf.app.sight.Seen;
import mintshelf.app.store.document.VersionRow;
import mintshelf.app.use.compare.CompareModels;
import mintshelf.app.use.compare.CompareSheets;
import mintshelf.app.use.document.ReadDocument;
import mintshelf.app.use.document.ReadFacts;
import mintshelf.app.use.swap.Parents.Both;
import mintshelf.core.drawing.compare.Comparison;
import mintshelf.core.model.compare.ModelComparison;
import mintshelf.core.reuse.Swaps.Pair;
import org.springframework.stereotype.Component;

/** What differs between the two documents of a pair, where they meet others: shape, sizes, facts. */
@Component
public class PairLook {
    /** Pairs that are looked at: of more only the first. */
    private static final int MOST = 6;

    private final ReadDocument read;
    private final CompareModels models;
    private final CompareSheets sheets;
    private final ReadingRoom room;

    public PairLook(ReadDocument read, CompareModels models, CompareSheets sheets, ReadingRoom room) {
        this.read = read;
        this.models = models;
        this.sheets = sheets;
        this.room = room;
    }

    /** @param same whether both say the same */
    public record Fact(String label, String old, String now, boolean same) {}

    /**
     * @param says what differs in shape, in words; {@code outside} how far both reach
     * @param held whether their shapes were held against each other at all
     */
    public record Two(
            Pair pair,
            Seen old,
            Seen now,
            List<String> says,
            int more,
            Optional<String> outside,
            boolean held,
            List<Fact> facts) {}

    List<Two> of(Actor actor, Both both) {
        return both.pairs().stream().limit(MOST).map(p -> two(actor, both, p)).toList();
    }

    private Two two(Actor actor, Both both, Pair pair) {
        ReadDocument.View old = read.view(actor, pair.old());
        ReadDocument.View now = read.view(actor, pair.now());
        VersionRow was = old.shownVersion().drawn();
        VersionRow is = now.shownVersion().drawn();
        Optional<ModelComparison> shape = room.soon(
                () -> room.apart(() -> models.compare(was.content(), is.content())), Optional.<ModelComparison>empty());
        Optional<Comparison> sheet = room.soon(
                () -> room.apart(() -> sheets.compare(was.content(), is.content())), Optional.<Comparison>empty());
        List<String> says = shape.map(c -> c.differences().stream()
                        .map(ModelComparison.Difference::says)
                        .toList())
                .or(() -> sheet.map(c -> c.differences().stream()
                        .filter(d -> !d.form())
                        .map(Comparison.Difference::says)
                        .toList()))
                .orElse(List.of());
        return new Two(
                pair,
                both.of(pair.old()),
                both.of(pair.now()),
                says.stream().limit(8).toList(),
                Math.max(0, says.size() - 8),
                shape.map(ModelComparison::outside),
                shape.isPresent() || sheet.isPresent(),
                facts(old, now));
    }

    private static List<Fact> facts(ReadDocument.View old, ReadDocument.View now) {
        Map<String, String> was = shown(old);
        Map<String, String> is = shown(now);
        // What only the other one's kind has is told too.
        Set<String> labels = new LinkedHashSet<>(was.keySet());
        labels.addAll(is.keySet());
        List<Fact> facts = new ArrayList<>();
        for (String label : labels) {
            String before = was.getOrDefault(label, "");
            String after = is.getOrDefault(label, "");
            if (!before.isEmpty() || !after.isEmpty()) facts.add(new Fact(label, before, after, before.equals(after)));
        }
        return facts;
    }

    private static Map<String, String> shown(ReadDocument.View view) {
        Map<String, String> shown = new LinkedHashMap<>();
        for (ReadFacts.Line line : view.facts()) shown.put(line.fact().fact().label(), line.shown());
        return shown;
    }
}
