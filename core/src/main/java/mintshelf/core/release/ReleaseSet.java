package mintshelf.core.release;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Deque;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.PriorityQueue;
import java.util.Set;
import java.util.function.LongPredicate;
import mintshelf.core.structure.StructureGraph.Use;

/**
 * The smallest set of documents that is sound to release with those that are asked for: what stands in them and is not in force,
 * down to the bottom; the model that a sheet shows and the sheets of a model, where they were never in force. What is in force is
 * enough, whatever is worked on beside it.
 *
 * @param members in the order in which they go: components first, a model before its sheets
 * @param enough what members consist of or show that is in force, in no order
 */
public record ReleaseSet(List<Member> members, Set<Long> enough) {
    public ReleaseSet {
        members = List.copyOf(members);
        enough = Set.copyOf(enough);
    }

    /** Why a document goes along. */
    public enum Why {
        ASKED,
        COMPONENT,
        MODEL,
        DRAWING
    }

    /**
     * A document of the set.
     *
     * @param of the document that it goes along with; itself where it was asked for
     */
    public record Member(long item, Why why, long of) {}

    /** A sheet and the model that it shows. */
    public record Shows(long drawing, long model) {}

    /**
     * Finds the set. O(members + uses).
     *
     * @param uses of every document that may become a member, at its latest version
     * @param inForce whether a released revision of a document is in force
     */
    public static ReleaseSet of(
            Collection<Long> asked, Collection<Use> uses, Collection<Shows> shows, LongPredicate inForce) {
        Map<Long, Set<Long>> below = new HashMap<>();
        for (Use u : uses) {
            if (u.parent() != u.component())
                below.computeIfAbsent(u.parent(), p -> new LinkedHashSet<>()).add(u.component());
        }
        Map<Long, Set<Long>> models = new HashMap<>();
        Map<Long, Set<Long>> sheets = new HashMap<>();
        for (Shows s : shows) {
            models.computeIfAbsent(s.drawing(), d -> new LinkedHashSet<>()).add(s.model());
            sheets.computeIfAbsent(s.model(), m -> new LinkedHashSet<>()).add(s.drawing());
        }
        Map<Long, Member> members = new LinkedHashMap<>();
        Set<Long> enough = new LinkedHashSet<>();
        Deque<Long> open = new ArrayDeque<>();
        for (long item : asked)
            if (members.putIfAbsent(item, new Member(item, Why.ASKED, item)) == null) open.add(item);
        while (!open.isEmpty()) {
            long item = open.poll();
            take(below, item, Why.COMPONENT, inForce, members, enough, open);
            take(models, item, Why.MODEL, inForce, members, enough, open);
            take(sheets, item, Why.DRAWING, inForce, members, enough, open);
        }
        enough.removeAll(members.keySet());
        return new ReleaseSet(ordered(members, below, models), enough);
    }

    private static void take(
            Map<Long, Set<Long>> from,
            long item,
            Why why,
            LongPredicate inForce,
            Map<Long, Member> members,
            Set<Long> enough,
            Deque<Long> open) {
        for (long other : from.getOrDefault(item, Set.of())) {
            if (members.containsKey(other)) continue;
            if (inForce.test(other)) {
                enough.add(other);
                continue;
            }
            members.put(other, new Member(other, why, item));
            open.add(other);
        }
    }

    /**
     * Of some members those that can go without the others: nothing that stands in them, that they show or that shows them is left
     * behind. O(rounds × (uses + shows)); a round drops one level at least.
     */
    public static Set<Long> alone(
            Collection<Long> could, Collection<Use> uses, Collection<Shows> shows, Set<Long> enough) {
        Set<Long> left = new LinkedHashSet<>(could);
        boolean changed = true;
        while (changed) {
            changed = false;
            for (Use u : uses) {
                boolean lacks =
                        left.contains(u.parent()) && !left.contains(u.component()) && !enough.contains(u.component());
                if (lacks && u.parent() != u.component()) changed |= left.remove(u.parent());
            }
            for (Shows s : shows) {
                boolean model = left.contains(s.model()) || enough.contains(s.model());
                boolean drawing = left.contains(s.drawing()) || enough.contains(s.drawing());
                if (!model) changed |= left.remove(s.drawing());
                if (!drawing) changed |= left.remove(s.model());
            }
        }
        return left;
    }

    /** Each after what it needs; of several that could be next the one found first. A ring is cut where it was entered. */
    private static List<Member> ordered(
            Map<Long, Member> members, Map<Long, Set<Long>> below, Map<Long, Set<Long>> models) {
        Map<Long, Integer> place = new HashMap<>();
        for (long item : members.keySet()) place.put(item, place.size());
        Map<Long, Integer> waits = new HashMap<>();
        Map<Long, List<Long>> then = new HashMap<>();
        for (long item : members.keySet()) {
            Set<Long> needs = new LinkedHashSet<>(below.getOrDefault(item, Set.of()));
            needs.addAll(models.getOrDefault(item, Set.of()));
            needs.retainAll(members.keySet());
            waits.put(item, needs.size());
            for (long need : needs)
                then.computeIfAbsent(need, n -> new ArrayList<>()).add(item);
        }
        // Found later lies deeper: it goes first.
        PriorityQueue<Long> ready = new PriorityQueue<>((a, b) -> place.getOrDefault(b, 0) - place.getOrDefault(a, 0));
        waits.forEach((item, n) -> {
            if (n == 0) ready.add(item);
        });
        Set<Long> left = new LinkedHashSet<>(members.keySet());
        List<Member> order = new ArrayList<>();
        while (!left.isEmpty()) {
            Long next = ready.poll();
            if (next == null) next = last(left);
            if (!left.remove(next)) continue;
            order.add(members.get(next));
            for (long above : then.getOrDefault(next, List.of())) {
                if (waits.merge(above, -1, Integer::sum) == 0) ready.add(above);
            }
        }
        return order;
    }

    private static long last(Set<Long> all) {
        long last = 0;
        for (long item : all) last = item;
        return last;
    }
}
