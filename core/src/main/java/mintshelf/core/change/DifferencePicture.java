package mintshelf.core.change;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import mintshelf.core.drawing.Box;
import mintshelf.core.drawing.Primitive;
import mintshelf.core.drawing.Primitive.Arc;
import mintshelf.core.drawing.Primitive.Fill;
import mintshelf.core.drawing.Primitive.Polyline;
import mintshelf.core.drawing.Primitive.Strokes;
import mintshelf.core.drawing.Primitive.Text;
import mintshelf.core.drawing.Scene;
import mintshelf.core.drawing.Style;
import mintshelf.core.drawing.compare.Comparison;

/** A sheet made small, with a ring and a number round each difference to the one before it, but for its title block. */
public final class DifferencePicture {
    /** A sheet that draws more than this is no small picture any more. */
    private static final int MOST = 20_000;

    private static final double RING = 2.2;
    private static final double WIDEST = 9;
    private static final double FIGURES = 2;
    private static final int MARK = 0x0f7a5c;
    private static final Style RINGED = new Style("RINGS", MARK, 0.35, List.of());

    private DifferencePicture() {}

    /**
     * The sheet within a box whose lower left corner is 0, 0; in millimetres of the paper that it is put on.
     *
     * @return nothing for an empty sheet, or one that draws too much. O(points)
     */
    public static Optional<List<Primitive>> of(Scene now, Comparison compared, double wide, double high) {
        Box box = now.extents();
        if (now.primitives().size() > MOST || box.isEmpty() || box.width() <= 0 || box.height() <= 0) {
            return Optional.empty();
        }
        double scale = Math.min(wide / box.width(), high / box.height());
        Move move = new Move(scale, -box.minX() * scale, -box.minY() * scale);
        List<Primitive> drawn = new ArrayList<>();
        for (Primitive one : now.primitives()) drawn.add(move.of(one));
        for (Comparison.Difference difference : compared.differences()) {
            if (difference.form()) continue; // every revision fills its title block anew
            Box at = seen(now, difference);
            double x = move.x(at.middleX());
            double y = move.y(at.middleY());
            double half = Math.hypot(at.width(), at.height()) / 2 * scale + RING / 2;
            double radius = Math.min(Math.max(RING, half), WIDEST);
            drawn.add(new Arc(RINGED, x, y, radius, 0, 360));
            drawn.add(new Text(
                    RINGED,
                    x + radius * 0.75,
                    y + radius * 0.75,
                    FIGURES,
                    0,
                    1,
                    0,
                    1,
                    false,
                    Integer.toString(difference.number())));
        }
        return Optional.of(drawn);
    }

    /** Where it is on the new sheet; of what is gone, where it was. */
    private static Box seen(Scene now, Comparison.Difference difference) {
        Box box = Box.EMPTY;
        for (int i : difference.nows()) {
            if (i < now.primitives().size())
                box = box.with(now.primitives().get(i).box());
        }
        return box.isEmpty() ? difference.box() : box;
    }

    /** As drawn, put elsewhere on the paper. */
    static List<Primitive> at(List<Primitive> drawn, double x, double y) {
        Move move = new Move(1, x, y);
        return drawn.stream().map(move::of).toList();
    }

    /** Made smaller and put somewhere; lines become as thin. */
    private record Move(double scale, double dx, double dy) {
        double x(double x) {
            return x * scale + dx;
        }

        double y(double y) {
            return y * scale + dy;
        }

        private double[] points(double[] points) {
            double[] moved = new double[points.length];
            for (int i = 0; i + 1 < points.length; i += 2) {
                moved[i] = x(points[i]);
                moved[i + 1] = y(points[i + 1]);
            }
            return moved;
        }

        private Style style(Style style) {
            return scale == 1
                    ? style
                    : new Style(
                            style.layer(),
                            style.colour(),
                            Math.max(0.05, style.weight() * Math.min(1, scale)),
                            style.dashes().stream().map(d -> d * scale).toList());
        }

        Primitive of(Primitive one) {
            Style style = style(one.style());
            if (one instanceof Polyline p) return new Polyline(style, points(p.points()), p.closed());
            if (one instanceof Arc a) {
                return new Arc(style, x(a.x()), y(a.y()), a.radius() * scale, a.from(), a.sweep());
            }
            if (one instanceof Strokes s) return new Strokes(s.source(), style, points(s.ends()));
            if (one instanceof Fill f) {
                double[][] rings = new double[f.rings().length][];
                for (int i = 0; i < rings.length; i++) rings[i] = points(f.rings()[i]);
                return new Fill(f.source(), style, rings);
            }
            Text t = (Text) one;
            return new Text(
                    style,
                    x(t.x()),
                    y(t.y()),
                    t.height() * scale,
                    t.angle(),
                    t.width(),
                    t.across(),
                    t.up(),
                    t.mirrored(),
                    t.text());
        }
    }
}
