package mintshelf.core.content;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashSet;
import java.util.List;
import java.util.Random;
import java.util.Set;
import mintshelf.core.base.ContentHash;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;

class ChunkCutterTest {
    private static byte[] bytes(int size, long seed) {
        byte[] data = new byte[size];
        new Random(seed).nextBytes(data);
        return data;
    }

    private static List<Integer> cuts(byte[] data, CutSize size) {
        List<Integer> cuts = new ArrayList<>();
        ChunkCutter cutter = new ChunkCutter(size);
        for (int at = 0; at < data.length; ) {
            int length = cutter.cut(data, at, data.length - at, true);
            assertThat(length).isPositive();
            cuts.add(length);
            at += length;
        }
        return cuts;
    }

    @ParameterizedTest
    @EnumSource(CutSize.class)
    void piecesStayWithinTheirBoundsAndNearTheirAverage(CutSize size) {
        List<Integer> cuts = cuts(bytes(size.average() * 200, 1), size);
        assertThat(cuts.subList(0, cuts.size() - 1))
                .allSatisfy(c -> assertThat(c).isBetween(size.least(), size.most()));
        double mean = cuts.stream().mapToInt(i -> i).average().orElseThrow();
        assertThat(mean).isBetween(size.average() * 0.7, size.average() * 1.5);
    }

    @ParameterizedTest
    @EnumSource(CutSize.class)
    void boundariesDoNotDependOnHowTheBytesArrive(CutSize size) {
        byte[] data = bytes(size.average() * 20, 2);
        List<Integer> whole = cuts(data, size);
        List<Integer> inSteps = new ArrayList<>();
        ChunkCutter cutter = new ChunkCutter(size);
        Random random = new Random(3);
        int at = 0;
        int there = 0;
        while (at < data.length) {
            there = Math.min(data.length, there + 1 + random.nextInt(size.average()));
            int length = cutter.cut(data, at, there - at, there == data.length);
            while (length > 0) {
                inSteps.add(length);
                at += length;
                length = at < data.length ? cutter.cut(data, at, there - at, there == data.length) : 0;
                if (there == at) break;
            }
        }
        assertThat(inSteps).isEqualTo(whole);
    }

    @ParameterizedTest
    @EnumSource(CutSize.class)
    void anInsertionChangesOnlyPiecesNearIt(CutSize size) {
        byte[] before = bytes(size.average() * 60, 4);
        byte[] after = new byte[before.length + 3];
        int at = before.length / 2;
        System.arraycopy(before, 0, after, 0, at);
        System.arraycopy(before, at, after, at + 3, before.length - at);
        Set<ContentHash> known = pieces(before, size);
        Set<ContentHash> now = pieces(after, size);
        now.removeAll(known);
        assertThat(now).hasSizeLessThanOrEqualTo(4);
    }

    private static Set<ContentHash> pieces(byte[] data, CutSize size) {
        Set<ContentHash> hashes = new HashSet<>();
        int at = 0;
        for (int length : cuts(data, size)) {
            hashes.add(ContentHash.compute(Arrays.copyOfRange(data, at, at + length)));
            at += length;
        }
        return hashes;
    }
}
