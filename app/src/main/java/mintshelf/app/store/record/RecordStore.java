package mintshelf.app.store.record;

import static mintshelf.database.schema.Tables.ITEM;
import static mintshelf.database.schema.Tables.PERSON;
import static mintshelf.database.schema.Tables.RECORD_ANCHOR;
import static mintshelf.database.schema.Tables.RECORD_ANCHOR_HEAD;
import static mintshelf.database.schema.Tables.RECORD_ENTRY;
import static mintshelf.database.schema.Tables.RECORD_HEAD;

import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.OptionalLong;
import java.util.TreeMap;
import mintshelf.app.store.AtCommit;
import mintshelf.app.store.Prepared;
import mintshelf.app.store.Rows;
import mintshelf.app.store.Times;
import mintshelf.core.audit.RecordChain;
import mintshelf.core.audit.RecordEntry;
import mintshelf.core.base.ContentHash;
import mintshelf.core.base.Texts;
import org.jooq.Condition;
import org.jooq.DSLContext;
import org.jooq.Record;
import org.springframework.stereotype.Repository;

/** The record: appended to, read, verified; never changed. */
@Repository
public class RecordStore {
    /** The stream of what concerns no single document. */
    public static final long HOUSE = 0;

    private static final Rows ENTRIES = Rows.added(
            RECORD_ENTRY,
            RECORD_ENTRY.STREAM,
            RECORD_ENTRY.SEQ,
            RECORD_ENTRY.AT,
            RECORD_ENTRY.PERSON,
            RECORD_ENTRY.ADDRESS,
            RECORD_ENTRY.ACT,
            RECORD_ENTRY.ITEM,
            RECORD_ENTRY.VERSION,
            RECORD_ENTRY.SAYS,
            RECORD_ENTRY.WHY,
            RECORD_ENTRY.PREV_HASH,
            RECORD_ENTRY.HASH);
    private static final Rows HEADS = Rows.kept(
            RECORD_HEAD,
            List.of(RECORD_HEAD.SEQ, RECORD_HEAD.HASH),
            RECORD_HEAD.STREAM,
            RECORD_HEAD.SEQ,
            RECORD_HEAD.HASH);

    private final DSLContext db;
    private final Prepared locks =
            new Prepared((db, streams) -> db.select(RECORD_HEAD.STREAM, RECORD_HEAD.SEQ, RECORD_HEAD.HASH)
                    .from(RECORD_HEAD)
                    .where(RECORD_HEAD.STREAM.in(streams))
                    .orderBy(RECORD_HEAD.STREAM)
                    .forUpdate());
    private final AtCommit<Pending> lines = new AtCommit<>(this::write);

    private record Pending(long stream, OptionalLong item, Instant at, RecordLine line) {}

    public RecordStore(DSLContext db) {
        this.db = db;
    }

    /** What an act writes; see {@link RecordEntry} for the fields. */
    public record RecordLine(
            OptionalLong person, String address, String act, OptionalInt version, String says, String why) {}

    /** A read entry, with the names that a page shows. */
    public record Shown(RecordEntry entry, String personName, String number, ContentHash previous, ContentHash hash) {}

    /** Appends to the stream of a document, at the end of the caller's transaction, under the stream's lock. */
    public void appendTo(long item, Instant at, RecordLine line) {
        append(item, OptionalLong.of(item), at, line);
    }

    /** Appends to the stream of the house. */
    public void appendToHouse(Instant at, RecordLine line) {
        append(HOUSE, OptionalLong.empty(), at, line);
    }

    private void append(long stream, OptionalLong item, Instant at, RecordLine line) {
        lines.add(new Pending(stream, item, at, line));
    }

