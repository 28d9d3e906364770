package mintshelf.core.model.compare;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import mintshelf.core.model.compare.ModelComparison.Difference;
import mintshelf.core.model.shape.Feature;
import mintshelf.core.model.shape.Features;
import mintshelf.core.model.shape.Volume;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** Differences of models in words. */
class ModelCompareTest {
    private static Blank plate() {
        return new Blank(120, 80, 8).pattern(5.5, 10);
    }

    private static List<String> says(Blank old, Blank now) {
        ModelComparison c = ModelCompare.compare(old.model(), now.model());
        isSum(c);
        return c.differences().stream().map(Difference::says).toList();
    }

    private static void isSum(ModelComparison c) {
        assertThat(c.old()).isEqualTo(c.same() + c.changed() + c.removed());
        assertThat(c.now()).isEqualTo(c.same() + c.changed() + c.added());
        assertThat(List.of(c.removed(), c.added(), c.changed(), c.unsaid())).allMatch(n -> n >= 0);
    }

    @Test
    void featuresAreFoundAsPeopleCallThem() {
        ModelFile model = new Blank(120, 80, 20)
                .rounded(4)
                .hole(0, 0, 12)
                .blind(30, 0, 6, 12)
                .bored(-30, 0, 6.6, 11, 6.5)
                .boss(0, 30, 14, 9)
                .pocket(0, -25, 40, 20, 5)
                .model();
        assertThat(Features.of(model.bodies().get(0)).stream()
                        .map(f -> f.kind() + " " + f.measures())
                        .toList())
                .containsExactlyInAnyOrder(
                        "HOLE ⌀ 12, through",
                        "HOLE ⌀ 6, 12 deep",
                        "HOLE ⌀ 6.6, counterbore ⌀ 11, counterbore 6.5 deep, through",
                        "BOSS ⌀ 14, 9 high",
                        "POCKET 20 wide, 40 long, 5 deep",
                        "FILLET R 4",
                        "FILLET R 4",
                        "FILLET R 4",
                        "FILLET R 4");
        assertThat(Features.of(new Blank(50, 40, 10)
                                .chamfered(2)
                                .model()
                                .bodies()
                                .get(0))
                        .stream()
                        .map(Feature::measures)
                        .toList())
                .containsOnly("2")
                .hasSize(4);
    }

    @Test
    void theVolumeIsThatOfGeometry() {
        double hole = Math.PI * 5.5 * 5.5 / 4 * 8;
        assertThat(Volume.of(plate().model().bodies().get(0)).orElseThrow())
                .isCloseTo(120 * 80 * 8 - 4 * hole, within(1e-3));
        double corner = 3 * 3 * (1 - Math.PI / 4) * 8;
        double boss = Math.PI * 49 * 9;
        double pocket = 40 * 20 * 5;
        assertThat(Volume.of(new Blank(120, 80, 8)
                                .rounded(3)
                                .boss(0, 20, 14, 9)
                                .pocket(0, -20, 40, 20, 5)
                                .at(300, -200)
                                .model()
                                .bodies()
                                .get(0))
                        .orElseThrow())
                .isCloseTo(120 * 80 * 8 - 4 * corner + boss - pocket, within(1e-2));
    }

    @Test
    void aPatternOfHolesIsToldOnce() {
        assertThat(says(plate(), new Blank(120, 80, 8).pattern(6.6, 10))).containsExactly("4 holes ⌀ 5.5 → ⌀ 6.6");
    }

    @Test
    void whatIsChangedIsSaidInWords() {
        assertThat(says(plate(), new Blank(120, 80, 10).pattern(5.5, 10))).containsExactly("wall 2 thicker, 8 → 10");
        assertThat(says(new Blank(120, 80, 8).hole(5, 5, 5.5), new Blank(124, 80, 8).hole(5, 5, 5.5)))
                .containsExactly("4 longer along x, 120 → 124");
        assertThat(says(plate(), plate().hole(0, 0, 8))).containsExactly("hole added at (0, 0, 8): ⌀ 8, through");
        assertThat(says(plate().hole(0, 0, 8), plate())).containsExactly("hole gone at (0, 0, 8): ⌀ 8, through");
        assertThat(says(plate().hole(0, 0, 8), plate().hole(2, -1, 8)))
                .containsExactly("hole ⌀ 8, through moved by (2, -1, 0)");
        assertThat(says(plate().blind(0, 0, 8, 4), plate().blind(0, 0, 8, 5)))
                .containsExactly("hole 4 → 5 deep at (0, 0, 8)");
        assertThat(says(plate().blind(0, 0, 8, 4), plate().hole(0, 0, 8)))
                .containsExactly("hole goes through now at (0, 0, 8)");
        assertThat(says(plate().hole(0, 0, 6.6), plate().bored(0, 0, 6.6, 11, 4)))
                .containsExactly("hole counterbore ⌀ 11 added, counterbore 4 deep added at (0, 0, 8)");
        assertThat(says(plate(), plate().boss(12, 20, 14, 9)))
                .containsExactly("boss added at (12, 20, 12.5): ⌀ 14, 9 high");
        assertThat(says(plate().boss(12, 20, 14, 9), plate().boss(12, 20, 14, 11)))
                .containsExactly("boss 9 → 11 high at (12, 20, 13.5)");
        assertThat(says(plate(), plate().pocket(0, 0, 40, 20, 3)))
                .containsExactly("pocket added at (0, 0, 8): 20 wide, 40 long, 3 deep");
        assertThat(says(plate().pocket(0, 0, 40, 20, 3), plate().pocket(0, 0, 40, 20, 4)))
                .containsExactly("pocket 3 → 4 deep at (0, 0, 8)");
        assertThat(says(plate().pocket(0, 0, 40, 20, 3), plate().pocket(0, 5, 40, 20, 3)))
                .containsExactly("pocket 20 wide, 40 long, 3 deep moved by (0, 5, 0)");
        assertThat(says(plate().rounded(3), plate().rounded(4))).containsExactly("4 fillets R 3 → R 4");
        assertThat(says(plate().chamfered(3), plate().chamfered(2))).containsExactly("4 chamfers 3 → 2");
        assertThat(says(plate(), plate().at(10, 0))).containsExactly("all of it moved by (10, 0, 0)");
        assertThat(says(plate(), plate().inches())).containsExactly("written in in, was in mm");
    }

