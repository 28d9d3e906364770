package mintshelf.core.stamp;

import static java.nio.charset.StandardCharsets.ISO_8859_1;
import static java.nio.charset.StandardCharsets.UTF_8;
import static mintshelf.core.stamp.RevisionSheets.row;
import static mintshelf.core.stamp.RevisionSheets.sheet;
import static mintshelf.core.stamp.RevisionSheets.tags;
import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import mintshelf.core.Dxf;
import mintshelf.core.base.Outcome;
import mintshelf.core.base.Refusal;
import mintshelf.core.drawing.Lettering;
import mintshelf.core.drawing.Primitive;
import mintshelf.core.drawing.Scene;
import mintshelf.core.drawing.dxf.DxfDrawing;
import mintshelf.core.drawing.dxf.SheetContent;
import mintshelf.core.drawing.titleblock.RevisionBlock;
import mintshelf.core.drawing.titleblock.SheetMap;
import mintshelf.core.stamp.SheetStamp.Stamped;
import mintshelf.core.stamp.SheetStamp.Values;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

class RevisionRowsTest {
    private static final SheetMap MAP = SheetMap.readyMade();
    private static final RevisionBlock BLOCK = MAP.revisions().orElseThrow();
    private static final Map<String, String> A =
            Map.of("revision", "A", "description", "first release", "date", "2025-06-02", "by", "Priya Malhan");
    private static final Map<String, String> B = Map.of(
            "revision", "B", "zone", "C4", "description", "holes Ø 6.6", "date", "2026-03-10", "by", "T. Okrent");

    private static DxfDrawing drawing(byte[] bytes) {
        return ((Outcome.Granted<DxfDrawing>) DxfDrawing.read(bytes)).value();
    }

    private static Stamped write(byte[] sheet, Values values) {
        Outcome<Stamped> written = SheetStamp.write(sheet, MAP, values);
        assertThat(written.refusal()).isEmpty();
        return ((Outcome.Granted<Stamped>) written).value();
    }

    private static Values rows(boolean place, List<Map<String, String>> rows) {
        return new Values(Map.of(), rows, place);
    }

    private static List<String> texts(byte[] sheet) {
        Scene scene = ((Outcome.Granted<Scene>) drawing(sheet).scene()).value();
        return scene.primitives().stream()
                .filter(Primitive.Text.class::isInstance)
                .map(p -> ((Primitive.Text) p).text())
                .toList();
    }

    private static void holds(byte[] signed, Stamped stamped, Values values) {
        assertThat(SheetStamp.prove(signed, stamped.bytes(), MAP, values)).isEmpty();
        assertThat(write(stamped.bytes(), values).hash()).as("written again").isEqualTo(stamped.hash());
        assertThat(write(stamped.bytes(), values).edits()).isEmpty();
        List<String> handles = new ArrayList<>();
        String[] lines = new String(stamped.bytes(), ISO_8859_1).split("\r\n");
        for (int i = 0; i + 1 < lines.length; i += 2) {
            boolean seed = i >= 2 && lines[i - 1].equals("$HANDSEED");
            if (lines[i].strip().equals("5") && !seed) handles.add(lines[i + 1]);
        }
        assertThat(handles).doesNotHaveDuplicates();
    }

    @Test
    void aSheetThatBecomesAnotherDocumentsLosesTheRowsOfTheFirst() {
        byte[] two = write(sheet("AC1015"), rows(true, List.of(A, B))).bytes();
        byte[] anew =
                write(two, new Values(Map.of(), List.of(A), false, Values.ANEW)).bytes();
        assertThat(BLOCK.read(drawing(anew)))
                .singleElement()
                .satisfies(r -> assertThat(r).containsEntry("revision", "A"));
        assertThat(texts(anew)).doesNotContain("holes Ø 6.6");
        byte[] none =
                write(two, new Values(Map.of(), List.of(), false, Values.ANEW)).bytes();
        assertThat(BLOCK.read(drawing(none))).isEmpty();
        assertThat(write(two, rows(false, List.of())).bytes()).isEqualTo(two);
    }

