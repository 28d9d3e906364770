package mintshelf.core.drawing.dxf;

import java.util.Arrays;

/**
 * Curves as points, to a chosen tolerance: no chord is farther from its curve than that.
 *
 * <p>Arcs by the height of a chord's segment, r (1 - cos(step / 2)); ellipses alike, by their larger axis, which is on the safe side.
 * B-splines by de Boor's algorithm (C. de Boor, A Practical Guide to Splines, 1978), rational ones in homogeneous coordinates, halved
 * until the middle and the quarters of each part lie within the tolerance of its chord: a test that a curve can pass by chance, which
 * is why each span is cut in four first; between the places that are asked it may be off by a twentieth more. O(points). An arc has at most 3,600 chords and steps of 30° at the most, a spline 20,000 points: where that is too few
 * the tolerance does not hold.
 */
final class Curves {
    private static final int MOST_POINTS = 20_000;

    private Curves() {}

    /** A growing list of points. */
    static final class Points {
        private double[] xy = new double[16];
        private int n;

        void add(double x, double y) {
            if (n + 2 > xy.length) xy = Arrays.copyOf(xy, n * 2);
            xy[n++] = x;
            xy[n++] = y;
        }

        int count() {
            return n / 2;
        }

        double[] toArray() {
            return Arrays.copyOf(xy, n);
        }
    }

    /** How many chords keep an arc of this radius within the tolerance (the height of a chord's arc). */
    static int chords(double radius, double sweepDegrees, double tolerance) {
        double part =
                tolerance <= 0 || tolerance >= radius ? 60 : 2 * Math.toDegrees(Math.acos(1 - tolerance / radius));
        double steps = Math.ceil(Math.abs(sweepDegrees) / Math.max(0.1, Math.min(part, 30)));
        return (int) Math.max(2, Math.min(steps, 3600));
    }

    /**
     * Points along an ellipse: major axis (dx, dy), minor axis (ex, ey), parameters in degrees.
     *
     * @param tolerance in drawing units; 0 chooses a two-thousandth of the larger axis
     */
    static double[] ellipse(
            double x,
            double y,
            double dx,
            double dy,
            double ex,
            double ey,
            double from,
            double sweep,
            double tolerance) {
        double size = Math.max(Math.hypot(dx, dy), Math.hypot(ex, ey));
        int steps = chords(size, sweep, tolerance > 0 ? tolerance : size / 2000);
        double[] points = new double[2 * (steps + 1)];
        for (int i = 0; i <= steps; i++) {
            double a = Math.toRadians(from + sweep * i / steps);
            points[2 * i] = x + dx * Math.cos(a) + ex * Math.sin(a);
            points[2 * i + 1] = y + dy * Math.cos(a) + ey * Math.sin(a);
        }
        return points;
    }

    /**
     * The arc between two points with a bulge: the tangent of a quarter of its angle, positive turning left.
     *
     * @return x, y, radius, start in degrees, signed sweep in degrees
     */
    static double[] bulge(double x1, double y1, double x2, double y2, double bulge) {
        double sweep = 4 * Math.atan(bulge);
        double k = (1 - bulge * bulge) / (4 * bulge);
        double cx = (x1 + x2) / 2 - (y2 - y1) * k;
        double cy = (y1 + y2) / 2 + (x2 - x1) * k;
        return new double[] {
            cx, cy, Math.hypot(x1 - cx, y1 - cy), Math.toDegrees(Math.atan2(y1 - cy, x1 - cx)), Math.toDegrees(sweep)
        };
    }

    /**
     * A rational B-spline by de Boor's algorithm, halved until each part lies within the tolerance of its chord.
     *
     * @param knots as many as control points plus degree plus 1; made up evenly when they are not
     * @param weights one for each control point, or none
     */
    static double[] spline(int degree, double[] knots, double[] xs, double[] ys, double[] weights, double tolerance) {
        int n = Math.min(xs.length, ys.length);
        int p = Math.max(1, Math.min(degree, Math.min(n - 1, 15)));
        if (n < 2) return new double[0];
        double[] u = knots;
        boolean usable = u.length == n + p + 1;
        for (int i = 1; usable && i < u.length; i++) usable = u[i] >= u[i - 1];
        if (!usable || u[n] <= u[p]) {
            u = new double[n + p + 1];
            for (int i = 0; i < u.length; i++) u[i] = Math.max(0, Math.min(i - p, n - p));
        }
        double size = spread(xs, ys);
        double fine = tolerance > 0 ? tolerance : size / 4000;
        Points out = new Points();
        double[] w = weights.length == n ? weights : new double[0];
        double[] at = new double[2];
        deBoor(p, u, xs, ys, w, u[p], p, at);
        out.add(at[0], at[1]);
        for (int k = p; k < n; k++) {
            if (u[k + 1] <= u[k]) continue;
            double[] a = new double[2];
            double[] b = new double[2];
            // Four parts at least, so that a curve that meets its chord in the middle is not taken for a line.
            for (int part = 0; part < 4; part++) {
                double ua = u[k] + (u[k + 1] - u[k]) * part / 4;
                double ub = u[k] + (u[k + 1] - u[k]) * (part + 1) / 4;
                deBoor(p, u, xs, ys, w, ua, k, a);
                deBoor(p, u, xs, ys, w, ub, k, b);
                halve(p, u, xs, ys, w, k, ua, a, ub, b, fine, 0, out);
            }
        }
        return out.toArray();
    }

