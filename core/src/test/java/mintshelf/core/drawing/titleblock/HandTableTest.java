package mintshelf.core.drawing.titleblock;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import mintshelf.core.base.Outcome;
import mintshelf.core.drawing.dxf.DxfDrawing;
import org.junit.jupiter.api.Test;

class HandTableTest {
    private static final double[] WIDTHS = {12, 80, 24, 24};
    private static final List<String> HEADINGS = List.of("REV.", "DESCRIPTION", "DATE", "DRAWN");
    private static final List<List<String>> ROWS = List.of(
            List.of("A", "FIRST ISSUE", "2009-03-02", "PK"), List.of("B", "HOLES 6.6 WAS 5.5", "2011-10-14", "HV"));

    private static Optional<HandTable> read(HandSheet sheet) {
        return HandTable.of(((Outcome.Granted<DxfDrawing>) DxfDrawing.read(sheet.bytes())).value());
    }

    private static List<String> labels(Optional<HandTable> table) {
        return table.orElseThrow().rows().stream().map(r -> r.get("revision")).toList();
    }

    @Test
    void rowsAboveTheirHeadingAreReadFromTheFirstOneOn() {
        HandTable table =
                read(new HandSheet().upwards(200, 60, WIDTHS, HEADINGS, ROWS)).orElseThrow();
        assertThat(table.upwards()).isTrue();
        assertThat(table.rows())
                .containsExactly(
                        Map.of("revision", "A", "description", "FIRST ISSUE", "date", "2009-03-02", "by", "PK"),
                        Map.of("revision", "B", "description", "HOLES 6.6 WAS 5.5", "date", "2011-10-14", "by", "HV"));
        assertThat(table.box().minX()).isEqualTo(200);
        assertThat(table.box().maxY()).isEqualTo(84);
        // 4 rules, 5 uprights, 12 texts.
        assertThat(table.entities()).hasSize(21);
    }

    @Test
    void rowsBelowTheirHeadingAndTheNewestFirst() {
        assertThat(labels(read(new HandSheet().downwards(260, 287, WIDTHS, HEADINGS, ROWS))))
                .containsExactly("A", "B");
        List<List<String>> newestFirst = List.of(ROWS.get(1), ROWS.get(0));
        assertThat(labels(read(new HandSheet().downwards(260, 287, WIDTHS, HEADINGS, newestFirst))))
                .containsExactly("A", "B");
        List<List<String>> numbers =
                List.of(List.of("9", "x", "", ""), List.of("10", "y", "", ""), List.of("11", "z", "", ""));
        assertThat(labels(read(new HandSheet().upwards(200, 60, WIDTHS, HEADINGS, numbers))))
                .containsExactly("9", "10", "11");
    }

    @Test
    void aSecondRevisionColumnIsWhatWasRevisedAndPreparedRowsAreEmpty() {
        List<List<String>> rows = List.of(ROWS.get(0), List.of("", "", "", ""), List.of("", "", "", ""));
        HandTable table = read(new HandSheet()
                        .upwards(200, 60, WIDTHS, List.of("Rev", "Revision", "Date", "Approved"), rows))
                .orElseThrow();
        assertThat(table.rows())
                .containsExactly(
                        Map.of("revision", "A", "description", "FIRST ISSUE", "date", "2009-03-02", "approved", "PK"));
        // The rules of the rows that were prepared go with it.
        assertThat(table.box().maxY()).isEqualTo(92);
    }

    @Test
    void whatGoesOnBelowARevisionIsJoinedToIt() {
        List<List<String>> rows = List.of(ROWS.get(0), List.of("", "AND SLOT MOVED", "", ""));
        HandTable table = read(new HandSheet().downwards(200, 200, WIDTHS, HEADINGS, rows))
                .orElseThrow();
        assertThat(table.rows())
                .singleElement()
                .satisfies(r -> assertThat(r).containsEntry("description", "FIRST ISSUE AND SLOT MOVED"));
    }

    @Test
    void aTitleBlockIsNoTableAndNeitherIsATableOfOtherThings() {
        assertThat(read(new HandSheet().upwards(200, 10, WIDTHS, List.of("REV", "SHEET", "DATE", "DRAWN"), ROWS)))
                .isEmpty();
        assertThat(read(new HandSheet()
                        .upwards(200, 10, WIDTHS, List.of("ITEM", "DESCRIPTION", "QTY", "MATERIAL"), ROWS)))
                .isEmpty();
        assertThat(read(new HandSheet().upwards(200, 10, WIDTHS, HEADINGS, List.of())))
                .isEmpty();
        assertThat(read(new HandSheet()
                        .text(20, 20, "REV")
                        .text(40, 20, "DESCRIPTION")
                        .text(60, 20, "DATE")))
                .isEmpty();
        assertThat(read(new HandSheet())).isEmpty();
    }

    @Test
    void theRuleThatATitleBlockBelowHangsOnIsNotItsOwn() {
        HandSheet alone = new HandSheet().upwards(200, 60, WIDTHS, HEADINGS, ROWS);
        HandSheet above = new HandSheet()
                .upwards(200, 60, WIDTHS, HEADINGS, ROWS)
                .line(200, 10, 200, 60)
                .line(280, 10, 280, 60)
                .line(340, 10, 340, 60);
        assertThat(read(above).orElseThrow().entities())
                .hasSize(read(alone).orElseThrow().entities().size() - 1);
    }

    @Test
    void aSheetFullOfRulesAndHeadingsIsDoneWith() {
        HandSheet sheet = new HandSheet().upwards(200, 60, WIDTHS, HEADINGS, ROWS);
        for (int i = 0; i < 20_000; i++) {
            sheet.line(200, 68 + i * 0.001, 340, 68 + i * 0.001);
            sheet.line(200 + i * 0.007, 60, 200 + i * 0.007, 84);
            if (i % 100 == 0) sheet.text(201 + i * 0.005, 62, "REV");
        }
        assertThat(read(sheet)).isEmpty();
        HandSheet many = new HandSheet();
        for (int i = 0; i < 300; i++) many.text(20 + i, 20, "REV");
        assertThat(read(many)).isEmpty();
    }

    @Test
    void aFrameThatRunsAlongItStays() {
        // The right upright is the frame's, a polyline that goes on.
        HandTable table =
                read(new HandSheet().upwards(270, 60, WIDTHS, HEADINGS, ROWS)).orElseThrow();
        assertThat(table.box().maxX()).isEqualTo(410);
        assertThat(table.rows()).hasSize(2);
    }

    @Test
    void aTableOfPolylinesIsReadTheSame() {
        HandSheet sheet = new HandSheet();
        double x = 200;
        for (double width : WIDTHS) {
            for (int row = 0; row < 3; row++) sheet.box(x, 60 + row * 8, x + width, 68 + row * 8);
            x += width;
        }
        for (int row = 0; row < 3; row++) {
            List<String> cells = row == 0 ? HEADINGS : ROWS.get(row - 1);
            x = 201;
            for (int c = 0; c < cells.size(); c++) {
                sheet.text(x, 62 + row * 8, cells.get(c));
                x += WIDTHS[c];
            }
        }
        assertThat(labels(read(sheet))).containsExactly("A", "B");
        assertThat(read(sheet).orElseThrow().entities()).hasSize(24);
    }
}
