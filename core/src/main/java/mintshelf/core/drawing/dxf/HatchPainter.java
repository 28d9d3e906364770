package mintshelf.core.drawing.dxf;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import mintshelf.core.drawing.Box;
import mintshelf.core.drawing.Source;
import mintshelf.core.drawing.Style;

/**
 * HATCH: solid areas and line patterns between rings, islands left out.
 *
 * <p>Each family of parallel lines is turned into axes of its own, in which its lines are level and counted; a line is cut where it
 * crosses the rings, and every second piece is drawn: the even-odd rule along a scan line, so that islands and islands in islands come
 * out by themselves. A line through a corner is asked a hair beside it. Dashes go on from the family's origin, not from the ring, so
 * that neighbouring areas meet. Of a style that wants the outer ring alone the largest ring is it; of one that wants the outermost two,
 * those that lie within fewer than two others.
 *
 * <p>O(lines × corners) a family; beyond {@link #MOST_STROKES} strokes the rings are drawn instead, and said. Rings that cross themselves
 * are filled by the even-odd rule, whatever their maker meant; gradients are drawn as nothing but their rings.
 */
final class HatchPainter {
    private static final int MOST_STROKES = 20_000;
    private static final int MOST_STROKES_OF_A_SHEET = 1_000_000;

    private final Canvas canvas;
    private int strokes;

    HatchPainter(Canvas canvas) {
        this.canvas = canvas;
    }

    /** One family of parallel lines of a pattern. */
    private record Family(double angle, double x, double y, double dx, double dy, double[] dashes) {}

    void draw(Entity e, Outer plain) {
        Outer outer = plain.at(Placement.plane(e.normal(), e.real(30, 0)));
        List<double[]> rings = new ArrayList<>();
        int at = rings(e, rings);
        if (rings.isEmpty()) {
            canvas.lacks("HATCH without a boundary");
            return;
        }
        Source source = canvas.source(e, plain);
        Style style = canvas.style(e, plain);
        if (e.whole(75, 0) == 2 && rings.size() > 1) rings = List.of(largest(rings));
        else if (e.whole(75, 0) == 1) rings = outerTwo(rings);
        double[][] all = rings.toArray(new double[0][]);
        if (e.whole(70, 0) == 1) {
            canvas.fill(source, style, outer, all);
            return;
        }
        List<Family> families = families(e, at);
        Curves.Points ends = new Curves.Points();
        for (Family family : families) {
            if (!strokes(family, all, ends)) {
                canvas.lacks("HATCH too dense to draw");
                for (double[] ring : all) canvas.line(source, style, outer, true, ring);
                return;
            }
        }
        strokes += ends.count() / 2;
        if (ends.count() >= 2 && strokes < MOST_STROKES_OF_A_SHEET) {
            Style solid = new Style(style.layer(), style.colour(), style.weight(), List.of());
            canvas.strokes(source, solid, outer, ends.toArray());
        } else if (families.isEmpty()) {
            canvas.lacks("HATCH without the lines of its pattern");
            for (double[] ring : all) canvas.line(source, style, outer, true, ring);
        }
    }

    private static double[] largest(List<double[]> rings) {
        double[] best = rings.get(0);
        for (double[] ring : rings) if (area(ring) > area(best)) best = ring;
        return best;
    }

    private static double area(double[] ring) {
        double sum = 0;
        for (int i = 0; i + 1 < ring.length; i += 2) {
            int k = (i + 2) % ring.length;
            sum += ring[i] * ring[k + 1] - ring[k] * ring[i + 1];
        }
        return Math.abs(sum / 2);
    }

    /** The rings that lie in none or in one other: an island's inside stays empty. */
    private static List<double[]> outerTwo(List<double[]> rings) {
        if (rings.size() < 3 || rings.size() > 500) return rings;
        List<double[]> kept = new ArrayList<>();
        for (double[] ring : rings) {
            int within = 0;
            for (double[] other : rings) if (other != ring && inside(other, ring[0], ring[1])) within++;
            if (within < 2) kept.add(ring);
        }
        return kept;
    }

    private static boolean inside(double[] ring, double x, double y) {
        boolean in = false;
        for (int i = 0, k = ring.length - 2; i + 1 < ring.length; k = i, i += 2) {
            if (ring[i + 1] > y != ring[k + 1] > y
                    && x < (ring[k] - ring[i]) * (y - ring[i + 1]) / (ring[k + 1] - ring[i + 1]) + ring[i]) in = !in;
        }
        return in;
    }

