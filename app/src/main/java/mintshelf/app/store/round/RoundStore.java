package mintshelf.app.store.round;

import static mintshelf.database.schema.Tables.ASK;
import static mintshelf.database.schema.Tables.BUNDLE_ITEM;
import static mintshelf.database.schema.Tables.PERSON;
import static mintshelf.database.schema.Tables.REVISION_HAND;
import static mintshelf.database.schema.Tables.ROUND;
import static mintshelf.database.schema.Tables.ROUND_ITEM;
import static mintshelf.database.schema.Tables.SIGN_OFF;
import static mintshelf.database.schema.Tables.VERSION;

import java.time.Instant;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import mintshelf.app.store.Prepared;
import mintshelf.app.store.Times;
import mintshelf.core.base.ContentHash;
import mintshelf.core.signoff.Answers;
import mintshelf.core.signoff.Ask;
import mintshelf.core.signoff.Asked;
import mintshelf.core.signoff.Decision;
import mintshelf.core.signoff.Policy;
import mintshelf.core.signoff.Round;
import mintshelf.core.signoff.SignOffLine;
import org.jooq.DSLContext;
import org.jooq.Record;
import org.jooq.impl.DSL;
import org.springframework.stereotype.Repository;

/** Bundles, rounds, who is asked and what they answered. */
@Repository
public class RoundStore {
    private static final short MARK = 1;
    private static final Answers NONE = new Answers(List.of(), List.of());

    private final Prepared open = new Prepared((db, items) -> db.select(BUNDLE_ITEM.ITEM, ROUND.ID)
            .from(BUNDLE_ITEM)
            .join(ROUND)
            .on(ROUND.BUNDLE.eq(BUNDLE_ITEM.BUNDLE))
            .where(BUNDLE_ITEM.OPEN_MARK.eq(MARK), BUNDLE_ITEM.ITEM.in(items)));

    private final DSLContext db;

    public RoundStore(DSLContext db) {
        this.db = db;
    }

    /** The version of a document that a round decides on. */
    public record Item(long item, long version, int number, ContentHash digest) {}

    /** Opens a round over the versions. */
    public long open(long bundle, List<Item> items, long person, String note, Policy policy, Instant now) {
        long round = db.insertInto(ROUND)
                .set(ROUND.BUNDLE, bundle)
                .set(ROUND.OPENED_BY, person)
                .set(ROUND.OPENED_AT, Times.utc(now))
                .set(ROUND.NOTE, note)
                .set(ROUND.STATE, Round.State.OPEN.name())
                .set(ROUND.POLICY, policy.name())
                .set(ROUND.OPEN_MARK, MARK)
                .returningResult(ROUND.ID)
                .fetchSingle()
                .value1();
        for (Item item : items) {
            db.insertInto(ROUND_ITEM)
                    .set(ROUND_ITEM.ROUND, round)
                    .set(ROUND_ITEM.ITEM, item.item())
                    .set(ROUND_ITEM.VERSION, item.version())
                    .set(ROUND_ITEM.DIGEST, item.digest().bytes())
                    .execute();
        }
        return round;
    }

    public long ask(long round, SignOffLine line, Optional<Long> person, LocalDate due) {
        return db.insertInto(ASK)
                .set(ASK.ROUND, round)
                .set(ASK.STEP, line.step())
                .set(ASK.ROLE, line.who().kind() == Asked.Kind.ROLE ? line.who().code() : null)
                .set(
                        ASK.PERSON_GROUP,
                        line.who().kind() == Asked.Kind.GROUP ? line.who().id() : null)
                .set(
                        ASK.RULE_PERSON,
                        line.who().kind() == Asked.Kind.PERSON ? line.who().id() : null)
                .set(ASK.PERSON, person.orElse(null))
                .set(ASK.NEEDED, line.needed())
                .set(ASK.MEANING, line.meaning())
                .set(ASK.FACT, line.fact())
                .set(ASK.DAY_FACT, line.day())
                .set(ASK.DAYS, line.days())
                .set(ASK.FOUR_EYES, line.fourEyes())
                .set(ASK.PASSWORD_AGAIN, line.password())
                .set(ASK.DUE, due)
                .returningResult(ASK.ID)
                .fetchSingle()
                .value1();
    }

