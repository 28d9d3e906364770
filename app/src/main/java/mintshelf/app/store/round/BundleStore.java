package mintshelf.app.store.round;

import static mintshelf.database.schema.Tables.BUNDLE;
import static mintshelf.database.schema.Tables.BUNDLE_ITEM;

import java.time.Instant;
import java.util.List;
import mintshelf.app.store.Times;
import org.jooq.DSLContext;
import org.springframework.stereotype.Repository;

/** Documents that were sent along a route together. */
@Repository
public class BundleStore {
    private static final short MARK = 1;
    private final DSLContext db;

    public BundleStore(DSLContext db) {
        this.db = db;
    }

    /** Opens a bundle over documents, in their order; the database refuses one that is in an open bundle. */
    public long openBundle(List<Long> items, long person, Instant now) {
        long bundle = db.insertInto(BUNDLE)
                .set(BUNDLE.OPENED_BY, person)
                .set(BUNDLE.OPENED_AT, Times.utc(now))
                .returningResult(BUNDLE.ID)
                .fetchSingle()
                .value1();
        int position = 1;
        for (long item : items) {
            db.insertInto(BUNDLE_ITEM)
                    .set(BUNDLE_ITEM.BUNDLE, bundle)
                    .set(BUNDLE_ITEM.ITEM, item)
                    .set(BUNDLE_ITEM.POSITION, position++)
                    .set(BUNDLE_ITEM.OPEN_MARK, MARK)
                    .execute();
        }
        return bundle;
    }

    public void closeBundle(long bundle, Instant now) {
        db.update(BUNDLE)
                .set(BUNDLE.CLOSED_AT, Times.utc(now))
                .where(BUNDLE.ID.eq(bundle))
                .execute();
        db.update(BUNDLE_ITEM)
                .setNull(BUNDLE_ITEM.OPEN_MARK)
                .where(BUNDLE_ITEM.BUNDLE.eq(bundle))
                .execute();
    }
}
