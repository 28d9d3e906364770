package mintshelf.app.store.content;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.ByteArrayOutputStream;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collections;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import mintshelf.app.store.content.Laid.Stretch;
import org.junit.jupiter.api.Test;

/** How bytes are laid into packs: on bytes alone, without a database. */
class LaidTest {
    private static final PieceHash HASH = new PieceHash(7);

    private static List<int[]> cuts(int length, int... ends) {
        List<int[]> cuts = new ArrayList<>();
        int at = 0;
        for (int end : ends) {
            cuts.add(new int[] {at, end - at});
            at = end;
        }
        if (at < length) cuts.add(new int[] {at, length - at});
        return cuts;
    }

    private static List<PieceKey> keys(byte[] buffer, List<int[]> cuts) {
        return cuts.stream().map(c -> HASH.key(buffer, c[0], c[1])).toList();
    }

    /** The bytes that the stretches give, with the packs that were here. */
    private static byte[] read(Laid laid, Map<Long, byte[]> old) {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        for (Stretch s : laid.stretches()) {
            byte[] plain = s.isNew() ? laid.packs().get(s.index()).pack().plain() : old.get(s.pack());
            out.write(plain, s.at(), s.length());
        }
        return out.toByteArray();
    }

    private static byte[] random(int length, long seed) {
        byte[] bytes = new byte[length];
        new Random(seed).nextBytes(bytes);
        return bytes;
    }

    @Test
    void newPiecesInARowAreOneStretch() {
        byte[] bytes = random(40_000, 1);
        List<int[]> cuts = cuts(bytes.length, 9_000, 20_000, 33_000);
        Laid laid = Laid.of(bytes, cuts, keys(bytes, cuts), Map.of());
        assertThat(laid.stretches()).containsExactly(new Stretch(-1, 0, 40_000));
        assertThat(laid.packs()).hasSize(1);
        assertThat(laid.packs().get(0).places()).hasSize(4);
        assertThat(laid.length()).isEqualTo(40_000);
        assertThat(laid.old()).isEmpty();
    }

    @Test
    void aPackIsFullWhenTheNextPieceWouldPassItsMost() {
        byte[] bytes = random(2_500_000, 2);
        List<int[]> cuts = cuts(bytes.length, 600_000, 1_200_000, 1_500_000, 2_400_000);
        Laid laid = Laid.of(bytes, cuts, keys(bytes, cuts), Map.of());
        assertThat(laid.packs()).extracting(p -> p.pack().length()).containsExactly(600_000, 900_000, 1_000_000);
        assertThat(read(laid, Map.of())).isEqualTo(bytes);
    }

    @Test
    void aPieceThatComesTwiceIsPackedOnce() {
        byte[] once = random(10_000, 3);
        byte[] bytes = new byte[30_000];
        for (int i = 0; i < 3; i++) System.arraycopy(once, 0, bytes, i * 10_000, 10_000);
        List<int[]> cuts = cuts(bytes.length, 10_000, 20_000);
        Laid laid = Laid.of(bytes, cuts, keys(bytes, cuts), Map.of());
        assertThat(laid.packs().get(0).pack().length()).isEqualTo(10_000);
        assertThat(laid.stretches()).hasSize(3);
        assertThat(read(laid, Map.of())).isEqualTo(bytes);
    }

    @Test
    void twoPiecesWhoseKeysMeetAreBothKept() {
        byte[] bytes = random(20_000, 4);
        List<int[]> cuts = cuts(bytes.length, 10_000);
        List<PieceKey> met = Collections.nCopies(2, new PieceKey(1, 2));
        Laid laid = Laid.of(bytes, cuts, met, Map.of());
        assertThat(read(laid, Map.of())).isEqualTo(bytes);
        assertThat(laid.packs().get(0).places())
                .as("the first one is found again")
                .hasSize(1);
    }

    @Test
    void aPieceWhoseKeyMeetsThatOfOneThatIsHereIsKeptToo() {
        byte[] bytes = random(20_000, 12);
        List<int[]> cuts = cuts(bytes.length, 10_000);
        PieceKey met = new PieceKey(1, 2);
        byte[] old = Arrays.copyOf(bytes, 10_000);
        Laid laid = Laid.of(bytes, cuts, List.of(met, met), Map.of(met, new Stretch(9, 0, 10_000)));
        assertThat(read(laid, Map.of(9L, old))).isEqualTo(bytes);
        assertThat(laid.packs().get(0).places()).as("its key is another one's").isEmpty();
    }

