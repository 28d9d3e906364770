package mintshelf.app.use.search;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import mintshelf.app.sight.Seen;
import mintshelf.app.store.content.TextStore;
import mintshelf.app.store.document.NumberStore;
import mintshelf.app.store.structure.PartStore;
import mintshelf.core.bom.Variant;
import mintshelf.core.search.SearchText;
import org.springframework.stereotype.Component;

/** Why documents were found whose rows do not say so: a former number, that of a variant, a line of what they say. */
@Component
class WhyFound {
    private final TextStore texts;
    private final NumberStore numbers;
    private final PartStore parts;

    WhyFound(TextStore texts, NumberStore numbers, PartStore parts) {
        this.texts = texts;
        this.numbers = numbers;
        this.parts = parts;
    }

    /** By document, of revisions as they were seen; a few statements, none where there is nothing to say. */
    Map<Long, String> of(List<Seen> seen, List<String> words) {
        Map<Long, String> says = new HashMap<>();
        if (seen.isEmpty()) return says;
        Map<Long, List<String>> former =
                numbers.former(seen.stream().map(s -> s.spine().id()).toList());
        Map<Long, List<Variant>> variants =
                parts.variants(seen.stream().map(s -> s.current().id()).toList());
        Map<Long, String> read = texts.words(
                seen.stream().flatMap(s -> contents(s).stream()).distinct().toList());
        for (Seen s : seen) {
            long item = s.spine().id();
            former.getOrDefault(item, List.of()).stream()
                    .filter(n -> SearchText.words(n).containsAll(words))
                    .findFirst()
                    .map(n -> "was " + n)
                    .or(() -> variants.getOrDefault(s.current().id(), List.of()).stream()
                            .filter(v -> SearchText.words(v.number()).containsAll(words))
                            .findFirst()
                            .map(v -> v.number() + " is its variant “" + v.name() + "”"))
                    .or(() -> line(s, words, read))
                    .ifPresent(why -> says.put(item, why));
        }
        return says;
    }

    private static Optional<String> line(Seen seen, List<String> words, Map<Long, String> read) {
        return contents(seen).stream()
                .map(c -> SearchText.line(words, read.getOrDefault(c, "")))
                .filter(line -> !line.isEmpty())
                .findFirst()
                .map(line -> "says “" + line + "”");
    }

    private static List<Long> contents(Seen seen) {
        List<Long> contents = new ArrayList<>(List.of(seen.spine().content().id()));
        seen.spine().out().ifPresent(out -> contents.add(out.content().id()));
        return contents;
    }
}
