package mintshelf.app.store.structure;

import static mintshelf.database.schema.Tables.BASELINE;
import static mintshelf.database.schema.Tables.BASELINE_ROW;
import static mintshelf.database.schema.Tables.PERSON;
import static mintshelf.database.schema.Tables.VERSION;

import java.math.BigDecimal;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import mintshelf.app.store.Times;
import org.jooq.Condition;
import org.jooq.DSLContext;
import org.jooq.Record;
import org.jooq.impl.DSL;
import org.springframework.stereotype.Repository;

/** Baselines: named sets of documents at exact versions. They are made whole, and never change. */
@Repository
public class BaselineStore {
    private static final int AT_ONCE = 1000;

    private final DSLContext db;

    public BaselineStore(DSLContext db) {
        this.db = db;
    }

    /**
     * A baseline.
     *
     * @param lead the document whose structure it is, or the first one of a set
     * @param view code of the view in which the structure was read; nothing for a set
     * @param documents how many it has
     */
    public record Baseline(
            long id,
            String name,
            String note,
            long lead,
            Optional<String> view,
            long person,
            String personName,
            Instant at,
            int documents) {}

    /**
     * A document in it.
     *
     * @param version its version's id, {@code number} its number
     * @param unit empty where nobody asked how much is needed
     */
    public record Row(long item, long version, int number, long revision, Optional<BigDecimal> needed, String unit) {}

    public long add(
            String name, String note, long lead, Optional<String> view, long person, Instant at, List<Row> rows) {
        long id = db.insertInto(BASELINE)
                .set(BASELINE.NAME, name)
                .set(BASELINE.NOTE, note)
                .set(BASELINE.LEAD, lead)
                .set(BASELINE.OF_STRUCTURE, view.orElse(null))
                .set(BASELINE.PERSON, person)
                .set(BASELINE.AT, Times.utc(at))
                .returning(BASELINE.ID)
                .fetchSingle(BASELINE.ID);
        for (int from = 0; from < rows.size(); from += AT_ONCE) {
            var insert = db.insertInto(
                    BASELINE_ROW,
                    BASELINE_ROW.BASELINE,
                    BASELINE_ROW.ITEM,
                    BASELINE_ROW.VERSION,
                    BASELINE_ROW.NEEDED,
                    BASELINE_ROW.UNIT);
            for (Row row : rows.subList(from, Math.min(rows.size(), from + AT_ONCE)))
                insert = insert.values(
                        id,
                        row.item(),
                        row.version(),
                        row.needed().orElse(null),
                        row.needed().isPresent() ? row.unit() : null);
            insert.execute();
        }
        return id;
    }

    public Optional<Baseline> baseline(long id) {
        return baselines(BASELINE.ID.eq(id), 1).stream().findFirst();
    }

    /** Baselines before one, the latest first. */
    public List<Baseline> before(long before, int most) {
        return baselines(BASELINE.ID.lt(before), most);
    }

    /** Those of a document, the latest first. */
    public List<Baseline> of(long lead, long before, int most) {
        return baselines(BASELINE.LEAD.eq(lead).and(BASELINE.ID.lt(before)), most);
    }

    private List<Baseline> baselines(Condition which, int most) {
        var documents = DSL.field(DSL.selectCount().from(BASELINE_ROW).where(BASELINE_ROW.BASELINE.eq(BASELINE.ID)));
        return db.select(BASELINE.fields())
                .select(PERSON.NAME, documents)
                .from(BASELINE)
                .join(PERSON)
                .on(PERSON.ID.eq(BASELINE.PERSON))
                .where(which)
                .orderBy(BASELINE.ID.desc())
                .limit(most)
                .fetch(row -> baseline(row, row.get(documents)));
    }

    private static Baseline baseline(Record row, int documents) {
        return new Baseline(
                row.get(BASELINE.ID),
                row.get(BASELINE.NAME),
                row.get(BASELINE.NOTE),
                row.get(BASELINE.LEAD),
                Optional.ofNullable(row.get(BASELINE.OF_STRUCTURE)),
                row.get(BASELINE.PERSON),
                row.get(PERSON.NAME),
                Times.instant(row.get(BASELINE.AT)),
                documents);
    }

    /** The documents of a baseline, in the order in which they were filed. */
    public List<Row> rows(long baseline) {
        return db.select(BASELINE_ROW.fields())
                .select(VERSION.NUMBER, VERSION.REVISION)
                .from(BASELINE_ROW)
                .join(VERSION)
                .on(VERSION.ID.eq(BASELINE_ROW.VERSION))
                .where(BASELINE_ROW.BASELINE.eq(baseline))
                .orderBy(BASELINE_ROW.ITEM)
                .fetch(row -> new Row(
                        row.get(BASELINE_ROW.ITEM),
                        row.get(BASELINE_ROW.VERSION),
                        row.get(VERSION.NUMBER),
                        row.get(VERSION.REVISION),
                        Optional.ofNullable(row.get(BASELINE_ROW.NEEDED)).map(BigDecimal::stripTrailingZeros),
                        Optional.ofNullable(row.get(BASELINE_ROW.UNIT)).orElse("")));
    }
}
