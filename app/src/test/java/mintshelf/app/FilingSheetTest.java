package mintshelf.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalLong;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.Refused;
import mintshelf.app.store.document.VersionStore;
import mintshelf.app.store.filing.FilingStore.Row;
import mintshelf.app.store.shelf.ShelfStore;
import mintshelf.app.use.filing.FileDocuments;
import mintshelf.app.use.filing.FilingSheets;
import mintshelf.app.use.shelf.ReadShelf;
import org.junit.jupiter.api.Test;

/** What a filing sheet shows and keeps while it is open. */
class FilingSheetTest {
    private final Server server = Server.shared();
    private final FilingSheets sheets = server.bean(FilingSheets.class);
    private final Actor priya = server.actor("priya");

    private long open(long shelf, Map<String, String> files) {
        List<String> tokens = new ArrayList<>();
        files.forEach((name, text) -> tokens.add(server.bring("priya", name, text.getBytes(StandardCharsets.UTF_8))));
        return sheets.open(priya, shelf, OptionalLong.empty(), tokens);
    }

    private static Row saying(Row r, boolean uses, String words) {
        return new Row(
                r.id(),
                r.upload(),
                r.included() && !uses,
                r.kind(),
                "",
                r.number(),
                "",
                r.title(),
                "",
                r.revision(),
                "",
                r.folder(),
                r.facts(),
                r.sameAs(),
                r.item(),
                uses,
                words,
                r.path(),
                r.beside(),
                r.origin());
    }

    private String comment(long item) {
        return server.bean(VersionStore.class).versions(item).get(0).comment();
    }

    @Test
    void whatIsSaidOfAllIsSaidOfEachThatSaysNothingOfItsOwn() {
        long shelf = server.shelf();
        long id = open(shelf, Map.of("one " + shelf + ".txt", "1 " + shelf, "two " + shelf + ".txt", "2 " + shelf));
        List<Row> rows =
                sheets.sheet(priya, id).lines().stream().map(l -> l.row()).toList();
        sheets.keep(
                priya,
                id,
                List.of(saying(rows.get(0), false, "the later one"), saying(rows.get(1), false, "")),
                "From the binder");
        assertThat(sheets.sheet(priya, id).filing().comment()).isEqualTo("From the binder");
        server.bean(FileDocuments.class).file(priya, id, Server.key(), false);
        List<Row> filed =
                sheets.sheet(priya, id).lines().stream().map(l -> l.row()).toList();
        assertThat(comment(filed.get(0).item().orElseThrow())).isEqualTo("the later one");
        assertThat(comment(filed.get(1).item().orElseThrow())).isEqualTo("From the binder");
        long plain = server.file("priya", shelf, "plain " + shelf + ".txt", "p " + shelf, false);
        assertThat(comment(plain)).isEqualTo("First filing");
    }

    @Test
    void theNumbersThatComeAreShownAndDrawnWhenItIsFiled() {
        long shelf = server.shelf();
        long id = open(shelf, Map.of("list " + shelf + ".txt", "a " + shelf, "plan " + shelf + ".txt", "b " + shelf));
        Map<Long, String> kept = sheets.sheet(priya, id).kept();
        assertThat(kept).hasSize(2);
        assertThat(kept.values()).doesNotHaveDuplicates();
        server.bean(FileDocuments.class).file(priya, id, Server.key(), false);
        sheets.sheet(priya, id)
                .lines()
                .forEach(l -> assertThat(l.made().orElseThrow().document().number())
                        .isEqualTo(kept.get(l.row().id())));
        assertThat(sheets.sheet(priya, id).kept()).isEmpty();
    }

