package mintshelf.core.model.step;

import java.io.InputStream;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import mintshelf.core.model.step.StepValue.Typed;

/**
 * The edges of a model's solids as lines in space (ISO 10303-42, topology and curves), without a kernel. Straight edges, circles and
 * ellipses are what they are, splines are followed by their knots.
 */
class StepCurves extends StepInstances {
    private static final double STEP = Math.toRadians(7.5);
    private static final int SPLINE_POINTS = 24;
    private static final int MOST_POLES = 400;

    static final Set<String> CURVES = Set.of(
            "CARTESIAN_POINT",
            "DIRECTION",
            "AXIS2_PLACEMENT_3D",
            "VERTEX_POINT",
            "EDGE_CURVE",
            "CIRCLE",
            "ELLIPSE",
            "POLYLINE",
            "B_SPLINE_CURVE_WITH_KNOTS",
            "SURFACE_CURVE",
            "SEAM_CURVE",
            "INTERSECTION_CURVE");

    private static final Set<String> ON_SURFACES = Set.of("SURFACE_CURVE", "SEAM_CURVE", "INTERSECTION_CURVE");

    StepCurves(InputStream in, Set<String> more, int most) {
        super(in, with(more), most);
    }

    private static Set<String> with(Set<String> more) {
        Set<String> all = new HashSet<>(CURVES);
        all.addAll(more);
        return all;
    }

    /** A rational spline has its knots and its poles in parts of their own: its weights are passed over. */
    @Override
    void complex(long id, Map<String, Typed> parts) {
        Typed curve = parts.get("B_SPLINE_CURVE");
        Typed knots = parts.get("B_SPLINE_CURVE_WITH_KNOTS");
        if (curve == null
                || knots == null
                || curve.values().size() < 5
                || knots.values().size() < 2) return;
        List<StepValue> values = new ArrayList<>();
        values.add(StepValue.Nothing.NOTHING);
        values.addAll(curve.values().subList(0, 5));
        values.addAll(knots.values().subList(0, 2));
        kept.put(id, new Typed("B_SPLINE_CURVE_WITH_KNOTS", values));
    }

    /** The points of an edge, x, y and z in turn, in the file's units; nothing where its ends are not there. */
    Optional<double[]> edge(Typed edge) {
        Optional<double[]> from = vertex(edge.at(1).ref());
        Optional<double[]> to = vertex(edge.at(2).ref());
        if (from.isEmpty() || to.isEmpty()) return Optional.empty();
        boolean forward =
                !(edge.at(4) instanceof StepValue.Word word && word.word().equals("F"));
        Optional<Typed> found = curve(edge.at(3).ref(), 0);
        if (found.isEmpty()) return Optional.of(joined(from.get(), to.get()));
        Typed curve = found.get();
        return Optional.of(
                switch (curve.type()) {
                    case "CIRCLE" -> arc(curve, from.get(), to.get(), forward, radius(curve, 2), radius(curve, 2));
                    case "ELLIPSE" -> arc(curve, from.get(), to.get(), forward, radius(curve, 2), radius(curve, 3));
                    case "B_SPLINE_CURVE_WITH_KNOTS" -> spline(curve, from.get(), to.get());
                    case "POLYLINE" -> through(from.get(), curve.at(1).refs(), to.get(), forward);
                    default -> joined(from.get(), to.get());
                });
    }

    /** The curve in space that an edge lies on; of a curve on a surface the one that it is in space. */
    Optional<Typed> curve(long id, int depth) {
        Optional<Typed> curve = Optional.ofNullable(kept.get(id));
        boolean onSurface = curve.filter(c -> ON_SURFACES.contains(c.type())).isPresent();
        return onSurface && depth < 4 ? curve(curve.get().at(1).ref(), depth + 1) : curve;
    }

    Optional<double[]> vertex(long id) {
        return instance(id, "VERTEX_POINT").flatMap(v -> point(v.at(1).ref()));
    }

    Optional<double[]> point(long id) {
        return instance(id, "CARTESIAN_POINT").map(p -> vector(id, "CARTESIAN_POINT", new double[] {0, 0, 0}));
    }

    static double radius(Typed curve, int at) {
        double radius = curve.at(at).number().orElse(0.0);
        return Double.isFinite(radius) ? Math.abs(radius) : 0;
    }

    private static double[] joined(double[] from, double[] to) {
        return new double[] {from[0], from[1], from[2], to[0], to[1], to[2]};
    }

