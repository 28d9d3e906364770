package mintshelf.core.drawing.compare;

import java.util.ArrayList;
import java.util.Collections;
import java.util.Comparator;
import java.util.HashMap;
import java.util.IdentityHashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import mintshelf.core.drawing.Box;
import mintshelf.core.drawing.Primitive;
import mintshelf.core.drawing.Scene;
import mintshelf.core.drawing.Source;
import mintshelf.core.drawing.compare.Comparison.Difference;
import mintshelf.core.drawing.compare.Comparison.Kind;

/**
 * Compares two sheets: two versions, two revisions, two documents. Primitives are matched as multisets, to a tolerance of 0.001 or
 * a millionth of the larger sheet; what moved together is one shifted view; the rest is matched by handle and likeness and
 * gathered into differences by nearness.
 *
 * <p>O(n) on the usual sheet; the same result, mirrored, when the sheets change places, and whatever the order of entities.
 */
public final class SheetCompare {
    private static final int MOST_WORDS = 3;
    /** An arc is part of a cloud when its line has as many as this. */
    private static final int ARCS_OF_A_CLOUD = 6;

    private final Matching matching;
    private final Zones zones;
    private final double scale;
    private final double reach;
    private final double sheet;
    private final List<Item> items = new ArrayList<>();
    private final List<Box> clouds = new ArrayList<>();

    /** One thing that differs: a pair, or what stands on one sheet only. Shift -1: it did not move with others. */
    private record Item(int old, int now, int shift, Box box) {}

    private SheetCompare(Scene old, Scene now, double scale) {
        Box oldBox = old.extents();
        Box newBox = now.extents();
        Box both = oldBox.with(newBox);
        this.matching = new Matching(old, now, oldBox, newBox);
        this.zones = Zones.of(newBox);
        this.scale = scale;
        this.sheet = both.isEmpty() ? 1 : Math.max(both.width(), both.height());
        this.reach = sheet * 0.008;
    }

    /** Compares two sheets at a scale of 1:1. */
    public static Comparison compare(Scene old, Scene now) {
        return compare(old, now, 1);
    }

    /**
     * Compares two sheets.
     *
     * @param scale of the views, by which sizes in sentences are told: 0.5 for 1:2
     */
    public static Comparison compare(Scene old, Scene now, double scale) {
        return new SheetCompare(old, now, scale > 0 ? scale : 1).result();
    }

    private Comparison result() {
        int[] counts = new int[4];
        for (int how : matching.how) counts[how]++;
        Set<Source> oldClouds = clouds(matching.old, new ArrayList<>());
        Set<Source> newClouds = clouds(matching.now, clouds);
        items(oldClouds, newClouds);
        List<Difference> differences = new ArrayList<>();
        for (List<Item> group : gathered()) differences.add(difference(group));
        differences.sort(
                Comparator.<Difference>comparingDouble(d -> -Math.rint(d.box().maxY() / (sheet / 8)))
                        .thenComparingDouble(d -> d.box().minX())
                        .thenComparingDouble(d -> d.box().minY())
                        .thenComparing(Difference::says));
        List<Difference> numbered = new ArrayList<>();
        for (Difference d : differences) {
            numbered.add(new Difference(
                    numbered.size() + 1,
                    d.kind(),
                    d.box(),
                    d.zone(),
                    d.says(),
                    d.clouded(),
                    d.form(),
                    d.olds(),
                    d.nows()));
        }
        int paired = counts[1] + counts[2] + counts[3];
        return new Comparison(
                matching.old.length,
                matching.now.length,
                counts[1],
                counts[3],
                counts[2],
                matching.old.length - paired,
                matching.now.length - paired,
                numbered);
    }

