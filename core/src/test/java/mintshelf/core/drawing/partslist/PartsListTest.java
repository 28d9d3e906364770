package mintshelf.core.drawing.partslist;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collections;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import mintshelf.core.Dxf;
import mintshelf.core.base.Outcome;
import mintshelf.core.base.Refusal;
import mintshelf.core.bom.FindNumbers;
import mintshelf.core.drawing.Scene;
import mintshelf.core.drawing.dxf.DxfDrawing;
import org.junit.jupiter.api.Test;

class PartsListTest {
    private static final String FRAME =
            "0 LWPOLYLINE;8 FRAME;90 4;70 1;10 0;20 0;10 420;20 0;10 420;20 297;10 0;20 297";

    private static String row(String find, String quantity, String number, String title, double y) {
        return "0 INSERT;66 1;2 PARTS_ROW;10 230;20 " + y + cell("FIND", find, 232, y) + cell("QTY", quantity, 245, y)
                + cell("NUMBER", number, 260, y) + cell("TITLE", title, 300, y)
                + cell("MATERIAL", "316L " + number, 350, y)
                + ";0 SEQEND";
    }

    private static String cell(String tag, String value, double x, double y) {
        return ";0 ATTRIB;8 TEXT;10 " + x + ";20 " + (y - 5) + ";40 2.5;1 " + value + ";2 " + tag;
    }

    private static String balloon(String number, double x) {
        return "0 CIRCLE;8 DIM;10 " + x + ";20 200;40 5;0 TEXT;8 DIM;10 " + x + ";20 198.25;40 3.5;1 " + number
                + ";72 1;11 " + x + ";21 198.25";
    }

    private static byte[] sheet(String... entities) {
        List<String> tags = new ArrayList<>(List.of("0 SECTION", "2 BLOCKS", "0 BLOCK", "2 PARTS_ROW", "0 ENDBLK"));
        tags.addAll(List.of("0 ENDSEC", "0 SECTION", "2 ENTITIES"));
        for (String entity : entities) tags.addAll(List.of(entity.split(";")));
        tags.addAll(List.of("0 ENDSEC", "0 EOF"));
        return Dxf.of("\n", StandardCharsets.UTF_8, tags.toArray(new String[0]));
    }

    private static PartsList read(byte[] bytes) {
        DxfDrawing drawing = DxfDrawing.read(bytes).toOptional().orElseThrow();
        Scene scene = drawing.scene().toOptional().orElseThrow();
        return PartsList.of(drawing, scene, 1);
    }

    private static Wanted wanted(String find, String quantity, String number, String title) {
        return new Wanted(find, quantity, number, title, Map.of());
    }

    private static final byte[] SHEET = sheet(
            FRAME,
            row("1", "1", "P-10", "Lid", 290),
            row("2", "4", "P-20", "Screw", 283),
            row("3", "1", "P-30", "Old seal", 276),
            balloon("1", 50),
            balloon("2", 80),
            balloon("2", 110),
            balloon("9", 140));

    private static final List<Wanted> BILL = List.of(
            wanted("1", "1", "P-10", "Lid"),
            wanted("4", "6", "p-20", "Screw"),
            wanted("5", "1", "P-40", "Seal"),
            wanted("6", "20 g", "", "Grease"));

    private static List<String> says(PartsListCompare compared) {
        return compared.lines().stream()
                .map(l -> l.find() + ": " + String.join(", ", l.says()))
                .toList();
    }

    @Test
    void linesAreToldByNumberAndBalloonsByWhatTheyCarry() {
        PartsListCompare compared = PartsListCompare.of(read(SHEET), BILL);
        assertThat(says(compared))
                .containsExactly(
                        "1: ",
                        "3: on the sheet only",
                        "4: find 2 → 4, quantity 4 → 6",
                        "5: not on the sheet",
                        "6: not on the sheet");
        assertThat(compared.wrong()).isEqualTo(4);
        assertThat(compared.astray()).containsOnlyKeys("9");
        assertThat(compared.without()).extracting(PartsListCompare.Line::find).containsExactly("3");
        assertThat(compared.lines().get(2).balloons()).hasSize(2);
        // What stands under the find number of another part was exchanged for it.
        assertThat(says(PartsListCompare.of(read(SHEET), List.of(wanted("3", "1", "P-31", "New seal")))))
                .contains("3: number P-30 → P-31, title Old seal → New seal");
    }

