package mintshelf.core.drawing.dxf;

import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import mintshelf.core.base.Outcome;
import mintshelf.core.drawing.Lettering;
import mintshelf.core.drawing.Primitive;
import mintshelf.core.drawing.Scene;

/**
 * How far a text of the sheet may reach to its sides: to the next upright line, or to the next text that is not the shelf's to
 * write. What the shelf writes does not count, so that writing again finds the same room.
 */
public final class SheetRoom {
    /** How far a text stays off what limits it, in heights of its letters. */
    private static final double GAP = 0.3;

    private final List<double[]> uprights = new ArrayList<>();
    private final List<Primitive.Text> texts = new ArrayList<>();

    private SheetRoom() {}

    /** The room on a sheet; on one that cannot be flattened there is always enough. O(bytes + primitives). */
    public static SheetRoom of(DxfDrawing drawing, Set<SheetContent.Lettered> written) {
        SheetRoom room = new SheetRoom();
        if (!(drawing.scene() instanceof Outcome.Granted<Scene> scene)) return room;
        for (Primitive p : scene.value().primitives()) {
            if (p instanceof Primitive.Polyline line) room.uprights(line);
            if (p instanceof Primitive.Text text
                    && text.angle() == 0
                    && written.stream().noneMatch(w -> w.isAt(text))) {
                room.texts.add(text);
            }
        }
        return room;
    }

    private void uprights(Primitive.Polyline line) {
        uprights(uprights, line.points(), line.closed());
    }

    /** Adds the upright parts of a line: x, lower and upper y of each. */
    static void uprights(List<double[]> into, double[] points, boolean closed) {
        int n = points.length / 2;
        for (int i = 0; i + 1 < n + (closed ? 1 : 0); i++) {
            int a = 2 * i;
            int b = 2 * ((i + 1) % n);
            double height = Math.abs(points[b + 1] - points[a + 1]);
            if (height <= 0 || Math.abs(points[b] - points[a]) > height * 0.001) continue;
            into.add(new double[] {
                points[a], Math.min(points[a + 1], points[b + 1]), Math.max(points[a + 1], points[b + 1])
            });
        }
    }

    /** The room of a text, in heights of its letters; infinite where nothing limits it. O(lines). */
    public double of(SheetContent.Lettered text) {
        if (text.angle() != 0 || text.height() <= 0) return Double.POSITIVE_INFINITY;
        double middle = text.y() + text.height() / 2;
        double right = Double.POSITIVE_INFINITY;
        double left = Double.POSITIVE_INFINITY;
        for (double[] line : uprights) {
            if (line[1] > middle || line[2] < middle) continue;
            double off = line[0] - text.x();
            if (off > 0) right = Math.min(right, off);
            else left = Math.min(left, -off);
        }
        for (Primitive.Text other : texts) {
            double low = other.y() - (other.up() == 3 ? other.height() : other.up() == 2 ? other.height() / 2 : 0);
            if (low > middle || low + other.height() < middle) continue;
            double wide = Lettering.wide(other.text()) * other.height() * other.width();
            double from = other.x() - (other.across() == 0 ? 0 : other.across() == 1 ? wide / 2 : wide);
            if (from > text.x()) right = Math.min(right, from - text.x());
            else if (from + wide < text.x()) left = Math.min(left, text.x() - from - wide);
        }
        double room = text.across() == 0 ? right : text.across() == 2 ? left : 2 * Math.min(left, right);
        return Math.max(0, room / text.height() - GAP * (text.across() == 1 ? 2 : 1));
    }
}
