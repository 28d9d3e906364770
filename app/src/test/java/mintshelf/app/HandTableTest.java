package mintshelf.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.time.LocalDate;
import java.time.ZoneOffset;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.concurrent.locks.LockSupport;
import mintshelf.app.ground.Actor;
import mintshelf.app.sight.Contents;
import mintshelf.app.sight.Sight;
import mintshelf.app.store.document.EarlierStore;
import mintshelf.app.store.document.RevisionRow;
import mintshelf.app.store.document.RevisionStore;
import mintshelf.app.store.document.VersionStore;
import mintshelf.app.store.takein.TakenFile;
import mintshelf.app.store.takein.TakenFileStore.Filter;
import mintshelf.app.use.content.ReceiveContent;
import mintshelf.app.use.document.ReadEarlier;
import mintshelf.app.use.revision.StartRevisions;
import mintshelf.app.use.sheetmap.PlanSheets;
import mintshelf.app.use.sheetmap.ReadBlocks;
import mintshelf.app.use.sheetmap.WriteSheets;
import mintshelf.app.use.takein.BringTaken;
import mintshelf.app.use.takein.TakeInWork;
import mintshelf.app.use.takein.TakeIns;
import mintshelf.app.use.verify.Verify;
import mintshelf.core.base.Outcome;
import mintshelf.core.drawing.dxf.DxfDrawing;
import mintshelf.core.drawing.titleblock.HandTable;
import mintshelf.core.drawing.titleblock.RevisionBlock;
import mintshelf.core.takein.RevisionTable;
import mintshelf.standin.OldSheet;
import org.junit.jupiter.api.Test;

/** A revision table that was drawn by hand: read as history when its sheet is taken in, replaced by the shelf's block. */
class HandTableTest {
    private final Server server = Server.shared();
    private final TakeIns takeIns = server.bean(TakeIns.class);
    private final Actor ines = server.actor("ines");
    private final WriteSheets write = server.bean(WriteSheets.class);
    private final WriteSheets.How place = new WriteSheets.How(Optional.empty(), true);

    private static byte[] sheet(String number, String label) {
        OldSheet sheet = new OldSheet(number, "Mooring eye", label, 7)
                .revised("A", "First issue", "2003-05-10", "P. Kern", "H. Voss")
                .revised("B", "Holes 6.6 were 5.5", "2007-11-02", "M. Lind", "H. Voss");
        if (label.equals("C")) sheet.revised("C", "Slot added", "12.3.2011", "M. Lind", "O. Brandt");
        return sheet.bytes();
    }

    private long takeIn(Map<String, byte[]> files) {
        long id = takeIns.begin(ines, server.shelf(), OptionalLong.empty(), "Drawer");
        files.forEach((path, bytes) -> {
            BringTaken.Coming coming = server.bean(BringTaken.class).open(ines, id, path, bytes.length);
            if (coming.complete()) return;
            try {
                server.bean(ReceiveContent.class).receive(ines, coming.token(), 0, new ByteArrayInputStream(bytes));
            } catch (IOException e) {
                throw new IllegalStateException(e);
            }
        });
        takeIns.read(ines, id);
        worked(id);
        return id;
    }

    private void worked(long id) {
        for (int tries = 0; tries < 2000 && takeIns.state(ines, id).isWorking(); tries++) {
            server.bean(TakeInWork.class).goOnWithNext();
            LockSupport.parkNanos(10_000_000);
        }
    }

    private List<TakenFile> files(long id) {
        return takeIns.files(ines, id, Filter.ALL, 0, 100);
    }

    private long filed(long id) {
        takeIns.file(ines, id, takeIns.view(ines, id).documents());
        worked(id);
        return files(id).get(0).item().orElseThrow();
    }

    private String page(String address) {
        return Web.as(server, "ines").get(address).body();
    }

    private DxfDrawing head(long item) {
        int number = server.document(item).head().number();
        var version = server.bean(VersionStore.class).version(item, number).orElseThrow();
        byte[] bytes = server.bean(Contents.class).bytes(version.content(), 1 << 20);
        return ((Outcome.Granted<DxfDrawing>) DxfDrawing.read(bytes)).value();
    }

    private List<String> labels(long item) {
        return RevisionBlock.readyMade().read(head(item)).stream()
                .map(r -> r.get("revision"))
                .toList();
    }

    @Test
    void itsRowsAreTheHistoryOfWhatIsTakenIn() {
        long id = takeIn(Map.of("HT-4001.dxf", sheet("HT-4001", "C")));
        TakenFile before = files(id).get(0);
        assertThat(before.taking().orElseThrow().stops()).isEmpty();
        assertThat(before.taking().orElseThrow().why()).contains("day from its revision table", "2 earlier revisions");
        assertThat(before.taking().orElseThrow().facts()).doesNotContainKey(RevisionTable.KEY);
        long item = filed(id);
        List<RevisionRow> revisions = server.bean(RevisionStore.class).revisions(item);
        assertThat(revisions).singleElement().satisfies(r -> {
            assertThat(r.revision().label()).contains("C");
            assertThat(r.revision().reason()).isEqualTo("Slot added");
            assertThat(r.releasedAt().orElseThrow().atZone(ZoneOffset.UTC).toLocalDate())
                    .isEqualTo(LocalDate.of(2011, 3, 12));
        });
        assertThat(server.bean(ReadEarlier.class).of(server.bean(Sight.class).of(ines, item)))
                .extracting(EarlierStore.Earlier::label, e -> e.says("description"), e -> e.says("date"))
                .containsExactly(
                        org.assertj.core.groups.Tuple.tuple("A", "First issue", "2003-05-10"),
                        org.assertj.core.groups.Tuple.tuple("B", "Holes 6.6 were 5.5", "2007-11-02"));
        assertThat(server.bean(VersionStore.class).versions(item).get(0).comment())
                .contains("signed by O. Brandt");
    }

