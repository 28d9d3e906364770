package mintshelf.core.redline;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import mintshelf.core.base.Numbers;
import mintshelf.core.base.Outcome;
import mintshelf.core.base.Texts;
import mintshelf.core.drawing.Box;

/**
 * A mark over a sheet, anchored to the version that it was drawn on.
 *
 * @param strokes its points: two corners of a cloud or a highlight; tip and words of an arrow note; the place of a note or stamp; both
 *     ends of a size and the place of its words; of ink as many strokes as were drawn
 * @param text the wanted value of a size, the word of a stamp; empty for others
 * @param scale of the view: how many millimetres of the sheet draw one of the thing
 * @param anchors what it marks; empty where it marks nothing that is drawn
 * @param space where it stands on a model; empty on sheets. A mark on a model has no strokes
 */
public record Mark(
        Tool tool,
        List<List<Point>> strokes,
        String text,
        Look look,
        double scale,
        List<Anchor> anchors,
        Optional<Space> space) {
    /** Points of one mark, over all its strokes. */
    public static final int MOST_POINTS = 4000;

    public static final int MOST_STROKES = 60;
    public static final int LONGEST_TEXT = 24;

    /** On a sheet. */
    public Mark(Tool tool, List<List<Point>> strokes, String text, Look look, double scale, List<Anchor> anchors) {
        this(tool, strokes, text, look, scale, anchors, Optional.empty());
    }

    public Mark {
        strokes = strokes.stream().map(List::copyOf).toList();
        anchors = List.copyOf(anchors);
    }

    /**
     * A mark as it came from outside, or why it is none: points that are no places, too many or too few, off the sheet.
     *
     * @param sheet what is drawn; a mark may reach beyond it by half its size
     */
    public static Outcome<Mark> read(
            Tool tool, List<List<Point>> strokes, String text, Look look, double scale, Box sheet) {
        int points = strokes.stream().mapToInt(List::size).sum();
        if (points > MOST_POINTS || strokes.size() > MOST_STROKES) {
            return Outcome.refused(
                    "mark.long",
                    "The mark has " + Numbers.grouped(points) + " points in " + Numbers.grouped(strokes.size())
                            + " strokes; " + Numbers.grouped(MOST_POINTS) + " points in " + MOST_STROKES
                            + " are the most.",
                    "Draw it in two marks; nothing was kept of it.");
        }
        boolean form = tool == Tool.INK
                ? !strokes.isEmpty() && strokes.stream().allMatch(s -> s.size() >= tool.fewest && s.size() <= tool.most)
                : strokes.size() == 1 && points >= tool.fewest && points <= tool.most;
        boolean places = strokes.stream().flatMap(List::stream).allMatch(Point::isPlace);
        if (!form || !places) {
            return Outcome.refused(
                    "mark.form",
                    "These points are no " + tool.words().toLowerCase(Locale.ROOT) + ".",
                    "Draw it again.");
        }
        double room = Math.max(sheet.width(), sheet.height()) / 2;
        Box around = sheet.isEmpty() ? new Box(-1e9, -1e9, 1e9, 1e9) : sheet.grown(Math.max(room, 1e-6));
        Box own = box(strokes);
        if (!around.holds(own)) {
            return Outcome.refused("mark.off", "The mark lies off the sheet.", "Draw it on the sheet.");
        }
        if (tool == Tool.CLOUD || tool == Tool.HIGHLIGHT || tool == Tool.INK) {
            if (own.width() <= 0 && own.height() <= 0) {
                return Outcome.refused("mark.form", "The mark has no size.", "Draw it again.");
            }
        }
        return said(tool, text).map(kept -> new Mark(tool, strokes, kept, look, scale > 0 ? scale : 1, List.of()));
    }

    /** A mark on a model as it came from outside, or why it is none: a note, an arrow note or a size, at places of the model. */
    public static Outcome<Mark> read(Tool tool, Space space, String text, Look look) {
        int wanted = Space.picks(tool);
        if (wanted == 0 || space.picks().size() != wanted || !space.isSound()) {
            return Outcome.refused(
                    "mark.form",
                    "This is no " + tool.words().toLowerCase(Locale.ROOT) + " on a model.",
                    "Draw a note, an arrow note or a size.");
        }
        return said(tool, text).map(kept -> new Mark(tool, List.of(), kept, look, 1, List.of(), Optional.of(space)));
    }

    private static Outcome<String> said(Tool tool, String text) {
        return tool == Tool.STAMP
                ? Texts.required("The stamp", text, LONGEST_TEXT)
                : Texts.optional("The wanted size", tool == Tool.SIZE ? text : "", LONGEST_TEXT);
    }

    public Point point(int index) {
        return strokes.get(0).get(index);
    }

    /** Around its points. */
    public Box box() {
        return box(strokes);
    }

    private static Box box(List<List<Point>> strokes) {
        Box box = Box.EMPTY;
        for (List<Point> stroke : strokes) for (Point p : stroke) box = box.with(p.x(), p.y());
        return box;
    }

    /** Where its number is told from: the tip of an arrow, the middle of what it encloses. */
    public Point at() {
        if (tool == Tool.ARROW_NOTE || tool == Tool.NOTE || tool == Tool.STAMP) return point(0);
        if (tool == Tool.SIZE) return new Point((point(0).x() + point(1).x()) / 2, (point(0).y() + point(1).y()) / 2);
        Box box = box();
        return new Point(box.middleX(), box.middleY());
    }

    /** The distance of a size's ends, of the thing itself. */
    public double measured() {
        return point(0).to(point(1)) / scale;
    }

    /** What a size says of itself; the word of a stamp; empty for others. */
    public String says() {
        if (tool == Tool.STAMP) return text;
        if (tool != Tool.SIZE) return "";
        String measured = (space.isPresent()
                        ? Picked.between(
                                        space.get().picks().get(0),
                                        space.get().picks().get(1))
                                .toString()
                        : number(measured()))
                + " measured";
        return text.isEmpty() ? measured : text + " wanted, " + measured;
    }

    /** Three places at the most, no noughts behind. */
    static String number(double value) {
        String text = String.format(Locale.ROOT, "%.3f", value).replaceAll("0+$", "");
        return text.endsWith(".") ? text.substring(0, text.length() - 1) : text;
    }

    public Mark with(List<Anchor> pins) {
        return new Mark(tool, strokes, text, look, scale, pins, space);
    }

    public Mark with(Look other) {
        return new Mark(tool, strokes, text, other, scale, anchors, space);
    }

    /** The same, moved as a whole. */
    Mark moved(double dx, double dy) {
        if (dx == 0 && dy == 0) return this;
        List<List<Point>> all = new ArrayList<>();
        for (List<Point> stroke : strokes)
            all.add(stroke.stream().map(p -> p.by(dx, dy)).toList());
        return new Mark(tool, all, text, look, scale, anchors);
    }

    Mark withPoints(List<Point> points) {
        return new Mark(tool, List.of(points), text, look, scale, anchors);
    }
}
