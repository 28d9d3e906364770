package mintshelf.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.Set;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.Refused;
import mintshelf.app.store.filing.FilingStore;
import mintshelf.app.store.house.HouseStore;
import mintshelf.app.use.filing.FileDocuments;
import mintshelf.app.use.filing.FilingSheets;
import mintshelf.core.base.Refusal;
import mintshelf.database.schema.Tables;
import org.junit.jupiter.api.Test;

class FilingTest {
    private final Server server = Server.shared();
    private final FilingSheets filingSheets = server.bean(FilingSheets.class);
    private final FileDocuments filing = server.bean(FileDocuments.class);
    private final Actor priya = server.actor("priya");

    private long open(long shelf, String... names) {
        List<String> tokens = new ArrayList<>();
        for (String name : names) {
            tokens.add(server.bring("priya", name, (name + System.nanoTime()).getBytes(StandardCharsets.UTF_8)));
        }
        return filingSheets.open(priya, shelf, OptionalLong.empty(), tokens);
    }

    private static FilingStore.Row with(FilingStore.Row row, String number, String title) {
        return new FilingStore.Row(
                row.id(),
                row.upload(),
                true,
                row.kind(),
                "",
                number,
                "",
                title,
                "",
                row.revision(),
                "",
                row.folder(),
                row.facts(),
                row.sameAs(),
                row.item());
    }

    @Test
    void aSheetIsFiledWholeAndEndsInAReport() {
        long shelf = server.shelf();
        long sheet = open(shelf, "FB-201 Mooring plan.txt", "tide table.txt");
        FileDocuments.Result result = filing.file(priya, sheet, Server.key(), true);
        assertThat(result.isFiled()).isTrue();
        assertThat(result.target()).isEqualTo("/filings/" + sheet);
        var made = filingSheets.sheet(priya, sheet).lines();
        assertThat(made).allSatisfy(l -> assertThat(l.made()).isPresent());
        var first = made.get(0).made().orElseThrow().document();
        assertThat(first.number()).isEqualTo("FB-201");
        assertThat(first.title()).isEqualTo("Mooring plan");
        assertThat(first.head().number()).isEqualTo(1);
        assertThat(first.holder().orElseThrow().person()).isEqualTo(priya.person());
        assertThat(made.get(1).made().orElseThrow().document().number()).matches("P-\\d{5}");
    }

    @Test
    void oneRowThatCannotBeFiledStopsThemAllAndKeepsWhatWasTyped() {
        long shelf = server.shelf();
        String used = server.document(server.file("priya", shelf, "used.txt", "u", false))
                .number();
        long sheet = open(shelf, "good.txt", "bad.txt");
        var rows = filingSheets.sheet(priya, sheet).lines().stream()
                .map(FilingSheets.FilingLine::row)
                .toList();
        long drawing = server.bean(HouseStore.class).kind("drawing").id();
        FilingStore.Row bad = rows.get(1);
        filingSheets.keep(
                priya,
                sheet,
                List.of(
                        with(rows.get(0), "", "Good"),
                        new FilingStore.Row(
                                bad.id(),
                                bad.upload(),
                                true,
                                Optional.of(drawing),
                                "",
                                used,
                                "",
                                "",
                                "",
                                bad.revision(),
                                "",
                                bad.folder(),
                                bad.facts(),
                                bad.sameAs(),
                                bad.item())));
        int before = server.db().fetchCount(Tables.ITEM);
        FileDocuments.Result result = filing.file(priya, sheet, Server.key(), false);
        assertThat(result.problems()).containsOnlyKeys(bad.id());
        assertThat(result.problems().get(bad.id())).extracting(Refusal::code).contains("number.used", "text.missing");
        assertThat(server.db().fetchCount(Tables.ITEM)).isEqualTo(before);
        assertThat(filingSheets.sheet(priya, sheet).lines().get(0).row().title())
                .isEqualTo("Good");
    }

    @Test
    void theSameFormPostedTwiceFilesOnce() {
        long sheet = open(server.shelf(), "once.txt");
        String key = Server.key();
        assertThat(filing.file(priya, sheet, key, false).target())
                .isEqualTo(filing.file(priya, sheet, key, false).target());
        assertThat(filing.file(priya, sheet, Server.key(), false).isFiled()).isTrue();
        assertThat(server.db().fetchCount(Tables.FILING_ROW, Tables.FILING_ROW.FILING.eq(sheet)))
                .isEqualTo(1);
    }