    /** Reads the boundaries; gives the tag behind them. */
    private int rings(Entity e, List<double[]> rings) {
        int i = e.find(91);
        if (i < 0) return 0;
        i++;
        while (i < e.size()) {
            int code = e.code(i);
            if (code == 75 || code == 76 || code == 98) return i;
            if (code != 92) {
                i++;
                continue;
            }
            boolean polyline = (e.wholeAt(i) & 2) != 0;
            Curves.Points ring = new Curves.Points();
            i = polyline ? polyline(e, i + 1, ring) : edges(e, i + 1, ring);
            if (ring.count() > 2) rings.add(ring.toArray());
        }
        return i;
    }

    private static boolean ends(int code) {
        return code == 92 || code == 97 || code == 75 || code == 76 || code == 98;
    }

    private int polyline(Entity e, int from, Curves.Points ring) {
        Curves.Points vertices = new Curves.Points();
        List<Double> bulges = new ArrayList<>();
        int i = from;
        double x = 0;
        for (; i < e.size() && !ends(e.code(i)); i++) {
            if (e.code(i) == 10) x = e.real(i);
            else if (e.code(i) == 20) {
                vertices.add(x, e.real(i));
                bulges.add(0.0);
            } else if (e.code(i) == 42 && !bulges.isEmpty()) bulges.set(bulges.size() - 1, e.real(i));
        }
        double[] v = vertices.toArray();
        int n = vertices.count();
        for (int k = 0; k < n; k++) {
            ring.add(v[2 * k], v[2 * k + 1]);
            if (bulges.get(k) == 0) continue;
            int next = (k + 1) % n;
            double[] arc = Curves.bulge(v[2 * k], v[2 * k + 1], v[2 * next], v[2 * next + 1], bulges.get(k));
            sample(ring, arc[0], arc[1], arc[2], 0, 0, arc[2], arc[3], arc[4]);
        }
        return i;
    }

    private void sample(
            Curves.Points ring,
            double x,
            double y,
            double dx,
            double dy,
            double ex,
            double ey,
            double from,
            double sweep) {
        double[] points = Curves.ellipse(x, y, dx, dy, ex, ey, from, sweep, canvas.tolerance);
        for (int k = 0; k + 1 < points.length; k += 2) ring.add(points[k], points[k + 1]);
    }

    private int edges(Entity e, int from, Curves.Points ring) {
        int i = from;
        while (i < e.size() && !ends(e.code(i))) {
            if (e.code(i) != 72) {
                i++;
                continue;
            }
            int kind = e.wholeAt(i);
            int next = i + 1;
            while (next < e.size() && e.code(next) != 72 && !ends(e.code(next))) next++;
            // The fit points of a spline are counted by 97, which ends a path otherwise.
            if (kind == 4 && next < e.size() && e.code(next) == 97 && next + 1 < e.size() && e.code(next + 1) == 11) {
                next++;
                while (next < e.size() && e.code(next) != 72 && !ends(e.code(next))) next++;
            }
            edge(e, kind, i + 1, next, ring);
            i = next;
        }
        return i;
    }

    private void edge(Entity e, int kind, int from, int to, Curves.Points ring) {
        double x = first(e, 10, from, to, 0);
        double y = first(e, 20, from, to, 0);
        double x2 = first(e, 11, from, to, 0);
        double y2 = first(e, 21, from, to, 0);
        double start = first(e, 50, from, to, 0);
        double end = first(e, 51, from, to, 360);
        boolean left = first(e, 73, from, to, 1) != 0;
        switch (kind) {
            case 1 -> {
                ring.add(x, y);
                ring.add(x2, y2);
            }
            case 2 -> {
                double r = first(e, 40, from, to, 0);
                sweep(ring, x, y, r, 0, 0, r, start, end, left);
            }
            case 3 -> {
                double ratio = first(e, 40, from, to, 1);
                sweep(ring, x, y, x2, y2, -y2 * ratio, x2 * ratio, start, end, left);
            }
            case 4 -> spline(e, from, to, ring);
            default -> {
                // An edge of no known kind; the ring closes over it.
            }
        }
    }

    /** Angles count clockwise where the edge does. */
    private void sweep(
            Curves.Points ring,
            double x,
            double y,
            double dx,
            double dy,
            double ex,
            double ey,
            double start,
            double end,
            boolean left) {
        double sweep = (end - start) % 360;
        if (sweep <= 0) sweep += 360;
        if (left) sample(ring, x, y, dx, dy, ex, ey, start, sweep);
        else sample(ring, x, y, dx, dy, ex, ey, -start, -sweep);
    }

    private void spline(Entity e, int from, int to, Curves.Points ring) {
        double[] points = Curves.spline(
                (int) first(e, 94, from, to, 3),
                all(e, 40, from, to),
                all(e, 10, from, to),
                all(e, 20, from, to),
                all(e, 42, from, to),
                canvas.tolerance);
        for (int k = 0; k + 1 < points.length; k += 2) ring.add(points[k], points[k + 1]);
    }

