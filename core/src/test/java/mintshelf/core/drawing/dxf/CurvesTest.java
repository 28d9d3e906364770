package mintshelf.core.drawing.dxf;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.Random;
import org.junit.jupiter.api.Test;

/** The law of the class: no chord is farther from its curve than the tolerance. */
class CurvesTest {
    private final Random random = new Random(11);

    private static double toSegment(double x, double y, double ax, double ay, double bx, double by) {
        double dx = bx - ax;
        double dy = by - ay;
        double t = Math.max(0, Math.min(1, ((x - ax) * dx + (y - ay) * dy) / Math.max(dx * dx + dy * dy, 1e-30)));
        return Math.hypot(x - ax - t * dx, y - ay - t * dy);
    }

    private static double toLine(double x, double y, double[] points) {
        double best = Double.MAX_VALUE;
        for (int i = 0; i + 3 < points.length; i += 2) {
            best = Math.min(best, toSegment(x, y, points[i], points[i + 1], points[i + 2], points[i + 3]));
        }
        return best;
    }

    @Test
    void noChordOfAnArcIsFartherFromItThanTheTolerance() {
        for (int i = 0; i < 400; i++) {
            double r = Math.pow(10, random.nextDouble() * 5 - 1);
            double tolerance = r * Math.pow(10, -1 - random.nextDouble() * 3);
            double from = random.nextDouble() * 720 - 360;
            double sweep = random.nextDouble() * 360;
            double[] p = Curves.ellipse(3, -4, r, 0, 0, r, from, sweep, tolerance);
            for (int k = 0; k + 3 < p.length; k += 2) {
                double mx = (p[k] + p[k + 2]) / 2 - 3;
                double my = (p[k + 1] + p[k + 3]) / 2 + 4;
                assertThat(r - Math.hypot(mx, my)).isLessThanOrEqualTo(tolerance * 1.0001);
            }
            assertThat(p[0]).isCloseTo(3 + r * Math.cos(Math.toRadians(from)), within(r * 1e-9));
            assertThat(p[p.length - 1]).isCloseTo(-4 + r * Math.sin(Math.toRadians(from + sweep)), within(r * 1e-9));
        }
    }

    @Test
    void noChordOfAnEllipseIsFartherFromItThanTheTolerance() {
        for (int i = 0; i < 100; i++) {
            double a = 1 + random.nextDouble() * 100;
            double b = a * (0.05 + random.nextDouble() * 0.95);
            double turn = random.nextDouble() * Math.PI;
            double tolerance = a / 300;
            double[] p = Curves.ellipse(
                    0,
                    0,
                    a * Math.cos(turn),
                    a * Math.sin(turn),
                    -b * Math.sin(turn),
                    b * Math.cos(turn),
                    0,
                    360,
                    tolerance);
            for (int k = 0; k < 720; k++) {
                double u = a * Math.cos(Math.toRadians(k / 2.0));
                double v = b * Math.sin(Math.toRadians(k / 2.0));
                double x = u * Math.cos(turn) - v * Math.sin(turn);
                double y = u * Math.sin(turn) + v * Math.cos(turn);
                assertThat(toLine(x, y, p)).isLessThanOrEqualTo(tolerance * 1.0001);
            }
        }
    }

    @Test
    void aLargeArcIsCutFinerAndNeverBeyondItsBounds() {
        assertThat(Curves.chords(1000, 360, 0.01)).isGreaterThan(Curves.chords(10, 360, 0.01));
        assertThat(Curves.chords(1e12, 360, 1e-9)).isEqualTo(3600);
        assertThat(Curves.chords(1, 0.001, 0.5)).isEqualTo(2);
        assertThat(Curves.chords(1, 360, 99)).as("30° at the most").isGreaterThanOrEqualTo(12);
        assertThat(Curves.chords(1, 360, 0)).isGreaterThanOrEqualTo(12);
    }

    @Test
    void aBulgeIsTheTangentOfAQuarterOfItsAngleAndItsArcEndsWhereItShould() {
        for (int i = 0; i < 300; i++) {
            double x1 = random.nextDouble() * 100;
            double y1 = random.nextDouble() * 100;
            double x2 = random.nextDouble() * 100;
            double y2 = random.nextDouble() * 100;
            double bulge = (random.nextDouble() - 0.5) * 6;
            if (Math.abs(bulge) < 0.01) continue;
            double[] a = Curves.bulge(x1, y1, x2, y2, bulge);
            assertThat(Math.tan(Math.toRadians(a[4]) / 4)).isCloseTo(bulge, within(1e-9));
            double from = Math.toRadians(a[3]);
            double to = Math.toRadians(a[3] + a[4]);
            assertThat(a[0] + a[2] * Math.cos(from)).isCloseTo(x1, within(1e-6));
            assertThat(a[1] + a[2] * Math.sin(from)).isCloseTo(y1, within(1e-6));
            assertThat(a[0] + a[2] * Math.cos(to)).isCloseTo(x2, within(1e-6));
            assertThat(a[1] + a[2] * Math.sin(to)).isCloseTo(y2, within(1e-6));
        }
    }

