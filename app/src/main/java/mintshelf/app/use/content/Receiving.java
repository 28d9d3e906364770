package mintshelf.app.use.content;

import com.github.luben.zstd.Zstd;
import java.io.IOException;
import java.io.InputStream;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.Future;
import mintshelf.app.ground.Refused;
import mintshelf.app.store.content.Laid;
import mintshelf.app.store.content.Upload;
import mintshelf.app.store.content.UploadMoved;
import mintshelf.app.store.content.UploadStore;
import mintshelf.core.content.ChunkCutter;
import mintshelf.core.content.ContentKind;
import mintshelf.core.content.CutSize;

/**
 * Bytes of one upload as they come. While one step is hashed, packed and written, the next one is read and cut into the other
 * buffer. (A third stage, packing beside writing, was tried: on two processors it brought nothing.)
 */
final class Receiving {
    /** Plain bytes in one transaction, about. */
    private static final int STEP = 4 << 20;

    private static final int BUFFER = STEP + CutSize.LARGE.most();
    private static final int FIRST = 128 << 10;
    /** What a sender holds at the most, in bytes. */
    static final int MOST = 2 * BUFFER;

    private final ReceiveContent store;
    private final Upload upload;
    private final RunningHash hash;
    private final int most;
    private byte[] buffer;
    private byte[] other = {};
    private int filled;
    private byte[] head;
    private Optional<CutSize> size = Optional.empty();
    private long at;
    private boolean stored;
    private volatile Optional<UploadStore.Whole> whole = Optional.empty();
    private Future<?> writing = CompletableFuture.completedFuture(null);

    /** @param hash of the bytes that are there already, or null when nobody knows it */
    Receiving(ReceiveContent store, Upload upload, RunningHash hash) {
        this.store = store;
        this.upload = upload;
        this.hash = hash;
        this.at = upload.received();
        // One byte more than the file has tells that more came; most files are smaller than a step.
        this.most = (int) Math.min(BUFFER, upload.size() - at + 1);
        this.buffer = new byte[Math.min(FIRST, most)];
    }

    /** Whether all that was taken is hashed and stored: the hash stands where the upload does. */
    boolean isStored() {
        return stored;
    }

    /** What the file is, when all of its bytes went by and are stored. */
    Optional<UploadStore.Whole> whole() {
        return whole;
    }

    /** The first bytes of the file, when they came just now; else null. */
    byte[] head() {
        return head;
    }

    /**
     * Takes what comes; what was stored before a connection broke is stored.
     *
     * @param cut how the content is cut, once that is chosen
     * @throws UploadMoved when another sender was faster
     */
    void take(InputStream bytes, Optional<CutSize> cut) throws IOException {
        size = cut;
        try {
            while (at < upload.size()) {
                boolean ended = fill(bytes);
                if (at + filled > upload.size()) {
                    throw Refused.because("file.longer", "More bytes came than the file has.", "Send it again.");
                }
                if (filled == 0 || !step() || ended) break;
            }
        } finally {
            await(writing);
            stored = true;
        }
    }

    /** The buffer grows with what comes: who sends nothing holds nothing. Gives whether nothing more comes. */
    private boolean fill(InputStream bytes) throws IOException {
        while (true) {
            filled += bytes.readNBytes(buffer, filled, buffer.length - filled);
            if (filled < buffer.length) return true;
            if (buffer.length == most) return false;
            buffer = Arrays.copyOf(buffer, Math.min(most, buffer.length * 2));
        }
    }

    /** Cuts what is in the buffer and lets it be stored; gives false where more bytes are needed first. */
    private boolean step() {
        if (at == 0) head = Arrays.copyOf(buffer, Math.min(filled, ContentKind.SAMPLE));
        Optional<CutSize> chosen = Optional.empty();
        if (size.isEmpty()) {
            // Less than the sample decides nothing, or the boundaries would depend on where a connection broke.
            if (filled < CutSize.SAMPLE && filled < upload.size()) return false;
            byte[] sample = Arrays.copyOf(buffer, Math.min(filled, CutSize.SAMPLE));
            chosen = Optional.of(CutSize.forSample(sample.length, Zstd.compress(sample, 1).length));
            size = chosen;
        }
        List<int[]> cuts = new ChunkCutter(size.orElseThrow()).cuts(buffer, filled, at + filled == upload.size());
        if (cuts.isEmpty()) return false;
        int used = cuts.get(cuts.size() - 1)[0] + cuts.get(cuts.size() - 1)[1];
        await(writing);
        byte[] now = buffer;
        long from = at;
        Optional<CutSize> cut = chosen;
        writing = store.beside(() -> write(now, cuts, used, from, cut));
        at += used;
        filled -= used;
        if (other.length < now.length) other = new byte[at < upload.size() ? now.length : filled];
        System.arraycopy(now, used, other, 0, filled);
        buffer = other;
        other = now;
        return true;
    }

    /** Hashes, packs and stores one step. */
    private void write(byte[] bytes, List<int[]> cuts, int used, long from, Optional<CutSize> chosen) {
        CompletableFuture<Void> hashed = hash == null
                ? CompletableFuture.completedFuture(null)
                : CompletableFuture.runAsync(() -> hash.add(bytes, used));
        Laid laid = store.lay(bytes, cuts, used == upload.size());
        // Whoever saw all bytes go by says with the last ones what they are; only these wait for the hash before they
        // are stored.
        boolean last = from + used == upload.size() && hash != null && head != null;
        if (last) hashed.join();
        Optional<UploadStore.Whole> told =
                last ? Optional.of(new UploadStore.Whole(hash.end(), ContentKind.of(head))) : Optional.empty();
        store.store(upload, from, laid, chosen, told);
        // The next bytes come into this buffer, and the hash goes on with them.
        hashed.join();
        whole = told;
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
}
