package mintshelf.core.model.picture;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.List;
import mintshelf.core.drawing.Box;
import mintshelf.core.drawing.Primitive;
import org.junit.jupiter.api.Test;

class ModelLinesTest {
    private static final double[] WHERE_IT_IS = {1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1};

    private static double[] circle(double radius, int steps) {
        double[] points = new double[3 * (steps + 1)];
        for (int i = 0; i <= steps; i++) {
            points[3 * i] = radius * Math.cos(2 * Math.PI * i / steps);
            points[3 * i + 1] = radius * Math.sin(2 * Math.PI * i / steps);
        }
        return points;
    }

    private static int points(ModelLines lines) {
        return lines.scene().primitives().stream()
                .mapToInt(p -> ((Primitive.Polyline) p).points().length / 2)
                .sum();
    }

    @Test
    void partsStandWhereTheirMatricesPutThem() {
        ModelLines lines = new ModelLines();
        assertThat(lines.isEmpty()).isTrue();
        double[] shifted = WHERE_IT_IS.clone();
        shifted[11] = 100; // upwards
        List<double[]> edge = List.of(new double[] {0, 0, 0, 10, 0, 0});
        lines.add(edge, WHERE_IT_IS);
        lines.add(edge, shifted);
        Box box = lines.scene().extents();
        assertThat(lines.scene().primitives()).hasSize(2);
        assertThat(box.width()).isCloseTo(10 * Math.sqrt(0.5), within(1e-9));
        assertThat(box.maxY()).isCloseTo(200 / Math.sqrt(6), within(1e-9));
    }

    @Test
    void aCircleIsRoundAndASmallOneBesideALargeThingTakesFewPoints() {
        ModelLines alone = new ModelLines();
        alone.add(List.of(circle(10, 48)), WHERE_IT_IS);
        assertThat(points(alone)).isEqualTo(49);
        ModelLines beside = new ModelLines();
        beside.add(List.of(circle(10, 48), new double[] {0, 0, 0, 4000, 0, 0}), WHERE_IT_IS);
        assertThat(points(beside)).isLessThan(12);
    }

    @Test
    void ofTooManyEdgesTheLongestAreDrawn() {
        List<double[]> edges = new ArrayList<>();
        for (int i = 0; i < 9_000; i++) edges.add(new double[] {i, 0, 0, i + 1, 0, 0});
        edges.add(new double[] {0, 0, 0, 9_000, 0, 0});
        ModelLines lines = new ModelLines();
        lines.add(edges, WHERE_IT_IS);
        assertThat(points(lines)).isLessThanOrEqualTo(4_000);
        assertThat(lines.scene().extents().width()).isCloseTo(9_000 * Math.sqrt(0.5), within(1e-6));
    }
}
