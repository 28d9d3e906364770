package mintshelf.app.sight;

import java.io.IOException;
import java.io.OutputStream;
import java.io.UncheckedIOException;
import java.util.Optional;
import mintshelf.app.ground.ReadingRoom;
import mintshelf.app.store.content.ContentStore;
import mintshelf.app.store.content.StoredContent;
import org.springframework.stereotype.Component;

/** Bytes of contents: whole where they fit into memory, or on their way to somebody. */
@Component
public class Contents {
    private final ReadingRoom room;
    private final ContentStore contents;

    public Contents(ReadingRoom room, ContentStore contents) {
        this.room = room;
        this.contents = contents;
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

    /** Sends a part of a content as it is kept, in pieces. */
    public void send(StoredContent content, long from, long to, OutputStream out) throws IOException {
        contents.send(content.id(), from, to, out);
    }
}
