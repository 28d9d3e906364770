package mintshelf.app.store.hold;

import static mintshelf.database.schema.Tables.HOLD;
import static mintshelf.database.schema.Tables.PERSON;

import java.time.Instant;
import java.util.Collection;
import java.util.List;
import mintshelf.app.store.Rows;
import mintshelf.app.store.Times;
import mintshelf.core.document.Document;
import org.jooq.DSLContext;
import org.springframework.stereotype.Repository;

/** Holds: taken and ended. The database lets a line have one open hold. */
@Repository
public class HoldStore {
    private static final Rows TAKEN = Rows.added(
            HOLD,
            HOLD.ITEM,
            HOLD.LINE,
            HOLD.PERSON,
            HOLD.DESK,
            HOLD.PURPOSE,
            HOLD.BASE_VERSION,
            HOLD.AT,
            HOLD.OPEN_MARK);

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

    /** Takes the holds of documents' main lines on their head versions; one statement. Under the lines' locks. */
    public void take(Collection<Document> documents, long person, String desk, String purpose, Instant now) {
        TAKEN.write(
                db,
                documents.stream()
                        .map(d -> new Object[] {
                            d.id(), d.line(), person, desk, purpose, d.head().version(), Times.utc(now), (short) 1
                        })
                        .toList());
    }

    /** A hold that is open. */
    public record Held(long item, String name, Instant at) {}

    /** Holds that are open and were taken before a moment, the oldest first; at most {@code most}. */
    public List<Held> since(Instant before, int most) {
        return db.select(HOLD.ITEM, PERSON.NAME, HOLD.AT)
                .from(HOLD)
                .join(PERSON)
                .on(PERSON.ID.eq(HOLD.PERSON))
                .where(HOLD.OPEN_MARK.isNotNull(), HOLD.AT.lt(Times.utc(before)))
                .orderBy(HOLD.AT, HOLD.ID)
                .limit(most)
                .fetch(row -> new Held(row.value1(), row.value2(), Times.instant(row.value3())));
    }

    public void end(long hold, Ending how, long by, String why, Instant now) {
        end(List.of(hold), how, by, why, now);
    }

    /** Ends holds that are open; one statement. */
    public void end(Collection<Long> holds, Ending how, long by, String why, Instant now) {
        db.update(HOLD)
                .setNull(HOLD.OPEN_MARK)
                .set(HOLD.ENDED_AT, Times.utc(now))
                .set(HOLD.ENDED_HOW, how.name())
                .set(HOLD.ENDED_BY, by)
                .set(HOLD.ENDED_WHY, why.isEmpty() ? null : why)
                .where(HOLD.ID.in(holds), HOLD.OPEN_MARK.eq((short) 1))
                .execute();
    }

    /** A hold that goes on stands on the version that was just checked in. */
    public void rebase(long hold, long version) {
        db.update(HOLD).set(HOLD.BASE_VERSION, version).where(HOLD.ID.eq(hold)).execute();
    }
}
