package mintshelf.core.model.step;

import java.io.IOException;
import java.io.InputStream;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import mintshelf.core.model.shape.Body;
import mintshelf.core.model.shape.Edge;
import mintshelf.core.model.shape.Extent;
import mintshelf.core.model.shape.Face;
import mintshelf.core.model.shape.Surface;
import mintshelf.core.model.shape.Vec;
import mintshelf.core.model.step.StepValue.Typed;

/**
 * The faces of a model's solids (ISO 10303-42, advanced and manifold boundary representations), product by product. What a file leaves
 * out or says wrong costs the face, which is counted, and nothing else.
 */
public final class StepFaces extends StepCurves {
    /** Instances that are taken in: a file of about a hundred megabytes. */
    private static final int MOST_KEPT = 2_000_000;

    private static final Set<String> SURFACES = Set.of(
            "PLANE",
            "CYLINDRICAL_SURFACE",
            "CONICAL_SURFACE",
            "SPHERICAL_SURFACE",
            "TOROIDAL_SURFACE",
            "B_SPLINE_SURFACE_WITH_KNOTS",
            "SURFACE_OF_LINEAR_EXTRUSION",
            "SURFACE_OF_REVOLUTION");

    private static final Set<String> WANTED = Set.of(
            "ADVANCED_FACE",
            "FACE_SURFACE",
            "FACE_OUTER_BOUND",
            "FACE_BOUND",
            "EDGE_LOOP",
            "POLY_LOOP",
            "ORIENTED_EDGE",
            "CLOSED_SHELL",
            "OPEN_SHELL",
            "ORIENTED_CLOSED_SHELL",
            "MANIFOLD_SOLID_BREP",
            "FACETED_BREP",
            "BREP_WITH_VOIDS",
            "SHELL_BASED_SURFACE_MODEL",
            "ADVANCED_BREP_SHAPE_REPRESENTATION",
            "FACETED_BREP_SHAPE_REPRESENTATION",
            "MANIFOLD_SURFACE_SHAPE_REPRESENTATION",
            "SHAPE_REPRESENTATION",
            "SHAPE_REPRESENTATION_RELATIONSHIP",
            "SHAPE_DEFINITION_REPRESENTATION",
            "PRODUCT_DEFINITION_SHAPE",
            "PRODUCT_DEFINITION",
            "PRODUCT_DEFINITION_WITH_ASSOCIATED_DOCUMENTS",
            "PRODUCT_DEFINITION_FORMATION",
            "PRODUCT_DEFINITION_FORMATION_WITH_SPECIFIED_SOURCE",
            "PRODUCT");

    private static final Set<String> SOLIDS = Set.of("MANIFOLD_SOLID_BREP", "FACETED_BREP", "BREP_WITH_VOIDS");

    private final double unit;
    private final Map<Long, Edge> edges = new HashMap<>();
    private final Map<Long, Surface> surfaces = new HashMap<>();
    private boolean degrees;
    private int lost;

    private StepFaces(InputStream in, double unit) {
        super(in, all(), MOST_KEPT);
        this.unit = unit;
    }

    private static Set<String> all() {
        Set<String> all = new HashSet<>(WANTED);
        all.addAll(SURFACES);
        return all;
    }

    /**
     * @param bodies by product, those first that come first in the file
     * @param lost faces that could not be read
     * @param cut whether the file has more than is taken in
     */
    public record Faces(List<Body> bodies, int lost, boolean cut) {
        public Faces {
            bodies = List.copyOf(bodies);
        }
    }

    /**
     * Reads the faces; what breaks off is read up to there. O(bytes).
     *
     * @param unit millimetres of one of the file's length units
     */
    public static Faces read(InputStream in, double unit) throws IOException {
        StepFaces reader = new StepFaces(in, unit);
        reader.read();
        return new Faces(reader.bodies(), reader.lost, reader.kept.size() >= MOST_KEPT);
    }

    @Override
    void complex(long id, Map<String, Typed> parts) {
        super.complex(id, parts);
        // A file whose angles are not radians says so by a unit that is converted.
        if (parts.containsKey("PLANE_ANGLE_UNIT") && parts.containsKey("CONVERSION_BASED_UNIT")) degrees = true;
        Typed surface = parts.get("B_SPLINE_SURFACE");
        if (surface != null) {
            List<StepValue> values = new ArrayList<>();
            values.add(StepValue.Nothing.NOTHING);
            values.addAll(surface.values());
            kept.put(id, new Typed("B_SPLINE_SURFACE_WITH_KNOTS", values));
        }
    }

