package mintshelf.core.reference;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.stream.Stream;
import mintshelf.core.base.Outcome;
import mintshelf.core.drawing.dxf.DxfDrawing;
import mintshelf.core.model.step.StepReader;
import mintshelf.core.reference.Resolution.Filed;
import org.junit.jupiter.api.Assumptions;
import org.junit.jupiter.api.Test;

class RewriteTest {
    private static final Filed PARENT = new Filed(1, "head.stp", 1, List.of("TG40", "head"), false);

    private static byte[] drawing(List<String> paths) {
        StringBuilder text = new StringBuilder("0\nSECTION\n2\nBLOCKS\n");
        for (int i = 0; i < paths.size(); i++) {
            text.append("0\nBLOCK\n2\nB" + i + "\n70\n4\n1\n" + paths.get(i) + "\n0\nENDBLK\n");
        }
        text.append("0\nENDSEC\n0\nSECTION\n2\nENTITIES\n");
        for (int i = 0; i < paths.size(); i++) text.append("0\nINSERT\n2\nB" + i + "\n10\n1.50\n20\n2.0\n");
        return text.append("0\nENDSEC\n0\nEOF\n").toString().getBytes(StandardCharsets.UTF_8);
    }

    private static byte[] model(List<String> names) {
        StringBuilder text = new StringBuilder("ISO-10303-21;\nHEADER;\nFILE_SCHEMA(('AP242'));\nENDSEC;\nDATA;\n");
        for (int i = 0; i < names.size(); i++) {
            text.append("#" + (10 + i) + " = DOCUMENT_FILE ( '" + names.get(i).replace("'", "''") + "' , '' );\n");
        }
        return text.append("ENDSEC;\nEND-ISO-10303-21;\n").toString().getBytes(StandardCharsets.UTF_8);
    }

    private static byte[] granted(Outcome<byte[]> written) {
        return written.orElseThrow(r -> new IllegalStateException(r.says()));
    }

    private static List<String> paths(byte[] file, boolean isModel) throws IOException {
        List<Written> all = isModel
                ? Written.of(StepReader.read(new ByteArrayInputStream(file))
                        .orElseThrow(r -> new IllegalStateException(r.says())))
                : Written.of(DxfDrawing.read(file).orElseThrow(r -> new IllegalStateException(r.says())));
        return all.stream().map(Written::path).toList();
    }

    @Test
    void aPairIsExchangedAndTwoNamesChangePlaces() throws IOException {
        byte[] now = granted(
                Rewrite.model(model(List.of("a.stp", "b.stp", "c.stp")), Map.of("a.stp", "b.stp", "b.stp", "a.stp")));
        assertThat(paths(now, true)).containsExactly("b.stp", "a.stp", "c.stp");
        byte[] sheet = granted(Rewrite.drawing(drawing(List.of("x/a.dxf", "b.dxf")), Map.of("x/a.dxf", "y/Maß 3.dxf")));
        assertThat(paths(sheet, false)).containsExactly("y/Maß 3.dxf", "b.dxf");
    }

    @Test
    void twoNamesNeverBecomeOne() {
        assertThat(Rewrite.model(model(List.of("a.stp", "b.stp")), Map.of("a.stp", "b.stp"))
                        .refusal())
                .hasValueSatisfying(r -> assertThat(r.code()).isEqualTo("rewrite.two"));
        assertThat(Rewrite.drawing(drawing(List.of("a.dxf", "b.dxf")), Map.of("a.dxf", "c.dxf", "b.dxf", "c.dxf"))
                        .refusal())
                .hasValueSatisfying(r -> assertThat(r.code()).isEqualTo("rewrite.two"));
    }

    @Test
    void whatIsNotThereIsRefusedAndWhatIsNoFileOfItsKindToo() {
        assertThat(Rewrite.model(model(List.of("a.stp")), Map.of("z.stp", "b.stp"))
                        .refusal())
                .hasValueSatisfying(r -> assertThat(r.reason()).contains("z.stp"));
        assertThat(Rewrite.model("none".getBytes(StandardCharsets.UTF_8), Map.of("a", "b"))
                        .refusal())
                .isPresent();
        assertThat(Rewrite.drawing(new byte[0], Map.of("a", "b")).refusal()).isPresent();
    }

    /** In the page of Western letters these bytes would be one letter of another writing. */
    @Test
    void aNameThatWouldReadOtherwiseIsRefused() {
        assertThat(Rewrite.drawing(drawing(List.of("a.dxf", "b.dxf")), Map.of("a.dxf", "ä½’.dxf"))
                        .refusal())
                .hasValueSatisfying(r -> assertThat(r.code()).isEqualTo("rewrite.differs"));
    }

