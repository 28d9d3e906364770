package mintshelf.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.OptionalLong;
import mintshelf.app.effect.References;
import mintshelf.app.store.document.VersionRow;
import mintshelf.app.store.document.VersionStore;
import mintshelf.app.store.filing.FilingStore.Row;
import mintshelf.app.store.structure.LinkStore;
import mintshelf.app.use.filing.FilingSheets;
import mintshelf.app.use.search.ReadWords;
import mintshelf.core.document.Document;
import org.junit.jupiter.api.Test;

/** Where the files of a filing sheet come from: released elsewhere, begun as copies; and what they refer to. */
class FilingOriginTest {
    private final Server server = Server.shared();
    private final FilingSheets sheets = server.bean(FilingSheets.class);
    private final long shelf = server.shelf();
    private final String mark = Server.key().substring(0, 8);

    private long open(String login, Map<String, byte[]> files) {
        List<String> tokens = new ArrayList<>();
        files.forEach((name, bytes) -> tokens.add(server.bring(login, name, bytes)));
        return sheets.open(server.actor(login), shelf, OptionalLong.empty(), tokens);
    }

    private List<Row> rows(String login, long id) {
        return sheets.sheet(server.actor(login), id).lines().stream()
                .map(l -> l.row())
                .toList();
    }

    /** What a page sends of the rows, with the same words for each. */
    private static Map<String, String> form(List<Row> rows, Map<String, String> said) {
        Map<String, String> form = new HashMap<>();
        for (Row row : rows) {
            form.put("row" + row.id() + ".included", "on");
            said.forEach((name, value) -> form.put("row" + row.id() + "." + name, value));
        }
        form.put("actKey", Server.key());
        form.put("hold", "true");
        return form;
    }

    @Test
    void whatWasReleasedElsewhereStandsAsItIs() {
        byte[] part = StructureTest.assembly("part " + mark);
        byte[] whole = StructureTest.assembly("whole " + mark, "part" + mark + ".stp", 2);
        long id = open("ines", Map.of("whole" + mark + ".stp", whole, "part" + mark + ".stp", part));
        Web.as(server, "ines")
                .post("/filings/" + id, form(rows("ines", id), Map.of("stands", "released", "revision", "C")));
        List<Row> filed = rows("ines", id);
        assertThat(filed).allMatch(r -> r.item().isPresent());
        for (Row row : filed) {
            Document document = server.document(row.item().orElseThrow());
            assertThat(document.released())
                    .hasValueSatisfying(r -> assertThat(r.label()).contains("C"));
            assertThat(document.pending()).isEmpty();
            assertThat(document.holder()).isEmpty();
            assertThat(server.bean(VersionStore.class)
                            .versions(document.id())
                            .get(0)
                            .madeBy())
                    .isEqualTo(VersionRow.MadeBy.TAKEN_IN);
            // A reader sees it, and nobody signed it here.
            String page =
                    Web.as(server, "rafael").get("/documents/" + document.id()).body();
            assertThat(page).contains("Taken in by");
        }
        long assembly = filed.stream()
                .map(r -> r.item().orElseThrow())
                .filter(i -> !server.bean(References.class)
                        .of(server.document(i).head().version())
                        .isEmpty())
                .findFirst()
                .orElseThrow();
        assertThat(server.bean(References.class)
                        .of(server.document(assembly).head().version())
                        .get(0)
                        .isFound())
                .isTrue();
    }

    @Test
    void onlyWhoKeepsTheShelfSaysSo() {
        long id = open("priya", Map.of("mine " + mark + ".txt", mark.getBytes(StandardCharsets.US_ASCII)));
        Web priya = Web.as(server, "priya");
        assertThat(priya.get("/filings/" + id).body()).doesNotContain("stands as");
        String answer = priya.post("/filings/" + id, form(rows("priya", id), Map.of("stands", "released")))
                .body();
        assertThat(answer).contains("Only who keeps a shelf says that something was released elsewhere.");
        assertThat(rows("priya", id)).allMatch(r -> r.item().isEmpty());
        // The second round: without it the same sheet is filed.
        priya.post("/filings/" + id, form(rows("priya", id), Map.of("stands", "")));
        assertThat(server.document(rows("priya", id).get(0).item().orElseThrow())
                        .released())
                .isEmpty();
    }

    @Test
    void aNearCopyIsOfferedAsStartedFromWhatItResembles() {
        long first =
                server.file("priya", shelf, Server.PLAIN, "first " + mark + ".dxf", AlikeTest.plate(1, 7, 9), false);
        server.bean(ReadWords.class).run();
        long id = open("priya", Map.of("second " + mark + ".dxf", AlikeTest.plate(1, 7, 9)));
        Row row = rows("priya", id).get(0);
        Web priya = Web.as(server, "priya");
        String offered = priya.get("/filings/" + id + "/rows/" + row.id()).body();
        assertThat(offered)
                .contains("% like")
                .contains(server.document(first).number())
                .contains("It was started from it");
        assertThat(Web.as(server, "tomasz")
                        .get("/filings/" + id + "/rows/" + row.id())
                        .statusCode())
                .isEqualTo(404);
        priya.post("/filings/" + id, form(List.of(row), Map.of("from", Long.toString(first))));
        long made = rows("priya", id).get(0).item().orElseThrow();
        assertThat(server.bean(LinkStore.class).around(List.of(made))).anySatisfy(l -> {
            assertThat(l.kind()).isEqualTo(LinkStore.Kind.STARTED_FROM);
            assertThat(l.target()).isEqualTo(first);
        });
    }

    @Test
    void whatOneMayNotSeeIsNothingToStartFrom() {
        long id = open("priya", Map.of("odd " + mark + ".txt", ("o" + mark).getBytes(StandardCharsets.US_ASCII)));
        Web priya = Web.as(server, "priya");
        assertThat(priya.post("/filings/" + id, form(rows("priya", id), Map.of("folder", "99999999")))
                        .statusCode())
                .isEqualTo(404);
        assertThat(priya.post("/filings/" + id, form(rows("priya", id), Map.of("kind", "99999999")))
                        .statusCode())
                .isEqualTo(404);
        priya.post("/filings/" + id, form(rows("priya", id), Map.of("from", "99999999")));
        long made = rows("priya", id).get(0).item().orElseThrow();
        assertThat(server.bean(LinkStore.class).around(List.of(made))).isEmpty();
    }

    @Test
    void whatAFileRefersToIsSaidBeforeItIsFiled() {
        long there = server.file(
                "priya", shelf, "part-model", "there" + mark + ".stp", StructureTest.assembly("t" + mark), false);
        byte[] whole = StructureTest.assembly(
                "w" + mark, "with" + mark + ".stp", 1, "there" + mark + ".stp", 2, "gone" + mark + ".stp", 1);
        long id = open(
                "priya",
                Map.of("whole" + mark + ".stp", whole, "with" + mark + ".stp", StructureTest.assembly("x" + mark)));
        Row row = sheets.sheet(server.actor("priya"), id).lines().stream()
                .filter(l -> l.upload().fileName().startsWith("whole"))
                .findFirst()
                .orElseThrow()
                .row();
        String says = Web.as(server, "priya")
                .get("/filings/" + id + "/rows/" + row.id())
                .body();
        assertThat(says)
                .contains("Refers to 3 files; filed with it: with" + mark + ".stp; on the shelf: "
                        + server.document(there).number())
                .contains("not found: gone" + mark + ".stp");
    }
}
