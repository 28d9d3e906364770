package mintshelf.core.redline;

import mintshelf.core.drawing.Box;
import mintshelf.core.drawing.Primitive;

/** How far a place is from what is drawn, and where it goes when that changes. */
final class Near {
    private Near() {}

    /** The distance to the lines of a primitive, to the box of a text or an area. O(points). */
    static double distance(Primitive p, double x, double y) {
        if (p instanceof Primitive.Arc arc) return arc(arc, x, y);
        if (p instanceof Primitive.Polyline line) return Math.sqrt(foot(line, x, y).square);
        if (p instanceof Primitive.Strokes strokes) {
            double best = Double.POSITIVE_INFINITY;
            double[] e = strokes.ends();
            for (int i = 0; i + 3 < e.length; i += 4) best = Math.min(best, square(e, i, i + 2, x, y));
            return Math.sqrt(best);
        }
        Box box = p.box();
        double dx = Math.max(0, Math.max(box.minX() - x, x - box.maxX()));
        double dy = Math.max(0, Math.max(box.minY() - y, y - box.maxY()));
        return Math.hypot(dx, dy);
    }

    private static double arc(Primitive.Arc arc, double x, double y) {
        double centre = Math.hypot(x - arc.x(), y - arc.y());
        double on = Math.abs(centre - arc.radius());
        if (arc.sweep() >= 360) return on;
        double turn = Math.toDegrees(Math.atan2(y - arc.y(), x - arc.x())) - arc.from();
        turn = (turn % 360 + 360) % 360;
        if (turn <= arc.sweep()) return on;
        return Math.min(Math.hypot(x - arc.xAt(0), y - arc.yAt(0)), Math.hypot(x - arc.xAt(1), y - arc.yAt(1)));
    }

    private static double square(double[] p, int a, int b, double x, double y) {
        double t = along(p, a, b, x, y);
        double dx = p[a] + t * (p[b] - p[a]) - x;
        double dy = p[a + 1] + t * (p[b + 1] - p[a + 1]) - y;
        return dx * dx + dy * dy;
    }

    private static double along(double[] p, int a, int b, double x, double y) {
        double dx = p[b] - p[a];
        double dy = p[b + 1] - p[a + 1];
        double length = dx * dx + dy * dy;
        if (length <= 0) return 0;
        return Math.max(0, Math.min(1, ((x - p[a]) * dx + (y - p[a + 1]) * dy) / length));
    }

    /** A place on a line: behind which corner, how far to the next, and how far from the point asked, squared. */
    private record Foot(int corner, double part, double square) {}

    private static Foot foot(Primitive.Polyline line, double x, double y) {
        double[] p = line.points();
        int corners = p.length / 2;
        Foot best = new Foot(0, 0, Double.POSITIVE_INFINITY);
        if (corners == 1) return new Foot(0, 0, Math.pow(p[0] - x, 2) + Math.pow(p[1] - y, 2));
        for (int i = 0; i < (line.closed() ? corners : corners - 1); i++) {
            int next = (i + 1) % corners;
            double square = square(p, 2 * i, 2 * next, x, y);
            if (square < best.square) best = new Foot(i, along(p, 2 * i, 2 * next, x, y), square);
        }
        return best;
    }

    /**
     * Where a place on {@code old} lies on what it became: the same part of the same line, the same direction on a circle, the same
     * place beside a text.
     */
    static Point carried(Primitive old, Primitive now, Point place) {
        if (old instanceof Primitive.Arc a && now instanceof Primitive.Arc b) {
            double off = Math.hypot(place.x() - a.x(), place.y() - a.y());
            if (off < a.radius() * 0.5 || a.radius() <= 0) return place.by(b.x() - a.x(), b.y() - a.y());
            double grown = b.radius() / a.radius();
            return new Point(b.x() + (place.x() - a.x()) * grown, b.y() + (place.y() - a.y()) * grown);
        }
        if (old instanceof Primitive.Polyline a && now instanceof Primitive.Polyline b) {
            if (a.points().length == b.points().length && a.points().length >= 4) return carried(a, b, place);
        }
        if (old instanceof Primitive.Text a && now instanceof Primitive.Text b) {
            return place.by(b.x() - a.x(), b.y() - a.y());
        }
        Box a = old.box();
        Box b = now.box();
        return place.by(b.middleX() - a.middleX(), b.middleY() - a.middleY());
    }

    private static Point carried(Primitive.Polyline a, Primitive.Polyline b, Point place) {
        double[] p = a.points();
        double[] q = b.points();
        int corners = p.length / 2;
        Foot foot = foot(a, place.x(), place.y());
        int next = (foot.corner() + 1) % corners;
        boolean turned = !a.closed() && reversed(p, q);
        int i = turned ? corners - 1 - foot.corner() : foot.corner();
        int k = turned ? corners - 1 - next : next;
        double x = (1 - foot.part()) * (q[2 * i] - p[2 * foot.corner()]) + foot.part() * (q[2 * k] - p[2 * next]);
        double y = (1 - foot.part()) * (q[2 * i + 1] - p[2 * foot.corner() + 1])
                + foot.part() * (q[2 * k + 1] - p[2 * next + 1]);
        return place.by(x, y);
    }

    /** Whether the later line is drawn from its other end. */
    private static boolean reversed(double[] p, double[] q) {
        double same = 0;
        double other = 0;
        int last = p.length - 2;
        for (int i = 0; i < p.length; i += 2) {
            same += Math.hypot(p[i] - q[i], p[i + 1] - q[i + 1]);
            other += Math.hypot(p[i] - q[last - i], p[i + 1] - q[last - i + 1]);
        }
        return other < same;
    }
}