    /** The entries of one act. Streams are locked in ascending order, so that acts which overlap never wait in a ring. */
    private void write(List<Pending> act) {
        Map<Long, End> ends =
                locked(act.stream().map(Pending::stream).sorted().distinct().toList());
        List<Object[]> rows = new ArrayList<>();
        for (Pending p : act) {
            End end = ends.get(p.stream());
            RecordEntry entry = new RecordEntry(
                    p.stream(),
                    end.seq() + 1,
                    Times.instant(Times.utc(p.at())),
                    p.line().person(),
                    Texts.shorten(p.line().address(), 60),
                    p.line().act(),
                    p.item(),
                    p.line().version(),
                    Texts.shorten(p.line().says(), 500),
                    Texts.shorten(p.line().why(), 1000));
            ContentHash hash = RecordChain.next(end.hash(), entry);
            rows.add(row(entry, end.hash(), hash));
            ends.put(p.stream(), new End(entry.seq(), hash));
        }
        ENTRIES.write(db, rows);
        List<Object[]> heads = new ArrayList<>();
        ends.forEach((stream, end) ->
                heads.add(new Object[] {stream, end.seq(), end.hash().bytes()}));
        HEADS.write(db, heads);
    }

    /** Where a stream ends. */
    private record End(int seq, ContentHash hash) {}

    private static Object[] row(RecordEntry entry, ContentHash previous, ContentHash hash) {
        return new Object[] {
            entry.stream(),
            entry.seq(),
            Times.utc(entry.at()),
            entry.person().isPresent() ? entry.person().getAsLong() : null,
            entry.address(),
            entry.act(),
            entry.item().isPresent() ? entry.item().getAsLong() : null,
            entry.version().isPresent() ? entry.version().getAsInt() : null,
            entry.says(),
            entry.why(),
            previous.bytes(),
            hash.bytes()
        };
    }

    /** The ends of streams, locked; streams that are new begin. */
    private Map<Long, End> locked(List<Long> streams) {
        Map<Long, End> ends = lock(streams);
        if (ends.size() == streams.size()) return ends;
        // Not "insert ignore": that one deadlocks under threads. Who began the stream meanwhile is waited for, and
        // read.
        for (long stream : streams) {
            if (ends.containsKey(stream)) continue;
            db.execute(
                    "insert into record_head (stream, seq, hash) values (?, 0, ?) on duplicate key update stream = stream",
                    stream,
                    RecordChain.START.bytes());
        }
        return lock(streams);
    }

    private Map<Long, End> lock(List<Long> streams) {
        Map<Long, End> ends = new TreeMap<>();
        for (Record row : this.locks.fetch(db, streams)) {
            ends.put(
                    row.get(RECORD_HEAD.STREAM),
                    new End(row.get(RECORD_HEAD.SEQ), ContentHash.of(row.get(RECORD_HEAD.HASH))));
        }
        return ends;
    }

    /** Entries of a document, newest first, before {@code before}; one statement. */
    public List<Shown> ofItem(long item, int before, int most) {
        return shown(RECORD_ENTRY.STREAM.eq(item).and(RECORD_ENTRY.SEQ.lt(before)), most);
    }

    /** The last entry of an act in a document's stream before a moment. */
    public Optional<Shown> lastOf(long item, String act, Instant before) {
        return shown(
                        RECORD_ENTRY
                                .STREAM
                                .eq(item)
                                .and(RECORD_ENTRY.ACT.eq(act))
                                .and(RECORD_ENTRY.AT.le(Times.utc(before))),
                        1)
                .stream()
                .findFirst();
    }

    private List<Shown> shown(Condition where, int most) {
        return db.select(RECORD_ENTRY.fields())
                .select(PERSON.NAME, ITEM.NUMBER)
                .from(RECORD_ENTRY)
                .leftJoin(PERSON)
                .on(PERSON.ID.eq(RECORD_ENTRY.PERSON))
                .leftJoin(ITEM)
                .on(ITEM.ID.eq(RECORD_ENTRY.ITEM))
                .where(where)
                .orderBy(RECORD_ENTRY.SEQ.desc())
                .limit(most)
                .fetch(RecordStore::shown);
    }

