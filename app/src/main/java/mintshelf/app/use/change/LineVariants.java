package mintshelf.app.use.change;

import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import mintshelf.app.ground.Refused;
import mintshelf.app.sight.Seen;
import mintshelf.app.store.change.LineVariantStore;
import mintshelf.app.store.structure.PartStore;
import mintshelf.core.base.Texts;
import mintshelf.core.bom.Variant;
import org.springframework.stereotype.Component;

/** The variants that lines of an order are about: a revision covers all of them, a line may say which ones it is for. */
@Component
class LineVariants {
    private final LineVariantStore store;
    private final PartStore parts;

    LineVariants(LineVariantStore store, PartStore parts) {
        this.store = store;
        this.parts = parts;
    }

    /**
     * Of a line.
     *
     * @param named those that it names
     * @param describes those that its document describes now, and those that are named
     */
    record Of(List<String> named, List<String> describes) {
        static final Of NONE = new Of(List.of(), List.of());
    }

    /** By document, of those that are seen. */
    Map<Long, Of> of(long order, Collection<Seen> documents) {
        Map<Long, List<String>> named = store.of(order);
        Map<Long, List<Variant>> variants =
                parts.variants(documents.stream().map(s -> s.current().id()).toList());
        Map<Long, Of> all = new HashMap<>();
        for (Seen seen : documents) {
            List<String> mine = named.getOrDefault(seen.spine().id(), List.of());
            List<String> describes =
                    new ArrayList<>(variants.getOrDefault(seen.current().id(), List.of()).stream()
                            .map(Variant::name)
                            .toList());
            // What has gone since is still what the line names.
            mine.stream().filter(n -> !describes.contains(n)).forEach(describes::add);
            if (!describes.isEmpty()) all.put(seen.spine().id(), new Of(mine, describes));
        }
        return all;
    }

    /** Keeps which variants a line names, as its document writes them; refused where it has one of them not. */
    void keep(long order, Seen document, Collection<String> typed) {
        Of of = of(order, List.of(document)).getOrDefault(document.spine().id(), Of.NONE);
        Set<String> keys = new HashSet<>();
        for (String one : typed) {
            if (of.describes().stream().noneMatch(n -> Texts.key(n).equals(Texts.key(one))))
                throw Refused.because(
                        "variant.gone",
                        document.document().number() + " has no variant “" + Texts.shorten(one.strip(), 40) + "”.",
                        "Name one that it has, or none; nothing was changed.");
            keys.add(Texts.key(one));
        }
        List<String> names =
                of.describes().stream().filter(n -> keys.contains(Texts.key(n))).toList();
        store.keep(order, document.spine().id(), names);
    }
}
