package mintshelf.app.use.content;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.MessageDigest;
import java.time.Clock;
import java.time.Duration;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.concurrent.Semaphore;
import java.util.concurrent.TimeUnit;
import mintshelf.app.effect.Incoming;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.CountedInput;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.Recent;
import mintshelf.app.ground.Refused;
import mintshelf.app.ground.UnitOfWork;
import mintshelf.app.setup.Settings;
import mintshelf.app.store.content.ContentStore;
import mintshelf.app.store.content.Laid;
import mintshelf.app.store.content.PieceStore;
import mintshelf.app.store.content.StoredContent;
import mintshelf.app.store.content.Upload;
import mintshelf.app.store.content.UploadMoved;
import mintshelf.app.store.content.UploadStore;
import mintshelf.core.access.Right;
import mintshelf.core.base.ContentHash;
import mintshelf.core.base.Numbers;
import mintshelf.core.base.Texts;
import mintshelf.core.content.ContentKind;
import mintshelf.core.content.CutSize;
import org.springframework.stereotype.Service;

/**
 * Receives bytes in steps that can be resumed. Each step is cut, hashed and compressed outside the database and stored in one
 * short transaction; a broken connection loses at most the step that was under way.
 */
@Service
public class ReceiveContent implements Incoming {
    /** How long an untouched upload is kept. */
    static final Duration LEASE = Duration.ofHours(24);
    /** Files that one person sends beside each other. */
    private static final int BESIDE = 8;
    /** Uploads of a person that wait to be filed or checked in. */
    private static final int WAITING = 2000;

    private static final int RUNNING_HASHES = 64;

    private final ContentStore contents;
    private final UploadStore uploads;
    private final PieceStore pieces;
    private final UnitOfWork unit;
    private final Clock clock;
    private final Settings settings;

    /**
     * Hashes of uploads under way on this node, so that the whole need not be read back. Only a saving: an entry that does not
     * stand exactly at the upload's end is not used.
     */
    private final Map<Long, RunningHash> running = Recent.most(RUNNING_HASHES);

    /** Each sender holds two steps of bytes: as many at once as a fifth of the heap has room for. */
    private static final int PLACES = (int) Math.max(4, Runtime.getRuntime().maxMemory() / 5 / Receiving.MOST);

    private final Semaphore senders = new Semaphore(PLACES, true);

    private final Map<Long, Integer> sending = new ConcurrentHashMap<>();

    private final ExecutorService writers = Executors.newCachedThreadPool(r -> {
        Thread thread = new Thread(r, "receive");
        thread.setDaemon(true);
        return thread;
    });

    public ReceiveContent(
            ContentStore contents,
            UploadStore uploads,
            PieceStore pieces,
            UnitOfWork unit,
            Clock clock,
            Settings settings) {
        this.contents = contents;
        this.uploads = uploads;
        this.pieces = pieces;
        this.unit = unit;
        this.clock = clock;
        this.settings = settings;
    }

    /** Opens an upload of a file of {@code size} bytes and gives its token. */
    public String open(Actor actor, String fileName, long size) {
        if (!actor.access().maySomewhere(Right.FILE) && !actor.access().maySomewhere(Right.CHANGE)) {
            throw Refused.because(
                    "access.missing", "Your roles do not let you bring files.", "A data manager can change that.");
        }
        askForSize(fileName, size);
        if (size == 0) {
            throw Refused.because(
                    "file.empty",
                    "“" + Texts.shorten(Texts.line(fileName), 80) + "” is empty.",
                    "Look whether it was saved; nothing was filed.");
        }
        UploadStore.UnderWay underWay = uploads.underWay(actor.person());
        if (underWay.files() >= WAITING || underWay.bytes() + size > settings.uploadAllowance()) {
            throw Refused.because(
                    "upload.allowance",
                    "You have " + Numbers.count(underWay.files(), "file", "files") + " with "
                            + Numbers.size(underWay.bytes()) + " under way already.",
                    "File or check in what came, or drop it; what nobody uses goes after a day.");
        }
        return open(actor, fileName, size, false, LEASE).token();
    }

