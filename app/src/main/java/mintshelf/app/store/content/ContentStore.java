package mintshelf.app.store.content;

import static mintshelf.database.schema.Tables.CHUNK;
import static mintshelf.database.schema.Tables.CONTENT;
import static mintshelf.database.schema.Tables.CONTENT_CHUNK;
import static mintshelf.database.schema.Tables.UPLOAD;

import java.io.IOException;
import java.io.OutputStream;
import java.math.BigDecimal;
import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Collections;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import mintshelf.app.store.Times;
import mintshelf.core.base.ContentHash;
import mintshelf.core.content.ContentKind;
import mintshelf.core.content.CutSize;
import org.jooq.DSLContext;
import org.jooq.Record;
import org.jooq.impl.DSL;
import org.springframework.dao.DataIntegrityViolationException;
import org.springframework.dao.DuplicateKeyException;
import org.springframework.stereotype.Repository;

/**
 * Contents by hash, cut into pieces that are stored once. Bytes arrive in a <em>receiving</em> content that nobody sees; sealing
 * makes it the content of its hash.
 */
@Repository
public class ContentStore {
    /** Plain bytes that are read in one statement at the most, about. */
    private static final int READ_AHEAD = 4 << 20;

    /** Bytes that are sent without asking whether they are there. */
    private static final long FEW = 64 << 10;

    /** Pieces in one statement. */
    private static final int AT_ONCE = 128;

    private final DSLContext db;

    public ContentStore(DSLContext db) {
        this.db = db;
    }

    /** Opens a receiving content and the upload that fills it. */
    public void open(String token, long person, String fileName, long size, Instant now, Instant leaseUntil) {
        long content = db.insertInto(CONTENT)
                .set(CONTENT.STATE, "RECEIVING")
                .set(CONTENT.CREATED_AT, Times.utc(now))
                .returningResult(CONTENT.ID)
                .fetchSingle()
                .value1();
        db.insertInto(UPLOAD)
                .set(UPLOAD.TOKEN, token)
                .set(UPLOAD.PERSON, person)
                .set(UPLOAD.CONTENT, content)
                .set(UPLOAD.FILE_NAME, fileName)
                .set(UPLOAD.SIZE, size)
                .set(UPLOAD.STATE, Upload.State.RECEIVING.name())
                .set(UPLOAD.CREATED_AT, Times.utc(now))
                .set(UPLOAD.LEASE_UNTIL, Times.utc(leaseUntil))
                .execute();
    }

    public Optional<Upload> upload(String token) {
        return db.selectFrom(UPLOAD)
                .where(UPLOAD.TOKEN.eq(token))
                .fetchOptional()
                .map(ContentStore::upload);
    }

    /**
     * The uploads with these tokens; one statement.
     *
     * @param lock whether others that would use them wait for the caller's transaction
     */
    public List<Upload> uploads(Collection<String> tokens, boolean lock) {
        if (tokens.isEmpty()) return List.of();
        var select = db.selectFrom(UPLOAD).where(UPLOAD.TOKEN.in(tokens)).orderBy(UPLOAD.ID);
        return (lock ? select.forUpdate() : select).fetch(ContentStore::upload);
    }

    public Optional<Upload> upload(long id) {
        return db.selectFrom(UPLOAD).where(UPLOAD.ID.eq(id)).fetchOptional().map(ContentStore::upload);
    }

    /** The uploads with these ids, by id; one statement. */
    public Map<Long, Upload> uploads(List<Long> ids) {
        return db.selectFrom(UPLOAD).where(UPLOAD.ID.in(ids)).fetchMap(UPLOAD.ID, ContentStore::upload);
    }

    private static Upload upload(Record row) {
        return new Upload(
                row.get(UPLOAD.ID),
                row.get(UPLOAD.TOKEN),
                row.get(UPLOAD.PERSON),
                Optional.ofNullable(row.get(UPLOAD.CONTENT)).orElse(0L),
                row.get(UPLOAD.FILE_NAME),
                row.get(UPLOAD.SIZE),
                row.get(UPLOAD.RECEIVED),
                Upload.State.valueOf(row.get(UPLOAD.STATE)),
                Optional.ofNullable(row.get(UPLOAD.SHA256)).map(ContentHash::of),
                Optional.of(row.get(UPLOAD.CONTENT_KIND))
                        .filter(k -> !k.isEmpty())
                        .map(ContentKind::valueOf));
    }