    @ParameterizedTest
    @ValueSource(strings = {"AC1009", "AC1015", "AC1032"})
    void aBlockIsDrawnWhereTheSheetHasNoneAndOnlyWhenAsked(String version) {
        byte[] sheet = sheet(version);
        assertThat(write(sheet, rows(false, List.of(A))).bytes()).isEqualTo(sheet);
        Values values = rows(true, List.of(A, B));
        Stamped drawn = write(sheet, values);
        holds(sheet, drawn, values);
        assertThat(drawing(drawn.bytes()).said()).isEmpty();
        assertThat(texts(drawn.bytes())).contains("Rev.", "A", "B", "C4", "holes Ø 6.6", "2026-03-10");
        // Later writings find the rows and go on with them, asked or not.
        Values more = rows(false, List.of(A, B, Map.of("revision", "C", "description", "x".repeat(120))));
        Stamped third = write(drawn.bytes(), more);
        holds(drawn.bytes(), third, more);
        assertThat(BLOCK.read(drawing(third.bytes())))
                .hasSize(3)
                .last()
                .satisfies(row -> assertThat(row.get("description")).endsWith("…"));
        assertThat(SheetContent.rows(drawing(third.bytes()), "SHELF_REVISION_ROW"))
                .extracting(SheetContent.Row::y)
                .containsExactly(59.04, 65.04, 71.04);
    }

    @ParameterizedTest
    @ValueSource(strings = {"AC1009", "AC1021"})
    void rowsOfTheSheetsOwnBlockAreFilledAndRepeated(String version) {
        List<String> entities = new ArrayList<>(List.of(row("A", 54, "A", "first release")));
        entities.addAll(List.of(row("B", 61, "", "")));
        byte[] sheet = sheet(version, entities.toArray(String[]::new));
        Values two = rows(false, List.of(A, B));
        Stamped filled = write(sheet, two);
        holds(sheet, filled, two);
        assertThat(BLOCK.read(drawing(filled.bytes())))
                .extracting(r -> r.get("revision"))
                .containsExactly("A", "B");
        assertThat(filled.bytes().length - sheet.length).as("values only").isLessThan(20);
        Values three = rows(false, List.of(A, B, Map.of("revision", "C", "description", "lid thicker")));
        Stamped more = write(sheet, three);
        holds(sheet, more, three);
        assertThat(SheetContent.rows(drawing(more.bytes()), "REVISION_ROW"))
                .extracting(SheetContent.Row::y)
                .containsExactly(54.0, 61.0, 68.0);
    }

    /** A row of 36 mm for the words, from 250 to an upright line, on a sheet whose block has that line. */
    private static byte[] narrow(String version, String... rows) {
        List<String> tags = tags(version, rows);
        int at = tags.indexOf("0 ENDBLK");
        tags.addAll(at, List.of("0 LINE", "8 0", "10 54", "20 0", "11 54", "21 6"));
        for (int i = 0; i < tags.size(); i++) {
            if (tags.get(i).equals("3 DESCRIPTION")) tags.set(i - 4, "10 20");
        }
        return Dxf.of("\r\n", UTF_8, tags.toArray(String[]::new));
    }

    private static List<Primitive.Text> drawn(byte[] sheet) {
        Scene scene = ((Outcome.Granted<Scene>) drawing(sheet).scene()).value();
        return scene.primitives().stream()
                .filter(Primitive.Text.class::isInstance)
                .map(Primitive.Text.class::cast)
                .toList();
    }

    @ParameterizedTest
    @ValueSource(strings = {"AC1009", "AC1021"})
    void wordsAreFittedIntoTheirCell(String version) {
        byte[] sheet = narrow(version, row("A", 54, "A", "first release"));
        for (String words :
                List.of("holes widened to 6.6", "holes 6.6 for the M6 glands", "x".repeat(60) + " and more")) {
            Values values = rows(false, List.of(A, Map.of("revision", "B", "description", words)));
            Stamped written = write(sheet, values);
            holds(sheet, written, values);
            for (Primitive.Text text : drawn(written.bytes())) {
                assertThat(Lettering.wide(text.text()) * 2.5 * text.width())
                        .as(text.text())
                        .isLessThanOrEqualTo(34.001);
            }
        }
        Values narrowed = rows(false, List.of(A, Map.of("revision", "B", "description", "holes widened to 6.6")));
        assertThat(drawn(write(sheet, narrowed).bytes()))
                .filteredOn(t -> t.text().equals("holes widened to 6.6"))
                .extracting(Primitive.Text::width)
                .singleElement()
                .satisfies(w -> assertThat(w).isBetween(0.75, 0.95));
    }

