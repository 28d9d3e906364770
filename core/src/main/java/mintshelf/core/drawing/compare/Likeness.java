package mintshelf.core.drawing.compare;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import mintshelf.core.drawing.Primitive;
import mintshelf.core.drawing.Style;

/**
 * How like two shapes are that are not the same, and what changed between them, in words.
 *
 * <p>A measure of our own, made so that what a person would call one changed thing is below 1 and two things are above it: the way
 * between their middles as a part of the reach, plus what of their size or form differs, plus a tenth for another style. Circles
 * that share a centre may grow by 70 %, ones of a size may move by six radii; an open line compares its corners one by one, from
 * either end; another text in the place of the first (two letters' heights) is that text changed. It is symmetric, a
 * tenth at the most for the same shape, and no metric: that A is like B and B like C says nothing of A and C, so pairs are taken the most alike first. O(points).
 *
 * <p>It does not see a line that was given another corner, or a ring that became two: those are a removed and an added thing.
 */
final class Likeness {
    private Likeness() {}

    /** A tenth at the most for the same, up to 1 for what may just be one thing that changed, more for different things. Symmetric. */
    static double unlike(Shape a, Shape b, double reach) {
        double off = Math.hypot(
                a.box().middleX() - b.box().middleX(),
                a.box().middleY() - b.box().middleY());
        if (off > reach) return 2;
        double near = off / reach;
        double style = a.primitive().style().equals(b.primitive().style()) ? 0 : 0.1;
        if (a.primitive() instanceof Primitive.Text s && b.primitive() instanceof Primitive.Text t) {
            boolean sameText = s.text().equals(t.text());
            if (sameText) return near * 0.15 + style;
            // Another text counts as a change where it stands in the place of the first.
            double place = Math.hypot(s.x() - t.x(), s.y() - t.y());
            boolean there = place <= 2 * Math.max(s.height(), t.height());
            return there ? 0.2 + 0.3 * (place / Math.max(reach, 1e-9)) + style : 2;
        }
        if (a.primitive() instanceof Primitive.Arc s && b.primitive() instanceof Primitive.Arc t) {
            double centre = Math.hypot(s.x() - t.x(), s.y() - t.y());
            double larger = Math.max(s.radius(), t.radius());
            double grown = Math.abs(s.radius() - t.radius()) / larger;
            boolean whole = s.sweep() >= 360 == t.sweep() >= 360;
            if (centre < 0.02 * larger && grown < 0.7) return 0.1 + 0.4 * grown + (whole ? 0 : 0.3) + style;
            return grown < 0.02 && whole && centre < 6 * larger ? 0.3 + 0.6 * near + style : 2;
        }
        if (a.primitive() instanceof Primitive.Polyline s && b.primitive() instanceof Primitive.Polyline t) {
            return lines(a, b, s, t, near, style);
        }
        boolean sameSize = a.values().length == b.values().length;
        double grown = Math.abs(a.box().width() - b.box().width())
                + Math.abs(a.box().height() - b.box().height());
        double spread =
                a.box().width() + a.box().height() + b.box().width() + b.box().height();
        return spread <= 0 ? 2 : 0.3 * near + 2 * grown / spread + (sameSize ? 0 : 0.3) + style;
    }

    private static double lines(
            Shape a, Shape b, Primitive.Polyline s, Primitive.Polyline t, double near, double style) {
        if (a.values().length != b.values().length || s.closed() != t.closed()) return 2;
        double length = Math.max(length(s), length(t));
        if (length <= 0) return 2;
        double moved = Math.min(total(a.values(), b.values()), total(a.values(), Shape.reversed(b.values())));
        double part = moved / (a.values().length / 2.0) / length;
        return part > 0.6 ? 2 : 0.1 + 0.3 * near + part + style;
    }

    private static double total(double[] a, double[] b) {
        double sum = 0;
        for (int i = 0; i + 1 < a.length; i += 2) sum += Math.hypot(a[i] - b[i], a[i + 1] - b[i + 1]);
        return sum;
    }

    private static double length(Primitive.Polyline line) {
        double[] p = line.points();
        double sum = 0;
        for (int i = 2; i + 1 < p.length; i += 2) sum += Math.hypot(p[i] - p[i - 2], p[i + 1] - p[i - 1]);
        if (line.closed() && p.length > 4) {
            sum += Math.hypot(p[0] - p[p.length - 2], p[1] - p[p.length - 1]);
        }
        return sum;
    }

