package mintshelf.core.drawing;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.io.IOException;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Random;
import java.util.stream.Stream;
import mintshelf.core.Dxf;
import mintshelf.core.base.Outcome;
import mintshelf.core.drawing.compare.SheetCompare;
import mintshelf.core.drawing.dxf.DrawingFacts;
import mintshelf.core.drawing.dxf.DxfDrawing;
import mintshelf.core.drawing.dxf.DxfEdit;
import mintshelf.core.drawing.svg.SvgWriter;
import org.junit.jupiter.api.Assertions;
import org.junit.jupiter.api.Assumptions;
import org.junit.jupiter.api.Test;

/** What files say, in every form that they come in, and what becomes of those that are broken. */
class DxfReaderTest {
    private static List<String> tags(String... entities) {
        List<String> tags = new ArrayList<>(List.of("0 SECTION", "2 ENTITIES"));
        // A § stands for the semicolon, which parts the tags here.
        for (String entity : entities) for (String tag : entity.split(";")) tags.add(tag.replace('§', ';'));
        tags.addAll(List.of("0 ENDSEC", "0 EOF"));
        return tags;
    }

    private static byte[] file(List<String> tags) {
        return Dxf.of("\n", StandardCharsets.UTF_8, tags.toArray(new String[0]));
    }

    private static DxfDrawing drawing(byte[] bytes) {
        return ((Outcome.Granted<DxfDrawing>) DxfDrawing.read(bytes)).value();
    }

    private static Scene scene(DxfDrawing drawing, String layout) {
        return ((Outcome.Granted<Scene>) drawing.scene(layout, 0)).value();
    }

    private static Scene scene(String... entities) {
        return scene(drawing(file(tags(entities))), DxfDrawing.MODEL);
    }

    private static Box box(String... entities) {
        return scene(entities).extents();
    }

    private static void near(Box box, double minX, double minY, double maxX, double maxY, double by) {
        assertThat(box.minX()).isCloseTo(minX, within(by));
        assertThat(box.minY()).isCloseTo(minY, within(by));
        assertThat(box.maxX()).isCloseTo(maxX, within(by));
        assertThat(box.maxY()).isCloseTo(maxY, within(by));
    }

    @Test
    void theBinaryFormSaysTheSameAsTheOneInLetters() throws IOException {
        List<String> tags = tags(
                "0 LINE;8 OUTLINE;62 1;10 1.5;20 2;11 30;21 40",
                "0 CIRCLE;8 OUTLINE;10 5;20 5;40 2.25",
                "0 TEXT;8 TEXT;10 1;20 1;40 3.5;1 Gauge ⌀48",
                "0 LWPOLYLINE;8 OUTLINE;90 2;70 0;10 0;20 0;42 1;10 10;20 0");
        Scene letters = scene(drawing(file(tags)), DxfDrawing.MODEL);
        for (boolean wide : new boolean[] {true, false}) {
            DxfDrawing drawing = drawing(Dxf.binary(tags, wide));
            assertThat(drawing.isBinary()).isTrue();
            assertThat(SheetCompare.compare(letters, scene(drawing, DxfDrawing.MODEL))
                            .isEmpty())
                    .isTrue();
            assertThat(DrawingFacts.of(drawing).texts()).containsExactly("Gauge ⌀48");
            assertThat(drawing.entities()).hasSize(4);
        }
    }

    @Test
    void textsAreReadInWhatTheBytesAreNotInWhatTheHeadSays() {
        for (String[] c : new String[][] {
            {"AC1009", "ANSI_932", "windows-31j", "図面表"},
            {"AC1015", "iso8859-1", "ISO-8859-1", "Søren"},
            {"AC1015", "ANSI_1252", "UTF-8", "Søren 図面"},
            {"AC1027", "ANSI_949", "x-windows-949", "신설"},
            {"AC1021", "ANSI_1252", "windows-1252", "Prüfmaß"},
            {"AC1015", "ANSI_1251", "windows-1251", "Чертёж"},
            {"AC1015", "mac-roman", "x-MacRoman", "Größe"}
        }) {
            List<String> tags = new ArrayList<>(List.of(
                    "0 SECTION", "2 HEADER", "9 $ACADVER", "1 " + c[0], "9 $DWGCODEPAGE", "3 " + c[1], "0 ENDSEC"));
            tags.addAll(tags("0 TEXT;8 0;10 0;20 0;40 1;1 " + c[3]));
            byte[] bytes = Dxf.of("\r\n", Charset.forName(c[2]), tags.toArray(new String[0]));
            assertThat(DrawingFacts.of(drawing(bytes)).texts()).as(c[1]).containsExactly(c[3]);
        }
    }