    @Test
    void longWordsGoOnBelowTheirRowAndAreReadAsOne() {
        byte[] sheet = narrow("AC1015", row("A", 54, "A", "first release"));
        String words = "holes widened to 6.6 for the M6 glands";
        Values values = rows(false, List.of(A, Map.of("revision", "B", "description", words)));
        Stamped written = write(sheet, values);
        holds(sheet, written, values);
        List<SheetContent.Row> rows = SheetContent.rows(drawing(written.bytes()), "REVISION_ROW");
        assertThat(rows).extracting(SheetContent.Row::y).containsExactly(54.0, 60.0, 66.0);
        assertThat(rows).extracting(r -> r.values().get("REV")).containsExactly("A", "", "B");
        assertThat(BLOCK.read(drawing(written.bytes())))
                .last()
                .satisfies(row -> assertThat(row.get("description")).isEqualTo(words));
        assertThat(written.edits()).last().satisfies(e -> assertThat(e.after()).isEqualTo(words));
        // The next revision stands over it, and a shorter text gives the row back.
        Values next = rows(
                false,
                List.of(
                        A,
                        Map.of("revision", "B", "description", "holes 6.6"),
                        Map.of("revision", "C", "description", "lid")));
        Stamped third = write(written.bytes(), next);
        holds(written.bytes(), third, next);
        assertThat(SheetContent.rows(drawing(third.bytes()), "REVISION_ROW"))
                .extracting(r -> r.values().get("REV") + r.values().get("DESCRIPTION"))
                .containsExactly("Afirst release", "Bholes 6.6", "Clid");
    }

    @Test
    void aMapThatGivesOneRowShortensInstead() {
        RevisionBlock one =
                new RevisionBlock(BLOCK.block(), BLOCK.columns(), 8, true, false, false, 190, 54, 6, 2.5, 1);
        SheetMap map = new SheetMap(MAP.name(), "", "", MAP.fields(), Optional.of(one));
        byte[] sheet = narrow("AC1015", row("A", 54, "A", "first release"));
        Values values = rows(
                false, List.of(A, Map.of("revision", "B", "description", "holes widened to 6.6 for the M6 glands")));
        Stamped written = ((Outcome.Granted<Stamped>) SheetStamp.write(sheet, map, values)).value();
        assertThat(SheetContent.rows(drawing(written.bytes()), "REVISION_ROW"))
                .extracting(r -> r.values().get("DESCRIPTION"))
                .containsExactly("first release", "holes widened to 6.6…");
    }

    @Test
    void sheetsThatWereWrittenBeforeTextsWereFittedAreProvedAsTheyWere() {
        byte[] sheet = narrow("AC1015", row("A", 54, "A", "first release"));
        List<Map<String, String>> record =
                List.of(A, Map.of("revision", "B", "description", "holes widened to 6.6 for the M6 glands"));
        Values before = new Values(Map.of(), record, false, Values.UNFITTED);
        Stamped written = write(sheet, before);
        assertThat(texts(written.bytes())).contains("holes widened to 6.6 for the M6 glands");
        assertThat(SheetStamp.prove(sheet, written.bytes(), MAP, before)).isEmpty();
        assertThat(SheetStamp.prove(sheet, written.bytes(), MAP, rows(false, record)))
                .isPresent();
        byte[] bare = sheet("AC1015");
        Values drawn = new Values(Map.of(), record, true, Values.UNFITTED);
        assertThat(SheetStamp.prove(bare, write(bare, drawn).bytes(), MAP, drawn))
                .isEmpty();
    }

