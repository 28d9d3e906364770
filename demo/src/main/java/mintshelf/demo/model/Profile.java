package mintshelf.demo.model;

import java.util.ArrayList;
import java.util.List;

/**
 * A closed line of straight pieces and arcs, in millimetres; the material lies to its left. Extruded it bounds a solid.
 *
 * @param edges each begins where the one before ended
 */
record Profile(List<Edge> edges) {
    /**
     * A piece.
     *
     * @param radius of an arc round (cx, cy); 0 for a straight piece
     * @param left whether the arc turns left (with its centre on the side of the material)
     */
    record Edge(double x1, double y1, double x2, double y2, double cx, double cy, double radius, boolean left) {
        static Edge line(double x1, double y1, double x2, double y2) {
            return new Edge(x1, y1, x2, y2, 0, 0, 0, true);
        }
    }

    /** A full circle, as two halves: an outer one turns left, a hole right. */
    static Profile circle(double x, double y, double radius, boolean hole) {
        return new Profile(List.of(
                new Edge(x + radius, y, x - radius, y, x, y, radius, !hole),
                new Edge(x - radius, y, x + radius, y, x, y, radius, !hole)));
    }

    /** A rectangle round the origin with rounded corners. */
    static Profile rectangle(double width, double height, double corner) {
        double a = width / 2;
        double b = height / 2;
        double r = Math.min(corner, Math.min(a, b) * 0.99);
        if (r <= 0) {
            return new Profile(List.of(
                    Edge.line(-a, -b, a, -b),
                    Edge.line(a, -b, a, b),
                    Edge.line(a, b, -a, b),
                    Edge.line(-a, b, -a, -b)));
        }
        return new Profile(List.of(
                Edge.line(-a + r, -b, a - r, -b),
                new Edge(a - r, -b, a, -b + r, a - r, -b + r, r, true),
                Edge.line(a, -b + r, a, b - r),
                new Edge(a, b - r, a - r, b, a - r, b - r, r, true),
                Edge.line(a - r, b, -a + r, b),
                new Edge(-a + r, b, -a, b - r, -a + r, b - r, r, true),
                Edge.line(-a, b - r, -a, -b + r),
                new Edge(-a, -b + r, -a + r, -b, -a + r, -b + r, r, true)));
    }

    /** A hexagon by its width across flats. */
    static Profile hexagon(double flats) {
        double r = flats / Math.sqrt(3);
        List<Edge> edges = new ArrayList<>();
        for (int i = 0; i < 6; i++) {
            double a = Math.PI / 3 * i;
            double b = Math.PI / 3 * (i + 1);
            edges.add(Edge.line(r * Math.cos(a), r * Math.sin(a), r * Math.cos(b), r * Math.sin(b)));
        }
        return new Profile(edges);
    }
}
