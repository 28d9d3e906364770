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
        double r = Math.toRadians(degrees);
        return new Placement(Math.cos(r), Math.sin(r), -Math.sin(r), Math.cos(r), 0, 0);
    }

    double x(double x, double y) {
        return a * x + c * y + e;
    }

    double y(double x, double y) {
        return b * x + d * y + f;
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
}
