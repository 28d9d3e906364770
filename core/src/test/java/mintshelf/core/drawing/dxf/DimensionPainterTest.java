package mintshelf.core.drawing.dxf;

import static mintshelf.core.drawing.Drawn.all;
import static mintshelf.core.drawing.Drawn.entity;
import static mintshelf.core.drawing.Drawn.texts;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import java.util.Random;
import mintshelf.core.drawing.Drawn;
import mintshelf.core.drawing.Primitive;
import mintshelf.core.drawing.Scene;
import org.assertj.core.data.Offset;
import org.junit.jupiter.api.Test;

/** Dimensions whose block is missing are built from their points. */
class DimensionPainterTest {
    private static final Offset<Double> NEAR = within(1e-6);

    /** The tips of the arrows. */
    private static List<double[]> tips(Scene scene) {
        return all(scene, Primitive.Fill.class).stream()
                .map(f -> new double[] {f.rings()[0][0], f.rings()[0][1]})
                .toList();
    }

    @Test
    void aStraightOneMeasuresAlongItsDirectionAndItsArrowsTouchTheExtensionLines() {
        Scene scene =
                Drawn.scene(entity("DIMENSION", 8, "0", 70, 0, 13, 10, 23, 5, 14, 60, 24, 15, 10, 60, 20, 40, 50, 0));
        assertThat(texts(scene)).containsExactly("50");
        assertThat(tips(scene)).hasSize(2);
        assertThat(tips(scene).get(0)).containsExactly(new double[] {10, 40}, NEAR);
        assertThat(tips(scene).get(1)).containsExactly(new double[] {60, 40}, NEAR);
        List<Primitive.Polyline> lines = all(scene, Primitive.Polyline.class);
        assertThat(lines).hasSize(3);
        // Extension lines begin off the thing and go a little beyond the dimension line.
        assertThat(lines.get(0).points()[1]).isCloseTo(5.625, NEAR);
        assertThat(lines.get(0).points()[3]).isCloseTo(41.25, NEAR);
    }

    @Test
    void anAlignedOneIsTheDistanceOfItsPointsHoweverItLies() {
        Random random = new Random(16);
        for (int i = 0; i < 100; i++) {
            double x1 = random.nextInt(100);
            double y1 = random.nextInt(100);
            double x2 = random.nextInt(100) + 101;
            double y2 = random.nextInt(100);
            double away = 5 + random.nextInt(30);
            double length = Math.hypot(x2 - x1, y2 - y1);
            double px = x2 - (y2 - y1) / length * away;
            double py = y2 + (x2 - x1) / length * away;
            Scene scene = Drawn.scene(entity("DIMENSION", 70, 1, 13, x1, 23, y1, 14, x2, 24, y2, 10, px, 20, py));
            assertThat(Double.parseDouble(texts(scene).get(0))).isCloseTo(length, within(0.0051));
            for (double[] tip : tips(scene)) {
                double off = Math.min(
                        Math.abs(Math.hypot(tip[0] - x1, tip[1] - y1) - away),
                        Math.abs(Math.hypot(tip[0] - x2, tip[1] - y2) - away));
                assertThat(off).isLessThan(1e-6);
            }
            double angle = all(scene, Primitive.Text.class).get(0).angle();
            assertThat(angle).as("read from below or from the right").isBetween(-90.0, 90.01);
        }
    }

    @Test
    void theArrowsLookOutwardsWhicheverPointComesFirst() {
        for (int[] points : new int[][] {{0, 80}, {80, 0}}) {
            Scene scene = Drawn.scene(entity(
                    "DIMENSION", 70, 0, 13, points[0], 23, 0, 14, points[1], 24, 0, 10, points[1], 20, 20, 50, 0));
            for (Primitive.Fill arrow : all(scene, Primitive.Fill.class)) {
                double[] ring = arrow.rings()[0];
                double back = (ring[2] + ring[4]) / 2;
                assertThat(back).as("its back lies between the two").isBetween(0.1, 79.9);
            }
        }
    }

    @Test
    void diametersAndRadiiCarryTheirSigns() {
        Scene across = Drawn.scene(entity("DIMENSION", 70, 3, 10, 10, 20, 50, 15, 20, 25, 50));
        assertThat(texts(across)).containsExactly("⌀10");
        assertThat(tips(across)).hasSize(2);
        Scene radius = Drawn.scene(entity("DIMENSION", 70, 4, 10, 10, 20, 50, 15, 13, 25, 54));
        assertThat(texts(radius)).containsExactly("R5");
        assertThat(tips(radius)).hasSize(1);
        assertThat(tips(radius).get(0)).containsExactly(new double[] {13, 54}, NEAR);
    }