    @Test
    void whatIsHereStaysWhereItIsAndRunsAreJoined() {
        byte[] bytes = random(50_000, 5);
        List<int[]> cuts = cuts(bytes.length, 10_000, 20_000, 30_000, 40_000);
        List<PieceKey> keys = keys(bytes, cuts);
        byte[] old = new byte[60_000];
        System.arraycopy(bytes, 0, old, 5_000, 20_000);
        System.arraycopy(bytes, 30_000, old, 40_000, 10_000);
        Map<PieceKey, Stretch> here = new HashMap<>();
        here.put(keys.get(0), new Stretch(9, 5_000, 10_000));
        here.put(keys.get(1), new Stretch(9, 15_000, 10_000));
        here.put(keys.get(3), new Stretch(9, 40_000, 10_000));
        Laid laid = Laid.of(bytes, cuts, keys, here);
        assertThat(laid.stretches())
                .containsExactly(
                        new Stretch(9, 5_000, 20_000),
                        new Stretch(-1, 0, 10_000),
                        new Stretch(9, 40_000, 10_000),
                        new Stretch(-1, 10_000, 10_000));
        assertThat(laid.old()).containsExactly(9L);
        assertThat(laid.packs()).hasSize(1);
        assertThat(read(laid, Map.of(9L, old))).isEqualTo(bytes);
    }

    @Test
    void anyCuttingOfAnyBytesIsReadBackWhole() {
        Random random = new Random(6);
        for (int round = 0; round < 200; round++) {
            byte[] bytes = random.nextBoolean()
                    ? random(1 + random.nextInt(60_000), round)
                    : new byte[1 + random.nextInt(60_000)];
            List<int[]> cuts = new ArrayList<>();
            for (int at = 0; at < bytes.length; ) {
                int length = Math.min(bytes.length - at, 1 + random.nextInt(9_000));
                cuts.add(new int[] {at, length});
                at += length;
            }
            Laid laid = Laid.of(bytes, cuts, keys(bytes, cuts), Map.of());
            assertThat(read(laid, Map.of())).isEqualTo(bytes);
            laid.packs()
                    .forEach(p -> p.places().forEach((key, place) -> {
                        byte[] plain = p.pack().plain();
                        assertThat(HASH.key(plain, place.at(), place.length())).isEqualTo(key);
                    }));
        }
    }

    @Test
    void aPackThatWasAlteredOrCutIsBroken() {
        Pack pack = Pack.of(new byte[5_000]);
        assertThat(pack.codec()).isEqualTo(Pack.ZSTD);
        assertThat(pack.plain()).isEqualTo(new byte[5_000]);
        byte[] altered = pack.bytes().clone();
        altered[altered.length / 2] ^= 1;
        for (Pack broken : List.of(
                new Pack(5_000, Pack.ZSTD, pack.sum(), altered),
                new Pack(5_000, Pack.ZSTD, pack.sum(), Arrays.copyOf(pack.bytes(), 3)),
                new Pack(4_999, Pack.ZSTD, pack.sum(), pack.bytes()),
                new Pack(5_000, Pack.PLAIN, pack.sum(), new byte[4_999]))) {
            assertThatThrownBy(() -> broken.plain()).isInstanceOf(BrokenContent.class);
        }
    }

    @Test
    void whatDoesNotShrinkIsKeptPlainAndATasteDecidesForLongOnes() {
        assertThat(Pack.of(random(5_000, 8)).codec()).isEqualTo(Pack.PLAIN);
        byte[] noiseInFront = new byte[200_000];
        System.arraycopy(random(10_000, 9), 0, noiseInFront, 0, 10_000);
        assertThat(Pack.of(noiseInFront).codec()).isEqualTo(Pack.PLAIN);
        assertThat(Pack.of(new byte[200_000]).bytes().length).isLessThan(1_000);
    }

    @Test
    void keysOfOneHouseTellNothingOfAnother() {
        byte[] bytes = random(9_000, 11);
        assertThat(HASH.key(bytes, 0, 9_000)).isEqualTo(new PieceHash(7).key(bytes, 0, 9_000));
        assertThat(HASH.key(bytes, 0, 9_000)).isNotEqualTo(new PieceHash(8).key(bytes, 0, 9_000));
    }

    @Test
    void keysAreOrderedAsTheirBytes() {
        Random random = new Random(10);
        for (int i = 0; i < 1_000; i++) {
            PieceKey one = new PieceKey(random.nextLong(), random.nextLong());
            PieceKey other = new PieceKey(i % 3 == 0 ? one.high() : random.nextLong(), random.nextLong());
            assertThat(Integer.signum(one.compareTo(other)))
                    .isEqualTo(Integer.signum(Arrays.compareUnsigned(one.bytes(), other.bytes())));
            assertThat(PieceKey.of(one.bytes())).isEqualTo(one);
        }
    }
}
