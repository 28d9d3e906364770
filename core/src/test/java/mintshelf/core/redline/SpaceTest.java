package mintshelf.core.redline;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Random;
import java.util.stream.Stream;
import mintshelf.core.base.Outcome;
import mintshelf.core.base.Refusal;
import mintshelf.core.redline.Picked.Of;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.Arguments;
import org.junit.jupiter.params.provider.MethodSource;

/** Marks on models: what lies between two things that were picked. */
class SpaceTest {
    private static final Vector NONE = new Vector(0, 0, 0);
    private static final Vector X = new Vector(1, 0, 0);
    private static final Vector Y = new Vector(0, 1, 0);
    private static final Vector Z = new Vector(0, 0, 1);
    private static final Space.Eye EYE = new Space.Eye(new Vector(0, -100, 0), NONE, Z, 80);

    private static Picked picked(Of of, double x, double y, double z, Vector along) {
        return new Picked(of, new Vector(x, y, z), along, of == Of.AXIS ? 4.5 : 0);
    }

    static Stream<Arguments> pairs() {
        return Stream.of(
                Arguments.of("5", picked(Of.POINT, 0, 0, 0, NONE), picked(Of.POINT, 3, 4, 0, NONE)),
                Arguments.of("4", picked(Of.POINT, 0, 4, 7, NONE), picked(Of.EDGE, 0, 0, 0, Z)),
                Arguments.of("7", picked(Of.POINT, 3, 4, 7, NONE), picked(Of.FACE, 0, 0, 0, Z)),
                Arguments.of("60", picked(Of.AXIS, 0, 0, 12, Z), picked(Of.AXIS, 60, 0, -3, Z)),
                Arguments.of("60", picked(Of.AXIS, 0, 0, 12, Z), picked(Of.AXIS, 60, 0, -3, new Vector(0, 0, -1))),
                Arguments.of("8", picked(Of.AXIS, 0, 0, 0, X), picked(Of.EDGE, 5, 5, 8, Y)),
                Arguments.of("90°", picked(Of.EDGE, 0, 0, 0, X), picked(Of.EDGE, 5, 5, 0, Y)),
                Arguments.of("12", picked(Of.FACE, 0, 0, 0, Z), picked(Of.FACE, 9, 9, 12, new Vector(0, 0, -1))),
                Arguments.of("45°", picked(Of.FACE, 0, 0, 0, Z), picked(Of.FACE, 0, 0, 0, new Vector(0, 1, 1))),
                Arguments.of("15", picked(Of.AXIS, 15, 0, 0, Z), picked(Of.FACE, 0, 0, 0, X)),
                Arguments.of("90°", picked(Of.AXIS, 15, 0, 0, X), picked(Of.FACE, 0, 0, 0, X)),
                Arguments.of(
                        "30°", picked(Of.EDGE, 0, 0, 0, new Vector(Math.sqrt(3), 0, 1)), picked(Of.FACE, 0, 0, 0, Z)));
    }

    @ParameterizedTest
    @MethodSource("pairs")
    void itIsADistanceOrAnAngleWhicheverComesFirst(String says, Picked a, Picked b) {
        assertThat(Picked.between(a, b)).hasToString(says);
        assertThat(Picked.between(b, a)).hasToString(says);
    }

    @Test
    void itIsTheSameWhereverTheModelLies() {
        Random random = new Random(5);
        for (int i = 0; i < 500; i++) {
            Of[] all = Of.values();
            Picked a = picked(all[random.nextInt(4)], some(random), some(random), some(random), way(random));
            Picked b = picked(all[random.nextInt(4)], some(random), some(random), some(random), way(random));
            double turn = random.nextDouble() * 6;
            Vector by = new Vector(some(random), some(random), some(random));
            Picked.Measured here = Picked.between(a, b);
            Picked.Measured there = Picked.between(moved(a, turn, by), moved(b, turn, by));
            assertThat(there.isAngle()).isEqualTo(here.isAngle());
            assertThat(there.value()).isCloseTo(here.value(), org.assertj.core.api.Assertions.within(1e-6));
        }
    }

    private static double some(Random random) {
        return random.nextInt(200) - 100;
    }

    private static Vector way(Random random) {
        Vector way = new Vector(random.nextInt(3) - 1, random.nextInt(3) - 1, random.nextInt(3) - 1);
        return way.length() == 0 ? X : way;
    }

    private static Picked moved(Picked p, double turn, Vector by) {
        Vector at = turned(p.at(), turn);
        return new Picked(
                p.of(),
                new Vector(at.x() + by.x(), at.y() + by.y(), at.z() + by.z()),
                turned(p.along(), turn),
                p.radius());
    }

    private static Vector turned(Vector v, double turn) {
        return new Vector(
                v.x() * Math.cos(turn) - v.y() * Math.sin(turn),
                v.x() * Math.sin(turn) + v.y() * Math.cos(turn),
                v.z());
    }

    private static Outcome<Mark> read(Tool tool, String text, Picked... picks) {
        return Mark.read(tool, new Space(List.of(picks), NONE, EYE), text, Sheets.LOOK);
    }

    private static String code(Outcome<Mark> outcome) {
        return outcome.refusal().map(Refusal::code).orElse("");
    }

    @Test
    void aSizeSaysWhatIsWantedAndWhatItsThingsAreApart() {
        Mark size = read(Tool.SIZE, "62", picked(Of.AXIS, 0, 0, 0, Z), picked(Of.AXIS, 60, 0, 9, Z))
                .orElseThrow(r -> new IllegalStateException(r.says()));
        assertThat(size.says()).isEqualTo("62 wanted, 60 measured");
        assertThat(size.space().orElseThrow().said()).isEqualTo("axis of Ø 9 to axis of Ø 9");
        assertThat(size.with(new Look(Colour.TEAL, 7)).says()).isEqualTo(size.says());
        assertThat(size.with(List.of()).space()).isEqualTo(size.space());
    }

    @Test
    void whatIsNoMarkOnAModelIsRefused() {
        Picked hole = picked(Of.AXIS, 0, 0, 0, Z);
        assertThat(code(read(Tool.NOTE, "", hole))).isEmpty();
        assertThat(code(read(Tool.CLOUD, "", hole))).isEqualTo("mark.form");
        assertThat(code(read(Tool.NOTE, "", hole, hole))).isEqualTo("mark.form");
        assertThat(code(read(Tool.SIZE, "", hole))).isEqualTo("mark.form");
        assertThat(code(read(Tool.SIZE, "x".repeat(25), hole, hole))).isEqualTo("text.long");
        assertThat(code(read(Tool.NOTE, "", picked(Of.EDGE, 0, 0, 0, NONE)))).isEqualTo("mark.form");
        assertThat(code(read(Tool.NOTE, "", picked(Of.POINT, Double.NaN, 0, 0, NONE))))
                .isEqualTo("mark.form");
        assertThat(code(read(Tool.NOTE, "", picked(Of.POINT, 1e9, 0, 0, NONE)))).isEqualTo("mark.form");
        Space.Eye blind = new Space.Eye(NONE, NONE, Z, 80);
        assertThat(code(Mark.read(Tool.NOTE, new Space(List.of(hole), NONE, blind), "", Sheets.LOOK)))
                .isEqualTo("mark.form");
    }
}
