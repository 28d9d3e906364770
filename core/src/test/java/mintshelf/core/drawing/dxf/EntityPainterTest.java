package mintshelf.core.drawing.dxf;

import static mintshelf.core.drawing.Drawn.all;
import static mintshelf.core.drawing.Drawn.block;
import static mintshelf.core.drawing.Drawn.entity;
import static mintshelf.core.drawing.Drawn.scene;
import static mintshelf.core.drawing.Drawn.sceneOf;
import static mintshelf.core.drawing.Drawn.texts;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.Arrays;
import java.util.List;
import mintshelf.core.drawing.Box;
import mintshelf.core.drawing.Drawn;
import mintshelf.core.drawing.Primitive;
import mintshelf.core.drawing.Scene;
import mintshelf.core.drawing.Style;
import org.junit.jupiter.api.Test;

class EntityPainterTest {
    private static double area(double[] ring) {
        double sum = 0;
        for (int i = 0; i + 1 < ring.length; i += 2) {
            int k = (i + 2) % ring.length;
            sum += ring[i] * ring[k + 1] - ring[k] * ring[i + 1];
        }
        return Math.abs(sum / 2);
    }

    private static int strokes(Scene scene) {
        return all(scene, Primitive.Strokes.class).stream()
                .mapToInt(s -> s.ends().length / 4)
                .sum();
    }

    @Test
    void aPointIsADotAndALineOfNoLengthToo() {
        assertThat(all(scene(entity("POINT", 10, 7, 20, 8)), Primitive.Polyline.class)
                        .get(0)
                        .points())
                .containsExactly(7, 8, 7, 8);
    }

    @Test
    void anArcPastItsZeroGoesRoundTheShortOrTheLongWayAsItSays() {
        Primitive.Arc over = all(scene(entity("ARC", 40, 5, 50, 350, 51, 10)), Primitive.Arc.class)
                .get(0);
        assertThat(over.sweep()).isCloseTo(20, within(1e-9));
        Primitive.Arc long3 = all(scene(entity("ARC", 40, 5, 50, 10, 51, 350)), Primitive.Arc.class)
                .get(0);
        assertThat(long3.sweep()).isCloseTo(340, within(1e-9));
        Primitive.Arc same = all(scene(entity("ARC", 40, 5, 50, 30, 51, 30)), Primitive.Arc.class)
                .get(0);
        assertThat(same.sweep()).isEqualTo(360);
    }

    @Test
    void aCircleOfNoSizeIsNotDrawn() {
        assertThat(scene(entity("CIRCLE", 40, 0), entity("CIRCLE", 40, -3)).primitives())
                .isEmpty();
    }

    @Test
    void anEllipseHasTheAxesThatItSaysAndMayBeOpen() {
        Box whole = scene(entity("ELLIPSE", 10, 50, 20, 50, 11, 0, 21, 20, 40, 0.25))
                .extents();
        assertThat(whole.height()).isCloseTo(40, within(0.05));
        assertThat(whole.width()).isCloseTo(10, within(0.05));
        Primitive.Polyline half = all(
                        scene(entity("ELLIPSE", 11, 20, 21, 0, 40, 0.5, 41, 0, 42, Math.PI)), Primitive.Polyline.class)
                .get(0);
        assertThat(half.closed()).isFalse();
        assertThat(Box.of(half.points()).minY()).isCloseTo(0, within(1e-6));
        Primitive.Polyline seenFromBehind = all(
                        scene(entity("ELLIPSE", 11, 20, 21, 0, 40, 0.5, 41, 0, 42, Math.PI, 210, 0, 220, 0, 230, -1)),
                        Primitive.Polyline.class)
                .get(0);
        assertThat(Box.of(seenFromBehind.points()).maxY()).isCloseTo(0, within(1e-6));
    }

