package mintshelf.core.drawing.merge;

import static mintshelf.core.drawing.Drawn.block;
import static mintshelf.core.drawing.Drawn.drawing;
import static mintshelf.core.drawing.Drawn.entity;
import static mintshelf.core.drawing.Drawn.file;
import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.IntStream;
import mintshelf.core.base.Outcome;
import mintshelf.core.drawing.compare.Comparison;
import mintshelf.core.drawing.compare.SheetCompare;
import mintshelf.core.drawing.dxf.DxfDrawing;
import mintshelf.core.drawing.merge.ThreeWay.Fate;
import mintshelf.core.drawing.merge.ThreeWay.Row;
import org.junit.jupiter.api.Test;

/** What became of a sheet is taken up by one that began from it. */
class ThreeWayTest {
    private static final String LAYERS = "0\nTABLE\n2\nLAYER\n70\n2\n" + entity("LAYER", 2, "0", 70, 0, 62, 7)
            + entity("LAYER", 2, "PLATE", 70, 0, 62, 7) + "0\nENDTAB\n";

    private static String circle(double x, double y, double radius) {
        return entity("CIRCLE", 8, "PLATE", 10, x, 20, y, 40, radius);
    }

    private static String line(double x1, double y1, double x2, double y2) {
        return entity("LINE", 8, "0", 10, x1, 20, y1, 11, x2, 21, y2);
    }

    private static String text(double x, double y, String says) {
        return entity("TEXT", 8, "0", 10, x, 20, y, 40, 5, 1, says);
    }

    /** A plate with four holes and a note, and lines around them that nobody touches. */
    private static List<String> plate() {
        List<String> all = new ArrayList<>();
        IntStream.range(0, 20).forEach(i -> all.add(line(0, i * 10, 400, i * 10 + 1)));
        all.add(circle(50, 205, 5));
        all.add(circle(150, 205, 5));
        all.add(circle(250, 205, 5));
        all.add(circle(350, 205, 5));
        all.add(text(20, 260, "deburr"));
        return all;
    }

    private static List<String> with(List<String> all, String old, String... now) {
        List<String> changed = new ArrayList<>(all);
        int at = changed.indexOf(old);
        assertThat(at).isNotNegative();
        changed.remove(at);
        changed.addAll(at, List.of(now));
        return changed;
    }

    private static byte[] bytes(List<String> entities) {
        return file("", LAYERS, "", entities.toArray(new String[0]));
    }

    private static DxfDrawing sheet(List<String> entities) {
        return drawing(bytes(entities));
    }

    private static ThreeWay three(DxfDrawing base, DxfDrawing theirs, DxfDrawing mine) {
        return ThreeWay.of(base, theirs, mine).orElseThrow(r -> new IllegalStateException(r.says()));
    }

    private static ThreeWay three(List<String> theirs, List<String> mine) {
        return three(sheet(plate()), sheet(theirs), sheet(mine));
    }

    private static String text(Outcome<byte[]> written) {
        return new String(written.orElseThrow(r -> new IllegalStateException(r.says())), StandardCharsets.UTF_8);
    }

    private static List<Integer> all(ThreeWay three) {
        return three.rows().stream().map(r -> r.difference().number()).toList();
    }

    private static List<Fate> fates(ThreeWay three) {
        return three.rows().stream().map(Row::fate).toList();
    }

    @Test
    void whatWasNotTouchedHereGoesOverAndWhatWasStays() {
        List<String> theirs = with(plate(), circle(50, 205, 5), circle(50, 205, 8));
        List<String> mine = with(plate(), text(20, 260, "deburr"), text(20, 260, "deburr, R 0.5"));
        ThreeWay three = three(theirs, mine);
        assertThat(fates(three)).containsExactly(Fate.GOES);
        assertThat(three.rows().get(0).difference().says()).contains("⌀ 10", "⌀ 16");
        assertThat(text(three.write(all(three))))
                .isEqualTo(
                        new String(bytes(with(mine, circle(50, 205, 5), circle(50, 205, 8))), StandardCharsets.UTF_8));
        assertThat(text(three.write(List.of()))).isEqualTo(new String(bytes(mine), StandardCharsets.UTF_8));
    }

    @Test
    void theSameOnBothIsThereAlreadyAndNothingIsWritten() {
        List<String> both = with(plate(), circle(50, 205, 5), circle(50, 205, 8));
        ThreeWay three = three(both, both);
        assertThat(fates(three)).containsExactly(Fate.THERE);
        assertThat(text(three.write(all(three)))).isEqualTo(new String(bytes(both), StandardCharsets.UTF_8));
    }

    @Test
    void whatBothChangedIsDecidedAndTheirsTakesThePlaceOfMine() {
        List<String> theirs = with(plate(), circle(50, 205, 5), circle(50, 205, 8));
        List<String> mine = with(plate(), circle(50, 205, 5), circle(50, 205, 3));
        ThreeWay three = three(theirs, mine);
        assertThat(fates(three)).containsExactly(Fate.DECIDE);
        assertThat(three.rows().get(0).why()).contains("changed here too", "⌀ 6");
        assertThat(text(three.write(all(three)))).isEqualTo(new String(bytes(theirs), StandardCharsets.UTF_8));
        // What is gone here and changed there is to be decided as well, and comes back when it is wanted.
        ThreeWay gone = three(theirs, with(plate(), circle(50, 205, 5)));
        assertThat(fates(gone)).containsExactly(Fate.DECIDE);
        assertThat(text(gone.write(all(gone)))).contains(circle(50, 205, 8));
    }

