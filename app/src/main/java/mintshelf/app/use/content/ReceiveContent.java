package mintshelf.app.use.content;

import com.github.luben.zstd.Zstd;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.security.MessageDigest;
import java.time.Clock;
import java.time.Duration;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import mintshelf.app.setup.Settings;
import mintshelf.app.store.content.ContentStore;
import mintshelf.app.store.content.Piece;
import mintshelf.app.store.content.Upload;
import mintshelf.app.store.content.UploadMoved;
import mintshelf.app.use.Actor;
import mintshelf.app.use.NotThere;
import mintshelf.app.use.Refused;
import mintshelf.app.use.UnitOfWork;
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
    private static final int STEP = 4 << 20;

    private static final int RUNNING_HASHES = 64;

    private final ContentStore contents;
    private final UnitOfWork unit;
    private final Clock clock;
    private final Settings settings;

    /**
     * Hashes of uploads under way on this node, so that the whole need not be read back. Only a saving: an entry that does not
     * stand exactly at the upload's end is not used.
     */
    private final Map<Long, Running> running = new LinkedHashMap<>(16, 0.75f, true) {
        @Override
        protected boolean removeEldestEntry(Map.Entry<Long, Running> eldest) {
            return size() > RUNNING_HASHES;
        }
    };

    private record Running(MessageDigest digest, long at) {}

    public ReceiveContent(ContentStore contents, UnitOfWork unit, Clock clock, Settings settings) {
        this.contents = contents;
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
        String token = UUID.randomUUID().toString();
        unit.run(() -> contents.open(
                token,
                actor.person(),
                Texts.shorten(Texts.line(fileName), 300),
                size,
                clock.instant(),
                clock.instant().plus(LEASE)));
        return token;
    }

    /** The actor's own upload. */
    public Upload upload(Actor actor, String token) {
        return contents.upload(token)
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
        long at = upload.received();
        Running hash = takeRunning(upload.id(), at);
        byte[] buffer = new byte[STEP + CutSize.LARGE.most()];
        int filled = 0;
        boolean ended = false;
        try {
            while (!ended && at < upload.size()) {
                int read = bytes.readNBytes(buffer, filled, buffer.length - filled);
                filled += read;
                ended = filled < buffer.length;
                if (at + filled > upload.size()) {
                    throw Refused.because("file.longer", "More bytes came than the file has.", "Send it again.");
                }
                List<Piece> pieces = new ArrayList<>();
                int used = cut(upload, at, buffer, filled, at + filled == upload.size(), pieces);
                if (used == 0) break;
                long start = at;
                unit.run(() ->
                        contents.append(upload, start, pieces, clock.instant().plus(LEASE)));
                if (hash != null) hash.digest().update(buffer, 0, used);
                at += used;
                filled -= used;
                System.arraycopy(buffer, used, buffer, 0, filled);
            }
        } catch (UploadMoved e) {
            return upload(actor, token);
        }
        if (hash != null) keepRunning(upload.id(), new Running(hash.digest(), at));
        if (at == upload.size()) complete(upload(actor, token));
        return upload(actor, token);
    }

    /** Cuts what can be cut; what is left over comes again with the next bytes. Gives the number of bytes cut. */
    private int cut(Upload upload, long at, byte[] buffer, int filled, boolean last, List<Piece> pieces) {
        if (filled == 0) return 0;
        CutSize size = at == 0
                ? choose(upload, buffer, filled)
                : contents.cut(upload.content()).orElse(CutSize.SMALL);
        ChunkCutter cutter = new ChunkCutter(size);
        int used = 0;
        while (used < filled) {
            int length = cutter.cut(buffer, used, filled - used, last);
            if (length == 0) break;
            pieces.add(Piece.of(buffer, used, length));
            used += length;
        }
        return used;
    }

    private CutSize choose(Upload upload, byte[] buffer, int filled) {
        byte[] sample = Arrays.copyOf(buffer, Math.min(filled, CutSize.SAMPLE));
        CutSize size = CutSize.forSample(sample.length, Zstd.compress(sample, 1).length);
        contents.chooseCut(upload.content(), size);
        return size;
    }

    private void complete(Upload upload) throws IOException {
        Running hash = takeRunning(upload.id(), upload.size());
        ContentHash whole;
        if (hash != null) {
            whole = ContentHash.of(hash.digest().digest());
        } else {
            MessageDigest digest = ContentHash.digest();
            contents.send(upload.content(), 0, upload.size(), new DigestSink(digest));
            whole = ContentHash.of(digest.digest());
        }
        byte[] head = head(upload);
        unit.run(() -> contents.complete(upload.id(), whole, ContentKind.of(head)));
    }

    private byte[] head(Upload upload) throws IOException {
        var head = new java.io.ByteArrayOutputStream();
        contents.send(upload.content(), 0, Math.min(upload.size(), ContentKind.SAMPLE), head);
        return head.toByteArray();
    }

    /** Gives an upload up; its bytes go at once. */
    public void drop(Actor actor, String token) {
        Upload upload = upload(actor, token);
        unit.run(() -> contents.drop(upload));
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
