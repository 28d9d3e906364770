package mintshelf.demo.model;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.util.List;
import java.util.Map;
import java.util.stream.Stream;
import mintshelf.core.model.compare.ModelCompare;
import mintshelf.core.model.compare.ModelComparison;
import mintshelf.core.model.compare.ModelFile;
import mintshelf.demo.sheet.Sheets.Component;
import mintshelf.demo.sheet.Sheets.Shape;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.Arguments;
import org.junit.jupiter.params.provider.MethodSource;

/** What is edited in the models of the demo is told in the right words. */
class ModelsTest {
    private static final Shape.Plate PLATE = new Shape.Plate(120, 80, 8, 4, 24, 5.5, 10);
    private static final Shape.Ring RING = new Shape.Ring(90, 40, 12, 6, 70, 6.6);

    static Stream<Arguments> edits() {
        return Stream.of(
                edit(PLATE, new Shape.Plate(120, 80, 8, 4, 24, 6.6, 10), "4 holes ⌀ 5.5 → ⌀ 6.6"),
                edit(PLATE, new Shape.Plate(120, 80, 10, 4, 24, 5.5, 10), "wall 2 thicker, 8 → 10"),
                edit(PLATE, new Shape.Plate(120, 80, 6, 4, 24, 5.5, 10), "wall 2 thinner, 8 → 6"),
                edit(PLATE, new Shape.Plate(120, 80, 8, 4, 30, 5.5, 10), "hole ⌀ 24 → ⌀ 30 at (0, 0, 8)"),
                edit(PLATE, new Shape.Plate(120, 80, 8, 4, 0, 5.5, 10), "hole gone at (0, 0, 8): ⌀ 24, through"),
                edit(PLATE, new Shape.Plate(120, 80, 8, 6, 24, 5.5, 10), "4 fillets R 4 → R 6"),
                edit(PLATE, new Shape.Plate(120, 80, 8, 4, 24, 5.5, 12), "4 holes ⌀ 5.5, through moved by up to 2.828"),
                edit(RING, new Shape.Ring(90, 40, 12, 6, 70, 9), "6 holes ⌀ 6.6 → ⌀ 9"),
                edit(RING, new Shape.Ring(90, 42, 12, 6, 70, 6.6), "hole ⌀ 40 → ⌀ 42 at (0, 0, 12)"),
                edit(RING, new Shape.Ring(96, 40, 12, 6, 70, 6.6), "round ⌀ 90 → ⌀ 96 at (0, 0, 6)"),
                edit(RING, new Shape.Ring(90, 40, 14, 6, 70, 6.6), "wall 2 thicker, 12 → 14"),
                edit(RING, new Shape.Ring(90, 40, 12, 0, 70, 6.6), "6 holes gone: ⌀ 6.6, through"),
                edit(new Shape.Ring(90, 40, 12, 0, 70, 6.6), RING, "6 holes added: ⌀ 6.6, through"),
                edit(new Shape.Tube(60, 3, 200), new Shape.Tube(60, 3, 220), "20 longer along z, 200 → 220"),
                edit(new Shape.Tube(60, 3, 200), new Shape.Tube(60, 4, 200), "hole ⌀ 54 → ⌀ 52 at (0, 0, 200)"),
                edit(new Shape.Tube(60, 3, 200), new Shape.Tube(64, 5, 200), "round ⌀ 60 → ⌀ 64 at (0, 0, 100)"));
    }

    private static Arguments edit(Shape old, Shape now, String says) {
        return Arguments.of(old, now, says);
    }

