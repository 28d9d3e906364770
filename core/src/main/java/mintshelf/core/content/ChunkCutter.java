package mintshelf.core.content;

import java.util.ArrayList;
import java.util.List;
import java.util.SplittableRandom;

/**
 * Finds content-defined boundaries: a rolling hash over the last 64 bytes decides where a piece ends, so that an edit moves only
 * the boundaries near it and equal stretches of two files are cut alike.
 *
 * <p>Gear hash with normalised chunking (Xia et al., "FastCDC: a Fast and Efficient Content-Defined Chunking Approach for Data
 * Deduplication", USENIX ATC 2016): below the average size the mask has two more bits, above it two fewer. O(n), no state
 * between pieces: the boundaries depend on the bytes since the last boundary alone.
 */
public final class ChunkCutter {
    private static final long[] GEAR = gear();

    private final CutSize size;
    private final long hardMask;
    private final long easyMask;

    public ChunkCutter(CutSize size) {
        this.size = size;
        int bits = 31 - Integer.numberOfLeadingZeros(size.average());
        this.hardMask = topBits(bits + 2);
        this.easyMask = topBits(bits - 2);
    }

    /**
     * The length of the next piece.
     *
     * @param data bytes, of which {@code available} from {@code from} on are there
     * @param last whether the content ends with them
     * @return the length, or 0 when more bytes are needed to tell (never when {@code available} reaches the largest piece)
     */
    public int cut(byte[] data, int from, int available, boolean last) {
        int end = Math.min(available, size.most());
        int middle = Math.min(end, size.average());
        long hash = 0;
        int i = Math.min(end, size.least());
        for (; i < middle; i++) {
            hash = (hash << 1) + GEAR[data[from + i] & 0xff];
            if ((hash & hardMask) == 0) return i + 1;
        }
        for (; i < end; i++) {
            hash = (hash << 1) + GEAR[data[from + i] & 0xff];
            if ((hash & easyMask) == 0) return i + 1;
        }
        return end == size.most() || last ? end : 0;
    }

    /**
     * The pieces of the first {@code available} bytes: from where, how long, without gaps from 0 on. What is left over is to come
     * again with the next bytes. O(n).
     *
     * @param last whether the content ends with them
     */
    public List<int[]> cuts(byte[] data, int available, boolean last) {
        List<int[]> cuts = new ArrayList<>();
        int used = 0;
        while (used < available) {
            int length = cut(data, used, available - used, last);
            if (length == 0) break;
            cuts.add(new int[] {used, length});
            used += length;
        }
        return cuts;
    }

    private static long topBits(int bits) {
        return -1L << (64 - bits);
    }

    /** Fixed for ever: other numbers would cut stored contents elsewhere and store everything twice. */
    private static long[] gear() {
        SplittableRandom random = new SplittableRandom(0x6d696e7473686c66L);
        long[] table = new long[256];
        for (int i = 0; i < table.length; i++) table[i] = random.nextLong();
        return table;
    }
}
