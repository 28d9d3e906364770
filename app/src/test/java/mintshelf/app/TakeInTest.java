package mintshelf.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.time.LocalDate;
import java.time.ZoneOffset;
import java.util.List;
import java.util.Map;
import java.util.OptionalLong;
import java.util.concurrent.locks.LockSupport;
import java.util.zip.CRC32;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.Refused;
import mintshelf.app.store.document.RevisionRow;
import mintshelf.app.store.document.RevisionStore;
import mintshelf.app.store.document.VersionRow;
import mintshelf.app.store.document.VersionStore;
import mintshelf.app.store.takein.TakenFile;
import mintshelf.app.store.takein.TakenFileStore.Filter;
import mintshelf.app.use.content.ReceiveContent;
import mintshelf.app.use.revision.StartRevisions;
import mintshelf.app.use.takein.BringTaken;
import mintshelf.app.use.takein.TakeInWork;
import mintshelf.app.use.takein.TakeIns;
import mintshelf.core.base.Refusal;
import mintshelf.core.revision.StageClass;
import mintshelf.core.takein.Column;
import mintshelf.core.takein.TakeRules;
import mintshelf.core.takein.TakeRules.Stands;
import mintshelf.database.schema.Tables;
import mintshelf.standin.OldDrive;
import org.junit.jupiter.api.Test;

class TakeInTest {
    private final Server server = Server.shared();
    private final TakeIns takeIns = server.bean(TakeIns.class);
    private final BringTaken bring = server.bean(BringTaken.class);
    private final TakeInWork work = server.bean(TakeInWork.class);
    private final Actor ines = server.actor("ines");

    private long begin(long shelf) {
        return takeIns.begin(ines, shelf, OptionalLong.empty(), "Old drive");
    }

    private void bring(long id, String path, byte[] bytes) {
        BringTaken.Coming coming = bring.open(ines, id, path, bytes.length);
        if (!coming.complete()) send(coming.token(), bytes);
    }

    private void bring(long id, String path, String text) {
        bring(id, path, text.getBytes(StandardCharsets.UTF_8));
    }

    private void send(String token, byte[] bytes) {
        try {
            server.bean(ReceiveContent.class).receive(ines, token, 0, new ByteArrayInputStream(bytes));
        } catch (IOException e) {
            throw new IllegalStateException(e);
        }
    }

    /** Whichever worker does it: this one, or the server's own beside it. */
    private TakeIns.View worked(long id) {
        for (int tries = 0; tries < 4000; tries++) {
            work.goOnWithNext();
            if (!takeIns.state(ines, id).isWorking()) return takeIns.view(ines, id);
            LockSupport.parkNanos(20_000_000);
        }
        throw new IllegalStateException("It works still.");
    }

    private TakeIns.View read(long id) {
        takeIns.read(ines, id);
        return worked(id);
    }

    private List<String> stops(long id) {
        return files(id, Filter.STOPS).stream()
                .map(f -> f.path() + ": " + f.trouble()
                        + f.taking().orElseThrow().stops().stream()
                                .map(Refusal::says)
                                .toList())
                .toList();
    }

    private TakeIns.View file(long id) {
        takeIns.file(ines, id, takeIns.view(ines, id).documents());
        return worked(id);
    }

    private List<TakenFile> files(long id, Filter filter) {
        return takeIns.files(ines, id, filter, 0, 10_000);
    }

    private TakenFile of(long id, String path) {
        return files(id, Filter.ALL).stream()
                .filter(f -> f.raw().equals(path))
                .findFirst()
                .orElseThrow();
    }

    private static List<String> codes(TakenFile file) {
        return file.taking().orElseThrow().stops().stream().map(Refusal::code).toList();
    }

