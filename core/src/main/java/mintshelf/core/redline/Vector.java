package mintshelf.core.redline;

/** A place or a way in the space of a model, in millimetres. */
public record Vector(double x, double y, double z) {
    /** Ways of the same course do not differ by more, as the sine of the angle between them. */
    private static final double STRAIGHT = 1e-3;

    boolean isPlace() {
        return Double.isFinite(x) && Double.isFinite(y) && Double.isFinite(z) && length() < 1e7;
    }

    Vector minus(Vector other) {
        return new Vector(x - other.x, y - other.y, z - other.z);
    }

    double dot(Vector other) {
        return x * other.x + y * other.y + z * other.z;
    }

    Vector cross(Vector o) {
        return new Vector(y * o.z - z * o.y, z * o.x - x * o.z, x * o.y - y * o.x);
    }

    double length() {
        return Math.sqrt(dot(this));
    }

    /** The same way, one long; itself where it is none. */
    Vector unit() {
        double length = length();
        return length > 0 ? new Vector(x / length, y / length, z / length) : this;
    }

    /** Whether two ways, each one long, run side by side, forth or back. */
    boolean isAlong(Vector other) {
        return cross(other).length() < STRAIGHT;
    }

    /** Whether two ways, each one long, stand square to each other. */
    boolean isSquareTo(Vector other) {
        return Math.abs(dot(other)) < STRAIGHT;
    }
}
