package mintshelf.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Map;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.Refused;
import mintshelf.app.use.document.KeepFacts;
import mintshelf.app.use.revision.StartRevisions;
import mintshelf.app.use.structure.KeepBomLines;
import mintshelf.app.use.structure.KeepBomLines.Typed;
import mintshelf.app.use.structure.KeepPartsList;
import org.junit.jupiter.api.Test;

/** The parts list of a sheet beside what the model consists of: held against it, written, for who may. */
class PartsListsTest {
    private final Server server = Server.shared();
    private final KeepPartsList lists = server.bean(KeepPartsList.class);
    private final KeepBomLines lines = server.bean(KeepBomLines.class);
    private final long shelf = server.shelf();
    private final String mark = Server.key().substring(0, 6);
    private final String number = "PL" + mark;
    private final Actor priya = server.actor("priya");
    private final long screw = model("-S", "screw");
    private final long plate = model("-P", "plate");
    private final long top = model("", "top", number + "-S.stp", 4, number + "-P.stp", 1);

    private long model(String ending, String title, Object... filesAndCounts) {
        long item = server.file(
                "priya",
                shelf,
                "part-model",
                number + ending + ".stp",
                number + ending,
                StructureTest.assembly(title + mark, filesAndCounts),
                false);
        server.bean(KeepFacts.class).keep(priya, item, Server.key(), title, Map.of(), Map.of());
        return item;
    }

    private static String row(String find, String quantity, String number, String title, int y) {
        return "0 INSERT;5 " + Integer.toHexString(0x100 + y) + ";66 1;2 PARTS_ROW;10 230;20 " + y
                + cell("FIND", find, y, 1) + cell("QTY", quantity, y, 2) + cell("NUMBER", number, y, 3)
                + cell("TITLE", title, y, 4) + ";0 SEQEND;5 " + Integer.toHexString(0x9000 + y);
    }

    private static String cell(String tag, String value, int y, int n) {
        return ";0 ATTRIB;5 " + Integer.toHexString(0x1000 * n + y) + ";8 TEXT;10 " + (230 + 20 * n) + ";20 " + (y - 5)
                + ";40 2.5;1 " + value + ";2 " + tag;
    }

    private static String balloon(String number, int x) {
        return "0 CIRCLE;5 " + Integer.toHexString(0xA000 + x) + ";8 DIM;10 " + x + ";20 200;40 5;0 TEXT;5 "
                + Integer.toHexString(0xB000 + x) + ";8 DIM;10 " + x + ";20 198.25;40 3.5;1 " + number + ";72 1;11 " + x
                + ";21 198.25";
    }

    private static byte[] sheet(String... entities) {
        StringBuilder out = new StringBuilder();
        for (String tag : List.of(
                "0 SECTION;2 HEADER;9 $ACADVER;1 AC1015;9 $HANDSEED;5 FFFF;0 ENDSEC",
                "0 SECTION;2 BLOCKS;0 BLOCK;2 PARTS_ROW;0 ENDBLK;0 ENDSEC;0 SECTION;2 ENTITIES",
                "0 LWPOLYLINE;5 99;8 FRAME;90 4;70 1;10 0;20 0;10 420;20 0;10 420;20 297;10 0;20 297",
                String.join(";", entities),
                "0 ENDSEC;0 EOF")) {
            for (String one : tag.split(";")) {
                int space = one.indexOf(' ');
                out.append(one, 0, space)
                        .append('\n')
                        .append(one.substring(space + 1))
                        .append('\n');
            }
        }
        return out.toString().getBytes(StandardCharsets.US_ASCII);
    }

    private long drawing(byte[] sheet) {
        return server.file("priya", shelf, Server.PLAIN, number + ".dxf", number, sheet, false);
    }

    private byte[] usual() {
        return sheet(
                row("1", "4", number + "-P", "plate", 280),
                row("2", "1", number + "-X", "gone", 273),
                balloon("1", 40),
                balloon("7", 90));
    }

    private static String code(Runnable act) {
        try {
            act.run();
            return "";
        } catch (Refused e) {
            return e.refusal().code();
        }
    }

