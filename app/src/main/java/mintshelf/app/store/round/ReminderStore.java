package mintshelf.app.store.round;

import static mintshelf.database.schema.Tables.PERSON;
import static mintshelf.database.schema.Tables.REMINDER;

import java.time.Instant;
import java.time.LocalDate;
import java.util.Collection;
import java.util.List;
import java.util.Optional;
import mintshelf.app.store.Times;
import org.jooq.DSLContext;
import org.jooq.impl.DSL;
import org.springframework.stereotype.Repository;

/** What was said again of questions that wait. Of several nodes that would say it at once the database takes one. */
@Repository
public class ReminderStore {
    private final DSLContext db;

    public ReminderStore(DSLContext db) {
        this.db = db;
    }

    /** A reminder; {@code byName} is empty for one that the server said by itself. */
    public record Said(long ask, String kind, String byName, Instant at) {}

    /**
     * Notes that something is said; whether it was not noted before.
     *
     * @param day the due day that it is about, or the day on which a hand reminds
     */
    public boolean note(long ask, String kind, LocalDate day, Optional<Long> by, Instant now) {
        return db.insertInto(REMINDER)
                        .set(REMINDER.ASK, ask)
                        .set(REMINDER.KIND, kind)
                        .set(REMINDER.DAY, day)
                        .set(REMINDER.BY_PERSON, by.orElse(null))
                        .set(REMINDER.AT, Times.utc(now))
                        .onDuplicateKeyIgnore()
                        .execute()
                > 0;
    }

    /** What was said of asks, the earliest first; one statement. */
    public List<Said> of(Collection<Long> asks) {
        if (asks.isEmpty()) return List.of();
        return db.select(REMINDER.ASK, REMINDER.KIND, DSL.coalesce(PERSON.NAME, ""), REMINDER.AT)
                .from(REMINDER)
                .leftJoin(PERSON)
                .on(PERSON.ID.eq(REMINDER.BY_PERSON))
                .where(REMINDER.ASK.in(asks))
                .orderBy(REMINDER.AT)
                .fetch(row -> new Said(row.value1(), row.value2(), row.value3(), Times.instant(row.value4())));
    }
}
