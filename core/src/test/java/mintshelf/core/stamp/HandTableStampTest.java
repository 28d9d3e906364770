package mintshelf.core.stamp;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Arrays;
import java.util.List;
import java.util.Map;
import mintshelf.core.base.Outcome;
import mintshelf.core.drawing.Primitive;
import mintshelf.core.drawing.Scene;
import mintshelf.core.drawing.dxf.DxfDrawing;
import mintshelf.core.drawing.titleblock.HandSheet;
import mintshelf.core.drawing.titleblock.HandTable;
import mintshelf.core.drawing.titleblock.RevisionBlock;
import mintshelf.core.drawing.titleblock.SheetMap;
import mintshelf.core.stamp.SheetStamp.Stamped;
import mintshelf.core.stamp.SheetStamp.Values;
import org.junit.jupiter.api.Test;

/** A revision table that was drawn by hand gives its place and its rows to the shelf's block, and nothing else of the sheet is touched. */
class HandTableStampTest {
    private static final SheetMap MAP = SheetMap.readyMade();
    private static final RevisionBlock BLOCK = MAP.revisions().orElseThrow();
    private static final Values C = new Values(
            Map.of(),
            List.of(Map.of("revision", "C", "description", "Slot added", "by", "Priya Malhan")),
            true,
            Values.REPLACED);

    private static HandSheet sheet() {
        return new HandSheet()
                .line(40, 100, 180, 100)
                .upwards(
                        230,
                        60,
                        new double[] {12, 100, 34, 34},
                        List.of("REV.", "DESCRIPTION", "DATE", "DRAWN"),
                        List.of(
                                List.of("A", "FIRST ISSUE", "2009-03-02", "PK"),
                                List.of("B", "HOLES 6.6 WAS 5.5", "2011-10-14", "HV")))
                .text(60, 110, "SECTION A-A");
    }

    private static DxfDrawing drawing(byte[] bytes) {
        return ((Outcome.Granted<DxfDrawing>) DxfDrawing.read(bytes)).value();
    }

    private static Stamped write(byte[] sheet, Values values) {
        Outcome<Stamped> written = SheetStamp.write(sheet, MAP, values);
        assertThat(written.refusal()).isEmpty();
        return ((Outcome.Granted<Stamped>) written).value();
    }

    private static List<Primitive> scene(byte[] bytes) {
        return ((Outcome.Granted<Scene>) drawing(bytes).scene()).value().primitives();
    }

    @Test
    void theBlockHasItsRowsAndItsPlace() {
        byte[] before = sheet().bytes();
        Stamped stamped = write(before, C);
        DxfDrawing after = drawing(stamped.bytes());
        assertThat(after.said()).isEmpty();
        assertThat(HandTable.of(after)).isEmpty();
        assertThat(BLOCK.read(after)).extracting(r -> r.get("revision")).containsExactly("A", "B", "C");
        assertThat(BLOCK.read(after).get(1))
                .containsEntry("description", "HOLES 6.6 WAS 5.5")
                .containsEntry("by", "HV");
        // On the right side, as the table stood, from its foot on.
        double right = scene(stamped.bytes()).stream()
                .filter(p -> p.source().path().contains("SHELF_REVISION"))
                .mapToDouble(p -> p.box().maxX())
                .max()
                .orElseThrow();
        double low = scene(stamped.bytes()).stream()
                .filter(p -> p.source().path().contains("SHELF_REVISION"))
                .mapToDouble(p -> p.box().minY())
                .min()
                .orElseThrow();
        assertThat(right).isEqualTo(410);
        assertThat(low).isEqualTo(60);
        assertThat(stamped.edits()).extracting(SheetStamp.Edit::fact).contains("row C");
    }

    @Test
    void allElseStaysByteForByteAndIsProved() {
        byte[] before = sheet().bytes();
        Stamped stamped = write(before, C);
        assertThat(SheetStamp.prove(before, stamped.bytes(), MAP, C)).isEmpty();
        assertThat(write(before, C).bytes()).isEqualTo(stamped.bytes());
        byte[] other = stamped.bytes().clone();
        int at = new String(other, java.nio.charset.StandardCharsets.ISO_8859_1).indexOf("SECTION A-A");
        other[at + 8] = 'B';
        assertThat(SheetStamp.prove(before, other, MAP, C)).isPresent();
        // A sheet from which more than the table is gone is none that the shelf wrote.
        byte[] fewer = write(
                        new HandSheet()
                                .upwards(
                                        230,
                                        60,
                                        new double[] {12, 100, 34, 34},
                                        List.of("REV.", "DESCRIPTION", "DATE", "DRAWN"),
                                        List.of(List.of("A", "FIRST ISSUE", "2009-03-02", "PK")))
                                .bytes(),
                        C)
                .bytes();
        assertThat(SheetStamp.prove(before, fewer, MAP, C)).isPresent();
    }

    @Test
    void writtenAgainLaterItIsAnOrdinaryBlock() {
        byte[] first = write(sheet().bytes(), C).bytes();
        Values next = new Values(
                Map.of(),
                List.of(
                        Map.of("revision", "C", "description", "Slot added", "by", "Priya Malhan"),
                        Map.of("revision", "D", "description", "Slot wider", "by", "Tomasz Okrent")),
                false);
        Stamped again = write(first, next);
        assertThat(SheetStamp.prove(first, again.bytes(), MAP, next)).isEmpty();
        assertThat(BLOCK.read(drawing(again.bytes())))
                .extracting(r -> r.get("revision"))
                .containsExactly("A", "B", "C", "D");
    }

    @Test
    void askedForWithoutATableItIsPlacedAsUsual() {
        byte[] plain = new HandSheet().line(40, 100, 180, 100).bytes();
        Values usual = new Values(C.values(), C.rows(), true);
        assertThat(write(plain, C).bytes()).isEqualTo(write(plain, usual).bytes());
    }

    @Test
    void aTableThatGrowsTheOtherWayGivesItsRowsAndNotItsPlace() {
        byte[] sheet = new HandSheet()
                .downwards(
                        230,
                        287,
                        new double[] {12, 100, 34, 34},
                        List.of("REV.", "DESCRIPTION", "DATE", "DRAWN"),
                        List.of(List.of("A", "FIRST ISSUE", "2009-03-02", "PK")))
                .bytes();
        Stamped stamped = write(sheet, C);
        assertThat(BLOCK.read(drawing(stamped.bytes())))
                .extracting(r -> r.get("revision"))
                .containsExactly("A", "C");
        double high = scene(stamped.bytes()).stream()
                .filter(p -> p.source().path().contains("SHELF_REVISION"))
                .mapToDouble(p -> p.box().maxY())
                .max()
                .orElseThrow();
        assertThat(high).isLessThan(150);
        assertThat(Arrays.mismatch(sheet, stamped.bytes())).isPositive();
    }
}