    @Test
    void revisionsBecomeAHistoryThatIsReleasedAsItWas() {
        long id = begin(server.shelf());
        bring(id, "old/TI-2001_1 plate.txt", "first");
        bring(id, "TI-2001_2 plate.txt", "second");
        takeIns.setTable(ines, id, "drive.csv", """
                file,revision,date,signers,former numbers
                old/TI-2001_1 plate.txt,1,2011-05-04,H. Voss,
                TI-2001_2 plate.txt,2,2014-06-07,M. Lind,TI-1999
                """.getBytes(StandardCharsets.UTF_8));
        TakeIns.View open = read(id);
        assertThat(stops(id)).isEmpty();
        assertThat(open.documents()).isEqualTo(1);
        assertThat(open.counts().get(Filter.GOES)).isEqualTo(2);
        TakeIns.View done = file(id);
        assertThat(done.takeIn().isDone()).isTrue();
        TakenFile latest = of(id, "TI-2001_2 plate.txt");
        long item = latest.item().orElseThrow();
        assertThat(of(id, "old/TI-2001_1 plate.txt").item()).contains(item);
        assertThat(server.document(item).number()).isEqualTo("TI-2001");
        assertThat(server.document(item).holder()).isEmpty();
        List<RevisionRow> revisions = server.bean(RevisionStore.class).revisions(item);
        assertThat(revisions)
                .extracting(r -> r.revision().label().orElseThrow())
                .containsExactly("1", "2");
        assertThat(revisions)
                .extracting(r -> r.revision().stage().stageClass())
                .containsExactly(StageClass.SUPERSEDED, StageClass.RELEASED);
        assertThat(revisions
                        .get(1)
                        .releasedAt()
                        .orElseThrow()
                        .atZone(ZoneOffset.UTC)
                        .toLocalDate())
                .isEqualTo(LocalDate.of(2014, 6, 7));
        List<VersionRow> versions = server.bean(VersionStore.class).versions(item);
        assertThat(versions).extracting(VersionRow::madeBy).containsOnly(VersionRow.MadeBy.TAKEN_IN);
        assertThat(versions.get(1).comment())
                .isEqualTo("Taken in: TI-2001_2 plate.txt, released 7 Jun 2014, signed by M. Lind");
        assertThat(server.bytes(item)).isEqualTo("second".getBytes(StandardCharsets.UTF_8));
        // The number of before is nobody else's, and finds it.
        assertThat(server.db()
                        .fetchCount(
                                Tables.NUMBER_CLAIM,
                                Tables.NUMBER_CLAIM.NUMBER.eq("TI-1999"),
                                Tables.NUMBER_CLAIM.ITEM.eq(item),
                                Tables.NUMBER_CLAIM.STATE.eq("FORMER")))
                .isEqualTo(1);
        // And it goes on from there like any other.
        server.bean(StartRevisions.class).start(server.actor("priya"), List.of(item), Server.key(), "M6 now", "", true);
        assertThat(server.document(item).pending().orElseThrow().label()).contains("3");
    }

    @Test
    void whatWaitsForMendingStaysAndGoesLater() {
        long shelf = server.shelf();
        long id = begin(shelf);
        bring(id, "a/TI-2101.txt", "one");
        bring(id, "a/TI-2102.txt", "two");
        bring(id, "a/strange.q7z", "\u0000three");
        takeIns.setTable(ines, id, "t.csv", "file,date\na/TI-2102.txt,3/14/19\n".getBytes(StandardCharsets.UTF_8));
        TakeIns.View open = read(id);
        assertThat(open.documents()).isEqualTo(1);
        assertThat(codes(of(id, "a/TI-2102.txt"))).containsExactly("take.date");
        TakeIns.View part = file(id);
        assertThat(part.takeIn().isOpen()).isTrue();
        assertThat(part.filed()).isEqualTo(1);
        assertThat(part.counts().get(Filter.STOPS)).isEqualTo(2);
        takeIns.mend(ines, id, of(id, "a/TI-2102.txt").at(), Map.of(Column.DATE, "2019-03-14"));
        takeIns.setRules(ines, id, new TakeRules(Stands.IN_PREPARATION, true, true, false));
        assertThat(takeIns.view(ines, id).counts().get(Filter.LEFT_OUT)).isEqualTo(1);
        TakeIns.View all = file(id);
        assertThat(stops(id)).isEmpty();
        assertThat(all.takeIn()).as(all.counts().toString()).matches(t -> t.isDone());
        long item = of(id, "a/TI-2102.txt").item().orElseThrow();
        assertThat(server.document(item).current().stage().stageClass()).isEqualTo(StageClass.PREPARING);
        // The first came with its folder, this one without.
        assertThat(server.bean(mintshelf.app.store.shelf.ShelfStore.class).folders(shelf))
                .extracting(f -> f.name())
                .contains("a");
        assertThat(server.document(item).place().folders()).hasSize(1);
    }

