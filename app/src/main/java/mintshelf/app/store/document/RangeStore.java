package mintshelf.app.store.document;

import static mintshelf.database.schema.Tables.NUMBER_RANGE;

import java.time.Instant;
import java.util.List;
import java.util.Optional;
import java.util.OptionalLong;
import mintshelf.app.store.Times;
import mintshelf.database.schema.Tables;
import mintshelf.database.schema.tables.Person;
import org.jooq.DSLContext;
import org.jooq.Record;
import org.jooq.SelectOnConditionStep;
import org.springframework.stereotype.Repository;

/** Ranges of numbers that were reserved ahead, and those that were given back. */
@Repository
public class RangeStore {
    private static final Person WHOM = Tables.PERSON.as("whom");
    private static final Person BY = Tables.PERSON.as("by_person");

    private final DSLContext db;

    public RangeStore(DSLContext db) {
        this.db = db;
    }

    /**
     * A range.
     *
     * @param scope within what its counter counts
     * @param nextBack the next of its values that is drawn again; none while it is reserved
     * @param forWhom whom it is for, {@code forName} by name; empty where whoever files may type it
     */
    public record Range(
            long id,
            long series,
            String scope,
            long first,
            long last,
            Optional<Long> nextBack,
            Optional<Long> forWhom,
            String forName,
            String note,
            String by,
            Instant at) {
        public boolean isReserved() {
            return nextBack.isEmpty();
        }
    }

    public long reserve(
            long series,
            String scope,
            long first,
            long last,
            Optional<Long> forWhom,
            String note,
            long by,
            Instant now) {
        return db.insertInto(NUMBER_RANGE)
                .set(NUMBER_RANGE.SERIES, series)
                .set(NUMBER_RANGE.SCOPE_KEY, scope)
                .set(NUMBER_RANGE.FIRST_VALUE, first)
                .set(NUMBER_RANGE.LAST_VALUE, last)
                .set(NUMBER_RANGE.FOR_PERSON, forWhom.orElse(null))
                .set(NUMBER_RANGE.NOTE, note)
                .set(NUMBER_RANGE.RESERVED_BY, by)
                .set(NUMBER_RANGE.RESERVED_AT, Times.utc(now))
                .returningResult(NUMBER_RANGE.ID)
                .fetchSingle()
                .value1();
    }

    private SelectOnConditionStep<?> select() {
        return db.select(NUMBER_RANGE.fields())
                .select(WHOM.NAME, BY.NAME)
                .from(NUMBER_RANGE)
                .leftJoin(WHOM)
                .on(WHOM.ID.eq(NUMBER_RANGE.FOR_PERSON))
                .join(BY)
                .on(BY.ID.eq(NUMBER_RANGE.RESERVED_BY));
    }

    private static Range range(Record row) {
        String whom = row.get(WHOM.NAME);
        return new Range(
                row.get(NUMBER_RANGE.ID),
                row.get(NUMBER_RANGE.SERIES),
                row.get(NUMBER_RANGE.SCOPE_KEY),
                row.get(NUMBER_RANGE.FIRST_VALUE),
                row.get(NUMBER_RANGE.LAST_VALUE),
                Optional.ofNullable(row.get(NUMBER_RANGE.NEXT_BACK)),
                Optional.ofNullable(row.get(NUMBER_RANGE.FOR_PERSON)),
                whom == null ? "" : whom,
                row.get(NUMBER_RANGE.NOTE),
                row.get(BY.NAME),
                Times.instant(row.get(NUMBER_RANGE.RESERVED_AT)));
    }

    /** The ranges of a series that hold something yet, the latest first; at most {@code most}. */
    public List<Range> ranges(long series, int most) {
        return select().where(
                        NUMBER_RANGE.SERIES.eq(series),
                        NUMBER_RANGE.NEXT_BACK.isNull().or(NUMBER_RANGE.NEXT_BACK.le(NUMBER_RANGE.LAST_VALUE)))
                .orderBy(NUMBER_RANGE.ID.desc())
                .limit(most)
                .fetch(RangeStore::range);
    }

