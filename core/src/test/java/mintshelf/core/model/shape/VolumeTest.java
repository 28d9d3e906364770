package mintshelf.core.model.shape;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.List;
import mintshelf.core.model.shape.Face.Bound;
import mintshelf.core.model.shape.Face.Use;
import mintshelf.core.model.shape.Surface.Kind;
import org.junit.jupiter.api.Test;

/** Volumes of round solids, from their outlines alone. */
class VolumeTest {
    private static final Vec Z = new Vec(0, 0, 1);
    private static final Vec X = new Vec(1, 0, 0);
    private static final Vec AWAY = new Vec(70, -30, 15);
    private static long ids;

    private static Edge circle(double radius, double z) {
        List<Vec> points = new ArrayList<>();
        for (int i = 0; i <= 48; i++) {
            double a = 2 * Math.PI * i / 48;
            points.add(AWAY.plus(new Vec(radius * Math.cos(a), radius * Math.sin(a), z)));
        }
        return new Edge(++ids, radius, AWAY.plus(Z.times(z)), Z, points);
    }

    private static Bound loop(Edge edge, boolean forward) {
        return new Bound(List.of(new Use(edge, forward)));
    }

    private static Surface on(Kind kind, double z, double radius, double other) {
        return new Surface(kind, AWAY.plus(Z.times(z)), Z, X, radius, other, Extent.NONE);
    }

    private static Face cap(Edge edge, double z, boolean up) {
        return new Face(on(Kind.PLANE, z, 0, 0), up, List.of(loop(edge, up)));
    }

    private static double volume(Face... faces) {
        return Volume.of(new Body("", 1, List.of(faces))).orElseThrow();
    }

    @Test
    void aFrustumAndAConeToItsTip() {
        Edge low = circle(10, 0);
        Edge high = circle(6, 8);
        double slope = Math.atan2(-4, 8);
        // The cone opens downwards: its half angle is counted from its axis, which looks down.
        Surface cone = new Surface(Kind.CONE, AWAY, Z.times(-1), X, 10, -slope, Extent.NONE);
        assertThat(volume(
                        new Face(cone, true, List.of(loop(low, true), loop(high, false))),
                        cap(low, 0, false),
                        cap(high, 8, true)))
                .isCloseTo(Math.PI * 8 / 3 * (100 + 60 + 36), within(1e-3));
        assertThat(volume(new Face(cone, true, List.of(loop(low, true))), cap(low, 0, false)))
                .isCloseTo(Math.PI * 100 * 20 / 3, within(1e-3));
    }

    @Test
    void aBallAHalfOneAndAHollowOne() {
        double ball = 4.0 / 3 * Math.PI * 27;
        Surface sphere = on(Kind.SPHERE, 0, 3, 0);
        assertThat(volume(new Face(sphere, true, List.of()))).isCloseTo(ball, within(1e-6));
        Edge round = circle(3, 0);
        assertThat(volume(new Face(sphere, true, List.of(loop(round, true))), cap(round, 0, false)))
                .isCloseTo(ball / 2, within(1e-4));
        assertThat(volume(new Face(sphere, true, List.of(loop(round, false))), cap(round, 0, true)))
                .isCloseTo(ball / 2, within(1e-4));
        // A dent in a cylinder.
        Edge foot = circle(3, -9);
        double dented = volume(
                new Face(sphere, false, List.of(loop(round, true))),
                new Face(on(Kind.CYLINDER, -9, 3, 0), true, List.of(loop(foot, true), loop(round, false))),
                cap(foot, -9, false));
        assertThat(dented).isCloseTo(Math.PI * 9 * 9 - ball / 2, within(1e-4));
    }

    @Test
    void aRingWithAndWithoutItsSeamsAndARoundedEdge() {
        double ring = 2 * Math.PI * Math.PI * 20 * 4;
        Surface torus = on(Kind.TORUS, 0, 20, 2);
        assertThat(volume(new Face(torus, true, List.of()))).isCloseTo(ring, within(1e-6));
        Edge around = circle(22, 0);
        List<Vec> across = new ArrayList<>();
        for (int i = 0; i <= 48; i++) {
            double a = 2 * Math.PI * i / 48;
            across.add(AWAY.plus(new Vec(20 + 2 * Math.cos(a), 0, 2 * Math.sin(a))));
        }
        Edge seam = new Edge(++ids, 2, AWAY.plus(X.times(20)), new Vec(0, -1, 0), across);
        Bound both = new Bound(
                List.of(new Use(around, true), new Use(seam, true), new Use(around, false), new Use(seam, false)));
        assertThat(volume(new Face(torus, true, List.of(both)))).isCloseTo(ring, within(1e-3));
        // A cylinder of radius 10 and height 8 whose upper edge is rounded by 2.
        Edge foot = circle(10, 0);
        Edge wall = circle(10, 6);
        Edge top = circle(8, 8);
        double rounded = volume(
                new Face(on(Kind.CYLINDER, 0, 10, 0), true, List.of(loop(foot, true), loop(wall, false))),
                new Face(on(Kind.TORUS, 6, 8, 2), true, List.of(loop(wall, true), loop(top, false))),
                cap(foot, 0, false),
                cap(top, 8, true));
        double quarter = Math.PI * 4 / 4;
        double square = Math.PI * (100 - 64) * 2;
        double kept = 2 * Math.PI * quarter * (8 + 4 * 2 / (3 * Math.PI));
        assertThat(rounded).isCloseTo(Math.PI * 100 * 8 - (square - kept), within(1e-2));
    }

    @Test
    void ofFreeFormsAndOpenShellsNothingIsSaid() {
        assertThat(Volume.of(new Body("", 0, List.of(new Face(on(Kind.SPHERE, 0, 3, 0), true, List.of())))))
                .isEmpty();
        Face free = new Face(Surface.free(Extent.NONE), true, List.of(loop(circle(3, 0), true)));
        assertThat(Volume.of(new Body("", 1, List.of(free)))).isEmpty();
    }
}