    /** An entry with the names of who did it and of the document. */
    static Shown shown(Record row) {
        return new Shown(
                entry(row),
                Optional.ofNullable(row.get(PERSON.NAME)).orElse("Mint Shelf"),
                Optional.ofNullable(row.get(ITEM.NUMBER)).orElse(""),
                ContentHash.of(row.get(RECORD_ENTRY.PREV_HASH)),
                ContentHash.of(row.get(RECORD_ENTRY.HASH)));
    }

    private static RecordEntry entry(Record row) {
        Long person = row.get(RECORD_ENTRY.PERSON);
        Long item = row.get(RECORD_ENTRY.ITEM);
        Integer version = row.get(RECORD_ENTRY.VERSION);
        return new RecordEntry(
                row.get(RECORD_ENTRY.STREAM),
                row.get(RECORD_ENTRY.SEQ),
                Times.instant(row.get(RECORD_ENTRY.AT)),
                person == null ? OptionalLong.empty() : OptionalLong.of(person),
                row.get(RECORD_ENTRY.ADDRESS),
                row.get(RECORD_ENTRY.ACT),
                item == null ? OptionalLong.empty() : OptionalLong.of(item),
                version == null ? OptionalInt.empty() : OptionalInt.of(version),
                row.get(RECORD_ENTRY.SAYS),
                row.get(RECORD_ENTRY.WHY));
    }

    /** Whether anybody but {@code person} fetched one of these versions of a document. */
    public boolean wasFetchedByOthers(long item, List<Integer> versions, long person) {
        return db.fetchExists(
                RECORD_ENTRY,
                RECORD_ENTRY.STREAM.eq(item),
                RECORD_ENTRY.ACT.eq("version.fetched"),
                RECORD_ENTRY.VERSION.in(versions),
                RECORD_ENTRY.PERSON.ne(person));
    }

    /** Streams after {@code after}, in order. */
    public List<Long> streamsAfter(long after, int most) {
        return db.select(RECORD_HEAD.STREAM)
                .from(RECORD_HEAD)
                .where(RECORD_HEAD.STREAM.gt(after))
                .orderBy(RECORD_HEAD.STREAM)
                .limit(most)
                .fetch(RECORD_HEAD.STREAM);
    }

    /** Recomputes a stream's chain. Nothing when it is whole, else where it breaks. O(entries). */
    public Optional<String> verify(long stream) {
        ContentHash previous = RecordChain.START;
        int seq = 0;
        while (true) {
            var rows = db.selectFrom(RECORD_ENTRY)
                    .where(RECORD_ENTRY.STREAM.eq(stream), RECORD_ENTRY.SEQ.gt(seq))
                    .orderBy(RECORD_ENTRY.SEQ)
                    .limit(1000)
                    .fetch();
            if (rows.isEmpty()) break;
            for (Record row : rows) {
                RecordEntry entry = entry(row);
                if (entry.seq() != seq + 1)
                    return Optional.of("entry " + (seq + 1) + " of stream " + stream + " is missing");
                previous = RecordChain.next(previous, entry);
                if (!previous.equals(ContentHash.of(row.get(RECORD_ENTRY.HASH)))) {
                    return Optional.of("entry " + entry.seq() + " of stream " + stream + " was changed");
                }
                seq = entry.seq();
            }
        }
        Record head =
                db.selectFrom(RECORD_HEAD).where(RECORD_HEAD.STREAM.eq(stream)).fetchOne();
        if (head == null
                || head.get(RECORD_HEAD.SEQ) != seq
                || !ContentHash.of(head.get(RECORD_HEAD.HASH)).equals(previous)) {
            return Optional.of("the end of stream " + stream + " was cut off");
        }
        Record anchored = db.selectFrom(RECORD_ANCHOR_HEAD)
                .where(RECORD_ANCHOR_HEAD.STREAM.eq(stream))
                .orderBy(RECORD_ANCHOR_HEAD.ANCHOR.desc())
                .limit(1)
                .fetchOne();
        if (anchored != null) {
            byte[] now = db.select(RECORD_ENTRY.HASH)
                    .from(RECORD_ENTRY)
                    .where(RECORD_ENTRY.STREAM.eq(stream), RECORD_ENTRY.SEQ.eq(anchored.get(RECORD_ANCHOR_HEAD.SEQ)))
                    .fetchOptional(RECORD_ENTRY.HASH)
                    .orElse(new byte[32]);
            if (!ContentHash.of(now).equals(ContentHash.of(anchored.get(RECORD_ANCHOR_HEAD.HASH)))) {
                return Optional.of("stream " + stream + " is not the one that was anchored");
            }
        }
        return Optional.empty();
    }