    /** A range, locked until the transaction ends. */
    public Optional<Range> lock(long id) {
        db.select(NUMBER_RANGE.ID)
                .from(NUMBER_RANGE)
                .where(NUMBER_RANGE.ID.eq(id))
                .forUpdate()
                .fetch();
        return select().where(NUMBER_RANGE.ID.eq(id)).fetchOptional(RangeStore::range);
    }

    /** The range that reserves a value of a counter. */
    public Optional<Range> reserving(long series, String scope, long value) {
        return select().where(
                        NUMBER_RANGE.SERIES.eq(series),
                        NUMBER_RANGE.SCOPE_KEY.eq(scope),
                        NUMBER_RANGE.FIRST_VALUE.le(value),
                        NUMBER_RANGE.LAST_VALUE.ge(value),
                        NUMBER_RANGE.NEXT_BACK.isNull())
                .limit(1)
                .fetchOptional(RangeStore::range);
    }

    /** Whether any range is reserved. */
    public boolean reservesAny() {
        return db.fetchExists(NUMBER_RANGE, NUMBER_RANGE.NEXT_BACK.isNull());
    }

    /** Gives a range back: its values are drawn again, from the first on; those that are used are passed over then. */
    public void giveBack(long id) {
        db.update(NUMBER_RANGE)
                .set(NUMBER_RANGE.NEXT_BACK, NUMBER_RANGE.FIRST_VALUE)
                .where(NUMBER_RANGE.ID.eq(id), NUMBER_RANGE.NEXT_BACK.isNull())
                .execute();
    }

    /** Values that were drawn and are not needed are drawn again before their counter goes on. */
    public void back(long series, String scope, long first, long last, long by, Instant now) {
        db.insertInto(NUMBER_RANGE)
                .set(NUMBER_RANGE.SERIES, series)
                .set(NUMBER_RANGE.SCOPE_KEY, scope)
                .set(NUMBER_RANGE.FIRST_VALUE, first)
                .set(NUMBER_RANGE.LAST_VALUE, last)
                .set(NUMBER_RANGE.NEXT_BACK, first)
                .set(NUMBER_RANGE.NOTE, "kept for a filing sheet, not used")
                .set(NUMBER_RANGE.RESERVED_BY, by)
                .set(NUMBER_RANGE.RESERVED_AT, Times.utc(now))
                .execute();
    }

    /** The next value that was given back, for looking only. */
    public List<Range> back(long series, String scope) {
        return select().where(
                        NUMBER_RANGE.SERIES.eq(series),
                        NUMBER_RANGE.SCOPE_KEY.eq(scope),
                        NUMBER_RANGE.NEXT_BACK.le(NUMBER_RANGE.LAST_VALUE))
                .orderBy(NUMBER_RANGE.FIRST_VALUE)
                .fetch(RangeStore::range);
    }

    /** Draws a value that was given back within the caller's transaction: its range is locked until that ends. */
    public OptionalLong draw(long series, String scope) {
        Record row = db.select(NUMBER_RANGE.ID, NUMBER_RANGE.NEXT_BACK)
                .from(NUMBER_RANGE)
                .where(
                        NUMBER_RANGE.SERIES.eq(series),
                        NUMBER_RANGE.SCOPE_KEY.eq(scope),
                        NUMBER_RANGE.NEXT_BACK.le(NUMBER_RANGE.LAST_VALUE))
                .orderBy(NUMBER_RANGE.FIRST_VALUE)
                .limit(1)
                .forUpdate()
                .fetchOne();
        if (row == null) return OptionalLong.empty();
        long value = row.get(NUMBER_RANGE.NEXT_BACK);
        db.update(NUMBER_RANGE)
                .set(NUMBER_RANGE.NEXT_BACK, value + 1)
                .where(NUMBER_RANGE.ID.eq(row.get(NUMBER_RANGE.ID)))
                .execute();
        return OptionalLong.of(value);
    }
}
