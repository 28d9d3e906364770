package mintshelf.app.store.redline;

import java.util.ArrayList;
import java.util.List;
import java.util.stream.DoubleStream;
import mintshelf.core.drawing.Box;
import mintshelf.core.redline.Anchor;
import mintshelf.core.redline.Colour;
import mintshelf.core.redline.Look;
import mintshelf.core.redline.Mark;
import mintshelf.core.redline.Point;
import mintshelf.core.redline.Tool;

/**
 * A mark as it is kept.
 *
 * @param points x and y in turn, a row a stroke
 * @param view what its author looked at: lower left and upper right; empty where that is not known
 */
record MarkForm(
        double[][] points, String text, String colour, double letters, double scale, Pin[] pins, double[] view) {
    /** An anchor: which point, of what, where on it, the middle of its box. */
    record Pin(int point, long handle, String path, double x, double y, double middleX, double middleY) {}

    static MarkForm of(Mark mark, Box view) {
        double[][] points = mark.strokes().stream()
                .map(s -> s.stream()
                        .flatMapToDouble(p -> DoubleStream.of(p.x(), p.y()))
                        .toArray())
                .toArray(double[][]::new);
        Pin[] pins = mark.anchors().stream()
                .map(a -> new Pin(
                        a.point(),
                        a.handle(),
                        a.path(),
                        a.place().x(),
                        a.place().y(),
                        a.middle().x(),
                        a.middle().y()))
                .toArray(Pin[]::new);
        double[] seen =
                view.isEmpty() ? new double[0] : new double[] {view.minX(), view.minY(), view.maxX(), view.maxY()};
        return new MarkForm(
                points, mark.text(), mark.look().colour().code(), mark.look().letters(), mark.scale(), pins, seen);
    }

    Mark mark(Tool tool) {
        List<List<Point>> strokes = new ArrayList<>();
        for (double[] row : points) {
            List<Point> stroke = new ArrayList<>();
            for (int i = 0; i + 1 < row.length; i += 2) stroke.add(new Point(row[i], row[i + 1]));
            strokes.add(stroke);
        }
        List<Anchor> anchors = new ArrayList<>();
        for (Pin p : pins) {
            anchors.add(new Anchor(p.point, p.handle, p.path, new Point(p.x, p.y), new Point(p.middleX, p.middleY)));
        }
        Look look = new Look(Colour.of(colour).orElse(Colour.BRICK), letters);
        return new Mark(tool, strokes, text, look, scale, anchors);
    }

    Box seen() {
        return view.length == 4 ? new Box(view[0], view[1], view[2], view[3]) : Box.EMPTY;
    }
}