    /** What a line of many arcs encloses is marked as changed; the lines themselves are no differences. */
    private static Set<Source> clouds(Shape[] shapes, List<Box> boxes) {
        IdentityHashMap<Source, List<Shape>> lines =
                new IdentityHashMap<>(); // files without handles tell lines apart by this alone
        for (Shape s : shapes) {
            Primitive p = s.primitive();
            if (p instanceof Primitive.Arc && p.source().type().endsWith("POLYLINE")) {
                lines.computeIfAbsent(p.source(), l -> new ArrayList<>()).add(s);
            }
        }
        Set<Source> found = Collections.newSetFromMap(new IdentityHashMap<>());
        lines.forEach((source, arcs) -> {
            if (arcs.size() < ARCS_OF_A_CLOUD) return;
            Box box = Box.EMPTY;
            double largest = 0;
            for (Shape s : arcs) {
                box = box.with(s.box());
                largest = Math.max(largest, ((Primitive.Arc) s.primitive()).radius());
            }
            // The arcs of a cloud are small against what they go round; those of a rounded plate or a slot are few.
            if (largest * 2 > Math.max(box.width(), box.height()) * 0.6) return;
            found.add(source);
            boxes.add(box);
        });
        return found;
    }

    private static boolean isCloud(Shape s, Set<Source> clouds) {
        return !clouds.isEmpty() && clouds.contains(s.primitive().source());
    }

    private void items(Set<Source> oldClouds, Set<Source> newClouds) {
        for (Shape s : matching.old) {
            int i = s.index();
            if (matching.how[i] == Matching.SAME || isCloud(s, oldClouds)) continue;
            int partner = matching.oldTo[i];
            Box box = partner < 0 ? s.box() : s.box().with(matching.now[partner].box());
            items.add(new Item(i, partner, matching.shiftOf[i], box));
        }
        for (Shape s : matching.now) {
            if (matching.nowTo[s.index()] < 0 && !isCloud(s, newClouds))
                items.add(new Item(-1, s.index(), -1, s.box()));
        }
    }

    /** What lies together: items of one shift, and others whose boxes nearly touch. */
    private List<List<Item>> gathered() {
        int[] parent = new int[items.size()];
        for (int i = 0; i < parent.length; i++) parent[i] = i;
        Map<Long, List<Integer>> grid = new HashMap<>();
        double cell = Math.max(reach * 8, 1e-9);
        for (int i = 0; i < parent.length; i++) {
            Item item = items.get(i);
            if (item.shift() >= 0) continue;
            Box grown = item.box().grown(reach / 2);
            // What spans much of the sheet, such as its frame, would draw everything together: it stands alone.
            if (Math.max(grown.width(), grown.height()) > sheet * 0.6) continue;
            for (long x = cellOf(grown.minX(), cell); x <= cellOf(grown.maxX(), cell); x++) {
                for (long y = cellOf(grown.minY(), cell); y <= cellOf(grown.maxY(), cell); y++) {
                    List<Integer> there = grid.computeIfAbsent(x * 1_000_003L + y, c -> new ArrayList<>());
                    for (int other : there) {
                        if (root(parent, i) != root(parent, other)
                                && grown.touches(items.get(other).box().grown(reach / 2))) {
                            parent[root(parent, i)] = root(parent, other);
                        }
                    }
                    there.add(i);
                }
            }
        }
        Map<Integer, List<Item>> groups = new LinkedHashMap<>();
        for (int i = 0; i < parent.length; i++) {
            Item item = items.get(i);
            int key = item.shift() >= 0 ? -1 - item.shift() : root(parent, i);
            groups.computeIfAbsent(key, k -> new ArrayList<>()).add(item);
        }
        return new ArrayList<>(groups.values());
    }

    private static long cellOf(double value, double cell) {
        return (long) Math.floor(value / cell);
    }

    private static int root(int[] parent, int i) {
        int at = i;
        while (parent[at] != at) {
            parent[at] = parent[parent[at]];
            at = parent[at];
        }
        return at;
    }

    private Difference difference(List<Item> group) {
        Box box = Box.EMPTY;
        List<Integer> olds = new ArrayList<>();
        List<Integer> nows = new ArrayList<>();
        for (Item item : group) {
            box = box.with(item.box());
            if (item.old() >= 0) olds.add(item.old());
            if (item.now() >= 0) nows.add(item.now());
        }
        boolean shifted = group.get(0).shift() >= 0;
        Kind kind = shifted
                ? Kind.SHIFTED
                : nows.isEmpty() ? Kind.ONLY_IN_OLD : olds.isEmpty() ? Kind.ONLY_IN_NEW : Kind.CHANGED;
        Box where = box;
        boolean clouded = clouds.stream()
                .anyMatch(c -> where.middleX() >= c.minX()
                        && where.middleX() <= c.maxX()
                        && where.middleY() >= c.minY()
                        && where.middleY() <= c.maxY());
        String says = shifted ? shift(group) : words(group);
        String zone = zones.at(box.middleX(), box.middleY());
        return new Difference(1, kind, box, zone, says, clouded, isForm(olds, nows), olds, nows);
    }

