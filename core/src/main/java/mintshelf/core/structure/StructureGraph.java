package mintshelf.core.structure;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.LongStream;

/**
 * Which document consists of which, in one view (as saved, latest, latest released …: whoever builds it chooses whose references
 * count). Documents are told by their ids; inside they are numbered, and uses lie in two arrays, by parent and by component.
 *
 * <p>Building is O(uses log uses); a million uses take 32 MB. Cycles are let in, for files by many hands hold them, and every question
 * ends all the same.
 */
public final class StructureGraph {
    private final long[] ids;
    private final int[] down;
    private final int[] components;
    private final int[] quantities;
    private final int[] captured;
    private final int[] up;
    private final int[] parents;

    /**
     * A document that stands in another one.
     *
     * @param captured number of the component's version that the parent was saved with
     */
    public record Use(long parent, long component, int quantity, int captured) {}

    /** A component, and how many of it one of the top needs; {@link Long#MAX_VALUE} where that is beyond counting. */
    public record Total(long component, long quantity) {}

    /**
     * A document that was saved with an older component.
     *
     * @param direct whether it is one of its own components, else only one further below
     */
    public record OutOfDate(long document, boolean direct) {}

    private StructureGraph(long[] ids, int[][] edges) {
        this.ids = ids;
        this.down = new int[ids.length + 1];
        this.up = new int[ids.length + 1];
        for (int[] e : edges) {
            down[e[0] + 1]++;
            up[e[1] + 1]++;
        }
        for (int i = 0; i < ids.length; i++) {
            down[i + 1] += down[i];
            up[i + 1] += up[i];
        }
        this.components = new int[edges.length];
        this.quantities = new int[edges.length];
        this.captured = new int[edges.length];
        this.parents = new int[edges.length];
        int[] nextDown = down.clone();
        int[] nextUp = up.clone();
        for (int[] e : edges) {
            int at = nextDown[e[0]]++;
            components[at] = e[1];
            quantities[at] = e[2];
            captured[at] = e[3];
            parents[nextUp[e[1]]++] = e[0];
        }
    }

    /** Builds the graph of some uses. Uses of a document by itself are left out. */
    public static StructureGraph of(Collection<Use> uses) {
        long[] ids = uses.stream()
                .flatMapToLong(u -> LongStream.of(u.parent(), u.component()))
                .sorted()
                .distinct()
                .toArray();
        int[][] edges = uses.stream()
                .filter(u -> u.parent() != u.component())
                .map(u -> new int[] {
                    Arrays.binarySearch(ids, u.parent()),
                    Arrays.binarySearch(ids, u.component()),
                    u.quantity(),
                    u.captured()
                })
                .toArray(int[][]::new);
        return new StructureGraph(ids, edges);
    }

    /**
     * The graph with the uses of some parents replaced, as after a check-in. O(documents + uses), without looking ids up one by
     * one.
     *
     * @param changed parents whose uses are no more what they were
     * @param uses theirs now; uses of others are not looked at
     */
    public StructureGraph with(Collection<Long> changed, Collection<Use> uses) {
        Set<Long> replaced = Set.copyOf(changed);
        List<Use> fresh = uses.stream()
                .filter(u -> replaced.contains(u.parent()) && u.parent() != u.component())
                .toList();
        long[] all = merged(fresh);
        int[] places = new int[ids.length];
        for (int i = 0, j = 0; i < ids.length; i++) {
            while (all[j] != ids[i]) j++;
            places[i] = j;
        }
        List<int[]> edges = new ArrayList<>(components.length + fresh.size());
        for (int node = 0; node < ids.length; node++) {
            if (replaced.contains(ids[node])) continue;
            for (int e = down[node]; e < down[node + 1]; e++) {
                edges.add(new int[] {places[node], places[components[e]], quantities[e], captured[e]});
            }
        }
        for (Use u : fresh) {
            edges.add(new int[] {
                Arrays.binarySearch(all, u.parent()),
                Arrays.binarySearch(all, u.component()),
                u.quantity(),
                u.captured()
            });
        }
        return new StructureGraph(all, edges.toArray(int[][]::new));
    }

    /** The ids of the graph and of some uses, ascending, each once. Documents that stand in nothing any more stay. */
    private long[] merged(List<Use> uses) {
        return LongStream.concat(
                        Arrays.stream(ids), uses.stream().flatMapToLong(u -> LongStream.of(u.parent(), u.component())))
                .sorted()
                .distinct()
                .toArray();
    }

