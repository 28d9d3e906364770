package mintshelf.app.store.document;

import static mintshelf.database.schema.Tables.FILING;
import static mintshelf.database.schema.Tables.FILING_ROW;
import static mintshelf.database.schema.Tables.NUMBER_CLAIM;
import static mintshelf.database.schema.Tables.NUMBER_RESERVED;
import static mintshelf.database.schema.Tables.PERSON;

import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import mintshelf.core.document.Aspect;
import mintshelf.core.numbering.NumberKey;
import mintshelf.database.schema.tables.records.NumberReservedRecord;
import org.jooq.Condition;
import org.jooq.DSLContext;
import org.springframework.stereotype.Repository;

/** Numbers that are kept for rows of filing sheets which are open, and where they were drawn from. */
@Repository
public class ReservedStore {
    private final DSLContext db;

    public ReservedStore(DSLContext db) {
        this.db = db;
    }

    /** A number that is kept for a row: of what it is one, and the value of the counter that made it. */
    public record Reserved(long row, Aspect aspect, NumberKey number, long series, String scope, long value) {}

    public void keep(Collection<Reserved> all) {
        db.batchInsert(all.stream()
                        .map(r -> {
                            NumberReservedRecord row = db.newRecord(NUMBER_RESERVED);
                            row.setFilingRow(r.row());
                            row.setAspect(r.aspect().name());
                            row.setNumberKey(r.number().key());
                            row.setSeries(r.series());
                            row.setScopeKey(r.scope());
                            row.setValue(r.value());
                            return row;
                        })
                        .toList())
                .execute();
    }

    /** What is kept for these rows, by row. */
    public Map<Long, Reserved> of(Collection<Long> rows) {
        return rows.isEmpty() ? Map.of() : reserved(NUMBER_RESERVED.FILING_ROW.in(rows));
    }

    /** What is kept for the rows of these uploads, by row. */
    public Map<Long, Reserved> ofUploads(Collection<Long> uploads) {
        if (uploads.isEmpty()) return Map.of();
        return reserved(NUMBER_RESERVED.FILING_ROW.in(
                db.select(FILING_ROW.ID).from(FILING_ROW).where(FILING_ROW.UPLOAD.in(uploads))));
    }

    private Map<Long, Reserved> reserved(Condition which) {
        Map<Long, Reserved> found = new HashMap<>();
        db.select(NUMBER_RESERVED.fields())
                .select(NUMBER_CLAIM.NUMBER)
                .from(NUMBER_RESERVED)
                .join(NUMBER_CLAIM)
                .on(
                        NUMBER_CLAIM.ASPECT.eq(NUMBER_RESERVED.ASPECT),
                        NUMBER_CLAIM.NUMBER_KEY.eq(NUMBER_RESERVED.NUMBER_KEY))
                .where(which)
                .forEach(row -> found.put(
                        row.get(NUMBER_RESERVED.FILING_ROW),
                        new Reserved(
                                row.get(NUMBER_RESERVED.FILING_ROW),
                                Aspect.valueOf(row.get(NUMBER_RESERVED.ASPECT)),
                                NumberKey.of(row.get(NUMBER_CLAIM.NUMBER))
                                        .toOptional()
                                        .orElseThrow(),
                                row.get(NUMBER_RESERVED.SERIES),
                                row.get(NUMBER_RESERVED.SCOPE_KEY),
                                row.get(NUMBER_RESERVED.VALUE))));
        return found;
    }

    public void free(Collection<Long> rows) {
        db.deleteFrom(NUMBER_RESERVED)
                .where(NUMBER_RESERVED.FILING_ROW.in(rows))
                .execute();
    }

    /** Whose sheet a number is kept for. */
    public record Holder(long person, String name) {}

    /** For whom a number is kept; nobody where it is not. */
    public Optional<Holder> holder(Aspect aspect, NumberKey number) {
        return db.select(PERSON.ID, PERSON.NAME)
                .from(NUMBER_RESERVED)
                .join(FILING_ROW)
                .on(FILING_ROW.ID.eq(NUMBER_RESERVED.FILING_ROW))
                .join(FILING)
                .on(FILING.ID.eq(FILING_ROW.FILING))
                .join(PERSON)
                .on(PERSON.ID.eq(FILING.PERSON))
                .where(NUMBER_RESERVED.ASPECT.eq(aspect.name()), NUMBER_RESERVED.NUMBER_KEY.eq(number.key()))
                .fetchOptional(row -> new Holder(row.value1(), row.value2()));
    }

    /** Whose sheets rows stand on. */
    public Map<Long, Long> people(Collection<Long> rows) {
        List<Long> all = List.copyOf(rows);
        if (all.isEmpty()) return Map.of();
        return db.select(FILING_ROW.ID, FILING.PERSON)
                .from(FILING_ROW)
                .join(FILING)
                .on(FILING.ID.eq(FILING_ROW.FILING))
                .where(FILING_ROW.ID.in(all))
                .fetchMap(FILING_ROW.ID, FILING.PERSON);
    }
}