    @ParameterizedTest
    @ValueSource(strings = {"AC1009", "AC1021"})
    void fieldsOfATitleBlockAreFittedBetweenTheirLines(String version) {
        byte[] sheet = sheet(
                version,
                "0 LINE",
                "8 0",
                "10 300",
                "20 10",
                "11 300",
                "21 30",
                "0 LINE",
                "8 0",
                "10 330",
                "20 10",
                "11 330",
                "21 30",
                "0 INSERT",
                "5 70",
                "8 0",
                "66 1",
                "2 TITLE",
                "10 0",
                "20 0",
                "0 ATTRIB",
                "5 71",
                "330 70",
                "8 0",
                "10 302",
                "20 12",
                "40 2.5",
                "1 ",
                "2 STATUS",
                "70 0",
                "0 ATTRIB",
                "5 72",
                "330 70",
                "8 0",
                "10 302",
                "20 22",
                "40 2.5",
                "41 0.9",
                "1 old",
                "2 NUMBER",
                "70 0",
                "0 SEQEND",
                "5 73",
                "8 0");
        Values values = Values.of(Map.of("status", "In preparation 26", "number", "TG40-3030-120-LONG"));
        Stamped written = write(sheet, values);
        holds(sheet, written, values);
        assertThat(drawn(written.bytes()))
                .filteredOn(t -> t.text().equals("In preparation 26"))
                .singleElement()
                .satisfies(t -> {
                    assertThat(t.width()).isBetween(0.75, 0.95);
                    assertThat(t.x() + Lettering.wide(t.text()) * 2.5 * t.width())
                            .isLessThanOrEqualTo(330);
                });
        assertThat(drawn(written.bytes()))
                .filteredOn(t -> t.text().startsWith("TG40"))
                .singleElement()
                .satisfies(t -> assertThat(t.text()).isEqualTo("TG40-3030-120-LONG"));
        // Back to a short one: the letters are as wide as ever.
        Values released = Values.of(Map.of("status", "Released", "number", "TG40-1"));
        Stamped again = write(written.bytes(), released);
        holds(written.bytes(), again, released);
        assertThat(drawn(again.bytes()))
                .filteredOn(t -> t.text().equals("Released"))
                .extracting(Primitive.Text::width)
                .containsExactly(1.0);
        for (int i = 0; i < written.bytes().length; i += 11) {
            byte[] bent = written.bytes().clone();
            bent[i] ^= 1;
            assertThat(SheetStamp.prove(sheet, bent, MAP, values)).isPresent();
        }
    }

    @Test
    void aRowThatNobodyRecordedStays() {
        byte[] sheet = sheet("AC1015", row("A", 54, "P1", "drawn by hand"));
        Values values = rows(false, List.of(A));
        Stamped written = write(sheet, values);
        holds(sheet, written, values);
        assertThat(BLOCK.read(drawing(written.bytes())))
                .extracting(r -> r.get("revision"))
                .containsExactly("P1", "A");
    }

    @Test
    void theOldestGoWhenThereAreMoreThanTheFormatTakes() {
        List<Map<String, String>> record = new ArrayList<>();
        for (int i = 0; i < 12; i++) record.add(Map.of("revision", Character.toString('A' + i)));
        assertThat(BLOCK.merged(List.of(), record)).hasSize(8).first().isEqualTo(Map.of("revision", "E"));
        assertThat(BLOCK.merged(List.of(B, Map.of("revision", "X")), List.of(A, B)))
                .as("rows of the record stand in its order")
                .extracting(r -> r.get("revision"))
                .containsExactly("A", "B", "X");
        byte[] sheet = sheet("AC1015");
        Values values = new Values(Map.of(), record, true);
        holds(sheet, write(sheet, values), values);
    }

    @Test
    void tagsOfRowsAreNotTheTitleBlocks() {
        byte[] sheet = sheet("AC1015", row("A", 54, "A", "first release"));
        assertThat(MAP.sites(drawing(sheet))).isEmpty();
        assertThat(MAP.read(drawing(sheet))).isEmpty();
    }