    @Test
    void aSolidsCornersGoRoundThoughTheyAreListedAcross() {
        double[] ring = all(
                        scene(entity("SOLID", 10, 0, 20, 0, 11, 10, 21, 0, 12, 0, 22, 6, 13, 10, 23, 6)),
                        Primitive.Fill.class)
                .get(0)
                .rings()[0];
        assertThat(area(ring)).as("no bow tie").isEqualTo(60);
        double[] three = all(scene(entity("SOLID", 10, 0, 20, 0, 11, 10, 21, 0, 12, 0, 22, 6)), Primitive.Fill.class)
                .get(0)
                .rings()[0];
        assertThat(area(three)).isEqualTo(30);
    }

    @Test
    void aWideLineIsAnAreaAsWideAsItSays() {
        Scene level = scene(entity("LWPOLYLINE", 90, 2, 70, 0, 43, 4, 10, 0, 20, 0, 10, 50, 20, 0));
        assertThat(area(all(level, Primitive.Fill.class).get(0).rings()[0])).isEqualTo(200);
        Scene tapered = scene(entity("LWPOLYLINE", 90, 2, 70, 0, 10, 0, 20, 0, 40, 6, 41, 0, 10, 50, 20, 0));
        assertThat(area(all(tapered, Primitive.Fill.class).get(0).rings()[0])).isEqualTo(150);
        Scene ring = scene(entity("LWPOLYLINE", 90, 2, 70, 1, 43, 2, 10, -10, 20, 0, 42, 1, 10, 10, 20, 0, 42, 1));
        assertThat(all(ring, Primitive.Fill.class).stream()
                        .mapToDouble(f -> area(f.rings()[0]))
                        .sum())
                .as("a washer 2 wide around a circle of 20")
                .isCloseTo(Math.PI * 20 * 2, within(0.5));
    }

    @Test
    void bulgesAreArcsWhoseCentresCanBeFound() {
        Scene slot = scene(entity(
                "LWPOLYLINE", 90, 4, 70, 1, 10, 0, 20, 0, 10, 40, 20, 0, 42, 1, 10, 40, 20, 10, 10, 0, 20, 10, 42, 1));
        List<Primitive.Arc> arcs = all(slot, Primitive.Arc.class);
        assertThat(arcs).extracting(Primitive.Arc::x).containsExactlyInAnyOrder(40.0, 0.0);
        assertThat(arcs).allMatch(a -> Math.abs(a.radius() - 5) < 1e-9 && Math.abs(a.sweep() - 180) < 1e-9);
        assertThat(all(slot, Primitive.Polyline.class)).hasSize(2);
    }

    @Test
    void controlPointsOfAFittedOldPolylineAreNotDrawn() {
        Scene scene = scene(
                entity("POLYLINE", 66, 1, 70, 4),
                entity("VERTEX", 70, 16, 10, 99, 20, 99),
                entity("VERTEX", 70, 8, 10, 0, 20, 0),
                entity("VERTEX", 70, 8, 10, 10, 20, 5),
                entity("SEQEND"),
                entity("LINE", 10, 0, 20, 0, 11, 1, 21, 1));
        assertThat(all(scene, Primitive.Polyline.class).get(0).points()).containsExactly(0, 0, 10, 5);
        assertThat(scene.primitives()).as("what follows is read").hasSize(2);
    }