    /** Asks somebody else, or everybody with the role, until another day. */
    public void change(long ask, Optional<Long> person, LocalDate due) {
        db.update(ASK)
                .set(ASK.PERSON, person.orElse(null))
                .set(ASK.DUE, due)
                .where(ASK.ID.eq(ask))
                .execute();
    }

    /** Lets abstentions from an ask fall: of one person, or all. */
    public void fallAbstained(long ask, Optional<Long> person, String why, Instant now) {
        db.update(SIGN_OFF)
                .setNull(SIGN_OFF.STANDING_MARK)
                .set(SIGN_OFF.FELL_AT, Times.utc(now))
                .set(SIGN_OFF.FELL_WHY, why)
                .where(
                        SIGN_OFF.ASK.eq(ask),
                        SIGN_OFF.STANDING_MARK.eq(MARK),
                        SIGN_OFF.DECISION.eq(Decision.ABSTAINED.name()),
                        person.map(SIGN_OFF.PERSON::eq).orElse(DSL.trueCondition()))
                .execute();
    }

    /** Records an answer on documents of the round. */
    public void answer(
            Ask ask,
            Round round,
            List<Item> items,
            long person,
            Optional<Long> standsInFor,
            Decision decision,
            String remark,
            Instant now) {
        for (Item item : items) {
            db.insertInto(SIGN_OFF)
                    .set(SIGN_OFF.ASK, ask.id())
                    .set(SIGN_OFF.ROUND, round.id())
                    .set(SIGN_OFF.ITEM, item.item())
                    .set(SIGN_OFF.VERSION, item.version())
                    .set(SIGN_OFF.DIGEST, item.digest().bytes())
                    .set(SIGN_OFF.PERSON, person)
                    .set(SIGN_OFF.FOR_PERSON, standsInFor.orElse(null))
                    .set(SIGN_OFF.DECISION, decision.name())
                    .set(SIGN_OFF.REMARK, remark)
                    .set(SIGN_OFF.AT, Times.utc(now))
                    .set(SIGN_OFF.STANDING_MARK, MARK)
                    .execute();
        }
    }

    /** Lets what somebody has begun to sign for an ask fall: they answer it otherwise. */
    public void fallBegun(Ask ask, long person, String why, Instant now) {
        db.update(SIGN_OFF)
                .setNull(SIGN_OFF.STANDING_MARK)
                .set(SIGN_OFF.FELL_AT, Times.utc(now))
                .set(SIGN_OFF.FELL_WHY, why)
                .where(SIGN_OFF.ASK.eq(ask.id()), SIGN_OFF.PERSON.eq(person), SIGN_OFF.STANDING_MARK.eq(MARK))
                .execute();
    }

    /** Lets all standing sign-offs of a round fall. */
    public void fall(long round, String why, Instant now) {
        db.update(SIGN_OFF)
                .setNull(SIGN_OFF.STANDING_MARK)
                .set(SIGN_OFF.FELL_AT, Times.utc(now))
                .set(SIGN_OFF.FELL_WHY, why)
                .where(SIGN_OFF.ROUND.eq(round), SIGN_OFF.STANDING_MARK.eq(MARK))
                .execute();
    }

    /** From now on the round decides on this version and digest of a document. */
    public void rebind(long round, Item item) {
        db.update(ROUND_ITEM)
                .set(ROUND_ITEM.VERSION, item.version())
                .set(ROUND_ITEM.DIGEST, item.digest().bytes())
                .where(ROUND_ITEM.ROUND.eq(round), ROUND_ITEM.ITEM.eq(item.item()))
                .execute();
    }

    public void end(long round, Round.State state, long person, String why, Instant now) {
        db.update(ROUND)
                .set(ROUND.STATE, state.name())
                .setNull(ROUND.OPEN_MARK)
                .set(ROUND.ENDED_AT, Times.utc(now))
                .set(ROUND.ENDED_BY, person)
                .set(ROUND.ENDED_WHY, why)
                .where(ROUND.ID.eq(round))
                .execute();
    }

