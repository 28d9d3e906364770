package mintshelf.app.store.content;

import static mintshelf.database.schema.Tables.CONTENT;

import java.io.IOException;
import java.io.OutputStream;
import java.time.Instant;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Supplier;
import mintshelf.app.store.Times;
import mintshelf.core.base.ContentHash;
import mintshelf.core.content.ContentKind;
import mintshelf.core.content.CutSize;
import org.jooq.DSLContext;
import org.jooq.Record;
import org.springframework.dao.DuplicateKeyException;
import org.springframework.stereotype.Repository;

/** Contents by hash, cut into pieces that are stored once. Bytes arrive in a <em>receiving</em> content that nobody sees; sealing makes it the content of its hash. */
@Repository
public class ContentStore {
    private final DSLContext db;
    private final PieceStore pieces;

    public ContentStore(DSLContext db, PieceStore pieces) {
        this.db = db;
        this.pieces = pieces;
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

    /** The contents of these hashes that are known, held for the caller's transaction. */
    Map<ContentHash, StoredContent> known(List<ContentHash> hashes) {
        Map<ContentHash, StoredContent> known = new HashMap<>();
        db.selectFrom(CONTENT)
                .where(
                        CONTENT.SHA256.in(
                                hashes.stream().map(ContentHash::bytes).toList()),
                        CONTENT.SEALED_MARK.eq((short) 1))
                .forShare() // who lets unheld contents go waits for whoever is about to hold one
                .forEach(row -> known.put(ContentHash.of(row.getSha256()), content(row)));
        return known;
    }

    /** Makes a received content the content of its hash; where somebody sealed the same bytes at this moment, theirs is taken. */
    StoredContent seal(long content, ContentHash hash, long size, ContentKind kind) {
        try {
            db.update(CONTENT)
                    .set(CONTENT.SHA256, hash.bytes())
                    .set(CONTENT.SIZE, size)
                    .set(CONTENT.STATE, "SEALED")
                    .set(CONTENT.SEALED_MARK, (short) 1)
                    .set(CONTENT.CONTENT_KIND, kind.name())
                    .where(CONTENT.ID.eq(content))
                    .execute();
            return new StoredContent(content, hash, size, kind);
        } catch (DuplicateKeyException e) {
            return sealed(hash).orElseThrow();
        }
    }

    /** Opens a content that nobody sees yet; gives its id. */
    long receiving(String cut, Instant now) {
        return db.insertInto(CONTENT)
                .set(CONTENT.STATE, "RECEIVING")
                .set(CONTENT.CUT, cut)
                .set(CONTENT.CREATED_AT, Times.utc(now))
                .returningResult(CONTENT.ID)
                .fetchSingle()
                .value1();
    }

    /**
     * Keeps bytes that the shelf made itself, within the caller's transaction; what is known already is taken.
     *
     * @param laid all of the bytes; asked only when they are not known
     */
    public StoredContent keep(
            ContentHash hash, long size, ContentKind kind, CutSize cut, Supplier<Laid> laid, Instant now) {
        Optional<StoredContent> known = sealed(hash);
        if (known.isPresent()) return known.get();
        long content = receiving(cut.name(), now);
        pieces.append(content, 0, laid.get());
        StoredContent kept = seal(content, hash, size, kind);
        if (kept.id() != content) removeReceived(content);
        return kept;
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
     * Sends the bytes from {@code from} (inclusive) to {@code to} (exclusive), each pack verified before any of it is sent; never more
     * than a few megabytes in memory.
     *
     * @throws BrokenContent when a pack does not have its sum
     */
    public void send(long content, long from, long to, OutputStream out) throws IOException {
        if (from >= to) return;
        pieces.send(content, from, to, out);
    }

    /** Removes a content that was never sealed. */
    void removeReceived(long content) {
        pieces.remove(content);
        db.deleteFrom(CONTENT)
                .where(CONTENT.ID.eq(content), CONTENT.STATE.eq("RECEIVING"))
                .execute();
    }

    /** Removes a content and its stretches. */
    void remove(long content) {
        pieces.remove(content);
        db.deleteFrom(CONTENT).where(CONTENT.ID.eq(content)).execute();
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
