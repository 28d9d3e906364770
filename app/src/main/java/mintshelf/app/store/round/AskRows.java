package mintshelf.app.store.round;

import static mintshelf.database.schema.Tables.ASK;
import static mintshelf.database.schema.Tables.GROUP_MEMBER;
import static mintshelf.database.schema.Tables.PERSON;
import static mintshelf.database.schema.Tables.PERSON_GROUP;
import static mintshelf.database.schema.Tables.ROLE;
import static mintshelf.database.schema.Tables.ROUND_ITEM;
import static mintshelf.database.schema.Tables.SIGN_OFF;

import java.time.LocalDate;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import mintshelf.app.store.Times;
import mintshelf.core.signoff.Answers;
import mintshelf.core.signoff.Ask;
import mintshelf.core.signoff.Asked;
import mintshelf.core.signoff.Away;
import mintshelf.core.signoff.Decision;
import mintshelf.core.signoff.SignOffLine;
import mintshelf.database.schema.tables.Person;
import org.jooq.Condition;
import org.jooq.DSLContext;
import org.jooq.Record;
import org.jooq.impl.DSL;

/** Reads whom rounds ask and what was answered. */
final class AskRows {
    /** A second person beside one: who stands in for them, or for whom they stood in. */
    private static final Person DEPUTY = PERSON.as("deputy");

    private AskRows() {}

    /** What asks give beside the role's name is read in one statement; who is in a group that is asked, in one more where one is. */
    static Map<Long, List<Ask>> asks(DSLContext db, Condition where) {
        Map<Long, Set<Long>> members = new HashMap<>();
        return db.select(ASK.fields())
                .select(
                        ROLE.NAME,
                        PERSON_GROUP.NAME,
                        PERSON.NAME,
                        PERSON.AWAY_FROM,
                        PERSON.AWAY_UNTIL,
                        PERSON.STANDS_IN,
                        DEPUTY.NAME)
                .from(ASK)
                .leftJoin(ROLE)
                .on(ROLE.CODE.eq(ASK.ROLE))
                .leftJoin(PERSON_GROUP)
                .on(PERSON_GROUP.ID.eq(ASK.PERSON_GROUP))
                .leftJoin(PERSON)
                .on(PERSON.ID.eq(ASK.PERSON))
                .leftJoin(DEPUTY)
                .on(DEPUTY.ID.eq(PERSON.STANDS_IN))
                .where(where)
                .orderBy(ASK.STEP, ASK.ID)
                .fetchGroups(
                        ASK.ROUND,
                        row -> new Ask(
                                row.get(ASK.ID),
                                new SignOffLine(
                                        row.get(ASK.STEP),
                                        asked(row),
                                        row.get(ASK.NEEDED),
                                        row.get(ASK.MEANING),
                                        row.get(ASK.FACT),
                                        row.get(ASK.DAY_FACT),
                                        row.get(ASK.DAYS),
                                        row.get(ASK.FOUR_EYES),
                                        row.get(ASK.PASSWORD_AGAIN)),
                                Optional.ofNullable(row.get(ROLE.NAME))
                                        .or(() -> Optional.ofNullable(row.get(PERSON_GROUP.NAME)))
                                        .orElse(""),
                                Optional.ofNullable(row.get(ASK.PERSON)),
                                Optional.ofNullable(row.get(PERSON.NAME)).orElse(""),
                                row.get(ASK.DUE),
                                away(row),
                                Optional.ofNullable(row.get(ASK.PERSON_GROUP))
                                        .map(g -> members.computeIfAbsent(g, id -> members(db, id)))
                                        .orElse(Set.of())));
    }

    private static Asked asked(Record row) {
        if (row.get(ASK.ROLE) != null) return new Asked(Asked.Kind.ROLE, row.get(ASK.ROLE));
        return row.get(ASK.PERSON_GROUP) != null
                ? new Asked(Asked.Kind.GROUP, Long.toString(row.get(ASK.PERSON_GROUP)))
                : new Asked(Asked.Kind.PERSON, Long.toString(row.get(ASK.RULE_PERSON)));
    }

    private static Set<Long> members(DSLContext db, long group) {
        return db.select(GROUP_MEMBER.PERSON)
                .from(GROUP_MEMBER)
                .where(GROUP_MEMBER.PERSON_GROUP.eq(group))
                .fetchSet(GROUP_MEMBER.PERSON);
    }

    private static Optional<Away> away(Record row) {
        LocalDate until = row.get(PERSON.AWAY_UNTIL);
        if (until == null) return Optional.empty();
        LocalDate from = row.get(PERSON.AWAY_FROM);
        return Optional.of(new Away(
                from == null ? LocalDate.MIN : from,
                until,
                Optional.ofNullable(row.get(PERSON.STANDS_IN)),
                Optional.ofNullable(row.get(DEPUTY.NAME)).orElse("")));
    }

    /** What was answered in rounds, put together over their documents; two statements. */
    static Map<Long, Answers> answers(DSLContext db, Collection<Long> rounds) {
        Map<Long, Integer> documents = db.select(ROUND_ITEM.ROUND, DSL.count())
                .from(ROUND_ITEM)
                .where(ROUND_ITEM.ROUND.in(rounds))
                .groupBy(ROUND_ITEM.ROUND)
                .fetchMap(ROUND_ITEM.ROUND, DSL.count());
        Map<Long, Answers> answers = new HashMap<>();
        given(db, rounds)
                .forEach((round, given) -> answers.put(round, Answers.of(given, documents.getOrDefault(round, 1))));
        return answers;
    }

    private static Map<Long, List<Answers.Given>> given(DSLContext db, Collection<Long> rounds) {
        return db.select(SIGN_OFF.fields())
                .select(PERSON.NAME, DEPUTY.NAME)
                .from(SIGN_OFF)
                .join(PERSON)
                .on(PERSON.ID.eq(SIGN_OFF.PERSON))
                .leftJoin(DEPUTY)
                .on(DEPUTY.ID.eq(SIGN_OFF.FOR_PERSON))
                .where(SIGN_OFF.ROUND.in(rounds))
                .orderBy(SIGN_OFF.ID)
                .fetchGroups(
                        SIGN_OFF.ROUND,
                        row -> new Answers.Given(
                                row.get(SIGN_OFF.ASK),
                                row.get(SIGN_OFF.PERSON),
                                row.get(PERSON.NAME),
                                row.get(SIGN_OFF.ITEM),
                                Decision.valueOf(row.get(SIGN_OFF.DECISION)),
                                row.get(SIGN_OFF.REMARK),
                                Times.instant(row.get(SIGN_OFF.AT)),
                                Optional.ofNullable(row.get(SIGN_OFF.FELL_AT)).map(Times::instant),
                                Optional.ofNullable(row.get(SIGN_OFF.FELL_WHY)).orElse(""),
                                Optional.ofNullable(row.get(DEPUTY.NAME)).orElse("")));
    }
}
