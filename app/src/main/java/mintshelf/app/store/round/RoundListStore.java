package mintshelf.app.store.round;

import static mintshelf.database.schema.Tables.ASK;
import static mintshelf.database.schema.Tables.GROUP_MEMBER;
import static mintshelf.database.schema.Tables.PERSON;
import static mintshelf.database.schema.Tables.ROUND;

import java.util.Collection;
import java.util.List;
import mintshelf.core.signoff.Round;
import org.jooq.DSLContext;
import org.jooq.impl.DSL;
import org.springframework.stereotype.Repository;

/** Which rounds: those that may wait for somebody, that somebody sent, that are open. */
@Repository
public class RoundListStore {
    private static final short MARK = 1;

    private final DSLContext db;

    public RoundListStore(DSLContext db) {
        this.db = db;
    }

    /** Open rounds that may wait for a person with these roles, the oldest first. Which do is for the core to say. */
    public List<Long> maybeWaiting(long person, Collection<String> roles, int most) {
        return db.select(ROUND.ID)
                .from(ROUND)
                .where(
                        ROUND.OPEN_MARK.eq(MARK),
                        DSL.exists(DSL.selectOne()
                                .from(ASK)
                                .where(
                                        ASK.ROUND.eq(ROUND.ID),
                                        ASK.PERSON
                                                .eq(person)
                                                .or(ASK.ROLE.in(roles))
                                                .or(ASK.PERSON_GROUP.in(DSL.select(GROUP_MEMBER.PERSON_GROUP)
                                                        .from(GROUP_MEMBER)
                                                        .where(GROUP_MEMBER.PERSON.eq(person))))
                                                .or(ASK.PERSON.in(DSL.select(PERSON.ID)
                                                        .from(PERSON)
                                                        .where(PERSON.STANDS_IN.eq(person)))))))
                .orderBy(ROUND.ID)
                .limit(most)
                .fetch(ROUND.ID);
    }

    /** Open rounds behind one that ask a person by name, the oldest first. */
    public List<Long> naming(long person, long after, int most) {
        return db.select(ROUND.ID)
                .from(ROUND)
                .where(
                        ROUND.OPEN_MARK.eq(MARK),
                        ROUND.ID.gt(after),
                        DSL.exists(DSL.selectOne().from(ASK).where(ASK.ROUND.eq(ROUND.ID), ASK.PERSON.eq(person))))
                .orderBy(ROUND.ID)
                .limit(most)
                .fetch(ROUND.ID);
    }

    /** Rounds that a person sent and that were returned, the latest first. */
    public List<Long> returnedTo(long person, int most) {
        return db.select(ROUND.ID)
                .from(ROUND)
                .where(ROUND.STATE.eq(Round.State.RETURNED.name()), ROUND.OPENED_BY.eq(person))
                .orderBy(ROUND.ID.desc())
                .limit(most)
                .fetch(ROUND.ID);
    }

    /** Open rounds that a person sent, the latest first. */
    public List<Long> sentBy(long person, int most) {
        return db.select(ROUND.ID)
                .from(ROUND)
                .where(ROUND.OPEN_MARK.eq(MARK), ROUND.OPENED_BY.eq(person))
                .orderBy(ROUND.ID.desc())
                .limit(most)
                .fetch(ROUND.ID);
    }

    /** Open rounds behind one, the oldest first. */
    public List<Long> openRounds(long after, int most) {
        return db.select(ROUND.ID)
                .from(ROUND)
                .where(ROUND.OPEN_MARK.isNotNull(), ROUND.ID.gt(after))
                .orderBy(ROUND.ID)
                .limit(most)
                .fetch(ROUND.ID);
    }
}