    @Test
    void codesInTextsAreResolvedOnce() {
        assertThat(DrawingFacts.of(drawing(file(tags("0 TEXT;10 0;20 0;40 1;1 \\M+1955C %%c5 \\U+2248 %%176 100%%%"))))
                        .texts())
                .containsExactly("表 ⌀5 ≈ ° 100%");
    }

    @Test
    void curvesStandWhereTheyShould() {
        near(box("0 ELLIPSE;10 0;20 0;11 10;21 0;40 0.5;41 0;42 6.283185307"), -10, -5, 10, 5, 0.02);
        near(box("0 SPLINE;71 2;40 0;40 0;40 0;40 1;40 1;40 1;10 0;20 0;10 5;20 10;10 10;20 0"), 0, 0, 10, 5, 0.02);
        near(box("0 SPLINE;70 0;11 0;21 0;11 5;21 5;11 10;21 0"), 0, 0, 10, 5.2, 0.4);
        near(box("0 ARC;10 0;20 0;40 5;50 0;51 90;210 0;220 0;230 -1"), -5, 0, 0, 5, 1e-9);
        near(box("0 CIRCLE;10 0;20 0;40 5;210 1;220 0;230 0"), 0, -5, 0, 5, 0.01);
        near(box("0 LWPOLYLINE;90 2;70 0;43 2;10 0;20 0;10 10;20 0"), 0, -1, 10, 1, 1e-9);
        near(box("0 3DFACE;70 1;10 0;20 0;11 4;21 0;12 4;22 4;13 0;23 4"), 0, 0, 4, 4, 1e-9);
    }

    @Test
    void aRationalSplineOfACircleIsRound() {
        double w = Math.sqrt(0.5);
        Scene scene = scene(
                "0 SPLINE;71 2;40 0;40 0;40 0;40 1;40 1;40 1;41 1;41 " + w + ";41 1;10 10;20 0;10 10;20 10;10 0;20 10");
        double[] p = ((Primitive.Polyline) scene.primitives().get(0)).points();
        for (int i = 0; i < p.length; i += 2)
            assertThat(Math.hypot(p[i], p[i + 1])).isCloseTo(10, within(1e-9));
    }

    @Test
    void hatchesLeaveTheirIslandsOutAndAreBounded() {
        String square = "92 2;72 0;73 1;93 4;10 0;20 0;10 10;20 0;10 10;20 10;10 0;20 10;97 0";
        String hole = "92 2;72 0;73 1;93 4;10 4;20 4;10 6;20 4;10 6;20 6;10 4;20 6;97 0";
        Scene lines = scene(
                "0 HATCH;2 P;70 0;91 2;" + square + ";" + hole + ";75 0;76 1;78 1;53 0;43 0;44 0.5;45 0;46 1;79 0");
        double[] ends = ((Primitive.Strokes) lines.primitives().get(0)).ends();
        double length = 0;
        for (int i = 0; i < ends.length; i += 4) length += Math.abs(ends[i + 2] - ends[i]);
        assertThat(ends.length / 4).isEqualTo(12);
        assertThat(length).isCloseTo(96, within(1e-6));
        Primitive.Fill solid = (Primitive.Fill) scene("0 HATCH;2 SOLID;70 1;91 2;" + square + ";" + hole + ";75 0;76 1")
                .primitives()
                .get(0);
        assertThat(solid.rings()).hasDimensions(2, 8);
        Scene dense =
                scene("0 HATCH;2 P;70 0;91 1;" + square + ";75 0;76 1;78 1;53 45;43 0;44 0;45 0;46 0.0000001;79 0");
        assertThat(dense.notDrawn()).containsEntry("HATCH too dense to draw", 1);
    }

    @Test
    void dimensionsWithoutABlockAreBuiltFromTheirPoints() {
        Scene scene =
                scene("0 DIMENSION;70 0;10 50;20 20;13 0;23 0;14 50;24 0", "0 DIMENSION;70 3;10 0;20 100;15 20;25 100");
        assertThat(scene.primitives().stream()
                        .filter(p -> p instanceof Primitive.Text)
                        .map(p -> ((Primitive.Text) p).text()))
                .containsExactly("50", "⌀20");
        assertThat(scene.notDrawn()).isEmpty();
    }

