package mintshelf.app.store.content;

import com.dynatrace.hash4j.hashing.HashValue128;
import com.dynatrace.hash4j.hashing.Hasher128;
import com.dynatrace.hash4j.hashing.Hashing;

/** Makes keys and sums under one seed; may be shared by threads. */
final class PieceHash {
    private final Hasher128 hasher;

    PieceHash(long seed) {
        this.hasher = Hashing.xxh3_128(seed);
    }

    /** O(length), some gigabytes a second. */
    PieceKey key(byte[] bytes, int from, int length) {
        HashValue128 value = hasher.hashBytesTo128Bits(bytes, from, length);
        return new PieceKey(value.getMostSignificantBits(), value.getLeastSignificantBits());
    }
}
