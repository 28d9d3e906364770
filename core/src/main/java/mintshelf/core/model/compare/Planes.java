package mintshelf.core.model.compare;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.IntPredicate;
import mintshelf.core.model.compare.ModelComparison.Kind;
import mintshelf.core.model.shape.Body;
import mintshelf.core.model.shape.Extent;
import mintshelf.core.model.shape.Face;
import mintshelf.core.model.shape.Feature;
import mintshelf.core.model.shape.Surface;
import mintshelf.core.model.shape.Vec;

/** Plane faces that moved along their normal: walls that became thicker, parts that became longer. */
final class Planes {
    /** Pairs of planes that are held against each other for how thick a wall is. */
    private static final long MOST_HELD = 4_000_000;

    private final Body old;
    private final Body now;
    private final double near;
    private final Vec moved;
    private final Extent reach;
    private final Map<Integer, Integer> shifted = new LinkedHashMap<>();
    /** Those that lie where they lay. */
    private final Set<Integer> stay = new HashSet<>();

    /** @param same which old faces are as they were */
    Planes(Body old, Body now, double near, Vec moved, IntPredicate same) {
        for (int i = 0; i < old.faces().size(); i++) if (same.test(i)) stay.add(i);
        this.old = old;
        this.now = now;
        this.near = near;
        this.moved = moved;
        this.reach = old.extent();
    }

    private static double height(Face face, Vec by) {
        return face.surface().at().plus(by).dot(face.normal(Vec.ZERO));
    }

    private static List<Long> direction(Vec n) {
        return List.of(
                Math.round(n.x() * 1e3 + 0.037), Math.round(n.y() * 1e3 + 0.037), Math.round(n.z() * 1e3 + 0.037));
    }

    private static Map<List<Long>, List<Integer>> open(Body body, boolean[] done) {
        Map<List<Long>, List<Integer>> open = new LinkedHashMap<>();
        for (int i = 0; i < done.length; i++) {
            Face face = body.faces().get(i);
            if (!done[i] && face.is(Surface.Kind.PLANE))
                open.computeIfAbsent(direction(face.normal(Vec.ZERO)), k -> new ArrayList<>())
                        .add(i);
        }
        return open;
    }

    /** Pairs what is open: first on one plane, then the nearest; gives how many. */
    int find(boolean[] oldDone, boolean[] nowDone) {
        Map<List<Long>, List<Integer>> olds = open(old, oldDone);
        Map<List<Long>, List<Integer>> nows = open(now, nowDone);
        int found = 0;
        for (Map.Entry<List<Long>, List<Integer>> one : olds.entrySet()) {
            List<Integer> was = one.getValue();
            List<Integer> is = nows.getOrDefault(one.getKey(), List.of());
            if (is.isEmpty()) continue;
            was.sort(Comparator.comparingDouble(i -> height(old.faces().get(i), moved)));
            is.sort(Comparator.comparingDouble(i -> height(now.faces().get(i), Vec.ZERO)));
            List<Integer> left = new ArrayList<>();
            int at = 0;
            boolean[] used = new boolean[is.size()];
            for (int i : was) {
                double h = height(old.faces().get(i), moved);
                while (at < is.size() && height(now.faces().get(is.get(at)), Vec.ZERO) < h - near) at++;
                // Those on one height are taken in turn.
                while (at < is.size() && used[at]) at++;
                int k = at;
                if (k < is.size() && height(now.faces().get(is.get(k)), Vec.ZERO) <= h + near) {
                    used[k] = true;
                    stay.add(i);
                    oldDone[i] = true;
                    nowDone[is.get(k)] = true;
                    found++;
                } else {
                    left.add(i);
                }
            }
            List<Integer> rest = new ArrayList<>();
            for (int k = 0; k < is.size(); k++) if (!used[k]) rest.add(is.get(k));
            // Planes pass each other seldom: the lowest goes to the lowest.
            for (int k = 0; k < Math.min(left.size(), rest.size()); k++) {
                shifted.put(left.get(k), rest.get(k));
                oldDone[left.get(k)] = true;
                nowDone[rest.get(k)] = true;
                found++;
            }
        }
        return found;
    }

