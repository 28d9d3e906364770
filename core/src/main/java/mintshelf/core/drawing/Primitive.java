package mintshelf.core.drawing;

/** The smallest thing that a scene draws. Coordinates in drawing units, y upwards, angles in degrees counter-clockwise. */
public sealed interface Primitive {
    Style style();

    /** Points one after the other, x and y in turn. */
    record Polyline(Style style, double[] points, boolean closed) implements Primitive {}

    /** A circle's arc from one angle on by a sweep; a sweep of 360 is the whole circle. */
    record Arc(Style style, double x, double y, double radius, double from, double sweep) implements Primitive {}

    /** A filled area. */
    record Fill(Style style, double[] points) implements Primitive {}

    /**
     * A line of text.
     *
     * @param across 0 left, 1 middle, 2 right: which part of the text stands at the point
     * @param up 0 base line, 1 bottom, 2 middle, 3 top
     * @param mirrored whether it reads from right to left
     */
    record Text(
            Style style,
            double x,
            double y,
            double height,
            double angle,
            double width,
            int across,
            int up,
            boolean mirrored,
            String text)
            implements Primitive {}
}
