package mintshelf.core.model.shape;

import java.util.List;

/**
 * An edge of a solid.
 *
 * @param id by which faces that share it know it
 * @param radius of a circle; 0 for any other line
 * @param centre of a circle, {@code axis} what it turns about from its first end to its last
 * @param points along it, from its first end to its last, two at least
 */
public record Edge(long id, double radius, Vec centre, Vec axis, List<Vec> points) {
    public Edge {
        points = List.copyOf(points);
    }

    public static Edge plain(long id, List<Vec> points) {
        return new Edge(id, 0, Vec.ZERO, Vec.ZERO, points);
    }

    public boolean isCircle() {
        return radius > 0;
    }

    /** How it goes at its middle. */
    Vec along() {
        int half = points.size() / 2;
        return points.get(half).minus(points.get(half - 1)).unit();
    }

    Vec middle() {
        int half = points.size() / 2;
        return points.get(half).plus(points.get(half - 1)).times(0.5);
    }

    double length() {
        double length = 0;
        for (int i = 1; i < points.size(); i++) length += points.get(i).distance(points.get(i - 1));
        return length;
    }

    /** How far it reaches; of a circle exactly, wherever its steps fall. */
    Extent extent() {
        Extent all = Extent.NONE;
        for (Vec p : points) all = all.with(p);
        if (!isCircle()) return all;
        Vec start = points.get(0).minus(centre);
        double sweep = sweep();
        Vec third = axis.cross(start);
        double[] from = {start.x(), start.y(), start.z()};
        double[] up = {third.x(), third.y(), third.z()};
        for (int i = 0; i < 3; i++) {
            double at = Math.atan2(up[i], from[i]);
            for (double t = at - 2 * Math.PI; t <= sweep; t += Math.PI) {
                if (t >= 0) all = all.with(centre.plus(start.times(Math.cos(t))).plus(third.times(Math.sin(t))));
            }
        }
        return all;
    }

    /** The angle that a circle's edge goes through, in radians. */
    double sweep() {
        double all = 0;
        for (int i = 1; i < points.size(); i++) {
            Vec a = points.get(i - 1).minus(centre);
            Vec b = points.get(i).minus(centre);
            all += Math.atan2(a.cross(b).dot(axis), a.dot(b));
        }
        return all;
    }
}
