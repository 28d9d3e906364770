package mintshelf.app.use.takein;

import java.io.IOException;
import java.io.InputStream;
import java.time.Clock;
import java.time.Duration;
import java.util.Optional;
import mintshelf.app.effect.Incoming;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.Refused;
import mintshelf.app.ground.UnitOfWork;
import mintshelf.app.store.content.Upload;
import mintshelf.app.store.content.UploadStore;
import mintshelf.app.store.takein.TakeIn;
import mintshelf.app.store.takein.TakeInStore;
import mintshelf.app.store.takein.TakenFile;
import mintshelf.app.store.takein.TakenFileStore;
import mintshelf.core.base.Numbers;
import mintshelf.core.base.Texts;
import mintshelf.core.document.FileName;
import org.springframework.stereotype.Service;

/** The files of a taking-in come: one by one, or out of an archive. What came is not sent again. */
@Service
public class BringTaken {
    /** Files of one taking-in. */
    public static final int MOST = 50_000;

    static final Duration KEPT = Duration.ofDays(60);
    private static final int LONGEST_PATH = 1000;

    private final TakeInStore takeIns;
    private final TakenFileStore files;
    private final UploadStore uploads;
    private final Incoming incoming;
    private final TakeRights rights;
    private final UnitOfWork unit;
    private final Clock clock;

    public BringTaken(
            TakeInStore takeIns,
            TakenFileStore files,
            UploadStore uploads,
            Incoming incoming,
            TakeRights rights,
            UnitOfWork unit,
            Clock clock) {
        this.takeIns = takeIns;
        this.files = files;
        this.uploads = uploads;
        this.incoming = incoming;
        this.rights = rights;
        this.unit = unit;
        this.clock = clock;
    }

    static Refused tooMany() {
        return Refused.because(
                "take.many",
                "More than " + Numbers.grouped(MOST) + " files are too many for one taking-in.",
                "Bring the drive in parts; what came is kept.");
    }

    /** How far a file is that is brought. */
    public record Coming(String token, long size, long received, boolean complete) {}

    /**
     * A file is about to come; its bytes follow as those of any upload. One that is there whole is not sent again.
     *
     * @param path below the folder that is taken in, with slashes
     */
    public Coming open(Actor actor, long id, String path, long size) {
        TakeIn takeIn = mine(actor, id);
        String raw = Texts.shorten(path.replace('\\', '/'), LONGEST_PATH);
        if (raw.isBlank() || size < 0) {
            throw Refused.because("take.path", "A file came without its path.", "Bring the folder once more.");
        }
        Optional<TakenFile> before = files.at(id, raw);
        Optional<Upload> there =
                before.flatMap(TakenFile::upload).flatMap(uploads::upload).filter(this::isAlive);
        if (there.isPresent() && there.get().size() == size) {
            Upload u = there.get();
            return new Coming(u.token(), u.size(), u.received(), u.state() == Upload.State.COMPLETE);
        }
        if (size == 0) {
            unit.run(() -> keep(takeIn, raw, Optional.empty(), 0, ""));
            return new Coming("", 0, 0, true);
        }
        Incoming.Opened opened = incoming.open(actor, FileName.of(raw).name(), size, KEPT);
        unit.run(() -> keep(takeIn, raw, Optional.of(opened.id()), size, ""));
        return new Coming(opened.token(), size, 0, false);
    }

    /** An archive is about to come, in place of one that came before. */
    public Coming openArchive(Actor actor, long id, String name, long size) {
        TakeIn takeIn = mine(actor, id);
        Incoming.Opened opened = incoming.open(actor, name, size, KEPT);
        unit.run(() -> {
            takeIns.setArchive(takeIn.id(), opened.id());
            takeIns.touch(takeIn.id(), clock.instant());
        });
        return new Coming(opened.token(), size, 0, false);
    }

    private TakeIn mine(Actor actor, long id) {
        TakeIn takeIn =
                takeIns.takeIn(id).filter(t -> t.person() == actor.person()).orElseThrow(NotThere::new);
        rights.ask(actor, takeIn.shelf());
        if (takeIn.isBringing()) return takeIn;
        throw Refused.because(
                "take.closed",
                "No more files come to it: " + takeIn.state().words() + ".",
                "Go back to bringing, or begin another taking-in.");
    }

    private boolean isAlive(Upload upload) {
        return upload.state() == Upload.State.RECEIVING || upload.state() == Upload.State.COMPLETE;
    }

    private void keep(TakeIn takeIn, String raw, Optional<Long> upload, long size, String unread) {
        takeIns.lock(takeIn.id());
        Optional<TakenFile> before = files.at(takeIn.id(), raw);
        if (before.isPresent()) {
            files.bringAnew(takeIn.id(), before.get().at(), upload, size);
        } else {
            int at = files.next(takeIn.id());
            if (at >= MOST) throw tooMany();
            files.add(takeIn.id(), at, raw, FileName.path(raw), upload, size, unread);
        }
        takeIns.touch(takeIn.id(), clock.instant());
    }

    /** Notes a file of an archive that cannot be read, and why. */
    void note(TakeIn takeIn, String path, long size, String unread) {
        String raw = Texts.shorten(path.replace('\\', '/'), LONGEST_PATH);
        unit.run(() -> {
            if (files.at(takeIn.id(), raw).isEmpty()) keep(takeIn, raw, Optional.empty(), size, unread);
            takeIns.did(takeIn.id(), 1);
        });
    }

    /**
     * Takes a file out of an archive, unless it is there.
     *
     * @param most bytes that it may have at the most
     * @return how many it had
     */
    long take(Actor actor, TakeIn takeIn, String path, long size, InputStream in, long most) throws IOException {
        String raw = Texts.shorten(path.replace('\\', '/'), LONGEST_PATH);
        boolean there = files.at(takeIn.id(), raw)
                .filter(f -> f.size() == 0
                        || !f.unread().isEmpty()
                        || f.upload()
                                .flatMap(uploads::upload)
                                .filter(u -> u.state() == Upload.State.COMPLETE)
                                .isPresent())
                .isPresent();
        if (there) {
            unit.run(() -> takeIns.did(takeIn.id(), 1));
            return size;
        }
        if (size > most) {
            throw Refused.because(
                    "take.bomb",
                    "The archive unpacks to far more than archives of drawings do.",
                    "Unpack it yourself, and bring the folder.");
        }
        if (size == 0) {
            unit.run(() -> {
                keep(takeIn, raw, Optional.empty(), 0, "");
                takeIns.did(takeIn.id(), 1);
            });
            return 0;
        }
        String unread = "";
        Optional<Long> upload = Optional.empty();
        try {
            Incoming.Opened opened = incoming.open(actor, FileName.of(raw).name(), size, KEPT);
            Upload came = incoming.receive(actor, opened, in);
            if (came.state() == Upload.State.COMPLETE) upload = Optional.of(opened.id());
            else unread = "It is broken in the archive.";
        } catch (Refused e) {
            unread = e.refusal().says();
        } catch (IOException e) {
            unread = "It is broken in the archive.";
        }
        Optional<Long> brought = upload;
        String why = unread;
        unit.run(() -> {
            keep(takeIn, raw, brought, size, why);
            takeIns.did(takeIn.id(), 1);
        });
        return size;
    }
}
