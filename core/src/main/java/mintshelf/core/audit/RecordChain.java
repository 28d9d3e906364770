package mintshelf.core.audit;

import java.io.ByteArrayOutputStream;
import java.io.DataOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.time.temporal.ChronoUnit;
import mintshelf.core.base.ContentHash;

/**
 * Chains record entries by hash: each hash covers the entry and the hash before it, so that no entry can be changed, left out or
 * put in later without every hash after it changing.
 */
public final class RecordChain {
    /** What the first entry of a stream stands on. */
    public static final ContentHash START = ContentHash.of(new byte[32]);

    private RecordChain() {}

    /** The hash of {@code entry} after {@code previous}: SHA-256 over a form in which every field is preceded by its length. */
    public static ContentHash next(ContentHash previous, RecordEntry entry) {
        ByteArrayOutputStream bytes = new ByteArrayOutputStream();
        try (DataOutputStream out = new DataOutputStream(bytes)) {
            out.write(previous.bytes());
            out.writeLong(entry.stream());
            out.writeInt(entry.seq());
            text(out, entry.at().truncatedTo(ChronoUnit.MICROS).toString());
            out.writeLong(entry.person().orElse(-1));
            text(out, entry.address());
            text(out, entry.act());
            out.writeLong(entry.item().orElse(-1));
            out.writeInt(entry.version().orElse(-1));
            text(out, entry.says());
            text(out, entry.why());
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        return ContentHash.compute(bytes.toByteArray());
    }

    private static void text(DataOutputStream out, String text) throws IOException {
        byte[] bytes = text.getBytes(StandardCharsets.UTF_8);
        out.writeInt(bytes.length);
        out.write(bytes);
    }
}
