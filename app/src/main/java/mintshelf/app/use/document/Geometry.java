package mintshelf.app.use.document;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.DoubleStream;
import mintshelf.core.drawing.Box;
import mintshelf.core.drawing.Primitive;
import mintshelf.core.drawing.Scene;
import mintshelf.core.drawing.Source;

/**
 * What can be measured on a sheet.
 *
 * @param lines x and y of both ends of each
 * @param arcs x, y, radius, start and sweep in degrees of each
 * @param texts boxes of what is written outside of dimensions: lower left and upper right of each
 * @param dimensions boxes of whole dimensions
 */
public record Geometry(double scale, double[] lines, double[] arcs, double[] texts, double[] dimensions) {
    private static boolean isOfDimension(Source source) {
        return source.type().equals("DIMENSION") || source.path().startsWith("*D");
    }

    private static double[] boxes(Collection<Box> boxes) {
        return boxes.stream()
                .flatMapToDouble(b -> DoubleStream.of(b.minX(), b.minY(), b.maxX(), b.maxY()))
                .toArray();
    }

    static Geometry of(Scene scene, double scale) {
        double[] lines = new double[1024];
        double[] arcs = new double[256];
        int n = 0;
        int m = 0;
        List<Box> texts = new ArrayList<>();
        Map<String, Box> dimensions = new LinkedHashMap<>();
        for (Primitive p : scene.primitives()) {
            if (!scene.layers().getOrDefault(p.style().layer(), true)) continue;
            if (isOfDimension(p.source())) {
                dimensions.merge(p.source().handle() + p.source().path(), p.box(), Box::with);
            } else if (p instanceof Primitive.Text) {
                texts.add(p.box());
            }
            if (p instanceof Primitive.Arc arc) {
                if (m + 5 > arcs.length) arcs = Arrays.copyOf(arcs, m * 2);
                for (double v : new double[] {arc.x(), arc.y(), arc.radius(), arc.from(), arc.sweep()}) arcs[m++] = v;
            } else if (p instanceof Primitive.Polyline line) {
                double[] q = line.points();
                int count = q.length / 2;
                for (int i = 0; i < (line.closed() ? count : count - 1); i++) {
                    int k = (i + 1) % count;
                    if (n + 4 > lines.length) lines = Arrays.copyOf(lines, n * 2);
                    for (double v : new double[] {q[2 * i], q[2 * i + 1], q[2 * k], q[2 * k + 1]}) lines[n++] = v;
                }
            }
        }
        return new Geometry(
                scale, Arrays.copyOf(lines, n), Arrays.copyOf(arcs, m), boxes(texts), boxes(dimensions.values()));
    }
}