    @Test
    void aNumberThatWasTakenMeanwhileStopsItsDocumentAlone() {
        long shelf = server.shelf();
        long id = begin(shelf);
        for (int i = 0; i < 30; i++) bring(id, "TI-22" + (10 + i) + ".txt", "text " + i);
        read(id);
        takeIns.file(ines, id, 30);
        server.file("priya", shelf, "TI-2217 other.txt", "mine " + System.nanoTime(), false);
        TakeIns.View view = worked(id);
        // Whether it was a moment before or behind: one of both has the number, and nobody else waits.
        assertThat(view.filed()).isBetween(29, 30);
        if (view.filed() == 29) assertThat(codes(of(id, "TI-2217.txt"))).containsExactly("take.number_used");
    }

    @Test
    void anArchiveIsUnpackedAndItsTrapsAreNamed() throws IOException {
        long id = begin(server.shelf());
        ByteArrayOutputStream packed = new ByteArrayOutputStream();
        try (ZipOutputStream zip = new ZipOutputStream(packed, StandardCharsets.UTF_8)) {
            zip.putNextEntry(new ZipEntry("empty/"));
            for (String path :
                    List.of("../../TI-2301.txt", "/TI-2302.txt", "x\\TI-2303.txt", "b/inner.zip", "TI-2304.txt")) {
                zip.putNextEntry(new ZipEntry(path));
                zip.write((path.endsWith("zip") ? "PK\u0003\u0004" + path : "text of " + path)
                        .getBytes(StandardCharsets.UTF_8));
            }
            zip.putNextEntry(new ZipEntry("nothing.txt"));
        }
        BringTaken.Coming coming = bring.openArchive(ines, id, "drive.zip", packed.size());
        send(coming.token(), packed.toByteArray());
        TakeIns.View open = read(id);
        assertThat(open.counts().get(Filter.ALL)).isEqualTo(6);
        assertThat(files(id, Filter.ALL))
                .extracting(TakenFile::path)
                .noneMatch(p -> p.contains("..") || p.startsWith("/"));
        assertThat(codes(of(id, "b/inner.zip"))).containsExactly("take.kind_missing");
        assertThat(of(id, "nothing.txt").taking().orElseThrow().verdict().name())
                .isEqualTo("LEFT_OUT");
        assertThat(open.documents()).isEqualTo(4);
        assertThat(open.takeIn().archive()).isEmpty();
    }

    @Test
    void whatIsNoArchiveAndWhatUnpacksToFarTooMuchIsSaid() throws IOException {
        long id = begin(server.shelf());
        byte[] none = "this is no archive at all".getBytes(StandardCharsets.UTF_8);
        send(bring.openArchive(ines, id, "drive.zip", none.length).token(), none);
        assertThat(read(id).takeIn()).satisfies(t -> {
            assertThat(t.isBringing()).isTrue();
            assertThat(t.says()).contains("no ZIP archive that can be read");
        });
        ByteArrayOutputStream bomb = new ByteArrayOutputStream();
        try (ZipOutputStream zip = new ZipOutputStream(bomb)) {
            byte[] zeros = new byte[1 << 20];
            for (int f = 0; f < 3; f++) {
                zip.putNextEntry(new ZipEntry("big" + f + ".txt"));
                for (int i = 0; i < 30; i++) zip.write(zeros);
            }
        }
        send(bring.openArchive(ines, id, "bomb.zip", bomb.size()).token(), bomb.toByteArray());
        assertThat(read(id).takeIn().says()).contains("far more than archives of drawings do");
        // It is not in the way of what is brought in its place.
        bring(id, "TI-2361.txt", "by itself");
        assertThat(read(id).documents()).isEqualTo(1);
    }