    /** Says of each that moved how thick what lies behind it is now; both sides of one wall once. */
    void tell(Words words) {
        Map<List<Long>, List<Integer>> byNormal = new HashMap<>();
        if (!shifted.isEmpty()) {
            for (int i = 0; i < old.faces().size(); i++) {
                Face face = old.faces().get(i);
                if (face.is(Surface.Kind.PLANE))
                    byNormal.computeIfAbsent(direction(face.normal(Vec.ZERO)), k -> new ArrayList<>())
                            .add(i);
            }
        }
        Map<Integer, Boolean> told = new HashMap<>();
        shifted.forEach((i, k) -> {
            if (told.containsKey(i)) return;
            Face was = old.faces().get(i);
            Face is = now.faces().get(k);
            Vec n = was.normal(Vec.ZERO);
            Extent box = was.extent().with(is.extent());
            double by = height(is, Vec.ZERO) - height(was, moved);
            List<Integer> opposite = byNormal.getOrDefault(direction(n.times(-1)), List.of());
            // Of a grating that grew it is not worth the time to look for each wall.
            boolean few = (long) opposite.size() * shifted.size() <= MOST_HELD;
            int found = few ? behind(i, opposite) : -1;
            // What lies behind and is told of elsewhere says nothing of how thick it is.
            int behind = stay.contains(found) || shifted.containsKey(found) ? found : -1;
            if (behind < 0) {
                words.say(
                        Kind.MOVED,
                        "face moved " + Feature.number(Math.abs(by)) + (by > 0 ? " outward" : " inward"),
                        box);
                return;
            }
            Face back = old.faces().get(behind);
            Integer other = shifted.get(behind);
            double before = height(was, Vec.ZERO) + height(back, Vec.ZERO);
            double after = before + by;
            if (other != null) {
                told.put(behind, true);
                after += height(now.faces().get(other), Vec.ZERO) - height(back, moved);
            }
            if (Math.abs(after - before) <= near) {
                words.say(Kind.MOVED, "wall moved by " + Feature.number(Math.abs(by)), box);
                return;
            }
            words.say(Kind.CHANGED, says(n, before, after), box);
        });
    }

    private String says(Vec n, double before, double after) {
        Vec size = reach.size();
        double[] along = reach.along(n);
        boolean whole = Math.abs(along[1] - along[0] - before) <= near;
        double smallest = Math.min(size.x(), Math.min(size.y(), size.z()));
        double by = after - before;
        String sizes = ", " + Feature.number(before) + " → " + Feature.number(after);
        if (whole && before > smallest + near)
            return Feature.number(Math.abs(by)) + (by > 0 ? " longer" : " shorter") + along(n) + sizes;
        return "wall " + Feature.number(Math.abs(by)) + (by > 0 ? " thicker" : " thinner") + sizes;
    }

    private static String along(Vec n) {
        if (Math.abs(n.x()) > 0.999) return " along x";
        if (Math.abs(n.y()) > 0.999) return " along y";
        return Math.abs(n.z()) > 0.999 ? " along z" : "";
    }

    /**
     * The face behind a plane one that looks the other way: of an end of the whole the other end, else the nearest that lies over it; -1
     * for none.
     */
    private int behind(int i, List<Integer> candidates) {
        Face face = old.faces().get(i);
        Vec n = face.normal(Vec.ZERO);
        double[] along = reach.along(n);
        double h = height(face, Vec.ZERO);
        boolean end = Math.abs(along[1] - h) <= near;
        int best = -1;
        double thin = Double.POSITIVE_INFINITY;
        for (int c : candidates) {
            Face back = old.faces().get(c);
            double thick = h + height(back, Vec.ZERO);
            if (end && Math.abs(thick - (along[1] - along[0])) <= near) return c;
            if (thick <= near || thick >= thin || !overlaps(face.extent(), back.extent(), n)) continue;
            best = c;
            thin = thick;
        }
        return best;
    }

    private static boolean overlaps(Extent a, Extent b, Vec n) {
        double[][] all = {
            {n.x(), a.low().x(), a.high().x(), b.low().x(), b.high().x()},
            {n.y(), a.low().y(), a.high().y(), b.low().y(), b.high().y()},
            {n.z(), a.low().z(), a.high().z(), b.low().z(), b.high().z()}
        };
        for (double[] one : all) {
            if (Math.abs(one[0]) > 0.5) continue;
            if (one[1] >= one[4] || one[3] >= one[2]) return false;
        }
        return true;
    }
}
