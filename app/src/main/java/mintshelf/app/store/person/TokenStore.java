package mintshelf.app.store.person;

import static mintshelf.database.schema.Tables.API_TOKEN;
import static mintshelf.database.schema.Tables.PAIRING;
import static mintshelf.database.schema.Tables.PERSON;

import java.time.Instant;
import java.util.List;
import java.util.Optional;
import java.util.OptionalLong;
import mintshelf.app.store.Times;
import mintshelf.core.base.ContentHash;
import org.jooq.DSLContext;
import org.springframework.stereotype.Repository;

/** Tokens of programs, and the codes by which they are given out. */
@Repository
public class TokenStore {
    private final DSLContext db;

    public TokenStore(DSLContext db) {
        this.db = db;
    }

    /** A token as its owner sees it; the secret is shown once, when it is made. */
    public record Token(
            long id, String label, boolean mayWrite, Instant created, Instant expires, Optional<Instant> used) {}

    /** Whose token signs a request. */
    public record Bearer(long token, long person, String login, String name, boolean mayWrite) {}

    public void add(long person, ContentHash hash, String label, boolean mayWrite, Instant now, Instant expires) {
        db.insertInto(API_TOKEN)
                .set(API_TOKEN.PERSON, person)
                .set(API_TOKEN.HASH, hash.bytes())
                .set(API_TOKEN.LABEL, label)
                .set(API_TOKEN.MAY_WRITE, mayWrite)
                .set(API_TOKEN.CREATED_AT, Times.utc(now))
                .set(API_TOKEN.EXPIRES_AT, Times.utc(expires))
                .execute();
    }

    public List<Token> of(long person, Instant now) {
        return db.selectFrom(API_TOKEN)
                .where(
                        API_TOKEN.PERSON.eq(person),
                        API_TOKEN.REVOKED_AT.isNull(),
                        API_TOKEN.EXPIRES_AT.gt(Times.utc(now)))
                .orderBy(API_TOKEN.ID.desc())
                .limit(200)
                .fetch(r -> new Token(
                        r.getId(),
                        r.getLabel(),
                        r.getMayWrite(),
                        Times.instant(r.getCreatedAt()),
                        Times.instant(r.getExpiresAt()),
                        Optional.ofNullable(r.getUsedAt()).map(Times::instant)));
    }

    /** The person of a token that is in force, and who has not left. Its use is noted once an hour. */
    public Optional<Bearer> bearer(ContentHash hash, Instant now) {
        var row = db.select(API_TOKEN.ID, API_TOKEN.MAY_WRITE, API_TOKEN.USED_AT, PERSON.ID, PERSON.LOGIN, PERSON.NAME)
                .from(API_TOKEN)
                .join(PERSON)
                .on(PERSON.ID.eq(API_TOKEN.PERSON), PERSON.LEFT_AT.isNull())
                .where(
                        API_TOKEN.HASH.eq(hash.bytes()),
                        API_TOKEN.REVOKED_AT.isNull(),
                        API_TOKEN.EXPIRES_AT.gt(Times.utc(now)))
                .fetchOptional();
        row.filter(r -> r.value3() == null || Times.instant(r.value3()).isBefore(now.minusSeconds(3600)))
                .ifPresent(r -> db.update(API_TOKEN)
                        .set(API_TOKEN.USED_AT, Times.utc(now))
                        .where(API_TOKEN.ID.eq(r.value1()))
                        .execute());
        return row.map(r -> new Bearer(r.value1(), r.value4(), r.value5(), r.value6(), r.value2()));
    }

    public void revoke(long person, long id, Instant now) {
        db.update(API_TOKEN)
                .set(API_TOKEN.REVOKED_AT, Times.utc(now))
                .where(API_TOKEN.ID.eq(id), API_TOKEN.PERSON.eq(person), API_TOKEN.REVOKED_AT.isNull())
                .execute();
    }

    public void offer(long person, ContentHash code, Instant expires) {
        db.deleteFrom(PAIRING).where(PAIRING.PERSON.eq(person)).execute();
        db.insertInto(PAIRING)
                .set(PAIRING.HASH, code.bytes())
                .set(PAIRING.PERSON, person)
                .set(PAIRING.EXPIRES_AT, Times.utc(expires))
                .execute();
    }

    /** Whose code it is; a code is good once. */
    public OptionalLong redeem(ContentHash code, Instant now) {
        int used = db.update(PAIRING)
                .set(PAIRING.USED_AT, Times.utc(now))
                .where(PAIRING.HASH.eq(code.bytes()), PAIRING.USED_AT.isNull(), PAIRING.EXPIRES_AT.gt(Times.utc(now)))
                .execute();
        if (used == 0) return OptionalLong.empty();
        return OptionalLong.of(db.select(PAIRING.PERSON)
                .from(PAIRING)
                .where(PAIRING.HASH.eq(code.bytes()))
                .fetchSingle(PAIRING.PERSON));
    }
}
