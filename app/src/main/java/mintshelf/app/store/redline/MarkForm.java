package mintshelf.app.store.redline;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.stream.DoubleStream;
import mintshelf.core.drawing.Box;
import mintshelf.core.redline.Anchor;
import mintshelf.core.redline.Colour;
import mintshelf.core.redline.Look;
import mintshelf.core.redline.Mark;
import mintshelf.core.redline.Picked;
import mintshelf.core.redline.Point;
import mintshelf.core.redline.Space;
import mintshelf.core.redline.Tool;
import mintshelf.core.redline.Vector;

/**
 * A mark as it is kept.
 *
 * @param points x and y in turn, a row a stroke
 * @param view what its author looked at: lower left and upper right; empty where that is not known
 * @param space where it stands on a model; null on sheets
 */
record MarkForm(
        double[][] points,
        String text,
        String colour,
        double letters,
        double scale,
        Pin[] pins,
        double[] view,
        InSpace space) {
    /** An anchor: which point, of what, where on it, the middle of its box. */
    record Pin(int point, long handle, String path, double x, double y, double middleX, double middleY) {}

    /** A mark on a model: what was picked, where its words stand, from where its author looked: place, target, up, height. */
    record InSpace(Pick[] picks, double[] words, double[] eye) {
        /** One thing: what it is, a place on it, its way. */
        record Pick(String of, double[] at, double[] along, double radius) {}

        static InSpace of(Space space) {
            Pick[] picks = space.picks().stream()
                    .map(p -> new Pick(p.of().words(), row(p.at()), row(p.along()), p.radius()))
                    .toArray(Pick[]::new);
            Space.Eye e = space.eye();
            double[] eye = DoubleStream.of(
                            e.at().x(),
                            e.at().y(),
                            e.at().z(),
                            e.target().x(),
                            e.target().y(),
                            e.target().z(),
                            e.up().x(),
                            e.up().y(),
                            e.up().z(),
                            e.height())
                    .toArray();
            return new InSpace(picks, row(space.words()), eye);
        }

        private static double[] row(Vector v) {
            return new double[] {v.x(), v.y(), v.z()};
        }

        private static Vector vector(double[] row, int from) {
            return new Vector(row[from], row[from + 1], row[from + 2]);
        }

        Space space() {
            List<Picked> all = Arrays.stream(picks)
                    .map(p -> new Picked(
                            Picked.Of.of(p.of).orElse(Picked.Of.POINT), vector(p.at, 0), vector(p.along, 0), p.radius))
                    .toList();
            return new Space(
                    all, vector(words, 0), new Space.Eye(vector(eye, 0), vector(eye, 3), vector(eye, 6), eye[9]));
        }
    }

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
                points,
                mark.text(),
                mark.look().colour().code(),
                mark.look().letters(),
                mark.scale(),
                pins,
                seen,
                mark.space().map(InSpace::of).orElse(null));
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
        return new Mark(
                tool,
                strokes,
                text,
                look,
                scale,
                anchors,
                Optional.ofNullable(space).map(InSpace::space));
    }

    Box seen() {
        return view.length == 4 ? new Box(view[0], view[1], view[2], view[3]) : Box.EMPTY;
    }
}
