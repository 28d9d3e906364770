package mintshelf.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.time.LocalDate;
import java.util.Base64;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import mintshelf.app.effect.TableFiles;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.Refused;
import mintshelf.app.use.record.ReadRecord;
import mintshelf.app.use.structure.BringBomLines;
import mintshelf.app.use.structure.ReadBom;
import mintshelf.core.bom.Bom;
import mintshelf.core.structure.StructureView;
import org.junit.jupiter.api.Test;

/** Lines of a bill of materials from a table: what it would do is what it does, all of it or nothing. */
class BomTablesTest {
    private final Server server = Server.shared();
    private final BringBomLines tables = server.bean(BringBomLines.class);
    private final ReadBom read = server.bean(ReadBom.class);
    private final long shelf = server.shelf();
    private final String mark = "T" + Server.key().substring(0, 6);
    private final Actor priya = server.actor("priya");
    private final long bolt = file("bolt");
    private final long lamp = file("lamp");
    private final long top = file("top", mark + "-bolt.stp", 4);

    private long file(String name, Object... filesAndCounts) {
        return server.file(
                "priya",
                shelf,
                "part-model",
                mark + "-" + name + ".stp",
                mark + "-" + name,
                StructureTest.assembly(name + mark, filesAndCounts),
                false);
    }

    private static byte[] csv(String... rows) {
        return String.join("\n", rows).getBytes(StandardCharsets.UTF_8);
    }

    private List<String> tree() {
        Bom bom = read.of(priya, top, StructureView.LATEST, Optional.empty(), LocalDate.EPOCH)
                .orElseThrow()
                .bom();
        return bom.lines(0).stream()
                .map(l -> l.find() + " " + bom.part(l.part()).shown().replace(mark + "-", "") + " "
                        + l.quantity().toPlainString() + " " + l.unit())
                .toList();
    }

    private byte[] usual() {
        return csv(
                "find,number,title,quantity,unit,cost",
                "1," + mark + "-bolt,,6,pc,",
                "7," + mark + "-lamp,whatever,2,,",
                ",,Grease,\"2,5\",g,\"0,03\"");
    }

    @Test
    void aTableChangesAddsAndIsTheSameWhenItComesAgain() {
        BringBomLines.Plan plan = tables.plan(priya, top, usual());
        assertThat(plan.opens()).isTrue();
        assertThat(plan.changing()).isEqualTo(3);
        assertThat(tree()).containsExactly("1 bolt 4 pc");
        tables.take(priya, top, Server.key(), usual());
        assertThat(tree()).containsExactly("1 bolt 6 pc", "7 lamp 2 pc", "8 Grease 2.5 g");
        assertThat(tables.plan(priya, top, usual()).changing()).isZero();
        assertThat(server.bean(ReadRecord.class)
                        .ofDocument(priya, top, Integer.MAX_VALUE, 50)
                        .toString())
                .contains("from a table line 1", "and 2 more of its lines");
        // What the table has no column for stays as it is; what the file counts stays what it counts.
        tables.take(priya, top, Server.key(), csv("find,title,quantity,mass,from serial", "8,Grease,2.5,0.5,0150"));
        tables.take(priya, top, Server.key(), csv("find,title,quantity", "8,Grease,3"));
        assertThat(tree()).contains("8 Grease 3 g");
        assertThat(tables.plan(
                                priya,
                                top,
                                csv("find,title,quantity,unit,mass,cost,from serial", "8,Grease,3,g,0.5,0.03,0150"))
                        .changing())
                .isZero();
        // What is fetched can be brought back as it is.
        byte[] fetched = Web.as(server, "priya")
                .get("/documents/" + top + "/bom.csv?shape=level")
                .body()
                .getBytes(StandardCharsets.UTF_8);
        BringBomLines.Plan again = tables.plan(priya, top, fetched);
        assertThat(again.refused()).isEmpty();
        assertThat(again.changing()).isZero();
    }

