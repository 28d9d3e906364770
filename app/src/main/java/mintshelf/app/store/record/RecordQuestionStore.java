package mintshelf.app.store.record;

import static mintshelf.database.schema.Tables.ITEM;
import static mintshelf.database.schema.Tables.NUMBER_CLAIM;
import static mintshelf.database.schema.Tables.PERSON;
import static mintshelf.database.schema.Tables.RECORD_ENTRY;

import java.time.Instant;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import mintshelf.app.store.Times;
import mintshelf.app.store.record.RecordStore.Shown;
import mintshelf.core.base.ContentHash;
import mintshelf.core.base.Texts;
import org.jooq.Condition;
import org.jooq.DSLContext;
import org.jooq.OrderField;
import org.jooq.Row3;
import org.jooq.impl.DSL;
import org.springframework.stereotype.Repository;

/** Looks things up in the record: by who, which document, which acts, when, and what was said. */
@Repository
public class RecordQuestionStore {
    /** Seconds that one question may take: words are found by reading along. */
    private static final int LONGEST = 10;

    private final DSLContext db;

    public RecordQuestionStore(DSLContext db) {
        this.db = db;
    }

    /**
     * What is looked for; what is empty is not asked.
     *
     * @param who part of a person's name, or their login
     * @param number of a document, as it is or was
     * @param acts how the names of the acts begin: {@code hold.}
     * @param from first moment, {@code until} the first one after
     * @param words part of what the entry says, or of the reason
     */
    public record Question(
            String who, String number, String acts, Optional<Instant> from, Optional<Instant> until, String words) {
        public static final Question ALL = new Question("", "", "", Optional.empty(), Optional.empty(), "");
    }

    /** Where an entry stands in the order of all: by its moment, of one moment by its stream and place. */
    public record Spot(Instant at, long stream, int seq) {
        public static Spot of(Shown shown) {
            return new Spot(
                    shown.entry().at(), shown.entry().stream(), shown.entry().seq());
        }
    }

    private static final Row3<java.time.LocalDateTime, Long, Integer> SPOT =
            DSL.row(RECORD_ENTRY.AT, RECORD_ENTRY.STREAM, RECORD_ENTRY.SEQ);

    /** Entries before a spot, the latest first. */
    public List<Shown> before(Question question, Spot spot, int most) {
        return find(
                question,
                SPOT.lt(Times.utc(spot.at()), spot.stream(), spot.seq()),
                List.of(RECORD_ENTRY.AT.desc(), RECORD_ENTRY.STREAM.desc(), RECORD_ENTRY.SEQ.desc()),
                most);
    }

    /** Entries after a spot, the earliest first. */
    public List<Shown> after(Question question, Spot spot, int most) {
        return find(
                question,
                SPOT.gt(Times.utc(spot.at()), spot.stream(), spot.seq()),
                List.of(RECORD_ENTRY.AT, RECORD_ENTRY.STREAM, RECORD_ENTRY.SEQ),
                most);
    }

    private List<Shown> find(Question question, Condition where, List<? extends OrderField<?>> order, int most) {
        return db.select(RECORD_ENTRY.fields())
                .select(PERSON.NAME, ITEM.NUMBER)
                .from(RECORD_ENTRY)
                .leftJoin(PERSON)
                .on(PERSON.ID.eq(RECORD_ENTRY.PERSON))
                .leftJoin(ITEM)
                .on(ITEM.ID.eq(RECORD_ENTRY.ITEM))
                .where(where, asked(question))
                .orderBy(order)
                .limit(most)
                .queryTimeout(LONGEST)
                .fetch(RecordStore::shown);
    }

    private static Condition asked(Question q) {
        Condition all = DSL.noCondition();
        if (!q.who().isEmpty()) {
            all = all.and(RECORD_ENTRY.PERSON.in(DSL.select(PERSON.ID)
                    .from(PERSON)
                    .where(PERSON.NAME.containsIgnoreCase(q.who()).or(PERSON.LOGIN_KEY.eq(Texts.key(q.who()))))));
        }
        if (!q.number().isEmpty()) {
            all = all.and(RECORD_ENTRY.ITEM.in(DSL.select(NUMBER_CLAIM.ITEM)
                    .from(NUMBER_CLAIM)
                    .where(NUMBER_CLAIM.NUMBER_KEY.eq(Texts.key(q.number())))));
        }
        if (!q.acts().isEmpty()) all = all.and(RECORD_ENTRY.ACT.startsWith(q.acts()));
        if (q.from().isPresent())
            all = all.and(RECORD_ENTRY.AT.ge(Times.utc(q.from().get())));
        if (q.until().isPresent())
            all = all.and(RECORD_ENTRY.AT.lt(Times.utc(q.until().get())));
        if (!q.words().isEmpty()) {
            all = all.and(
                    RECORD_ENTRY.SAYS.containsIgnoreCase(q.words()).or(RECORD_ENTRY.WHY.containsIgnoreCase(q.words())));
        }
        return all;
    }

    /** A place in a stream. */
    public record Place(long stream, int seq) {}

    /** The hashes of entries; those that are not there are left out. One statement. */
    public Map<Place, ContentHash> hashes(Collection<Place> places) {
        Map<Place, ContentHash> hashes = new HashMap<>();
        db.select(RECORD_ENTRY.STREAM, RECORD_ENTRY.SEQ, RECORD_ENTRY.HASH)
                .from(RECORD_ENTRY)
                .where(DSL.row(RECORD_ENTRY.STREAM, RECORD_ENTRY.SEQ)
                        .in(places.stream()
                                .map(p -> DSL.row(p.stream(), p.seq()))
                                .toList()))
                .forEach(row -> hashes.put(new Place(row.value1(), row.value2()), ContentHash.of(row.value3())));
        return hashes;
    }
}
