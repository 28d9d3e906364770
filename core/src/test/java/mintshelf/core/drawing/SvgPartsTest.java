package mintshelf.core.drawing;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import mintshelf.core.drawing.svg.SvgParts;
import mintshelf.core.drawing.svg.SvgWriter;
import org.junit.jupiter.api.Test;

class SvgPartsTest {
    private static final Style LINE = new Style("0", Style.INK, 0.25, List.of());
    private static final Style HIDDEN = new Style("HIDDEN", Style.INK, 0.25, List.of());
    private static final Style COVER = new Style("0", Style.PAPER, 0, List.of());

    private static Scene scene(int lines, boolean covered) {
        Random random = new Random(5);
        List<Primitive> all = new ArrayList<>();
        for (int i = 0; i < lines; i++) {
            double x = random.nextInt(40_000) / 100.0;
            double y = random.nextInt(28_000) / 100.0;
            double length = i % 1000 == 0 ? 300 : 1 + random.nextInt(90) / 10.0;
            all.add(new Primitive.Polyline(
                    i % 3 == 0 ? HIDDEN : LINE, new double[] {x, y, x + length, y + 0.2}, false));
            if (i % 50 == 0) {
                all.add(new Primitive.Text(LINE, x, y, 2.5, 0, 1, 0, 0, false, "T" + i));
            }
        }
        if (covered) {
            all.add(all.size() / 2, new Primitive.Fill(Source.NONE, COVER, new double[][] {{0, 0, 50, 0, 50, 50, 0, 50}
            }));
        }
        return new Scene(all, Map.of("0", true, "HIDDEN", false), Map.of());
    }

    /** Each subpath and text by itself, sorted. */
    private static List<String> drawn(List<String> pictures) {
        List<String> all = new ArrayList<>();
        for (String picture : pictures) {
            Matcher path = Pattern.compile(" d=\"([^\"]*)\"").matcher(picture);
            while (path.find()) for (String one : path.group(1).split("(?=M)")) all.add(one);
            Matcher text = Pattern.compile("<text[^>]*>([^<]*)").matcher(picture);
            while (text.find()) all.add(text.group());
        }
        Collections.sort(all);
        return all;
    }

    private static List<String> parts(Scene scene) {
        List<String> parts = new ArrayList<>(List.of(SvgParts.of(scene).first("Sheet")));
        SvgParts.of(scene).others(parts::add);
        return parts;
    }

    @Test
    void allPartsTogetherAreTheWholePicture() {
        for (int lines : new int[] {19_000, 20_500, 45_000}) {
            Scene scene = scene(lines, false);
            assertThat(drawn(parts(scene))).isEqualTo(drawn(List.of(SvgWriter.write(scene, "Sheet"))));
        }
    }

    @Test
    void theLargestComeFirstAtTheirPlacesOnTheWholeSheet() {
        Scene scene = scene(45_000, false);
        List<String> parts = parts(scene);
        assertThat(parts).hasSize(3);
        assertThat(SvgParts.of(scene).rest()).isEqualTo(scene.primitives().size() - 8_000);
        String box = SvgWriter.write(scene, "Sheet").replaceFirst(".*viewBox=\"([^\"]*)\".*", "$1");
        assertThat(parts.get(0)).contains("viewBox=\"" + box + "\"");
        // Each thousandth line runs over the sheet.
        assertThat(parts.get(0).length())
                .isLessThan(SvgWriter.write(scene, "Sheet").length() / 3);
        int longest = 0;
        for (int i = 0; i < 45_000; i += 1000) {
            double[] ends = ((Primitive.Polyline) scene.primitives().stream()
                            .filter(p -> p.box().width() >= 299)
                            .skip(i / 1000)
                            .findFirst()
                            .orElseThrow())
                    .points();
            if (parts.get(0).contains("M" + SvgPartsTest.shown(ends[0]) + " ")) longest++;
        }
        assertThat(longest).isEqualTo(45);
    }

    private static String shown(double n) {
        double rounded = Math.rint(n * 1000) / 1000;
        return rounded == Math.rint(rounded) ? Long.toString((long) rounded) : Double.toString(rounded);
    }

    @Test
    void whatCoversOthersUpComesAfterThem() {
        Scene scene = scene(45_000, true);
        List<String> parts = parts(scene);
        assertThat(drawn(parts)).isEqualTo(drawn(List.of(SvgWriter.write(scene, "Sheet"))));
        int with = -1;
        for (int i = 0; i < parts.size(); i++) if (parts.get(i).contains("fill=\"#fff\"")) with = i;
        // In the order of the file: half of the lines lie below it.
        assertThat(with).isEqualTo(1);
    }

    @Test
    void aLayerThatIsHiddenIsHiddenInEachPart() {
        List<String> parts = parts(scene(45_000, false));
        assertThat(parts)
                .allSatisfy(p -> assertThat(p)
                        .contains("<g data-layer=\"HIDDEN\" visibility=\"hidden\">")
                        .contains("<g data-layer=\"0\">"));
    }

    @Test
    void aSmallSheetIsOnePicture() {
        Scene scene = scene(500, false);
        assertThat(SvgParts.isLarge(scene)).isFalse();
        assertThat(SvgParts.of(scene).rest()).isZero();
        assertThat(parts(scene)).hasSize(1);
        Scene none = new Scene(List.of(), Map.of(), Map.of());
        assertThat(parts(none)).hasSize(1);
    }
}