    @Test
    void anAngleIsMeasuredOnTheSideOfItsArc() {
        // Two lines from the origin, along x and along y.
        Scene inner = Drawn.scene(
                entity("DIMENSION", 70, 2, 13, 0, 23, 0, 14, 50, 24, 0, 10, 0, 20, 50, 15, 0, 25, 0, 16, 20, 26, 20));
        assertThat(texts(inner)).containsExactly("90°");
        Primitive.Arc arc = all(inner, Primitive.Arc.class).get(0);
        assertThat(arc.radius()).isCloseTo(Math.hypot(20, 20), NEAR);
        assertThat(arc.from()).isCloseTo(0, NEAR);
        assertThat(arc.sweep()).isCloseTo(90, NEAR);
        Scene outer =
                Drawn.scene(entity("DIMENSION", 70, 5, 15, 0, 25, 0, 13, 50, 23, 0, 14, 0, 24, 50, 10, -20, 20, -20));
        assertThat(texts(outer)).containsExactly("270°");
        for (double[] tip : tips(outer)) assertThat(Math.hypot(tip[0], tip[1])).isCloseTo(Math.hypot(20, 20), NEAR);
    }

    @Test
    void anArcsLengthIsTheLengthOfItsArc() {
        Scene scene = Drawn.scene(entity(
                "ARC_DIMENSION",
                70,
                5,
                15,
                0,
                25,
                0,
                13,
                40,
                23,
                0,
                14,
                0,
                24,
                40,
                10,
                28.284271247,
                20,
                28.284271247));
        assertThat(texts(scene)).containsExactly("⌒62.83");
    }

    @Test
    void anOrdinateSaysOneCoordinateFromItsOrigin() {
        Scene ofX = Drawn.scene(entity("DIMENSION", 70, 64 + 6, 10, 5, 20, 5, 13, 47.5, 23, 20, 14, 47.5, 24, 60));
        assertThat(texts(ofX)).containsExactly("42.5");
        Scene ofY = Drawn.scene(entity("DIMENSION", 70, 6, 10, 5, 20, 5, 13, 47.5, 23, 20, 14, 80, 24, 20));
        assertThat(texts(ofY)).containsExactly("15");
        assertThat(all(ofX, Primitive.Text.class).get(0).angle()).isEqualTo(90);
    }

    @Test
    void itsOwnWordsStandAsTheyAreAndABlankMeansNone() {
        String[] at = {"13", "0", "23", "0", "14", "30", "24", "0", "10", "30", "20", "9"};
        assertThat(texts(Drawn.scene(entity("DIMENSION", with(at, "70", "0", "1", "4x <> H7")))))
                .containsExactly("4x 30 H7");
        assertThat(texts(Drawn.scene(entity("DIMENSION", with(at, "70", "0", "1", "see note")))))
                .containsExactly("see note");
        assertThat(texts(Drawn.scene(entity("DIMENSION", with(at, "70", "0", "1", " ")))))
                .isEmpty();
        assertThat(texts(Drawn.scene(entity("DIMENSION", with(at, "70", "0", "42", "29.5")))))
                .as("what its program measured")
                .containsExactly("29.5");
    }

    private static Object[] with(String[] one, String... other) {
        Object[] all = new Object[one.length + other.length];
        System.arraycopy(one, 0, all, 0, one.length);
        System.arraycopy(other, 0, all, one.length, other.length);
        return all;
    }

    @Test
    void aStyleScalesMultipliesAndRounds() {
        String style = "0\nTABLE\n2\nDIMSTYLE\n"
                + entity(
                        "DIMSTYLE",
                        2,
                        "HALF",
                        40,
                        2.0,
                        41,
                        3.0,
                        42,
                        1.0,
                        44,
                        2.0,
                        140,
                        3.5,
                        144,
                        0.5,
                        271,
                        1,
                        3,
                        "<> mm")
                + "0\nENDTAB\n";
        Scene scene = Drawn.sceneOf(
                style,
                "",
                entity("DIMENSION", 3, "half", 70, 0, 13, 0, 23, 0, 14, 33.3, 24, 0, 10, 33.3, 20, 20, 50, 0));
        assertThat(texts(scene)).containsExactly("16.7 mm");
        assertThat(all(scene, Primitive.Text.class).get(0).height()).isCloseTo(7, NEAR);
        double[] arrow = all(scene, Primitive.Fill.class).get(0).rings()[0];
        assertThat(Math.hypot((arrow[2] + arrow[4]) / 2 - arrow[0], (arrow[3] + arrow[5]) / 2 - arrow[1]))
                .isCloseTo(6, NEAR);
    }

    @Test
    void oneWithoutPointsIsSaidToBeMissing() {
        assertThat(Drawn.scene(entity("DIMENSION", 70, 0, 10, 5, 20, 5)).notDrawn())
                .containsEntry("DIMENSION without its block", 1);
        assertThat(Drawn.scene(entity("DIMENSION", 70, 9, 13, 0, 23, 0)).notDrawn())
                .containsEntry("DIMENSION without its block", 1);
    }
}