    /**
     * The round under way of each of the documents that is in one: open, or signed and waiting to be carried out; one statement.
     */
    public Map<Long, Long> openRounds(Collection<Long> items) {
        if (items.isEmpty()) return Map.of();
        Map<Long, Long> rounds = new HashMap<>();
        for (Record row : open.fetch(db, items)) {
            rounds.merge(row.get(BUNDLE_ITEM.ITEM), row.get(ROUND.ID), Math::max);
        }
        return rounds;
    }

    public Optional<Long> openRound(long item) {
        return Optional.ofNullable(openRounds(List.of(item)).get(item));
    }

    /** Whether a round was ever asked about a version of the revision. */
    public boolean named(long revision) {
        return db.fetchExists(DSL.selectOne()
                .from(ROUND_ITEM)
                .join(VERSION)
                .on(VERSION.ID.eq(ROUND_ITEM.VERSION))
                .where(VERSION.REVISION.eq(revision)));
    }

    /**
     * The rounds that signed revisions as they stand, by revision and in their order: those after the last one that was returned or
     * taken back. On a route that reads twice they are the readings.
     */
    public Map<Long, List<Round>> readings(Collection<Long> revisions) {
        if (revisions.isEmpty()) return Map.of();
        Map<Long, List<Long>> ids = new LinkedHashMap<>();
        db.select(VERSION.REVISION, ROUND.ID, ROUND.STATE)
                .from(ROUND_ITEM)
                .join(VERSION)
                .on(VERSION.ID.eq(ROUND_ITEM.VERSION))
                .join(ROUND)
                .on(ROUND.ID.eq(ROUND_ITEM.ROUND))
                .where(VERSION.REVISION.in(revisions))
                .orderBy(ROUND.ID)
                .forEach(row -> {
                    List<Long> of = ids.computeIfAbsent(row.value1(), r -> new ArrayList<>());
                    Round.State state = Round.State.valueOf(row.value3());
                    if (state == Round.State.SIGNED) of.add(row.value2());
                    else if (state != Round.State.OPEN) of.clear();
                });
        Map<Long, Round> rounds =
                rounds(ids.values().stream().flatMap(List::stream).toList());
        Map<Long, List<Round>> readings = new HashMap<>();
        ids.forEach((revision, of) ->
                readings.put(revision, of.stream().map(rounds::get).toList()));
        return readings;
    }

    /** The rounds of a document, the latest first. */
    public List<Long> roundsOf(long item, int most) {
        return db.select(ROUND_ITEM.ROUND)
                .from(ROUND_ITEM)
                .where(ROUND_ITEM.ITEM.eq(item))
                .orderBy(ROUND_ITEM.ROUND.desc())
                .limit(most)
                .fetch(ROUND_ITEM.ROUND);
    }

    /** Those of these documents whose last round was returned. O(rounds of the documents). */
    public Set<Long> returned(Collection<Long> items) {
        if (items.isEmpty()) return Set.of();
        var last = db.select(ROUND_ITEM.ITEM, DSL.max(ROUND_ITEM.ROUND).as("last"))
                .from(ROUND_ITEM)
                .where(ROUND_ITEM.ITEM.in(items))
                .groupBy(ROUND_ITEM.ITEM)
                .asTable("last");
        return db.select(last.field(ROUND_ITEM.ITEM))
                .from(last)
                .join(ROUND)
                .on(ROUND.ID.eq(last.field("last", Long.class)))
                .where(ROUND.STATE.eq(Round.State.RETURNED.name()))
                .fetchSet(last.field(ROUND_ITEM.ITEM));
    }

    public Optional<Round> round(long id) {
        return Optional.ofNullable(rounds(List.of(id)).get(id));
    }

