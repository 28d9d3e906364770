package mintshelf.core.drawing.dxf;

import static mintshelf.core.drawing.Drawn.all;
import static mintshelf.core.drawing.Drawn.entity;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import mintshelf.core.drawing.Drawn;
import mintshelf.core.drawing.Primitive;
import mintshelf.core.drawing.Scene;
import org.junit.jupiter.api.Test;

class HatchPainterTest {
    private static List<Object> ring(double... points) {
        List<Object> tags = new ArrayList<>(List.of(92, 2, 72, 0, 73, 1, 93, points.length / 2));
        for (int i = 0; i < points.length; i += 2) tags.addAll(List.of(10, points[i], 20, points[i + 1]));
        tags.addAll(List.of(97, 0));
        return tags;
    }

    private static double[] square(double x, double y, double size) {
        return new double[] {x, y, x + size, y, x + size, y + size, x, y + size};
    }

    /** @param lines tags of the families, none for a solid area */
    private static String hatch(int style, List<List<Object>> rings, Object... lines) {
        List<Object> tags =
                new ArrayList<>(List.of(8, "0", 2, "PLAIN", 70, lines.length == 0 ? 1 : 0, 91, rings.size()));
        rings.forEach(tags::addAll);
        tags.addAll(List.of(75, style, 76, 1));
        tags.addAll(List.of(lines));
        return entity("HATCH", tags.toArray());
    }

    private static Object[] level(double spacing, double... dashes) {
        List<Object> tags = new ArrayList<>(
                List.of(52, 0, 41, 1, 77, 0, 78, 1, 53, 0, 43, 0, 44, 0, 45, 0, 46, spacing, 79, dashes.length));
        for (double dash : dashes) tags.addAll(List.of(49, dash));
        return tags.toArray();
    }

    private static double length(Scene scene) {
        double sum = 0;
        for (Primitive.Strokes s : all(scene, Primitive.Strokes.class)) {
            double[] e = s.ends();
            for (int i = 0; i + 3 < e.length; i += 4) sum += Math.hypot(e[i + 2] - e[i], e[i + 3] - e[i + 1]);
        }
        return sum;
    }

    @Test
    void aSolidOneIsAnAreaBetweenItsRings() {
        Scene scene = Drawn.scene(hatch(0, List.of(ring(square(0, 0, 40)), ring(square(10, 10, 10)))));
        double[][] rings = all(scene, Primitive.Fill.class).get(0).rings();
        assertThat(Drawn.inside(rings, 5, 5)).isTrue();
        assertThat(Drawn.inside(rings, 15, 15)).isFalse();
    }

    @Test
    void linesAreAsLongAsTheAreaDividedByTheirSpacing() {
        Random random = new Random(17);
        for (int i = 0; i < 40; i++) {
            double size = 20 + random.nextInt(80);
            double spacing = 0.5 + random.nextDouble() * 2;
            double hole = size / 4;
            Scene scene = Drawn.scene(hatch(
                    0, List.of(ring(square(3, 7, size)), ring(square(3 + hole, 7 + hole, hole))), level(spacing)));
            double wanted = (size * size - hole * hole) / spacing;
            assertThat(length(scene)).isCloseTo(wanted, within(2 * size));
        }
    }

    @Test
    void everyStrokeLiesInTheAreaWhateverItsShapeAndDirection() {
        Random random = new Random(18);
        for (int i = 0; i < 40; i++) {
            double[] shape = random.doubles(10, 0, 100).toArray();
            double angle = random.nextInt(180);
            double a = Math.toRadians(angle);
            Scene scene = Drawn.scene(hatch(
                    0,
                    List.of(ring(shape)),
                    52,
                    0,
                    41,
                    1,
                    77,
                    0,
                    78,
                    1,
                    53,
                    angle,
                    43,
                    5,
                    44,
                    5,
                    45,
                    -Math.sin(a) * 3,
                    46,
                    Math.cos(a) * 3,
                    79,
                    0));
            for (Primitive.Strokes s : all(scene, Primitive.Strokes.class)) {
                double[] e = s.ends();
                for (int k = 0; k + 3 < e.length; k += 4) {
                    double dx = e[k + 2] - e[k];
                    double dy = e[k + 3] - e[k + 1];
                    if (Math.hypot(dx, dy) < 0.01) continue;
                    assertThat(Drawn.inside(new double[][] {shape}, e[k] + dx * 0.5, e[k + 1] + dy * 0.5))
                            .isTrue();
                    assertThat(Math.abs(dx * Math.sin(a) - dy * Math.cos(a)))
                            .as("along its family")
                            .isLessThan(1e-6);
                    double across = ((e[k + 1] - 5) * Math.cos(a) - (e[k] - 5) * Math.sin(a)) / 3;
                    assertThat(Math.abs(across - Math.rint(across)))
                            .as("on a line of it")
                            .isLessThan(1e-6);
                }
            }
        }
    }