    @Test
    void twoChangesAreTwoSentences() {
        assertThat(says(
                        plate().hole(0, 0, 8),
                        new Blank(120, 80, 9).pattern(6.6, 10).hole(0, 0, 8)))
                .containsExactly("4 holes ⌀ 5.5 → ⌀ 6.6", "wall 1 thicker, 8 → 9");
    }

    @ParameterizedTest
    @ValueSource(longs = {1, 2, 3, 4, 5})
    void otherNumbersAnotherOrderAndOtherDecimalsAreNoDifference(long seed) {
        Blank blank =
                plate().rounded(3).bored(0, 0, 6.6, 11, 4).boss(20, 20, 12, 6).pocket(-20, 0, 20, 10, 3);
        byte[] file = blank.file();
        ModelComparison c = ModelCompare.compare(Blank.read(file), Blank.read(Blank.shuffled(file, seed)));
        assertThat(c.isEmpty()).as("%s", c).isTrue();
        assertThat(c.old()).isEqualTo(24);
    }

    @Test
    void theOtherWayRoundTheCountsAreMirrored() {
        Random random = new Random(7);
        for (int i = 0; i < 40; i++) {
            ModelFile a = any(random).model();
            ModelFile b = any(random).model();
            ModelComparison there = ModelCompare.compare(a, b);
            ModelComparison back = ModelCompare.compare(b, a);
            isSum(there);
            isSum(back);
            assertThat(List.of(back.same(), back.changed(), back.removed(), back.added()))
                    .as("%s", there)
                    .containsExactly(there.same(), there.changed(), there.added(), there.removed());
            assertThat(back.differences()).hasSameSizeAs(there.differences());
            assertThat(ModelCompare.compare(a, a).isEmpty()).isTrue();
        }
    }

    private static Blank any(Random random) {
        Blank blank = new Blank(120 + 4 * random.nextInt(2), 80, 8 + random.nextInt(3));
        if (random.nextBoolean()) blank.rounded(2 + random.nextInt(3));
        blank.pattern(random.nextBoolean() ? 5.5 : 6.6, 10 + random.nextInt(2));
        if (random.nextBoolean()) blank.hole(0, 0, 10);
        if (random.nextBoolean()) blank.boss(20, random.nextInt(5), 12, 5 + random.nextInt(2));
        if (random.nextBoolean()) blank.pocket(-25, random.nextInt(3), 20, 10, 2 + random.nextInt(3));
        return blank;
    }

    @Test
    void aFileOfBrokenFacesCostsThoseFaces() {
        String file = new String(plate().file(), StandardCharsets.US_ASCII);
        String nan = file.replaceFirst("CARTESIAN_POINT\\('',\\(-?[0-9.]+", "CARTESIAN_POINT('',(1.E999");
        String gone = file.replaceFirst("#\\d+=EDGE_CURVE[^\n]*\n", "");
        String cut = file.substring(0, file.length() * 2 / 3);
        for (String one : List.of(nan, gone, cut)) {
            ModelFile broken = Blank.read(one.getBytes(StandardCharsets.US_ASCII));
            isSum(ModelCompare.compare(plate().model(), broken));
            isSum(ModelCompare.compare(broken, broken));
        }
        ModelFile without = Blank.read(gone.getBytes(StandardCharsets.US_ASCII));
        assertThat(without.lost()).isPositive();
        assertThat(ModelCompare.compare(plate().model(), without).unread()).isEqualTo(without.lost());
    }

    @Test
    void foreignFilesAreEqualToThemselves() throws Exception {
        Path samples = Path.of("../../shared/samples");
        if (!Files.isDirectory(samples)) return;
        List<Path> all = new ArrayList<>();
        try (var files = Files.walk(samples)) {
            files.filter(f -> f.toString().matches(".*\\.st(e?)p")).forEach(all::add);
        }
        assertThat(all).isNotEmpty();
        for (Path file : all) {
            ModelFile model = Blank.read(Files.readAllBytes(file));
            ModelComparison c = ModelCompare.compare(model, model);
            assertThat(c.isEmpty()).as("%s: %s", file, c).isTrue();
        }
    }

    @Test
    void ofSeveralProductsEachIsHeldAgainstItsOwn() {
        ModelFile old = plate().called("A").model();
        ModelFile both = new ModelFile(
                old.says(),
                List.of(),
                List.of(
                        old.bodies().get(0),
                        plate().hole(0, 0, 8).called("B").model().bodies().get(0)),
                0,
                false);
        ModelFile now = new ModelFile(
                old.says(),
                List.of(),
                List.of(
                        old.bodies().get(0),
                        plate().hole(0, 0, 9).called("B").model().bodies().get(0)),
                0,
                false);
        assertThat(ModelCompare.compare(both, now).differences().stream().map(Difference::says))
                .containsExactly("B: hole ⌀ 8 → ⌀ 9 at (0, 0, 8)");
        assertThat(ModelCompare.compare(both, old).differences().stream().map(Difference::says))
                .containsExactly("part B gone");
    }
}
