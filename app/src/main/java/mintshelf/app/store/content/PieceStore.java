package mintshelf.app.store.content;

import static mintshelf.database.schema.Tables.CONTENT_STRETCH;
import static mintshelf.database.schema.Tables.PACK;
import static mintshelf.database.schema.Tables.PIECE_SEED;

import java.io.IOException;
import java.io.OutputStream;
import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collection;
import java.util.Collections;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import mintshelf.app.store.content.Laid.NewPack;
import mintshelf.app.store.content.Laid.Stretch;
import org.jooq.DSLContext;
import org.jooq.impl.DSL;
import org.springframework.dao.DataIntegrityViolationException;
import org.springframework.stereotype.Repository;

/**
 * The bytes of contents. They are cut into pieces at places that the bytes themselves give; pieces that are new go, about a
 * megabyte together, into a pack; a content is a list of stretches of packs. A piece is found again by its key.
 *
 * <p>A content that changes often would in the end lie in as many packs as it has pieces, and be read as slowly. So one step looks
 * into {@link #OLD} old packs at the most, those that save most, and stores the rest anew ("capping": Lillibridge, Eshghi, Bhagwat,
 * "Improving Restore Speed for Backup Systems that Use Inline Chunk-Based Deduplication", FAST 2013). What it does not do: a pack
 * stays whole while one content has a stretch of it.
 */
@Repository
public class PieceStore {
    /** Contents up to this many bytes are one piece in a pack of their own, and not looked for. */
    public static final int FEW = 64 << 10;
    /** Old packs that one step of bytes may point into. */
    private static final int OLD = 16;
    /** Packs in memory of one reader. */
    private static final int UNPACKED = 4;
    /** Keys in one statement. */
    private static final int AT_ONCE = 512;

    private static final int STRETCHES = 256;

    private final DSLContext db;
    private volatile PieceHash hash;

    public PieceStore(DSLContext db) {
        this.db = db;
    }

    /** Keyed by the house's seed, which never changes: its migration made it. */
    private PieceHash hash() {
        if (hash == null)
            hash = new PieceHash(db.select(PIECE_SEED.SEED).from(PIECE_SEED).fetchSingle(PIECE_SEED.SEED));
        return hash;
    }

    /**
     * How these pieces are to be stored: those that are here are found, the others packed. Writes nothing.
     *
     * @param cuts from where, how long; without gaps from 0 on
     * @param whole whether they are all of their content
     */
    public Laid lay(byte[] buffer, List<int[]> cuts, boolean whole) {
        int length = cuts.stream().mapToInt(c -> c[1]).sum();
        if (whole && length <= FEW) return Laid.whole(Arrays.copyOf(buffer, length));
        PieceHash hash = hash();
        List<PieceKey> keys =
                cuts.parallelStream().map(c -> hash.key(buffer, c[0], c[1])).toList();
        Map<PieceKey, int[]> pieces = new LinkedHashMap<>();
        for (int i = 0; i < cuts.size(); i++) pieces.putIfAbsent(keys.get(i), cuts.get(i));
        return Laid.of(buffer, cuts, keys, here(buffer, pieces));
    }

    /** Which of the pieces are here, byte for byte, in the packs that have most of them. */
    private Map<PieceKey, Stretch> here(byte[] buffer, Map<PieceKey, int[]> pieces) {
        Map<PieceKey, Stretch> found = places(pieces.keySet());
        Map<Long, Long> saved = new HashMap<>();
        found.values().forEach(s -> saved.merge(s.pack(), (long) s.length(), Long::sum));
        List<Long> chosen = saved.entrySet().stream()
                .sorted(Map.Entry.<Long, Long>comparingByValue(Comparator.reverseOrder())
                        .thenComparing(Map.Entry.comparingByKey()))
                .limit(OLD)
                .map(Map.Entry::getKey)
                .toList();
        Map<PieceKey, Stretch> same = new HashMap<>();
        for (int at = 0; at < chosen.size(); at += UNPACKED) {
            Map<Long, Pack> packs = packs(chosen.subList(at, Math.min(chosen.size(), at + UNPACKED)));
            Map<Long, byte[]> plain = new HashMap<>();
            packs.forEach((id, pack) -> {
                try {
                    plain.put(id, pack.plain());
                } catch (BrokenContent e) {
                    // Nothing more is laid on it; `verify` names what lies on it already.
                }
            });
            found.forEach((key, place) -> {
                byte[] old = plain.get(place.pack());
                int[] cut = pieces.get(key);
                if (old != null
                        && place.length() == cut[1]
                        && place.at() + place.length() <= old.length
                        && Arrays.equals(old, place.at(), place.at() + cut[1], buffer, cut[0], cut[0] + cut[1])) {
                    same.put(key, place);
                }
            });
        }
        return same;
    }