    @Test
    void aMeshIsANetAndAPolyfaceHidesItsSeams() {
        StringBuilder net = new StringBuilder(entity("POLYLINE", 66, 1, 70, 16, 71, 3, 72, 2));
        for (int i = 0; i < 6; i++) net.append(entity("VERTEX", 70, 64, 10, i / 2 * 10, 20, i % 2 * 5));
        Scene mesh = scene(net + entity("SEQEND"));
        assertThat(all(mesh, Primitive.Polyline.class)).hasSize(3 + 2);
        Scene wrong = scene(entity("POLYLINE", 66, 1, 70, 16, 71, 9, 72, 9), entity("VERTEX", 10, 0), entity("SEQEND"));
        assertThat(wrong.notDrawn()).containsEntry("POLYLINE mesh", 1);
        Scene faces = scene(
                entity("POLYLINE", 66, 1, 70, 64),
                entity("VERTEX", 70, 192, 10, 0, 20, 0),
                entity("VERTEX", 70, 192, 10, 10, 20, 0),
                entity("VERTEX", 70, 192, 10, 10, 20, 10),
                entity("VERTEX", 70, 192, 10, 0, 20, 10),
                entity("VERTEX", 70, 128, 71, 1, 72, 2, 73, -3),
                entity("VERTEX", 70, 128, 71, 1, 72, 3, 73, 4),
                entity("SEQEND"));
        assertThat(strokes(faces)).as("2 + 3, the seam of the first hidden").isEqualTo(5);
    }

    @Test
    void aFaceShowsOnlyTheEdgesThatAreSeen() {
        Object[] corners = {10, 0, 20, 0, 11, 10, 21, 0, 12, 10, 22, 10, 13, 0, 23, 10};
        assertThat(strokes(scene(entity("3DFACE", corners)))).isEqualTo(4);
        Object[] hidden = Arrays.copyOf(corners, corners.length + 2);
        hidden[corners.length] = 70;
        hidden[corners.length + 1] = 5;
        assertThat(strokes(scene(entity("3DFACE", hidden)))).isEqualTo(2);
        assertThat(strokes(scene(entity("3DFACE", 10, 0, 20, 0, 11, 10, 21, 0, 12, 10, 22, 10))))
                .as("a triangle")
                .isEqualTo(3);
    }

    @Test
    void aMaskCoversWithPaperAndAnImageIsItsFrame() {
        Scene mask = scene(entity("WIPEOUT", 10, 5, 20, 5, 11, 10, 21, 0, 12, 0, 22, 10, 13, 1, 23, 1));
        Primitive.Fill paper = all(mask, Primitive.Fill.class).get(0);
        assertThat(paper.style().colour()).isEqualTo(Style.PAPER);
        assertThat(area(paper.rings()[0])).isEqualTo(100);
        Scene clipped = scene(entity(
                "WIPEOUT", 10, 0, 20, 0, 11, 10, 21, 0, 12, 0, 22, 10, 13, 1, 23, 1, 71, 2, 91, 4, 14, -0.5, 24, -0.5,
                14, 0.5, 24, -0.5, 14, 0.5, 24, 0.5));
        assertThat(area(all(clipped, Primitive.Fill.class).get(0).rings()[0])).isEqualTo(50);
        Scene image = scene(entity("IMAGE", 10, 0, 20, 0, 11, 0.1, 21, 0, 12, 0, 22, 0.1, 13, 640, 23, 480));
        assertThat(image.extents().width()).isCloseTo(64, within(1e-9));
        assertThat(image.notDrawn()).containsKey("IMAGE (its frame is drawn)");
    }

    @Test
    void endlessLinesCrossAllElseAndRaysBeginWhereTheyBegin() {
        String frame = entity("LWPOLYLINE", 90, 4, 70, 1, 10, 0, 20, 0, 10, 100, 20, 0, 10, 100, 20, 50, 10, 0, 20, 50);
        Primitive.Polyline line = all(
                        scene(frame, entity("XLINE", 10, 50, 20, 25, 11, 1, 21, 0)), Primitive.Polyline.class)
                .get(1);
        assertThat(Box.of(line.points()).minX()).isLessThan(0);
        assertThat(Box.of(line.points()).maxX()).isGreaterThan(100);
        Primitive.Polyline ray = all(
                        scene(frame, entity("RAY", 10, 50, 20, 25, 11, -1, 21, 0)), Primitive.Polyline.class)
                .get(1);
        assertThat(Box.of(ray.points()).maxX()).isCloseTo(50, within(1e-9));
        assertThat(scene(entity("XLINE", 10, 5, 20, 5, 11, 0, 21, 0)).primitives())
                .as("without a direction it is none")
                .isEmpty();
    }