    private double[] arc(Typed curve, double[] from, double[] to, boolean forward, double a, double b) {
        if (a <= 0 || b <= 0) return joined(from, to);
        double[] m = axes(curve.at(1).ref(), 1);
        double begin = angle(m, from, a, b);
        double end = angle(m, to, a, b);
        double sweep = forward ? end - begin : begin - end;
        sweep = ((sweep % (2 * Math.PI)) + 2 * Math.PI) % (2 * Math.PI);
        if (sweep < 1e-6) sweep = 2 * Math.PI;
        if (!forward) sweep = -sweep;
        int steps = Math.max(2, (int) Math.ceil(Math.abs(sweep) / STEP));
        double[] points = new double[3 * (steps + 1)];
        for (int i = 0; i <= steps; i++) {
            double t = begin + sweep * i / steps;
            double x = a * Math.cos(t);
            double y = b * Math.sin(t);
            for (int k = 0; k < 3; k++) points[3 * i + k] = m[4 * k] * x + m[4 * k + 1] * y + m[4 * k + 3];
        }
        return points;
    }

    private static double angle(double[] m, double[] p, double a, double b) {
        double x = 0;
        double y = 0;
        for (int k = 0; k < 3; k++) {
            x += (p[k] - m[4 * k + 3]) * m[4 * k];
            y += (p[k] - m[4 * k + 3]) * m[4 * k + 1];
        }
        return Math.atan2(y / b, x / a);
    }

    private double[] through(double[] from, List<Long> ids, double[] to, boolean forward) {
        List<double[]> points = new ArrayList<>();
        for (long id : ids.subList(0, Math.min(ids.size(), MOST_POLES)))
            point(id).ifPresent(points::add);
        if (points.size() < 2) return joined(from, to);
        double[] line = new double[3 * points.size()];
        for (int i = 0; i < points.size(); i++) {
            System.arraycopy(points.get(forward ? i : points.size() - 1 - i), 0, line, 3 * i, 3);
        }
        return line;
    }

    /** The spline from the place of one end to that of the other, by de Boor's rule. */
    private double[] spline(Typed curve, double[] from, double[] to) {
        int degree = (int) Math.max(1, Math.min(25, curve.at(1).number().orElse(1.0)));
        List<double[]> poles = new ArrayList<>();
        List<Long> ids = curve.at(2).refs();
        if (ids.size() > MOST_POLES) return joined(from, to);
        for (long id : ids) point(id).ifPresent(poles::add);
        List<Double> knots = knots(curve.at(6), curve.at(7));
        if (poles.size() <= degree || knots.size() != poles.size() + degree + 1) return joined(from, to);
        double low = knots.get(degree);
        double high = knots.get(poles.size());
        if (!(high > low)) return joined(from, to);
        double[] all = new double[3 * (SPLINE_POINTS + 1)];
        for (int i = 0; i <= SPLINE_POINTS; i++) {
            double[] p = deBoor(degree, poles, knots, low + (high - low) * i / SPLINE_POINTS);
            System.arraycopy(p, 0, all, 3 * i, 3);
        }
        return all;
    }

    private static List<Double> knots(StepValue multiplicities, StepValue values) {
        List<Double> knots = new ArrayList<>();
        if (!(multiplicities instanceof StepValue.Many times) || !(values instanceof StepValue.Many many)) return knots;
        for (int i = 0; i < Math.min(times.values().size(), many.values().size()); i++) {
            int n = (int) Math.min(MOST_POLES, times.values().get(i).number().orElse(0.0));
            double at = many.values().get(i).number().orElse(0.0);
            for (int k = 0; k < n && knots.size() < 3 * MOST_POLES; k++) knots.add(at);
        }
        return knots;
    }

    private static double[] deBoor(int degree, List<double[]> poles, List<Double> knots, double t) {
        int span = degree;
        while (span < poles.size() - 1 && knots.get(span + 1) <= t) span++;
        double[][] d = new double[degree + 1][];
        for (int i = 0; i <= degree; i++) d[i] = poles.get(span - degree + i).clone();
        for (int r = 1; r <= degree; r++) {
            for (int i = degree; i >= r; i--) {
                double from = knots.get(span - degree + i);
                double wide = knots.get(i + 1 + span - r) - from;
                double part = wide == 0 ? 0 : (t - from) / wide;
                for (int k = 0; k < 3; k++) d[i][k] = (1 - part) * d[i - 1][k] + part * d[i][k];
            }
        }
        return d[degree];
    }
}