    private static double first(Entity e, int code, int from, int to, double otherwise) {
        for (int i = from; i < to; i++) if (e.code(i) == code) return e.real(i);
        return otherwise;
    }

    private static double[] all(Entity e, int code, int from, int to) {
        double[] found = new double[to - from];
        int n = 0;
        for (int i = from; i < to; i++) if (e.code(i) == code) found[n++] = e.real(i);
        return Arrays.copyOf(found, n);
    }

    private static List<Family> families(Entity e, int from) {
        List<Family> families = new ArrayList<>();
        int i = Math.max(from, 0);
        while (i < e.size() && e.code(i) != 78) i++;
        while (++i < e.size() && families.size() < 64) {
            if (e.code(i) != 53) continue;
            int to = i + 1;
            while (to < e.size() && e.code(to) != 53 && e.code(to) != 47 && e.code(to) != 98 && e.code(to) < 450) to++;
            families.add(new Family(
                    e.real(i),
                    first(e, 43, i, to, 0),
                    first(e, 44, i, to, 0),
                    first(e, 45, i, to, 0),
                    first(e, 46, i, to, 0),
                    all(e, 49, i, to)));
            i = to - 1;
        }
        return families;
    }

    /** Lines of a family inside the rings; false when there are too many. */
    private static boolean strokes(Family f, double[][] rings, Curves.Points out) {
        double a = Math.toRadians(f.angle());
        double c = Math.cos(a);
        double s = Math.sin(a);
        // In the family's own axes lines run along u; v counts them.
        double dv = -f.dx() * s + f.dy() * c;
        double du = f.dx() * c + f.dy() * s;
        if (Math.abs(dv) < 1e-12) return true;
        Box box = Box.EMPTY;
        double[][] own = new double[rings.length][];
        for (int r = 0; r < rings.length; r++) {
            own[r] = new double[rings[r].length];
            for (int i = 0; i + 1 < rings[r].length; i += 2) {
                double x = rings[r][i] - f.x();
                double y = rings[r][i + 1] - f.y();
                own[r][i] = x * c + y * s;
                own[r][i + 1] = -x * s + y * c;
            }
            box = box.with(Box.of(own[r]));
        }
        double low = Math.min(box.minY() / dv, box.maxY() / dv);
        double high = Math.max(box.minY() / dv, box.maxY() / dv);
        if (!(high - low < MOST_STROKES)) return false;
        double[] cuts = new double[64];
        for (long k = (long) Math.ceil(low); k <= high; k++) {
            // A hair beside whole steps: corners of the ring often lie exactly on a line.
            double v = k * dv + 1e-9 * Math.abs(dv);
            int n = 0;
            for (double[] ring : own) {
                for (int i = 0, j = ring.length - 2; i + 1 < ring.length; j = i, i += 2) {
                    if (ring[i + 1] > v == ring[j + 1] > v) continue;
                    if (n == cuts.length) cuts = Arrays.copyOf(cuts, n * 2);
                    cuts[n++] = ring[i] + (v - ring[i + 1]) / (ring[j + 1] - ring[i + 1]) * (ring[j] - ring[i]);
                }
            }
            Arrays.sort(cuts, 0, n);
            for (int i = 0; i + 1 < n; i += 2) {
                if (!dashes(f, k * du, cuts[i], cuts[i + 1], v, c, s, out)) return false;
                if (out.count() > 2 * MOST_STROKES) return false;
            }
        }
        return true;
    }

    private static boolean dashes(
            Family f, double start, double from, double to, double v, double c, double s, Curves.Points out) {
        double period = 0;
        for (double dash : f.dashes()) period += Math.abs(dash);
        if (f.dashes().length == 0 || period <= 1e-12) {
            stroke(f, from, to, v, c, s, out);
            return true;
        }
        if ((to - from) / period * f.dashes().length > MOST_STROKES) return false;
        double u = start + Math.floor((from - start) / period) * period;
        // Far from the origin a step may be lost in the rounding: the count ends it all the same.
        for (int step = 0; u < to && step < MOST_STROKES; step++) {
            for (double dash : f.dashes()) {
                double next = u + Math.abs(dash);
                if (dash >= 0 && next >= from && u <= to) {
                    stroke(f, Math.max(u, from), Math.min(next, to), v, c, s, out);
                }
                u = next;
            }
        }
        return true;
    }

    private static void stroke(Family f, double u1, double u2, double v, double c, double s, Curves.Points out) {
        out.add(f.x() + u1 * c - v * s, f.y() + u1 * s + v * c);
        out.add(f.x() + u2 * c - v * s, f.y() + u2 * s + v * c);
    }
}
