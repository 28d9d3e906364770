package mintshelf.app.store.document;

import static mintshelf.database.schema.Tables.NUMBER_CLAIM;
import static mintshelf.database.schema.Tables.NUMBER_COUNTER;
import static mintshelf.database.schema.Tables.NUMBER_SERIES;

import java.time.Instant;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import mintshelf.app.store.Times;
import mintshelf.core.document.Aspect;
import mintshelf.core.numbering.NumberKey;
import mintshelf.database.schema.tables.records.NumberClaimRecord;
import org.jooq.Condition;
import org.jooq.DSLContext;
import org.springframework.stereotype.Repository;

/** Number series, their counters, and every number that is or was in use. */
@Repository
public class NumberStore {
    private static final int AT_ONCE = 500;

    private final DSLContext db;

    public NumberStore(DSLContext db) {
        this.db = db;
    }

    /** A series: its pattern and within what it counts (SERVER, SHELF or KIND). */
    public record Series(long id, String pattern, String scope) {}

    public Series series(long id) {
        return db.select(NUMBER_SERIES.ID, NUMBER_SERIES.PATTERN, NUMBER_SERIES.SCOPE)
                .from(NUMBER_SERIES)
                .where(NUMBER_SERIES.ID.eq(id))
                .fetchSingle(row -> new Series(row.value1(), row.value2(), row.value3()));
    }

    /** Draws the next value of a counter within the caller's transaction: the counter's row is locked until it ends. */
    public long draw(long series, String scopeKey) {
        return draw(series, scopeKey, 1);
    }

    /** Draws the next values of a counter, as {@link #draw(long, String)}: the first of them. */
    public long draw(long series, String scopeKey, int many) {
        ready(series, scopeKey);
        long value = db.select(NUMBER_COUNTER.NEXT_VALUE)
                .from(NUMBER_COUNTER)
                .where(NUMBER_COUNTER.SERIES.eq(series), NUMBER_COUNTER.SCOPE_KEY.eq(scopeKey))
                .forUpdate()
                .fetchSingle()
                .value1();
        db.update(NUMBER_COUNTER)
                .set(NUMBER_COUNTER.NEXT_VALUE, value + many)
                .where(NUMBER_COUNTER.SERIES.eq(series), NUMBER_COUNTER.SCOPE_KEY.eq(scopeKey))
                .execute();
        return value;
    }

    /** The next value of a counter as it stands; 1 for one that has not begun. */
    public long next(long series, String scopeKey) {
        return db.select(NUMBER_COUNTER.NEXT_VALUE)
                .from(NUMBER_COUNTER)
                .where(NUMBER_COUNTER.SERIES.eq(series), NUMBER_COUNTER.SCOPE_KEY.eq(scopeKey))
                .fetchOptional(NUMBER_COUNTER.NEXT_VALUE)
                .orElse(1L);
    }

    /** A counter of a series: within what it counts, and its next value. */
    public record Counter(String within, long next) {}

    /** The counters of a series, in the order of their scopes; at most {@code most}. */
    public List<Counter> counters(long series, int most) {
        return db.select(NUMBER_COUNTER.SCOPE_KEY, NUMBER_COUNTER.NEXT_VALUE)
                .from(NUMBER_COUNTER)
                .where(NUMBER_COUNTER.SERIES.eq(series))
                .orderBy(NUMBER_COUNTER.SCOPE_KEY)
                .limit(most)
                .fetch(row -> new Counter(row.value1(), row.value2()));
    }

    /** Pushes a counter on, behind a value that was typed or imported. */
    public void push(long series, String scopeKey, long used) {
        ready(series, scopeKey);
        db.update(NUMBER_COUNTER)
                .set(NUMBER_COUNTER.NEXT_VALUE, used + 1)
                .where(
                        NUMBER_COUNTER.SERIES.eq(series),
                        NUMBER_COUNTER.SCOPE_KEY.eq(scopeKey),
                        NUMBER_COUNTER.NEXT_VALUE.le(used))
                .execute();
    }

    /** Takes back the last values that were drawn from a counter, from {@code first} to {@code last}; whether it did, for others may have drawn since. */
    public boolean takeBack(long series, String scopeKey, long first, long last) {
        return db.update(NUMBER_COUNTER)
                        .set(NUMBER_COUNTER.NEXT_VALUE, first)
                        .where(
                                NUMBER_COUNTER.SERIES.eq(series),
                                NUMBER_COUNTER.SCOPE_KEY.eq(scopeKey),
                                NUMBER_COUNTER.NEXT_VALUE.eq(last + 1))
                        .execute()
                == 1;
    }