    private List<Body> bodies() {
        Map<Long, String> products = products();
        Map<String, List<Face>> faces = new LinkedHashMap<>();
        Map<String, Integer> solids = new HashMap<>();
        Set<Long> known = new HashSet<>();
        kept.forEach((id, one) -> {
            boolean solid = SOLIDS.contains(one.type());
            if (!solid && !one.type().equals("SHELL_BASED_SURFACE_MODEL")) return;
            String product = products.getOrDefault(id, "");
            List<Face> of = faces.computeIfAbsent(product, p -> new ArrayList<>());
            shells(one).forEach(shell -> {
                if (known.add(shell)) shell(shell, of);
            });
            if (solid) solids.merge(product, 1, Integer::sum);
        });
        // Shells that belong to no solid: a file that was cut, or one of surfaces alone.
        if (faces.isEmpty()) {
            List<Face> of = new ArrayList<>();
            kept.forEach((id, one) -> {
                if (one.type().equals("CLOSED_SHELL") || one.type().equals("OPEN_SHELL")) shell(id, of);
            });
            if (!of.isEmpty()) faces.put("", of);
        }
        List<Body> bodies = new ArrayList<>();
        faces.forEach((product, of) -> bodies.add(new Body(product, solids.getOrDefault(product, 0), of)));
        return bodies;
    }

    private List<Long> shells(Typed solid) {
        if (solid.type().equals("SHELL_BASED_SURFACE_MODEL")) return solid.at(1).refs();
        List<Long> shells = new ArrayList<>(List.of(solid.at(1).ref()));
        for (long oriented : solid.at(2).refs())
            instance(oriented, "ORIENTED_CLOSED_SHELL")
                    .ifPresent(o -> shells.add(o.at(2).ref()));
        return shells;
    }

    private void shell(long id, List<Face> into) {
        Optional<Typed> shell =
                Optional.ofNullable(kept.get(id)).filter(s -> s.type().endsWith("_SHELL"));
        if (shell.isEmpty()) return;
        for (long face : shell.get().at(1).refs()) {
            Optional<Face> read = Optional.ofNullable(kept.get(face)).flatMap(this::face);
            if (read.isPresent()) into.add(read.get());
            else lost++;
        }
    }

    /** Which product each solid is of, as far as the file says it. */
    private Map<Long, String> products() {
        Map<Long, String> ofRepresentation = new HashMap<>();
        for (Typed one : kept.values()) {
            if (!one.type().equals("SHAPE_DEFINITION_REPRESENTATION")) continue;
            product(one.at(0).ref())
                    .ifPresent(p -> ofRepresentation.putIfAbsent(one.at(1).ref(), p));
        }
        for (Typed one : kept.values()) {
            if (!one.type().equals("SHAPE_REPRESENTATION_RELATIONSHIP")) continue;
            long a = one.at(2).ref();
            long b = one.at(3).ref();
            String known = ofRepresentation.getOrDefault(a, ofRepresentation.get(b));
            if (known == null) continue;
            ofRepresentation.putIfAbsent(a, known);
            ofRepresentation.putIfAbsent(b, known);
        }
        Map<Long, String> products = new HashMap<>();
        ofRepresentation.forEach((representation, product) -> Optional.ofNullable(kept.get(representation))
                .ifPresent(r -> r.at(1).refs().forEach(item -> products.putIfAbsent(item, product))));
        return products;
    }

    private Optional<String> product(long shape) {
        return instance(shape, "PRODUCT_DEFINITION_SHAPE")
                .flatMap(s -> instance(s.at(2).ref(), "PRODUCT_DEFINITION"))
                .flatMap(d -> instance(d.at(2).ref(), "PRODUCT_DEFINITION_FORMATION"))
                .flatMap(f -> instance(f.at(2).ref(), "PRODUCT"))
                .map(p -> p.at(0).text());
    }

    private Optional<Face> face(Typed face) {
        if (!face.type().equals("ADVANCED_FACE") && !face.type().equals("FACE_SURFACE")) return Optional.empty();
        Optional<Surface> on = surface(face.at(2).ref());
        if (on.isEmpty()) return Optional.empty();
        List<Face.Bound> bounds = new ArrayList<>();
        for (long id : face.at(1).refs()) {
            Optional<Typed> bound = instance(id, "FACE_");
            if (bound.isEmpty()) return Optional.empty();
            boolean forward = isTrue(bound.get().at(2));
            Optional<List<Face.Use>> uses = uses(bound.get().at(1).ref(), forward);
            if (uses.isEmpty()) return Optional.empty();
            if (!uses.get().isEmpty()) bounds.add(new Face.Bound(uses.get()));
        }
        Face read = new Face(on.get(), isTrue(face.at(3)), bounds);
        Extent extent = read.extent();
        boolean finite =
                extent.isEmpty() || (extent.low().isFinite() && extent.high().isFinite());
        return finite && (!bounds.isEmpty() || on.get().isRound()) ? Optional.of(read) : Optional.empty();
    }

    private static boolean isTrue(StepValue value) {
        return !(value instanceof StepValue.Word word && word.word().equals("F"));
    }