    @Test
    void whatStandsOnLayerNoughtOrByBlockGoesWithItsInsert() {
        String layers = "0\nTABLE\n2\nLAYER\n" + entity("LAYER", 2, "WELD", 70, 0, 62, 1, 6, "CONTINUOUS", 370, 70)
                + "0\nENDTAB\n";
        String mark = block(
                "MARK",
                entity("LINE", 8, "0", 10, 0, 20, 0, 11, 1, 21, 0),
                entity("LINE", 8, "0", 62, 0, 370, -2, 10, 0, 20, 0, 11, 1, 21, 0),
                entity("LINE", 8, "OWN", 62, 5, 370, 13, 10, 0, 20, 0, 11, 1, 21, 0));
        List<Primitive> drawn =
                sceneOf(layers, mark, entity("INSERT", 8, "WELD", 2, "MARK")).primitives();
        assertThat(drawn.get(0).style().layer()).isEqualTo("WELD");
        assertThat(drawn.get(0).style().colour()).isEqualTo(0xff0000);
        assertThat(drawn.get(1).style().weight()).isEqualTo(0.7);
        assertThat(drawn.get(2).style().layer()).isEqualTo("OWN");
        assertThat(drawn.get(2).style().weight()).isEqualTo(0.13);
    }

    @Test
    void whereAThingComesFromIsItsInsertAndThePathOfItsBlocks() {
        String blocks = block("INNER", entity("CIRCLE", 5, "A1", 40, 1))
                + block("OUTER", entity("INSERT", 5, "B2", 2, "INNER"));
        Primitive circle = sceneOf("", blocks, entity("INSERT", 5, "C3", 2, "OUTER"))
                .primitives()
                .get(0);
        assertThat(circle.source().handle()).isEqualTo(0xc3);
        assertThat(circle.source().path()).isEqualTo("OUTER/INNER");
    }

    @Test
    void aValueToBeFilledInShowsItsTagOnTheSheetAndNotInAnInsert() {
        String tag = entity("ATTDEF", 10, 0, 20, 0, 40, 3, 1, "316L", 2, "MATERIAL");
        assertThat(texts(scene(tag))).isNotEmpty();
        assertThat(texts(sceneOf("", block("B", tag), entity("INSERT", 2, "B"))))
                .isEmpty();
        String constant = entity("ATTDEF", 10, 0, 20, 0, 40, 3, 70, 2, 1, "316L", 2, "MATERIAL");
        assertThat(texts(sceneOf("", block("B", constant), entity("INSERT", 2, "B"))))
                .containsExactly("316L");
    }

    @Test
    void aTableIsDrawnByItsBlockWhereItStands() {
        String cells = block("*T1", entity("LINE", 10, 0, 20, 0, 11, 10, 21, 0));
        Box box = sceneOf("", cells, entity("ACAD_TABLE", 2, "*T1", 10, 30, 20, 40, 11, 0, 21, 1))
                .extents();
        assertThat(box.minX()).isCloseTo(30, within(1e-9));
        assertThat(box.maxY()).isCloseTo(50, within(1e-9));
        assertThat(scene(entity("ACAD_TABLE", 2, "*T9")).notDrawn()).containsKey("ACAD_TABLE without its block");
    }

    @Test
    void missingBlocksAndReferencesAreSaidAndInvisibleThingsAreNotDrawn() {
        Scene scene = scene(
                entity("INSERT", 2, "NOWHERE"),
                entity("LINE", 60, 1, 10, 0, 20, 0, 11, 9, 21, 9),
                entity("ACAD_PROXY_OBJECT"),
                entity("SEQEND"));
        assertThat(scene.primitives()).isEmpty();
        assertThat(scene.notDrawn()).containsOnlyKeys("INSERT of a missing block");
    }

