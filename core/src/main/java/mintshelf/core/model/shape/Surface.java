package mintshelf.core.model.shape;

/**
 * What a face lies on: an elementary surface of ISO 10303-42, or another one, known by where its poles lie.
 *
 * @param at its centre, or a place on it
 * @param axis its normal where it is plane, else what it turns about; of length one
 * @param across a direction square to the axis, from which angles count
 * @param radius of a cylinder, of a cone at its place, of a sphere; the larger one of a torus
 * @param other half the angle of a cone, in radians; the smaller radius of a torus
 * @param poles how far the poles of a free form reach
 */
public record Surface(Kind kind, Vec at, Vec axis, Vec across, double radius, double other, Extent poles) {
    /** What it is. */
    public enum Kind {
        PLANE,
        CYLINDER,
        CONE,
        SPHERE,
        TORUS,
        /** A free form, or one that is swept or turned. */
        FREE
    }

    public static Surface free(Extent poles) {
        return new Surface(Kind.FREE, Vec.ZERO, new Vec(0, 0, 1), new Vec(1, 0, 0), 0, 0, poles);
    }

    /** The outside's direction of a plane face that lies on it. */
    public Vec with(Face face) {
        return face.with() ? axis : axis.times(-1);
    }

    /** Where a cone comes to its point. */
    public Vec tip() {
        return at.minus(axis.times(radius / Math.tan(other)));
    }

    private Vec third() {
        return axis.cross(across);
    }

    /** Whether it goes round an axis. */
    public boolean isRound() {
        return kind != Kind.PLANE && kind != Kind.FREE;
    }

    /** The direction away from the axis at an angle. */
    Vec radial(double u) {
        return across.times(Math.cos(u)).plus(third().times(Math.sin(u)));
    }

    /** The angle about the axis at which a place lies, in radians. */
    public double angle(Vec p) {
        Vec d = p.minus(at);
        return Math.atan2(d.dot(third()), d.dot(across));
    }

    /** The other parameter of a place: along the axis, of a sphere and a torus the angle of its latitude. */
    double second(Vec p) {
        Vec d = p.minus(at);
        double h = d.dot(axis);
        return switch (kind) {
            case SPHERE -> Math.atan2(h, d.across(axis).length());
            case TORUS -> Math.atan2(h, d.across(axis).length() - radius);
            default -> h;
        };
    }

    /** The normal that points away from the axis or the centre; of a free form none. */
    public Vec normal(Vec p) {
        return switch (kind) {
            case PLANE -> axis;
            case CYLINDER -> p.minus(at).across(axis).unit();
            case CONE ->
                p.minus(at)
                        .across(axis)
                        .unit()
                        .times(Math.cos(other))
                        .minus(axis.times(Math.sin(other)))
                        .unit();
            case SPHERE -> p.minus(at).unit();
            case TORUS ->
                p.minus(at.plus(p.minus(at).across(axis).unit().times(radius))).unit();
            case FREE -> Vec.ZERO;
        };
    }

    /** A third of what a place's vector has along the normal, by parameters: what a volume is summed up from. */
    double flux(double u, double v) {
        Vec out = radial(u);
        return switch (kind) {
            case CYLINDER -> (at.dot(out) + radius) * radius / 3;
            case CONE -> {
                double r = radius + v * Math.tan(other);
                Vec p = at.plus(out.times(r)).plus(axis.times(v));
                yield p.dot(out.minus(axis.times(Math.tan(other)))) * r / 3;
            }
            case SPHERE -> {
                Vec n = out.times(Math.cos(v)).plus(axis.times(Math.sin(v)));
                yield (at.dot(n) + radius) * radius * radius * Math.cos(v) / 3;
            }
            case TORUS -> {
                Vec n = out.times(Math.cos(v)).plus(axis.times(Math.sin(v)));
                Vec p = at.plus(out.times(radius)).plus(n.times(other));
                yield p.dot(n) * (radius + other * Math.cos(v)) * other / 3;
            }
            default -> 0;
        };
    }
}
