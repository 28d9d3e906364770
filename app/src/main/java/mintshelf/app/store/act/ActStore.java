package mintshelf.app.store.act;

import static mintshelf.database.schema.Tables.ACT;

import java.time.Duration;
import java.time.Instant;
import java.util.Optional;
import mintshelf.app.store.Times;
import org.jooq.DSLContext;
import org.springframework.stereotype.Repository;

/** Acts by the key that their form carried, so that the same form posted twice is done once and answered alike. */
@Repository
public class ActStore {
    private final DSLContext db;

    public ActStore(DSLContext db) {
        this.db = db;
    }

    /**
     * Claims a key within the caller's transaction. A second poster waits here until the first commits.
     *
     * @return nothing when the act is to be done now; the first one's result when it was done
     */
    public Optional<String> claim(long person, String key, Instant now) {
        int made = db.insertInto(ACT)
                .set(ACT.PERSON, person)
                .set(ACT.ACT_KEY, key)
                .set(ACT.RESULT, "")
                .set(ACT.AT, Times.utc(now))
                .onDuplicateKeyIgnore()
                .execute();
        if (made == 1) return Optional.empty();
        return Optional.of(db.select(ACT.RESULT)
                .from(ACT)
                .where(ACT.PERSON.eq(person), ACT.ACT_KEY.eq(key))
                .fetchSingle()
                .value1());
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
