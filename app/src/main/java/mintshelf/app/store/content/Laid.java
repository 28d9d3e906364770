package mintshelf.app.store.content;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;

/**
 * How a stretch of bytes is to be stored: of which stretches of packs it consists, and which packs are new.
 *
 * @param stretches in the order of the bytes
 * @param packs the new ones, in order
 */
public record Laid(List<Stretch> stretches, List<NewPack> packs) {
    /**
     * A run of bytes of one pack.
     *
     * @param pack the id of a pack that is here, or −1 − index of a new one
     */
    record Stretch(long pack, int at, int length) {
        boolean isNew() {
            return pack < 0;
        }

        int index() {
            return (int) (-1 - pack);
        }

        boolean goesOnWith(Stretch next) {
            return next.pack == pack && next.at == at + length;
        }
    }

    /** @param places where its pieces lie, those that are worth being found again */
    record NewPack(Pack pack, Map<PieceKey, Stretch> places) {}

    public Laid {
        stretches = List.copyOf(stretches);
        packs = List.copyOf(packs);
    }

    /** Plain bytes. */
    long length() {
        return stretches.stream().mapToLong(Stretch::length).sum();
    }

    /** The packs that must still be here when this is stored. */
    Set<Long> old() {
        Set<Long> old = new LinkedHashSet<>();
        stretches.stream().filter(s -> !s.isNew()).forEach(s -> old.add(s.pack()));
        return old;
    }

    /** Bytes that are kept as they came, as one pack and without being looked for: of few bytes nothing is saved by it. */
    static Laid whole(byte[] bytes) {
        return new Laid(List.of(new Stretch(-1, 0, bytes.length)), List.of(new NewPack(Pack.of(bytes), Map.of())));
    }

    /**
     * Lays pieces: those that are here stay where they are, the others fill packs in their order, each once. O(bytes); packs are
     * made on all processors.
     *
     * @param keys of the pieces
     * @param here where pieces lie, the first of each key compared byte for byte
     */
    static Laid of(byte[] buffer, List<int[]> cuts, List<PieceKey> keys, Map<PieceKey, Stretch> here) {
        Map<PieceKey, Stretch> places = new HashMap<>(here);
        Map<PieceKey, int[]> met = new HashMap<>();
        List<Map<PieceKey, Stretch>> packs = new ArrayList<>();
        List<List<int[]>> filled = new ArrayList<>();
        List<Stretch> stretches = new ArrayList<>();
        int at = Pack.MOST;
        for (int i = 0; i < cuts.size(); i++) {
            int[] cut = cuts.get(i);
            PieceKey key = keys.get(i);
            int[] first = met.putIfAbsent(key, cut);
            boolean other = first != null && !same(buffer, first, cut);
            Stretch place = other ? null : places.get(key);
            if (place == null) {
                if (at + cut[1] > Pack.MOST) {
                    packs.add(new LinkedHashMap<>());
                    filled.add(new ArrayList<>());
                    at = 0;
                }
                place = new Stretch(-packs.size(), at, cut[1]);
                at += cut[1];
                if (!other) {
                    places.put(key, place);
                    packs.get(packs.size() - 1).put(key, place);
                }
                filled.get(filled.size() - 1).add(cut);
            }
            Stretch last = stretches.isEmpty() ? null : stretches.get(stretches.size() - 1);
            if (last != null && last.goesOnWith(place)) {
                stretches.set(
                        stretches.size() - 1, new Stretch(last.pack(), last.at(), last.length() + place.length()));
            } else {
                stretches.add(place);
            }
        }
        List<Pack> made =
                filled.parallelStream().map(f -> Pack.of(joined(buffer, f))).toList();
        List<NewPack> all = new ArrayList<>();
        for (int i = 0; i < made.size(); i++) all.add(new NewPack(made.get(i), packs.get(i)));
        return new Laid(stretches, all);
    }

    private static boolean same(byte[] buffer, int[] one, int[] other) {
        return Arrays.equals(buffer, one[0], one[0] + one[1], buffer, other[0], other[0] + other[1]);
    }

    private static byte[] joined(byte[] buffer, List<int[]> cuts) {
        byte[] joined = new byte[cuts.stream().mapToInt(c -> c[1]).sum()];
        int at = 0;
        for (int[] cut : cuts) {
            System.arraycopy(buffer, cut[0], joined, at, cut[1]);
            at += cut[1];
        }
        return joined;
    }
}
