package mintshelf.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.OptionalLong;
import mintshelf.app.effect.References;
import mintshelf.app.ground.Actor;
import mintshelf.app.store.filing.FilingStore.Row;
import mintshelf.app.store.structure.Reference;
import mintshelf.app.use.filing.FileDocuments;
import mintshelf.app.use.filing.FilingSheets;
import org.junit.jupiter.api.Test;

/** Sheets of more files than one page shows and one transaction takes. */
class FilingManyTest {
    private final Server server = Server.shared();
    private final FilingSheets sheets = server.bean(FilingSheets.class);
    private final FileDocuments file = server.bean(FileDocuments.class);
    private final Actor priya = server.actor("priya");
    private final long shelf = server.shelf();
    private final String mark = Server.key().substring(0, 8);

    private long open(int notes, Map<String, byte[]> others) {
        List<String> tokens = new ArrayList<>();
        others.forEach((name, bytes) -> tokens.add(server.bring("priya", name, bytes)));
        for (int i = 0; i < notes; i++) {
            byte[] text = ("note " + i + mark).getBytes(StandardCharsets.US_ASCII);
            tokens.add(server.bring("priya", "note " + mark + " " + i + ".txt", text));
        }
        return sheets.open(priya, shelf, OptionalLong.empty(), tokens);
    }

    private List<Row> rows(long id) {
        return sheets.sheet(priya, id).lines().stream().map(l -> l.row()).toList();
    }

    private long filed(long id) {
        return rows(id).stream().filter(r -> r.item().isPresent()).count();
    }

    @Test
    void allAreFiledInPortionsAndWhatIsReferredToGoesFirst() {
        byte[] whole = StructureTest.assembly("whole " + mark, "part" + mark + ".stp", 2);
        Map<String, byte[]> models = new HashMap<>();
        models.put("whole" + mark + ".stp", whole);
        long id = open(104, models);
        // The part comes last on another sheet of the same size, its assembly first: both are found.
        List<String> tokens = new ArrayList<>();
        tokens.add(server.bring(
                "priya", "top" + mark + ".stp", StructureTest.assembly("top " + mark, "late" + mark + ".stp", 3)));
        for (int i = 0; i < 104; i++) {
            byte[] text = ("more " + i + mark).getBytes(StandardCharsets.US_ASCII);
            tokens.add(server.bring("priya", "more " + mark + " " + i + ".txt", text));
        }
        tokens.add(server.bring("priya", "late" + mark + ".stp", StructureTest.assembly("late " + mark)));
        long other = sheets.open(priya, shelf, OptionalLong.empty(), tokens);
        String key = Server.key();
        assertThat(file.file(priya, other, key, false).isFiled()).isTrue();
        assertThat(filed(other)).isEqualTo(106);
        long top = rows(other).get(0).item().orElseThrow();
        List<Reference> refersTo =
                server.bean(References.class).of(server.document(top).head().version());
        assertThat(refersTo.get(0).isFound()).as("in another portion").isTrue();
        // Sent again it is not done again.
        assertThat(file.file(priya, other, key, false).isFiled()).isTrue();
        assertThat(filed(other)).isEqualTo(106);
        assertThat(file.file(priya, id, Server.key(), false).isFiled()).isTrue();
        assertThat(filed(id)).isEqualTo(105);
        assertThat(sheets.sheet(priya, id).filing().isOpen()).isFalse();
    }

    @Test
    void oneRowThatCannotBeFiledKeepsAllBack() {
        long id = open(110, Map.of());
        List<Row> rows = rows(id);
        sheets.keep(
                priya,
                id,
                List.of(numbered(rows.get(3), "FM-" + shelf + "77"), numbered(rows.get(105), "FM-" + shelf + "77")));
        FileDocuments.Result result = file.file(priya, id, Server.key(), false);
        assertThat(result.isFiled()).isFalse();
        assertThat(result.problems()).containsOnlyKeys(rows.get(105).id());
        assertThat(filed(id)).isZero();
        // Mended, it goes; the numbers that the try drew are not lost.
        sheets.keep(priya, id, List.of(numbered(rows.get(105), "FM-" + shelf + "78")));
        assertThat(file.file(priya, id, Server.key(), false).isFiled()).isTrue();
        assertThat(filed(id)).isEqualTo(110);
    }

    private static Row numbered(Row row, String number) {
        return row.withNumber(number, "");
    }

    @Test
    void eachPageSaysItsOwnRowsOnly() {
        long id = open(112, Map.of());
        List<Row> rows = rows(id);
        Web web = Web.as(server, "priya");
        String first = web.get("/filings/" + id).body();
        assertThat(first)
                .contains("row" + rows.get(0).id() + ".title")
                .doesNotContain("row" + rows.get(110).id() + ".");
        assertThat(web.get("/filings/" + id + "?page=2").body())
                .contains("row" + rows.get(110).id() + ".title");
        assertThat(web.get("/filings/" + id + "?page=99").body())
                .contains("row" + rows.get(110).id() + ".title");
        // One row of the second page is typed over; what stands on the first one stays ticked.
        long last = rows.get(110).id();
        var turned = web.post(
                "/filings/" + id + "/turn",
                Map.of("to", "1", "rows", Long.toString(last), "row" + last + ".title", "Another title"));
        assertThat(turned.headers().firstValue("Location").orElse("")).endsWith("/filings/" + id + "?page=1");
        assertThat(rows(id).get(110).title()).isEqualTo("Another title");
        assertThat(rows(id).get(110).included()).as("its tick was taken away").isFalse();
        assertThat(rows(id)).filteredOn(Row::included).hasSize(111);
        assertThat(first).contains("Set for all ticked on this page");
    }
}
