package mintshelf.core.model.shape;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import mintshelf.core.model.shape.Feature.Kind;
import mintshelf.core.model.shape.Feature.Size;

/** A body whose faces are being joined: which of them meet, and which have their feature already. */
final class Part {
    static final double NEAR = 1e-3;

    final List<Face> faces;
    final boolean[] taken;
    final List<Feature> found = new ArrayList<>();
    private final Map<Long, List<Integer>> byEdge = new HashMap<>();
    private final Map<Integer, Face.Bound> outer = new HashMap<>();

    Part(Body body) {
        this.faces = body.faces();
        this.taken = new boolean[faces.size()];
        for (int f = 0; f < faces.size(); f++) {
            for (Face.Bound bound : faces.get(f).bounds()) {
                for (Face.Use use : bound.uses()) {
                    byEdge.computeIfAbsent(use.edge().id(), e -> new ArrayList<>(2))
                            .add(f);
                }
            }
        }
    }

    void add(Kind kind, boolean through, Map<Size, Double> sizes, Vec at, Vec axis, Set<Integer> of) {
        of.forEach(f -> taken[f] = true);
        found.add(new Feature(kind, through, sizes, at, axis, List.copyOf(of)));
    }

    /** The face at the other side of an edge; itself at a seam. */
    Optional<Integer> beside(int face, Edge edge) {
        List<Integer> both = byEdge.getOrDefault(edge.id(), List.of());
        if (both.size() != 2) return Optional.empty();
        return Optional.of(both.get(0) == face ? both.get(1) : both.get(0));
    }

    /** How two faces meet. */
    enum Meet {
        OUTWARD,
        INWARD,
        SMOOTH,
        UNKNOWN
    }

    Meet meet(int face, Face.Use use) {
        Optional<Integer> other = beside(face, use.edge());
        if (other.isEmpty() || other.get() == face) return Meet.UNKNOWN;
        Vec at = use.edge().middle();
        Vec mine = faces.get(face).normal(at);
        Vec theirs = faces.get(other.get()).normal(at);
        if (mine.length() < 0.5 || theirs.length() < 0.5) return Meet.UNKNOWN;
        if (mine.dot(theirs) > 0.999) return Meet.SMOOTH;
        double turn = theirs.dot(mine.cross(use.along()));
        return turn > 0 ? Meet.INWARD : Meet.OUTWARD;
    }

    boolean meetsAll(int f, Meet how) {
        Face face = faces.get(f);
        return !face.bounds().isEmpty() && outer(f).uses().stream().allMatch(use -> meet(f, use) == how);
    }

    Set<Integer> round(int f, Face.Bound bound) {
        Set<Integer> all = new LinkedHashSet<>();
        for (Face.Use use : bound.uses())
            beside(f, use.edge()).filter(o -> o != f).ifPresent(all::add);
        return all;
    }

    /** A face's outer line: asked again and again of one with thousands of openings. */
    Face.Bound outer(int f) {
        return outer.computeIfAbsent(f, k -> faces.get(k).outer());
    }

    /** Whether all faces that meet one are among some. */
    boolean meetsOnly(int f, Set<Integer> among) {
        for (Face.Bound bound : faces.get(f).bounds()) {
            for (Face.Use use : bound.uses()) {
                if (beside(f, use.edge())
                        .filter(o -> o == f || among.contains(o))
                        .isEmpty()) return false;
            }
        }
        return true;
    }

    /** All faces that meet one. */
    Set<Integer> round(int f) {
        Set<Integer> all = new LinkedHashSet<>();
        for (Face.Bound bound : faces.get(f).bounds()) all.addAll(round(f, bound));
        return all;
    }

    /** Those that are in no other feature yet; the one that it is found by among them. */
    Set<Integer> own(Set<Integer> all, int found) {
        Set<Integer> own = new LinkedHashSet<>();
        all.stream().filter(f -> !taken[f] || f == found).forEach(own::add);
        return own;
    }
}
