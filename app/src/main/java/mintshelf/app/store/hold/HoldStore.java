package mintshelf.app.store.hold;

import static mintshelf.database.schema.Tables.HOLD;

import java.time.Instant;
import mintshelf.app.store.Times;
import mintshelf.core.document.Document;
import org.jooq.DSLContext;
import org.springframework.stereotype.Repository;

/** Holds: taken and ended. The database lets a line have one open hold. */
@Repository
public class HoldStore {
    private final DSLContext db;

    public HoldStore(DSLContext db) {
        this.db = db;
    }

    /** How a hold ends. */
    public enum Ending {
        CHECKED_IN,
        UNDONE,
        BROKEN,
        REVIEW,
        DROPPED
    }

    /** Takes the hold of a document's main line on its head version. Under the line's lock. */
    public long take(Document document, long baseVersion, long person, String desk, String purpose, Instant now) {
        return db.insertInto(HOLD)
                .set(HOLD.ITEM, document.id())
                .set(HOLD.LINE, document.line())
                .set(HOLD.PERSON, person)
                .set(HOLD.DESK, desk)
                .set(HOLD.PURPOSE, purpose)
                .set(HOLD.BASE_VERSION, baseVersion)
                .set(HOLD.AT, Times.utc(now))
                .set(HOLD.OPEN_MARK, (short) 1)
                .returningResult(HOLD.ID)
                .fetchSingle()
                .value1();
    }

    public void end(long hold, Ending how, long by, String why, Instant now) {
        db.update(HOLD)
                .setNull(HOLD.OPEN_MARK)
                .set(HOLD.ENDED_AT, Times.utc(now))
                .set(HOLD.ENDED_HOW, how.name())
                .set(HOLD.ENDED_BY, by)
                .set(HOLD.ENDED_WHY, why.isEmpty() ? null : why)
                .where(HOLD.ID.eq(hold), HOLD.OPEN_MARK.eq((short) 1))
                .execute();
    }

    /** A hold that goes on stands on the version that was just checked in. */
    public void rebase(long hold, long version) {
        db.update(HOLD).set(HOLD.BASE_VERSION, version).where(HOLD.ID.eq(hold)).execute();
    }
}
