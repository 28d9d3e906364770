package mintshelf.core.drawing.alike;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Map;
import java.util.Random;
import mintshelf.core.drawing.Primitive;
import mintshelf.core.drawing.Scene;
import mintshelf.core.drawing.Source;
import mintshelf.core.drawing.Style;
import org.junit.jupiter.api.Test;

class TraitsTest {
    private static final Style INK = new Style("0", 0, 0.25, List.of());

    /** A plate with a step, a bore and holes about it, drawn with a factor, turned, put somewhere, perhaps mirrored. */
    private static List<Primitive> plate(double by, double angle, double x, double y, boolean mirrored, int holes) {
        double[] outline = {0, 0, 80, 0, 80, 30, 60, 30, 60, 50, 0, 50};
        List<Primitive> drawn = new ArrayList<>();
        double[] points = new double[outline.length];
        for (int i = 0; i < outline.length; i += 2) {
            double[] at = put(outline[i], outline[i + 1], by, angle, x, y, mirrored);
            points[i] = at[0];
            points[i + 1] = at[1];
        }
        drawn.add(new Primitive.Polyline(INK, points, true));
        double[] bore = put(30, 25, by, angle, x, y, mirrored);
        drawn.add(new Primitive.Arc(INK, bore[0], bore[1], 10 * by, 0, 360));
        for (int i = 0; i < holes; i++) {
            double a = 2 * Math.PI * i / holes + 0.3;
            double[] hole = put(30 + 17 * Math.cos(a), 25 + 17 * Math.sin(a), by, angle, x, y, mirrored);
            drawn.add(new Primitive.Arc(INK, hole[0], hole[1], 2.5 * by, 0, 360));
        }
        return drawn;
    }

    private static double[] put(double u, double v, double by, double angle, double x, double y, boolean mirrored) {
        double c = Math.cos(Math.toRadians(angle));
        double s = Math.sin(Math.toRadians(angle));
        double m = mirrored ? -u : u;
        return new double[] {x + by * (m * c - v * s), y + by * (m * s + v * c)};
    }

    private static Traits traits(List<Primitive> drawn) {
        List<Primitive> all = new ArrayList<>(drawn);
        // A sheet's frame round it all.
        all.add(new Primitive.Polyline(INK, new double[] {-500, -500, 500, -500, 500, 500, -500, 500}, true));
        return Traits.of(new Scene(all, Map.of(), Map.of()));
    }

    @Test
    void aViewThatWasMovedTurnedMirroredOrScaledIsTheSame() {
        Traits one = traits(plate(1, 0, 0, 0, false, 6));
        for (Traits other : List.of(
                traits(plate(1, 0, 120, -44.3, false, 6)),
                traits(plate(1, 37, 10, 20, false, 6)),
                traits(plate(1, 90, -200, 20, true, 6)))) {
            Alike alike = Alike.of(one, other);
            assertThat(alike.much()).isGreaterThan(0.85);
            assertThat(alike.says()).containsExactly("same hole pattern", "same outline", "same sizes");
        }
        Alike larger = Alike.of(one, traits(plate(2.5, 15, 0, 0, false, 6)));
        assertThat(larger.says()).containsExactly("same hole pattern", "same outline", "other sizes");
        assertThat(larger.much()).isGreaterThan(0.6);
    }

    @Test
    void anotherPatternOrAnotherPartIsAnother() {
        Traits six = traits(plate(1, 0, 0, 0, false, 6));
        Alike fewer = Alike.of(six, traits(plate(1, 0, 0, 0, false, 3)));
        assertThat(fewer.says()).contains("same outline").doesNotContain("same hole pattern");
        List<Primitive> shaft = List.of(
                new Primitive.Polyline(INK, new double[] {0, 0, 10, 0, 10, 5, 40, 5, 40, 9, 90, 9}, false),
                new Primitive.Arc(INK, 200, 0, 4, 0, 360));
        Alike other = Alike.of(six, traits(shaft));
        assertThat(other.much()).isLessThan(Alike.LITTLE);
        assertThat(other.says()).isEmpty();
    }

    @Test
    void framesTitleBlocksDimensionsAndTheOrderOfThingsDoNotCount() {
        List<Primitive> plain = plate(1, 0, 0, 0, false, 6);
        List<Primitive> filled = new ArrayList<>(plain);
        Source block = new Source(7, "TITLE", "LINE");
        filled.add(new Primitive.Polyline(block, INK, new double[] {300, -400, 480, -400, 480, -460}, false));
        filled.add(text(new Source(8, "TITLE", "ATTRIB"), "GLAND PLATE"));
        filled.add(text(new Source(9, "TITLE", "TEXT"), "Approved"));
        filled.add(new Primitive.Polyline(
                new Source(10, "*D4", "LINE"), INK, new double[] {0, -10, 80, -10, 80, -20}, false));
        filled.add(text(new Source(11, "", "DIMENSION"), "eighty"));
        Collections.shuffle(filled, new Random(3));
        assertThat(traits(filled)).isEqualTo(traits(plain));
    }

    private static Primitive text(Source source, String says) {
        return new Primitive.Text(source, INK, 10, -50, 3, 0, 1, 0, 0, false, says);
    }

    @Test
    void notesAreTraitsAndWhatIsKeptIsReadAgain() {
        List<Primitive> noted = new ArrayList<>(plate(1, 0, 0, 0, false, 4));
        noted.add(text(Source.NONE, "Deburr all edges, passivated after ISO 16048"));
        Traits traits = traits(noted);
        assertThat(traits.of(Traits.Kind.WORDS)).hasSize(6);
        assertThat(Traits.read(traits.text())).isEqualTo(traits);
        assertThat(traits.text().length()).isLessThan(2000);
        assertThat(traits.marks()).containsAll(traits.sample());
        assertThat(traits.sample().size()).isLessThanOrEqualTo(10 + 10 + 8 + 8);
        assertThat(Traits.read("").isEmpty()).isTrue();
        assertThat(Alike.of(Traits.read(""), traits).much()).isZero();
    }

    @Test
    void aSheetOfVeryManyThingsHasFewMarks() {
        Random random = new Random(5);
        List<Primitive> many = new ArrayList<>();
        for (int i = 0; i < 20_000; i++) {
            double x = random.nextDouble() * 300;
            double y = random.nextDouble() * 300;
            many.add(new Primitive.Polyline(INK, new double[] {x, y, x + random.nextDouble() * 9, y + 4}, false));
            if (i % 10 == 0) many.add(new Primitive.Arc(INK, x, y, random.nextDouble() * 5, 0, 360));
        }
        assertThat(traits(many).marks().size()).isLessThanOrEqualTo(32 + 32 + 24 + 24);
    }
}
