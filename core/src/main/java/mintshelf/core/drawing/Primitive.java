package mintshelf.core.drawing;

/** The smallest thing that a scene draws. Coordinates in drawing units, y upwards, angles in degrees counter-clockwise. */
public sealed interface Primitive {
    Source source();

    Style style();

    /** Points one after the other, x and y in turn. */
    record Polyline(Source source, Style style, double[] points, boolean closed) implements Primitive {
        public Polyline(Style style, double[] points, boolean closed) {
            this(Source.NONE, style, points, closed);
        }
    }

    /** A circle's arc from one angle on by a sweep; a sweep of 360 is the whole circle. */
    record Arc(Source source, Style style, double x, double y, double radius, double from, double sweep)
            implements Primitive {
        public Arc(Style style, double x, double y, double radius, double from, double sweep) {
            this(Source.NONE, style, x, y, radius, from, sweep);
        }

        /** A point of it; {@code part} 0 is its start, 1 its end. */
        public double xAt(double part) {
            return x + radius * Math.cos(Math.toRadians(from + sweep * part));
        }

        public double yAt(double part) {
            return y + radius * Math.sin(Math.toRadians(from + sweep * part));
        }
    }

    /** A filled area between rings: what lies within an odd number of them. */
    record Fill(Source source, Style style, double[][] rings) implements Primitive {}

    /** Separate strokes of one thing, such as the lines of a hatch: x and y of both ends of each. */
    record Strokes(Source source, Style style, double[] ends) implements Primitive {}

    /**
     * A line of text.
     *
     * @param across 0 left, 1 middle, 2 right: which part of the text stands at the point
     * @param up 0 base line, 1 bottom, 2 middle, 3 top
     * @param mirrored whether it reads from right to left
     */
    record Text(
            Source source,
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
            implements Primitive {
        public Text(
                Style style,
                double x,
                double y,
                double height,
                double angle,
                double width,
                int across,
                int up,
                boolean mirrored,
                String text) {
            this(Source.NONE, style, x, y, height, angle, width, across, up, mirrored, text);
        }
    }

    /** Its box. Texts are as wide as {@link Scene#LETTER} says. O(points). */
    default Box box() {
        Box box = Box.EMPTY;
        if (this instanceof Polyline line) return Box.of(line.points());
        if (this instanceof Strokes strokes) return Box.of(strokes.ends());
        if (this instanceof Fill fill) {
            for (double[] ring : fill.rings()) box = box.with(Box.of(ring));
            return box;
        }
        if (this instanceof Arc arc) return box(arc);
        Text text = (Text) this;
        double w = text.text().length() * text.height() * Scene.LETTER * text.width();
        double left = text.across() == 0 ? 0 : text.across() == 1 ? -w / 2 : -w;
        double low = text.up() == 3 ? -text.height() : text.up() == 2 ? -text.height() / 2 : 0;
        double c = Math.cos(Math.toRadians(text.angle()));
        double s = Math.sin(Math.toRadians(text.angle()));
        for (double u : new double[] {left, left + w}) {
            for (double v : new double[] {low, low + text.height()}) {
                box = box.with(text.x() + u * c - v * s, text.y() + u * s + v * c);
            }
        }
        return box;
    }

    private static Box box(Arc arc) {
        Box box = Box.EMPTY.with(arc.xAt(0), arc.yAt(0)).with(arc.xAt(1), arc.yAt(1));
        double first = Math.ceil(arc.from() / 90) * 90;
        for (int i = 0; i < 4 && first + i * 90 <= arc.from() + arc.sweep(); i++) {
            double a = Math.toRadians(first + i * 90);
            box = box.with(arc.x() + arc.radius() * Math.cos(a), arc.y() + arc.radius() * Math.sin(a));
        }
        return box;
    }
}
