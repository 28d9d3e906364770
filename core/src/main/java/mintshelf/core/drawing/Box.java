package mintshelf.core.drawing;

/** An axis-parallel box. */
public record Box(double minX, double minY, double maxX, double maxY) {
    /** Holds nothing; joining it changes nothing. */
    public static final Box EMPTY = new Box(
            Double.POSITIVE_INFINITY, Double.POSITIVE_INFINITY, Double.NEGATIVE_INFINITY, Double.NEGATIVE_INFINITY);

    public Box with(double x, double y) {
        return new Box(Math.min(minX, x), Math.min(minY, y), Math.max(maxX, x), Math.max(maxY, y));
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
}
