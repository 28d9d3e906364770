package mintshelf.core.model.shape;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/**
 * The volume of what faces enclose, summed over their outlines (Gauss, Green): no kernel is needed where each face lies on an elementary
 * surface.
 */
public final class Volume {
    private static final double[] AT = {
        -0.9061798459386640, -0.5384693101056831, 0, 0.5384693101056831, 0.9061798459386640
    };
    private static final double[] WEIGHT = {
        0.2369268850561891, 0.4786286704993665, 0.5688888888888889, 0.4786286704993665, 0.2369268850561891
    };

    private Volume() {}

    /** The volume in cubic millimetres; nothing where a face is of free form, or the faces enclose none. O(edges). */
    public static Optional<Double> of(Body body) {
        if (body.solids() == 0) return Optional.empty();
        double all = 0;
        for (Face face : body.faces()) {
            if (face.is(Surface.Kind.FREE)) return Optional.empty();
            all += face.is(Surface.Kind.PLANE) ? plane(face) : round(face);
        }
        return Double.isFinite(all) && all > 0 ? Optional.of(all) : Optional.empty();
    }

    private static double plane(Face face) {
        Vec area = Vec.ZERO;
        Vec from = face.surface().at();
        for (Face.Bound bound : face.bounds()) {
            for (Face.Use use : bound.uses()) {
                Vec one = Vec.ZERO;
                Edge edge = use.edge();
                for (int i = 1; i < edge.points().size(); i++) {
                    Vec a = edge.points().get(i - 1);
                    Vec b = edge.points().get(i);
                    one = one.plus(a.minus(from).cross(b.minus(from)).times(0.5));
                    if (edge.isCircle()) one = one.plus(edge.axis().times(segment(edge, a, b)));
                }
                area = area.plus(use.forward() ? one : one.times(-1));
            }
        }
        return from.dot(area) / 3;
    }

    /** What lies between a circle and its chord. */
    private static double segment(Edge edge, Vec a, Vec b) {
        Vec from = a.minus(edge.centre());
        Vec to = b.minus(edge.centre());
        double angle = Math.atan2(from.cross(to).dot(edge.axis()), from.dot(to));
        return edge.radius() * edge.radius() * (angle - Math.sin(angle)) / 2;
    }

    private static double round(Face face) {
        Surface on = face.surface();
        double winding = 0;
        for (Face.Bound bound : face.bounds()) winding += winding(on, bound);
        // Seen from inside, what lies to the left lies to the right.
        double base = base(on, face.with() ? winding : -winding, face.bounds().isEmpty());
        if (face.bounds().isEmpty() || isPoint(face)) return (face.with() ? 1 : -1) * whole(on);
        double all = 0;
        double cut = cut(face);
        for (Face.Bound bound : face.bounds()) all -= along(on, bound, base, cut);
        return all;
    }

    private static boolean isPoint(Face face) {
        return face.extent().size().length() < 1e-9;
    }

    /** All of a closed surface. */
    private static double whole(Surface on) {
        return switch (on.kind()) {
            case SPHERE -> 4.0 / 3 * Math.PI * on.radius() * on.radius() * on.radius();
            case TORUS -> 2 * Math.PI * Math.PI * on.radius() * on.other() * on.other();
            default -> 0;
        };
    }

    /** From where the other parameter is summed: from a pole or a tip that lies inside of the face, for no edge goes round it. */
    private static double base(Surface on, double winding, boolean closed) {
        if (closed || Math.abs(winding) < 1) return 0;
        return switch (on.kind()) {
            case SPHERE -> winding > 0 ? Math.PI / 2 : -Math.PI / 2;
            case CONE -> -on.radius() / Math.tan(on.other());
            default -> 0;
        };
    }

    private static double winding(Surface on, Face.Bound bound) {
        double all = 0;
        for (Face.Use use : bound.uses()) {
            double one = 0;
            for (int i = 1; i < use.edge().points().size(); i++) one += step(on, use.edge(), i);
            all += use.forward() ? one : -one;
        }
        return all;
    }

    private static double step(Surface on, Edge edge, int i) {
        Vec a = edge.points().get(i - 1);
        Vec b = edge.points().get(i);
        // On the axis there is no angle.
        if (isOnAxis(on, a) || isOnAxis(on, b)) return 0;
        return turn(on.angle(b) - on.angle(a));
    }

    private static boolean isOnAxis(Surface on, Vec p) {
        return p.minus(on.at()).across(on.axis()).length() < 1e-9;
    }

    private static double turn(double angle) {
        double a = angle % (2 * Math.PI);
        if (a > Math.PI) return a - 2 * Math.PI;
        return a < -Math.PI ? a + 2 * Math.PI : a;
    }

    private static double along(Surface on, Face.Bound bound, double base, double cut) {
        double all = 0;
        double v = Double.NaN;
        for (Face.Use use : bound.uses()) {
            Edge edge = use.edge();
            int n = edge.points().size();
            for (int i = 1; i < n; i++) {
                Vec from = edge.points().get(use.forward() ? i - 1 : n - i);
                Vec to = edge.points().get(use.forward() ? i : n - 1 - i);
                double begins = on.second(from);
                double dv = on.second(to) - begins;
                if (on.kind() == Surface.Kind.TORUS) {
                    // On a torus the latitude goes round too: it is followed on.
                    dv = turn(dv);
                    if (Double.isNaN(v)) v = cut + turned(begins - cut);
                } else {
                    v = begins;
                }
                double du = use.forward() ? step(on, edge, i) : -step(on, edge, n - i);
                double u = on.angle(from);
                if (du != 0) {
                    all += (up(on, u, v, base)
                                    + 4 * up(on, u + du / 2, v + dv / 2, base)
                                    + up(on, u + du, v + dv, base))
                            * du
                            / 6;
                }
                v += dv;
            }
        }
        return all;
    }

    /** A latitude of a torus at which the face is not: the middle of the widest gap between those of its edges. */
    private static double cut(Face face) {
        if (!face.is(Surface.Kind.TORUS)) return 0;
        List<Double> all = new ArrayList<>();
        for (Face.Bound bound : face.bounds()) {
            for (Face.Use use : bound.uses())
                use.edge().points().forEach(p -> all.add(turned(face.surface().second(p))));
        }
        all.sort(null);
        double cut = 0;
        double widest = -1;
        for (int i = 0; i < all.size(); i++) {
            double next = i + 1 < all.size() ? all.get(i + 1) : all.get(0) + 2 * Math.PI;
            if (next - all.get(i) > widest) {
                widest = next - all.get(i);
                cut = all.get(i) + widest / 2;
            }
        }
        return cut;
    }

    /** An angle from 0 up to a whole turn. */
    private static double turned(double angle) {
        double a = angle % (2 * Math.PI);
        return a < 0 ? a + 2 * Math.PI : a;
    }

    /** The flux summed over the other parameter, from its base; of angles an eighth of a turn at a time. */
    private static double up(Surface on, double u, double v, double base) {
        boolean turns = on.kind() == Surface.Kind.TORUS || on.kind() == Surface.Kind.SPHERE;
        int parts = turns ? Math.max(1, (int) Math.ceil(Math.abs(v - base) / (Math.PI / 4))) : 1;
        double half = (v - base) / parts / 2;
        double sum = 0;
        for (int part = 0; part < parts; part++) {
            double from = base + 2 * half * part;
            for (int i = 0; i < AT.length; i++) sum += WEIGHT[i] * on.flux(u, from + half + half * AT[i]);
        }
        return sum * half;
    }
}
