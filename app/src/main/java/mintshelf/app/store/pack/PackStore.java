package mintshelf.app.store.pack;

import static mintshelf.database.schema.Tables.PERSON;
import static mintshelf.database.schema.Tables.SENT_PACK;
import static mintshelf.database.schema.Tables.SENT_PACK_ROW;

import java.time.Instant;
import java.util.List;
import java.util.Optional;
import mintshelf.app.store.Times;
import org.jooq.Condition;
import org.jooq.DSLContext;
import org.jooq.Record;
import org.springframework.stereotype.Repository;

/** Packs: which versions went where, for whom and what for. */
@Repository
public class PackStore {
    private final DSLContext db;

    public PackStore(DSLContext db) {
        this.db = db;
    }

    /**
     * A pack.
     *
     * @param item on top, in a {@code version}
     * @param shown the view of the structure in words
     * @param layout code of how files lie in it
     * @param pages whether drawings come as PDF too, {@code neutral} whether neutral copies do
     */
    public record Pack(
            long id,
            long person,
            String personName,
            Instant at,
            long item,
            int version,
            String shown,
            String layout,
            boolean pages,
            boolean neutral,
            String receiver,
            String purpose) {}

    /** A document of it, in a version. */
    public record Row(long item, int version, String path) {}

    public long add(Pack pack, List<Row> rows) {
        long id = db.insertInto(SENT_PACK)
                .set(SENT_PACK.PERSON, pack.person())
                .set(SENT_PACK.AT, Times.utc(pack.at()))
                .set(SENT_PACK.ITEM, pack.item())
                .set(SENT_PACK.VERSION, pack.version())
                .set(SENT_PACK.SHOWN, pack.shown())
                .set(SENT_PACK.LAYOUT, pack.layout())
                .set(SENT_PACK.PAGES, pack.pages())
                .set(SENT_PACK.NEUTRAL, pack.neutral())
                .set(SENT_PACK.RECEIVER, pack.receiver())
                .set(SENT_PACK.PURPOSE, pack.purpose())
                .returning(SENT_PACK.ID)
                .fetchSingle(SENT_PACK.ID);
        var insert = db.insertInto(
                SENT_PACK_ROW,
                SENT_PACK_ROW.PACK,
                SENT_PACK_ROW.POSITION,
                SENT_PACK_ROW.ITEM,
                SENT_PACK_ROW.VERSION,
                SENT_PACK_ROW.PATH);
        for (int i = 0; i < rows.size(); i++) {
            Row row = rows.get(i);
            insert = insert.values(id, i, row.item(), row.version(), row.path());
        }
        insert.execute();
        return id;
    }

    public Optional<Pack> pack(long id) {
        return packs(SENT_PACK.ID.eq(id), 1).stream().findFirst();
    }

    /** Somebody's packs before one of them, the latest first. */
    public List<Pack> of(long person, long before, int most) {
        return packs(SENT_PACK.PERSON.eq(person).and(SENT_PACK.ID.lt(before)), most);
    }

    private List<Pack> packs(Condition which, int most) {
        return db.select(SENT_PACK.fields())
                .select(PERSON.NAME)
                .from(SENT_PACK)
                .join(PERSON)
                .on(PERSON.ID.eq(SENT_PACK.PERSON))
                .where(which)
                .orderBy(SENT_PACK.ID.desc())
                .limit(most)
                .fetch(PackStore::pack);
    }

    private static Pack pack(Record row) {
        return new Pack(
                row.get(SENT_PACK.ID),
                row.get(SENT_PACK.PERSON),
                row.get(PERSON.NAME),
                Times.instant(row.get(SENT_PACK.AT)),
                row.get(SENT_PACK.ITEM),
                row.get(SENT_PACK.VERSION),
                row.get(SENT_PACK.SHOWN),
                row.get(SENT_PACK.LAYOUT),
                row.get(SENT_PACK.PAGES),
                row.get(SENT_PACK.NEUTRAL),
                row.get(SENT_PACK.RECEIVER),
                row.get(SENT_PACK.PURPOSE));
    }

    /** The documents of a pack, in their order. */
    public List<Row> rows(long pack) {
        return db.select(SENT_PACK_ROW.ITEM, SENT_PACK_ROW.VERSION, SENT_PACK_ROW.PATH)
                .from(SENT_PACK_ROW)
                .where(SENT_PACK_ROW.PACK.eq(pack))
                .orderBy(SENT_PACK_ROW.POSITION)
                .fetch(row -> new Row(row.value1(), row.value2(), row.value3()));
    }
}