    private void ready(long series, String scopeKey) {
        db.execute(
                "insert into number_counter (series, scope_key, next_value) values (?, ?, 1)"
                        + " on duplicate key update next_value = next_value",
                series,
                scopeKey);
    }

    /** Which of these keys are or were in use for any of the aspects; one statement. */
    public Set<String> used(Collection<Aspect> aspects, Collection<String> keys) {
        return db.select(NUMBER_CLAIM.NUMBER_KEY)
                .from(NUMBER_CLAIM)
                .where(
                        NUMBER_CLAIM.ASPECT.in(
                                aspects.stream().map(Aspect::name).toList()),
                        NUMBER_CLAIM.NUMBER_KEY.in(keys))
                .fetchSet(NUMBER_CLAIM.NUMBER_KEY);
    }

    /** Whether a number is or was in use for the aspect. */
    public boolean isUsed(Aspect aspect, NumberKey number) {
        return db.fetchExists(
                NUMBER_CLAIM, NUMBER_CLAIM.ASPECT.eq(aspect.name()), NUMBER_CLAIM.NUMBER_KEY.eq(number.key()));
    }

    /** Claims a number for a document; the database refuses one that was ever used. */
    public void claim(Aspect aspect, NumberKey number, long item, Instant now) {
        db.insertInto(NUMBER_CLAIM)
                .set(NUMBER_CLAIM.ASPECT, aspect.name())
                .set(NUMBER_CLAIM.NUMBER_KEY, number.key())
                .set(NUMBER_CLAIM.NUMBER, number.number())
                .set(NUMBER_CLAIM.ITEM, item)
                .set(NUMBER_CLAIM.STATE, "CURRENT")
                .set(NUMBER_CLAIM.CURRENT_MARK, (short) 1)
                .set(NUMBER_CLAIM.AT, Times.utc(now))
                .execute();
    }

    /** Claims a number that a document had before: it keeps finding it, and is given to no other. */
    public void claimFormer(Aspect aspect, NumberKey number, long item, Instant now) {
        db.insertInto(NUMBER_CLAIM)
                .set(NUMBER_CLAIM.ASPECT, aspect.name())
                .set(NUMBER_CLAIM.NUMBER_KEY, number.key())
                .set(NUMBER_CLAIM.NUMBER, number.number())
                .set(NUMBER_CLAIM.ITEM, item)
                .set(NUMBER_CLAIM.STATE, "FORMER")
                .set(NUMBER_CLAIM.AT, Times.utc(now))
                .execute();
    }

    /** Claims numbers that no document has yet: nobody else gets them. */
    public void reserve(Aspect aspect, Collection<NumberKey> all, Instant now) {
        db.batchInsert(all.stream()
                        .map(number -> {
                            NumberClaimRecord row = db.newRecord(NUMBER_CLAIM);
                            row.setAspect(aspect.name());
                            row.setNumberKey(number.key());
                            row.setNumber(number.number());
                            row.setState("RESERVED");
                            row.setAt(Times.utc(now));
                            return row;
                        })
                        .toList())
                .execute();
    }

    /** Numbers that were reserved are nobody's again. */
    public void free(Aspect aspect, Collection<String> keys) {
        db.deleteFrom(NUMBER_CLAIM)
                .where(
                        NUMBER_CLAIM.ASPECT.eq(aspect.name()),
                        NUMBER_CLAIM.NUMBER_KEY.in(keys),
                        NUMBER_CLAIM.STATE.eq("RESERVED"))
                .execute();
    }

    /** The number that a document has becomes a former one, and another one its own: a new one, or one that it had before. */
    public void rename(Aspect aspect, long item, NumberKey number, Instant now) {
        db.update(NUMBER_CLAIM)
                .set(NUMBER_CLAIM.STATE, "FORMER")
                .setNull(NUMBER_CLAIM.CURRENT_MARK)
                .where(NUMBER_CLAIM.ITEM.eq(item), NUMBER_CLAIM.CURRENT_MARK.eq((short) 1))
                .execute();
        int again = db.update(NUMBER_CLAIM)
                .set(NUMBER_CLAIM.STATE, "CURRENT")
                .set(NUMBER_CLAIM.CURRENT_MARK, (short) 1)
                .set(NUMBER_CLAIM.NUMBER, number.number())
                .where(
                        NUMBER_CLAIM.ASPECT.eq(aspect.name()),
                        NUMBER_CLAIM.NUMBER_KEY.eq(number.key()),
                        NUMBER_CLAIM.ITEM.eq(item))
                .execute();
        if (again == 0) claim(aspect, number, item, now);
    }