    /** Values of attributes, and lines of a block that carries such: what is filled in, not what is drawn. */
    private boolean isForm(List<Integer> olds, List<Integer> nows) {
        List<Source> sources = new ArrayList<>();
        olds.forEach(i -> sources.add(matching.old[i].primitive().source()));
        nows.forEach(i -> sources.add(matching.now[i].primitive().source()));
        boolean filled = sources.stream().anyMatch(s -> s.type().equals("ATTRIB"));
        return filled
                && sources.stream()
                        .allMatch(s -> s.type().equals("ATTRIB") || !s.path().isEmpty());
    }

    private String shift(List<Item> group) {
        double[] move = matching.shifts.get(group.get(0).shift());
        return "view of " + group.size() + " lines and texts moved by " + Likeness.move(move[0], move[1]);
    }

    /** The changes first, then what came and went, the most telling ones of each. */
    private String words(List<Item> group) {
        TreeMap<String, Integer> changes =
                new TreeMap<>(Comparator.comparingInt(SheetCompare::weight).thenComparing(Comparator.naturalOrder()));
        Map<String, Integer> gone = new TreeMap<>();
        Map<String, Integer> come = new TreeMap<>();
        for (Item item : group) {
            if (item.old() >= 0 && item.now() >= 0) {
                changes.merge(
                        Likeness.says(matching.old[item.old()], matching.now[item.now()], scale), 1, Integer::sum);
            } else if (item.old() >= 0) {
                gone.merge(name(matching.old[item.old()]), 1, Integer::sum);
            } else {
                come.merge(name(matching.now[item.now()]), 1, Integer::sum);
            }
        }
        List<String> all = new ArrayList<>();
        int lines = 0;
        for (Map.Entry<String, Integer> change : changes.entrySet()) {
            // Beside a size or a text the lines that follow it tell nothing more.
            if (weight(change.getKey()) == 2 && weight(changes.firstKey()) < 2) lines += change.getValue();
            else all.add(change.getValue() > 1 ? change.getValue() + " × " + change.getKey() : change.getKey());
        }
        if (lines > 0) {
            int last = all.size() - 1;
            all.set(last, all.get(last) + (lines == 1 ? ", a line with it" : ", " + lines + " lines with it"));
        }
        if (!gone.isEmpty()) all.add("only in old: " + list(gone));
        if (!come.isEmpty()) all.add("only in new: " + list(come));
        if (all.size() <= MOST_WORDS) return String.join("; ", all);
        return String.join("; ", all.subList(0, MOST_WORDS)) + "; and " + (all.size() - MOST_WORDS) + " more";
    }

    /** Sizes and texts tell most. */
    private static int weight(String change) {
        return change.startsWith("⌀") || change.startsWith("R ") ? 0 : change.startsWith("text") ? 1 : 2;
    }

    private static String list(Map<String, Integer> names) {
        List<String> parts = new ArrayList<>();
        names.forEach((name, n) -> parts.add(n > 1 ? n + " × " + name : name));
        return parts.size() <= MOST_WORDS
                ? String.join(", ", parts)
                : String.join(", ", parts.subList(0, MOST_WORDS)) + " and " + (parts.size() - MOST_WORDS) + " more";
    }

    private String name(Shape s) {
        Primitive p = s.primitive();
        if (p instanceof Primitive.Text t) return "text " + t.text().strip();
        if (p instanceof Primitive.Arc arc) {
            return arc.sweep() >= 360 ? "circle ⌀ " + Likeness.number(2 * arc.radius() / scale) : "arc";
        }
        if (p instanceof Primitive.Fill) return "area";
        return p instanceof Primitive.Strokes ? "hatching" : "line";
    }
}
