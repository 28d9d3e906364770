package mintshelf.app.store.document;

import static mintshelf.database.schema.Tables.FACT;
import static mintshelf.database.schema.Tables.FACT_VALUE;
import static mintshelf.database.schema.Tables.ITEM;
import static mintshelf.database.schema.Tables.KIND_FACT;
import static mintshelf.database.schema.Tables.REVISION;

import java.math.BigDecimal;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import mintshelf.app.store.Prepared;
import mintshelf.core.fact.FactValue;
import org.jooq.DSLContext;
import org.jooq.Record;
import org.jooq.impl.DSL;
import org.springframework.stereotype.Repository;

/** Facts of revisions, typed. */
@Repository
public class FactStore {
    private final Prepared values = new Prepared((db, revisions) -> db.select(
                    FACT_VALUE.REVISION,
                    FACT_VALUE.FACT,
                    FACT.NAME,
                    FACT_VALUE.TEXT_VALUE,
                    FACT_VALUE.NUMBER_VALUE,
                    FACT_VALUE.DATE_VALUE)
            .from(FACT_VALUE)
            .join(FACT)
            .on(FACT.ID.eq(FACT_VALUE.FACT))
            .where(FACT_VALUE.REVISION.in(revisions)));
    private final Prepared filled = new Prepared((db, revisions) -> db.select(FACT_VALUE.REVISION, FACT.NAME)
            .from(FACT_VALUE)
            .join(FACT)
            .on(FACT.ID.eq(FACT_VALUE.FACT))
            .where(FACT_VALUE.REVISION.in(revisions)));
    private final DSLContext db;

    public FactStore(DSLContext db) {
        this.db = db;
    }

    /** The names of the facts that have a value, by revision; one statement. */
    public Map<Long, Set<String>> filled(Collection<Long> revisions) {
        Map<Long, Set<String>> names = new HashMap<>();
        if (revisions.isEmpty()) return names;
        filled.fetch(db, revisions)
                .forEach(row -> names.computeIfAbsent(row.get(FACT_VALUE.REVISION), r -> new TreeSet<>())
                        .add(row.get(FACT.NAME)));
        return names;
    }

    /** The facts of a revision by fact name, as text. */
    public Map<String, String> facts(long revision) {
        Map<String, String> facts = new TreeMap<>();
        values(revision).forEach((name, value) -> facts.put(name, value.text()));
        return facts;
    }

    /** The facts of revisions by fact name, as text; a statement for each few hundred. */
    public Map<Long, Map<String, String>> facts(Collection<Long> revisions) {
        Map<Long, Map<String, String>> facts = new HashMap<>();
        for (Record row : values.fetch(db, revisions)) {
            facts.computeIfAbsent(row.get(FACT_VALUE.REVISION), r -> new TreeMap<>())
                    .put(row.get(FACT.NAME), value(row).text());
        }
        return facts;
    }

    /** The facts of a revision by fact name. */
    public Map<String, FactValue> values(long revision) {
        Map<String, FactValue> facts = new TreeMap<>();
        for (Record row : values.fetch(db, List.of(revision))) facts.put(row.get(FACT.NAME), value(row));
        return facts;
    }

    /** The facts of revisions by fact id; a statement for each few hundred. */
    public Map<Long, Map<Long, FactValue>> valuesById(Collection<Long> revisions) {
        Map<Long, Map<Long, FactValue>> facts = new HashMap<>();
        for (Record row : values.fetch(db, revisions)) {
            facts.computeIfAbsent(row.get(FACT_VALUE.REVISION), r -> new TreeMap<>())
                    .put(row.get(FACT_VALUE.FACT), value(row));
        }
        return facts;
    }

    private static FactValue value(Record row) {
        String words = row.get(FACT_VALUE.TEXT_VALUE);
        if (words != null) return new FactValue.Words(words);
        BigDecimal number = row.get(FACT_VALUE.NUMBER_VALUE);
        return number != null
                ? new FactValue.Quantity(number.stripTrailingZeros())
                : new FactValue.Day(row.get(FACT_VALUE.DATE_VALUE));
    }

