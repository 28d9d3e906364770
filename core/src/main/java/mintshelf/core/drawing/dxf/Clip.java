package mintshelf.core.drawing.dxf;

import java.util.ArrayList;
import java.util.List;
import mintshelf.core.drawing.Box;
import mintshelf.core.drawing.Primitive;

/** Cuts primitives at the edge of a box. */
final class Clip {
    private Clip() {}

    /** What of a primitive lies within the box. O(points). */
    static List<Primitive> within(Primitive p, Box box) {
        Box own = p.box();
        if (box.holds(own)) return List.of(p);
        if (!box.touches(own)) return List.of();
        if (p instanceof Primitive.Text text) {
            boolean in = text.x() >= box.minX()
                    && text.x() <= box.maxX()
                    && text.y() >= box.minY()
                    && text.y() <= box.maxY();
            return in ? List.of(p) : List.of();
        }
        if (p instanceof Primitive.Fill fill) {
            List<double[]> rings = new ArrayList<>();
            for (double[] ring : fill.rings()) {
                double[] cut = ring(ring, box);
                if (cut.length >= 6) rings.add(cut);
            }
            return rings.isEmpty()
                    ? List.of()
                    : List.of(new Primitive.Fill(fill.source(), fill.style(), rings.toArray(new double[0][])));
        }
        if (p instanceof Primitive.Strokes strokes) {
            Curves.Points kept = new Curves.Points();
            double[] e = strokes.ends();
            for (int i = 0; i + 3 < e.length; i += 4) {
                double[] cut = segment(new double[] {e[i], e[i + 1], e[i + 2], e[i + 3]}, box);
                if (cut.length < 4) continue;
                kept.add(cut[0], cut[1]);
                kept.add(cut[2], cut[3]);
            }
            return kept.count() == 0
                    ? List.of()
                    : List.of(new Primitive.Strokes(strokes.source(), strokes.style(), kept.toArray()));
        }
        if (p instanceof Primitive.Arc arc) {
            double[] points = Curves.ellipse(
                    arc.x(), arc.y(), arc.radius(), 0, 0, arc.radius(), arc.from(), arc.sweep(), arc.radius() / 4000);
            return line(new Primitive.Polyline(arc.source(), arc.style(), points, false), box);
        }
        return line((Primitive.Polyline) p, box);
    }

    private static List<Primitive> line(Primitive.Polyline line, Box box) {
        List<Primitive> parts = new ArrayList<>();
        double[] p = line.points();
        int n = p.length / 2;
        Curves.Points run = new Curves.Points();
        double lastX = Double.NaN;
        double lastY = Double.NaN;
        for (int i = 0; i < (line.closed() ? n : n - 1); i++) {
            int k = (i + 1) % n;
            double[] cut = segment(new double[] {p[2 * i], p[2 * i + 1], p[2 * k], p[2 * k + 1]}, box);
            if (cut.length < 4) continue;
            if (cut[0] != lastX || cut[1] != lastY) {
                if (run.count() > 1)
                    parts.add(new Primitive.Polyline(line.source(), line.style(), run.toArray(), false));
                run = new Curves.Points();
                run.add(cut[0], cut[1]);
            }
            run.add(cut[2], cut[3]);
            lastX = cut[2];
            lastY = cut[3];
        }
        if (run.count() > 1) parts.add(new Primitive.Polyline(line.source(), line.style(), run.toArray(), false));
        return parts;
    }

    /** A segment cut at a box (Liang and Barsky); nothing when it lies outside. */
    static double[] segment(double[] s, Box box) {
        double dx = s[2] - s[0];
        double dy = s[3] - s[1];
        double[] p = {-dx, dx, -dy, dy};
        double[] q = {s[0] - box.minX(), box.maxX() - s[0], s[1] - box.minY(), box.maxY() - s[1]};
        double from = 0;
        double to = 1;
        for (int i = 0; i < 4; i++) {
            if (p[i] == 0) {
                if (q[i] < 0) return new double[0];
                continue;
            }
            double t = q[i] / p[i];
            if (p[i] < 0) from = Math.max(from, t);
            else to = Math.min(to, t);
        }
        if (from > to) return new double[0];
        return new double[] {
            from == 0 ? s[0] : s[0] + from * dx,
            from == 0 ? s[1] : s[1] + from * dy,
            to == 1 ? s[2] : s[0] + to * dx,
            to == 1 ? s[3] : s[1] + to * dy
        };
    }

    /** A ring cut at a box, edge by edge (Sutherland and Hodgman). */
    private static double[] ring(double[] ring, Box box) {
        double[] now = ring;
        for (int side = 0; side < 4; side++) {
            Curves.Points next = new Curves.Points();
            int n = now.length / 2;
            for (int i = 0; i < n; i++) {
                int k = (i + n - 1) % n;
                double a = depth(now[2 * k], now[2 * k + 1], box, side);
                double b = depth(now[2 * i], now[2 * i + 1], box, side);
                if (a >= 0 != b >= 0) {
                    double t = a / (a - b);
                    next.add(
                            now[2 * k] + t * (now[2 * i] - now[2 * k]),
                            now[2 * k + 1] + t * (now[2 * i + 1] - now[2 * k + 1]));
                }
                if (b >= 0) next.add(now[2 * i], now[2 * i + 1]);
            }
            now = next.toArray();
            if (now.length == 0) return now;
        }
        return now;
    }

    private static double depth(double x, double y, Box box, int side) {
        return switch (side) {
            case 0 -> x - box.minX();
            case 1 -> box.maxX() - x;
            case 2 -> y - box.minY();
            default -> box.maxY() - y;
        };
    }
}