    @Test
    void numbersAreDrawnOnceAlsoUnderRace() throws Exception {
        long shelf = server.shelf();
        var pool = Executors.newFixedThreadPool(8);
        try {
            List<Future<String>> all = new ArrayList<>();
            for (int i = 0; i < 24; i++) {
                String name = "race" + i + ".txt";
                all.add(pool.submit(() -> server.document(server.file("priya", shelf, name, name, false))
                        .number()));
            }
            Set<String> numbers = new HashSet<>();
            for (Future<String> each : all) numbers.add(each.get());
            assertThat(numbers).hasSize(24);
        } finally {
            pool.shutdown();
        }
    }

    @Test
    void aTypedNumberOfTheSeriesPushesTheCounterOn() {
        long shelf = server.shelf();
        String drawn = server.document(server.file("priya", shelf, "a.txt", "a", false))
                .number();
        int next = Integer.parseInt(drawn.substring(2)) + 5;
        long sheet = open(shelf, "typed.txt");
        FilingStore.Row row = filingSheets.sheet(priya, sheet).lines().get(0).row();
        long drawing = server.bean(HouseStore.class).kind("drawing").id();
        String typed = String.format("D-%05d", next);
        filingSheets.keep(
                priya,
                sheet,
                List.of(new FilingStore.Row(
                        row.id(),
                        row.upload(),
                        true,
                        Optional.of(drawing),
                        "",
                        typed,
                        "",
                        "Typed",
                        "",
                        row.revision(),
                        "",
                        row.folder(),
                        Map.of("material", "POM-C"),
                        row.sameAs(),
                        row.item())));
        assertThat(filing.file(priya, sheet, Server.key(), false).isFiled()).isTrue();
        assertThat(server.document(server.file("priya", shelf, "b.txt", "b", false))
                        .number())
                .isEqualTo(String.format("D-%05d", next + 1));
    }

    @Test
    void contentThatIsOnTheShelfIsPointedOutAndLeftOut() {
        long shelf = server.shelf();
        server.file("priya", shelf, "known.txt", "the same bytes of a berth note", false);
        long sheet = filingSheets.open(
                priya,
                shelf,
                OptionalLong.empty(),
                List.of(server.bring(
                        "priya", "other name.txt", "the same bytes of a berth note".getBytes(StandardCharsets.UTF_8))));
        FilingSheets.FilingLine line = filingSheets.sheet(priya, sheet).lines().get(0);
        assertThat(line.row().included()).isFalse();
        assertThat(line.sameAs()).isPresent();
    }

    @Test
    void readersFileNothingAndStrangersSeeNoSheet() {
        long sheet = open(server.shelf(), "x.txt");
        assertThatThrownBy(() -> filingSheets.sheet(server.actor("tomasz"), sheet))
                .isInstanceOf(NotThere.class);
        assertThatThrownBy(() ->
                        filingSheets.open(server.actor("hedda"), server.shelf(), OptionalLong.empty(), List.of("x")))
                .isInstanceOf(Refused.class);
    }

    private static byte[] sheetAt(String revision) {
        return new String(Review.sheet(Server.key()), StandardCharsets.ISO_8859_1)
                .replace("  1\r\n\r\n  2\r\nrev\r\n", "  1\r\n" + revision + "\r\n  2\r\nrev\r\n")
                .getBytes(StandardCharsets.ISO_8859_1);
    }

    @Test
    void aSheetThatSaysBIsFiledAsBAndTheRecordSaysThatItWasTakenOver() {
        long shelf = server.shelf();
        long item = server.file("priya", shelf, "drawing", "came as b.dxf", sheetAt("B"), false);
        assertThat(server.document(item).current().shown()).isEqualTo("B");
        assertThat(Web.as(server, "priya").get("/documents/" + item + "/record").body())
                .contains("taken over as revision B");
        long first = server.file("priya", shelf, "drawing", "came as none.dxf", sheetAt("-"), false);
        assertThat(server.document(first).current().shown()).isEqualTo("A");
    }

    @Test
    void aRevisionThatTheSeriesDoesNotKnowIsRefusedInItsRow() {
        long shelf = server.shelf();
        long sheet = filingSheets.open(
                priya, shelf, OptionalLong.empty(), List.of(server.bring("priya", "odd.dxf", sheetAt("7/3"))));
        var row = filingSheets.sheet(priya, sheet).lines().get(0).row();
        assertThat(row.revision()).isEqualTo("7/3");
        assertThat(row.revisionWhy()).isEqualTo("from the title block");
        FileDocuments.Result result = filing.file(priya, sheet, Server.key(), false);
        assertThat(result.problems().get(row.id())).extracting(Refusal::code).containsExactly("revision.unknown");
    }
}