    @Test
    void theSheetIsWrittenAndItsBalloonsFollow() {
        byte[] written = PartsListWrite.write(SHEET, BILL, 1).toOptional().orElseThrow();
        PartsList after = read(written);
        assertThat(PartsListCompare.of(after, BILL).wrong()).isZero();
        assertThat(after.lines()).containsOnlyKeys("1", "4", "5", "6");
        assertThat(after.balloons()).containsOnlyKeys("1", "4", "9");
        assertThat(after.balloons().get("4")).hasSize(2);
        // What the row of a part says beside goes with the part; of a new one nobody knows it.
        assertThat(line(after, "4").values()).containsEntry("MATERIAL", "316L P-20");
        assertThat(line(after, "5").values()).containsEntry("MATERIAL", "");
        // Written again, it is as it was.
        assertThat(PartsListWrite.write(written, BILL, 1).toOptional().orElseThrow())
                .isEqualTo(written);
        // The row more stands where the next one would.
        assertThat(new String(written, StandardCharsets.UTF_8)).contains("Grease", "\n269");
    }

    @Test
    void aListThatIsShorterLeavesEmptyRows() {
        List<Wanted> one = List.of(wanted("2", "4", "P-20", "Screw"));
        byte[] written = PartsListWrite.write(SHEET, one, 1).toOptional().orElseThrow();
        assertThat(read(written).lines()).containsOnlyKeys("2");
        assertThat(new String(written, StandardCharsets.UTF_8)).doesNotContain("Old seal");
        byte[] again = PartsListWrite.write(written, BILL, 1).toOptional().orElseThrow();
        assertThat(read(again).lines()).hasSize(4);
    }

    @Test
    void rowsThatRunUpwardsGrowUpwards() {
        byte[] up = sheet(FRAME, row("1", "1", "P-10", "Lid", 60), row("2", "4", "P-20", "Screw", 67));
        byte[] written = PartsListWrite.write(up, BILL, 1).toOptional().orElseThrow();
        assertThat(read(written).lines()).hasSize(4);
        assertThat(new String(written, StandardCharsets.UTF_8)).contains("\n74", "\n81");
    }

    @Test
    void whatHasNoListIsRefusedAndEveryOtherByteStays() {
        assertThat(code(PartsListWrite.write(sheet(FRAME, balloon("1", 50)), BILL, 1)))
                .isEqualTo("partslist.no_rows");
        assertThat(code(PartsListWrite.write("odd".getBytes(StandardCharsets.UTF_8), BILL, 1)))
                .isEqualTo("partslist.none");
        byte[] other = Arrays.copyOf(SHEET, SHEET.length);
        byte[] written = PartsListWrite.write(
                        other,
                        List.of(
                                wanted("1", "1", "P-10", "Lid"),
                                wanted("2", "5", "P-20", "Screw"),
                                wanted("3", "1", "P-30", "Old seal")),
                        1)
                .toOptional()
                .orElseThrow();
        assertThat(written).hasSameSizeAs(SHEET);
        int differ = 0;
        for (int i = 0; i < written.length; i++) if (written[i] != SHEET[i]) differ++;
        assertThat(differ).isEqualTo(1);
    }

    private static PartsList.PartLine line(PartsList list, String find) {
        return Optional.ofNullable(list.lines().get(find)).orElseThrow();
    }

    private static String code(Outcome<byte[]> outcome) {
        return outcome.refusal().map(Refusal::code).orElse("");
    }

    /** Whatever order lines come in, the sheet says them, and each balloon still points at the same part. */
    @Test
    void balloonsKeepTheirPartsWhateverNumbersAreGiven() {
        Random random = new Random(11);
        for (int turn = 0; turn < 100; turn++) {
            List<String> finds = new ArrayList<>(List.of("1", "2", "3", "4", "5", "6", "7", "8"));
            Collections.shuffle(finds, random);
            List<Wanted> all = new ArrayList<>(List.of(
                    wanted(finds.get(0), "1", "P-10", "Lid"),
                    wanted(finds.get(1), "4", "P-20", "Screw"),
                    wanted(finds.get(2), "1", "P-30", "Old seal")));
            for (int i = 3; i < 3 + random.nextInt(4); i++) all.add(wanted(finds.get(i), "2", "Q-" + i, "More"));
            all.sort((a, b) -> FindNumbers.compare(a.find(), b.find()));
            PartsList after =
                    read(PartsListWrite.write(SHEET, all, 1).toOptional().orElseThrow());
            assertThat(PartsListCompare.of(after, all).wrong()).isZero();
            assertThat(line(after, finds.get(1)).number()).isEqualTo("P-20");
            if (!finds.get(1).equals("9"))
                assertThat(after.balloons().get(finds.get(1))).hasSize(2);
        }
    }
}