    @Test
    void oneRowThatIsInTheWayKeepsAllOfThem() {
        byte[] odd = csv(
                "find,number,title,quantity,unit,from serial",
                "," + mark + "-lamp,,2,pc,",
                ",,Grease,-1,g,",
                ",,Glue,1e308,g,",
                ",,Tape,NaN,m,",
                ",,Label,1,furlong,",
                ",,Paint,\"1,000\",ml,",
                "1,,Wire,1,pc,",
                ",,Fluid,1,pc,x-y",
                "," + mark + "-top,,1,pc,");
        BringBomLines.Plan plan = tables.plan(priya, top, odd);
        assertThat(plan.rows()).hasSize(9);
        assertThat(plan.refused())
                .extracting(r -> r.refusal().orElseThrow().code())
                .containsExactly(
                        "bom.quantity",
                        "bom.quantity",
                        "bom.quantity",
                        "bom.unit",
                        "bom.comma",
                        "bom.find_taken",
                        "bom.serial",
                        "bom.ring");
        assertThat(plan.opens()).isFalse();
        try {
            tables.take(priya, top, Server.key(), odd);
        } catch (Refused e) {
            assertThat(e.refusal().code()).isEqualTo("bom.table_refused");
        }
        assertThat(tree()).containsExactly("1 bolt 4 pc");
    }

    @Test
    void rowsOfOneThingAreToldByTheirFindNumbers() {
        tables.take(priya, top, Server.key(), csv("find,title,quantity", "10,Grease,1"));
        tables.take(priya, top, Server.key(), csv("find,title,quantity", "10,Grease,1", "14,Grease,2"));
        assertThat(tree()).containsExactly("1 bolt 4 pc", "10 Grease 1 pc", "14 Grease 2 pc");
        assertThat(tables.plan(priya, top, csv("title,quantity", "Glue,1", "glue,2"))
                        .refused())
                .singleElement()
                .satisfies(r -> assertThat(r.refusal().orElseThrow().code()).isEqualTo("bom.table_twice"));
        // A thing that stands once is renumbered by the number that its row says.
        tables.take(priya, top, Server.key(), csv("find,number,quantity", "3," + mark + "-bolt,4"));
        assertThat(tree()).contains("3 bolt 4 pc");
    }

    @Test
    void aWorkbookComesThroughThePageWithWhatItsFormulasGave() {
        byte[] book =
                TableFiles.xlsx("lines", List.of(List.of("number", "title", "quantity"), List.of("", "=1+1", "3")));
        String sent = "base64:" + Base64.getEncoder().encodeToString(book);
        Web web = Web.as(server, "priya");
        String at = "/documents/" + top + "/bom/table";
        assertThat(web.get(at).body()).contains("Show what it does");
        String shown =
                web.post(at, Map.of("actKey", Server.key(), "table", sent)).body();
        assertThat(shown).contains("1 line changes", "Do it");
        assertThat(tree()).hasSize(1);
        assertThat(web.post(at, Map.of("actKey", Server.key(), "table", sent, "act", "take"))
                        .statusCode())
                .isEqualTo(302);
        assertThat(tree()).hasSize(2);
        assertThat(web.post(at, Map.of("actKey", Server.key(), "table", "base64:???"))
                        .body())
                .contains("no heads");
    }

    @Test
    void whoMayNotWriteLinesBringsNone() {
        server.release("priya", bolt);
        server.release("priya", lamp);
        server.release("priya", top);
        assertThat(Web.as(server, "rafael")
                        .get("/documents/" + top + "/bom/table")
                        .statusCode())
                .isEqualTo(404);
        try {
            tables.plan(priya, top, usual());
        } catch (Refused e) {
            assertThat(e.refusal().code()).isEqualTo("bom.frozen");
        }
        assertThat(tree()).containsExactly("1 bolt 4 pc");
    }
}
