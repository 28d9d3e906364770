package mintshelf.core.release;

import java.util.ArrayList;
import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.LongFunction;
import java.util.function.LongPredicate;

/**
 * What nobody needs any more once some documents are withdrawn: components that stand in nothing else, sheets that show nothing else.
 *
 * @param items what goes out of use with them, each after what it stood in or showed
 * @param stays what stood in them and is needed elsewhere, each with one document that needs it
 */
public record OutOfUse(List<Long> items, Map<Long, Long> stays) {
    public OutOfUse {
        items = List.copyOf(items);
        stays = Map.copyOf(stays);
    }

    /**
     * Finds them. O(what is found + what needs it, for each level that falls).
     *
     * @param below components of a document and the sheets that show it
     * @param needs what a document stands in, or shows
     * @param inForce whether a document can be withdrawn
     * @param alive whether a document still needs what stands in it: neither withdrawn nor dropped
     */
    public static OutOfUse of(
            Collection<Long> withdrawn,
            LongFunction<Collection<Long>> below,
            LongFunction<Collection<Long>> needs,
            LongPredicate inForce,
            LongPredicate alive) {
        Set<Long> out = new LinkedHashSet<>(withdrawn);
        Set<Long> looked = new LinkedHashSet<>();
        Map<Long, Long> stays = new LinkedHashMap<>();
        withdrawn.forEach(id -> looked.addAll(below.apply(id)));
        looked.removeAll(out);
        // What is needed by something that falls later is looked at again, until nothing falls any more.
        for (boolean fell = true; fell; ) {
            fell = false;
            for (long id : List.copyOf(looked)) {
                if (!inForce.test(id)) {
                    looked.remove(id);
                    continue;
                }
                Long needed = needs.apply(id).stream()
                        .filter(n -> !out.contains(n) && alive.test(n))
                        .findFirst()
                        .orElse(null);
                if (needed != null) {
                    stays.put(id, needed);
                    continue;
                }
                fell = true;
                out.add(id);
                looked.remove(id);
                stays.remove(id);
                for (long next : below.apply(id)) if (!out.contains(next)) looked.add(next);
            }
        }
        List<Long> items = new ArrayList<>(out);
        items.removeAll(Set.copyOf(withdrawn));
        return new OutOfUse(items, stays);
    }
}
