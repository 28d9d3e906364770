package mintshelf.core.model.shape;

/** From where to where something reaches along the three axes, in millimetres. */
public record Extent(Vec low, Vec high) {
    public static final Extent NONE = new Extent(
            new Vec(Double.POSITIVE_INFINITY, Double.POSITIVE_INFINITY, Double.POSITIVE_INFINITY),
            new Vec(Double.NEGATIVE_INFINITY, Double.NEGATIVE_INFINITY, Double.NEGATIVE_INFINITY));

    public Extent with(Vec p) {
        return new Extent(
                new Vec(Math.min(low.x(), p.x()), Math.min(low.y(), p.y()), Math.min(low.z(), p.z())),
                new Vec(Math.max(high.x(), p.x()), Math.max(high.y(), p.y()), Math.max(high.z(), p.z())));
    }

    public Extent with(Extent o) {
        return o.isEmpty() ? this : with(o.low).with(o.high);
    }

    public boolean isEmpty() {
        return low.x() > high.x();
    }

    /** Its three sizes; none where it is empty. */
    public Vec size() {
        return isEmpty() ? Vec.ZERO : high.minus(low);
    }

    public Vec centre() {
        return isEmpty() ? Vec.ZERO : low.plus(high).times(0.5);
    }

    /** Whether both ends lie as near to those of another one. */
    public boolean isLike(Extent o, double near) {
        return isNear(low, o.low, near) && isNear(high, o.high, near);
    }

    private static boolean isNear(Vec a, Vec b, double near) {
        return Math.abs(a.x() - b.x()) <= near && Math.abs(a.y() - b.y()) <= near && Math.abs(a.z() - b.z()) <= near;
    }

    /** From where to where it reaches along a direction. */
    public double[] along(Vec direction) {
        double[] d = {direction.x(), direction.y(), direction.z()};
        double[] l = {low.x(), low.y(), low.z()};
        double[] h = {high.x(), high.y(), high.z()};
        double from = 0;
        double to = 0;
        for (int i = 0; i < 3; i++) {
            from += Math.min(d[i] * l[i], d[i] * h[i]);
            to += Math.max(d[i] * l[i], d[i] * h[i]);
        }
        return new double[] {from, to};
    }
}
