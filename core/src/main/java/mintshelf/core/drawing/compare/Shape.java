package mintshelf.core.drawing.compare;

import java.util.Arrays;
import mintshelf.core.drawing.Box;
import mintshelf.core.drawing.Primitive;

/**
 * A primitive in a form that can be compared: lines without direction, rings without a first corner, arcs by their ends.
 *
 * @param index of the primitive in its scene
 * @param kind of primitive, style and text: what is equal or not, without tolerance
 * @param values coordinates, in an order that does not depend on how they were drawn
 */
record Shape(int index, Primitive primitive, int kind, double[] values, Box box) {
    static Shape of(int index, Primitive p, int kind) {
        return new Shape(index, p, kind, values(p), p.box());
    }

    /** How many of the values are coordinates, x and y in turn; the rest are lengths and directions. */
    private static int places(Primitive p, int values) {
        if (p instanceof Primitive.Arc) return values == 3 ? 2 : values - 1;
        return p instanceof Primitive.Text ? 2 : values;
    }

    int places() {
        return places(primitive, values.length);
    }

    private static double[] values(Primitive p) {
        if (p instanceof Primitive.Polyline line) {
            return line.closed() ? ring(line.points()) : open(line.points());
        }
        if (p instanceof Primitive.Arc arc) {
            if (arc.sweep() >= 360 - 1e-9) return clean(new double[] {arc.x(), arc.y(), arc.radius()});
            return clean(new double[] {
                arc.x(),
                arc.y(),
                arc.xAt(0),
                arc.yAt(0),
                arc.xAt(1),
                arc.yAt(1),
                arc.xAt(0.5),
                arc.yAt(0.5),
                arc.radius()
            });
        }
        if (p instanceof Primitive.Text t) {
            double a = Math.toRadians(t.angle());
            return clean(new double[] {
                t.x(), t.y(), t.height(), Math.cos(a) * t.height(), Math.sin(a) * t.height(), t.width() * t.height()
            });
        }
        if (p instanceof Primitive.Strokes strokes) return strokes(strokes.ends());
        double[][] rings = ((Primitive.Fill) p).rings();
        if (rings.length == 1) return ring(rings[0]);
        double[][] own = new double[rings.length][];
        int n = 0;
        for (int i = 0; i < rings.length; i++) {
            own[i] = ring(rings[i]);
            n += own[i].length;
        }
        Arrays.sort(own, Arrays::compare);
        double[] all = new double[n];
        int at = 0;
        for (double[] ring : own) {
            System.arraycopy(ring, 0, all, at, ring.length);
            at += ring.length;
        }
        return all;
    }

    /** Minus zero is zero. */
    private static double[] clean(double[] values) {
        for (int i = 0; i < values.length; i++) values[i] += 0.0;
        return values;
    }

    private static double[] open(double[] points) {
        double[] there = clean(points.clone());
        int n = there.length / 2;
        for (int i = 0; i < n; i++) {
            double a = there[2 * i];
            double b = there[2 * (n - 1 - i)];
            double c = there[2 * i + 1];
            double d = there[2 * (n - 1 - i) + 1];
            if (a < b || (a == b && c < d)) return there;
            if (a > b || c > d) return reversed(there);
        }
        return there;
    }

    static double[] reversed(double[] points) {
        double[] back = new double[points.length];
        int n = points.length / 2;
        for (int i = 0; i < n; i++) {
            back[2 * i] = points[2 * (n - 1 - i)];
            back[2 * i + 1] = points[2 * (n - 1 - i) + 1];
        }
        return back;
    }

    /** A ring from its least corner on, towards the lesser of its neighbours. */
    private static double[] ring(double[] points) {
        double[] p = clean(points.clone());
        int n = p.length / 2;
        if (n < 2) return p;
        int first = 0;
        for (int i = 1; i < n; i++) if (less(p, i, first)) first = i;
        boolean forward = !less(p, (first + n - 1) % n, (first + 1) % n);
        double[] ring = new double[p.length];
        for (int i = 0; i < n; i++) {
            int from = forward ? (first + i) % n : (first - i + n) % n;
            ring[2 * i] = p[2 * from];
            ring[2 * i + 1] = p[2 * from + 1];
        }
        return ring;
    }

    private static boolean less(double[] p, int a, int b) {
        return p[2 * a] != p[2 * b] ? p[2 * a] < p[2 * b] : p[2 * a + 1] < p[2 * b + 1];
    }

    private static double[] strokes(double[] ends) {
        double[][] parts = new double[ends.length / 4][];
        for (int i = 0; i < parts.length; i++) {
            parts[i] = open(new double[] {ends[4 * i], ends[4 * i + 1], ends[4 * i + 2], ends[4 * i + 3]});
        }
        Arrays.sort(parts, Arrays::compare);
        double[] all = new double[parts.length * 4];
        for (int i = 0; i < parts.length; i++) System.arraycopy(parts[i], 0, all, 4 * i, 4);
        return all;
    }

    /**
     * How far two shapes of one kind lie apart when the other is moved by (dx, dy): the largest distance of a value; infinite where
     * they cannot be compared.
     */
    double distance(Shape other, double dx, double dy) {
        if (kind != other.kind || values.length != other.values.length) return Double.POSITIVE_INFINITY;
        double straight = apart(values, other.values, places(), dx, dy);
        if (primitive instanceof Primitive.Polyline line && !line.closed()) {
            // Ends that are equal to within the tolerance may have been put in either order.
            return Math.min(straight, apart(values, reversed(other.values), places(), dx, dy));
        }
        boolean ring = primitive instanceof Primitive.Polyline
                || (primitive instanceof Primitive.Fill fill && fill.rings().length == 1);
        if (ring && straight > 0 && values.length <= 64) return Math.min(straight, turned(other, dx, dy));
        return straight;
    }

    private double turned(Shape other, double dx, double dy) {
        double best = Double.POSITIVE_INFINITY;
        int n = values.length / 2;
        double[] turn = new double[values.length];
        for (double[] way : new double[][] {other.values, reversed(other.values)}) {
            for (int first = 0; first < n; first++) {
                for (int i = 0; i < n; i++) {
                    turn[2 * i] = way[2 * ((first + i) % n)];
                    turn[2 * i + 1] = way[2 * ((first + i) % n) + 1];
                }
                best = Math.min(best, apart(values, turn, values.length, dx, dy));
            }
        }
        return best;
    }

    private static double apart(double[] a, double[] b, int places, double dx, double dy) {
        double most = 0;
        for (int i = 0; i < a.length; i++) {
            double move = i < places ? (i % 2 == 0 ? dx : dy) : 0;
            double d = Math.abs(a[i] - b[i] - move);
            if (d > most) most = d;
        }
        return most;
    }

    /** An order by content alone, the same whichever sheet a shape stands on. */
    static int byContent(Shape a, Shape b) {
        int kind = Integer.compare(a.kind, b.kind);
        return kind != 0 ? kind : Arrays.compare(a.values, b.values);
    }
}
