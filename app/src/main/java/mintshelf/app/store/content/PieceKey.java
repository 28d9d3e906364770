package mintshelf.app.store.content;

import java.nio.ByteBuffer;

/**
 * The key of a stretch of bytes: XXH3, 128 bits, under the house's own seed. Fast, and no proof: two stretches with one key are
 * compared byte for byte before one stands for the other.
 */
record PieceKey(long high, long low) implements Comparable<PieceKey> {
    static PieceKey of(byte[] bytes) {
        ByteBuffer two = ByteBuffer.wrap(bytes);
        return new PieceKey(two.getLong(), two.getLong());
    }

    byte[] bytes() {
        return ByteBuffer.allocate(2 * Long.BYTES).putLong(high).putLong(low).array();
    }

    /** In the order of {@link #bytes}, which is that of the index: rows are locked in it. */
    @Override
    public int compareTo(PieceKey other) {
        int first = Long.compareUnsigned(high, other.high);
        return first != 0 ? first : Long.compareUnsigned(low, other.low);
    }
}
