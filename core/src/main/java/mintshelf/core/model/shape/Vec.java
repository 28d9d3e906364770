package mintshelf.core.model.shape;

/** A place or a direction in space, in millimetres. */
public record Vec(double x, double y, double z) {
    public static final Vec ZERO = new Vec(0, 0, 0);

    public Vec plus(Vec o) {
        return new Vec(x + o.x, y + o.y, z + o.z);
    }

    public Vec minus(Vec o) {
        return new Vec(x - o.x, y - o.y, z - o.z);
    }

    public Vec times(double k) {
        return new Vec(x * k, y * k, z * k);
    }

    public double dot(Vec o) {
        return x * o.x + y * o.y + z * o.z;
    }

    public Vec cross(Vec o) {
        return new Vec(y * o.z - z * o.y, z * o.x - x * o.z, x * o.y - y * o.x);
    }

    public double length() {
        return Math.sqrt(dot(this));
    }

    /** Of length one; itself where it has none. */
    public Vec unit() {
        double length = length();
        return length < 1e-12 ? this : times(1 / length);
    }

    public double distance(Vec o) {
        return minus(o).length();
    }

    /** Of a line's two directions the one whose first part that counts is positive: equal lines are told equally. */
    public Vec upward() {
        for (double part : new double[] {z, y, x}) {
            if (Math.abs(part) > 1e-7) return part < 0 ? times(-1) : this;
        }
        return this;
    }

    /** The part of it that is across a direction. */
    public Vec across(Vec direction) {
        return minus(direction.times(dot(direction)));
    }

    public boolean isFinite() {
        return Double.isFinite(x) && Double.isFinite(y) && Double.isFinite(z);
    }
}