    /** Asked in statements of few different lengths, which the driver keeps prepared. */
    private Map<PieceKey, Stretch> places(Collection<PieceKey> keys) {
        Map<PieceKey, Stretch> places = new HashMap<>();
        List<PieceKey> all = keys.stream().sorted().toList();
        db.connection(connection -> {
            for (int at = 0; at < all.size(); at += AT_ONCE) {
                List<PieceKey> some = all.subList(at, Math.min(all.size(), at + AT_ONCE));
                int length = Integer.highestOneBit(Math.max(1, some.size() * 2 - 1));
                try (PreparedStatement select = connection.prepareStatement(
                        "select piece_key, pack, start_at, length from piece where piece_key in ("
                                + String.join(",", Collections.nCopies(length, "?")) + ")")) {
                    for (int i = 0; i < length; i++) {
                        select.setBytes(
                                i + 1, some.get(Math.min(i, some.size() - 1)).bytes());
                    }
                    try (ResultSet rows = select.executeQuery()) {
                        while (rows.next()) {
                            places.put(
                                    PieceKey.of(rows.getBytes(1)),
                                    new Stretch(rows.getLong(2), rows.getInt(3), rows.getInt(4)));
                        }
                    }
                }
            }
        });
        return places;
    }

    private Map<Long, Pack> packs(Collection<Long> ids) {
        return db.select(PACK.ID, PACK.LENGTH, PACK.CODEC, PACK.SUM, PACK.BYTES)
                .from(PACK)
                .where(PACK.ID.in(ids))
                .fetchMap(PACK.ID, row -> new Pack(row.value2(), row.value3(), row.value4(), row.value5()));
    }

    /**
     * Adds what was laid to a content at {@code from}, its end. In the caller's transaction.
     *
     * @throws PackGone when a pack that it lies in was let go meanwhile
     */
    void append(long content, long from, Laid laid) {
        Set<Long> old = laid.old();
        // Held until the caller's end, so that nobody lets them go between this look and their new stretches.
        if (!old.isEmpty()
                && db.select(PACK.ID)
                                .from(PACK)
                                .where(PACK.ID.in(old))
                                .forShare()
                                .fetch()
                                .size()
                        != old.size()) {
            throw new PackGone();
        }
        Integer last = from == 0
                ? null
                : db.select(DSL.max(CONTENT_STRETCH.SEQ))
                        .from(CONTENT_STRETCH)
                        .where(CONTENT_STRETCH.CONTENT.eq(content))
                        .fetchSingle()
                        .value1();
        db.connection(connection -> {
            List<Long> ids = insertPacks(connection, laid.packs());
            insertPlaces(connection, laid.packs(), ids);
            link(connection, content, last == null ? 0 : last + 1, from, laid.stretches(), ids);
        });
    }

    private static List<Long> insertPacks(Connection connection, List<NewPack> packs) throws SQLException {
        List<Long> ids = new ArrayList<>();
        if (packs.isEmpty()) return ids;
        try (PreparedStatement insert = connection.prepareStatement(
                "insert into pack (length, codec, sum, bytes) values (?, ?, ?, ?) returning id")) {
            for (NewPack each : packs) {
                insert.setInt(1, each.pack().length());
                insert.setString(2, each.pack().codec());
                insert.setInt(3, each.pack().sum());
                insert.setBytes(4, each.pack().bytes());
                try (ResultSet row = insert.executeQuery()) {
                    row.next();
                    ids.add(row.getLong(1));
                }
            }
        }
        return ids;
    }

    /** Keys that another sender stored meanwhile stay that one's: a place is only where to look. */
    private static void insertPlaces(Connection connection, List<NewPack> packs, List<Long> ids) throws SQLException {
        record Row(PieceKey key, long pack, int at, int length) {}
        List<Row> rows = new ArrayList<>();
        for (int i = 0; i < packs.size(); i++) {
            long pack = ids.get(i);
            packs.get(i).places().forEach((key, place) -> rows.add(new Row(key, pack, place.at(), place.length())));
        }
        rows.sort(Comparator.comparing(Row::key));
        for (int at = 0; at < rows.size(); at += AT_ONCE) {
            List<Row> some = rows.subList(at, Math.min(rows.size(), at + AT_ONCE));
            try (PreparedStatement insert =
                    connection.prepareStatement("insert ignore into piece (piece_key, pack, start_at, length) values "
                            + String.join(",", Collections.nCopies(some.size(), "(?,?,?,?)")))) {
                int next = 1;
                for (Row row : some) {
                    insert.setBytes(next++, row.key().bytes());
                    insert.setLong(next++, row.pack());
                    insert.setInt(next++, row.at());
                    insert.setInt(next++, row.length());
                }
                insert.executeUpdate();
            }
        }
    }

