package mintshelf.app.store.structure;

import static mintshelf.database.schema.Tables.PART_INSTEAD;
import static mintshelf.database.schema.Tables.PART_NUMBER;
import static mintshelf.database.schema.Tables.PART_VARIANT;
import static mintshelf.database.schema.Tables.PART_VARIANT_FACT;

import java.math.BigDecimal;
import java.time.Instant;
import java.util.Collection;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import mintshelf.app.store.Prepared;
import mintshelf.app.store.Times;
import mintshelf.core.base.Texts;
import mintshelf.core.bom.RollUp;
import mintshelf.core.bom.Variant;
import mintshelf.core.bom.Worth;
import mintshelf.core.numbering.NumberKey;
import org.jooq.DSLContext;
import org.jooq.Record;
import org.springframework.stereotype.Repository;

/** What revisions say of parts beside facts and lines: variants with their numbers, and values in the place of sums. */
@Repository
public class PartStore {
    private final Prepared variants = new Prepared((db, revisions) -> db.select(
                    PART_VARIANT.REVISION,
                    PART_VARIANT.SEQ,
                    PART_VARIANT.NAME,
                    PART_VARIANT.NUMBER,
                    PART_VARIANT_FACT.FACT,
                    PART_VARIANT_FACT.VALUE)
            .from(PART_VARIANT)
            .leftJoin(PART_VARIANT_FACT)
            .on(PART_VARIANT_FACT.REVISION.eq(PART_VARIANT.REVISION), PART_VARIANT_FACT.SEQ.eq(PART_VARIANT.SEQ))
            .where(PART_VARIANT.REVISION.in(revisions))
            .orderBy(PART_VARIANT.REVISION, PART_VARIANT.SEQ));
    private final Prepared instead =
            new Prepared((db, revisions) -> db.selectFrom(PART_INSTEAD).where(PART_INSTEAD.REVISION.in(revisions)));
    private final DSLContext db;

    public PartStore(DSLContext db) {
        this.db = db;
    }

    /** The variants of revisions, in their order; a statement for each few hundred. */
    public Map<Long, List<Variant>> variants(Collection<Long> revisions) {
        Map<Long, Map<Integer, Variant>> found = new HashMap<>();
        for (Record row : variants.fetch(db, revisions)) {
            Variant one = found.computeIfAbsent(row.get(PART_VARIANT.REVISION), r -> new LinkedHashMap<>())
                    .computeIfAbsent(
                            row.get(PART_VARIANT.SEQ),
                            s -> new Variant(
                                    row.get(PART_VARIANT.NAME), row.get(PART_VARIANT.NUMBER), new LinkedHashMap<>()));
            if (row.get(PART_VARIANT_FACT.FACT) != null)
                one.facts().put(row.get(PART_VARIANT_FACT.FACT), row.get(PART_VARIANT_FACT.VALUE));
        }
        Map<Long, List<Variant>> all = new HashMap<>();
        found.forEach((revision, some) -> all.put(revision, List.copyOf(some.values())));
        return all;
    }

    /** Puts variants in the place of those that a revision has. Within a transaction that has the document locked. */
    public void keep(long revision, List<Variant> some) {
        db.deleteFrom(PART_VARIANT_FACT)
                .where(PART_VARIANT_FACT.REVISION.eq(revision))
                .execute();
        db.deleteFrom(PART_VARIANT).where(PART_VARIANT.REVISION.eq(revision)).execute();
        int seq = 0;
        for (Variant one : some) {
            int place = ++seq;
            db.insertInto(PART_VARIANT)
                    .set(PART_VARIANT.REVISION, revision)
                    .set(PART_VARIANT.SEQ, place)
                    .set(PART_VARIANT.NAME, one.name())
                    .set(PART_VARIANT.NAME_KEY, Texts.key(one.name()))
                    .set(PART_VARIANT.NUMBER, one.number())
                    .execute();
            one.facts()
                    .forEach((fact, value) -> db.insertInto(PART_VARIANT_FACT)
                            .set(PART_VARIANT_FACT.REVISION, revision)
                            .set(PART_VARIANT_FACT.SEQ, place)
                            .set(PART_VARIANT_FACT.FACT, fact)
                            .set(PART_VARIANT_FACT.VALUE, value)
                            .execute());
        }
    }

    /** The next revision begins with the variants of the one before; what somebody weighed was of that one. */
    public void copy(long from, long to) {
        db.execute("""
                insert into part_variant (revision, seq, name, name_key, number)
                select ?, seq, name, name_key, number from part_variant where revision = ?
                """, to, from);
        db.execute("""
                insert into part_variant_fact (revision, seq, fact, value)
                select ?, seq, fact, value from part_variant_fact where revision = ?
                """, to, from);
    }

    /** A document that began as a copy of a version describes the same variants, without numbers yet. */
    public void begin(long revision, long source) {
        db.execute("""
                insert into part_variant (revision, seq, name, name_key, number)
                select ?, p.seq, p.name, p.name_key, ''
                from version src join part_variant p on p.revision = src.revision where src.id = ?
                """, revision, source);
        db.execute("""
                insert into part_variant_fact (revision, seq, fact, value)
                select ?, p.seq, p.fact, p.value
                from version src join part_variant_fact p on p.revision = src.revision where src.id = ?
                """, revision, source);
    }

    /** Takes a part number for a document; false where it is another one's. Two that ask at once do not both get it. */
    public boolean claim(NumberKey number, long item) {
        db.insertInto(PART_NUMBER)
                .set(PART_NUMBER.NUMBER_KEY, number.key())
                .set(PART_NUMBER.ITEM, item)
                .onDuplicateKeyIgnore()
                .execute();
        return described(number).equals(Optional.of(item));
    }

    /** The document that describes the variant of a part number, or did once. */
    public Optional<Long> described(NumberKey number) {
        return db.select(PART_NUMBER.ITEM)
                .from(PART_NUMBER)
                .where(PART_NUMBER.NUMBER_KEY.eq(number.key()))
                .fetchOptional(PART_NUMBER.ITEM);
    }

    /** What somebody says of revisions in the place of sums. */
    public Map<Long, Map<RollUp.Of, Worth.Instead>> instead(Collection<Long> revisions) {
        Map<Long, Map<RollUp.Of, Worth.Instead>> found = new HashMap<>();
        for (Record row : instead.fetch(db, revisions))
            found.computeIfAbsent(row.get(PART_INSTEAD.REVISION), r -> new HashMap<>())
                    .put(
                            RollUp.Of.valueOf(row.get(PART_INSTEAD.WHAT)),
                            new Worth.Instead(
                                    row.get(PART_INSTEAD.VALUE).stripTrailingZeros(), row.get(PART_INSTEAD.WHY)));
        return found;
    }

    /** Keeps a value in the place of a sum; nothing takes it away. */
    public void say(long revision, RollUp.Of what, Optional<BigDecimal> value, String why, long person, Instant at) {
        db.deleteFrom(PART_INSTEAD)
                .where(PART_INSTEAD.REVISION.eq(revision), PART_INSTEAD.WHAT.eq(what.name()))
                .execute();
        value.ifPresent(v -> db.insertInto(PART_INSTEAD)
                .set(PART_INSTEAD.REVISION, revision)
                .set(PART_INSTEAD.WHAT, what.name())
                .set(PART_INSTEAD.VALUE, v)
                .set(PART_INSTEAD.WHY, why)
                .set(PART_INSTEAD.PERSON, person)
                .set(PART_INSTEAD.AT, Times.utc(at))
                .execute());
    }
}
