package mintshelf.core.drawing.dxf;

/** Where a block's own coordinates go: x' = a x + c y + e, y' = b x + d y + f. */
record Placement(double a, double b, double c, double d, double e, double f) {
    static final Placement IDENTITY = new Placement(1, 0, 0, 1, 0, 0);

    /** First {@code inner}, then this. */
    Placement of(Placement inner) {
        return new Placement(
                a * inner.a + c * inner.b,
                b * inner.a + d * inner.b,
                a * inner.c + c * inner.d,
                b * inner.c + d * inner.d,
                a * inner.e + c * inner.f + e,
                b * inner.e + d * inner.f + f);
    }

    static Placement move(double x, double y) {
        return new Placement(1, 0, 0, 1, x, y);
    }

    static Placement scale(double x, double y) {
        return new Placement(x, 0, 0, y, 0, 0);
    }

    static Placement turn(double degrees) {
        if (degrees == 0) return IDENTITY;
        double r = Math.toRadians(degrees);
        return new Placement(Math.cos(r), Math.sin(r), -Math.sin(r), Math.cos(r), 0, 0);
    }

    /**
     * Coordinates of an entity's own plane, seen from above: the axes follow from the plane's normal by the arbitrary axis
     * algorithm of the format's published reference.
     */
    static Placement plane(double[] n, double elevation) {
        if (n[0] == 0 && n[1] == 0 && n[2] > 0) return IDENTITY;
        boolean steep = Math.abs(n[0]) < 1.0 / 64 && Math.abs(n[1]) < 1.0 / 64;
        // The x axis is the y or the z axis of the world, times the normal.
        double ax = steep ? n[2] : -n[1];
        double ay = steep ? 0 : n[0];
        double az = steep ? -n[0] : 0;
        double length = Math.sqrt(ax * ax + ay * ay + az * az);
        ax /= length;
        ay /= length;
        az /= length;
        double bx = n[1] * az - n[2] * ay;
        double by = n[2] * ax - n[0] * az;
        return new Placement(ax, ay, bx, by, n[0] * elevation, n[1] * elevation);
    }

    double x(double x, double y) {
        return a * x + c * y + e;
    }

    double y(double x, double y) {
        return b * x + d * y + f;
    }

    boolean isIdentity() {
        return a == 1 && b == 0 && c == 0 && d == 1 && e == 0 && f == 0;
    }

    /** Whether circles stay circles. */
    boolean keepsCircles() {
        double size = Math.max(Math.abs(a) + Math.abs(b), 1e-12);
        return Math.abs(a * c + b * d) < 1e-9 * size * size
                && Math.abs(Math.hypot(a, b) - Math.hypot(c, d)) < 1e-9 * size;
    }

    boolean isMirrored() {
        return a * d - b * c < 0;
    }

    double size() {
        return Math.hypot(a, b);
    }

    /** The direction of the x axis in degrees. */
    double angle() {
        return Math.toDegrees(Math.atan2(b, a));
    }

    /** The height of something of height 1. */
    double heightOf() {
        return Math.abs(a * d - b * c) / Math.max(Math.hypot(a, b), 1e-12);
    }

    /** What undoes it; nothing may be flat. */
    Placement inverse() {
        double det = a * d - b * c;
        return new Placement(d / det, -b / det, -c / det, a / det, (c * f - d * e) / det, (b * e - a * f) / det);
    }
}
