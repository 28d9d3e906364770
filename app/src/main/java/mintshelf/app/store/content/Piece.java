package mintshelf.app.store.content;

import com.github.luben.zstd.Zstd;
import java.util.Arrays;
import mintshelf.core.base.ContentHash;

/** A piece of content ready to be stored: its hash, its plain length, its bytes as kept. */
public record Piece(ContentHash hash, int length, String codec, byte[] bytes) {
    private static final int LEVEL = 1;
    /** Of a long piece the first bytes tell whether packing is worth its time. */
    private static final int LONG = 64 << 10;

    private static final int TASTE = 8 << 10;
    static final String PLAIN = "plain";
    static final String ZSTD = "zstd";

    /** Hashes and compresses; what does not shrink by a sixteenth is kept plain. */
    public static Piece of(byte[] data, int from, int length) {
        byte[] plain = Arrays.copyOfRange(data, from, from + length);
        ContentHash hash = ContentHash.compute(plain);
        if (length > LONG && Zstd.compress(Arrays.copyOf(plain, TASTE), 1).length > TASTE - TASTE / 16) {
            return new Piece(hash, length, PLAIN, plain);
        }
        byte[] packed = Zstd.compress(plain, LEVEL);
        if (packed.length < length - length / 16) return new Piece(hash, length, ZSTD, packed);
        return new Piece(hash, length, PLAIN, plain);
    }

    /** Gives the plain bytes back and verifies them. */
    static byte[] unpack(String codec, byte[] bytes, int length, byte[] hash) {
        byte[] plain = codec.equals(ZSTD) ? Zstd.decompress(bytes, length) : bytes;
        if (plain.length != length || !Arrays.equals(ContentHash.compute(plain).bytes(), hash)) {
            throw new BrokenContent("A stored piece does not have its hash");
        }
        return plain;
    }
}