    @Test
    void islandsInIslandsComeOutByThemselvesUnlessTheStyleAsksOtherwise() {
        List<List<Object>> nested = List.of(ring(square(0, 0, 90)), ring(square(20, 20, 50)), ring(square(35, 35, 20)));
        double all = length(Drawn.scene(hatch(0, nested, level(1))));
        double outerTwo = length(Drawn.scene(hatch(1, nested, level(1))));
        double outer = length(Drawn.scene(hatch(2, nested, level(1))));
        assertThat(all).isCloseTo(8100 - 2500 + 400, within(200.0));
        assertThat(outerTwo).isCloseTo(8100 - 2500, within(200.0));
        assertThat(outer).isCloseTo(8100, within(200.0));
    }

    @Test
    void dashesGoOnFromTheFamilysOriginSoThatNeighboursMeet() {
        Scene left = Drawn.scene(hatch(0, List.of(ring(square(0, 0, 25))), level(5, 6, -2)));
        Scene right = Drawn.scene(hatch(0, List.of(ring(square(25, 0, 25))), level(5, 6, -2)));
        Scene whole = Drawn.scene(hatch(0, List.of(ring(0, 0, 50, 0, 50, 25, 0, 25)), level(5, 6, -2)));
        assertThat(length(left) + length(right)).isCloseTo(length(whole), within(1e-6));
        assertThat(length(whole) / (50 * 5)).isCloseTo(6.0 / 8, within(0.03));
    }

    @Test
    void edgesOfArcsEllipsesAndSplinesBoundAnArea() {
        double half = length(Drawn.scene(hatch(
                0,
                List.of(List.of(
                        92, 1, 93, 2, 72, 2, 10, 0, 20, 0, 40, 20, 50, 0, 51, 180, 73, 1, 72, 1, 10, -20, 20, 0, 11, 20,
                        21, 0, 97, 0)),
                level(0.5))));
        assertThat(half).isCloseTo(Math.PI * 400 / 2 / 0.5, within(60.0));
        double ellipse = length(Drawn.scene(hatch(
                0,
                List.of(List.of(
                        92, 1, 93, 1, 72, 3, 10, 0, 20, 0, 11, 30, 21, 0, 40, 0.5, 50, 0, 51, 360, 73, 1, 97, 0)),
                level(0.5))));
        assertThat(ellipse).isCloseTo(Math.PI * 30 * 15 / 0.5, within(90.0));
    }

    @Test
    void oneThatIsTooDenseIsDrawnAsItsRingAndSaid() {
        Scene scene = Drawn.scene(hatch(0, List.of(ring(square(0, 0, 1000))), level(0.001)));
        assertThat(scene.notDrawn()).containsEntry("HATCH too dense to draw", 1);
        assertThat(all(scene, Primitive.Polyline.class)).hasSize(1);
        assertThat(all(scene, Primitive.Strokes.class)).isEmpty();
    }

    @Test
    void oneWithoutBoundaryOrWithoutLinesIsSaid() {
        assertThat(Drawn.scene(entity("HATCH", 2, "X", 70, 1, 91, 0)).notDrawn())
                .containsEntry("HATCH without a boundary", 1);
        Scene bare = Drawn.scene(hatch(0, List.of(ring(square(0, 0, 9))), 78, 0));
        assertThat(bare.notDrawn()).containsEntry("HATCH without the lines of its pattern", 1);
        assertThat(all(bare, Primitive.Polyline.class)).hasSize(1);
    }
}
