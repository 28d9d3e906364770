package mintshelf.core.family;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Random;
import mintshelf.core.family.SizeTable.Match;
import mintshelf.core.family.SizeTable.Measure;
import org.junit.jupiter.api.Test;

class SizeTableTest {
    private static final List<List<String>> RINGS = List.of(
            List.of("Number", "d1, mm", "d2 [mm]", "material", ""),
            List.of("ISO 3601 40 x 2", "40", "2", "NBR"),
            List.of("ISO 3601 40 x 3", "40", "3", "NBR"),
            List.of(),
            List.of("ISO 3601 44 x 3", "44", "3,5", "FKM"),
            List.of("", "50", "on request", "NBR"));

    private static SizeTable read(List<List<String>> rows) {
        return SizeTable.of(rows).orElseThrow(r -> new IllegalStateException(r.says()));
    }

    private static List<String> numbers(List<Match> matches) {
        return matches.stream().map(m -> m.size().number()).toList();
    }

    @Test
    void columnsOfNumbersAreMeasuresAndEmptyRowsAreNone() {
        SizeTable table = read(RINGS);
        assertThat(table.measures()).containsExactly(new Measure(1, "d1", "mm"), new Measure(2, "d2", "mm"));
        assertThat(table.sizes()).hasSize(4);
        assertThat(table.sizes().get(2).values()).isEqualTo(Map.of("d1", 44.0, "d2", 3.5));
        assertThat(table.sizes().get(3).values()).isEqualTo(Map.of("d1", 50.0));
    }

    @Test
    void whatFitsComesFirstThenWhatIsNearest() {
        SizeTable table = read(RINGS);
        assertThat(numbers(table.nearest(Map.of("d1", 40.0, "d2", 3.0), 9)))
                .containsExactly("ISO 3601 40 x 3", "ISO 3601 44 x 3", "ISO 3601 40 x 2");
        Match best = table.nearest(Map.of("d1", 42.0), 1).get(0);
        assertThat(best.fits()).isFalse();
        assertThat(best.more()).isEqualTo(Map.of("d1", -2.0));
        assertThat(table.nearest(Map.of("d2", 3.0), 9))
                .as("what says none is none")
                .hasSize(3);
        assertThat(table.nearest(Map.of(), 9)).hasSize(4).allMatch(Match::fits);
        assertThat(table.nearest(Map.of("d7", 3.0), 9)).isEmpty();
    }

    @Test
    void aMeasuredLengthFindsTheMeasureThatIsNearest() {
        SizeTable table = read(RINGS);
        assertThat(table.near(43.8, 0.05, 9)).singleElement().satisfies(n -> {
            assertThat(n.match().size().number()).isEqualTo("ISO 3601 44 x 3");
            assertThat(n.measure().labelled()).isEqualTo("d1, mm");
        });
        assertThat(table.near(3.1, 0.2, 9)).extracting(n -> n.measure().name()).containsOnly("d2");
        assertThat(table.near(1e9, 0.05, 9)).isEmpty();
        assertThat(table.near(0, 0.05, 9)).isEmpty();
    }

    @Test
    void whatIsNoFamilySaysWhy() {
        for (List<List<String>> rows : List.of(
                List.<List<String>>of(),
                List.of(List.of("a", "b"), List.of("1", "2")),
                List.of(List.of("number", "says"), List.of("X", "words")),
                List.of(List.of("number")))) {
            assertThat(SizeTable.of(rows).refusal())
                    .hasValueSatisfying(r -> assertThat(r.code()).isEqualTo("family.none"));
        }
    }

    @Test
    void numbersAreReadAsPeopleWriteThemAndNothingElse() {
        assertThat(SizeTable.value(" 40,5 ")).contains(40.5);
        assertThat(SizeTable.value("-3")).contains(-3.0);
        for (String text : List.of("", "1e308", "NaN", "1,000,5", "12 mm", "9".repeat(30), "∞", "=1+1")) {
            assertThat(SizeTable.value(text)).as(text).isEmpty();
        }
    }

    /** Against a search of every row by itself. */
    @Test
    void theNearestIsTheNearestOfAll() {
        Random random = new Random(18);
        for (int round = 0; round < 200; round++) {
            List<List<String>> rows = new ArrayList<>();
            rows.add(List.of("number", "a", "b"));
            for (int i = 0; i < 1 + random.nextInt(40); i++) {
                rows.add(List.of("n" + i, "" + (1 + random.nextInt(30)), "" + (1 + random.nextInt(30))));
            }
            double a = 1 + random.nextInt(30);
            double b = 1 + random.nextInt(30);
            Match first = read(rows).nearest(Map.of("a", a, "b", b), 1).get(0);
            double least = rows.stream()
                    .skip(1)
                    .mapToDouble(r -> Math.max(
                            Math.abs(Double.parseDouble(r.get(1)) - a) / a,
                            Math.abs(Double.parseDouble(r.get(2)) - b) / b))
                    .min()
                    .orElseThrow();
            assertThat(first.off()).as("seed 18, round " + round).isEqualTo(least);
        }
    }
}
