package mintshelf.core.model.step;

import java.io.IOException;
import java.io.InputStream;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import mintshelf.core.model.step.StepValue.Typed;

/** The edges of a model's solids as lines in space: what a small picture of it is drawn from. */
public final class StepEdges extends StepCurves {
    /** Edges that are drawn: a picture of more is black. */
    public static final int MOST = 20_000;

    private static final int MOST_KEPT = 200_000;

    private StepEdges(InputStream in) {
        super(in, Set.of(), MOST_KEPT);
    }

    /**
     * Reads the edges. O(bytes).
     *
     * @param unit millimetres of one of the file's length units
     * @return lines of points, x, y and z in turn, in millimetres
     */
    public static List<double[]> read(InputStream in, double unit) throws IOException {
        StepEdges reader = new StepEdges(in);
        reader.read();
        List<double[]> edges = new ArrayList<>();
        for (Typed one : reader.kept.values()) {
            if (edges.size() >= MOST) break;
            if (one.type().equals("EDGE_CURVE")) reader.edge(one).ifPresent(edges::add);
        }
        for (double[] edge : edges) for (int i = 0; i < edge.length; i++) edge[i] *= unit;
        return edges;
    }
}