    /** The direct uses of a document, in no order. */
    public List<Use> usesOf(long document) {
        int node = at(document);
        if (node < 0) return List.of();
        List<Use> uses = new ArrayList<>();
        for (int e = down[node]; e < down[node + 1]; e++) {
            uses.add(new Use(document, ids[components[e]], quantities[e], captured[e]));
        }
        return uses;
    }

    private int at(long document) {
        return Arrays.binarySearch(ids, document);
    }

    /** All components below some documents, each once, the documents themselves left out. O(what is found). */
    public long[] components(long... of) {
        return reached(down, components, of);
    }

    /** All documents that some documents stand in, up to the tops, each once. O(what is found). */
    public long[] whereUsed(long... of) {
        return reached(up, parents, of);
    }

    /** The documents that a document stands in directly, each once. */
    public long[] usedIn(long document) {
        int node = at(document);
        if (node < 0) return new long[0];
        return Arrays.stream(parents, up[node], up[node + 1])
                .distinct()
                .mapToLong(p -> ids[p])
                .toArray();
    }

    private long[] reached(int[] starts, int[] next, long... of) {
        boolean[] seen = new boolean[ids.length];
        boolean[] begun = new boolean[ids.length];
        int[] queue = new int[ids.length];
        int tail = 0;
        for (long document : of) {
            int node = at(document);
            if (node >= 0 && !begun[node]) {
                begun[node] = true;
                queue[tail++] = node;
            }
        }
        int roots = tail;
        for (int i = 0; i < tail; i++) {
            for (int e = starts[queue[i]]; e < starts[queue[i] + 1]; e++) {
                int node = next[e];
                if (begun[node] || seen[node]) continue;
                seen[node] = true;
                queue[tail++] = node;
            }
        }
        return Arrays.stream(queue, roots, tail).mapToLong(n -> ids[n]).toArray();
    }

    /**
     * How many of each component one of a document needs, over all paths; components in no order. Nothing where a cycle makes that
     * endless. O(uses below).
     */
    public Optional<List<Total>> totals(long of) {
        int top = at(of);
        if (top < 0) return Optional.of(List.of());
        int[] order = componentsLast(top);
        if (order.length == 0) return Optional.empty();
        long[] need = new long[ids.length];
        need[top] = 1;
        List<Total> totals = new ArrayList<>();
        for (int node : order) {
            if (node != top) totals.add(new Total(ids[node], need[node]));
            for (int e = down[node]; e < down[node + 1]; e++) {
                need[components[e]] = plus(need[components[e]], times(need[node], quantities[e]));
            }
        }
        return Optional.of(totals);
    }

    /**
     * How many of a document one of each that it stands in needs, over all paths; what has a cycle between is left out. One pass:
     * O(documents + uses of what is above).
     */
    public Map<Long, Long> neededAbove(long of) {
        Map<Long, Long> needed = new HashMap<>();
        int from = at(of);
        if (from < 0) return needed;
        long[] order = upwards(of);
        boolean[] member = new boolean[ids.length];
        for (long id : order) member[at(id)] = true;
        long[] count = new long[ids.length];
        boolean[] known = new boolean[ids.length];
        count[from] = 1;
        known[from] = true;
        for (long id : order) {
            int node = at(id);
            if (node == from) continue;
            boolean all = true;
            long sum = 0;
            for (int e = down[node]; e < down[node + 1]; e++) {
                if (!member[components[e]]) continue;
                all &= known[components[e]];
                sum = plus(sum, times(count[components[e]], quantities[e]));
            }
            known[node] = all;
            count[node] = sum;
            if (all) needed.put(id, sum);
        }
        return needed;
    }

    private static long plus(long a, long b) {
        long sum = a + b;
        return sum < 0 ? Long.MAX_VALUE : sum;
    }

    /** Of two that are not negative. Deep structures go beyond counting at every use: no exception is made for that. */
    private static long times(long a, long b) {
        return a != 0 && b > Long.MAX_VALUE / a ? Long.MAX_VALUE : a * b;
    }

    /** What is reached from a node, each before all of its components; empty where a cycle is below. */
    private int[] componentsLast(int top) {
        // 0 not seen, 1 on the way down, 2 done
        byte[] state = new byte[ids.length];
        int[] stack = new int[ids.length + 1];
        int[] edge = new int[ids.length + 1];
        int[] done = new int[ids.length];
        int count = 0;
        int depth = 0;
        stack[0] = top;
        edge[0] = down[top];
        state[top] = 1;
        while (depth >= 0) {
            int node = stack[depth];
            if (edge[depth] == down[node + 1]) {
                state[node] = 2;
                done[count++] = node;
                depth--;
                continue;
            }
            int next = components[edge[depth]++];
            if (state[next] == 1) return new int[0];
            if (state[next] == 2) continue;
            state[next] = 1;
            stack[++depth] = next;
            edge[depth] = down[next];
        }
        int[] order = new int[count];
        for (int i = 0; i < count; i++) order[i] = done[count - 1 - i];
        return order;
    }