    @Test
    void aNameOfSeveralLinesBreaksNothing() throws IOException {
        byte[] now = granted(Rewrite.drawing(drawing(List.of("a.dxf", "b.dxf")), Map.of("a.dxf", "c.dxf\n0\nEOF")));
        assertThat(paths(now, false)).hasSize(2).contains("b.dxf");
    }

    @Test
    void thereAndBackIsTheFileAsItWas() throws IOException {
        Random random = new Random(18);
        String letters = "abc XYZ-_()äßŁ'%";
        for (int round = 0; round < 300; round++) {
            List<String> names = new ArrayList<>();
            Map<String, String> there = new LinkedHashMap<>();
            Map<String, String> back = new LinkedHashMap<>();
            int count = 1 + random.nextInt(6);
            for (int i = 0; i < count; i++) {
                StringBuilder anew = new StringBuilder("n" + i);
                for (int k = random.nextInt(12); k > 0; k--)
                    anew.append(letters.charAt(random.nextInt(letters.length())));
                String name = anew + ".x";
                String old = "dir" + i + "/part " + i + ".x";
                names.add(old);
                if (random.nextBoolean()) {
                    there.put(old, name);
                    back.put(name, old);
                }
            }
            boolean isModel = random.nextBoolean();
            byte[] file = isModel ? model(names) : drawing(names);
            byte[] now = granted(isModel ? Rewrite.model(file, there) : Rewrite.drawing(file, there));
            List<String> expected =
                    names.stream().map(n -> there.getOrDefault(n, n)).toList();
            assertThat(paths(now, isModel)).as("seed 18, round " + round).isEqualTo(expected);
            assertThat(granted(isModel ? Rewrite.model(now, back) : Rewrite.drawing(now, back)))
                    .as("seed 18, round " + round)
                    .isEqualTo(file);
        }
    }

    /** Files of other programs, where they are at hand: what refers to nothing comes back as it is. */
    @Test
    void filesOfOthersKeepEveryByte() throws IOException {
        Path samples = Path.of("../../shared/samples");
        Assumptions.assumeTrue(Files.isDirectory(samples), "the samples are not at hand");
        try (Stream<Path> all = Files.walk(samples)) {
            for (Path file : all.filter(Files::isRegularFile).toList()) {
                byte[] bytes = Files.readAllBytes(file);
                boolean isModel = file.toString().matches(".*\\.(stp|step)");
                if (!isModel && !file.toString().endsWith(".dxf")) continue;
                Outcome<byte[]> same = isModel ? Rewrite.model(bytes, Map.of()) : Rewrite.drawing(bytes, Map.of());
                if (same instanceof Outcome.Granted<byte[]> written) {
                    assertThat(written.value()).as(file.toString()).isEqualTo(bytes);
                }
            }
        }
    }

    private static Filed component(long shelf, String name, String... folders) {
        return new Filed(2, name, shelf, List.of(folders), false);
    }

    @Test
    void aRenamedFileIsNamedWhereItWasNamed() {
        Filed float2 = component(1, "FLOAT-2.stp", "TG40", "head", "parts");
        assertThat(WrittenAnew.path("float.stp", PARENT, float2)).isEqualTo(Optional.of("FLOAT-2.stp"));
        assertThat(WrittenAnew.path("parts\\float.stp", PARENT, float2)).isEqualTo(Optional.of("parts\\FLOAT-2.stp"));
        assertThat(WrittenAnew.path("C:\\old\\float.stp", PARENT, float2))
                .isEqualTo(Optional.of("C:\\old\\FLOAT-2.stp"));
        assertThat(WrittenAnew.path("float-2.STP", PARENT, float2)).isEmpty();
    }

    @Test
    void aMovedFileIsNamedByItsFolderWhereItWasNamedByOne() {
        Filed moved = component(1, "float.stp", "TG40", "mast");
        assertThat(WrittenAnew.path("float.stp", PARENT, moved)).isEmpty();
        assertThat(WrittenAnew.path("parts/float.stp", PARENT, moved)).isEqualTo(Optional.of("../mast/float.stp"));
        assertThat(WrittenAnew.path("parts\\old.stp", PARENT, moved)).isEqualTo(Optional.of("..\\mast\\float.stp"));
        assertThat(WrittenAnew.path("../mast/float.stp", PARENT, moved)).isEmpty();
        assertThat(WrittenAnew.path("parts/float.stp", PARENT, component(2, "float.stp", "LS18")))
                .as("on another shelf it is found by its name")
                .isEmpty();
    }
}
