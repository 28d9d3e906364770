package mintshelf.core.drawing.dxf;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.Random;
import org.assertj.core.data.Offset;
import org.junit.jupiter.api.Test;

class PlacementTest {
    private static final Offset<Double> NEAR = within(1e-8);
    private final Random random = new Random(13);

    private Placement some() {
        return Placement.move(random.nextDouble() * 100, random.nextDouble() * 100)
                .of(Placement.turn(random.nextDouble() * 360))
                .of(Placement.scale(0.2 + random.nextDouble() * 5, random.nextBoolean() ? 2 : -3));
    }

    @Test
    void oneAfterTheOtherIsTheOneOfTheOther() {
        for (int i = 0; i < 200; i++) {
            Placement a = some();
            Placement b = some();
            double x = random.nextDouble() * 50;
            double y = random.nextDouble() * 50;
            Placement both = a.of(b);
            assertThat(both.x(x, y)).isCloseTo(a.x(b.x(x, y), b.y(x, y)), NEAR);
            assertThat(both.y(x, y)).isCloseTo(a.y(b.x(x, y), b.y(x, y)), NEAR);
        }
    }

    @Test
    void theInverseUndoesIt() {
        for (int i = 0; i < 200; i++) {
            Placement a = some();
            Placement none = a.inverse().of(a);
            assertThat(none.x(7, 9)).isCloseTo(7, NEAR);
            assertThat(none.y(7, 9)).isCloseTo(9, NEAR);
            assertThat(a.isMirrored()).isEqualTo(a.inverse().isMirrored());
        }
    }

    @Test
    void circlesStayCirclesUnderTurnsMovesMirrorsAndEvenScalesOnly() {
        assertThat(Placement.turn(33).of(Placement.scale(3, 3)).keepsCircles()).isTrue();
        assertThat(Placement.turn(33).of(Placement.scale(-3, 3)).keepsCircles()).isTrue();
        assertThat(Placement.scale(3, 2).keepsCircles()).isFalse();
        Placement skewed = Placement.turn(20).of(Placement.scale(1, 2)).of(Placement.turn(-20));
        assertThat(skewed.keepsCircles()).isFalse();
    }

    @Test
    void sizeAngleAndHeightAreThoseOfItsAxes() {
        Placement p = Placement.turn(30).of(Placement.scale(2, 5));
        assertThat(p.size()).isCloseTo(2, NEAR);
        assertThat(p.angle()).isCloseTo(30, NEAR);
        assertThat(p.heightOf()).isCloseTo(5, NEAR);
        assertThat(p.isMirrored()).isFalse();
        assertThat(Placement.scale(1, -1).isMirrored()).isTrue();
    }

    @Test
    void aPlaneSeenFromBehindRunsTheOtherWay() {
        Placement behind = Placement.plane(new double[] {0, 0, -1}, 0);
        assertThat(behind.x(10, 4)).isCloseTo(-10, NEAR);
        assertThat(behind.y(10, 4)).isCloseTo(4, NEAR);
        assertThat(Placement.plane(new double[] {0, 0, 1}, 9).isIdentity()).isTrue();
    }

    @Test
    void aPlaneOnEdgeShowsItsHeightByItsElevation() {
        // Its normal looks along x: its x axis is the world's y, its y axis the world's z, which is not seen.
        Placement edge = Placement.plane(new double[] {1, 0, 0}, 8);
        assertThat(edge.x(3, 5)).isCloseTo(8, NEAR);
        assertThat(edge.y(3, 5)).isCloseTo(3, NEAR);
    }
}