    @Test
    void aSplineOfOneSpanIsItsBezierCurve() {
        double[] knots = {0, 0, 0, 0, 1, 1, 1, 1};
        for (int i = 0; i < 60; i++) {
            double[] xs = random.doubles(4, 0, 100).toArray();
            double[] ys = random.doubles(4, 0, 100).toArray();
            double[] p = Curves.spline(3, knots, xs, ys, new double[0], 0.02);
            assertThat(p[0]).isCloseTo(xs[0], within(1e-9));
            assertThat(p[p.length - 1]).isCloseTo(ys[3], within(1e-9));
            for (int k = 0; k <= 200; k++) {
                double t = k / 200.0;
                double s = 1 - t;
                double x = s * s * s * xs[0] + 3 * s * s * t * xs[1] + 3 * s * t * t * xs[2] + t * t * t * xs[3];
                double y = s * s * s * ys[0] + 3 * s * s * t * ys[1] + 3 * s * t * t * ys[2] + t * t * t * ys[3];
                assertThat(toLine(x, y, p)).isLessThanOrEqualTo(0.02 * 1.05);
            }
        }
    }

    @Test
    void aRationalSplineIsAnExactQuarterOfACircle() {
        double half = Math.sqrt(0.5);
        double[] p = Curves.spline(
                2,
                new double[] {0, 0, 0, 1, 1, 1},
                new double[] {10, 10, 0},
                new double[] {0, 10, 10},
                new double[] {1, half, 1},
                0.001);
        for (int i = 0; i + 1 < p.length; i += 2)
            assertThat(Math.hypot(p[i], p[i + 1])).isCloseTo(10, within(1e-9));
        for (int k = 0; k <= 90; k++) {
            assertThat(toLine(10 * Math.cos(Math.toRadians(k)), 10 * Math.sin(Math.toRadians(k)), p))
                    .isLessThanOrEqualTo(0.0011);
        }
    }

    @Test
    void knotsThatDoNotFitAreMadeUpAndTheCurveStillBeginsAndEndsAtItsPoints() {
        double[] xs = {0, 10, 20, 30, 40};
        double[] ys = {0, 10, 0, 10, 0};
        for (double[] knots : new double[][] {{}, {1, 2}, {9, 8, 7, 6, 5, 4, 3, 2, 1}, {0, 0, 0, 0, 0, 0, 0, 0, 0}}) {
            double[] p = Curves.spline(3, knots, xs, ys, new double[0], 0.01);
            assertThat(p[0]).isCloseTo(0, within(1e-9));
            assertThat(p[p.length - 2]).isCloseTo(40, within(1e-9));
            assertThat(p.length).isGreaterThan(10);
        }
        assertThat(Curves.spline(3, new double[0], new double[] {1}, new double[] {1}, new double[0], 1))
                .isEmpty();
    }

    @Test
    void aSplineStaysInsideTheBoxOfItsControlPoints() {
        for (int i = 0; i < 50; i++) {
            int n = 4 + random.nextInt(20);
            double[] xs = random.doubles(n, -50, 50).toArray();
            double[] ys = random.doubles(n, -50, 50).toArray();
            for (double at : Curves.spline(1 + random.nextInt(5), new double[0], xs, ys, new double[0], 0.5)) {
                assertThat(at).isBetween(-50.0001, 50.0001);
            }
        }
    }

    @Test
    void aCurveThroughPointsPassesThroughEachOfThem() {
        double[] xs = {0, 10, 25, 30};
        double[] ys = {0, 5, -5, 0};
        for (boolean closed : new boolean[] {false, true}) {
            double[] p = Curves.through(xs, ys, closed);
            for (int i = 0; i < xs.length; i++)
                assertThat(toLine(xs[i], ys[i], p)).isLessThan(1e-9);
            boolean back = p[p.length - 2] == xs[0] && p[p.length - 1] == ys[0];
            assertThat(back).isEqualTo(closed);
        }
        assertThat(Curves.through(new double[] {1}, new double[] {1}, false)).isEmpty();
    }
}
