package mintshelf.app.store.change;

import static mintshelf.database.schema.Tables.PAPER_TOLD;

import java.util.Map;
import org.jooq.DSLContext;
import org.springframework.stereotype.Repository;

/** Who is told of a notice against what the house says. */
@Repository
public class ToldStore {
    private final DSLContext db;

    public ToldStore(DSLContext db) {
        this.db = db;
    }

    /** By person: true for one who is told besides, false for one who is not told. */
    public Map<Long, Boolean> of(long paper) {
        return db.select(PAPER_TOLD.PERSON, PAPER_TOLD.TOLD)
                .from(PAPER_TOLD)
                .where(PAPER_TOLD.PAPER.eq(paper))
                .fetchMap(PAPER_TOLD.PERSON, PAPER_TOLD.TOLD);
    }

    /** As {@link #of}, in place of what was said before. */
    public void keep(long paper, Map<Long, Boolean> told) {
        db.deleteFrom(PAPER_TOLD).where(PAPER_TOLD.PAPER.eq(paper)).execute();
        told.forEach((person, is) -> db.insertInto(PAPER_TOLD)
                .set(PAPER_TOLD.PAPER, paper)
                .set(PAPER_TOLD.PERSON, person)
                .set(PAPER_TOLD.TOLD, is)
                .execute());
    }
}
