package mintshelf.core.release;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import mintshelf.core.base.Refusal;

/** What is in the way of many documents, by what helps: one thing to do for several of them stands once. */
public final class Blocks {
    private Blocks() {}

    /**
     * A remedy.
     *
     * @param code of the refusals that it lifts
     * @param remedy what to do, in words
     * @param items the documents that it helps, each once
     * @param reasons of each of them, in the same order
     */
    public record Block(String code, String remedy, List<Long> items, List<String> reasons) {
        public Block {
            items = List.copyOf(items);
            reasons = List.copyOf(reasons);
        }
    }

    /** What a document is kept by. */
    public record Kept(long item, List<Refusal> refusals) {}

    /** By remedy, what helps most documents first. O(refusals). */
    public static List<Block> of(List<Kept> all) {
        record Key(String code, String remedy) {}
        Map<Key, Map<Long, List<String>>> found = new LinkedHashMap<>();
        for (Kept kept : all) {
            for (Refusal r : kept.refusals()) {
                found.computeIfAbsent(new Key(r.code(), r.remedy()), k -> new LinkedHashMap<>())
                        .computeIfAbsent(kept.item(), i -> new ArrayList<>())
                        .add(r.reason());
            }
        }
        List<Block> blocks = new ArrayList<>();
        found.forEach((key, items) -> blocks.add(new Block(
                key.code(),
                key.remedy(),
                List.copyOf(items.keySet()),
                items.values().stream().map(r -> String.join(" ", r)).toList())));
        blocks.sort((a, b) -> b.items().size() - a.items().size());
        return blocks;
    }
}
