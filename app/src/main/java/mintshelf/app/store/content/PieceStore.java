package mintshelf.app.store.content;

import static mintshelf.database.schema.Tables.CHUNK;
import static mintshelf.database.schema.Tables.CONTENT_CHUNK;

import java.io.IOException;
import java.io.OutputStream;
import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.util.ArrayList;
import java.util.Collections;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import mintshelf.core.base.ContentHash;
import mintshelf.core.content.CutSize;
import org.jooq.DSLContext;
import org.jooq.Record;
import org.jooq.impl.DSL;
import org.springframework.dao.DataIntegrityViolationException;
import org.springframework.stereotype.Repository;

/** The pieces of contents, each stored once. */
@Repository
public class PieceStore {
    /** Plain bytes that are read in one statement at the most, about. */
    private static final int READ_AHEAD = 4 << 20;
    /** Bytes that are sent without asking whether they are there. */
    private static final long FEW = 64 << 10;
    /** Pieces in one statement. */
    private static final int AT_ONCE = 128;

    private final DSLContext db;

    public PieceStore(DSLContext db) {
        this.db = db;
    }

    /** Adds pieces to a content at {@code from}, its end; those that are known already are not stored again. */
    void append(long content, long from, List<Piece> pieces) {
        Map<ContentHash, Long> ids = store(pieces);
        Integer last = from == 0
                ? null
                : db.select(DSL.max(CONTENT_CHUNK.SEQ))
                        .from(CONTENT_CHUNK)
                        .where(CONTENT_CHUNK.CONTENT.eq(content))
                        .fetchSingle()
                        .value1();
        link(content, last == null ? 0 : last + 1, from, pieces, ids);
    }

    private Map<ContentHash, Long> store(List<Piece> pieces) {
        Map<ContentHash, Piece> byHash = new LinkedHashMap<>();
        pieces.forEach(p -> byHash.putIfAbsent(p.hash(), p));
        // To ask first saves bytes on the way. Of few bytes it saves nothing: those that are there are found while
        // inserting.
        boolean few = byHash.values().stream().mapToLong(p -> p.bytes().length).sum() <= FEW;
        Map<ContentHash, Long> ids = few
                ? new HashMap<>()
                : ids(byHash.keySet().stream().map(ContentHash::bytes).toList());
        List<Piece> missing = byHash.values().stream()
                .filter(p -> !ids.containsKey(p.hash()))
                .sorted((a, b) -> a.hash().compareTo(b.hash()))
                .toList();
        if (missing.isEmpty()) return ids;
        db.connection(connection -> {
            for (int at = 0; at < missing.size(); at += AT_ONCE) {
                insert(connection, missing.subList(at, Math.min(missing.size(), at + AT_ONCE)), ids);
            }
        });
        return ids;
    }

    /** One statement for many rows that gives their ids back, those included that another sender inserted meanwhile. */
    private static void insert(Connection connection, List<Piece> pieces, Map<ContentHash, Long> ids)
            throws SQLException {
        String sql = "insert into chunk (hash, length, codec, bytes) values "
                + String.join(",", Collections.nCopies(pieces.size(), "(?,?,?,?)"))
                + " on duplicate key update length = values(length) returning hash, id";
        try (PreparedStatement insert = connection.prepareStatement(sql)) {
            int at = 1;
            for (Piece piece : pieces) {
                insert.setBytes(at++, piece.hash().bytes());
                insert.setInt(at++, piece.length());
                insert.setString(at++, piece.codec());
                insert.setBytes(at++, piece.bytes());
            }
            gather(insert, ids);
        }
    }

    private static void gather(PreparedStatement statement, Map<ContentHash, Long> ids) throws SQLException {
        try (ResultSet rows = statement.executeQuery()) {
            while (rows.next()) ids.put(ContentHash.of(rows.getBytes(1)), rows.getLong(2));
        }
    }

