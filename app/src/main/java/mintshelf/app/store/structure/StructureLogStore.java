package mintshelf.app.store.structure;

import static mintshelf.database.schema.Tables.STRUCTURE_LOG;

import java.util.List;
import org.jooq.DSLContext;
import org.jooq.impl.DSL;
import org.springframework.stereotype.Repository;

/** Which documents' structure or latest version moved, in about the order in which it did. */
@Repository
public class StructureLogStore {
    private static final String SETTLED = "at < now(6) - interval 5 minute";

    private final DSLContext db;

    public StructureLogStore(DSLContext db) {
        this.db = db;
    }

    /**
     * An entry.
     *
     * @param settled whether no transaction that began before it can still be open
     */
    public record Entry(long id, long item, boolean settled) {}

    /** Entries behind {@code id}, in ascending order; one statement. */
    public List<Entry> after(long id, int most) {
        return db.select(STRUCTURE_LOG.ID, STRUCTURE_LOG.ITEM, DSL.field(SETTLED, Boolean.class))
                .from(STRUCTURE_LOG)
                .where(STRUCTURE_LOG.ID.gt(id))
                .orderBy(STRUCTURE_LOG.ID)
                .limit(most)
                .fetch(r -> new Entry(r.value1(), r.value2(), r.value3()));
    }

    /** The last settled entry; 0 where there is none. */
    public long settled() {
        Long id = db.select(DSL.max(STRUCTURE_LOG.ID))
                .from(STRUCTURE_LOG)
                .where(DSL.condition(SETTLED))
                .fetchSingle()
                .value1();
        return id == null ? 0 : id;
    }

    /** Removes entries that every node has read: those older than two days. */
    public int purge() {
        return db.deleteFrom(STRUCTURE_LOG)
                .where(DSL.condition("at < now(6) - interval 2 day"))
                .execute();
    }
}
