package mintshelf.core.redline;

import java.util.ArrayList;
import java.util.List;
import mintshelf.core.base.Texts;
import mintshelf.core.drawing.Box;
import mintshelf.core.drawing.Lettering;
import mintshelf.core.drawing.Primitive;
import mintshelf.core.drawing.Source;
import mintshelf.core.drawing.Style;

/**
 * Draws remarks as lines, arcs and texts: the same for the screen, for paper and for exchange. A remark is a tag with one cut
 * corner, so that it is never taken for a difference, which is a ring. O(points).
 */
public final class MarkPaint {
    /** The layer of marks in files that are given out. */
    public static final String LAYER = "REDLINES";

    private static final double THICK = 0.5;
    private static final double THIN = 0.25;
    private static final int LETTERS_A_LINE = 30;
    private static final int MOST_LINES = 3;

    private final List<Primitive> drawn = new ArrayList<>();
    private final double mm;
    private final double height;
    private final int colour;
    private final boolean dashed;

    private MarkPaint(Remark remark, Followed followed, double mm) {
        this.mm = mm;
        this.height = followed.mark().look().letters() * mm;
        int rgb = followed.mark().look().colour().rgb();
        this.colour = remark.state().isOpen() ? rgb : paler(rgb);
        this.dashed = followed.isGone();
    }

    /** Nearer to the paper: what needs nobody any more. */
    private static int paler(int rgb) {
        int out = 0;
        for (int shift = 16; shift >= 0; shift -= 8) {
            int c = rgb >> shift & 255;
            out |= (c + (255 - c) / 2) << shift;
        }
        return out;
    }

    /**
     * A remark as it stands on a sheet.
     *
     * @param mm how long a millimetre of the sheet is in its units
     */
    public static List<Primitive> paint(Remark remark, Followed followed, double mm) {
        MarkPaint paint = new MarkPaint(remark, followed, mm);
        paint.mark(remark, followed);
        return paint.drawn;
    }

    private Style style(double weight) {
        return new Style(LAYER, colour, weight, dashed ? List.of(2.0, 1.4) : List.of());
    }

    private void mark(Remark remark, Followed followed) {
        Mark mark = followed.mark();
        Box box = mark.box();
        double gap = 3 * mm;
        Point beside = new Point(box.maxX() + gap, box.middleY());
        switch (mark.tool()) {
            case CLOUD -> cloud(box);
            case HIGHLIGHT -> frame(box);
            case INK -> mark.strokes().forEach(s -> line(s, THICK));
            case ARROW_NOTE -> beside = mark.point(1);
            case NOTE -> beside = mark.point(0);
            case SIZE -> beside = size(mark);
            case STAMP -> beside = stamp(mark);
        }
        if (mark.tool() == Tool.CLOUD || mark.tool() == Tool.HIGHLIGHT || mark.tool() == Tool.INK) {
            line(List.of(new Point(box.maxX(), box.middleY()), beside), THIN);
        }
        List<String> says = new ArrayList<>();
        boolean struck = remark.state() == Remark.State.WITHDRAWN;
        if (!struck && mark.tool() == Tool.SIZE) says.addAll(lines(mark.says()));
        if (!struck) says.addAll(lines(remark.line()));
        if (!struck) says.addAll(lines(followed.says()));
        double width = tag(remark.number(), beside, struck);
        if (mark.tool() == Tool.ARROW_NOTE) arrow(mark.point(0), beside, width);
        words(says, beside);
    }

    /** The tag's left end is its place; it stands in the middle of its height. Gives its width. */
    private double tag(String number, Point at, boolean struck) {
        double pad = height * 0.6;
        double half = height * 0.95;
        double width = Lettering.wide(number) * height + 2 * pad;
        double cut = height * 0.7;
        double[] outline = {
            at.x(),
            at.y() - half,
            at.x() + width,
            at.y() - half,
            at.x() + width,
            at.y() + half - cut,
            at.x() + width - cut,
            at.y() + half,
            at.x(),
            at.y() + half
        };
        drawn.add(
                new Primitive.Fill(Source.NONE, new Style(LAYER, Style.PAPER, 0, List.of()), new double[][] {outline}));
        drawn.add(new Primitive.Polyline(new Style(LAYER, colour, THICK, List.of()), outline, true));
        drawn.add(text(number, at.x() + pad, at.y() - height / 2));
        if (struck) line(List.of(at, new Point(at.x() + width, at.y())), THIN);
        return width;
    }

    private Primitive text(String text, double x, double y) {
        return new Primitive.Text(new Style(LAYER, colour, THIN, List.of()), x, y, height, 0, 1, 0, 0, false, text);
    }

    private void words(List<String> says, Point tag) {
        double y = tag.y() - height * 2.6;
        for (String line : says) {
            drawn.add(text(line, tag.x(), y));
            y -= height * 1.6;
        }
    }

    /** Broken at blanks, three lines at the most. */
    static List<String> lines(String text) {
        List<String> lines = new ArrayList<>();
        StringBuilder line = new StringBuilder();
        for (String word : text.strip().split("\\s+")) {
            if (line.length() > 0 && line.length() + 1 + word.length() > LETTERS_A_LINE) {
                lines.add(line.toString());
                line.setLength(0);
            }
            if (line.length() > 0) line.append(' ');
            line.append(Texts.shorten(word, LETTERS_A_LINE));
        }
        if (line.length() > 0) lines.add(line.toString());
        if (lines.size() <= MOST_LINES) return lines;
        return List.of(lines.get(0), lines.get(1), Texts.shorten(lines.get(2) + " …", LETTERS_A_LINE));
    }

