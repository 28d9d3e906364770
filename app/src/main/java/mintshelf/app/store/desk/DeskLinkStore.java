package mintshelf.app.store.desk;

import static mintshelf.database.schema.Tables.DESK_LINK;

import java.time.Instant;
import java.util.Optional;
import mintshelf.app.store.Times;
import mintshelf.core.base.ContentHash;
import mintshelf.database.schema.tables.records.DeskLinkRecord;
import org.jooq.Condition;
import org.jooq.DSLContext;
import org.springframework.stereotype.Repository;

/** Links by which pages ask a person's companion for files. */
@Repository
public class DeskLinkStore {
    private final DSLContext db;

    public DeskLinkStore(DSLContext db) {
        this.db = db;
    }

    /** What is wanted of the file: a copy, or to work on it. */
    public enum Act {
        LOOK,
        WORK
    }

    /**
     * A link.
     *
     * @param taken when the companion took it; nothing while it waits
     * @param done whether that went well; nothing while it is at it
     * @param says what the companion said
     */
    public record Link(
            long id,
            long desk,
            long item,
            int version,
            Act act,
            Instant expires,
            Optional<Instant> taken,
            Optional<Boolean> done,
            String says) {}

    /** How many links a person made since a moment. */
    public int since(long person, Instant moment) {
        return db.fetchCount(DESK_LINK, DESK_LINK.PERSON.eq(person), DESK_LINK.MADE_AT.gt(Times.utc(moment)));
    }

    /** Adds a link to a version of a document on a desk of a person; gives its id. */
    public long add(long person, Link link, ContentHash code, Instant now) {
        return db.insertInto(DESK_LINK)
                .set(DESK_LINK.HASH, code.bytes())
                .set(DESK_LINK.PERSON, person)
                .set(DESK_LINK.DESK, link.desk())
                .set(DESK_LINK.ITEM, link.item())
                .set(DESK_LINK.VERSION, link.version())
                .set(DESK_LINK.ACT, link.act().name())
                .set(DESK_LINK.MADE_AT, Times.utc(now))
                .set(DESK_LINK.EXPIRES_AT, Times.utc(link.expires()))
                .returningResult(DESK_LINK.ID)
                .fetchSingle()
                .value1();
    }

    /** Takes the link of a code: once, by its own person, while it is in force. */
    public Optional<Link> take(long person, ContentHash code, Instant now) {
        int taken = db.update(DESK_LINK)
                .set(DESK_LINK.TAKEN_AT, Times.utc(now))
                .where(
                        DESK_LINK.HASH.eq(code.bytes()),
                        DESK_LINK.PERSON.eq(person),
                        DESK_LINK.TAKEN_AT.isNull(),
                        DESK_LINK.EXPIRES_AT.gt(Times.utc(now)))
                .execute();
        return taken == 0 ? Optional.empty() : link(DESK_LINK.HASH.eq(code.bytes()));
    }

    /** What became of one that was taken; said once. */
    public void told(long person, long id, boolean done, String says) {
        db.update(DESK_LINK)
                .set(DESK_LINK.DONE, done)
                .set(DESK_LINK.SAYS, says)
                .where(
                        DESK_LINK.ID.eq(id),
                        DESK_LINK.PERSON.eq(person),
                        DESK_LINK.TAKEN_AT.isNotNull(),
                        DESK_LINK.DONE.isNull())
                .execute();
    }

    public Optional<Link> link(long person, long id) {
        return link(DESK_LINK.ID.eq(id).and(DESK_LINK.PERSON.eq(person)));
    }

    private Optional<Link> link(Condition which) {
        return db.selectFrom(DESK_LINK).where(which).fetchOptional(DeskLinkStore::link);
    }

    private static Link link(DeskLinkRecord r) {
        return new Link(
                r.getId(),
                r.getDesk(),
                r.getItem(),
                r.getVersion(),
                Act.valueOf(r.getAct()),
                Times.instant(r.getExpiresAt()),
                Optional.ofNullable(r.getTakenAt()).map(Times::instant),
                Optional.ofNullable(r.getDone()),
                r.getSays());
    }

    /** Forgets what a person's pages asked for before a moment. */
    public void clear(long person, Instant before) {
        db.deleteFrom(DESK_LINK)
                .where(DESK_LINK.PERSON.eq(person), DESK_LINK.MADE_AT.lt(Times.utc(before)))
                .execute();
    }
}
