package mintshelf.core.redline;

/** A place on the sheet, in its units, y upwards. */
public record Point(double x, double y) {
    double to(Point other) {
        return Math.hypot(other.x - x, other.y - y);
    }

    Point by(double dx, double dy) {
        return new Point(x + dx, y + dy);
    }

    boolean isPlace() {
        return Double.isFinite(x) && Double.isFinite(y);
    }
}