    @Test
    void aSheetIsHeldAgainstItsModelAndWritten() {
        lines.write(priya, top, Server.key(), new Typed(0, "", "", "Grease", "20", "g", "bought", "", ""));
        long drawing = drawing(usual());
        Web web = Web.as(server, "priya");
        assertThat(web.get("/documents/" + drawing + "/parts-list").body())
                .contains(
                        "4 lines differ",
                        "find 1 → 2, quantity 4 → 1",
                        "not on the sheet",
                        "on the sheet only",
                        "No balloon: 2",
                        "Balloons of no line: 7",
                        "Write it onto the sheet");
        assertThat(web.post(
                                "/documents/" + drawing + "/parts-list",
                                Map.of("actKey", Server.key(), "version", "1", "why", "as the model"))
                        .statusCode())
                .isEqualTo(302);
        assertThat(web.get("/documents/" + drawing + "/parts-list").body())
                .contains("The sheet says what the assembly has.")
                .doesNotContain("Write it onto the sheet");
        String file = new String(server.bytes(drawing), StandardCharsets.US_ASCII);
        assertThat(file).contains("Grease", "20 g").doesNotContain("gone");
        assertThat(code(() -> lists.write(priya, drawing, Server.key(), 2, ""))).isEqualTo("partslist.same");
        // Who looked at another version, who reads only, whose sheet is released.
        assertThat(code(() -> lists.write(priya, drawing, Server.key(), 1, ""))).isNotEmpty();
        for (long one : List.of(screw, plate, top)) server.release("priya", one);
        server.release("priya", drawing);
        assertThat(lists.read(priya, drawing).refusal()).isPresent();
        assertThat(lists.read(server.actor("rafael"), drawing).refusal()).isPresent();
        server.bean(StartRevisions.class).start(priya, List.of(top), Server.key(), "more", "", false);
        lines.write(priya, top, Server.key(), new Typed(0, "", "", "Secret", "1", "pc", "bought", "", ""));
        assertThat(Web.as(server, "rafael")
                        .get("/documents/" + drawing + "/parts-list")
                        .body())
                .contains("The sheet says what the assembly has.")
                .doesNotContain("Secret");
        assertThat(lists.read(priya, drawing).compared().orElseThrow().wrong()).isEqualTo(1);
    }

    @Test
    void whatCannotBeWrittenSaysWhy() {
        long bare = drawing(sheet(balloon("1", 40)));
        assertThat(lists.read(priya, bare).refusal().orElseThrow().code()).isEqualTo("partslist.no_rows");
        assertThat(Web.as(server, "priya")
                        .get("/documents/" + bare + "/parts-list")
                        .body())
                .contains("rows of a block with values named FIND and QTY");
        long part = server.file(
                "priya", shelf, Server.PLAIN, number + "-S.dxf", number + "-S", sheet(balloon("1", 40)), false);
        assertThat(Web.as(server, "priya")
                        .get("/documents/" + part + "/parts-list")
                        .body())
                .contains("Neither has lines");
        long alone =
                server.file("priya", shelf, Server.PLAIN, number + "-alone.dxf", number + "-alone", usual(), false);
        assertThat(Web.as(server, "priya")
                        .get("/documents/" + alone + "/parts-list")
                        .body())
                .contains("It shows no model that you see");
        assertThat(Web.as(server, "priya")
                        .get("/documents/" + top + "/parts-list")
                        .body())
                .contains("It shows no model that you see");
    }

    @Test
    void aLineThatNoDocumentHasKeepsItFromBeingWritten() {
        long odd = server.file(
                "priya",
                shelf,
                "part-model",
                number + "-O.stp",
                number + "-O",
                StructureTest.assembly("odd" + mark, "nobody" + mark + ".stp", 1),
                false);
        long drawing = server.file("priya", shelf, Server.PLAIN, number + "-O.dxf", number + "-O", usual(), false);
        assertThat(odd).isPositive();
        assertThat(lists.read(priya, drawing).refusal().orElseThrow().code()).isEqualTo("partslist.unknown");
    }
}