    @Test
    void ofRevisionsThatAreTakenInWithTheirFilesNoneIsSaidTwice() {
        long id = takeIn(Map.of("old/HT-4002_B.dxf", sheet("HT-4002", "B"), "HT-4002_C.dxf", sheet("HT-4002", "C")));
        long item = filed(id);
        assertThat(server.bean(RevisionStore.class).revisions(item))
                .extracting(
                        r -> r.revision().label().orElseThrow(),
                        r -> r.revision().reason())
                .containsExactly(
                        org.assertj.core.groups.Tuple.tuple("B", "Holes 6.6 were 5.5"),
                        org.assertj.core.groups.Tuple.tuple("C", "Slot added"));
        assertThat(server.bean(ReadEarlier.class).of(server.bean(Sight.class).of(ines, item)))
                .extracting(EarlierStore.Earlier::label)
                .containsExactly("A");
    }

    @Test
    void whatItsTableSaysOfALaterRevisionIsToldToNobody() {
        byte[] sheet = new OldSheet("HT-4005", "Mooring eye", "B", 3)
                .revised("A", "First issue", "2003-05-10", "P. Kern", "H. Voss")
                .revised("B", "Holes 6.6 were 5.5", "2007-11-02", "M. Lind", "H. Voss")
                .revised("C", "Secret slot", "", "M. Lind", "")
                .bytes();
        long id = takeIn(Map.of("HT-4005.dxf", sheet));
        assertThat(files(id).get(0).taking().orElseThrow().why()).contains("1 earlier revision from");
        long item = filed(id);
        assertThat(server.bean(EarlierStore.class).of(item))
                .extracting(EarlierStore.Earlier::label)
                .containsExactly("A", "B");
        assertThat(Web.as(server, "rafael").get("/documents/" + item).body())
                .contains("1 revision before it came here");
    }

    @Test
    void theBlockOfTheShelfTakesItsPlaceAndSaysWhatItSaid() {
        long item = filed(takeIn(Map.of("HT-4003.dxf", sheet("HT-4003", "C"))));
        server.bean(StartRevisions.class).start(ines, List.of(item), Server.key(), "Slot 8 wide", "", false);
        // What is started is written into the title block alone: a table that nobody knows stays as it is drawn.
        assertThat(HandTable.of(head(item))).isPresent();
        ReadBlocks.Block block = server.bean(ReadBlocks.class).block(ines, item);
        assertThat(block.byHand()).hasSize(3);
        assertThat(ReadBlocks.couldPlace(block)).isTrue();
        assertThat(write.preview(ines, item, place)).isPresent();
        write.write(ines, List.of(item), place, Server.key());
        assertThat(HandTable.of(head(item))).isEmpty();
        assertThat(labels(item)).containsExactly("A", "B", "C", "D");
        List<Map<String, String>> rows = RevisionBlock.readyMade().read(head(item));
        assertThat(rows.get(1))
                .containsEntry("description", "Holes 6.6 were 5.5")
                .containsEntry("by", "M. Lind");
        // Nobody here drew or approved what was made elsewhere.
        assertThat(rows.get(2))
                .containsEntry("by", "M. Lind")
                .containsEntry("approved", "O. Brandt")
                .containsEntry("date", "12.3.2011");
        assertThat(rows.get(3)).containsEntry("description", "Slot 8 wide").containsEntry("by", "Ines Kallmar");
        assertThat(server.bean(ReadBlocks.class).block(ines, item).byHand()).isEmpty();
        assertThat(server.bean(Verify.class).verify().problems()).isEmpty();
        // A second time there is nothing to replace.
        assertThat(server.bean(PlanSheets.class)
                        .plan(ines, List.of(item), place)
                        .get(0)
                        .opens())
                .isFalse();
    }

    @Test
    void itsPageSaysWhatWasBeforeAndOffersToReplaceTheTable() {
        long item = filed(takeIn(Map.of("HT-4004.dxf", sheet("HT-4004", "C"))));
        assertThat(page("/documents/" + item)).contains("2 revisions before it came here", "Holes 6.6 were 5.5");
        server.bean(StartRevisions.class).start(ines, List.of(item), Server.key(), "Slot 8 wide", "", false);
        assertThat(page("/documents/" + item + "/title-block"))
                .contains("Revision table, drawn by hand", "Replace the table by a revision block");
    }
}