    @Test
    void whatIsHereAlreadyIsUsedInPlaceOfTheFile() {
        long shelf = server.shelf();
        long there = server.file("priya", shelf, "there " + shelf + ".txt", "same " + shelf, false);
        long id =
                open(shelf, Map.of("again " + shelf + ".txt", "same " + shelf, "new " + shelf + ".txt", "n " + shelf));
        Row same = sheets.sheet(priya, id).lines().stream()
                .map(l -> l.row())
                .filter(r -> r.sameAs().isPresent())
                .findFirst()
                .orElseThrow();
        assertThat(same.sameAs()).contains(there);
        Web web = Web.as(server, "priya");
        String looked = web.post(
                        "/filings/" + id + "/look",
                        Map.of(
                                "row" + same.id() + ".uses",
                                "on",
                                "row" + same.id() + ".included",
                                "true",
                                "comment",
                                "c"))
                .body();
        assertThat(looked).contains("Use that one");
        Row kept = sheets.sheet(priya, id).lines().stream()
                .map(l -> l.row())
                .filter(r -> r.id() == same.id())
                .findFirst()
                .orElseThrow();
        assertThat(kept.uses()).isTrue();
        assertThat(kept.included()).isFalse();
        // Looked at without the tick of the other one: it was taken out there, and comes back.
        Row other = sheets.sheet(priya, id).lines().stream()
                .map(l -> l.row())
                .filter(r -> r.id() != same.id())
                .findFirst()
                .orElseThrow();
        web.post(
                "/filings/" + id,
                Map.of(
                        "row" + same.id() + ".uses",
                        "on",
                        "row" + other.id() + ".included",
                        "on",
                        "row" + other.id() + ".kind",
                        "" + server.kind(Server.PLAIN),
                        "actKey",
                        Server.key()));
        String report = web.get("/filings/" + id).body();
        assertThat(report).contains(server.document(there).number() + " is used in its place");
    }

    @Test
    void foldersComeAlongAndAreMadeWithWhatLiesInThem() {
        long shelf = server.shelf();
        ShelfStore shelves = server.bean(ShelfStore.class);
        long there = server.bean(ReadShelf.class).addFolder(server.actor("ines"), shelf, OptionalLong.empty(), "Parts");
        List<String> tokens = new ArrayList<>();
        for (String name : List.of("x", "y", "z")) {
            tokens.add(server.bring("priya", name + shelf + ".txt", (name + shelf).getBytes(StandardCharsets.UTF_8)));
        }
        List<String> paths = List.of("parts", "parts/clamps, long/../small", "");
        long id = sheets.open(priya, shelf, OptionalLong.empty(), tokens, paths, Optional.empty());
        List<Row> rows =
                sheets.sheet(priya, id).lines().stream().map(l -> l.row()).toList();
        assertThat(rows.get(0).folder()).isEqualTo(there);
        assertThat(rows.get(1).path()).isEqualTo("parts/clamps, long/unnamed/small");
        assertThat(shelves.folders(shelf)).hasSize(2);
        server.bean(FileDocuments.class).file(priya, id, Server.key(), false);
        assertThat(shelves.folders(shelf))
                .extracting(ShelfStore.Folder::name)
                .contains("Parts", "clamps, long", "small")
                .hasSize(5);
        long made = sheets.sheet(priya, id).lines().get(1).row().item().orElseThrow();
        assertThat(server.document(made).place().folders()).hasSize(5);
        assertThatThrownBy(() -> sheets.open(
                        priya,
                        shelf,
                        OptionalLong.empty(),
                        tokens.subList(0, 1),
                        List.of("a/".repeat(30)),
                        Optional.empty()))
                .isInstanceOf(Refused.class);
    }

    @Test
    void whatCannotBeFiledLeadsToItsRow() {
        long shelf = server.shelf();
        long id = open(shelf, Map.of("first " + shelf + ".txt", "f " + shelf));
        Row row = sheets.sheet(priya, id).lines().get(0).row();
        String page = Web.as(server, "priya")
                .post(
                        "/filings/" + id,
                        Map.of(
                                "row" + row.id() + ".included",
                                "on",
                                "row" + row.id() + ".kind",
                                "",
                                "actKey",
                                Server.key()))
                .body();
        assertThat(page).contains("href=\"#row" + row.id() + "\"").contains("No kind is chosen.");
    }
}