    /**
     * Chains the ends of the streams that grew since they were last anchored. In a transaction of the caller's.
     *
     * @return how many ends the new anchor holds; 0 when none grew and no anchor was made
     */
    public int anchor(Instant at, int most) {
        var grown = db.selectFrom(RECORD_HEAD)
                .where(RECORD_HEAD.SEQ.gt(RECORD_HEAD.ANCHORED_SEQ))
                .orderBy(RECORD_HEAD.STREAM)
                .limit(most)
                .forUpdate()
                .skipLocked()
                .fetch();
        if (grown.isEmpty()) return 0;
        Record last = db.selectFrom(RECORD_ANCHOR)
                .orderBy(RECORD_ANCHOR.SEQ.desc())
                .limit(1)
                .forUpdate()
                .fetchOne();
        long seq = last == null ? 1 : last.get(RECORD_ANCHOR.SEQ) + 1;
        ContentHash previous = last == null ? RecordChain.START : ContentHash.of(last.get(RECORD_ANCHOR.HASH));
        var digest = ContentHash.digest();
        digest.update(previous.bytes());
        grown.forEach(head -> digest.update(head.get(RECORD_HEAD.HASH)));
        db.insertInto(RECORD_ANCHOR)
                .set(RECORD_ANCHOR.SEQ, seq)
                .set(RECORD_ANCHOR.AT, Times.utc(at))
                .set(RECORD_ANCHOR.PREV_HASH, previous.bytes())
                .set(RECORD_ANCHOR.HASH, digest.digest())
                .execute();
        for (Record head : grown) {
            db.insertInto(RECORD_ANCHOR_HEAD)
                    .set(RECORD_ANCHOR_HEAD.ANCHOR, seq)
                    .set(RECORD_ANCHOR_HEAD.STREAM, head.get(RECORD_HEAD.STREAM))
                    .set(RECORD_ANCHOR_HEAD.SEQ, head.get(RECORD_HEAD.SEQ))
                    .set(RECORD_ANCHOR_HEAD.HASH, head.get(RECORD_HEAD.HASH))
                    .execute();
            db.update(RECORD_HEAD)
                    .set(RECORD_HEAD.ANCHORED_SEQ, head.get(RECORD_HEAD.SEQ))
                    .where(RECORD_HEAD.STREAM.eq(head.get(RECORD_HEAD.STREAM)))
                    .execute();
        }
        return grown.size();
    }

    /** Recomputes the chain of anchors. Nothing when it is whole, else where it breaks. */
    public Optional<String> verifyAnchors() {
        ContentHash previous = RecordChain.START;
        for (Record anchor :
                db.selectFrom(RECORD_ANCHOR).orderBy(RECORD_ANCHOR.SEQ).fetch()) {
            var digest = ContentHash.digest();
            digest.update(previous.bytes());
            db.select(RECORD_ANCHOR_HEAD.HASH)
                    .from(RECORD_ANCHOR_HEAD)
                    .where(RECORD_ANCHOR_HEAD.ANCHOR.eq(anchor.get(RECORD_ANCHOR.SEQ)))
                    .orderBy(RECORD_ANCHOR_HEAD.STREAM)
                    .forEach(row -> digest.update(row.value1()));
            previous = ContentHash.of(digest.digest());
            if (!previous.equals(ContentHash.of(anchor.get(RECORD_ANCHOR.HASH)))) {
                return Optional.of("anchor " + anchor.get(RECORD_ANCHOR.SEQ) + " was changed");
            }
        }
        return Optional.empty();
    }
}