    private Optional<List<Face.Use>> uses(long loop, boolean forward) {
        // A loop of one vertex is a pole: it has no edges.
        Optional<Typed> found = instance(loop, "EDGE_LOOP").or(() -> instance(loop, "POLY_LOOP"));
        if (found.isEmpty()) return kept.containsKey(loop) ? Optional.empty() : Optional.of(List.of());
        Typed of = found.get();
        List<Face.Use> uses = new ArrayList<>();
        if (of.type().equals("POLY_LOOP")) {
            List<Long> corners = of.at(1).refs();
            for (int i = 0; i < corners.size(); i++) {
                Optional<Vec> a = at(corners.get(i));
                Optional<Vec> b = at(corners.get((i + 1) % corners.size()));
                if (a.isEmpty() || b.isEmpty()) return Optional.empty();
                // Corners that two loops share make the same edge.
                long low = Math.min(corners.get(i), corners.get((i + 1) % corners.size()));
                long high = Math.max(corners.get(i), corners.get((i + 1) % corners.size()));
                uses.add(new Face.Use(Edge.plain(-(low << 31 | high), List.of(a.get(), b.get())), true));
            }
        } else {
            for (long id : of.at(1).refs()) {
                Optional<Typed> oriented = instance(id, "ORIENTED_EDGE");
                Optional<Edge> edge = oriented.flatMap(o -> edge(o.at(3).ref()));
                if (edge.isEmpty()) return Optional.empty();
                uses.add(new Face.Use(edge.get(), isTrue(oriented.get().at(4))));
            }
        }
        if (!forward) {
            List<Face.Use> back = new ArrayList<>();
            for (int i = uses.size() - 1; i >= 0; i--)
                back.add(new Face.Use(uses.get(i).edge(), !uses.get(i).forward()));
            return Optional.of(back);
        }
        return Optional.of(uses);
    }

    private Optional<Vec> at(long point) {
        return point(point)
                .map(p -> new Vec(p[0] * unit, p[1] * unit, p[2] * unit))
                .filter(Vec::isFinite);
    }

    private Optional<Edge> edge(long id) {
        Edge known = edges.get(id);
        if (known != null) return Optional.of(known);
        Optional<Edge> edge = instance(id, "EDGE_CURVE").flatMap(e -> edge(e).map(points -> edge(id, e, points)));
        edge.ifPresent(e -> edges.put(id, e));
        return edge;
    }

    private Edge edge(long id, Typed edge, double[] points) {
        List<Vec> all = new ArrayList<>();
        for (int i = 0; i + 2 < points.length; i += 3)
            all.add(new Vec(points[i] * unit, points[i + 1] * unit, points[i + 2] * unit));
        Optional<Typed> curve = curve(edge.at(3).ref(), 0).filter(c -> c.type().equals("CIRCLE"));
        if (curve.isEmpty() || all.size() < 3) return Edge.plain(id, all);
        double radius = radius(curve.get(), 2) * unit;
        double[] m = axes(curve.get().at(1).ref(), unit);
        Vec axis = new Vec(m[2], m[6], m[10]);
        return new Edge(id, radius, new Vec(m[3], m[7], m[11]), isTrue(edge.at(4)) ? axis : axis.times(-1), all);
    }

    private Optional<Surface> surface(long id) {
        Surface known = surfaces.get(id);
        if (known != null) return Optional.of(known);
        Optional<Surface> read = Optional.ofNullable(kept.get(id))
                .filter(s -> SURFACES.contains(s.type()))
                .map(this::read);
        read.ifPresent(s -> surfaces.put(id, s));
        return read.or(() -> Optional.of(Surface.free(Extent.NONE)));
    }

    private Surface read(Typed surface) {
        if (surface.type().equals("B_SPLINE_SURFACE_WITH_KNOTS")) return Surface.free(poles(surface.at(3)));
        Surface.Kind kind = switch (surface.type()) {
            case "PLANE" -> Surface.Kind.PLANE;
            case "CYLINDRICAL_SURFACE" -> Surface.Kind.CYLINDER;
            case "CONICAL_SURFACE" -> Surface.Kind.CONE;
            case "SPHERICAL_SURFACE" -> Surface.Kind.SPHERE;
            case "TOROIDAL_SURFACE" -> Surface.Kind.TORUS;
            default -> Surface.Kind.FREE;
        };
        if (kind == Surface.Kind.FREE || instance(surface.at(1).ref(), "AXIS2").isEmpty())
            return Surface.free(Extent.NONE);
        double[] m = axes(surface.at(1).ref(), unit);
        double first = kind == Surface.Kind.PLANE ? 0 : radius(surface, 2) * unit;
        double second = kind == Surface.Kind.CONE
                ? angle(radius(surface, 3))
                : kind == Surface.Kind.TORUS ? radius(surface, 3) * unit : 0;
        return new Surface(
                kind,
                new Vec(m[3], m[7], m[11]),
                new Vec(m[2], m[6], m[10]),
                new Vec(m[0], m[4], m[8]),
                first,
                second,
                Extent.NONE);
    }

    private double angle(double written) {
        return degrees ? Math.toRadians(written) : written;
    }

    private Extent poles(StepValue rows) {
        Extent all = Extent.NONE;
        if (!(rows instanceof StepValue.Many many)) return all;
        for (StepValue row : many.values()) {
            for (long id : row.refs()) {
                Optional<Vec> at = at(id);
                if (at.isPresent()) all = all.with(at.get());
            }
        }
        return all;
    }
}
