package mintshelf.core.drawing;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.stream.Stream;
import javax.xml.parsers.DocumentBuilderFactory;
import mintshelf.core.base.Outcome;
import mintshelf.core.drawing.dxf.DxfDrawing;
import mintshelf.core.drawing.svg.SvgWriter;
import org.junit.jupiter.api.Assumptions;
import org.junit.jupiter.api.Test;

class SceneTest {
    private static Outcome<Scene> read(String blocks, String... entities) {
        String text =
                "0\nSECTION\n2\nTABLES\n0\nTABLE\n2\nLAYER\n0\nLAYER\n2\nRED\n70\n0\n62\n1\n6\nDASHED\n0\nLAYER\n2\nOFF\n70\n0\n62\n-3\n6\nCONTINUOUS\n0\nENDTAB\n"
                        + "0\nTABLE\n2\nLTYPE\n0\nLTYPE\n2\nDASHED\n49\n4.0\n49\n-2.0\n0\nENDTAB\n0\nENDSEC\n"
                        + "0\nSECTION\n2\nBLOCKS\n" + blocks + "0\nENDSEC\n0\nSECTION\n2\nENTITIES\n"
                        + String.join("", entities) + "0\nENDSEC\n0\nEOF\n";
        return ((Outcome.Granted<DxfDrawing>) DxfDrawing.read(text.getBytes(StandardCharsets.UTF_8)))
                .value()
                .scene(DxfDrawing.MODEL, 0);
    }

    private static Scene scene(String blocks, String... entities) {
        return ((Outcome.Granted<Scene>) read(blocks, entities)).value();
    }

    private static String entity(String type, Object... codesAndValues) {
        StringBuilder out = new StringBuilder("0\n" + type + "\n");
        for (int i = 0; i < codesAndValues.length; i += 2)
            out.append(codesAndValues[i])
                    .append('\n')
                    .append(codesAndValues[i + 1])
                    .append('\n');
        return out.toString();
    }

    private static String block(String name, String body) {
        return "0\nBLOCK\n8\n0\n2\n" + name + "\n10\n0\n20\n0\n" + body + "0\nENDBLK\n";
    }

    @Test
    void linesCirclesAndArcsComeWithTheirLayersStyle() {
        Scene scene = scene(
                "",
                entity("LINE", 8, "RED", 10, 0, 20, 0, 11, 10, 21, 5),
                entity("CIRCLE", 8, "0", 10, 5, 20, 5, 40, 2),
                entity("ARC", 8, "0", 10, 0, 20, 0, 40, 3, 50, 270, 51, 90));
        Primitive.Polyline line = (Primitive.Polyline) scene.primitives().get(0);
        assertThat(line.points()).containsExactly(0, 0, 10, 5);
        assertThat(line.style().dashes()).containsExactly(4.0, 2.0);
        assertThat(line.style().colour()).isEqualTo(0xff0000);
        assertThat(((Primitive.Arc) scene.primitives().get(1)).sweep()).isEqualTo(360);
        Primitive.Arc arc = (Primitive.Arc) scene.primitives().get(2);
        assertThat(arc.from()).isEqualTo(270);
        assertThat(arc.sweep()).isEqualTo(180);
    }

    @Test
    void insertsArePlacedScaledTurnedAndRepeated() {
        String arm = block("ARM", entity("LINE", 8, "0", 62, 0, 10, 0, 20, 0, 11, 1, 21, 0));
        Scene scene =
                scene(arm, entity("INSERT", 8, "RED", 2, "arm", 10, 10, 20, 20, 41, 2, 42, 2, 50, 90, 70, 2, 44, 5));
        assertThat(scene.primitives()).hasSize(2);
        double[] first = ((Primitive.Polyline) scene.primitives().get(0)).points();
        assertThat(first[0]).isCloseTo(10, within(1e-9));
        assertThat(first[3]).isCloseTo(22, within(1e-9));
        double[] second = ((Primitive.Polyline) scene.primitives().get(1)).points();
        assertThat(second[1]).isCloseTo(25, within(1e-9));
        assertThat(scene.primitives().get(0).style().layer()).isEqualTo("RED");
        assertThat(scene.primitives().get(0).style().colour()).isEqualTo(0xff0000);
    }

    @Test
    void circlesUnderUnevenScalesBecomeEllipsesAndMirroredArcsTurnRound() {
        String hole = block("H", entity("CIRCLE", 8, "0", 10, 0, 20, 0, 40, 1))
                + block("A", entity("ARC", 8, "0", 10, 0, 20, 0, 40, 1, 50, 0, 51, 90));
        Scene scene = scene(
                hole,
                entity("INSERT", 2, "H", 10, 0, 20, 0, 41, 3, 42, 1),
                entity("INSERT", 2, "A", 10, 0, 20, 0, 41, -1, 42, 1));
        Box box = scene.extents();
        assertThat(scene.primitives().get(0)).isInstanceOf(Primitive.Polyline.class);
        assertThat(box.maxX()).isCloseTo(3, within(0.02));
        Primitive.Arc arc = (Primitive.Arc) scene.primitives().get(1);
        double middle = Math.toRadians(arc.from() + arc.sweep() / 2);
        assertThat(Math.cos(middle)).isCloseTo(-Math.sqrt(0.5), within(1e-9));
        assertThat(Math.sin(middle)).isCloseTo(Math.sqrt(0.5), within(1e-9));
    }

