package mintshelf.app.store.change;

import static mintshelf.database.schema.Tables.PAPER_VARIANT;

import java.util.List;
import java.util.Map;
import org.jooq.DSLContext;
import org.springframework.stereotype.Repository;

/** Which variants of its document a line of an order is about. */
@Repository
public class LineVariantStore {
    private final DSLContext db;

    public LineVariantStore(DSLContext db) {
        this.db = db;
    }

    /** The names of variants that the lines of a paper name, by document; of lines that name none nothing. */
    public Map<Long, List<String>> of(long paper) {
        return db.select(PAPER_VARIANT.ITEM, PAPER_VARIANT.NAME)
                .from(PAPER_VARIANT)
                .where(PAPER_VARIANT.PAPER.eq(paper))
                .orderBy(PAPER_VARIANT.ITEM, PAPER_VARIANT.SEQ)
                .fetchGroups(PAPER_VARIANT.ITEM, PAPER_VARIANT.NAME);
    }

    /** In the place of those that the line named. */
    public void keep(long paper, long item, List<String> names) {
        db.deleteFrom(PAPER_VARIANT)
                .where(PAPER_VARIANT.PAPER.eq(paper), PAPER_VARIANT.ITEM.eq(item))
                .execute();
        for (int i = 0; i < names.size(); i++)
            db.insertInto(PAPER_VARIANT)
                    .set(PAPER_VARIANT.PAPER, paper)
                    .set(PAPER_VARIANT.ITEM, item)
                    .set(PAPER_VARIANT.SEQ, i + 1)
                    .set(PAPER_VARIANT.NAME, names.get(i))
                    .execute();
    }
}
