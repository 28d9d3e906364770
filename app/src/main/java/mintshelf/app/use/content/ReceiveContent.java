package mintshelf.app.use.content;

import com.github.luben.zstd.Zstd;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.MessageDigest;
import java.time.Clock;
import java.time.Duration;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.concurrent.Semaphore;
import java.util.concurrent.TimeUnit;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.CountedInput;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.Recent;
import mintshelf.app.ground.Refused;
import mintshelf.app.ground.UnitOfWork;
import mintshelf.app.setup.Settings;
import mintshelf.app.store.content.ContentStore;
import mintshelf.app.store.content.Piece;
import mintshelf.app.store.content.StoredContent;
import mintshelf.app.store.content.Upload;
import mintshelf.app.store.content.UploadMoved;
import mintshelf.app.store.content.UploadStore;
import mintshelf.core.access.Right;
import mintshelf.core.base.ContentHash;
import mintshelf.core.base.Numbers;
import mintshelf.core.base.Texts;
import mintshelf.core.content.ChunkCutter;
import mintshelf.core.content.ContentKind;
import mintshelf.core.content.CutSize;
import org.springframework.stereotype.Service;

/**
 * Receives bytes in steps that can be resumed. Each step is cut, hashed and compressed outside the database and stored in one
 * short transaction; a broken connection loses at most the step that was under way.
 */
@Service
public class ReceiveContent {
    /** How long an untouched upload is kept. */
    static final Duration LEASE = Duration.ofHours(24);
    /** Plain bytes in one transaction, about. */
    private static final int STEP = 8 << 20;

    private static final int FIRST = 128 << 10;
    /** Files that one person sends beside each other. */
    private static final int BESIDE = 8;
    /** Uploads of a person that wait to be filed or checked in. */
    private static final int WAITING = 2000;

    private static final int RUNNING_HASHES = 64;

    private final ContentStore contents;
    private final UploadStore uploads;
    private final UnitOfWork unit;
    private final Clock clock;
    private final Settings settings;

    /**
     * Hashes of uploads under way on this node, so that the whole need not be read back. Only a saving: an entry that does not
     * stand exactly at the upload's end is not used.
     */
    private final Map<Long, Running> running = Recent.most(RUNNING_HASHES);

    /** Each sender holds a step of bytes: as many at once as a fifth of the heap has room for. */
    private static final int PLACES =
            (int) Math.max(4, Runtime.getRuntime().maxMemory() / 5 / (STEP + CutSize.LARGE.most()));

    private final Semaphore senders = new Semaphore(PLACES, true);

    private final Map<Long, Integer> sending = new ConcurrentHashMap<>();

    private final ExecutorService writers = Executors.newCachedThreadPool(r -> {
        Thread thread = new Thread(r, "receive");
        thread.setDaemon(true);
        return thread;
    });

    private record Running(MessageDigest digest, long at) {}

