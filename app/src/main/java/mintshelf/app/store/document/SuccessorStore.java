package mintshelf.app.store.document;

import static mintshelf.database.schema.Tables.SUCCESSOR;

import java.time.Instant;
import java.util.Optional;
import mintshelf.app.store.Times;
import org.jooq.DSLContext;
import org.springframework.stereotype.Repository;

/** Which documents took the place of those that were withdrawn. */
@Repository
public class SuccessorStore {
    private final DSLContext db;

    public SuccessorStore(DSLContext db) {
        this.db = db;
    }

    public Optional<Long> of(long item) {
        return db.select(SUCCESSOR.SUCCESSOR_)
                .from(SUCCESSOR)
                .where(SUCCESSOR.ITEM.eq(item))
                .fetchOptional(SUCCESSOR.SUCCESSOR_);
    }

    public void keep(long item, long successor, long person, Instant now) {
        db.insertInto(SUCCESSOR)
                .set(SUCCESSOR.ITEM, item)
                .set(SUCCESSOR.SUCCESSOR_, successor)
                .set(SUCCESSOR.NAMED_BY, person)
                .set(SUCCESSOR.NAMED_AT, Times.utc(now))
                .onDuplicateKeyUpdate()
                .set(SUCCESSOR.SUCCESSOR_, successor)
                .set(SUCCESSOR.NAMED_BY, person)
                .set(SUCCESSOR.NAMED_AT, Times.utc(now))
                .execute();
    }
}
