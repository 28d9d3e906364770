package mintshelf.app.store.structure;

import static mintshelf.database.schema.Tables.LINE;
import static mintshelf.database.schema.Tables.REVISION;
import static mintshelf.database.schema.Tables.VERSION;

import java.time.Instant;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import mintshelf.app.store.Prepared;
import mintshelf.app.store.Times;
import mintshelf.database.schema.tables.Version;
import org.jooq.DSLContext;
import org.jooq.Record;
import org.jooq.impl.DSL;
import org.springframework.stereotype.Repository;

/** Which versions of documents a view of their structure shows: the latest, those in force, those of a moment. */
@Repository
public class ShownStore {
    private static final short MARK = 1;
    private static final Version SUBSTANCE = VERSION.as("captured_substance");
    private final Prepared shownVersions =
            new Prepared((db, versions) -> db.select(VERSION.ITEM, VERSION.ID, VERSION.NUMBER, SUBSTANCE.NUMBER)
                    .from(VERSION)
                    .leftJoin(SUBSTANCE)
                    .on(SUBSTANCE.ID.eq(VERSION.SUBSTANCE))
                    .where(VERSION.ID.in(versions)));
    private final DSLContext db;
    private final ReferenceStore references;

    public ShownStore(DSLContext db, ReferenceStore references) {
        this.db = db;
        this.references = references;
    }

    /** Which version of documents is shown: its id, its number, and the number that its content goes by. */
    public record Shown(long version, int number, int substance) {}

    /** The latest versions of documents. */
    public Map<Long, Shown> latestShown(Collection<Long> items) {
        Map<Long, Shown> found = new HashMap<>();
        references
                .heads(items)
                .forEach((item, c) -> found.put(item, new Shown(c.version(), c.number(), c.substance())));
        return found;
    }

    /** The versions of documents that are in force; without those that are not released. */
    public Map<Long, Shown> inForce(Collection<Long> items) {
        return shown(db.select(REVISION.RELEASED_VERSION)
                .from(REVISION)
                .where(REVISION.ITEM.in(items), REVISION.RELEASED_MARK.eq(MARK))
                .fetch(REVISION.RELEASED_VERSION));
    }

    /** The versions of documents that were the latest at a moment; without those that were not there yet. */
    public Map<Long, Shown> at(Collection<Long> items, Instant moment) {
        return shown(db.select(DSL.max(VERSION.ID))
                .from(VERSION)
                .join(LINE)
                .on(LINE.ID.eq(VERSION.LINE), LINE.MAIN_MARK.eq(MARK))
                .where(VERSION.ITEM.in(items), VERSION.AT.le(Times.utc(moment)))
                .groupBy(VERSION.ITEM)
                .fetch(r -> r.value1()));
    }

    private Map<Long, Shown> shown(Collection<Long> versions) {
        Map<Long, Shown> byItem = new HashMap<>();
        rows(versions).forEach(row -> byItem.put(row.get(VERSION.ITEM), shown(row)));
        return byItem;
    }

    /** Versions by their ids; one statement. */
    public Map<Long, Shown> versions(Collection<Long> ids) {
        Map<Long, Shown> byId = new HashMap<>();
        rows(ids).forEach(row -> byId.put(row.get(VERSION.ID), shown(row)));
        return byId;
    }

    private List<Record> rows(Collection<Long> versions) {
        return shownVersions.fetch(db, versions);
    }

    private static Shown shown(Record row) {
        int number = row.get(VERSION.NUMBER);
        return new Shown(
                row.get(VERSION.ID),
                number,
                Optional.ofNullable(row.get(SUBSTANCE.NUMBER)).orElse(number));
    }
}
