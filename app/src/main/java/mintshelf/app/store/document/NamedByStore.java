package mintshelf.app.store.document;

import static mintshelf.database.schema.Tables.ITEM;
import static mintshelf.database.schema.Tables.ITEM_LINK;
import static mintshelf.database.schema.Tables.PAPER_LINE;
import static mintshelf.database.schema.Tables.ROUND;
import static mintshelf.database.schema.Tables.ROUND_ITEM;
import static mintshelf.database.schema.Tables.VERSION;
import static mintshelf.database.schema.Tables.VERSION_REFERENCE;

import java.time.Instant;
import java.util.List;
import mintshelf.app.store.Times;
import org.jooq.DSLContext;
import org.springframework.stereotype.Repository;

/** Where a document is named by others: what would say something untrue if it went. Dropped documents name nothing. */
@Repository
public class NamedByStore {
    /** Places of one sort that are told. */
    private static final int MOST = 20;

    private final DSLContext db;

    public NamedByStore(DSLContext db) {
        this.db = db;
    }

    /** Documents of which any version refers to the document. */
    public List<Long> parents(long item) {
        return db.selectDistinct(VERSION.ITEM)
                .from(VERSION_REFERENCE)
                .join(VERSION)
                .on(VERSION.ID.eq(VERSION_REFERENCE.VERSION))
                .join(ITEM)
                .on(ITEM.ID.eq(VERSION.ITEM), ITEM.DROPPED_AT.isNull())
                .where(VERSION_REFERENCE.COMPONENT.eq(item), VERSION.ITEM.ne(item))
                .orderBy(VERSION.ITEM)
                .limit(MOST)
                .fetch(VERSION.ITEM);
    }

    /** Documents from which somebody drew a link to the document; links that equal numbers made are no word of anybody's. */
    public List<Long> linkedFrom(long item) {
        return db.selectDistinct(ITEM_LINK.ITEM)
                .from(ITEM_LINK)
                .join(ITEM)
                .on(ITEM.ID.eq(ITEM_LINK.ITEM), ITEM.DROPPED_AT.isNull())
                .where(ITEM_LINK.TARGET.eq(item), ITEM_LINK.FOUND_BY.eq("HAND"))
                .orderBy(ITEM_LINK.ITEM)
                .limit(MOST)
                .fetch(ITEM_LINK.ITEM);
    }

    /** When the rounds began in which the document was or is. */
    public List<Instant> rounds(long item) {
        return db.selectDistinct(ROUND.OPENED_AT)
                .from(ROUND_ITEM)
                .join(ROUND)
                .on(ROUND.ID.eq(ROUND_ITEM.ROUND))
                .where(ROUND_ITEM.ITEM.eq(item))
                .orderBy(ROUND.OPENED_AT)
                .limit(MOST)
                .fetch(row -> Times.instant(row.value1()));
    }

    /** Orders on which the document stands or stood. */
    public List<Long> orders(long item) {
        return db.selectDistinct(PAPER_LINE.PAPER)
                .from(PAPER_LINE)
                .where(PAPER_LINE.ITEM.eq(item))
                .orderBy(PAPER_LINE.PAPER)
                .limit(MOST)
                .fetch(PAPER_LINE.PAPER);
    }
}