    /** How the content of an upload is cut, once its first bytes have decided it. */
    public Optional<CutSize> cut(long content) {
        return db.select(CONTENT.CUT)
                .from(CONTENT)
                .where(CONTENT.ID.eq(content))
                .fetchOptional(CONTENT.CUT)
                .filter(c -> !c.isEmpty())
                .map(CutSize::valueOf);
    }

    public void chooseCut(long content, CutSize cut) {
        db.update(CONTENT)
                .set(CONTENT.CUT, cut.name())
                .where(CONTENT.ID.eq(content))
                .execute();
    }

    /**
     * Adds pieces at {@code from}. In a transaction of the caller's.
     *
     * @param whole what the file is, when these are its last pieces and that is known; else {@link #complete} says it
     * @throws UploadMoved when the upload is not at {@code from} any more
     */
    public void append(Upload upload, long from, List<Piece> pieces, Optional<Whole> whole, Instant leaseUntil) {
        long at = db.select(UPLOAD.RECEIVED)
                .from(UPLOAD)
                .where(UPLOAD.ID.eq(upload.id()), UPLOAD.STATE.eq(Upload.State.RECEIVING.name()))
                .forUpdate()
                .fetchOptional(UPLOAD.RECEIVED)
                .orElse(-1L);
        if (at != from) throw new UploadMoved(at);
        Map<ContentHash, Long> ids = store(pieces);
        Integer last = from == 0
                ? null
                : db.select(DSL.max(CONTENT_CHUNK.SEQ))
                        .from(CONTENT_CHUNK)
                        .where(CONTENT_CHUNK.CONTENT.eq(upload.content()))
                        .fetchSingle()
                        .value1();
        link(upload.content(), last == null ? 0 : last + 1, from, pieces, ids);
        long sum = pieces.stream().mapToLong(Piece::length).sum();
        var update = db.update(UPLOAD).set(UPLOAD.RECEIVED, from + sum).set(UPLOAD.LEASE_UNTIL, Times.utc(leaseUntil));
        if (whole.isPresent()) {
            update = update.set(UPLOAD.STATE, Upload.State.COMPLETE.name())
                    .set(UPLOAD.SHA256, whole.get().hash().bytes())
                    .set(UPLOAD.CONTENT_KIND, whole.get().kind().name());
        }
        update.where(UPLOAD.ID.eq(upload.id())).execute();
    }

