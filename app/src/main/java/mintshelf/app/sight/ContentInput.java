package mintshelf.app.sight;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import mintshelf.app.store.content.ContentStore;

/** The bytes of a content as a stream, a few megabytes at a time. */
public final class ContentInput extends InputStream {
    private static final int WINDOW = 4 << 20;

    private final ContentStore contents;
    private final long content;
    private final long size;
    private byte[] window = new byte[0];
    private int next;
    private long read;

    public ContentInput(ContentStore contents, long content, long size) {
        this.contents = contents;
        this.content = content;
        this.size = size;
    }

    @Override
    public int read() throws IOException {
        return fill() ? window[next++] & 0xff : -1;
    }

    @Override
    public int read(byte[] into, int from, int most) throws IOException {
        if (most == 0) return 0;
        if (!fill()) return -1;
        int length = Math.min(most, window.length - next);
        System.arraycopy(window, next, into, from, length);
        next += length;
        return length;
    }

    private boolean fill() throws IOException {
        if (next < window.length) return true;
        if (read >= size) return false;
        long to = Math.min(size, read + WINDOW);
        ByteArrayOutputStream out = new ByteArrayOutputStream((int) (to - read));
        contents.send(content, read, to, out);
        window = out.toByteArray();
        next = 0;
        read = to;
        return window.length > 0;
    }
}