    private void askForSize(String fileName, long size) {
        if (size < 0 || size > settings.largestFile()) {
            throw Refused.because(
                    "file.large",
                    "“" + Texts.shorten(Texts.line(fileName), 80) + "” has " + Numbers.size(Math.max(0, size)) + "; "
                            + Numbers.size(settings.largestFile()) + " are the most here.",
                    "A data manager can raise the limit.");
        }
    }

    private Opened open(Actor actor, String fileName, long size, boolean aside, Duration lease) {
        String token = UUID.randomUUID().toString();
        long id = unit.run(() -> uploads.open(
                token,
                actor.person(),
                Texts.shorten(Texts.line(fileName), 300),
                size,
                aside,
                clock.instant(),
                clock.instant().plus(lease)));
        return new Opened(id, token);
    }

    @Override
    public Opened open(Actor actor, String fileName, long size, Duration kept) {
        askForSize(fileName, size);
        return open(actor, fileName, size, true, kept);
    }

    @Override
    public Upload receive(Actor actor, Opened opened, InputStream bytes) throws IOException {
        return receive(actor, upload(actor, opened.token()), opened.token(), bytes);
    }

    /** A content that is here already comes once more, to be filed as something else; gives the upload's token. */
    public String again(Actor actor, StoredContent content, String fileName) throws IOException {
        String token = open(actor, fileName, content.size());
        Path copy = Files.createTempFile("mint-shelf-", ".again");
        try {
            try (OutputStream out = Files.newOutputStream(copy)) {
                contents.send(content.id(), 0, content.size(), out);
            }
            try (InputStream in = Files.newInputStream(copy)) {
                receive(actor, token, 0, in);
            }
            return token;
        } finally {
            Files.deleteIfExists(copy);
        }
    }

    /** The actor's own upload. */
    public Upload upload(Actor actor, String token) {
        return uploads.upload(token)
                .filter(u -> u.person() == actor.person())
                .filter(u -> u.state() == Upload.State.RECEIVING || u.state() == Upload.State.COMPLETE)
                .orElseThrow(NotThere::new);
    }

    /** As {@link #upload}, of one that is whole; nothing for any other. */
    public Optional<Upload> whole(Actor actor, String token) {
        return uploads.upload(token).filter(u -> u.person() == actor.person() && u.state() == Upload.State.COMPLETE);
    }

    /**
     * Takes bytes from {@code from} on, as many as come, and tells how many of the whole are kept now. What is sent twice at once
     * is kept once.
     */
    public Upload receive(Actor actor, String token, long from, InputStream bytes) throws IOException {
        Upload upload = upload(actor, token);
        if (upload.state() == Upload.State.COMPLETE) return upload;
        if (from != upload.received()) return upload;
        // Half of the places at the most: who sends many that stall holds nobody else up.
        if (sending.merge(actor.person(), 1, Integer::sum) > Math.min(BESIDE, PLACES / 2)) {
            leave(actor);
            throw busy();
        }
        try {
            if (!senders.tryAcquire(10, TimeUnit.SECONDS)) throw busy();
            try {
                return receive(actor, upload, token, new Paced(bytes));
            } finally {
                senders.release();
            }
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw busy();
        } finally {
            leave(actor);
        }
    }

    private void leave(Actor actor) {
        sending.computeIfPresent(actor.person(), (p, n) -> n == 1 ? null : n - 1);
    }

    private static Refused busy() {
        return Refused.because(
                "upload.busy", "Many files are being sent at this moment.", "It goes on by itself; what came is kept.");
    }

    /** A sender that goes slower than a modem gives its place up; what came is kept, and it goes on from there. */
    private static final class Paced extends CountedInput {
        private static final long GRACE = 30_000_000_000L;
        private static final long LEAST_A_SECOND = 2_000;

