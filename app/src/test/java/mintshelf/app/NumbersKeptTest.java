package mintshelf.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.LocalDateTime;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.Set;
import java.util.concurrent.Callable;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import mintshelf.app.ground.Actor;
import mintshelf.app.store.content.UploadStore;
import mintshelf.app.store.filing.FilingStore.Row;
import mintshelf.app.store.house.HouseStore;
import mintshelf.app.use.content.CollectContent;
import mintshelf.app.use.filing.FileDocuments;
import mintshelf.app.use.filing.FilingSheets;
import mintshelf.core.base.Refusal;
import mintshelf.database.schema.Tables;
import org.junit.jupiter.api.Test;

/** What a filing sheet shows as its numbers is what its documents get: nobody else draws or types them while it is open. */
class NumbersKeptTest {
    private final Server server = Server.shared();
    private final FilingSheets sheets = server.bean(FilingSheets.class);
    private final FileDocuments filing = server.bean(FileDocuments.class);
    private final Actor priya = server.actor("priya");
    private final Actor tomasz = server.actor("tomasz");
    private final long shelf = server.shelf();

    private long open(Actor actor, int files) {
        List<String> tokens = new ArrayList<>();
        for (int i = 0; i < files; i++) {
            String name = "kept " + System.nanoTime() + ".txt";
            tokens.add(server.bring(actor.login(), name, name.getBytes(java.nio.charset.StandardCharsets.UTF_8)));
        }
        return sheets.open(actor, shelf, OptionalLong.empty(), tokens);
    }

    private List<String> kept(Actor actor, long sheet) {
        FilingSheets.Sheet shown = sheets.sheet(actor, sheet);
        return shown.lines().stream()
                .map(l -> shown.kept().getOrDefault(l.row().id(), ""))
                .toList();
    }

    private List<Row> rows(Actor actor, long sheet) {
        return sheets.sheet(actor, sheet).lines().stream()
                .map(FilingSheets.FilingLine::row)
                .toList();
    }

    private static Row included(Row row, boolean included) {
        return new Row(
                row.id(),
                row.upload(),
                included,
                row.kind(),
                row.kindWhy(),
                row.number(),
                row.numberWhy(),
                row.title(),
                row.titleWhy(),
                row.revision(),
                row.revisionWhy(),
                row.folder(),
                row.facts(),
                row.sameAs(),
                row.item());
    }

    private static Collection<String> codes(FileDocuments.Result result) {
        return result.problems().values().stream()
                .flatMap(List::stream)
                .map(Refusal::code)
                .toList();
    }

    private int reserved(List<Row> rows) {
        return server.db()
                .fetchCount(
                        Tables.NUMBER_RESERVED,
                        Tables.NUMBER_RESERVED.FILING_ROW.in(
                                rows.stream().map(Row::id).toList()));
    }

    @Test
    void nobodyElseDrawsOrTypesThemAndTheDocumentsGetThem() {
        long mine = open(priya, 2);
        List<String> shown = kept(priya, mine);
        assertThat(shown).doesNotContain("").doesNotHaveDuplicates();
        long other = open(tomasz, 1);
        assertThat(shown).doesNotContainAnyElementsOf(kept(tomasz, other));
        sheets.keep(tomasz, other, List.of(rows(tomasz, other).get(0).withNumber(shown.get(0), "")));
        FileDocuments.Result refused = filing.file(tomasz, other, Server.key(), false);
        assertThat(codes(refused)).containsExactly("number.reserved");
        assertThat(refused.problems().values().iterator().next().get(0).reason())
                .contains(shown.get(0), "Priya", "open");
        // What was typed in its place gave his own back, and emptied it comes again.
        assertThat(kept(tomasz, other)).containsExactly("");
        sheets.keep(tomasz, other, List.of(rows(tomasz, other).get(0).withNumber("", "")));
        assertThat(kept(tomasz, other).get(0)).isNotEmpty();
        assertThat(filing.file(priya, mine, Server.key(), false).isFiled()).isTrue();
        assertThat(sheets.sheet(priya, mine).lines())
                .extracting(l -> l.made().orElseThrow().document().number())
                .containsExactlyElementsOf(shown);
        sheets.drop(tomasz, other);
    }

    @Test
    void theVeryNumberTypedIsTheOneThatIsKept() {
        long sheet = open(priya, 1);
        String shown = kept(priya, sheet).get(0);
        sheets.keep(
                priya,
                sheet,
                List.of(rows(priya, sheet).get(0).withNumber(shown.toLowerCase(java.util.Locale.ROOT), "")));
        assertThat(filing.file(priya, sheet, Server.key(), false).isFiled()).isTrue();
        assertThat(sheets.sheet(priya, sheet)
                        .lines()
                        .get(0)
                        .made()
                        .orElseThrow()
                        .document()
                        .number())
                .isEqualTo(shown);
    }