    /** The number that a document has is one of another aspect; the database refuses one that is used there. */
    public void reclaim(Aspect aspect, long item) {
        db.update(NUMBER_CLAIM)
                .set(NUMBER_CLAIM.ASPECT, aspect.name())
                .where(NUMBER_CLAIM.ITEM.eq(item), NUMBER_CLAIM.CURRENT_MARK.eq((short) 1))
                .execute();
    }

    /** A dropped document keeps its number used. */
    public void drop(long item) {
        db.update(NUMBER_CLAIM)
                .set(NUMBER_CLAIM.STATE, "DROPPED")
                .where(NUMBER_CLAIM.ITEM.eq(item), NUMBER_CLAIM.CURRENT_MARK.eq((short) 1))
                .execute();
    }

    /** A document that was brought back has its number again. */
    public void bringBack(long item) {
        db.update(NUMBER_CLAIM)
                .set(NUMBER_CLAIM.STATE, "CURRENT")
                .where(NUMBER_CLAIM.ITEM.eq(item), NUMBER_CLAIM.CURRENT_MARK.eq((short) 1))
                .execute();
    }

    /** Documents whose current or former number is this one. */
    public List<Long> items(NumberKey number) {
        return db.selectDistinct(NUMBER_CLAIM.ITEM)
                .from(NUMBER_CLAIM)
                .where(NUMBER_CLAIM.NUMBER_KEY.eq(number.key()), NUMBER_CLAIM.ITEM.isNotNull())
                .fetch(NUMBER_CLAIM.ITEM);
    }

    /** As {@link #items(NumberKey)}, of several by their keys; one statement. */
    public Map<String, List<Long>> items(Collection<NumberKey> all) {
        if (all.isEmpty()) return Map.of();
        return db.selectDistinct(NUMBER_CLAIM.NUMBER_KEY, NUMBER_CLAIM.ITEM)
                .from(NUMBER_CLAIM)
                .where(
                        NUMBER_CLAIM.NUMBER_KEY.in(
                                all.stream().map(NumberKey::key).toList()),
                        NUMBER_CLAIM.ITEM.isNotNull())
                .orderBy(NUMBER_CLAIM.ITEM)
                .fetchGroups(NUMBER_CLAIM.NUMBER_KEY, NUMBER_CLAIM.ITEM);
    }

    /**
     * Of documents those beside which a part without a file bears the same number: by document that part. A statement where there are none in the house,
     * else one for each few hundred documents more.
     */
    public Map<Long, Long> ownParts(Collection<Long> items) {
        var part = NUMBER_CLAIM.as("part");
        Condition same = part.NUMBER_KEY
                .eq(NUMBER_CLAIM.NUMBER_KEY)
                .and(part.ASPECT.eq(Aspect.PART.name()))
                .and(part.STATE.eq("CURRENT"));
        Condition drawn = NUMBER_CLAIM
                .ASPECT
                .in(Aspect.MODEL.name(), Aspect.DRAWING.name())
                .and(NUMBER_CLAIM.STATE.eq("CURRENT"));
        Map<Long, Long> own = new HashMap<>();
        if (items.isEmpty()
                || !db.fetchExists(
                        db.selectOne().from(part).join(NUMBER_CLAIM).on(same).where(drawn))) return own;
        List<Long> ids = List.copyOf(items);
        for (int at = 0; at < ids.size(); at += AT_ONCE)
            db.select(NUMBER_CLAIM.ITEM, part.ITEM)
                    .from(NUMBER_CLAIM)
                    .join(part)
                    .on(same)
                    .where(drawn, NUMBER_CLAIM.ITEM.in(ids.subList(at, Math.min(ids.size(), at + AT_ONCE))))
                    .forEach(row -> own.put(row.value1(), row.value2()));
        return own;
    }

    /** The numbers that documents had before; those without any are left out. */
    public Map<Long, List<String>> former(Collection<Long> items) {
        if (items.isEmpty()) return Map.of();
        return db.select(NUMBER_CLAIM.ITEM, NUMBER_CLAIM.NUMBER)
                .from(NUMBER_CLAIM)
                .where(NUMBER_CLAIM.STATE.eq("FORMER"), NUMBER_CLAIM.ITEM.in(items))
                .orderBy(NUMBER_CLAIM.ID.desc())
                .fetchGroups(NUMBER_CLAIM.ITEM, NUMBER_CLAIM.NUMBER);
    }

    public Optional<Long> item(Aspect aspect, NumberKey number) {
        return db.select(NUMBER_CLAIM.ITEM)
                .from(NUMBER_CLAIM)
                .where(
                        NUMBER_CLAIM.ASPECT.eq(aspect.name()),
                        NUMBER_CLAIM.NUMBER_KEY.eq(number.key()),
                        NUMBER_CLAIM.ITEM.isNotNull())
                .fetchOptional(NUMBER_CLAIM.ITEM);
    }
}