    /** How many documents under way of a kind lack each fact of its sheet, by short name; those that none lacks are left out. */
    public Map<String, Integer> lacking(long kind) {
        return db.select(FACT.NAME, DSL.count())
                .from(ITEM)
                .join(REVISION)
                .on(REVISION.ITEM.eq(ITEM.ID), REVISION.PENDING_MARK.isNotNull())
                .join(KIND_FACT)
                .on(KIND_FACT.KIND.eq(ITEM.KIND))
                .join(FACT)
                .on(FACT.ID.eq(KIND_FACT.FACT))
                .leftJoin(FACT_VALUE)
                .on(FACT_VALUE.REVISION.eq(REVISION.ID), FACT_VALUE.FACT.eq(FACT.ID))
                .where(ITEM.KIND.eq(kind), ITEM.DROPPED_AT.isNull(), FACT_VALUE.FACT.isNull())
                .groupBy(FACT.NAME)
                .fetchMap(FACT.NAME, DSL.count());
    }

    /** Documents under way of a kind whose revision lacks a fact, in the order in which they were filed. */
    public List<Long> lacking(long kind, long fact, int most) {
        return db.select(ITEM.ID)
                .from(ITEM)
                .join(REVISION)
                .on(REVISION.ITEM.eq(ITEM.ID), REVISION.PENDING_MARK.isNotNull())
                .leftJoin(FACT_VALUE)
                .on(FACT_VALUE.REVISION.eq(REVISION.ID), FACT_VALUE.FACT.eq(fact))
                .where(ITEM.KIND.eq(kind), ITEM.DROPPED_AT.isNull(), FACT_VALUE.FACT.isNull())
                .orderBy(ITEM.ID)
                .limit(most)
                .fetch(ITEM.ID);
    }

    public void setFact(long revision, long fact, Optional<FactValue> value) {
        if (value.isEmpty()) {
            db.deleteFrom(FACT_VALUE)
                    .where(FACT_VALUE.REVISION.eq(revision), FACT_VALUE.FACT.eq(fact))
                    .execute();
            return;
        }
        FactValue v = value.get();
        String text = v instanceof FactValue.Words words ? words.text() : null;
        var number = v instanceof FactValue.Quantity quantity ? quantity.number() : null;
        var day = v instanceof FactValue.Day d ? d.day() : null;
        db.insertInto(FACT_VALUE)
                .set(FACT_VALUE.REVISION, revision)
                .set(FACT_VALUE.FACT, fact)
                .set(FACT_VALUE.TEXT_VALUE, text)
                .set(FACT_VALUE.NUMBER_VALUE, number)
                .set(FACT_VALUE.DATE_VALUE, day)
                .onDuplicateKeyUpdate()
                .set(FACT_VALUE.TEXT_VALUE, text)
                .set(FACT_VALUE.NUMBER_VALUE, number)
                .set(FACT_VALUE.DATE_VALUE, day)
                .execute();
    }

    /** A revision that starts takes over the facts of the one before. */
    public void copyFacts(long from, long to) {
        db.insertInto(
                        FACT_VALUE,
                        FACT_VALUE.REVISION,
                        FACT_VALUE.FACT,
                        FACT_VALUE.TEXT_VALUE,
                        FACT_VALUE.NUMBER_VALUE,
                        FACT_VALUE.DATE_VALUE)
                .select(DSL.select(
                                DSL.val(to),
                                FACT_VALUE.FACT,
                                FACT_VALUE.TEXT_VALUE,
                                FACT_VALUE.NUMBER_VALUE,
                                FACT_VALUE.DATE_VALUE)
                        .from(FACT_VALUE)
                        .where(FACT_VALUE.REVISION.eq(from)))
                .execute();
    }
}