    @Test
    void theRestOfTheEntitiesIsDrawn() {
        near(
                box(
                        "0 MLINE;70 1;72 2;73 2;11 0;21 0;12 1;22 0;13 0;23 1;74 1;41 1;74 1;41 -1;11 10;21 0;12 1;22 0;13 0;23 1;74 1;41 1;74 1;41 -1"),
                0,
                -1,
                10,
                1,
                1e-9);
        near(box("0 LEADER;71 0;10 0;20 0;10 5;20 5;10 9;20 5"), 0, 0, 9, 5, 1e-9);
        near(box("0 IMAGE;10 1;20 1;11 0.5;21 0;12 0;22 0.5;13 20;23 10"), 1, 1, 11, 6, 1e-9);
        near(box("0 LINE;10 0;20 0;11 10;21 10", "0 XLINE;10 5;20 5;11 1;21 0"), -1, 0, 11, 10, 1e-6);
        near(
                box(
                        "0 POLYLINE;70 64;71 3;72 1",
                        "0 VERTEX;70 192;10 0;20 0",
                        "0 VERTEX;70 192;10 4;20 0",
                        "0 VERTEX;70 192;10 0;20 3",
                        "0 VERTEX;70 128;71 1;72 2;73 3",
                        "0 SEQEND"),
                0,
                0,
                4,
                3,
                1e-9);
        Scene frame = scene("0 TOLERANCE;10 0;20 0;11 1;21 0;1 {\\Fgdt§j}%%v{\\Fgdt§n}0.1{\\Fgdt§m}%%vA");
        assertThat(frame.primitives().stream()
                        .filter(p -> p instanceof Primitive.Text)
                        .map(p -> ((Primitive.Text) p).text()))
                .containsExactly("⌖", "⌀0.1Ⓜ", "A");
        Scene note = scene(
                "0 MULTILEADER;300 CONTEXT_DATA{;41 3.5;304 see note;12 20;22 20;302 LEADER{;10 15;20 15;304 LEADER_LINE{;10 0;20 0;305 };303 };301 }");
        assertThat(note.primitives()).hasSize(3);
        Scene mask = scene(
                "0 LINE;10 0;20 0;11 9;21 9",
                "0 WIPEOUT;10 1;20 1;11 4;21 0;12 0;22 4;13 1;23 1",
                "0 LINE;10 9;20 0;11 0;21 9");
        String svg = SvgWriter.write(mask, "");
        assertThat(svg.indexOf("#fff")).isBetween(svg.indexOf("<path"), svg.lastIndexOf("<path"));
    }

    @Test
    void aLayoutShowsTheModelThroughItsWindowsCutAndScaled() {
        List<String> tags = new ArrayList<>(List.of(
                "0 SECTION",
                "2 TABLES",
                "0 TABLE",
                "2 LAYER",
                "0 LAYER",
                "5 A1",
                "2 HIDDEN",
                "70 0",
                "62 1",
                "0 LAYER",
                "5 A2",
                "2 SHOWN",
                "70 0",
                "62 1",
                "0 ENDTAB",
                "0 ENDSEC"));
        tags.addAll(tags(
                "0 LINE;8 SHOWN;10 -1000;20 0;11 1000;21 0",
                "0 LINE;8 HIDDEN;10 0;20 -5;11 0;21 5",
                "0 CIRCLE;8 SHOWN;10 20;20 0;40 10",
                "0 VIEWPORT;67 1;68 1;69 1;10 105;20 148;40 300;41 400;45 400",
                "0 VIEWPORT;67 1;68 2;69 2;10 100;20 100;40 80;41 40;12 0;22 0;45 80;331 A1;90 0",
                "0 LINE;67 1;8 FRAME;10 0;20 0;11 210;21 0"));
        DxfDrawing drawing = drawing(file(tags));
        assertThat(drawing.sheet()).isEqualTo("Layout1");
        Scene sheet = scene(drawing, "Layout1");
        // The window is 80 x 40 and shows 80 high: half size.
        assertThat(sheet.primitives()).hasSize(3);
        List<Primitive> shown = sheet.primitives().stream()
                .filter(p -> p.style().layer().equals("SHOWN"))
                .toList();
        assertThat(((Primitive.Polyline) shown.get(0)).points()).containsExactly(60, 100, 140, 100);
        Primitive.Arc hole = (Primitive.Arc) shown.get(1);
        assertThat(new double[] {hole.x(), hole.y(), hole.radius()})
                .containsExactly(new double[] {110, 100, 5}, within(1e-9));
    }