    /**
     * What changed, in words.
     *
     * @param scale of the view: how many millimetres of the sheet draw one of the thing
     */
    static String says(Shape a, Shape b, double scale) {
        if (a.primitive() instanceof Primitive.Text s && b.primitive() instanceof Primitive.Text t) {
            if (!s.text().equals(t.text()))
                return "text " + s.text().strip() + " → " + t.text().strip();
            return "text " + s.text().strip() + " "
                    + (s.x() == t.x() && s.y() == t.y() ? style(a, b) : moved(a, b, scale));
        }
        if (a.primitive() instanceof Primitive.Arc s && b.primitive() instanceof Primitive.Arc t) {
            boolean circle = s.sweep() >= 360 && t.sweep() >= 360;
            if (Math.abs(s.radius() - t.radius()) > 1e-3) {
                return circle
                        ? "⌀ " + number(2 * s.radius() / scale) + " → ⌀ " + number(2 * t.radius() / scale)
                        : "R " + number(s.radius() / scale) + " → R " + number(t.radius() / scale);
            }
            double off = Math.hypot(s.x() - t.x(), s.y() - t.y());
            if (off > 1e-3)
                return (circle ? "circle ⌀ " + number(2 * s.radius() / scale) : "arc") + " " + moved(a, b, scale);
            if (Math.abs(s.sweep() - t.sweep()) > 1e-6) {
                return "arc " + number(s.sweep()) + "° → " + number(t.sweep()) + "°";
            }
            return (circle ? "circle " : "arc ") + style(a, b);
        }
        if (a.primitive() instanceof Primitive.Polyline s && b.primitive() instanceof Primitive.Polyline t) {
            return line(a, b, s, t, scale);
        }
        String what = a.primitive() instanceof Primitive.Fill ? "area" : "hatching";
        String style = style(a, b);
        return what + " " + (style.isEmpty() ? "changed" : style);
    }

    private static String line(Shape a, Shape b, Primitive.Polyline s, Primitive.Polyline t, double scale) {
        String what = s.points().length > 4 ? "outline" : "line";
        double longer = (length(t) - length(s)) / scale;
        if (Math.abs(longer) > 0.005)
            return what + " " + number(Math.abs(longer)) + (longer > 0 ? " longer" : " shorter");
        if (s.points().length == 4) {
            double turn = Math.toDegrees(direction(b.values()) - direction(a.values()));
            turn = turn > 90 ? turn - 180 : turn < -90 ? turn + 180 : turn;
            if (Math.abs(turn) > 0.005) return "line turned by " + number(Math.abs(turn)) + "°";
        }
        String style = style(a, b);
        return what + " " + (style.isEmpty() ? moved(a, b, scale) : style);
    }

    private static double direction(double[] ends) {
        return Math.atan2(ends[3] - ends[1], ends[2] - ends[0]);
    }

    private static String moved(Shape a, Shape b, double scale) {
        double dx = (b.box().middleX() - a.box().middleX()) / scale;
        double dy = (b.box().middleY() - a.box().middleY()) / scale;
        return "moved by " + move(dx, dy);
    }

    /** To the right and upwards, as a person would say it. */
    static String move(double dx, double dy) {
        List<String> ways = new ArrayList<>();
        if (Math.abs(dx) >= 0.0005) ways.add(number(Math.abs(dx)) + (dx > 0 ? " right" : " left"));
        if (Math.abs(dy) >= 0.0005) ways.add(number(Math.abs(dy)) + (dy > 0 ? " up" : " down"));
        return ways.isEmpty() ? "a hair" : String.join(", ", ways);
    }

    private static String style(Shape a, Shape b) {
        Style s = a.primitive().style();
        Style t = b.primitive().style();
        List<String> says = new ArrayList<>();
        if (!s.layer().equals(t.layer())) says.add("layer " + s.layer() + " → " + t.layer());
        if (s.weight() != t.weight()) says.add("width " + number(s.weight()) + " → " + number(t.weight()));
        if (!s.dashes().equals(t.dashes())) says.add("line type changed");
        if (s.colour() != t.colour()) says.add("colour changed");
        return String.join(", ", says);
    }

    /** Hundredths at most, thousandths where less is left. */
    static String number(double value) {
        String text = String.format(Locale.ROOT, Math.abs(value) < 0.1 ? "%.3f" : "%.2f", value);
        text = text.replaceAll("0+$", "");
        return text.endsWith(".") ? text + "0" : text;
    }
}