    public ReceiveContent(ContentStore contents, UploadStore uploads, UnitOfWork unit, Clock clock, Settings settings) {
        this.contents = contents;
        this.uploads = uploads;
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
        if (size < 0 || size > settings.largestFile()) {
            throw Refused.because(
                    "file.large",
                    "“" + Texts.shorten(Texts.line(fileName), 80) + "” has " + Numbers.size(Math.max(0, size)) + "; "
                            + Numbers.size(settings.largestFile()) + " are the most here.",
                    "A data manager can raise the limit.");
        }
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
        String token = UUID.randomUUID().toString();
        unit.run(() -> uploads.open(
                token,
                actor.person(),
                Texts.shorten(Texts.line(fileName), 300),
                size,
                clock.instant(),
                clock.instant().plus(LEASE)));
        return token;
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
        Running hash = takeRunning(upload.id(), at);
        // One byte more than the file has tells that more came; most files are smaller than a step.
        int most = (int) Math.min(STEP + CutSize.LARGE.most(), upload.size() - at + 1);
        byte[] buffer = new byte[Math.min(FIRST, most)];
        byte[] head = null;
        int filled = 0;
        boolean ended = false;
        CutSize size = at == 0 ? null : contents.cut(upload.content()).orElse(null);
        UploadStore.Whole whole = null;
        Future<?> writing = CompletableFuture.completedFuture(null);
        try {
            while (!ended && at < upload.size()) {
                // It grows with what comes: who sends nothing holds nothing.
                while (true) {
                    filled += bytes.readNBytes(buffer, filled, buffer.length - filled);
                    if (filled < buffer.length || buffer.length == most) break;
                    buffer = Arrays.copyOf(buffer, Math.min(most, buffer.length * 2));
                }
                ended = filled < buffer.length;
                if (at + filled > upload.size()) {
                    throw Refused.because("file.longer", "More bytes came than the file has.", "Send it again.");
                }
                if (filled == 0) break;
                if (at == 0) head = Arrays.copyOf(buffer, Math.min(filled, ContentKind.SAMPLE));
                boolean chosen = size == null;
                if (chosen) {
                    // Less than the sample decides nothing, or the boundaries would depend on where a connection broke.
                    if (filled < CutSize.SAMPLE && filled < upload.size()) break;
                    byte[] sample = Arrays.copyOf(buffer, Math.min(filled, CutSize.SAMPLE));
                    size = CutSize.forSample(sample.length, Zstd.compress(sample, 1).length);
                }
                List<int[]> cuts = cut(size, buffer, filled, at + filled == upload.size());
                if (cuts.isEmpty()) break;
                int used = cuts.get(cuts.size() - 1)[0] + cuts.get(cuts.size() - 1)[1];
                List<Piece> pieces = prepare(buffer, cuts, used, hash);
                await(writing); // one step is written while the next one is prepared
                long start = at;
                CutSize cut = size;
                // Whoever saw all bytes go by says with the last ones what they are.
                if (at + used == upload.size() && hash != null && head != null) {
                    whole = new UploadStore.Whole(ContentHash.of(hash.digest().digest()), ContentKind.of(head));
                }
                Optional<UploadStore.Whole> told = Optional.ofNullable(whole);
                writing = writers.submit(() -> unit.run(() -> {
                    uploads.append(upload, start, pieces, told, clock.instant().plus(LEASE));
                    if (chosen) contents.chooseCut(upload.content(), cut);
                }));
                at += used;
                filled -= used;
                System.arraycopy(buffer, used, buffer, 0, filled);
            }
        } catch (UploadMoved e) {
            return upload(actor, token);
        } finally {
            try {
                await(writing);
            } catch (UploadMoved e) {
                hash = null;
                whole = null;
            }
        }
        if (whole != null) return upload.complete(whole.hash(), whole.kind());
        if (hash != null) keepRunning(upload.id(), new Running(hash.digest(), at));
        Upload now = upload(actor, token);
        if (now.state() == Upload.State.RECEIVING && now.received() == now.size()) complete(now, head);
        return upload(actor, token);
    }

    /** From where, how long: the pieces that can be cut now; what is left over comes again with the next bytes. */
    private static List<int[]> cut(CutSize size, byte[] buffer, int filled, boolean last) {
        ChunkCutter cutter = new ChunkCutter(size);
        List<int[]> cuts = new ArrayList<>();
        int used = 0;
        while (used < filled) {
            int length = cutter.cut(buffer, used, filled - used, last);
            if (length == 0) break;
            cuts.add(new int[] {used, length});
            used += length;
        }
        return cuts;
    }

    /** Hashes and packs the pieces, and adds the bytes to the hash of the whole, on all processors. */
    private static List<Piece> prepare(byte[] buffer, List<int[]> cuts, int used, Running hash) {
        CompletableFuture<Void> whole = hash == null
                ? CompletableFuture.completedFuture(null)
                : CompletableFuture.runAsync(() -> hash.digest().update(buffer, 0, used));
        List<Piece> pieces =
                cuts.parallelStream().map(c -> Piece.of(buffer, c[0], c[1])).toList();
        whole.join();
        return pieces;
    }

    private static void await(Future<?> writing) {
        try {
            writing.get();
        } catch (ExecutionException e) {
            if (e.getCause() instanceof RuntimeException cause) throw cause;
            throw new IllegalStateException(e.getCause());
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new IllegalStateException(e);
        }
    }

    /** @param first the first bytes, where they came just now; else they are read again */
    private void complete(Upload upload, byte[] first) throws IOException {
        Running hash = takeRunning(upload.id(), upload.size());
        ContentHash whole;
        if (hash != null) {
            whole = ContentHash.of(hash.digest().digest());
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

    private Running takeRunning(long upload, long at) {
        synchronized (running) {
            Running known = running.remove(upload);
            if (known != null && known.at() == at) return known;
            return at == 0 ? new Running(ContentHash.digest(), 0) : null;
        }
    }

    private void keepRunning(long upload, Running hash) {
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