    @Test
    void linesOfAPartsListAreNoTitleBlockThoughTheirTagsAreTheSame() {
        List<String> entities = new ArrayList<>();
        for (String line : List.of("PARTS_ROW TG40-3010 Housing", "PARTS_ROW TG40-3020 Lid", "FRAME - Head")) {
            String[] said = line.split(" ");
            entities.addAll(List.of("0 INSERT", "66 1", "2 " + said[0], "10 0", "20 0"));
            entities.addAll(List.of("0 ATTRIB", "10 0", "20 0", "1 " + said[1], "2 NUMBER"));
            entities.addAll(List.of("0 ATTRIB", "10 0", "20 0", "1 " + said[2], "2 TITLE", "0 SEQEND"));
        }
        byte[] sheet = sheet("AC1009", entities.toArray(String[]::new));
        assertThat(MAP.read(drawing(sheet))).isEqualTo(Map.of("number", "-", "title", "Head"));
        Stamped written = write(sheet, Values.of(Map.of("number", "TG40-3000")));
        assertThat(new String(written.bytes(), UTF_8)).contains("TG40-3010", "TG40-3020", "TG40-3000");
        assertThat(written.edits()).hasSize(1);
    }

    @Test
    void aSheetWithoutTablesIsRefusedOnlyWhenABlockIsAskedFor() {
        byte[] bare = Dxf.of("\n", UTF_8, "0 SECTION", "2 ENTITIES", "0 LINE", "10 1", "0 ENDSEC", "0 EOF");
        assertThat(write(bare, rows(false, List.of(A))).edits()).isEmpty();
        assertThat(SheetStamp.write(bare, MAP, rows(true, List.of(A))).refusal().map(Refusal::code))
                .contains("sheet.no_tables");
    }

    @Test
    void theProofFindsWhatWasChangedBesideTheRows() {
        byte[] sheet = sheet("AC1015");
        Values values = rows(true, List.of(A));
        byte[] stamped = write(sheet, values).bytes();
        for (int i = 0; i < stamped.length; i += 7) {
            byte[] bent = stamped.clone();
            bent[i] ^= 1;
            assertThat(SheetStamp.prove(sheet, bent, MAP, values)).isPresent();
        }
    }

    @Test
    void textsAtAPlaceAreReadAndWritten() {
        SheetMap.Spot spot = new SheetMap.Spot(190, 10, 60, 10);
        SheetMap map = new SheetMap(
                "old sheets",
                "",
                "A3",
                List.of(
                        new SheetMap.Field("", "number", SheetMap.Way.WRITTEN, Optional.of(spot)),
                        new SheetMap.Field(
                                "", "title", SheetMap.Way.READ, Optional.of(new SheetMap.Spot(130, 10, 100, 10)))),
                Optional.empty());
        byte[] sheet = sheet(
                "AC1015",
                "0 TEXT",
                "8 0",
                "10 233",
                "20 12",
                "40 3.5",
                "1 old 1",
                "0 MTEXT",
                "8 0",
                "10 300",
                "20 15",
                "40 3.5",
                "1 Gland\\Pplate",
                "0 TEXT",
                "8 0",
                "10 20",
                "20 200",
                "40 3.5",
                "1 elsewhere");
        assertThat(map.read(drawing(sheet))).isEqualTo(Map.of("number", "old 1", "title", "Gland plate"));
        Values values = Values.of(Map.of("number", "TG40-3030", "title", "never"));
        Stamped written = ((Outcome.Granted<Stamped>) SheetStamp.write(sheet, map, values)).value();
        assertThat(written.edits()).extracting(SheetStamp.Edit::after).containsExactly("TG40-3030");
        assertThat(SheetStamp.prove(sheet, written.bytes(), map, values)).isEmpty();
        assertThat(new String(written.bytes(), UTF_8)).contains("elsewhere").doesNotContain("old 1");
    }

    @Test
    void binarySheetsGetTheirRowsToo() {
        byte[] sheet = Dxf.binary(tags("AC1015", row("A", 54, "A", "first release")), true);
        assertThat(BLOCK.read(drawing(sheet))).hasSize(1);
        Values values = rows(false, List.of(A, B));
        Stamped written = write(sheet, values);
        assertThat(SheetStamp.prove(sheet, written.bytes(), MAP, values)).isEmpty();
        assertThat(write(written.bytes(), values).hash()).isEqualTo(written.hash());
        assertThat(BLOCK.read(drawing(written.bytes())))
                .hasSize(2)
                .last()
                .isEqualTo(Map.of("revision", "B", "description", "holes Ø 6.6"));
    }
}
