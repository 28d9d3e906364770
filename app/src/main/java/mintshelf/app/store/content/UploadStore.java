package mintshelf.app.store.content;

import static mintshelf.database.schema.Tables.CONTENT;
import static mintshelf.database.schema.Tables.UPLOAD;

import java.math.BigDecimal;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import mintshelf.app.store.Times;
import mintshelf.core.base.ContentHash;
import mintshelf.core.content.ContentKind;
import org.jooq.DSLContext;
import org.jooq.Record;
import org.jooq.impl.DSL;
import org.springframework.stereotype.Repository;

/** Files on their way in: resumed by their tokens, until something uses them. */
@Repository
public class UploadStore {
    private final DSLContext db;
    private final ContentStore contents;
    private final PieceStore pieces;

    public UploadStore(DSLContext db, ContentStore contents, PieceStore pieces) {
        this.db = db;
        this.contents = contents;
        this.pieces = pieces;
    }

    /**
     * Opens a receiving content and the upload that fills it; gives its id.
     *
     * @param aside whether it is part of a taking-in, which waits longer and is not counted among what a person has under way
     */
    public long open(
            String token, long person, String fileName, long size, boolean aside, Instant now, Instant leaseUntil) {
        long content = contents.receiving("", now);
        return db.insertInto(UPLOAD)
                .set(UPLOAD.TOKEN, token)
                .set(UPLOAD.PERSON, person)
                .set(UPLOAD.CONTENT, content)
                .set(UPLOAD.FILE_NAME, fileName)
                .set(UPLOAD.SIZE, size)
                .set(UPLOAD.STATE, Upload.State.RECEIVING.name())
                .set(UPLOAD.ASIDE, aside)
                .set(UPLOAD.CREATED_AT, Times.utc(now))
                .set(UPLOAD.LEASE_UNTIL, Times.utc(leaseUntil))
                .returningResult(UPLOAD.ID)
                .fetchSingle()
                .value1();
    }

    public Optional<Upload> upload(String token) {
        return db.selectFrom(UPLOAD)
                .where(UPLOAD.TOKEN.eq(token))
                .fetchOptional()
                .map(UploadStore::upload);
    }

    /**
     * The uploads with these tokens; one statement.
     *
     * @param lock whether others that would use them wait for the caller's transaction
     */
    public List<Upload> uploads(Collection<String> tokens, boolean lock) {
        if (tokens.isEmpty()) return List.of();
        var select = db.selectFrom(UPLOAD).where(UPLOAD.TOKEN.in(tokens)).orderBy(UPLOAD.ID);
        return (lock ? select.forUpdate() : select).fetch(UploadStore::upload);
    }

    public Optional<Upload> upload(long id) {
        return db.selectFrom(UPLOAD).where(UPLOAD.ID.eq(id)).fetchOptional().map(UploadStore::upload);
    }

    /** The uploads with these ids, by id; one statement. */
    public Map<Long, Upload> uploads(List<Long> ids) {
        return db.selectFrom(UPLOAD).where(UPLOAD.ID.in(ids)).fetchMap(UPLOAD.ID, UploadStore::upload);
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

    /**
     * Adds what was laid at {@code from}. In a transaction of the caller's.
     *
     * @param whole what the file is, when these are its last pieces and that is known; else {@link #complete} says it
     * @throws UploadMoved when the upload is not at {@code from} any more, or what was laid must be laid anew
     */
    public void append(Upload upload, long from, Laid laid, Optional<Whole> whole, Instant leaseUntil) {
        long at = db.select(UPLOAD.RECEIVED)
                .from(UPLOAD)
                .where(UPLOAD.ID.eq(upload.id()), UPLOAD.STATE.eq(Upload.State.RECEIVING.name()))
                .forUpdate()
                .fetchOptional(UPLOAD.RECEIVED)
                .orElse(-1L);
        if (at != from) throw new UploadMoved(at);
        try {
            pieces.append(upload.content(), from, laid);
        } catch (PackGone e) {
            throw new UploadMoved(at); // the sender goes on from where it stands: it is laid anew
        }
        var update = db.update(UPLOAD)
                .set(UPLOAD.RECEIVED, from + laid.length())
                // What waits longer anyway goes on to.
                .set(UPLOAD.LEASE_UNTIL, DSL.greatest(UPLOAD.LEASE_UNTIL, DSL.val(Times.utc(leaseUntil))));
        if (whole.isPresent()) {
            update = update.set(UPLOAD.STATE, Upload.State.COMPLETE.name())
                    .set(UPLOAD.SHA256, whole.get().hash().bytes())
                    .set(UPLOAD.CONTENT_KIND, whole.get().kind().name());
        }
        update.where(UPLOAD.ID.eq(upload.id())).execute();
    }

    /** What a file is, all of whose bytes are there. */
    public record Whole(ContentHash hash, ContentKind kind) {}

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
        Map<ContentHash, StoredContent> known = this.contents.known(
                uploads.stream().map(u -> u.hash().orElseThrow()).toList());
        List<Long> own = new ArrayList<>();
        for (Upload upload : uploads) {
            StoredContent content = known.computeIfAbsent(
                    upload.hash().orElseThrow(),
                    hash -> this.contents.seal(
                            upload.content(), hash, upload.size(), upload.kind().orElse(ContentKind.OTHER)));
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
            this.contents.removeReceived(upload.content());
        }
        if (!own.isEmpty()) {
            db.update(UPLOAD)
                    .set(UPLOAD.STATE, Upload.State.USED.name())
                    .where(UPLOAD.ID.in(own))
                    .execute();
        }
        return contents;
    }

    /** Gives an upload up that nothing has used meanwhile: its bytes go, what it was stays known. */
    public void drop(Upload upload) {
        int waited = db.update(UPLOAD)
                .set(UPLOAD.STATE, Upload.State.DROPPED.name())
                .setNull(UPLOAD.CONTENT)
                .where(
                        UPLOAD.ID.eq(upload.id()),
                        UPLOAD.STATE.in(Upload.State.RECEIVING.name(), Upload.State.COMPLETE.name()))
                .execute();
        // Of one that became a version since it was looked at, the bytes are the version's.
        if (waited == 1) contents.removeReceived(upload.content());
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
                                + " or exists(select 1 from neutral_copy where content = ?)"
                                + " or exists(select 1 from model_picture where picture = ?)"
                                + " or exists(select 1 from upload where content = ? and state in ('RECEIVING','COMPLETE'))",
                        content,
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
        contents.remove(content);
    }

    /** Keeps uploads longer, of those that nothing used yet. */
    public void keepUntil(Collection<Long> ids, Instant leaseUntil) {
        if (ids.isEmpty()) return;
        db.update(UPLOAD)
                .set(UPLOAD.LEASE_UNTIL, Times.utc(leaseUntil))
                .where(UPLOAD.ID.in(ids), UPLOAD.STATE.in(Upload.State.RECEIVING.name(), Upload.State.COMPLETE.name()))
                .execute();
    }

    /** What a person has sent, or is sending, that nothing uses yet; what is part of a taking-in aside. */
    public record UnderWay(int files, long bytes) {}

    public UnderWay underWay(long person) {
        return db.select(DSL.count(), DSL.coalesce(DSL.sum(UPLOAD.SIZE), BigDecimal.ZERO))
                .from(UPLOAD)
                .where(
                        UPLOAD.PERSON.eq(person),
                        UPLOAD.ASIDE.isFalse(),
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
                .fetch(UploadStore::upload);
    }
}
