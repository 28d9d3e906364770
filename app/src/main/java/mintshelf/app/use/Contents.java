package mintshelf.app.use;

import com.github.luben.zstd.Zstd;
import java.io.IOException;
import java.io.OutputStream;
import java.io.UncheckedIOException;
import java.time.Clock;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
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
    private final ReadingRoom room;
    private final ContentStore contents;
    private final Clock clock;

    public Contents(ReadingRoom room, ContentStore contents, Clock clock) {
        this.room = room;
        this.contents = contents;
        this.clock = clock;
    }

    /** The first {@code most} bytes of a content. */
    public byte[] bytes(StoredContent content, long most) {
        byte[] all = new byte[(int) Math.min(content.size(), most)];
        Into into = new Into(all);
        try {
            contents.send(content.id(), 0, all.length, into);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        return all;
    }

    /** All bytes of a content, for which room is taken; nothing where there is never that much. */
    public Optional<byte[]> whole(StoredContent content) {
        return room.takes(content.size()) ? Optional.of(bytes(content, content.size())) : Optional.empty();
    }

    /** Fills an array of the right length: a stream that grows would hold large files twice. */
    private static final class Into extends OutputStream {
        private final byte[] all;
        private int at;

        Into(byte[] all) {
            this.all = all;
        }

        @Override
        public void write(int b) {
            all[at++] = (byte) b;
        }

        @Override
        public void write(byte[] bytes, int from, int length) {
            System.arraycopy(bytes, from, all, at, length);
            at += length;
        }
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
