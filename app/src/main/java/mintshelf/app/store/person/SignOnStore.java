package mintshelf.app.store.person;

import static mintshelf.database.schema.Tables.PERSON_SIGN_ON;

import java.time.Instant;
import java.util.Optional;
import mintshelf.app.store.Times;
import mintshelf.core.base.ContentHash;
import org.jooq.DSLContext;
import org.springframework.stereotype.Repository;

/** Whom the house's sign-on means by what it calls them. */
@Repository
public class SignOnStore {
    private final DSLContext db;

    public SignOnStore(DSLContext db) {
        this.db = db;
    }

    /** @param subject hash of issuer and subject */
    public Optional<Long> person(ContentHash subject) {
        return db.select(PERSON_SIGN_ON.PERSON)
                .from(PERSON_SIGN_ON)
                .where(PERSON_SIGN_ON.SUBJECT.eq(subject.bytes()))
                .fetchOptional(PERSON_SIGN_ON.PERSON);
    }

    /** Whether somebody is signed in by it already, under whatever name. */
    public boolean isKnown(long person) {
        return db.fetchExists(db.selectFrom(PERSON_SIGN_ON).where(PERSON_SIGN_ON.PERSON.eq(person)));
    }

    /** From now on this subject is that person; of two at once the database takes one. */
    public void add(ContentHash subject, long person, Instant now) {
        db.insertInto(PERSON_SIGN_ON)
                .set(PERSON_SIGN_ON.SUBJECT, subject.bytes())
                .set(PERSON_SIGN_ON.PERSON, person)
                .set(PERSON_SIGN_ON.SINCE, Times.utc(now))
                .execute();
    }
}