    @Test
    void aSheetThatIsGivenUpGivesItsNumbersBack() {
        long first = open(priya, 3);
        List<String> shown = kept(priya, first);
        sheets.drop(priya, first);
        long second = open(tomasz, 3);
        assertThat(kept(tomasz, second)).containsExactlyElementsOf(shown);
        sheets.drop(tomasz, second);
    }

    @Test
    void whatIsGivenBackBehindOthersIsDrawnBeforeTheCounterGoesOn() {
        long first = open(priya, 3);
        long second = open(tomasz, 1);
        List<String> shown = kept(priya, first);
        List<Row> rows = rows(priya, first);
        sheets.keep(priya, first, List.of(included(rows.get(0), false), included(rows.get(1), false), rows.get(2)));
        assertThat(kept(priya, first)).containsExactly("", "", shown.get(2));
        long third = open(tomasz, 3);
        assertThat(kept(tomasz, third)).startsWith(shown.get(0), shown.get(1));
        assertThat(kept(tomasz, third)).doesNotHaveDuplicates().doesNotContain(shown.get(2));
        // Ticked again they get others: theirs are taken.
        sheets.keep(priya, first, rows);
        Set<String> all = new HashSet<>(kept(priya, first));
        all.addAll(kept(tomasz, second));
        all.addAll(kept(tomasz, third));
        assertThat(all).hasSize(7);
        for (long sheet : List.of(second, third)) sheets.drop(tomasz, sheet);
        sheets.drop(priya, first);
    }

    @Test
    void anotherKindHasItsOwnSeries() {
        long sheet = open(priya, 1);
        String shown = kept(priya, sheet).get(0);
        Row row = rows(priya, sheet).get(0);
        long drawing = server.bean(HouseStore.class).kind("drawing").id();
        sheets.keep(priya, sheet, List.of(row.withKind(drawing, "")));
        assertThat(kept(priya, sheet).get(0)).isNotEmpty().isNotEqualTo(shown);
        sheets.keep(priya, sheet, List.of(row));
        assertThat(kept(priya, sheet)).containsExactly(shown);
        sheets.drop(priya, sheet);
    }

    @Test
    void filesThatAreNotKeptThatLongKeepNoNumbers() {
        long sheet = open(priya, 2);
        List<Row> rows = rows(priya, sheet);
        server.db()
                .update(Tables.UPLOAD)
                .set(Tables.UPLOAD.LEASE_UNTIL, LocalDateTime.of(2020, 1, 1, 0, 0))
                .where(Tables.UPLOAD.ID.in(rows.stream().map(Row::upload).toList()))
                .execute();
        server.bean(CollectContent.class).collect();
        assertThat(server.bean(UploadStore.class)
                        .upload(rows.get(0).upload())
                        .orElseThrow()
                        .state()
                        .name())
                .isNotEqualTo("COMPLETE");
        assertThat(reserved(rows)).isZero();
    }

    @Test
    void aSheetThatIsFiledLeavesNothingBehindForRowsThatWereLeftOut() {
        long sheet = open(priya, 2);
        List<Row> rows = rows(priya, sheet);
        sheets.keep(priya, sheet, List.of(rows.get(0), included(rows.get(1), false)));
        assertThat(filing.file(priya, sheet, Server.key(), false).isFiled()).isTrue();
        assertThat(reserved(rows)).isZero();
    }

    @Test
    void sheetsThatAreOpenedAtOnceGetNumbersOfTheirOwn() throws Exception {
        ExecutorService threads = Executors.newFixedThreadPool(8);
        try {
            List<Callable<Map<Long, List<String>>>> each = new ArrayList<>();
            for (int i = 0; i < 16; i++) {
                each.add(() -> {
                    long sheet = open(priya, 3);
                    return Map.of(sheet, kept(priya, sheet));
                });
            }
            Set<String> all = new HashSet<>();
            for (Future<Map<Long, List<String>>> one : threads.invokeAll(each)) {
                for (Map.Entry<Long, List<String>> sheet : one.get().entrySet()) {
                    all.addAll(sheet.getValue());
                    sheets.drop(priya, sheet.getKey());
                }
            }
            assertThat(all).hasSize(48);
            // All of them are free again: whoever comes next fills the gaps first.
            long again = open(priya, 48);
            assertThat(kept(priya, again)).allSatisfy(n -> assertThat(all).contains(n));
            sheets.drop(priya, again);
        } finally {
            threads.shutdown();
        }
    }

    @Test
    void aKeptNumberIsNoDocument() {
        long sheet = open(priya, 1);
        String shown = kept(priya, sheet).get(0);
        assertThat(Optional.of(server.db()
                        .fetchCount(
                                Tables.NUMBER_CLAIM,
                                Tables.NUMBER_CLAIM.NUMBER.eq(shown).and(Tables.NUMBER_CLAIM.ITEM.isNull()))))
                .contains(1);
        sheets.drop(priya, sheet);
        assertThat(server.db().fetchCount(Tables.NUMBER_CLAIM, Tables.NUMBER_CLAIM.NUMBER.eq(shown)))
                .isZero();
    }
}
