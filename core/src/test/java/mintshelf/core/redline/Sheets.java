package mintshelf.core.redline;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Random;
import mintshelf.core.drawing.Primitive;
import mintshelf.core.drawing.Scene;
import mintshelf.core.drawing.Source;
import mintshelf.core.drawing.Style;

/** Sheets and marks made by chance, each thing with a handle of its own. */
final class Sheets {
    static final Style INK = new Style("OUTLINE", Style.INK, 0.5, List.of());

    private Sheets() {}

    static Primitive circle(long handle, double x, double y, double radius) {
        return new Primitive.Arc(new Source(handle, "", "CIRCLE"), INK, x, y, radius, 0, 360);
    }

    static Primitive line(long handle, double x1, double y1, double x2, double y2) {
        return new Primitive.Polyline(new Source(handle, "", "LINE"), INK, new double[] {x1, y1, x2, y2}, false);
    }

    static Primitive text(long handle, double x, double y, String text) {
        return new Primitive.Text(new Source(handle, "", "TEXT"), INK, x, y, 3.5, 0, 1, 0, 0, false, text);
    }

    /** A sheet of A3 with its frame and a plate in the middle. */
    static List<Primitive> plate() {
        List<Primitive> all = new ArrayList<>();
        all.add(new Primitive.Polyline(
                new Source(1, "", "LWPOLYLINE"), INK, new double[] {0, 0, 420, 0, 420, 297, 0, 297}, true));
        all.add(line(2, 100, 100, 260, 100));
        all.add(line(3, 260, 100, 260, 220));
        all.add(line(4, 260, 220, 100, 220));
        all.add(line(5, 100, 220, 100, 100));
        all.add(circle(6, 120, 120, 2.75));
        all.add(circle(7, 240, 120, 2.75));
        all.add(text(8, 130, 80, "4x 5.5"));
        return all;
    }

    static Scene scene(List<Primitive> all) {
        return new Scene(all, Map.of(), Map.of());
    }

    static List<Primitive> chance(Random random, int most) {
        List<Primitive> all = new ArrayList<>(List.of(plate().get(0)));
        int n = 12 + random.nextInt(most);
        for (int i = 0; i < n; i++) {
            double x = 20 + random.nextInt(3600) / 10.0;
            double y = 20 + random.nextInt(2400) / 10.0;
            long handle = random.nextInt(8) == 0 ? 0 : 100 + i;
            all.add(
                    switch (random.nextInt(3)) {
                        case 0 -> circle(handle, x, y, 1 + random.nextInt(12));
                        case 1 -> line(handle, x, y, x + 2 + random.nextInt(30), y + random.nextInt(20));
                        default -> text(handle, x, y, "T" + random.nextInt(99));
                    });
        }
        return all;
    }

    static Primitive moved(Primitive p, double dx, double dy) {
        if (p instanceof Primitive.Polyline line) {
            double[] points = line.points().clone();
            for (int i = 0; i < points.length; i += 2) {
                points[i] += dx;
                points[i + 1] += dy;
            }
            return new Primitive.Polyline(line.source(), line.style(), points, line.closed());
        }
        if (p instanceof Primitive.Arc a) {
            return new Primitive.Arc(a.source(), a.style(), a.x() + dx, a.y() + dy, a.radius(), a.from(), a.sweep());
        }
        Primitive.Text t = (Primitive.Text) p;
        return new Primitive.Text(
                t.source(), t.style(), t.x() + dx, t.y() + dy, t.height(), 0, 1, 0, 0, false, t.text());
    }

    static final Look LOOK = new Look(Colour.BRICK, 3.5);

    static Mark mark(Tool tool, Scene on, double... points) {
        List<Point> stroke = new ArrayList<>();
        for (int i = 0; i + 1 < points.length; i += 2) stroke.add(new Point(points[i], points[i + 1]));
        Mark raw = Mark.read(tool, List.of(stroke), tool == Tool.STAMP ? "Seen" : "", LOOK, 1, on.extents())
                .orElseThrow(r -> new IllegalStateException(r.says()));
        return Pins.pin(raw, on);
    }

    /** A mark somewhere on a sheet, mostly at something. */
    static Mark chanceMark(Random random, Scene on) {
        Primitive p = on.primitives().get(1 + random.nextInt(on.primitives().size() - 1));
        double x = p.box().middleX();
        double y = p.box().middleY();
        double far = 5 + random.nextInt(20);
        return switch (List.of(Tool.values()).get(random.nextInt(Tool.values().length))) {
            case CLOUD -> mark(Tool.CLOUD, on, x - far, y - far, x + far, y + far);
            case ARROW_NOTE -> mark(Tool.ARROW_NOTE, on, x, y, x + far, y + far);
            case NOTE -> mark(Tool.NOTE, on, x, y);
            case SIZE -> mark(Tool.SIZE, on, x, y, x + far, y, x, y + far);
            case INK -> mark(Tool.INK, on, x - far, y, x, y + far, x + far, y, x, y - far);
            case HIGHLIGHT -> mark(Tool.HIGHLIGHT, on, x - far, y - 3, x + far, y + 3);
            case STAMP -> mark(Tool.STAMP, on, x, y);
        };
    }
}