    private static double spread(double[] xs, double[] ys) {
        double minX = Double.MAX_VALUE;
        double maxX = -Double.MAX_VALUE;
        double minY = Double.MAX_VALUE;
        double maxY = -Double.MAX_VALUE;
        for (double x : xs) {
            minX = Math.min(minX, x);
            maxX = Math.max(maxX, x);
        }
        for (double y : ys) {
            minY = Math.min(minY, y);
            maxY = Math.max(maxY, y);
        }
        return Math.max(Math.max(maxX - minX, maxY - minY), 1e-9);
    }

    private static void halve(
            int p,
            double[] u,
            double[] xs,
            double[] ys,
            double[] w,
            int k,
            double ua,
            double[] a,
            double ub,
            double[] b,
            double tolerance,
            int depth,
            Points out) {
        double um = (ua + ub) / 2;
        double[] m = new double[2];
        deBoor(p, u, xs, ys, w, um, k, m);
        boolean near = off(m, a, b) <= tolerance;
        // What bends most beside its middle is found at the quarters.
        double[] q = new double[2];
        for (int quarter = 1; near && quarter < 4; quarter += 2) {
            deBoor(p, u, xs, ys, w, ua + (ub - ua) * quarter / 4, k, q);
            near = off(q, a, b) <= tolerance;
        }
        if (near || depth >= 9 || out.count() > MOST_POINTS) {
            out.add(b[0], b[1]);
            return;
        }
        halve(p, u, xs, ys, w, k, ua, a, um, m, tolerance, depth + 1, out);
        halve(p, u, xs, ys, w, k, um, m, ub, b, tolerance, depth + 1, out);
    }

    /** How far a point is from the line through two others. */
    private static double off(double[] m, double[] a, double[] b) {
        double dx = b[0] - a[0];
        double dy = b[1] - a[1];
        double length = Math.hypot(dx, dy);
        return length < 1e-12
                ? Math.hypot(m[0] - a[0], m[1] - a[1])
                : Math.abs((m[0] - a[0]) * dy - (m[1] - a[1]) * dx) / length;
    }

    private static void deBoor(
            int p, double[] u, double[] xs, double[] ys, double[] weights, double t, int k, double[] into) {
        double[] x = new double[p + 1];
        double[] y = new double[p + 1];
        double[] w = new double[p + 1];
        for (int j = 0; j <= p; j++) {
            int i = k - p + j;
            w[j] = weights.length == 0 || !(weights[i] > 0) ? 1 : weights[i];
            x[j] = xs[i] * w[j];
            y[j] = ys[i] * w[j];
        }
        for (int r = 1; r <= p; r++) {
            for (int j = p; j >= r; j--) {
                int i = k - p + j;
                double span = u[i + p - r + 1] - u[i];
                double alpha = span <= 0 ? 0 : (t - u[i]) / span;
                x[j] = (1 - alpha) * x[j - 1] + alpha * x[j];
                y[j] = (1 - alpha) * y[j - 1] + alpha * y[j];
                w[j] = (1 - alpha) * w[j - 1] + alpha * w[j];
            }
        }
        into[0] = x[p] / w[p];
        into[1] = y[p] / w[p];
    }

    /** A smooth curve through points (cardinal cubic, tangents by the neighbours' distances), where a spline has no control points. */
    static double[] through(double[] xs, double[] ys, boolean closed) {
        int n = Math.min(xs.length, ys.length);
        Points out = new Points();
        if (n < 2) return out.toArray();
        out.add(xs[0], ys[0]);
        int parts = closed ? n : n - 1;
        for (int i = 0; i < parts; i++) {
            int a = closed ? (i - 1 + n) % n : Math.max(0, i - 1);
            int b = i;
            int c = (i + 1) % n;
            int d = closed ? (i + 2) % n : Math.min(n - 1, i + 2);
            double mx1 = (xs[c] - xs[a]) / 2;
            double my1 = (ys[c] - ys[a]) / 2;
            double mx2 = (xs[d] - xs[b]) / 2;
            double my2 = (ys[d] - ys[b]) / 2;
            for (int s = 1; s <= 12; s++) {
                double t = s / 12.0;
                double h1 = 2 * t * t * t - 3 * t * t + 1;
                double h2 = t * t * t - 2 * t * t + t;
                double h3 = -2 * t * t * t + 3 * t * t;
                double h4 = t * t * t - t * t;
                out.add(h1 * xs[b] + h2 * mx1 + h3 * xs[c] + h4 * mx2, h1 * ys[b] + h2 * my1 + h3 * ys[c] + h4 * my2);
                if (out.count() > MOST_POINTS) return out.toArray();
            }
        }
        return out.toArray();
    }
}
