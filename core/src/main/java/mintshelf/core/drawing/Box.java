package mintshelf.core.drawing;

/** An axis-parallel box. */
public record Box(double minX, double minY, double maxX, double maxY) {
    /** Holds nothing; joining it changes nothing. */
    public static final Box EMPTY = new Box(
            Double.POSITIVE_INFINITY, Double.POSITIVE_INFINITY, Double.NEGATIVE_INFINITY, Double.NEGATIVE_INFINITY);

    /** Around points, x and y in turn. O(points). */
    public static Box of(double[] points) {
        double minX = EMPTY.minX;
        double minY = EMPTY.minY;
        double maxX = EMPTY.maxX;
        double maxY = EMPTY.maxY;
        for (int i = 0; i + 1 < points.length; i += 2) {
            minX = Math.min(minX, points[i]);
            minY = Math.min(minY, points[i + 1]);
            maxX = Math.max(maxX, points[i]);
            maxY = Math.max(maxY, points[i + 1]);
        }
        return new Box(minX, minY, maxX, maxY);
    }

    public Box with(double x, double y) {
        return new Box(Math.min(minX, x), Math.min(minY, y), Math.max(maxX, x), Math.max(maxY, y));
    }

    public Box with(Box other) {
        return new Box(
                Math.min(minX, other.minX),
                Math.min(minY, other.minY),
                Math.max(maxX, other.maxX),
                Math.max(maxY, other.maxY));
    }

    /** Larger by {@code by} on each side. */
    public Box grown(double by) {
        return new Box(minX - by, minY - by, maxX + by, maxY + by);
    }

    public boolean touches(Box other) {
        return minX <= other.maxX && other.minX <= maxX && minY <= other.maxY && other.minY <= maxY;
    }

    public boolean holds(Box other) {
        return minX <= other.minX && minY <= other.minY && maxX >= other.maxX && maxY >= other.maxY;
    }

    public boolean isEmpty() {
        return minX > maxX;
    }

    public double width() {
        return maxX - minX;
    }

    public double height() {
        return maxY - minY;
    }

    public double middleX() {
        return (minX + maxX) / 2;
    }

    public double middleY() {
        return (minY + maxY) / 2;
    }
}
