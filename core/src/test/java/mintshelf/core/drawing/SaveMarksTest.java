package mintshelf.core.drawing;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Random;
import mintshelf.core.Dxf;
import mintshelf.core.base.ContentHash;
import mintshelf.core.drawing.dxf.DxfDrawing;
import mintshelf.core.drawing.dxf.SaveMarks;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

class SaveMarksTest {
    private static ContentHash hash(String saved, String by, String text) {
        String file = "0\nSECTION\n2\nHEADER\n9\n$ACADVER\n1\nAC1027\n9\n$TDUPDATE\n40\n" + saved
                + "\n9\n$LASTSAVEDBY\n1\n" + by
                + "\n9\n$LTSCALE\n40\n1.0\n0\nENDSEC\n0\nSECTION\n2\nENTITIES\n0\nTEXT\n10\n1.0\n20\n2.0\n40\n2.5\n1\n"
                + text + "\n0\nENDSEC\n0\nEOF\n";
        return SaveMarks.without(DxfDrawing.read(file.getBytes(StandardCharsets.UTF_8))
                .orElseThrow(r -> new IllegalStateException(r.says())));
    }

    @Test
    void aDrawingThatWasOnlySavedAgainIsTheSameDrawing() {
        assertThat(hash("2460000.5", "Priya", "PLATE")).isEqualTo(hash("2461111.25", "Tomasz Okrent", "PLATE"));
    }

    @Test
    void anyOtherChangeMakesAnotherDrawing() {
        assertThat(hash("2460000.5", "Priya", "PLATE")).isNotEqualTo(hash("2460000.5", "Priya", "PLATES"));
        assertThat(hash("1", "$LTSCALE", "A")).isEqualTo(hash("2", "x", "A"));
    }

    @Test
    void whatComesAfterTheLastMarkOfTheHeaderCounts() {
        assertThat(hash(sheet(List.of("9 $LTSCALE", "40 1.0", "9 $TDUPDATE", "40 2460000.5"), "PLATE")))
                .isNotEqualTo(hash(sheet(List.of("9 $LTSCALE", "40 1.0", "9 $TDUPDATE", "40 2460000.5"), "PLATES")));
    }

    @Test
    void aNameOfAMarkOutsideTheHeaderIsNoMark() {
        List<String> one = new ArrayList<>(sheet(List.of("9 $LTSCALE", "40 1.0"), "PLATE"));
        one.addAll(one.size() - 2, List.of("2 HEADER", "9 $TDUPDATE", "40 1.5"));
        List<String> two = new ArrayList<>(one);
        two.set(two.indexOf("40 1.5"), "40 2.5");
        assertThat(hash(one)).isNotEqualTo(hash(two));
    }

    /** Any edit outside the marks makes another drawing, any edit inside them does not, whatever the order of the variables. */
    @ParameterizedTest
    @ValueSource(longs = {1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12})
    void onlyTheMarksMayDiffer(long seed) {
        Random random = new Random(seed);
        List<String> variables = new ArrayList<>(List.of(
                "$TDUPDATE 40 2460000.5",
                "$LASTSAVEDBY 1 Priya",
                "$VERSIONGUID 2 {A1}",
                "$SAVECOUNT 70 4",
                "$LTSCALE 40 1.0",
                "$CLAYER 8 OUTLINE",
                "$INSUNITS 70 4"));
        Collections.shuffle(variables, random);
        List<String> header = new ArrayList<>();
        for (String v : variables) {
            String[] parts = v.split(" ", 3);
            header.add("9 " + parts[0]);
            header.add(parts[1] + " " + parts[2]);
        }
        List<String> file = sheet(header, "PLATE");
        for (boolean binary : new boolean[] {false, true}) {
            ContentHash before = hash(file, binary);
            for (int at = 0; at < file.size(); at++) {
                String tag = file.get(at);
                int code = Integer.parseInt(tag.substring(0, tag.indexOf(' ')));
                if (code == 0 || code == 9 || tag.equals("2 HEADER") || tag.equals("2 ENTITIES")) continue;
                boolean mark = at > 0 && MARKS.contains(file.get(at - 1));
                List<String> edited = new ArrayList<>(file);
                boolean number = code >= 10 && code < 80;
                edited.set(at, code + (number ? " " + (90 + random.nextInt(9)) : " other" + random.nextInt(9)));
                assertThat(hash(edited, binary).equals(before))
                        .as("seed %d, binary %s, %s", seed, binary, tag)
                        .isEqualTo(mark);
            }
        }
    }

    private static final List<String> MARKS =
            List.of("9 $TDUPDATE", "9 $LASTSAVEDBY", "9 $VERSIONGUID", "9 $SAVECOUNT");

    private static List<String> sheet(List<String> header, String text) {
        List<String> tags = new ArrayList<>(List.of("0 SECTION", "2 HEADER", "9 $ACADVER", "1 AC1027"));
        tags.addAll(header);
        tags.addAll(
                List.of("0 ENDSEC", "0 SECTION", "2 ENTITIES", "0 TEXT", "10 1.0", "20 2.0", "40 2.5", "1 " + text));
        tags.addAll(List.of("0 LINE", "10 1.0", "20 2.0", "11 40.0", "21 2.5", "0 ENDSEC", "0 EOF"));
        return tags;
    }

    private static ContentHash hash(List<String> tags) {
        return hash(tags, false);
    }

    private static ContentHash hash(List<String> tags, boolean binary) {
        byte[] file =
                binary ? Dxf.binary(tags, true) : Dxf.of("\n", StandardCharsets.UTF_8, tags.toArray(String[]::new));
        return SaveMarks.without(DxfDrawing.read(file).orElseThrow(r -> new IllegalStateException(r.says())));
    }
}
