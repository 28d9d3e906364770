package mintshelf.app.store.act;

import static mintshelf.database.schema.Tables.ACT;

import java.time.Duration;
import java.time.Instant;
import java.util.Optional;
import mintshelf.app.store.Times;
import mintshelf.core.base.ContentHash;
import org.jooq.DSLContext;
import org.springframework.stereotype.Repository;

/** Acts by the key that their form carried, so that the same form posted twice is done once and answered alike. */
@Repository
public class ActStore {
    private final DSLContext db;

    public ActStore(DSLContext db) {
        this.db = db;
    }

    /** An act that was done: its result, and with what it was asked. */
    public record Done(String result, Optional<ContentHash> said) {}

    /**
     * Claims a key within the caller's transaction. A second poster waits here until the first commits.
     *
     * @param said hash of what the act is asked with; empty where nobody asks over a page or the interface
     * @return nothing when the act is to be done now; the first one's result when it was done
     */
    public Optional<Done> claim(long person, String key, Optional<ContentHash> said, Instant now) {
        int made = db.insertInto(ACT)
                .set(ACT.PERSON, person)
                .set(ACT.ACT_KEY, key)
                .set(ACT.RESULT, "")
                .set(ACT.SAID, said.map(ContentHash::bytes).orElse(null))
                .set(ACT.AT, Times.utc(now))
                .onDuplicateKeyIgnore()
                .execute();
        if (made == 1) return Optional.empty();
        return db.select(ACT.RESULT, ACT.SAID)
                .from(ACT)
                .where(ACT.PERSON.eq(person), ACT.ACT_KEY.eq(key))
                .fetchOptional(row ->
                        new Done(row.value1(), Optional.ofNullable(row.value2()).map(ContentHash::of)));
    }

    /** Whether a key was used for something that was done. */
    public boolean isDone(long person, String key) {
        return db.fetchExists(ACT, ACT.PERSON.eq(person), ACT.ACT_KEY.eq(key), ACT.RESULT.ne(""));
    }

    public void result(long person, String key, String result) {
        db.update(ACT)
                .set(ACT.RESULT, result)
                .where(ACT.PERSON.eq(person), ACT.ACT_KEY.eq(key))
                .execute();
    }

    /** Forgets acts older than {@code age}; nobody posts a form again after that. */
    public int forget(Instant now, Duration age) {
        return db.deleteFrom(ACT)
                .where(ACT.AT.lt(Times.utc(now.minus(age))))
                .limit(5000)
                .execute();
    }
}
