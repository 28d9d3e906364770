package mintshelf.bench;

import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.util.OptionalLong;
import mintshelf.app.Server;
import mintshelf.app.ground.Actor;
import mintshelf.app.use.content.ReceiveContent;
import mintshelf.app.use.takein.BringTaken;
import mintshelf.app.use.takein.TakeInWork;
import mintshelf.app.use.takein.TakeIns;
import mintshelf.standin.OldDrive;

/** How fast an old drive of twenty thousand small files is taken in, everything read: out of an archive, with its table. */
final class TakeInBench {
    private static final int FILES = 20_000;
    private static final double LEAST_A_SECOND = 40;

    private TakeInBench() {}

    static void anOldDrive() {
        Server server = Server.shared();
        TakeIns takeIns = server.bean(TakeIns.class);
        Actor ines = server.actor("ines");
        OldDrive drive = new OldDrive(FILES);
        long id = takeIns.begin(ines, server.shelf(), OptionalLong.empty(), "Old drive");
        long start = System.nanoTime();
        try {
            ByteArrayOutputStream packed = new ByteArrayOutputStream();
            drive.zip(packed);
            BringTaken.Coming coming = server.bean(BringTaken.class).openArchive(ines, id, "drive.zip", packed.size());
            server.bean(ReceiveContent.class)
                    .receive(ines, coming.token(), 0, new ByteArrayInputStream(packed.toByteArray()));
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        takeIns.setTable(ines, id, "drive.csv", drive.mended());
        takeIns.read(ines, id);
        TakeIns.View open = worked(server, takeIns, ines, id);
        double read = (System.nanoTime() - start) / 1e9;
        Bench.say(
                "%d files unpacked, read and planned: %.0f s, %.0f a second",
                drive.files().size(), read, drive.files().size() / read);
        long again = System.nanoTime();
        takeIns.setRules(ines, id, open.takeIn().rules());
        Bench.say("the dry run made anew: %.1f s", (System.nanoTime() - again) / 1e9);
        again = System.nanoTime();
        takeIns.file(ines, id, takeIns.view(ines, id).documents());
        TakeIns.View done = worked(server, takeIns, ines, id);
        double filed = (System.nanoTime() - again) / 1e9;
        Bench.say("%d documents filed: %.0f s", done.filed(), filed);
        double all = (System.nanoTime() - start) / 1e9;
        Bench.say(
                "all of it: %.0f files a second, %.1f times the least of %.0f",
                drive.files().size() / all, drive.files().size() / all / LEAST_A_SECOND, LEAST_A_SECOND);
    }

    private static TakeIns.View worked(Server server, TakeIns takeIns, Actor actor, long id) {
        while (takeIns.state(actor, id).isWorking())
            server.bean(TakeInWork.class).goOnWithNext();
        return takeIns.view(actor, id);
    }
}
