package mintshelf.core.drawing;

import java.util.List;
import java.util.Map;

/**
 * A drawing, flattened.
 *
 * @param layers in the order of their names, with whether they are shown at first
 * @param notDrawn how many entities of each type could not be drawn: told to the viewer, never dropped silently
 */
public record Scene(List<Primitive> primitives, Map<String, Boolean> layers, Map<String, Integer> notDrawn) {
    public Scene {
        primitives = List.copyOf(primitives);
    }

    /** The box of all that is drawn. O(primitives). */
    public Box extents() {
        Box box = Box.EMPTY;
        for (Primitive p : primitives) {
            if (p instanceof Primitive.Polyline line) box = around(box, line.points());
            else if (p instanceof Primitive.Fill fill) box = around(box, fill.points());
            else if (p instanceof Primitive.Arc arc) box = around(box, arc);
            else if (p instanceof Primitive.Text text) {
                // How wide letters are is the screen's affair; six tenths of the height is near enough for a margin.
                double w = text.text().length() * text.height() * 0.6 * text.width();
                double left = text.across() == 0 ? 0 : text.across() == 1 ? -w / 2 : -w;
                double a = Math.toRadians(text.angle());
                box = box.with(text.x() + left * Math.cos(a), text.y() + left * Math.sin(a));
                box = box.with(
                        text.x() + (left + w) * Math.cos(a), text.y() + (left + w) * Math.sin(a) + text.height());
            }
        }
        return box;
    }

    private static Box around(Box box, double[] points) {
        Box grown = box;
        for (int i = 0; i + 1 < points.length; i += 2) grown = grown.with(points[i], points[i + 1]);
        return grown;
    }

    private static Box around(Box box, Primitive.Arc arc) {
        Box grown = box;
        int steps = 16;
        for (int i = 0; i <= steps; i++) {
            double a = Math.toRadians(arc.from() + arc.sweep() * i / steps);
            grown = grown.with(arc.x() + arc.radius() * Math.cos(a), arc.y() + arc.radius() * Math.sin(a));
        }
        return grown;
    }
}