    @Test
    void aBulgeOfOneIsAHalfCircle() {
        Scene scene = scene("", entity("LWPOLYLINE", 8, "0", 90, 2, 70, 0, 10, 0, 20, 0, 42, 1, 10, 10, 20, 0));
        assertThat(scene.extents().minY()).isCloseTo(-5, within(0.02));
        Scene old = scene(
                "",
                entity("POLYLINE", 8, "0", 66, 1, 70, 1),
                entity("VERTEX", 10, 0, 20, 0),
                entity("VERTEX", 10, 4, 20, 0),
                entity("VERTEX", 10, 4, 20, 3),
                entity("SEQEND"));
        Primitive.Polyline line = (Primitive.Polyline) old.primitives().get(0);
        assertThat(line.closed()).isTrue();
        assertThat(line.points()).hasSize(6);
    }

    @Test
    void textsAreAnchoredAndTheirCodesResolved() {
        Scene scene = scene(
                "",
                entity("TEXT", 8, "0", 10, 1, 20, 2, 11, 5, 21, 2, 72, 1, 40, 3.5, 1, "4x %%c5.5"),
                entity(
                        "MTEXT",
                        8,
                        "0",
                        10,
                        0,
                        20,
                        0,
                        40,
                        2.5,
                        71,
                        1,
                        1,
                        "{\\fArial|b0;Break} edges\\P0.3 \\S1/2; \\U+00D8"));
        Primitive.Text centred = (Primitive.Text) scene.primitives().get(0);
        assertThat(centred.text()).isEqualTo("4x \u23005.5");
        assertThat(centred.across()).isEqualTo(1);
        assertThat(centred.x()).isEqualTo(5);
        assertThat(scene.primitives().stream().skip(1).map(p -> ((Primitive.Text) p).text()))
                .containsExactly("Break edges", "0.3 1/2 \u00d8");
    }

    @Test
    void aDimensionIsDrawnByItsBlockAndWhatIsUnknownIsCounted() {
        String dim = block("*D1", entity("LINE", 8, "0", 10, 0, 20, 0, 11, 9, 21, 0));
        Scene scene = scene(
                dim,
                entity("DIMENSION", 8, "RED", 2, "*D1"),
                entity("DIMENSION", 8, "0", 2, "*D9"),
                entity("ACAD_PROXY_ENTITY", 8, "0"),
                entity("LINE", 8, "0", 67, 1, 10, 0, 20, 0, 11, 1, 21, 1));
        assertThat(scene.primitives()).hasSize(1);
        assertThat(scene.notDrawn()).containsEntry("ACAD_PROXY_ENTITY", 1);
    }

    @Test
    void blocksWithoutEndAreRefusedByName() {
        String loop = block("LOOP", entity("INSERT", 2, "LOOP", 10, 0, 20, 0));
        assertThat(read(loop, entity("INSERT", 2, "LOOP"))
                        .refusal()
                        .orElseThrow()
                        .reason())
                .contains("LOOP");
        String dot = block("DOT", entity("LINE", 10, 0, 20, 0, 11, 1, 21, 1));
        assertThat(read(dot, entity("INSERT", 2, "DOT", 70, 30000, 71, 30000)).isGranted())
                .isFalse();
    }

    @Test
    void anEntityWithWhatIsNoNumberIsLeftOutAndSaid() {
        Scene scene = scene(
                "",
                entity("LINE", 10, "NaN", 20, "1e400", 11, 1, 21, 1),
                entity("CIRCLE", 10, "x", 20, 0, 40, 1),
                entity("LINE", 10, "0,5", 20, 0, 11, "1,5", 21, 0));
        assertThat(scene.primitives()).hasSize(1);
        assertThat(scene.extents().maxX()).isEqualTo(1.5);
        assertThat(scene.said()).containsExactly("2 entities from line 57 on could not be read.");
    }

    @Test
    void theSvgIsWellFormedEscapesTextsAndHidesLayersThatAreOff() throws Exception {
        Scene scene = scene(
                "",
                entity("TEXT", 8, "OFF", 10, 0, 20, 0, 40, 3, 1, "<script>&\"'"),
                entity("LINE", 8, "RED", 10, 0, 20, 0, 11, 1, 21, 1),
                entity("SOLID", 8, "0", 10, 0, 20, 0, 11, 1, 21, 0, 12, 0, 22, 1));
        String svg = SvgWriter.write(scene, "A \"sheet\"");
        assertThat(svg)
                .contains("&lt;script&gt;")
                .doesNotContain("<script")
                .contains("visibility=\"hidden\"")
                .doesNotContain("style=");
        DocumentBuilderFactory.newInstance()
                .newDocumentBuilder()
                .parse(new ByteArrayInputStream(svg.getBytes(StandardCharsets.UTF_8)));
        assertThat(SvgWriter.write(new Scene(List.of(), Map.of(), Map.of()), "x"))
                .startsWith("<svg");
    }

    @Test
    void everySampleOfOtherHandsIsDrawnOrRefusedInWords() throws IOException {
        Path samples = Path.of("../../shared/samples");
        Assumptions.assumeTrue(Files.isDirectory(samples), "no samples here");
        try (Stream<Path> files = Files.walk(samples)) {
            for (Path file : files.filter(f -> f.toString().endsWith(".dxf")).toList()) {
                if (!(DxfDrawing.read(Files.readAllBytes(file)) instanceof Outcome.Granted<DxfDrawing> drawing))
                    continue;
                Outcome<Scene> read = drawing.value().scene();
                if (read instanceof Outcome.Granted<Scene> scene)
                    assertThat(SvgWriter.write(scene.value(), file.toString()))
                            .as(file.toString())
                            .endsWith("</svg>");
                else
                    assertThat(read.refusal().orElseThrow().reason())
                            .as(file.toString())
                            .contains("expands");
            }
        }
    }
}