        private final long began = System.nanoTime();

        Paced(InputStream in) {
            super(in);
        }

        @Override
        protected void came(long all) throws IOException {
            long took = System.nanoTime() - began;
            if (took > GRACE && all < took / 1_000_000_000L * LEAST_A_SECOND) {
                throw new IOException("The sender is too slow.");
            }
        }
    }

    private Upload receive(Actor actor, Upload upload, String token, InputStream bytes) throws IOException {
        long at = upload.received();
        RunningHash hash = takeRunning(upload.id(), at);
        Receiving receiving = new Receiving(this, upload, hash);
        try {
            receiving.take(bytes, at == 0 ? Optional.empty() : contents.cut(upload.content()));
        } catch (UploadMoved e) {
            return upload(actor, token);
        } finally {
            // Also when the connection broke: what came is hashed and stored.
            if (hash != null && receiving.isStored() && receiving.whole().isEmpty()) keepRunning(upload.id(), hash);
        }
        Optional<UploadStore.Whole> whole = receiving.whole();
        if (whole.isPresent())
            return upload.complete(whole.get().hash(), whole.get().kind());
        Upload now = upload(actor, token);
        if (now.state() == Upload.State.RECEIVING && now.received() == now.size()) complete(now, receiving.head());
        return upload(actor, token);
    }

    /** How these pieces are to be stored. */
    Laid lay(byte[] buffer, List<int[]> cuts, boolean whole) {
        return pieces.lay(buffer, cuts, whole);
    }

    /**
     * Stores what was laid, in a transaction of its own.
     *
     * @param chosen how the content is cut, when these are its first bytes
     */
    void store(Upload upload, long from, Laid laid, Optional<CutSize> chosen, Optional<UploadStore.Whole> whole) {
        unit.run(() -> {
            uploads.append(upload, from, laid, whole, clock.instant().plus(LEASE));
            chosen.ifPresent(cut -> contents.chooseCut(upload.content(), cut));
        });
    }

    Future<?> beside(Runnable work) {
        return writers.submit(work);
    }

    /** @param first the first bytes, where they came just now; else they are read again */
    private void complete(Upload upload, byte[] first) throws IOException {
        RunningHash hash = takeRunning(upload.id(), upload.size());
        ContentHash whole;
        if (hash != null) {
            whole = hash.end();
        } else {
            MessageDigest digest = ContentHash.digest();
            contents.send(upload.content(), 0, upload.size(), new DigestSink(digest));
            whole = ContentHash.of(digest.digest());
        }
        byte[] head =
                first != null && first.length >= Math.min(upload.size(), ContentKind.SAMPLE) ? first : head(upload);
        unit.run(() -> uploads.complete(upload.id(), new UploadStore.Whole(whole, ContentKind.of(head))));
    }

    private byte[] head(Upload upload) throws IOException {
        var head = new ByteArrayOutputStream();
        contents.send(upload.content(), 0, Math.min(upload.size(), ContentKind.SAMPLE), head);
        return head.toByteArray();
    }

    /** Gives an upload up; its bytes go at once. */
    public void drop(Actor actor, String token) {
        Upload upload = upload(actor, token);
        unit.run(() -> uploads.drop(upload));
    }

    private RunningHash takeRunning(long upload, long at) {
        synchronized (running) {
            RunningHash known = running.remove(upload);
            if (known != null && known.at() == at) return known;
            return at == 0 ? new RunningHash() : null;
        }
    }

    private void keepRunning(long upload, RunningHash hash) {
        synchronized (running) {
            running.put(upload, hash);
        }
    }

    /** Writes into a hash. */
    static final class DigestSink extends OutputStream {
        private final MessageDigest digest;

        DigestSink(MessageDigest digest) {
            this.digest = digest;
        }

        @Override
        public void write(int b) {
            digest.update((byte) b);
        }

        @Override
        public void write(byte[] bytes, int from, int length) {
            digest.update(bytes, from, length);
        }
    }
}