    private static void link(
            Connection connection, long content, int seq, long from, List<Stretch> stretches, List<Long> ids)
            throws SQLException {
        try (PreparedStatement insert = connection.prepareStatement(
                "insert into content_stretch (content, seq, pack, pack_at, start_at, length) values (?, ?, ?, ?, ?, ?)")) {
            long start = from;
            int next = seq;
            for (Stretch stretch : stretches) {
                insert.setLong(1, content);
                insert.setInt(2, next++);
                insert.setLong(3, stretch.isNew() ? ids.get(stretch.index()) : stretch.pack());
                insert.setInt(4, stretch.at());
                insert.setLong(5, start);
                insert.setInt(6, stretch.length());
                insert.addBatch();
                start += stretch.length();
            }
            insert.executeBatch();
        }
    }

    /** The bytes of a content as {@link ContentStore#send} gives them. */
    void send(long content, long from, long to, OutputStream out) throws IOException {
        int seq = db.select(CONTENT_STRETCH.SEQ)
                .from(CONTENT_STRETCH)
                .where(CONTENT_STRETCH.CONTENT.eq(content), CONTENT_STRETCH.START_AT.le(from))
                .orderBy(CONTENT_STRETCH.SEQ.desc())
                .limit(1)
                .fetchOptional(CONTENT_STRETCH.SEQ)
                .orElseThrow(() -> new BrokenContent("Content " + content + " has no pieces"));
        Unpacked unpacked = new Unpacked();
        long at = -1;
        while (at < to) {
            List<Part> parts = parts(content, seq);
            if (parts.isEmpty()) throw new BrokenContent("Content " + content + " ends at " + Math.max(0, at));
            for (int i = 0; i < parts.size() && at < to; i++) {
                Part part = parts.get(i);
                if (at < 0) at = part.start();
                if (part.start() != at) throw new BrokenContent("Content " + content + " has a gap at " + at);
                byte[] plain = unpacked.get(parts.subList(i, parts.size()));
                int skip = (int) Math.max(0, from - at);
                int end = (int) Math.min(part.stretch().length(), to - at);
                if (part.stretch().at() + end > plain.length) {
                    throw new BrokenContent("Content " + content + " has a gap at " + at);
                }
                if (end > skip) out.write(plain, part.stretch().at() + skip, end - skip);
                at += part.stretch().length();
            }
            seq += STRETCHES;
        }
    }

    private record Part(long start, Stretch stretch) {}

    private List<Part> parts(long content, int seq) {
        return db.select(
                        CONTENT_STRETCH.START_AT, CONTENT_STRETCH.PACK, CONTENT_STRETCH.PACK_AT, CONTENT_STRETCH.LENGTH)
                .from(CONTENT_STRETCH)
                .where(CONTENT_STRETCH.CONTENT.eq(content), CONTENT_STRETCH.SEQ.between(seq, seq + STRETCHES - 1))
                .orderBy(CONTENT_STRETCH.SEQ)
                .fetch(row -> new Part(row.value1(), new Stretch(row.value2(), row.value3(), row.value4())));
    }

    /** The packs that a reader looked into last. */
    private final class Unpacked {
        private final Map<Long, byte[]> plain = new LinkedHashMap<>(8, 0.75f, true);

        /** The pack of the first of these parts; with it come those that are needed next. */
        byte[] get(List<Part> parts) {
            long wanted = parts.get(0).stretch().pack();
            byte[] known = plain.get(wanted);
            if (known != null) return known;
            Set<Long> next = new LinkedHashSet<>();
            Set<Long> kept = new HashSet<>();
            for (Part part : parts) {
                long pack = part.stretch().pack();
                if (plain.containsKey(pack)) kept.add(pack);
                else next.add(pack);
                if (next.size() + kept.size() == UNPACKED) break;
            }
            plain.keySet().retainAll(kept);
            packs(next).forEach((id, pack) -> plain.put(id, pack.plain()));
            byte[] now = plain.get(wanted);
            if (now == null) throw new BrokenContent("Pack " + wanted + " is not there");
            return now;
        }
    }

    /** Lets a content have no bytes any more; its packs go when no other content has a stretch of them. */
    void remove(long content) {
        db.deleteFrom(CONTENT_STRETCH)
                .where(CONTENT_STRETCH.CONTENT.eq(content))
                .execute();
    }

    /** Removes packs that no content has a stretch of; the foreign key, not timing, keeps those that one begins to have. */
    public int collect(int most) {
        List<Long> loose = new ArrayList<>(db.select(PACK.ID)
                .from(PACK)
                .leftAntiJoin(CONTENT_STRETCH)
                .on(CONTENT_STRETCH.PACK.eq(PACK.ID))
                .limit(most)
                .fetch(PACK.ID));
        int removed = 0;
        for (long id : loose) {
            try {
                removed += db.deleteFrom(PACK).where(PACK.ID.eq(id)).execute();
            } catch (DataIntegrityViolationException e) {
                // Held again meanwhile.
            }
        }
        return removed;
    }
}