    /** Rounds with who is asked and what they answered, in the order asked for; four statements whatever the number. */
    public Map<Long, Round> rounds(Collection<Long> ids) {
        Map<Long, Round> rounds = new LinkedHashMap<>();
        if (ids.isEmpty()) return rounds;
        Map<Long, List<Ask>> asks = AskRows.asks(db, ASK.ROUND.in(ids));
        Map<Long, Answers> answers = AskRows.answers(db, ids);
        Map<Long, Round> byId = db.select(ROUND.fields())
                .select(PERSON.NAME)
                .from(ROUND)
                .join(PERSON)
                .on(PERSON.ID.eq(ROUND.OPENED_BY))
                .where(ROUND.ID.in(ids))
                .fetchMap(
                        ROUND.ID,
                        row -> new Round(
                                row.get(ROUND.ID),
                                row.get(ROUND.BUNDLE),
                                row.get(ROUND.OPENED_BY),
                                row.get(PERSON.NAME),
                                Times.instant(row.get(ROUND.OPENED_AT)),
                                row.get(ROUND.NOTE),
                                Round.State.valueOf(row.get(ROUND.STATE)),
                                Policy.valueOf(row.get(ROUND.POLICY)),
                                Optional.ofNullable(row.get(ROUND.ENDED_AT)).map(Times::instant),
                                asks.getOrDefault(row.get(ROUND.ID), List.of()),
                                answers.getOrDefault(row.get(ROUND.ID), NONE).whole(),
                                answers.getOrDefault(row.get(ROUND.ID), NONE).begun()));
        for (long id : ids) if (byId.containsKey(id)) rounds.put(id, byId.get(id));
        return rounds;
    }

    /** Locks a round, after its documents: what was read of it before may have changed. */
    public void lock(long round) {
        db.select(ROUND.ID).from(ROUND).where(ROUND.ID.eq(round)).forUpdate().fetch();
    }

    /** The documents of a round in the order of its bundle. */
    public List<Item> items(long round) {
        return items(List.of(round)).getOrDefault(round, List.of());
    }

    /** The documents of rounds in the order of their bundles; one statement. */
    public Map<Long, List<Item>> items(Collection<Long> rounds) {
        if (rounds.isEmpty()) return Map.of();
        return db.select(ROUND_ITEM.fields())
                .select(VERSION.NUMBER)
                .from(ROUND_ITEM)
                .join(ROUND)
                .on(ROUND.ID.eq(ROUND_ITEM.ROUND))
                .join(BUNDLE_ITEM)
                .on(BUNDLE_ITEM.BUNDLE.eq(ROUND.BUNDLE), BUNDLE_ITEM.ITEM.eq(ROUND_ITEM.ITEM))
                .join(VERSION)
                .on(VERSION.ID.eq(ROUND_ITEM.VERSION))
                .where(ROUND_ITEM.ROUND.in(rounds))
                .orderBy(BUNDLE_ITEM.POSITION)
                .fetchGroups(ROUND_ITEM.ROUND, RoundStore::item);
    }

    private static Item item(Record row) {
        return new Item(
                row.get(ROUND_ITEM.ITEM),
                row.get(ROUND_ITEM.VERSION),
                row.get(VERSION.NUMBER),
                ContentHash.of(row.get(ROUND_ITEM.DIGEST)));
    }

    /**
     * Everybody who made a version of the revisions that the rounds decide on, by round; one statement. What the shelf wrote has
     * no author of its own.
     */
    public Map<Long, Set<Long>> authors(Collection<Long> rounds) {
        Map<Long, Set<Long>> authors = new LinkedHashMap<>();
        if (rounds.isEmpty()) return authors;
        var made = VERSION.as("made");
        db.selectDistinct(ROUND_ITEM.ROUND, made.AUTHOR)
                .from(ROUND_ITEM)
                .join(VERSION)
                .on(VERSION.ID.eq(ROUND_ITEM.VERSION))
                .join(made)
                .on(made.REVISION.eq(VERSION.REVISION), made.MADE_BY.ne("STAMPED"))
                .where(ROUND_ITEM.ROUND.in(rounds))
                .forEach(row -> authors.computeIfAbsent(row.value1(), r -> new HashSet<>())
                        .add(row.value2()));
        db.selectDistinct(ROUND_ITEM.ROUND, REVISION_HAND.PERSON)
                .from(ROUND_ITEM)
                .join(VERSION)
                .on(VERSION.ID.eq(ROUND_ITEM.VERSION))
                .join(REVISION_HAND)
                .on(REVISION_HAND.REVISION.eq(VERSION.REVISION))
                .where(ROUND_ITEM.ROUND.in(rounds))
                .forEach(row -> authors.computeIfAbsent(row.value1(), r -> new HashSet<>())
                        .add(row.value2()));
        return authors;
    }
}