    /** A drawing of a hundred lines from 0 to 990, and the default window of a layout that nobody set up. */
    private static DxfDrawing windowed(double centre, double high, String... more) {
        List<String> tags = new ArrayList<>(tags("0 VIEWPORT;67 1;68 1;69 1;10 105;20 148;40 300;41 400;45 400"));
        int end = tags.lastIndexOf("0 ENDSEC");
        for (int i = 0; i < 100; i++) {
            tags.addAll(end, List.of("0 LINE", "8 0", "10 " + i * 10, "20 0", "11 " + i * 10, "21 5"));
        }
        end = tags.lastIndexOf("0 ENDSEC");
        tags.addAll(
                end,
                List.of(("0 VIEWPORT;67 1;68 2;69 2;10 100;20 100;40 80;41 40;12 " + centre + ";22 0;45 " + high)
                        .split(";")));
        for (String one : more) tags.addAll(tags.lastIndexOf("0 ENDSEC"), List.of(one.split(";")));
        return drawing(file(tags));
    }

    @Test
    void aLayoutThatShowsNextToNothingIsNoSheet() {
        // 20 high and twice as wide: four lines of a hundred.
        assertThat(windowed(500, 19).sheet()).isEqualTo(DxfDrawing.MODEL);
        assertThat(windowed(500, 1000).sheet()).isNotEqualTo(DxfDrawing.MODEL);
        // What stands on the layout itself was put there by somebody.
        assertThat(windowed(500, 19, "0 LINE;67 1;8 FRAME;10 0;20 0;11 210;21 0")
                        .sheet())
                .isNotEqualTo(DxfDrawing.MODEL);
    }

    @Test
    void damageIsSteppedOverAndSaidWithItsLine() {
        String text =
                "0\nSECTION\n2\nENTITIES\n0\nLINE\n10\n0\n20\n0\n11\n5\nrust\n0\nCIRCLE\n10\n9\n20\n9\n40\n1\n0\nENDSEC\n0\nEOF\n";
        Scene scene = scene(drawing(text.getBytes(StandardCharsets.UTF_8)), DxfDrawing.MODEL);
        assertThat(scene.primitives()).hasSize(1);
        assertThat(scene.said())
                .contains("In line 13 stands no group code; reading goes on at the next entity.")
                .hasSize(2);
        String cut = text.substring(0, text.indexOf("9\n40"));
        assertThat(scene(drawing(cut.getBytes(StandardCharsets.UTF_8)), DxfDrawing.MODEL)
                        .said())
                .isNotEmpty();
    }

    @Test
    void bombsEndInARefusalThatNamesTheBlock() {
        List<String> nested = new ArrayList<>(List.of("0 SECTION", "2 BLOCKS"));
        for (int i = 0; i < 8; i++) {
            nested.addAll(List.of("0 BLOCK", "2 B" + i, "10 0", "20 0"));
            if (i > 0) nested.addAll(List.of("0 INSERT", "2 B" + (i - 1), "70 100", "71 100"));
            nested.add("0 ENDBLK");
        }
        nested.add("0 ENDSEC");
        nested.addAll(tags("0 INSERT;2 B7;70 30000;71 30000"));
        Assertions.assertTimeoutPreemptively(Duration.ofSeconds(20), () -> {
            Outcome<Scene> read = drawing(file(nested)).scene();
            assertThat(read.refusal().orElseThrow().reason()).contains("“B").contains("beyond all bounds");
        });
    }

    @Test
    void oneLineOfManyMegabytesAndGarbageEndInTime() {
        byte[] long1 = new byte[40 << 20];
        Arrays.fill(long1, (byte) 'x');
        byte[] head = "0\nSECTION\n2\nENTITIES\n0\nTEXT\n10\n0\n20\n0\n40\n1\n1\n".getBytes(StandardCharsets.UTF_8);
        System.arraycopy(head, 0, long1, 0, head.length);
        Assertions.assertTimeoutPreemptively(Duration.ofSeconds(20), () -> {
            assertThat(scene(drawing(long1), DxfDrawing.MODEL).primitives()).hasSize(1);
            assertThat(DxfDrawing.read(new byte[1 << 20]).isGranted()).isFalse();
            assertThat(DxfDrawing.read("%PDF-1.7\n%".getBytes(StandardCharsets.UTF_8))
                            .isGranted())
                    .isFalse();
            assertThat(DxfDrawing.read("Harbour Binary DXF\r\n\u001a\0".getBytes(StandardCharsets.UTF_8))
                            .isGranted())
                    .isFalse();
        });
    }

