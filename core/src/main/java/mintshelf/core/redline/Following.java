package mintshelf.core.redline;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import mintshelf.core.drawing.Primitive;
import mintshelf.core.drawing.compare.Kept;

/**
 * Carries marks over to a later version of their sheet, by what became of the things that they mark.
 *
 * <p>A point that lies on a thing (a tip, an end of a size) goes where the same place of that thing is now. What encloses things
 * moves by the middle one of their moves (the median, x and y apart), so that one of many that went elsewhere draws nothing along. A mark
 * whose things are all gone stays where it was and says so. O(anchors) a mark.
 */
public final class Following {
    private static final int TOLD = 2;

    private final Kept kept;

    private Following(Kept kept) {
        this.kept = kept;
    }

    /** A mark on the later sheet. */
    public static Followed follow(Mark mark, Kept kept) {
        return mark.anchors().isEmpty() ? Followed.own(mark) : new Following(kept).followed(mark);
    }

    private Followed followed(Mark mark) {
        List<double[]> moves = new ArrayList<>();
        Point[] carried = new Point[mark.strokes().get(0).size()];
        Set<String> changes = new LinkedHashSet<>();
        Set<String> shifts = new LinkedHashSet<>();
        int gone = 0;
        for (Anchor anchor : mark.anchors()) {
            int old = find(anchor);
            if (old < 0 || kept.fate(old) == Kept.Fate.GONE) {
                gone++;
                continue;
            }
            Kept.Fate fate = kept.fate(old);
            Point now = fate == Kept.Fate.SAME
                    ? anchor.place()
                    : Near.carried(kept.old(old), kept.now(old), anchor.place());
            double dx = now.x() - anchor.place().x();
            double dy = now.y() - anchor.place().y();
            moves.add(new double[] {dx, dy});
            if (anchor.point() >= 0 && anchor.point() < carried.length) {
                carried[anchor.point()] = mark.point(anchor.point()).by(dx, dy);
            }
            if (fate == Kept.Fate.CHANGED) changes.add(kept.says(old));
            if (fate == Kept.Fate.SHIFTED) shifts.add(kept.says(old));
        }
        if (moves.isEmpty()) return new Followed(mark, Followed.Fate.GONE, "what it marked is gone");
        double dx = still(median(moves, 0));
        double dy = still(median(moves, 1));
        Mark there = mark.tool() == Tool.SIZE ? size(mark, carried, dx, dy) : mark.moved(dx, dy);
        String part = gone > 0 ? "part of what it marked is gone" : "";
        if (!changes.isEmpty()) {
            return new Followed(there, Followed.Fate.CHANGED, joined("moved with " + some(changes), part));
        }
        if (gone > 0) return new Followed(there, Followed.Fate.CHANGED, part);
        return shifts.isEmpty()
                ? new Followed(there, Followed.Fate.KEPT, "")
                : new Followed(there, Followed.Fate.MOVED, "moved with " + some(shifts));
    }

    private int find(Anchor anchor) {
        return kept.find(anchor.middle().x(), anchor.middle().y(), p -> isOf(p, anchor));
    }

    private static boolean isOf(Primitive p, Anchor anchor) {
        return p.source().handle() == anchor.handle() && p.source().path().equals(anchor.path());
    }

    /** Each end goes with its own thing, the words by the middle of both. */
    private static Mark size(Mark mark, Point[] carried, double dx, double dy) {
        List<Point> points = new ArrayList<>();
        for (int i = 0; i < carried.length; i++) {
            points.add(carried[i] != null ? carried[i] : mark.point(i).by(dx, dy));
        }
        return mark.withPoints(points);
    }

    private double still(double move) {
        return Math.abs(move) <= kept.tolerance() ? 0 : move;
    }

    private static double median(List<double[]> moves, int axis) {
        double[] all = moves.stream().mapToDouble(m -> m[axis]).toArray();
        Arrays.sort(all);
        int half = all.length / 2;
        return all.length % 2 == 1 ? all[half] : (all[half - 1] + all[half]) / 2;
    }

    private static String some(Set<String> says) {
        List<String> all = List.copyOf(says);
        if (all.size() <= TOLD) return String.join("; ", all);
        return String.join("; ", all.subList(0, TOLD)) + " and " + (all.size() - TOLD) + " more";
    }

    private static String joined(String first, String second) {
        return second.isEmpty() ? first : first + "; " + second;
    }
}
