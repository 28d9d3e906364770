package mintshelf.core.model.shape;

import java.util.List;

/**
 * A face of a solid.
 *
 * @param with whether its outside is where the surface's normal points; else it is the wall of something hollow
 * @param bounds its outline and those of its openings, each with the face to the left of it, seen from outside
 */
public record Face(Surface surface, boolean with, List<Bound> bounds, Extent extent) {
    public Face {
        bounds = List.copyOf(bounds);
    }

    public Face(Surface surface, boolean with, List<Bound> bounds) {
        this(surface, with, bounds, reach(bounds));
    }

    /** An edge as a face uses it. */
    public record Use(Edge edge, boolean forward) {
        /** How the face's outline goes there. */
        Vec along() {
            return forward ? edge.along() : edge.along().times(-1);
        }
    }

    /** A closed line of edges. */
    public record Bound(List<Use> uses) {
        public Bound {
            uses = List.copyOf(uses);
        }

        Extent extent() {
            Extent all = Extent.NONE;
            for (Use use : uses) all = all.with(use.edge().extent());
            return all;
        }
    }

    private static Extent reach(List<Bound> bounds) {
        Extent all = Extent.NONE;
        for (Bound bound : bounds) all = all.with(bound.extent());
        return all;
    }

    /** The outside's direction at a place of it. */
    public Vec normal(Vec p) {
        Vec n = surface.normal(p);
        return with ? n : n.times(-1);
    }

    /** Its outer line: the one that reaches farthest. */
    Bound outer() {
        Bound outer = bounds.isEmpty() ? new Bound(List.of()) : bounds.get(0);
        double far = -1;
        for (Bound bound : bounds) {
            double length = bound.extent().size().length();
            if (length > far) {
                far = length;
                outer = bound;
            }
        }
        return outer;
    }

    /** Whether something hollow is round here, or something full. */
    public boolean isHollow() {
        return surface.isRound() && !with;
    }

    public boolean is(Surface.Kind kind) {
        return surface.kind() == kind;
    }
}
