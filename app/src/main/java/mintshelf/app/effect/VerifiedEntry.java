package mintshelf.app.effect;

import java.io.FilterInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.util.zip.CRC32;
import org.apache.commons.compress.archivers.zip.ZipArchiveEntry;

/** Breaks off at the last byte of a file whose sum (CRC-32) is another than the archive says, and where more comes than it says. */
public final class VerifiedEntry extends FilterInputStream {
    private final CRC32 sum = new CRC32();
    private final ZipArchiveEntry entry;
    private long count;

    public VerifiedEntry(InputStream in, ZipArchiveEntry entry) {
        super(in);
        this.entry = entry;
    }

    @Override
    public int read() throws IOException {
        byte[] one = new byte[1];
        return read(one, 0, 1) < 0 ? -1 : one[0] & 0xff;
    }

    @Override
    public int read(byte[] into, int from, int length) throws IOException {
        int read = super.read(into, from, length);
        if (read <= 0) return read;
        sum.update(into, from, read);
        count += read;
        if (entry.getSize() >= 0 && count > entry.getSize())
            throw new IOException(entry.getName() + " has more bytes than its archive says");
        if (count == entry.getSize() && entry.getCrc() >= 0 && sum.getValue() != entry.getCrc()) {
            throw new IOException(entry.getName() + " has another sum than its archive says");
        }
        return read;
    }
}
