package mintshelf.core.drawing.dxf;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import mintshelf.core.drawing.Box;
import mintshelf.core.drawing.Primitive;
import mintshelf.core.drawing.Style;

/**
 * A window of a layout onto model space.
 *
 * @param frame on the sheet
 * @param placement from model space to the sheet
 * @param hidden names of layers, in capitals, that this window does not show
 * @param fromAside whether it looks from any direction but above
 */
record Viewport(Box frame, Placement placement, Set<String> hidden, boolean fromAside, boolean scalesDashes) {
    /** The viewport of an entity; nothing for the sheet's own and for those that are off. */
    static Optional<Viewport> of(Entity e, DxfDrawing drawing, int before) {
        double width = e.real(40, 0);
        double height = e.real(41, 0);
        int id = e.whole(69, before + 1);
        boolean off = (e.has(68) && e.whole(68, 1) == 0) || (e.whole(90, 0) & 0x20000) != 0;
        if (id == 1 || off || width <= 0 || height <= 0 || e.isUnreadable()) return Optional.empty();
        double x = e.real(10, 0);
        double y = e.real(20, 0);
        Box frame = new Box(x - width / 2, y - height / 2, x + width / 2, y + height / 2);
        Set<String> hidden = new HashSet<>();
        double[] view = {e.real(12, 0), e.real(22, 0), e.real(45, 0), e.real(51, 0)};
        double[] target = {e.real(17, 0), e.real(27, 0)};
        double[] direction = {e.real(16, 0), e.real(26, 0), e.real(36, 1)};
        if (!e.has(45)) old(e, view, target, direction, hidden);
        for (int i = 0; i < e.size(); i++) {
            if (e.code(i) == 331 || e.code(i) == 341) {
                String layer = drawing.layerHandles.get(e.handleAt(i));
                if (layer != null) hidden.add(layer);
            }
        }
        double scale = height / (view[2] > 0 ? view[2] : height);
        // Seen from above, view coordinates are those of the model, turned and counted from the target.
        Placement placement = Placement.move(x, y)
                .of(Placement.scale(scale, scale))
                .of(Placement.move(-view[0], -view[1]))
                .of(Placement.turn(view[3]))
                .of(Placement.move(-target[0], -target[1]));
        boolean aside = Math.hypot(direction[0], direction[1]) > 1e-6 * Math.abs(direction[2]) || direction[2] <= 0;
        return Optional.of(new Viewport(frame, placement, hidden, aside, drawing.variable("$PSLTSCALE", 1) == 0));
    }

    /** Before release 13 the view stands in extended data, value after value: target, direction, twist, height, centre … */
    private static void old(Entity e, double[] view, double[] target, double[] direction, Set<String> hidden) {
        List<Integer> numbers = new ArrayList<>();
        int points = 0;
        for (int i = 0; i < e.size(); i++) {
            int code = e.code(i);
            if (code == 1010) {
                double px = e.real(i);
                double py = i + 1 < e.size() ? e.real(i + 1) : 0;
                double pz = i + 2 < e.size() ? e.real(i + 2) : 1;
                if (points == 0) {
                    target[0] = px;
                    target[1] = py;
                } else if (points == 1) {
                    direction[0] = px;
                    direction[1] = py;
                    direction[2] = pz;
                }
                points++;
            } else if (code == 1040) {
                numbers.add(i);
            } else if (code == 1003) {
                hidden.add(DxfDrawing.key(e.text(i)));
            }
        }
        if (numbers.size() < 4) return;
        view[3] = e.real(numbers.get(0));
        view[2] = e.real(numbers.get(1));
        view[0] = e.real(numbers.get(2));
        view[1] = e.real(numbers.get(3));
    }

    /** Adds what of model space shows in the frame. O(primitives). */
    void show(List<Primitive> model, Canvas canvas) {
        Map<Style, Style> styles = new HashMap<>();
        for (Primitive p : model) {
            if (hidden.contains(DxfDrawing.key(p.style().layer()))) continue;
            canvas.out.addAll(Clip.within(moved(p, styles), frame));
        }
    }

    private Style styled(Style style, Map<Style, Style> styles) {
        if (!scalesDashes || style.dashes().isEmpty()) return style;
        return styles.computeIfAbsent(
                style,
                s -> new Style(
                        s.layer(),
                        s.colour(),
                        s.weight(),
                        s.dashes().stream().map(d -> d * placement.size()).toList()));
    }

    private Primitive moved(Primitive p, Map<Style, Style> styles) {
        Style style = styled(p.style(), styles);
        if (p instanceof Primitive.Polyline line) {
            return new Primitive.Polyline(line.source(), style, Canvas.place(placement, line.points()), line.closed());
        }
        if (p instanceof Primitive.Arc arc) {
            return new Primitive.Arc(
                    arc.source(),
                    style,
                    placement.x(arc.x(), arc.y()),
                    placement.y(arc.x(), arc.y()),
                    arc.radius() * placement.size(),
                    arc.from() + placement.angle(),
                    arc.sweep());
        }
        if (p instanceof Primitive.Strokes strokes) {
            return new Primitive.Strokes(strokes.source(), style, Canvas.place(placement, strokes.ends()));
        }
        if (p instanceof Primitive.Fill fill) {
            double[][] rings = new double[fill.rings().length][];
            for (int i = 0; i < rings.length; i++) rings[i] = Canvas.place(placement, fill.rings()[i]);
            return new Primitive.Fill(fill.source(), style, rings);
        }
        Primitive.Text t = (Primitive.Text) p;
        return new Primitive.Text(
                t.source(),
                style,
                placement.x(t.x(), t.y()),
                placement.y(t.x(), t.y()),
                t.height() * placement.size(),
                t.angle() + placement.angle(),
                t.width(),
                t.across(),
                t.up(),
                t.mirrored(),
                t.text());
    }
}
