package mintshelf.core.model.picture;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import mintshelf.core.drawing.Primitive;
import mintshelf.core.drawing.Scene;
import mintshelf.core.drawing.Style;

/** A model's edges, seen from the front, the right and above at once (isometric projection, ISO 5456-3:1996, clause 5.3). */
public final class ModelLines {
    /** Points of one picture. */
    public static final int MOST_POINTS = 300_000;

    private static final Style STYLE = new Style("model", Style.INK, 0.35, List.of());
    private static final double ACROSS = Math.sqrt(0.5);
    private static final double UP = 1 / Math.sqrt(6);

    private final List<Primitive> lines = new ArrayList<>();
    private int points;

    /**
     * Adds a part; what is beyond {@link #MOST_POINTS} is left out.
     *
     * @param edges as {@link mintshelf.core.model.step.StepEdges} reads them
     * @param matrix 4 × 4 by rows: where the part stands
     */
    public void add(List<double[]> edges, double[] matrix) {
        for (double[] edge : edges) {
            if (points > MOST_POINTS) return;
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
            lines.add(new Primitive.Polyline(STYLE, flat, false));
        }
    }

    public boolean isEmpty() {
        return lines.isEmpty();
    }

    public Scene scene() {
        return new Scene(lines, Map.of(), Map.of());
    }
}