    @Test
    void aFileThatIsBrokenInTheArchiveIsNamedAndTheOthersCome() throws IOException {
        long id = begin(server.shelf());
        ByteArrayOutputStream packed = new ByteArrayOutputStream();
        try (ZipOutputStream zip = new ZipOutputStream(packed)) {
            zip.setMethod(ZipOutputStream.STORED);
            for (String name : List.of("TI-2351.txt", "TI-2352.txt")) {
                byte[] text = ("the text of " + name).getBytes(StandardCharsets.UTF_8);
                CRC32 sum = new CRC32();
                sum.update(text);
                ZipEntry entry = new ZipEntry(name);
                entry.setSize(text.length);
                entry.setCrc(sum.getValue());
                zip.putNextEntry(entry);
                zip.write(text);
            }
        }
        byte[] bytes = packed.toByteArray();
        String raw = new String(bytes, StandardCharsets.ISO_8859_1);
        bytes[raw.indexOf("the text of TI-2352")] = 'T';
        send(bring.openArchive(ines, id, "drive.zip", bytes.length).token(), bytes);
        assertThat(read(id).documents()).isEqualTo(1);
        assertThat(codes(of(id, "TI-2352.txt"))).containsExactly("take.unread");
        assertThat(of(id, "TI-2352.txt").taking().orElseThrow().stops().get(0).reason())
                .isEqualTo("It is broken in the archive.");
    }

    @Test
    void whatCameIsNotSentAgainAndCanBeReplaced() {
        long id = begin(server.shelf());
        bring(id, "TI-2401.txt", "as it was");
        BringTaken.Coming again = bring.open(ines, id, "TI-2401.txt", "as it was".length());
        assertThat(again.complete()).isTrue();
        bring(id, "TI-2401.txt", "as it is now, longer");
        assertThat(files(id, Filter.ALL))
                .hasSize(1)
                .first()
                .extracting(TakenFile::size)
                .isEqualTo(20L);
        bring.open(ines, id, "TI-2402.txt", 100);
        read(id);
        assertThat(codes(of(id, "TI-2402.txt"))).containsExactly("take.unread");
        // It goes on: back to bringing, the rest of it comes.
        takeIns.bringMore(ines, id);
        BringTaken.Coming rest = bring.open(ines, id, "TI-2402.txt", 100);
        assertThat(rest.complete()).isFalse();
        send(rest.token(), "x".repeat(100).getBytes(StandardCharsets.UTF_8));
        read(id);
        assertThat(of(id, "TI-2402.txt").taking().orElseThrow().stops()).isEmpty();
    }

    @Test
    void itIsItsPersonsAndOfWhoKeepsTheShelf() {
        long shelf = server.shelf();
        for (String other : List.of("priya", "hedda")) {
            assertThatThrownBy(() -> takeIns.begin(server.actor(other), shelf, OptionalLong.empty(), "x"))
                    .isInstanceOfSatisfying(
                            Refused.class, r -> assertThat(r.refusal().code()).isEqualTo("access.missing"));
        }
        long id = begin(shelf);
        bring(id, "TI-2501.txt", "t");
        Actor priya = server.actor("priya");
        assertThatThrownBy(() -> takeIns.view(priya, id)).isInstanceOf(NotThere.class);
        assertThatThrownBy(() -> takeIns.read(priya, id)).isInstanceOf(NotThere.class);
        assertThatThrownBy(() -> bring.open(priya, id, "x.txt", 3)).isInstanceOf(NotThere.class);
        assertThatThrownBy(() -> takeIns.file(ines, id, 1))
                .isInstanceOfSatisfying(
                        Refused.class, r -> assertThat(r.refusal().code()).isEqualTo("take.state"));
        read(id);
        assertThatThrownBy(() -> takeIns.file(ines, id, 7))
                .isInstanceOfSatisfying(
                        Refused.class, r -> assertThat(r.refusal().code()).isEqualTo("take.moved"));
        assertThatThrownBy(() -> bring.open(ines, id, "y.txt", 3))
                .isInstanceOfSatisfying(
                        Refused.class, r -> assertThat(r.refusal().code()).isEqualTo("take.closed"));
        takeIns.end(ines, id);
        assertThatThrownBy(() -> takeIns.view(ines, id)).isInstanceOf(NotThere.class);
    }

    @Test
    void aTableThatIsNoneIsRefusedAndTheOneOfBeforeStays() {
        long id = begin(server.shelf());
        takeIns.setTable(ines, id, "t.csv", "file,number\nx.txt,1\n".getBytes(StandardCharsets.UTF_8));
        for (String wrong : List.of("colour,size\nred,3\n", "")) {
            assertThatThrownBy(() -> takeIns.setTable(ines, id, "u.csv", wrong.getBytes(StandardCharsets.UTF_8)))
                    .isInstanceOf(Refused.class);
        }
        byte[] huge = ("file," + "x,".repeat(48) + "\n").repeat(30_000).getBytes(StandardCharsets.UTF_8);
        assertThatThrownBy(() -> takeIns.setTable(ines, id, "huge.csv", huge))
                .isInstanceOfSatisfying(
                        Refused.class, r -> assertThat(r.refusal().code()).isEqualTo("table.large"));
        assertThat(takeIns.view(ines, id).takeIn().table()).isEqualTo("t.csv");
        takeIns.dropTable(ines, id);
        assertThat(takeIns.view(ines, id).takeIn().table()).isEmpty();
    }

