package mintshelf.app.store.house;

import static mintshelf.database.schema.Tables.NUMBER_SERIES;

import java.util.LinkedHashMap;
import java.util.Map;
import mintshelf.core.house.SeriesRule;
import org.jooq.DSLContext;
import org.springframework.stereotype.Repository;

/** Number series as house rules; their counters move in {@code NumberStore}. */
@Repository
public class SeriesStore {
    private final DSLContext db;

    public SeriesStore(DSLContext db) {
        this.db = db;
    }

    public long addSeries(String code, String name, String pattern, String scope) {
        return db.insertInto(NUMBER_SERIES)
                .set(NUMBER_SERIES.CODE, code)
                .set(NUMBER_SERIES.NAME, name)
                .set(NUMBER_SERIES.PATTERN, pattern)
                .set(NUMBER_SERIES.SCOPE, scope)
                .returningResult(NUMBER_SERIES.ID)
                .fetchSingle()
                .value1();
    }

    /** The series of the house, in the order in which they were made. */
    public Map<Long, SeriesRule> all() {
        Map<Long, SeriesRule> all = new LinkedHashMap<>();
        db.selectFrom(NUMBER_SERIES)
                .orderBy(NUMBER_SERIES.ID)
                .forEach(row -> all.put(
                        row.getId(),
                        new SeriesRule(
                                row.getCode(),
                                row.getName(),
                                row.getPattern(),
                                SeriesRule.Counts.valueOf(row.getScope()))));
        return all;
    }

    /** Writes what the latest edition of a series says. */
    public void change(SeriesRule series) {
        db.update(NUMBER_SERIES)
                .set(NUMBER_SERIES.NAME, series.name())
                .set(NUMBER_SERIES.PATTERN, series.pattern())
                .set(NUMBER_SERIES.SCOPE, series.counts().name())
                .where(NUMBER_SERIES.CODE.eq(series.code()))
                .execute();
    }
}
