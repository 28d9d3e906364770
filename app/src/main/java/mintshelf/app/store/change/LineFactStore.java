package mintshelf.app.store.change;

import static mintshelf.database.schema.Tables.PAPER_FACT;

import java.util.Map;
import java.util.TreeMap;
import org.jooq.DSLContext;
import org.springframework.stereotype.Repository;

/** What lines that change facts only say these facts will be. */
@Repository
public class LineFactStore {
    private final DSLContext db;

    public LineFactStore(DSLContext db) {
        this.db = db;
    }

    /** By document, what each fact will be, by its id, as it would be typed; empty for one that is emptied. */
    public Map<Long, Map<Long, String>> wanted(long paper) {
        Map<Long, Map<Long, String>> wanted = new TreeMap<>();
        db.selectFrom(PAPER_FACT)
                .where(PAPER_FACT.PAPER.eq(paper))
                .forEach(row -> wanted.computeIfAbsent(row.getItem(), i -> new TreeMap<>())
                        .put(row.getFact(), row.getWanted()));
        return wanted;
    }

    /** In place of what the line said before. */
    public void keep(long paper, long item, Map<Long, String> wanted) {
        db.deleteFrom(PAPER_FACT)
                .where(PAPER_FACT.PAPER.eq(paper), PAPER_FACT.ITEM.eq(item))
                .execute();
        wanted.forEach((fact, value) -> db.insertInto(PAPER_FACT)
                .set(PAPER_FACT.PAPER, paper)
                .set(PAPER_FACT.ITEM, item)
                .set(PAPER_FACT.FACT, fact)
                .set(PAPER_FACT.WANTED, value)
                .execute());
    }
}