    /**
     * The way round that a new use would close, from the parent over its component back to the parent; nothing where it closes
     * none. O(what is below the component).
     */
    public Optional<List<Long>> cycle(long parent, long component) {
        if (parent == component) return Optional.of(List.of(parent, parent));
        return path(component, parent).map(way -> {
            List<Long> round = new ArrayList<>(way);
            round.add(0, parent);
            return List.copyOf(round);
        });
    }

    /** A shortest way down from one document to another. O(what is below). */
    public Optional<List<Long>> path(long from, long to) {
        int start = at(from);
        int end = at(to);
        if (start < 0 || end < 0) return Optional.empty();
        int[] before = new int[ids.length];
        Arrays.fill(before, -1);
        before[start] = start;
        int[] queue = new int[ids.length];
        int tail = 0;
        queue[tail++] = start;
        for (int i = 0; i < tail && before[end] < 0; i++) {
            for (int e = down[queue[i]]; e < down[queue[i] + 1]; e++) {
                if (before[components[e]] >= 0) continue;
                before[components[e]] = queue[i];
                queue[tail++] = components[e];
            }
        }
        if (before[end] < 0) return Optional.empty();
        List<Long> way = new ArrayList<>();
        for (int node = end; node != start; node = before[node]) way.add(0, ids[node]);
        way.add(0, from);
        return Optional.of(List.copyOf(way));
    }

    /**
     * Which documents were saved with a component that is newer now, themselves or further below, at every level above.
     * O(documents + uses).
     *
     * @param latest the latest version of each document, by the order of {@link #documents()}: of what the shelf wrote itself the
     *     version that it was written from
     */
    public List<OutOfDate> outOfDate(int[] latest) {
        if (latest.length != ids.length) throw new IllegalArgumentException("a latest version for each document");
        boolean[] direct = new boolean[ids.length];
        boolean[] below = new boolean[ids.length];
        int[] queue = new int[ids.length];
        int tail = 0;
        for (int node = 0; node < ids.length; node++) {
            for (int e = down[node]; e < down[node + 1] && !direct[node]; e++) {
                direct[node] = captured[e] < latest[components[e]];
            }
            if (direct[node]) queue[tail++] = node;
        }
        boolean[] queued = direct.clone();
        for (int i = 0; i < tail; i++) {
            for (int e = up[queue[i]]; e < up[queue[i] + 1]; e++) {
                below[parents[e]] = true;
                if (queued[parents[e]]) continue;
                queued[parents[e]] = true;
                queue[tail++] = parents[e];
            }
        }
        List<OutOfDate> found = new ArrayList<>();
        for (int node = 0; node < ids.length; node++) {
            if (direct[node] || below[node]) found.add(new OutOfDate(ids[node], direct[node]));
        }
        return found;
    }

    /** The documents, in ascending order of their ids. */
    public long[] documents() {
        return ids.clone();
    }

    /**
     * Some documents and all that they stand in, each after its own components: the order in which newer components are taken up.
     * Of a cycle the order is that of the ids. O(what is above + its uses).
     */
    public long[] upwards(long... from) {
        long[] above = whereUsed(from);
        boolean[] member = new boolean[ids.length];
        for (long id : above) member[at(id)] = true;
        for (long id : from) if (at(id) >= 0) member[at(id)] = true;
        int[] open = new int[ids.length];
        int[] queue = new int[ids.length];
        int tail = 0;
        int members = 0;
        for (int node = 0; node < ids.length; node++) {
            if (!member[node]) continue;
            members++;
            for (int e = down[node]; e < down[node + 1]; e++) if (member[components[e]]) open[node]++;
            if (open[node] == 0) queue[tail++] = node;
        }
        boolean[] taken = new boolean[ids.length];
        for (int i = 0; i < members; i++) {
            if (i == tail) {
                // What is left lies on cycles: the first of them goes on.
                for (int node = 0; node < ids.length; node++) {
                    if (!member[node] || taken[node] || open[node] == 0) continue;
                    open[node] = 0;
                    queue[tail++] = node;
                    break;
                }
            }
            int node = queue[i];
            taken[node] = true;
            for (int e = up[node]; e < up[node + 1]; e++) {
                int parent = parents[e];
                if (member[parent] && open[parent] > 0 && --open[parent] == 0) queue[tail++] = parent;
            }
        }
        return Arrays.stream(queue, 0, members).mapToLong(n -> ids[n]).toArray();
    }
}