    @Test
    void arraysOfInsertsStandInRowsAndColumnsAlongTheirTurn() {
        String dot = block("DOT", entity("CIRCLE", 40, 1));
        Scene grid = sceneOf("", dot, entity("INSERT", 2, "DOT", 70, 3, 71, 2, 44, 10, 45, 20, 50, 90));
        assertThat(all(grid, Primitive.Arc.class)).hasSize(6);
        assertThat(grid.extents().height()).isCloseTo(2 * 10 + 2, within(1e-9));
        assertThat(grid.extents().width()).isCloseTo(20 + 2, within(1e-9));
    }

    @Test
    void aViewportShowsModelSpaceThroughItsFrameAtItsScaleWithoutItsHiddenLayers() {
        byte[] file = Drawn.file(
                "",
                "0\nTABLE\n2\nLAYER\n" + entity("LAYER", 5, "A1", 2, "HIDDEN", 70, 0, 62, 7, 6, "CONTINUOUS")
                        + "0\nENDTAB\n",
                "",
                entity("CIRCLE", 8, "0", 10, 1000, 20, 500, 40, 100),
                entity("CIRCLE", 8, "HIDDEN", 10, 1000, 20, 500, 40, 50),
                entity("LINE", 8, "0", 10, 0, 20, 500, 11, 5000, 21, 500),
                entity("VIEWPORT", 67, 1, 68, 1, 69, 1, 10, 105, 20, 148, 40, 300, 41, 400, 45, 400),
                entity(
                        "VIEWPORT",
                        67,
                        1,
                        68,
                        2,
                        69,
                        2,
                        10,
                        100,
                        20,
                        100,
                        40,
                        80,
                        41,
                        40,
                        12,
                        1000,
                        22,
                        500,
                        45,
                        400,
                        331,
                        "A1",
                        90,
                        0));
        DxfDrawing drawing = Drawn.drawing(file);
        Scene sheet = sceneOf(drawing, drawing.layouts().get(1));
        Primitive.Arc hole = all(sheet, Primitive.Arc.class).get(0);
        assertThat(all(sheet, Primitive.Arc.class)).hasSize(1);
        assertThat(new double[] {hole.x(), hole.y(), hole.radius()})
                .containsExactly(new double[] {100, 100, 10}, within(1e-9));
        double[] line = all(sheet, Primitive.Polyline.class).get(0).points();
        assertThat(line).as("cut at the frame").containsExactly(new double[] {60, 100, 140, 100}, within(1e-9));
    }

    @Test
    void aViewportMayBeTurnedAndOneThatLooksFromAsideIsSaid() {
        Object[] turned = {67, 1, 68, 2, 69, 2, 10, 0, 20, 0, 40, 200, 41, 200, 12, 0, 22, 0, 45, 200, 51, 90, 90, 0};
        DxfDrawing drawing = Drawn.drawing(
                Drawn.file("", "", "", entity("LINE", 10, 0, 20, 0, 11, 50, 21, 0), entity("VIEWPORT", turned)));
        double[] line = all(sceneOf(drawing, drawing.layouts().get(1)), Primitive.Polyline.class)
                .get(0)
                .points();
        assertThat(line).containsExactly(new double[] {0, 0, 0, 50}, within(1e-9));
        DxfDrawing aside = Drawn.drawing(Drawn.file(
                "",
                "",
                "",
                entity("LINE", 10, 0, 20, 0, 11, 50, 21, 0),
                entity(
                        "VIEWPORT",
                        67,
                        1,
                        68,
                        2,
                        69,
                        2,
                        10,
                        0,
                        20,
                        0,
                        40,
                        200,
                        41,
                        200,
                        16,
                        1,
                        26,
                        0,
                        36,
                        0,
                        45,
                        200,
                        90,
                        0)));
        assertThat(sceneOf(aside, aside.layouts().get(1)).notDrawn()).containsKey("VIEWPORT not from above");
    }
}