    /** Asked in statements of few different lengths, which the driver keeps prepared. */
    private Map<ContentHash, Long> ids(List<byte[]> hashes) {
        Map<ContentHash, Long> ids = new HashMap<>();
        db.connection(connection -> {
            for (int at = 0; at < hashes.size(); at += AT_ONCE) {
                List<byte[]> some = hashes.subList(at, Math.min(hashes.size(), at + AT_ONCE));
                int length = Integer.highestOneBit(Math.max(1, some.size() * 2 - 1));
                String sql = "select hash, id from chunk where hash in ("
                        + String.join(",", Collections.nCopies(length, "?")) + ")";
                try (PreparedStatement select = connection.prepareStatement(sql)) {
                    for (int i = 0; i < length; i++) select.setBytes(i + 1, some.get(Math.min(i, some.size() - 1)));
                    gather(select, ids);
                }
            }
        });
        return ids;
    }

    private void link(long content, int seq, long from, List<Piece> pieces, Map<ContentHash, Long> ids) {
        db.connection(connection -> {
            try (PreparedStatement insert = connection.prepareStatement(
                    "insert into content_chunk (content, seq, chunk, start_at, length) values (?, ?, ?, ?, ?)")) {
                long start = from;
                int next = seq;
                for (Piece piece : pieces) {
                    insert.setLong(1, content);
                    insert.setInt(2, next++);
                    insert.setLong(3, ids.get(piece.hash()));
                    insert.setLong(4, start);
                    insert.setInt(5, piece.length());
                    insert.addBatch();
                    start += piece.length();
                }
                insert.executeBatch();
            }
        });
    }

    /** The bytes of a content as {@link ContentStore#send} gives them. */
    void send(long content, CutSize cut, long from, long to, OutputStream out) throws IOException {
        Record first = db.select(CONTENT_CHUNK.SEQ, CONTENT_CHUNK.START_AT)
                .from(CONTENT_CHUNK)
                .where(CONTENT_CHUNK.CONTENT.eq(content), CONTENT_CHUNK.START_AT.le(from))
                .orderBy(CONTENT_CHUNK.SEQ.desc())
                .limit(1)
                .fetchOptional()
                .orElseThrow(() -> new BrokenContent("Content " + content + " has no pieces"));
        int seq = first.get(CONTENT_CHUNK.SEQ);
        int step = cut == CutSize.SMALL ? READ_AHEAD / CutSize.SMALL.average() : READ_AHEAD / CutSize.LARGE.average();
        long at = first.get(CONTENT_CHUNK.START_AT);
        while (at < to) {
            var rows = db.select(CONTENT_CHUNK.START_AT, CHUNK.LENGTH, CHUNK.CODEC, CHUNK.BYTES, CHUNK.HASH)
                    .from(CONTENT_CHUNK)
                    .join(CHUNK)
                    .on(CHUNK.ID.eq(CONTENT_CHUNK.CHUNK))
                    .where(CONTENT_CHUNK.CONTENT.eq(content), CONTENT_CHUNK.SEQ.between(seq, seq + step - 1))
                    .orderBy(CONTENT_CHUNK.SEQ)
                    .fetch();
            if (rows.isEmpty()) throw new BrokenContent("Content " + content + " ends at " + at);
            for (var row : rows) {
                if (row.value1() != at) throw new BrokenContent("Content " + content + " has a gap at " + at);
                byte[] plain = Piece.unpack(row.value3(), row.value4(), row.value2(), row.value5());
                int skip = (int) Math.max(0, from - at);
                int end = (int) Math.min(plain.length, to - at);
                if (end > skip) out.write(plain, skip, end - skip);
                at += plain.length;
                if (at >= to) return;
            }
            seq += step;
        }
    }

    /** Lets a content have no pieces any more; they go when no other content has them. */
    void remove(long content) {
        db.deleteFrom(CONTENT_CHUNK).where(CONTENT_CHUNK.CONTENT.eq(content)).execute();
    }

    /** Removes pieces that no content holds; the foreign key, not timing, keeps those that one begins to hold. */
    public int collect(int most) {
        List<Long> loose = new ArrayList<>(db.select(CHUNK.ID)
                .from(CHUNK)
                .leftAntiJoin(CONTENT_CHUNK)
                .on(CONTENT_CHUNK.CHUNK.eq(CHUNK.ID))
                .limit(most)
                .fetch(CHUNK.ID));
        int removed = 0;
        for (long id : loose) {
            try {
                removed += db.deleteFrom(CHUNK).where(CHUNK.ID.eq(id)).execute();
            } catch (DataIntegrityViolationException e) {
                // Held again meanwhile.
            }
        }
        return removed;
    }
}