    private static List<byte[]> seeds() throws IOException {
        List<byte[]> seeds = new ArrayList<>();
        seeds.add(Dxf.sheet("\r\n", StandardCharsets.ISO_8859_1, "AC1015", "ANSI_1252"));
        seeds.add(file(tags(
                "0 HATCH;70 0;91 1;92 2;93 3;10 0;20 0;10 9;20 0;10 9;20 9;78 1;53 45;45 1;46 1;49 1;49 -1",
                "0 SPLINE;71 3;40 0;40 1;10 0;20 0;10 9;20 9;10 3;20 3;10 4;20 9",
                "0 MTEXT;10 0;20 0;40 2;1 {\\fX§a\\Pb}",
                "0 MLINE;73 2;11 0;21 0;13 0;23 1;74 1;41 1")));
        Path samples = Path.of("../../shared/samples");
        if (Files.isDirectory(samples)) {
            try (Stream<Path> files = Files.walk(samples)) {
                for (Path p : files.filter(f -> f.toString().endsWith(".dxf"))
                        .sorted()
                        .toList()) {
                    if (Files.size(p) < 60_000) seeds.add(Files.readAllBytes(p));
                }
            }
        }
        return seeds;
    }

    @Test
    void whateverIsDoneToAFileItIsReadOrRefusedInWords() throws IOException {
        List<byte[]> seeds = seeds();
        for (int seed = 0; seed < 4000; seed++) {
            Random random = new Random(seed);
            byte[] bytes = mutated(seeds.get(random.nextInt(seeds.size())), random);
            String as = "seed " + seed;
            Assertions.assertTimeout(
                    Duration.ofSeconds(10),
                    () -> {
                        Outcome<DxfDrawing> read = DxfDrawing.read(bytes);
                        if (!(read instanceof Outcome.Granted<DxfDrawing> drawing)) {
                            assertThat(read.refusal().orElseThrow().reason()).isNotBlank();
                            return;
                        }
                        DrawingFacts.of(drawing.value());
                        if (drawing.value().scene() instanceof Outcome.Granted<Scene> scene)
                            SvgWriter.write(scene.value(), "x");
                    },
                    as);
        }
    }

    private static byte[] mutated(byte[] from, Random random) {
        byte[] bytes = from.clone();
        for (int i = 1 + random.nextInt(12); i > 0; i--) {
            int at = random.nextInt(bytes.length);
            switch (random.nextInt(6)) {
                case 0 -> bytes[at] = (byte) random.nextInt(256);
                case 1 -> bytes = Arrays.copyOf(bytes, Math.max(1, at));
                case 2 -> bytes[at] = (byte) '9';
                case 3 -> bytes[at] = (byte) '\n';
                case 4 -> {
                    int length = Math.min(random.nextInt(300), bytes.length - at);
                    int to = random.nextInt(bytes.length - length + 1);
                    System.arraycopy(bytes.clone(), at, bytes, to, length);
                }
                default -> {
                    byte[] word = List.of("-1e308", "NaN", "99999999999", "-0", "1,5", "")
                            .get(random.nextInt(6))
                            .getBytes(StandardCharsets.UTF_8);
                    System.arraycopy(
                            word,
                            0,
                            bytes,
                            Math.min(at, bytes.length - 1),
                            Math.min(
                                    word.length,
                                    bytes.length - at - 1 < 0 ? 0 : Math.min(word.length, bytes.length - at)));
                }
            }
        }
        return bytes;
    }

    @Test
    void readAndWrittenWithoutChangeEverySampleIsTheSameToTheByte() throws IOException {
        Path samples = Path.of("../../shared/samples");
        Assumptions.assumeTrue(Files.isDirectory(samples), "no samples here");
        try (Stream<Path> files = Files.walk(samples)) {
            for (Path file : files.filter(f -> f.toString().endsWith(".dxf")).toList()) {
                byte[] bytes = Files.readAllBytes(file);
                DxfDrawing drawing = drawing(bytes);
                DxfEdit edit = new DxfEdit(drawing);
                assertThat(edit.bytes()).as(file.toString()).isEqualTo(bytes);
            }
        }
    }

    @Test
    void everySampleOfOtherHandsKeepsItsCounts() throws IOException {
        Path samples = Path.of("../../shared/samples");
        Assumptions.assumeTrue(Files.isDirectory(samples), "no samples here");
        DrawingFacts floor = DrawingFacts.of(drawing(Files.readAllBytes(samples.resolve("dxf/floorplan.dxf"))));
        assertThat(floor.entities())
                .containsEntry("LINE", 624)
                .containsEntry("DIMENSION", 63)
                .containsEntry("HATCH", 13);
        assertThat(floor.attributes()).hasSize(8);
        DrawingFacts binary = DrawingFacts.of(drawing(Files.readAllBytes(samples.resolve("dxf/r12-binary.dxf"))));
        assertThat(binary.binary()).isTrue();
        assertThat(binary.said()).isEmpty();
    }
}