    private void line(List<Point> points, double weight) {
        double[] all = new double[points.size() * 2];
        for (int i = 0; i < points.size(); i++) {
            all[2 * i] = points.get(i).x();
            all[2 * i + 1] = points.get(i).y();
        }
        drawn.add(new Primitive.Polyline(style(weight), all, false));
    }

    private void frame(Box box) {
        double[] corners = {
            box.minX(), box.minY(), box.maxX(), box.minY(), box.maxX(), box.maxY(), box.minX(), box.maxY()
        };
        drawn.add(new Primitive.Polyline(style(THICK), corners, true));
    }

    /** A line of arcs round a box, bulging outwards. */
    private void cloud(Box box) {
        double bump = Math.max(2 * mm, Math.min(6 * mm, Math.min(box.width(), box.height()) / 3));
        double[][] corners = {
            {box.minX(), box.minY()}, {box.maxX(), box.minY()}, {box.maxX(), box.maxY()}, {box.minX(), box.maxY()}
        };
        for (int i = 0; i < 4; i++) {
            double[] a = corners[i];
            double[] b = corners[(i + 1) % 4];
            double length = Math.hypot(b[0] - a[0], b[1] - a[1]);
            if (length <= 0) continue;
            int n = (int) Math.max(1, Math.min(200, Math.rint(length / bump)));
            double turn = Math.toDegrees(Math.atan2(b[1] - a[1], b[0] - a[0])) + 180;
            for (int k = 0; k < n; k++) {
                double part = (k + 0.5) / n;
                drawn.add(new Primitive.Arc(
                        style(THICK),
                        a[0] + part * (b[0] - a[0]),
                        a[1] + part * (b[1] - a[1]),
                        length / n / 2,
                        (turn % 360 + 360) % 360,
                        180));
            }
        }
    }

    private void arrow(Point tip, Point tag, double width) {
        Point from = tip.x() > tag.x() + width ? tag.by(width, 0) : tip.x() < tag.x() ? tag : tag.by(width / 2, 0);
        if (from.x() != tag.x() && from.x() != tag.x() + width) {
            from = from.by(0, Math.copySign(height * 0.95, tip.y() - tag.y()));
        }
        line(List.of(from, tip), THIN);
        head(tip, from);
    }

    /** A slender head, 15° between its edges as on dimension lines (ISO 129-1:2018, figure 7). */
    private void head(Point tip, Point from) {
        double length = tip.to(from);
        if (length <= 0) return;
        double size = Math.min(3 * mm, length / 2);
        double ux = (from.x() - tip.x()) / length * size;
        double uy = (from.y() - tip.y()) / length * size;
        double side = Math.tan(Math.toRadians(10));
        double[] ring = {
            tip.x(),
            tip.y(),
            tip.x() + ux - uy * side,
            tip.y() + uy + ux * side,
            tip.x() + ux + uy * side,
            tip.y() + uy - ux * side
        };
        drawn.add(new Primitive.Fill(Source.NONE, new Style(LAYER, colour, 0, List.of()), new double[][] {ring}));
    }

    /** Both ends led out to the line that its words stand on; gives where the tag begins. */
    private Point size(Mark mark) {
        Point a = mark.point(0);
        Point b = mark.point(1);
        Point words = mark.point(2);
        double length = a.to(b);
        if (length <= 0) return words;
        double nx = -(b.y() - a.y()) / length;
        double ny = (b.x() - a.x()) / length;
        double off = (words.x() - a.x()) * nx + (words.y() - a.y()) * ny;
        Point from = a.by(nx * off, ny * off);
        Point to = b.by(nx * off, ny * off);
        double over = Math.copySign(1.5 * mm, off);
        line(List.of(a, from.by(nx * over, ny * over)), THIN);
        line(List.of(b, to.by(nx * over, ny * over)), THIN);
        line(List.of(from, to), THIN);
        head(from, to);
        head(to, from);
        Point right = from.x() > to.x() ? from : to;
        return right.by(3 * mm, 0);
    }

    /** The word in a frame of two lines, larger than other letters; gives where the tag begins. */
    private Point stamp(Mark mark) {
        Point at = mark.point(0);
        double large = height * 1.6;
        double width = Lettering.wide(mark.text()) * large + 2 * large;
        double high = large * 2.2;
        for (double in : new double[] {0, 0.8 * mm}) {
            double[] corners = {
                at.x() + in,
                at.y() + in,
                at.x() + width - in,
                at.y() + in,
                at.x() + width - in,
                at.y() + high - in,
                at.x() + in,
                at.y() + high - in
            };
            drawn.add(new Primitive.Polyline(style(THICK), corners, true));
        }
        drawn.add(new Primitive.Text(
                style(THIN), at.x() + width / 2, at.y() + high / 2, large, 0, 1, 1, 2, false, mark.text()));
        return new Point(at.x() + width + 2 * mm, at.y() + high - height);
    }
}