    private static ModelFile read(byte[] bytes) {
        try {
            return ModelFile.read(() -> new ByteArrayInputStream(bytes))
                    .orElseThrow(r -> new IllegalStateException(r.says()));
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    private static byte[] part(Shape shape) {
        return Models.part("TG40-9000", "Part", "316L", "", shape, "2026-11-24T09:00:00");
    }

    @ParameterizedTest
    @MethodSource("edits")
    void anEditIsToldInWords(Shape old, Shape now, String says) {
        ModelComparison c = ModelCompare.compare(read(part(old)), read(part(now)));
        assertThat(c.differences()).extracting(ModelComparison.Difference::says).containsExactly(says);
        assertThat(c.unsaid()).isZero();
        assertThat(c.before().volume()).isPresent();
        assertThat(c.after().volume().orElseThrow())
                .isNotEqualTo(c.before().volume().orElseThrow());
        assertThat(ModelCompare.compare(read(part(now)), read(part(now))).isEmpty())
                .isTrue();
    }

    @Test
    void volumeAndMassAreToldBeforeAndAfter() {
        byte[] old = Models.part("TG40-9000", "Part", "316L", "0.61", PLATE, "2026-11-24T09:00:00");
        byte[] now = Models.part("TG40-9000", "Part", "316L", "0.6", PLATE, "2026-11-24T09:00:00");
        ModelComparison c = ModelCompare.compare(read(old), read(now));
        assertThat(c.masses()).isEqualTo("0.61 kg → 0.6 kg");
        assertThat(c.volumes()).endsWith(" cm³").doesNotContain("→");
        assertThat(ModelCompare.compare(read(part(PLATE)), read(part(PLATE))).masses())
                .isEmpty();
    }

    @Test
    void aShaftSaysWhichOfItsStepsChanged() {
        Shape old = new Shape.Turned(new double[][] {{10, 30}, {16, 40}, {10, 20}});
        Shape now = new Shape.Turned(new double[][] {{10, 30}, {18, 40}, {10, 20}});
        assertThat(ModelCompare.compare(read(part(old)), read(part(now))).differences())
                .extracting(ModelComparison.Difference::says)
                .containsExactly("round ⌀ 16 → ⌀ 18 at (0, 0, 50)");
    }

    @Test
    void aScrewThatIsLongerAndHasALowerHeadIsNotSaidToBeShorter() {
        assertThat(ModelCompare.compare(
                                read(Models.screw("M6 x 16", 6, 16, "x")), read(Models.screw("M5 x 20", 5, 20, "x")))
                        .differences())
                .extracting(ModelComparison.Difference::says)
                .contains("round ⌀ 6 → ⌀ 5, 16 → 20 long at (0, 0, -10)", "face moved 0.65 inward")
                .noneMatch(s -> s.contains("shorter"));
    }

    private static ModelFile assembly(Map<String, List<double[]>> seats) {
        List<Component> components = seats.entrySet().stream()
                .map(e -> new Component(e.getKey(), e.getKey(), e.getValue().size(), "316L"))
                .toList();
        return read(Models.assembly(
                "TG40-9100",
                "Group",
                components,
                n -> n + ".stp",
                n -> seats.getOrDefault(n, List.of()),
                "2026-11-24T09:00:00"));
    }

    private static double[] at(double x, double y) {
        return new double[] {x, y, 0, 0, 0, 1, 1, 0, 0};
    }

    @Test
    void ofAssembliesItIsToldWhatCameWentMovedAndWasExchanged() {
        ModelFile old = assembly(Map.of("ring", List.of(at(0, 0), at(9, 0)), "lid", List.of(at(0, 5))));
        assertThat(ModelCompare.compare(old, old).isEmpty()).isTrue();
        ModelFile other = assembly(Map.of("seal", List.of(at(0, 0), at(9, 0)), "lid", List.of(at(0, 7))));
        assertThat(ModelCompare.compare(old, other).differences())
                .extracting(ModelComparison.Difference::says)
                .containsExactly("ring exchanged for seal, 2 times", "lid moved by (0, 2, 0)");
        ModelFile more =
                assembly(Map.of("ring", List.of(at(0, 0), at(9, 0), at(18, 0)), "pin", List.of(at(1, 1), at(2, 2))));
        assertThat(ModelCompare.compare(old, more).differences())
                .extracting(ModelComparison.Difference::says)
                .containsExactlyInAnyOrder("lid gone", "ring added", "2 × pin added");
    }
}
