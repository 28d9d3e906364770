package mintshelf.core.change;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Collections;
import java.util.Deque;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/**
 * In which order open orders on the same documents follow one another. Each document has a queue of orders: the first one is worked on,
 * the next starts from what the first releases. No order may wait, over however many others, for itself.
 */
public final class Sequence {
    private Sequence() {}

    /** An open order that goes before others on a document. */
    public record Ahead(long order, String number, PaperLine.What what) {}

    /**
     * The ring that would close if an order waited for others, from the order back to itself; empty when none does. O(orders that wait).
     *
     * @param behind the orders that it would wait for
     * @param waits whom each order waits for now
     */
    public static Optional<List<Long>> ring(long order, Collection<Long> behind, Map<Long, Set<Long>> waits) {
        Map<Long, Long> from = new HashMap<>();
        Deque<Long> open = new ArrayDeque<>();
        for (long one : behind) if (from.putIfAbsent(one, order) == null) open.add(one);
        while (!open.isEmpty()) {
            long one = open.remove();
            if (one == order) return Optional.of(path(order, from));
            for (long next : waits.getOrDefault(one, Set.of())) {
                if (from.putIfAbsent(next, one) == null) open.add(next);
            }
        }
        return Optional.empty();
    }

    private static List<Long> path(long order, Map<Long, Long> from) {
        List<Long> path = new ArrayList<>(List.of(order));
        Long at = from.get(order);
        while (at != null && at != order) {
            path.add(at);
            at = from.get(at);
        }
        path.add(order);
        Collections.reverse(path);
        return path;
    }
}