    @Test
    void theDryRunGoesOutAsATableAndSaysTheSameWhenItComesBack() {
        long id = begin(server.shelf());
        bring(id, "c/TI-2601_B lid.txt", "lid");
        bring(id, "c/TI-2601_A lid.txt", "lid of before");
        bring(id, "TI-2602.txt", "two");
        takeIns.setTable(
                ines,
                id,
                "t.csv",
                "file,date,former numbers\nTI-2602.txt,2015-01-02,TI-2699\n".getBytes(StandardCharsets.UTF_8));
        read(id);
        var before = files(id, Filter.ALL).stream()
                .map(f -> f.taking().orElseThrow())
                .toList();
        List<List<String>> out = takeIns.table(ines, id);
        assertThat(out.get(0)).startsWith("file", "number", "title").endsWith("what becomes of it", "in the way");
        takeIns.setTable(ines, id, "back.csv", mintshelf.app.effect.TableFiles.csv(out));
        assertThat(takeIns.view(ines, id).takeIn().general()).isEmpty();
        var now = files(id, Filter.ALL).stream()
                .map(f -> f.taking().orElseThrow())
                .toList();
        for (int i = 0; i < now.size(); i++) {
            assertThat(now.get(i))
                    .usingRecursiveComparison()
                    .ignoringFields("why")
                    .isEqualTo(before.get(i));
        }
    }

    @Test
    void anOldDriveIsTakenInAndItsTablesFaultsAreEachNamed() throws IOException {
        OldDrive drive = new OldDrive(420);
        long shelf = server.shelf();
        long id = begin(shelf);
        ByteArrayOutputStream packed = new ByteArrayOutputStream();
        drive.zip(packed);
        send(bring.openArchive(ines, id, "drive.zip", packed.size()).token(), packed.toByteArray());
        takeIns.setTable(ines, id, "drive.csv", drive.table());
        TakeIns.View open = read(id);
        assertThat(open.counts().get(Filter.ALL)).isEqualTo(drive.files().size());
        // Each fault is one: 35 in lines, five lines of nothing; beside them the file that nobody knows.
        List<TakenFile> stops = files(id, Filter.STOPS);
        assertThat(stops).hasSize(OldDrive.FAULTS - 5 + 1);
        assertThat(open.takeIn().general()).hasSize(1);
        assertThat(open.takeIn().general().get(0).reason()).startsWith("5 lines of the table mean no file");
        int went = open.documents();
        TakeIns.View part = file(id);
        assertThat(part.filed()).isEqualTo(went);
        takeIns.setTable(ines, id, "mended.csv", drive.mended());
        takeIns.setRules(ines, id, new TakeRules(Stands.RELEASED, true, true, true));
        TakeIns.View mended = takeIns.view(ines, id);
        assertThat(stops(id)).isEmpty();
        assertThat(mended.documents()).isPositive();
        TakeIns.View done = file(id);
        assertThat(done.takeIn().isDone()).isTrue();
        assertThat(files(id, Filter.LEFT_OUT)).hasSize(5);
        long parent = files(id, Filter.FILED).stream()
                .filter(f -> !f.refersTo().isEmpty())
                .findFirst()
                .orElseThrow()
                .item()
                .orElseThrow();
        assertThat(server.db()
                        .fetchCount(
                                Tables.VERSION_REFERENCE
                                        .join(Tables.VERSION)
                                        .on(Tables.VERSION.ID.eq(Tables.VERSION_REFERENCE.VERSION)),
                                Tables.VERSION.ITEM.eq(parent).and(Tables.VERSION_REFERENCE.COMPONENT.isNotNull())))
                .isPositive();
        assertThat(server.db()
                        .fetch(Tables.NOTICE, Tables.NOTICE.PERSON.eq(ines.person()))
                        .getValues(Tables.NOTICE.SAYS))
                .anyMatch(t -> t.contains("documents are taken in"));
    }
}
