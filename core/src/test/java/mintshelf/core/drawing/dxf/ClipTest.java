package mintshelf.core.drawing.dxf;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import java.util.Random;
import mintshelf.core.drawing.Box;
import mintshelf.core.drawing.Drawn;
import mintshelf.core.drawing.Primitive;
import mintshelf.core.drawing.Source;
import mintshelf.core.drawing.Style;
import org.junit.jupiter.api.Test;

class ClipTest {
    private static final Box BOX = new Box(0, 0, 100, 60);
    private static final Style STYLE = new Style("0", Style.INK, 0.25, List.of());
    private final Random random = new Random(12);

    private double some() {
        return random.nextDouble() * 300 - 100;
    }

    private static double length(List<Primitive> parts) {
        double sum = 0;
        for (Primitive part : parts) {
            double[] p = part instanceof Primitive.Strokes s ? s.ends() : ((Primitive.Polyline) part).points();
            int step = part instanceof Primitive.Strokes ? 4 : 2;
            for (int i = 0; i + 3 < p.length; i += step) sum += Math.hypot(p[i + 2] - p[i], p[i + 3] - p[i + 1]);
        }
        return sum;
    }

    /** How long a segment is within the box, by looking at ten thousand places of it. */
    private static double looked(double x1, double y1, double x2, double y2) {
        int in = 0;
        for (int i = 0; i < 10_000; i++) {
            double t = (i + 0.5) / 10_000;
            double x = x1 + t * (x2 - x1);
            double y = y1 + t * (y2 - y1);
            if (x >= 0 && x <= 100 && y >= 0 && y <= 60) in++;
        }
        return Math.hypot(x2 - x1, y2 - y1) * in / 10_000;
    }

    @Test
    void whatIsLeftOfASegmentIsWhatLiesInTheBox() {
        for (int i = 0; i < 400; i++) {
            double[] s = {some(), some(), some(), some()};
            double[] cut = Clip.segment(s, BOX);
            double left = cut.length == 0 ? 0 : Math.hypot(cut[2] - cut[0], cut[3] - cut[1]);
            assertThat(left).isCloseTo(looked(s[0], s[1], s[2], s[3]), within(0.2));
            if (cut.length == 0) continue;
            assertThat(BOX.grown(1e-9).holds(Box.of(cut))).isTrue();
        }
    }

    @Test
    void aSegmentThatBeginsInsideKeepsItsBeginningToTheLastBit() {
        double[] cut = Clip.segment(new double[] {10.1, 20.2, 300.3, 20.2}, BOX);
        assertThat(cut).startsWith(10.1, 20.2);
        assertThat(cut[2]).isCloseTo(100, within(1e-9));
        assertThat(Clip.segment(new double[] {-5, 70, 200, 70}, BOX)).isEmpty();
        assertThat(Clip.segment(new double[] {50, 30, 50, 30}, BOX)).containsExactly(50, 30, 50, 30);
    }

    @Test
    void whatLiesInsideIsTheSameThingAndWhatLiesOutsideIsNothing() {
        Primitive inside = new Primitive.Polyline(STYLE, new double[] {1, 1, 9, 9, 5, 2}, true);
        assertThat(Clip.within(inside, BOX)).containsExactly(inside);
        assertThat(Clip.within(new Primitive.Polyline(STYLE, new double[] {200, 200, 300, 300}, false), BOX))
                .isEmpty();
    }

    @Test
    void aLineThatLeavesAndComesBackIsTwoLines() {
        Primitive line = new Primitive.Polyline(STYLE, new double[] {10, 10, 50, 90, 90, 10}, false);
        List<Primitive> parts = Clip.within(line, BOX);
        assertThat(parts).hasSize(2);
        Primitive closed = new Primitive.Polyline(STYLE, new double[] {10, 10, 50, 90, 90, 10}, true);
        assertThat(length(Clip.within(closed, BOX))).isCloseTo(length(parts) + 80, within(1e-9));
    }

    @Test
    void polylinesAndStrokesAreAsLongAsTheirSegmentsInTheBox() {
        for (int i = 0; i < 100; i++) {
            double[] p = random.doubles(12, -60, 160).toArray();
            double all = 0;
            for (int k = 0; k + 3 < p.length; k += 2) all += looked(p[k], p[k + 1], p[k + 2], p[k + 3]);
            assertThat(length(Clip.within(new Primitive.Polyline(STYLE, p, false), BOX)))
                    .isCloseTo(all, within(1.0));
            double strokes = 0;
            for (int k = 0; k + 3 < p.length; k += 4) strokes += looked(p[k], p[k + 1], p[k + 2], p[k + 3]);
            assertThat(length(Clip.within(new Primitive.Strokes(Source.NONE, STYLE, p), BOX)))
                    .isCloseTo(strokes, within(1.0));
        }
    }

    @Test
    void aFillIsFilledWhereItWasAndTheBoxIs() {
        for (int i = 0; i < 60; i++) {
            double[] outer = random.doubles(12, -60, 160).toArray();
            double[] hole = random.doubles(8, 10, 60).toArray();
            double[][] rings = {outer, hole};
            List<Primitive> cut = Clip.within(new Primitive.Fill(Source.NONE, STYLE, rings), BOX);
            double[][] now = cut.isEmpty() ? new double[0][] : ((Primitive.Fill) cut.get(0)).rings();
            for (int k = 0; k < 300; k++) {
                double x = random.nextDouble() * 98 + 1;
                double y = random.nextDouble() * 58 + 1;
                assertThat(Drawn.inside(now, x, y)).isEqualTo(Drawn.inside(rings, x, y));
            }
            for (double[] ring : now)
                assertThat(BOX.grown(1e-9).holds(Box.of(ring))).isTrue();
        }
    }

    @Test
    void anArcIsCutAndATextStandsWholeOrNotAtAll() {
        List<Primitive> half = Clip.within(new Primitive.Arc(STYLE, 50, 60, 20, 0, 360), BOX);
        assertThat(length(half)).isCloseTo(Math.PI * 20, within(0.1));
        Primitive in = new Primitive.Text(STYLE, 99, 30, 5, 0, 1, 0, 0, false, "it goes far beyond");
        Primitive out = new Primitive.Text(STYLE, 101, 30, 5, 0, 1, 2, 0, false, "it reaches far in");
        assertThat(Clip.within(in, BOX)).containsExactly(in);
        assertThat(Clip.within(out, BOX)).isEmpty();
    }
}
