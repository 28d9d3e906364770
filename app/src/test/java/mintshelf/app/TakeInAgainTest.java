package mintshelf.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.io.PrintWriter;
import java.io.StringWriter;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.List;
import java.util.OptionalLong;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.concurrent.locks.LockSupport;
import java.util.stream.IntStream;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.UnitOfWork;
import mintshelf.app.store.takein.TakeInStore;
import mintshelf.app.store.takein.TakenFileStore.Filter;
import mintshelf.app.use.desk.Tokens;
import mintshelf.app.use.takein.TakeInWork;
import mintshelf.app.use.takein.TakeIns;
import mintshelf.companion.Companion;
import mintshelf.database.schema.Tables;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import picocli.CommandLine;

/** A taking-in that is broken off, and gone on with by whoever is free; the same from a folder by the companion. */
class TakeInAgainTest {
    private final Server server = Server.shared();
    private final TakeIns takeIns = server.bean(TakeIns.class);
    private final Actor ines = server.actor("ines");

    @TempDir
    Path folder;

    private final StringWriter out = new StringWriter();
    private final StringWriter err = new StringWriter();

    private int companion(String... words) {
        CommandLine line = Companion.commandLine();
        line.setOut(new PrintWriter(out)).setErr(new PrintWriter(err));
        return line.execute(words);
    }

    private TakeIns.View worked(long id) {
        for (int tries = 0; tries < 4000; tries++) {
            server.bean(TakeInWork.class).goOnWithNext();
            if (!takeIns.state(ines, id).isWorking()) return takeIns.view(ines, id);
            LockSupport.parkNanos(20_000_000);
        }
        throw new IllegalStateException("It works still.");
    }

    /** A folder on a paired desk; gives its taking-in. */
    private long brought(String mark, int files) throws IOException {
        long id = takeIns.begin(ines, server.shelf(), OptionalLong.empty(), "Drive " + mark);
        Path drive = Files.createDirectories(folder.resolve("drive/parts")).getParent();
        for (int i = 0; i < files; i++) {
            Files.writeString(
                    drive.resolve((i % 2 == 0 ? "parts/" : "") + "TC-" + mark + (100 + i) + ".txt"), mark + " " + i);
        }
        Files.writeString(folder.resolve("drive.csv"), "file,title\nparts/TC-" + mark + "100.txt,The first\n");
        String code = server.bean(Tokens.class).code(ines);
        assertThat(companion(
                        "desk", "pair", server.origin(), code, "--name", "TAKE " + mark, "--desk", folder.toString()))
                .isZero();
        return id;
    }

    private int takeIn(long id) {
        return companion(
                "take-in",
                folder.resolve("drive").toString(),
                "--to",
                Long.toString(id),
                "--table",
                folder.resolve("drive.csv").toString(),
                "--desk",
                folder.toString());
    }

    @Test
    void theCompanionBringsAFolderAndWhatCameIsNotSentAgain() throws IOException {
        long id = brought("7", 5);
        assertThat(takeIn(id)).as(err.toString()).isZero();
        assertThat(out.toString())
                .contains("5 files are there, 5 of them sent now.")
                .contains("/take-ins/" + id);
        assertThat(worked(id).documents()).isEqualTo(5);
        assertThat(takeIns.files(ines, id, Filter.ALL, 0, 10))
                .anySatisfy(f -> assertThat(f.taking().orElseThrow().title()).isEqualTo("The first"));
        takeIns.bringMore(ines, id);
        Files.writeString(folder.resolve("drive/TC-7300.txt"), "one more");
        out.getBuffer().setLength(0);
        assertThat(takeIn(id)).isZero();
        assertThat(out.toString()).contains("6 files are there, 1 of them sent now.");
        assertThat(worked(id).documents()).isEqualTo(6);
        // It is read: nothing comes to it now.
        assertThat(takeIn(id)).isEqualTo(1);
        assertThat(err.toString()).contains("No more files come to it");
    }

    @Test
    void whatAWorkerLeftIsGoneOnWithAndNothingIsFiledTwice() throws Exception {
        long id = brought("8", 60);
        assertThat(takeIn(id)).isZero();
        assertThat(worked(id).documents()).isEqualTo(60);
        takeIns.file(ines, id, 60);
        // Several go on with it at once, and one of them dies with its lease.
        TakeInStore store = server.bean(TakeInStore.class);
        server.bean(UnitOfWork.class)
                .run(() -> store.take(Instant.now(), Instant.now().minusSeconds(1)));
        var pool = Executors.newFixedThreadPool(4);
        try {
            List<Future<Boolean>> all = IntStream.range(0, 4)
                    .mapToObj(
                            i -> pool.submit(() -> server.bean(TakeInWork.class).goOnWithNext()))
                    .toList();
            for (Future<Boolean> one : all) one.get();
        } finally {
            pool.shutdownNow();
        }
        TakeIns.View done = worked(id);
        assertThat(done.takeIn().isDone()).isTrue();
        assertThat(done.filed()).isEqualTo(60);
        assertThat(server.db().fetchCount(Tables.ITEM, Tables.ITEM.NUMBER.like("TC-8%")))
                .isEqualTo(60);
    }

    @Test
    void stoppedItKeepsWhatIsDone() throws IOException {
        long id = brought("9", 40);
        assertThat(takeIn(id)).isZero();
        worked(id);
        takeIns.file(ines, id, 40);
        takeIns.stop(ines, id);
        TakeIns.View stopped = worked(id);
        assertThat(stopped.takeIn().isOpen()).isTrue();
        assertThat(stopped.takeIn().says()).contains("You stopped it");
        int left = stopped.documents();
        assertThat(left + stopped.filed()).isEqualTo(40);
        if (left > 0) takeIns.file(ines, id, left);
        assertThat(worked(id).filed()).isEqualTo(40);
    }
}
