package mintshelf.app.store.record;

import static mintshelf.database.schema.Tables.PERSON;
import static mintshelf.database.schema.Tables.RECORD_ENTRY;

import java.time.Instant;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import mintshelf.app.store.Times;
import org.jooq.DSLContext;
import org.springframework.stereotype.Repository;

/** The end of the record, as it grows. */
@Repository
public class RecordTailStore {
    /** Acts by which nothing changes that others see. */
    private static final Set<String> READING = Set.of("version.fetched");

    private final DSLContext db;

    public RecordTailStore(DSLContext db) {
        this.db = db;
    }

    /** Where an entry stands. */
    public record Place(long stream, int seq) {}

    /**
     * An entry of a document.
     *
     * @param person who did it, 0 for the server itself
     */
    public record Line(Place place, Instant at, long item, String act, long person, String by, String says) {}

    /** Entries of documents from a moment on, in their order; at most {@code most}, the latest of them. */
    public List<Line> since(Instant from, int most) {
        List<Line> lines = db.select(
                        RECORD_ENTRY.STREAM,
                        RECORD_ENTRY.SEQ,
                        RECORD_ENTRY.AT,
                        RECORD_ENTRY.ITEM,
                        RECORD_ENTRY.ACT,
                        RECORD_ENTRY.PERSON,
                        PERSON.NAME,
                        RECORD_ENTRY.SAYS)
                .from(RECORD_ENTRY)
                .leftJoin(PERSON)
                .on(PERSON.ID.eq(RECORD_ENTRY.PERSON))
                .where(
                        RECORD_ENTRY.AT.ge(Times.utc(from)),
                        RECORD_ENTRY.ITEM.isNotNull(),
                        RECORD_ENTRY.ACT.notIn(READING))
                .orderBy(RECORD_ENTRY.AT.desc(), RECORD_ENTRY.STREAM.desc(), RECORD_ENTRY.SEQ.desc())
                .limit(most)
                .fetch(row -> new Line(
                        new Place(row.value1(), row.value2()),
                        Times.instant(row.value3()),
                        row.value4(),
                        row.value5(),
                        Optional.ofNullable(row.value6()).orElse(0L),
                        Optional.ofNullable(row.value7()).orElse("Mint Shelf"),
                        row.value8()));
        return lines.stream().sorted((a, b) -> a.at().compareTo(b.at())).toList();
    }
}
