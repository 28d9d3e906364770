package mintshelf.core.model.shape;

import java.util.ArrayList;
import java.util.BitSet;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;

/** Faces of one cylinder or cone that lie together on their axis. */
final class Turned {
    final Surface on;
    final boolean hollow;
    final Vec axis;
    final Vec foot;
    final Set<Integer> faces = new LinkedHashSet<>();
    final BitSet round = new BitSet(PARTS);
    double from = Double.POSITIVE_INFINITY;
    double to = Double.NEGATIVE_INFINITY;

    Turned(Surface on, boolean hollow) {
        this.on = on;
        this.hollow = hollow;
        this.axis = on.axis().upward();
        this.foot = on.at().across(axis);
    }

    double radius(double height) {
        if (on.kind() == Surface.Kind.CYLINDER) return on.radius();
        double along = height - on.at().dot(axis);
        return Math.abs(on.radius() + (on.axis().dot(axis) > 0 ? along : -along) * Math.tan(on.other()));
    }

    boolean isRound() {
        return round.cardinality() > ROUND * PARTS;
    }

    boolean is(Surface.Kind kind) {
        return on.kind() == kind;
    }

    Vec at(double height) {
        return foot.plus(axis.times(height));
    }

    static final int PARTS = 72;
    /** From here on round is round: less is the end of a slot, or a fillet. */
    private static final double ROUND = 0.57;

    static long cell(double value) {
        // Common decimals lie in the middle of their cells, not at an edge.
        return Math.round(value / Part.NEAR + 0.037);
    }

    static List<Long> line(Surface on) {
        Vec axis = on.axis().upward();
        Vec foot = on.at().across(axis);
        return List.of(
                Math.round(axis.x() * 1e5 + 0.037),
                Math.round(axis.y() * 1e5 + 0.037),
                Math.round(axis.z() * 1e5 + 0.037),
                cell(foot.x()),
                cell(foot.y()),
                cell(foot.z()));
    }

    /** What is turned about axes among some faces. */
    static List<Turned> of(List<Face> faces) {
        Map<List<Long>, List<Turned>> byKey = new LinkedHashMap<>();
        for (int f = 0; f < faces.size(); f++) {
            Face face = faces.get(f);
            boolean turned = face.is(Surface.Kind.CYLINDER) || face.is(Surface.Kind.CONE);
            if (!turned || face.bounds().isEmpty()) continue;
            Turned one = new Turned(face.surface(), !face.with());
            one.faces.add(f);
            measure(face, one);
            List<Long> key = new ArrayList<>(line(face.surface()));
            key.add(face.with() ? 1L : 0L);
            key.add(cell(one.radius(0)));
            key.add(Math.round(face.surface().other() * 1e5));
            byKey.computeIfAbsent(key, k -> new ArrayList<>()).add(one);
        }
        List<Turned> all = new ArrayList<>();
        byKey.values().forEach(same -> all.addAll(joined(same)));
        return all;
    }

    static void measure(Face face, Turned into) {
        Surface on = face.surface();
        for (Face.Bound bound : face.bounds()) {
            for (Face.Use use : bound.uses()) {
                Vec last = null;
                for (Vec p : use.edge().points()) {
                    double h = p.dot(into.axis);
                    into.from = Math.min(into.from, h);
                    into.to = Math.max(into.to, h);
                    if (last != null) mark(into.round, on.angle(last), on.angle(p));
                    last = p;
                }
            }
        }
    }

    static void mark(BitSet round, double from, double to) {
        double step = to - from;
        if (step > Math.PI) step -= 2 * Math.PI;
        if (step < -Math.PI) step += 2 * Math.PI;
        int parts = (int) Math.ceil(Math.abs(step) / (2 * Math.PI) * PARTS) + 1;
        for (int i = 0; i <= parts; i++) {
            double angle = from + step * i / parts;
            round.set(Math.floorMod((int) Math.floor(angle / (2 * Math.PI) * PARTS + 0.037), PARTS));
        }
    }

    /** What overlaps on the same axis is one: a cylinder is often written in halves. */
    static List<Turned> joined(List<Turned> same) {
        same.sort(Comparator.comparingDouble(t -> t.from));
        List<Turned> all = new ArrayList<>();
        for (Turned one : same) {
            Turned last = all.isEmpty() ? null : all.get(all.size() - 1);
            boolean apart = last != null && one.from > last.to - Part.NEAR && one.from > last.from + Part.NEAR;
            if (last == null || apart) {
                all.add(one);
                continue;
            }
            last.to = Math.max(last.to, one.to);
            last.faces.addAll(one.faces);
            last.round.or(one.round);
        }
        return all;
    }
}