    /** What a file is, all of whose bytes are there. */
    public record Whole(ContentHash hash, ContentKind kind) {}

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
            collect(insert, ids);
        }
    }

    private static void collect(PreparedStatement statement, Map<ContentHash, Long> ids) throws SQLException {
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
                    collect(select, ids);
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

    /** Notes that all bytes are there, their hash and what they are. */
    public void complete(long upload, Whole whole) {
        db.update(UPLOAD)
                .set(UPLOAD.STATE, Upload.State.COMPLETE.name())
                .set(UPLOAD.SHA256, whole.hash().bytes())
                .set(UPLOAD.CONTENT_KIND, whole.kind().name())
                .where(UPLOAD.ID.eq(upload), UPLOAD.STATE.eq(Upload.State.RECEIVING.name()))
                .execute();
    }

    /**
     * Makes complete uploads the contents of their hashes, within the caller's transaction, and uses the uploads up. Where a
     * content is known already, the known one is taken and the received one goes.
     *
     * @param uploads locked
     * @return the contents by the uploads' tokens
     */
    public Map<String, StoredContent> seal(Collection<Upload> uploads) {
        Map<String, StoredContent> contents = new HashMap<>();
        if (uploads.isEmpty()) return contents;
        Map<ContentHash, StoredContent> known = new HashMap<>();
        db.selectFrom(CONTENT)
                .where(
                        CONTENT.SHA256.in(uploads.stream()
                                .map(u -> u.hash().orElseThrow().bytes())
                                .toList()),
                        CONTENT.SEALED_MARK.eq((short) 1))
                .forShare() // who lets unheld contents go waits for whoever is about to hold one
                .forEach(row -> known.put(ContentHash.of(row.getSha256()), content(row)));
        List<Long> own = new ArrayList<>();
        for (Upload upload : uploads) {
            StoredContent content = known.computeIfAbsent(upload.hash().orElseThrow(), hash -> sealed(upload, hash));
            contents.put(upload.token(), content);
            if (content.id() == upload.content()) {
                own.add(upload.id());
                continue;
            }
            db.update(UPLOAD)
                    .set(UPLOAD.STATE, Upload.State.USED.name())
                    .set(UPLOAD.CONTENT, content.id())
                    .where(UPLOAD.ID.eq(upload.id()))
                    .execute();
            removeReceived(upload.content());
        }
        if (!own.isEmpty()) {
            db.update(UPLOAD)
                    .set(UPLOAD.STATE, Upload.State.USED.name())
                    .where(UPLOAD.ID.in(own))
                    .execute();
        }
        return contents;
    }

    private StoredContent sealed(Upload upload, ContentHash hash) {
        ContentKind kind = upload.kind().orElse(ContentKind.OTHER);
        try {
            seal(upload.content(), hash, upload.size(), kind);
            return new StoredContent(upload.content(), hash, upload.size(), kind);
        } catch (DuplicateKeyException e) {
            return sealed(hash).orElseThrow(); // somebody sealed the same bytes at this moment
        }
    }

    private void seal(long content, ContentHash hash, long size, ContentKind kind) {
        db.update(CONTENT)
                .set(CONTENT.SHA256, hash.bytes())
                .set(CONTENT.SIZE, size)
                .set(CONTENT.STATE, "SEALED")
                .set(CONTENT.SEALED_MARK, (short) 1)
                .set(CONTENT.CONTENT_KIND, kind.name())
                .where(CONTENT.ID.eq(content))
                .execute();
    }

    /**
     * Keeps bytes that the shelf made itself, within the caller's transaction; what is known already is taken.
     *
     * @param pieces of the bytes, in order
     */
    public StoredContent keep(
            ContentHash hash, long size, ContentKind kind, CutSize cut, List<Piece> pieces, Instant now) {
        Optional<StoredContent> known = sealed(hash);
        if (known.isPresent()) return known.get();
        long content = db.insertInto(CONTENT)
                .set(CONTENT.STATE, "RECEIVING")
                .set(CONTENT.CUT, cut.name())
                .set(CONTENT.CREATED_AT, Times.utc(now))
                .returningResult(CONTENT.ID)
                .fetchSingle()
                .value1();
        link(content, 0, 0, pieces, store(pieces));
        try {
            seal(content, hash, size, kind);
        } catch (DuplicateKeyException e) {
            removeReceived(content); // somebody sealed the same bytes at this moment
        }
        return sealed(hash).orElseThrow();
    }

    /** The sealed content of a hash. */
    public Optional<StoredContent> sealed(ContentHash hash) {
        return db.selectFrom(CONTENT)
                .where(CONTENT.SHA256.eq(hash.bytes()), CONTENT.SEALED_MARK.eq((short) 1))
                .fetchOptional()
                .map(ContentStore::content);
    }

    public Optional<StoredContent> content(long id) {
        return db.selectFrom(CONTENT)
                .where(CONTENT.ID.eq(id), CONTENT.STATE.eq("SEALED"))
                .fetchOptional()
                .map(ContentStore::content);
    }

    private static StoredContent content(Record row) {
        return new StoredContent(
                row.get(CONTENT.ID),
                ContentHash.of(row.get(CONTENT.SHA256)),
                row.get(CONTENT.SIZE),
                ContentKind.valueOf(row.get(CONTENT.CONTENT_KIND)));
    }

    /**
     * Sends the bytes from {@code from} (inclusive) to {@code to} (exclusive), each piece verified before it is sent; never more
     * than a few megabytes in memory.
     *
     * @throws BrokenContent when a piece does not have its hash
     */
    public void send(long content, long from, long to, OutputStream out) throws IOException {
        if (from >= to) return;
        Record first = db.select(CONTENT_CHUNK.SEQ, CONTENT_CHUNK.START_AT)
                .from(CONTENT_CHUNK)
                .where(CONTENT_CHUNK.CONTENT.eq(content), CONTENT_CHUNK.START_AT.le(from))
                .orderBy(CONTENT_CHUNK.SEQ.desc())
                .limit(1)
                .fetchOptional()
                .orElseThrow(() -> new BrokenContent("Content " + content + " has no pieces"));
        int seq = first.get(CONTENT_CHUNK.SEQ);
        int step = cut(content).orElse(CutSize.LARGE) == CutSize.SMALL
                ? READ_AHEAD / CutSize.SMALL.average()
                : READ_AHEAD / CutSize.LARGE.average();
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

    /** Gives a running upload up: its bytes go, what it was stays known. */
    public void drop(Upload upload) {
        db.update(UPLOAD)
                .set(UPLOAD.STATE, Upload.State.DROPPED.name())
                .setNull(UPLOAD.CONTENT)
                .where(UPLOAD.ID.eq(upload.id()))
                .execute();
        removeReceived(upload.content());
    }

    private void removeReceived(long content) {
        db.deleteFrom(CONTENT_CHUNK).where(CONTENT_CHUNK.CONTENT.eq(content)).execute();
        db.deleteFrom(CONTENT)
                .where(CONTENT.ID.eq(content), CONTENT.STATE.eq("RECEIVING"))
                .execute();
    }

    /**
     * Removes a content that nothing holds any more, its pieces when no other content has them. Whoever begins to hold it at this
     * moment waits for the row, or this waits for them.
     */
    public void freeUnlessHeld(long content) {
        var locked = db.select(CONTENT.ID)
                .from(CONTENT)
                .where(CONTENT.ID.eq(content), CONTENT.STATE.eq("SEALED"))
                .forUpdate()
                .fetch();
        if (locked.isEmpty()) return;
        boolean held = db.fetchSingle(
                        "select exists(select 1 from version_file where content = ?) or exists(select 1 from stray where content = ?)"
                                + " or exists(select 1 from output where content = ?)"
                                + " or exists(select 1 from model_picture where picture = ?)"
                                + " or exists(select 1 from upload where content = ? and state in ('RECEIVING','COMPLETE'))",
                        content,
                        content,
                        content,
                        content,
                        content)
                .get(0, Boolean.class);
        if (held) return;
        db.update(UPLOAD)
                .setNull(UPLOAD.CONTENT)
                .where(UPLOAD.CONTENT.eq(content))
                .execute();
        db.deleteFrom(CONTENT_CHUNK).where(CONTENT_CHUNK.CONTENT.eq(content)).execute();
        db.deleteFrom(CONTENT).where(CONTENT.ID.eq(content)).execute();
    }

    /** What a person has sent, or is sending, that nothing uses yet. */
    public record UnderWay(int files, long bytes) {}

    public UnderWay underWay(long person) {
        return db.select(DSL.count(), DSL.coalesce(DSL.sum(UPLOAD.SIZE), BigDecimal.ZERO))
                .from(UPLOAD)
                .where(
                        UPLOAD.PERSON.eq(person),
                        UPLOAD.STATE.in(Upload.State.RECEIVING.name(), Upload.State.COMPLETE.name()))
                .fetchSingle(row -> new UnderWay(row.value1(), row.value2().longValue()));
    }

    /** Uploads whose lease ended and that nothing used; locked for the caller, those of other nodes passed over. */
    public List<Upload> expired(Instant now, int most) {
        return db.selectFrom(UPLOAD)
                .where(
                        UPLOAD.STATE.in(Upload.State.RECEIVING.name(), Upload.State.COMPLETE.name()),
                        UPLOAD.LEASE_UNTIL.lt(Times.utc(now)))
                .limit(most)
                .forUpdate()
                .skipLocked()
                .fetch(ContentStore::upload);
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

    /** Ids of sealed contents after {@code after}, in order, for {@code verify}. */
    public List<StoredContent> sealedAfter(long after, int most) {
        return db.selectFrom(CONTENT)
                .where(CONTENT.ID.gt(after), CONTENT.STATE.eq("SEALED"))
                .orderBy(CONTENT.ID)
                .limit(most)
                .fetch(ContentStore::content);
    }
}
