package mintshelf.app.store.person;

import static mintshelf.database.schema.Tables.FIRST_START;
import static mintshelf.database.schema.Tables.INVITATION;
import static mintshelf.database.schema.Tables.SIGN_IN_ATTEMPT;

import java.time.Instant;
import java.util.Optional;
import mintshelf.app.store.Times;
import mintshelf.core.base.ContentHash;
import mintshelf.core.base.Texts;
import org.jooq.Condition;
import org.jooq.DSLContext;
import org.springframework.stereotype.Repository;

/** How people come in: invitations, attempts to sign in, the code of the first start. */
@Repository
public class SignInStore {
    private final DSLContext db;

    public SignInStore(DSLContext db) {
        this.db = db;
    }

    /** Keeps an invitation by its token's hash. */
    public void invite(long person, ContentHash token, Instant expiresAt) {
        db.insertInto(INVITATION)
                .set(INVITATION.TOKEN_HASH, token.bytes())
                .set(INVITATION.PERSON, person)
                .set(INVITATION.EXPIRES_AT, Times.utc(expiresAt))
                .execute();
    }

    /** The person whom an open invitation is for; locked, so that it is used once. */
    public Optional<Long> invited(ContentHash token, Instant now) {
        return db.select(INVITATION.PERSON)
                .from(INVITATION)
                .where(
                        INVITATION.TOKEN_HASH.eq(token.bytes()),
                        INVITATION.USED_AT.isNull(),
                        INVITATION.EXPIRES_AT.gt(Times.utc(now)))
                .forUpdate()
                .fetchOptional(INVITATION.PERSON);
    }

    public void useInvitation(ContentHash token, Instant now) {
        db.update(INVITATION)
                .set(INVITATION.USED_AT, Times.utc(now))
                .where(INVITATION.TOKEN_HASH.eq(token.bytes()))
                .execute();
    }

    /** Notes a try to sign in; one that succeeds is forgotten. */
    public void noteSignIn(String account, String address, Instant now) {
        db.insertInto(SIGN_IN_ATTEMPT)
                .set(SIGN_IN_ATTEMPT.ACCOUNT_KEY, account(account))
                .set(SIGN_IN_ATTEMPT.ADDRESS, address)
                .set(SIGN_IN_ATTEMPT.AT, Times.utc(now))
                .execute();
    }

    private static String account(String login) {
        return Texts.shorten(Texts.key(login), 100);
    }

    /** Tries since a moment: of the address at the account, of the address, at the account. */
    public record Tries(int pair, int address, int account) {}

    public Tries tries(String account, String address, Instant since) {
        Condition at = SIGN_IN_ATTEMPT.AT.gt(Times.utc(since));
        Condition mine = SIGN_IN_ATTEMPT.ACCOUNT_KEY.eq(account(account));
        Condition here = SIGN_IN_ATTEMPT.ADDRESS.eq(address);
        return new Tries(
                db.fetchCount(SIGN_IN_ATTEMPT, mine, here, at),
                db.fetchCount(SIGN_IN_ATTEMPT, here, at),
                db.fetchCount(SIGN_IN_ATTEMPT, mine, at));
    }

    public void forgetSignIns(String account, String address) {
        db.deleteFrom(SIGN_IN_ATTEMPT)
                .where(SIGN_IN_ATTEMPT.ACCOUNT_KEY.eq(account(account)), SIGN_IN_ATTEMPT.ADDRESS.eq(address))
                .execute();
    }

    /** Lets one first person begin, who knows the code of the console; false when another one did, or the code is wrong. */
    public boolean begin(ContentHash code, Instant now) {
        return db.update(FIRST_START)
                        .set(FIRST_START.USED_AT, Times.utc(now))
                        .where(FIRST_START.CODE_HASH.eq(code.bytes()), FIRST_START.USED_AT.isNull())
                        .execute()
                == 1;
    }

    /** The code with which an empty server is begun; a later one takes the place of one before. */
    public void offerFirst(ContentHash code) {
        db.insertInto(FIRST_START)
                .set(FIRST_START.ID, 1)
                .set(FIRST_START.CODE_HASH, code.bytes())
                .onDuplicateKeyUpdate()
                .set(FIRST_START.CODE_HASH, code.bytes())
                .execute();
    }

    public void forgetSignInsBefore(Instant before) {
        db.deleteFrom(SIGN_IN_ATTEMPT)
                .where(SIGN_IN_ATTEMPT.AT.lt(Times.utc(before)))
                .limit(5000)
                .execute();
    }
}