    @Test
    void whatIsNewThereComesInAndWhatIsGoneThereGoes() {
        List<String> theirs = with(plate(), circle(350, 205, 5));
        theirs.add(circle(200, 240, 2));
        List<String> mine = new ArrayList<>(plate());
        mine.add(text(200, 280, "short"));
        ThreeWay three = three(theirs, mine);
        assertThat(fates(three)).containsOnly(Fate.GOES).hasSize(2);
        String written = text(three.write(all(three)));
        assertThat(written).contains(circle(200, 240, 2), "short").doesNotContain(circle(350, 205, 5));
        // One of them alone.
        int added = three.rows().stream()
                .filter(r -> r.difference().kind() == Comparison.Kind.ONLY_IN_NEW)
                .findFirst()
                .orElseThrow()
                .difference()
                .number();
        assertThat(text(three.write(List.of(added)))).contains(circle(200, 240, 2), circle(350, 205, 5));
    }

    @Test
    void equalThingsAreCounted() {
        // Four equal lines on one place there, three here: one of them is gone on one side only.
        List<String> base = new ArrayList<>(plate());
        for (int i = 0; i < 3; i++) base.add(circle(200, 300, 9));
        List<String> theirs = with(base, circle(200, 300, 9));
        ThreeWay three = three(sheet(base), sheet(theirs), sheet(base));
        String written = text(three.write(all(three)));
        assertThat(written.split(java.util.regex.Pattern.quote(circle(200, 300, 9)), -1))
                .hasSize(three.rows().isEmpty() ? 4 : 3);
    }

    @Test
    void aLayerThatIsNotHereKeepsItBack() {
        List<String> theirs = new ArrayList<>(plate());
        theirs.add(entity("CIRCLE", 8, "HOSES", 10, 200, 20, 240, 40, 4));
        ThreeWay three = three(theirs, plate());
        assertThat(fates(three)).containsExactly(Fate.LACKS);
        assertThat(three.rows().get(0).why()).contains("the layer HOSES");
        assertThat(text(three.write(all(three)))).isEqualTo(new String(bytes(plate()), StandardCharsets.UTF_8));
    }

    private static DxfDrawing dimensioned(String dimension, String blocks) {
        List<String> all = new ArrayList<>(plate());
        all.add(dimension);
        return drawing(file("", LAYERS, blocks, all.toArray(new String[0])));
    }

    private static String dimension(String drawnBy) {
        return entity("DIMENSION", 8, "0", 2, drawnBy, 10, 50, 20, 320, 13, 50, 23, 205, 14, 150, 24, 205, 70, 0);
    }

    @Test
    void theBlockThatADimensionIsDrawnByComesAlongUnderANameThatIsFree() {
        String was = block("*D1", text(90, 320, "100"), line(50, 318, 150, 318));
        String other = block("*D2", text(90, 340, "own"));
        DxfDrawing base = dimensioned(dimension("*D1"), was);
        DxfDrawing theirs = dimensioned(dimension("*D1"), block("*D1", text(90, 320, "96"), line(50, 318, 150, 318)));
        DxfDrawing mine = dimensioned(dimension("*D2"), other.replace("*D2", "*D9") + was.replace("*D1", "*D2"));
        ThreeWay three = three(base, theirs, mine);
        assertThat(fates(three)).containsOnly(Fate.GOES);
        byte[] written = three.write(all(three)).orElseThrow(r -> new IllegalStateException(r.says()));
        assertThat(SheetCompare.compare(
                                theirs.scene().orElseThrow(r -> new IllegalStateException()),
                                drawing(written).scene().orElseThrow(r -> new IllegalStateException()))
                        .differences())
                .isEmpty();
    }

    @Test
    void handlesThatAreGivenHereAreNotGivenTwice() {
        String marked = entity("CIRCLE", 5, "A1", 8, "PLATE", 10, 200, 20, 240, 40, 4);
        String other = entity("CIRCLE", 5, "A1", 8, "PLATE", 10, 210, 20, 290, 40, 6);
        List<String> base = plate();
        List<String> theirs = new ArrayList<>(base);
        theirs.add(marked);
        List<String> mine = new ArrayList<>(base);
        mine.add(other);
        ThreeWay three = three(sheet(base), sheet(theirs), sheet(mine));
        String written = text(three.write(all(three)));
        assertThat(written).contains(other, "  5\nA2\n");
    }

    @Test
    void sheetsThatAreStrangersAreNotHeldAgainstEachOther() {
        assertThat(ThreeWay.of(sheet(plate()), sheet(plate()), sheet(List.of(circle(1, 1, 1))))
                        .refusal())
                .hasValueSatisfying(r -> assertThat(r.code()).isEqualTo("three_way.strange"));
        assertThat(ThreeWay.of(sheet(List.of()), sheet(plate()), sheet(plate())).refusal())
                .isPresent();
    }
}
