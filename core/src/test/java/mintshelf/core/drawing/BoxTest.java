package mintshelf.core.drawing;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;

/** Boxes, and those of primitives: what a scene's extents, the compare and the cutting stand on. */
class BoxTest {
    private static final Style STYLE = new Style("0", Style.INK, 0.25, List.of());
    private final Random random = new Random(23);

    private Box some() {
        return Box.of(random.doubles(6, -50, 50).toArray());
    }

    @Test
    void theEmptyBoxChangesNothingAndTouchesNothing() {
        for (int i = 0; i < 100; i++) {
            Box box = some();
            assertThat(Box.EMPTY.with(box)).isEqualTo(box);
            assertThat(box.with(Box.EMPTY)).isEqualTo(box);
            assertThat(Box.EMPTY.touches(box)).isFalse();
            assertThat(box.holds(Box.EMPTY)).isTrue();
        }
        assertThat(Box.EMPTY.isEmpty()).isTrue();
        assertThat(Box.of(new double[0]).isEmpty()).isTrue();
    }

    @Test
    void joinedBoxesHoldBothAndNoMore() {
        for (int i = 0; i < 300; i++) {
            Box a = some();
            Box b = some();
            Box both = a.with(b);
            assertThat(both.holds(a) && both.holds(b)).isTrue();
            assertThat(both).isEqualTo(b.with(a));
            assertThat(both.width()).isLessThanOrEqualTo(a.width() + b.width() + Math.abs(a.middleX() - b.middleX()));
            assertThat(a.touches(b)).isEqualTo(b.touches(a));
            if (a.holds(b)) assertThat(a.touches(b)).isTrue();
        }
    }

    @Test
    void boxesThatShareAnEdgeTouch() {
        Box one = new Box(0, 0, 10, 10);
        assertThat(one.touches(new Box(10, 0, 20, 10))).isTrue();
        assertThat(one.touches(new Box(10.001, 0, 20, 10))).isFalse();
        assertThat(one.grown(0.002).touches(new Box(10.001, 0, 20, 10))).isTrue();
    }

    @Test
    void anArcsBoxIsThatOfItsPoints() {
        for (int i = 0; i < 500; i++) {
            Primitive.Arc arc = new Primitive.Arc(
                    STYLE,
                    random.nextDouble() * 20,
                    random.nextDouble() * 20,
                    1 + random.nextDouble() * 30,
                    random.nextDouble() * 360,
                    1 + random.nextDouble() * 359);
            Box looked = Box.EMPTY;
            for (int k = 0; k <= 3_600; k++) looked = looked.with(arc.xAt(k / 3600.0), arc.yAt(k / 3600.0));
            Box box = arc.box();
            assertThat(box.minX()).isCloseTo(looked.minX(), within(0.001));
            assertThat(box.minY()).isCloseTo(looked.minY(), within(0.001));
            assertThat(box.maxX()).isCloseTo(looked.maxX(), within(0.001));
            assertThat(box.maxY()).isCloseTo(looked.maxY(), within(0.001));
        }
    }

    @Test
    void aTextsBoxStandsWhereItIsAnchored() {
        Box left = new Primitive.Text(STYLE, 10, 20, 5, 0, 1, 0, 0, false, "gland").box();
        assertThat(left.minX()).isEqualTo(10);
        assertThat(left.minY()).isEqualTo(20);
        assertThat(left.height()).isEqualTo(5);
        Box right = new Primitive.Text(STYLE, 10, 20, 5, 0, 1, 2, 3, false, "gland").box();
        assertThat(right.maxX()).isEqualTo(10);
        assertThat(right.maxY()).isEqualTo(20);
        Box middle = new Primitive.Text(STYLE, 10, 20, 5, 0, 1, 1, 2, false, "gland").box();
        assertThat(middle.middleX()).isCloseTo(10, within(1e-9));
        assertThat(middle.middleY()).isCloseTo(20, within(1e-9));
        Box upright = new Primitive.Text(STYLE, 10, 20, 5, 90, 1, 0, 0, false, "gland").box();
        assertThat(upright.height()).isCloseTo(left.width(), within(1e-9));
        assertThat(upright.maxX()).isCloseTo(10, within(1e-9));
        Box narrow = new Primitive.Text(STYLE, 10, 20, 5, 0, 0.5, 0, 0, false, "gland").box();
        assertThat(narrow.width()).isCloseTo(left.width() / 2, within(1e-9));
    }

    @Test
    void aFillsBoxHoldsAllItsRings() {
        double[][] rings = {
            random.doubles(10, -9, 9).toArray(), random.doubles(10, 20, 30).toArray()
        };
        Box box = new Primitive.Fill(Source.NONE, STYLE, rings).box();
        for (double[] ring : rings) assertThat(box.holds(Box.of(ring))).isTrue();
    }
}
