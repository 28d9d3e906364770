package mintshelf.core.model.shape;

import java.util.Comparator;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import mintshelf.core.model.shape.Feature.Kind;
import mintshelf.core.model.shape.Feature.Size;
import mintshelf.core.model.shape.Part.Meet;

/** Features of plane faces: pockets, openings, pads, chamfers. */
final class PlaneFeatures {
    private static final double NEAR = Part.NEAR;
    private final Part part;
    private final List<Face> faces;

    PlaneFeatures(Part part) {
        this.part = part;
        this.faces = part.faces;
    }

    void find() {
        recesses();
        openings();
        pads();
        chamfers();
    }

    /** Length and width of a line's reach in its plane, along its longest straight edge and across. */
    private static double[] across(Face.Bound bound, Vec normal) {
        Vec along = bound.uses().stream()
                .filter(u -> !u.edge().isCircle())
                .max(Comparator.comparingDouble(u -> u.edge().length()))
                .map(u -> u.edge().along())
                .orElse(new Vec(1, 0, 0).across(normal));
        if (along.length() < 0.5) along = new Vec(0, 1, 0).across(normal);
        Vec other = normal.cross(along).unit();
        double[] a = reach(bound, along.unit());
        double[] b = reach(bound, other);
        return new double[] {Math.max(a[1] - a[0], b[1] - b[0]), Math.min(a[1] - a[0], b[1] - b[0])};
    }

    private static double[] reach(Face.Bound bound, Vec along) {
        double from = Double.POSITIVE_INFINITY;
        double to = Double.NEGATIVE_INFINITY;
        for (Face.Use use : bound.uses()) {
            for (Vec p : use.edge().points()) {
                from = Math.min(from, p.dot(along));
                to = Math.max(to, p.dot(along));
            }
        }
        return new double[] {from, to};
    }

    /** Floors that walls stand round. */
    private void recesses() {
        for (int f = 0; f < faces.size(); f++) {
            Face face = faces.get(f);
            if (part.taken[f] || !face.is(Surface.Kind.PLANE) || !part.meetsAll(f, Meet.INWARD)) continue;
            Vec n = face.normal(Vec.ZERO);
            Set<Integer> walls = part.round(f, part.outer(f));
            // A step inside of a hole is the hole's.
            if (walls.stream().allMatch(w -> part.taken[w])) continue;
            double floor = face.surface().at().dot(n);
            double top = walls.stream()
                    .mapToDouble(w -> faces.get(w).extent().along(n)[1])
                    .min()
                    .orElse(floor);
            if (top < floor + NEAR) continue;
            double[] wide = across(part.outer(f), n);
            Map<Size, Double> sizes = new EnumMap<>(Size.class);
            sizes.put(Size.LENGTH, wide[0]);
            sizes.put(Size.WIDTH, wide[1]);
            sizes.put(Size.DEPTH, top - floor);
            Vec middle = part.outer(f).extent().centre().plus(n.times(top - floor));
            walls.add(f);
            part.add(Kind.POCKET, false, sizes, middle, n, part.own(walls, f));
        }
    }

    /** Lines inside of a face, of more than a circle, that go through to another side. */
    private void openings() {
        for (int f = 0; f < faces.size(); f++) {
            Face face = faces.get(f);
            if (!face.is(Surface.Kind.PLANE) || face.bounds().size() < 2) continue;
            Face.Bound outer = part.outer(f);
            for (Face.Bound bound : face.bounds()) {
                if (bound.equals(outer)
                        || bound.uses().stream().allMatch(u -> u.edge().isCircle())) continue;
                int at = f;
                if (!bound.uses().stream().allMatch(u -> part.meet(at, u) == Meet.OUTWARD)) continue;
                Set<Integer> walls = part.round(f, bound);
                if (walls.stream().anyMatch(w -> part.taken[w] && !isFillet(w))) continue;
                Vec n = face.normal(Vec.ZERO);
                double[] wide = across(bound, n);
                Map<Size, Double> sizes = new EnumMap<>(Size.class);
                sizes.put(Size.LENGTH, wide[0]);
                sizes.put(Size.WIDTH, wide[1]);
                part.add(Kind.OPENING, true, sizes, bound.extent().centre(), n, part.own(walls, -1));
            }
        }
    }

    private boolean isFillet(int f) {
        return !faces.get(f).is(Surface.Kind.PLANE);
    }

    /** Faces that stand higher than what is round them. */
    private void pads() {
        for (int f = 0; f < faces.size(); f++) {
            Face face = faces.get(f);
            if (part.taken[f] || !face.is(Surface.Kind.PLANE) || !part.meetsAll(f, Meet.OUTWARD)) continue;
            Set<Integer> walls = part.round(f, part.outer(f));
            // The end of something round is the end of what it is already.
            boolean round = part.outer(f).uses().stream().allMatch(u -> u.edge().isCircle());
            boolean stands = !round && walls.stream().allMatch(this::meetsInward);
            if (!stands || walls.stream().anyMatch(w -> part.taken[w] && !isFillet(w))) continue;
            Vec n = face.normal(Vec.ZERO);
            double top = face.surface().at().dot(n);
            double base = walls.stream()
                    .mapToDouble(w -> faces.get(w).extent().along(n)[0])
                    .max()
                    .orElse(top);
            double[] wide = across(part.outer(f), n);
            Map<Size, Double> sizes = new EnumMap<>(Size.class);
            sizes.put(Size.LENGTH, wide[0]);
            sizes.put(Size.WIDTH, wide[1]);
            sizes.put(Size.HEIGHT, top - base);
            walls.add(f);
            part.add(Kind.PAD, false, sizes, part.outer(f).extent().centre(), n, part.own(walls, f));
        }
    }

    private boolean meetsInward(int f) {
        return faces.get(f).bounds().stream()
                .anyMatch(b -> b.uses().stream().anyMatch(u -> part.meet(f, u) == Meet.INWARD));
    }

    /** Narrow faces that take a square edge away. */
    private void chamfers() {
        for (int f = 0; f < faces.size(); f++) {
            Face face = faces.get(f);
            if (part.taken[f] || !face.is(Surface.Kind.PLANE)) continue;
            int at = f;
            List<Face.Use> longest = part.outer(f).uses().stream()
                    .filter(u -> !u.edge().isCircle())
                    .sorted(Comparator.comparingDouble(u -> -u.edge().length()))
                    .limit(2)
                    .toList();
            if (longest.size() < 2 || longest.stream().anyMatch(u -> part.meet(at, u) != Meet.OUTWARD)) continue;
            Vec along = longest.get(0).edge().along();
            if (Math.abs(along.dot(longest.get(1).edge().along())) < 0.999) continue;
            Vec n = face.normal(Vec.ZERO);
            Vec a = faces.get(part.beside(f, longest.get(0).edge()).orElseThrow())
                    .normal(longest.get(0).edge().middle());
            Vec b = faces.get(part.beside(f, longest.get(1).edge()).orElseThrow())
                    .normal(longest.get(1).edge().middle());
            if (Math.abs(a.dot(b)) > 0.2 || n.dot(a) < 0.2 || n.dot(b) < 0.2) continue;
            double[] wide = reach(part.outer(f), n.cross(along).unit());
            double width = wide[1] - wide[0];
            if (width > longest.get(0).edge().length()) continue;
            Map<Size, Double> sizes = new EnumMap<>(Size.class);
            sizes.put(Size.LEG, width * Math.max(n.dot(a), n.dot(b)));
            part.add(Kind.CHAMFER, false, sizes, face.extent().centre(), along.upward(), Set.of(f));
        }
    }
}
