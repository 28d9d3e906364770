package mintshelf.app.store.content;

import com.github.luben.zstd.Zstd;
import java.util.Arrays;
import java.util.zip.CRC32C;

/** Pieces ready to be stored as one: their plain length, the sum of their plain bytes, the bytes as kept. */
record Pack(int length, String codec, int sum, byte[] bytes) {
    /** Plain bytes in a pack at the most: what must be unpacked to read one piece. */
    static final int MOST = 1 << 20;

    static final String PLAIN = "plain";
    static final String ZSTD = "zstd";
    private static final int LEVEL = 1;
    /** Of a long pack the first bytes tell whether packing is worth its time. */
    private static final int LONG = 64 << 10;

    private static final int TASTE = 8 << 10;

    /** Compresses; what does not shrink by a sixteenth is kept plain. */
    static Pack of(byte[] plain) {
        int sum = sum(plain);
        if (plain.length > LONG && Zstd.compress(Arrays.copyOf(plain, TASTE), LEVEL).length > TASTE - TASTE / 16) {
            return new Pack(plain.length, PLAIN, sum, plain);
        }
        byte[] packed = Zstd.compress(plain, LEVEL);
        return packed.length < plain.length - plain.length / 16
                ? new Pack(plain.length, ZSTD, sum, packed)
                : new Pack(plain.length, PLAIN, sum, plain);
    }

    /**
     * The plain bytes, verified.
     *
     * @throws BrokenContent when they are not the ones that were stored
     */
    byte[] plain() {
        byte[] plain;
        try {
            plain = codec.equals(ZSTD) ? Zstd.decompress(bytes, length) : bytes;
        } catch (RuntimeException e) {
            throw new BrokenContent("A stored pack cannot be unpacked");
        }
        if (plain.length != length || sum(plain) != sum) {
            throw new BrokenContent("A stored pack does not have its sum");
        }
        return plain;
    }

    /** CRC-32C (RFC 3720, appendix B.4): tells bytes that went bad, at the speed of memory. What was altered on purpose, the hash of the whole tells. */
    private static int sum(byte[] plain) {
        CRC32C sum = new CRC32C();
        sum.update(plain, 0, plain.length);
        return (int) sum.getValue();
    }
}
