package mintshelf.core.model.picture;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import mintshelf.core.drawing.Box;
import mintshelf.core.drawing.Primitive;
import mintshelf.core.drawing.Scene;
import mintshelf.core.drawing.Style;

/** A model's edges, seen from the front, the right and above at once (isometric projection, ISO 5456-3:1996, clause 5.3). */
public final class ModelLines {
    /** Points that are taken in: of a model with more, the edges that come first. */
    private static final int MOST_TAKEN = 300_000;
    /** Points of one picture: of more, the longest edges. A list shows many pictures. */
    private static final int MOST_POINTS = 4_000;
    /** Steps of a curve that are shorter than this part of the picture are not seen. */
    private static final double SEEN = 1 / 250.0;

    private static final Style STYLE = new Style("model", Style.INK, 0.35, List.of());
    private static final double ACROSS = Math.sqrt(0.5);
    private static final double UP = 1 / Math.sqrt(6);

    private final List<double[]> lines = new ArrayList<>();
    private int points;

    /**
     * Adds a part.
     *
     * @param edges as {@link mintshelf.core.model.step.StepEdges} reads them
     * @param matrix 4 × 4 by rows: where the part stands
     */
    public void add(List<double[]> edges, double[] matrix) {
        for (double[] edge : edges) {
            if (points > MOST_TAKEN) return;
            double[] flat = new double[edge.length / 3 * 2];
            for (int i = 0; i < edge.length / 3; i++) {
                double[] p = new double[3];
                for (int k = 0; k < 3; k++) {
                    p[k] = matrix[4 * k] * edge[3 * i]
                            + matrix[4 * k + 1] * edge[3 * i + 1]
                            + matrix[4 * k + 2] * edge[3 * i + 2]
                            + matrix[4 * k + 3];
                }
                flat[2 * i] = (p[0] + p[1]) * ACROSS;
                flat[2 * i + 1] = (2 * p[2] + p[1] - p[0]) * UP;
            }
            points += flat.length / 2;
            lines.add(flat);
        }
    }

    public boolean isEmpty() {
        return lines.isEmpty();
    }

    /** What is seen of it. O(points + lines × log(lines)). */
    public Scene scene() {
        Box box = Box.EMPTY;
        for (double[] line : lines) box = box.with(Box.of(line));
        double step = Math.max(box.width(), box.height()) * SEEN;
        List<double[]> seen =
                new ArrayList<>(lines.stream().map(line -> simpler(line, step)).toList());
        seen.sort(Comparator.comparingDouble(ModelLines::reach).reversed());
        List<Primitive> drawn = new ArrayList<>();
        int left = MOST_POINTS;
        for (double[] line : seen) {
            left -= line.length / 2;
            if (left < 0) break;
            drawn.add(new Primitive.Polyline(STYLE, line, false));
        }
        return new Scene(drawn, Map.of(), Map.of());
    }

    private static double reach(double[] line) {
        Box box = Box.of(line);
        return box.width() + box.height();
    }

    /** The line without the points that are nearer than {@code step} to the one before; its ends stay. */
    private static double[] simpler(double[] line, double step) {
        double[] kept = new double[line.length];
        int n = 0;
        for (int i = 0; i < line.length; i += 2) {
            boolean end = i == 0 || i == line.length - 2;
            if (!end && Math.hypot(line[i] - kept[n - 2], line[i + 1] - kept[n - 1]) < step) continue;
            kept[n++] = line[i];
            kept[n++] = line[i + 1];
        }
        return Arrays.copyOf(kept, n);
    }
}
