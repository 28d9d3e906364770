package mintshelf.core.drawing.compare;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Predicate;
import mintshelf.core.drawing.Box;
import mintshelf.core.drawing.Primitive;
import mintshelf.core.drawing.Scene;

/**
 * What became of each thing of a sheet on a later one: for whoever follows single things and does not want the differences. The
 * pairs are those of {@link SheetCompare}. O(primitives) to make, as a comparison; a thing is found in O(what lies in its place).
 */
public final class Kept {
    /** What became of one primitive. */
    public enum Fate {
        SAME,
        SHIFTED,
        CHANGED,
        GONE
    }

    private final Matching matching;
    private final double scale;
    private final double cell;
    private final Map<Long, List<Integer>> places = new HashMap<>();

    private Kept(Matching matching, double scale) {
        this.matching = matching;
        this.scale = scale;
        this.cell = matching.tolerance * 4;
        for (Shape s : matching.old) {
            places.computeIfAbsent(key(s.box().middleX(), s.box().middleY(), 0, 0), k -> new ArrayList<>(1))
                    .add(s.index());
        }
    }

    /** @param scale of the later sheet's views, by which sizes are told */
    public static Kept between(Scene old, Scene now, double scale) {
        return new Kept(new Matching(old, now, old.extents(), now.extents()), scale > 0 ? scale : 1);
    }

    private long key(double x, double y, int dx, int dy) {
        return ((long) Math.floor(x / cell) + dx) * 1_000_003L + (long) Math.floor(y / cell) + dy;
    }

    /** The primitive of the old sheet whose box has this middle; -1 where there is none. Of several the first that fits. */
    public int find(double x, double y, Predicate<Primitive> fits) {
        int best = -1;
        double nearest = cell;
        for (int dx = -1; dx <= 1; dx++) {
            for (int dy = -1; dy <= 1; dy++) {
                for (int i : places.getOrDefault(key(x, y, dx, dy), List.of())) {
                    Box box = matching.old[i].box();
                    double off = Math.hypot(box.middleX() - x, box.middleY() - y);
                    boolean nearer = best < 0 ? off <= nearest : off < nearest;
                    if (!nearer || !fits.test(matching.old[i].primitive())) continue;
                    best = i;
                    nearest = off;
                }
            }
        }
        return best;
    }

    public Primitive old(int index) {
        return matching.old[index].primitive();
    }

    public Fate fate(int index) {
        return switch (matching.how[index]) {
            case Matching.SAME -> Fate.SAME;
            case Matching.SHIFTED -> Fate.SHIFTED;
            case Matching.CHANGED -> Fate.CHANGED;
            default -> Fate.GONE;
        };
    }

    /** What it became; asked of what is not gone. */
    public Primitive now(int index) {
        return matching.now[matching.oldTo[index]].primitive();
    }

    /** What changed of it, in words: "⌀ 5.5 → ⌀ 6.6", "its view by 10.0 right". Asked of what was changed or shifted. */
    public String says(int index) {
        if (fate(index) == Fate.SHIFTED) {
            double[] move = matching.shifts.get(matching.shiftOf[index]);
            return "its view by " + Likeness.move(move[0], move[1]);
        }
        return Likeness.says(matching.old[index], matching.now[matching.oldTo[index]], scale);
    }

    /** What is nearer than this is one place. */
    public double tolerance() {
        return matching.tolerance;
    }
}
