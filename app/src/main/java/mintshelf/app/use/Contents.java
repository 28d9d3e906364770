package mintshelf.app.use;

import com.github.luben.zstd.Zstd;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.time.Clock;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import mintshelf.app.store.content.ContentStore;
import mintshelf.app.store.content.Piece;
import mintshelf.app.store.content.StoredContent;
import mintshelf.core.base.ContentHash;
import mintshelf.core.content.ChunkCutter;
import mintshelf.core.content.ContentKind;
import mintshelf.core.content.CutSize;
import org.springframework.stereotype.Component;

/** Contents that fit into memory: read whole, and kept when the shelf made them. */
@Component
public class Contents {
    /** Sheets beyond this are kept and released as they are, without being drawn or written into. */
    public static final long LARGEST_SHEET = 16L << 20;

    private final ContentStore contents;
    private final Clock clock;

    public Contents(ContentStore contents, Clock clock) {
        this.contents = contents;
        this.clock = clock;
    }

    /** The first {@code most} bytes of a content. */
    public byte[] bytes(StoredContent content, long most) {
        long size = Math.min(content.size(), most);
        ByteArrayOutputStream out = new ByteArrayOutputStream((int) size);
        try {
            contents.send(content.id(), 0, size, out);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        return out.toByteArray();
    }

    /** Keeps bytes that the shelf made, within the caller's transaction. */
    public StoredContent keep(byte[] bytes) {
        byte[] sample = Arrays.copyOf(bytes, Math.min(bytes.length, CutSize.SAMPLE));
        CutSize size = CutSize.forSample(sample.length, Zstd.compress(sample, 1).length);
        ChunkCutter cutter = new ChunkCutter(size);
        List<Piece> pieces = new ArrayList<>();
        for (int at = 0; at < bytes.length; ) {
            int length = cutter.cut(bytes, at, bytes.length - at, true);
            pieces.add(Piece.of(bytes, at, length));
            at += length;
        }
        return contents.keep(
                ContentHash.compute(bytes), bytes.length, ContentKind.of(sample), size, pieces, clock.instant());
    }
}
