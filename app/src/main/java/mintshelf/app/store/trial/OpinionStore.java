package mintshelf.app.store.trial;

import static mintshelf.database.schema.Tables.LINE;
import static mintshelf.database.schema.Tables.PERSON;
import static mintshelf.database.schema.Tables.TRIAL_OPINION;
import static mintshelf.database.schema.Tables.TRIAL_ROUND;
import static mintshelf.database.schema.Tables.TRIAL_ROUND_VERSION;
import static mintshelf.database.schema.Tables.VERSION;

import java.time.Instant;
import java.time.LocalDate;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import mintshelf.app.store.Times;
import mintshelf.core.document.VersionName;
import mintshelf.core.trial.Opinion;
import org.jooq.Condition;
import org.jooq.DSLContext;
import org.springframework.stereotype.Repository;

/** Rounds of trials: whose opinion was asked on which versions, and what they said. */
@Repository
public class OpinionStore {
    private final DSLContext db;

    public OpinionStore(DSLContext db) {
        this.db = db;
    }

    /** How a round of a trial ended. */
    public enum Ending {
        ANSWERED("everybody answered"),
        MOVED_ON("the trial moved on"),
        TAKEN_BACK("taken back"),
        TRIAL_ENDED("the trial ended");

        private final String words;

        Ending(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }
    }

    /** One who was asked; without an opinion until they answer. */
    public record Asked(long person, String name, Optional<Opinion> opinion, String words, Optional<Instant> at) {
        public boolean waits() {
            return opinion.isEmpty();
        }
    }

    /**
     * A round.
     *
     * @param versions what the versions that it is about are called, by document
     */
    public record Round(
            long id,
            long trial,
            long by,
            String byName,
            Instant at,
            String note,
            LocalDate due,
            Optional<Ending> ended,
            List<Asked> asked,
            Map<Long, VersionName> versions) {
        public boolean isOpen() {
            return ended.isEmpty();
        }

        /** Those of whom it waits. */
        public List<Long> waitingFor() {
            return asked.stream().filter(Asked::waits).map(Asked::person).toList();
        }

        public boolean waitsFor(long person) {
            return isOpen() && waitingFor().contains(person);
        }

        public long saying(Opinion opinion) {
            return asked.stream()
                    .filter(a -> a.opinion().filter(o -> o == opinion).isPresent())
                    .count();
        }
    }

    /** Opens a round; the database lets a trial have one. */
    public long open(
            long trial, long by, String note, LocalDate due, Collection<Long> versions, Set<Long> people, Instant now) {
        long id = db.insertInto(TRIAL_ROUND)
                .set(TRIAL_ROUND.TRIAL, trial)
                .set(TRIAL_ROUND.OPENED_BY, by)
                .set(TRIAL_ROUND.OPENED_AT, Times.utc(now))
                .set(TRIAL_ROUND.NOTE, note)
                .set(TRIAL_ROUND.DUE, due)
                .set(TRIAL_ROUND.OPEN_MARK, (short) 1)
                .returningResult(TRIAL_ROUND.ID)
                .fetchSingle()
                .value1();
        versions.forEach(v -> db.insertInto(TRIAL_ROUND_VERSION)
                .set(TRIAL_ROUND_VERSION.ROUND, id)
                .set(TRIAL_ROUND_VERSION.VERSION, v)
                .execute());
        people.forEach(p -> db.insertInto(TRIAL_OPINION)
                .set(TRIAL_OPINION.ROUND, id)
                .set(TRIAL_OPINION.PERSON, p)
                .execute());
        return id;
    }

    /** The rounds of a trial, the latest first; at most {@code most}. */
    public List<Round> of(long trial, int most) {
        return rounds(TRIAL_ROUND.TRIAL.eq(trial), most);
    }

    public Optional<Round> open(long trial) {
        return rounds(TRIAL_ROUND.TRIAL.eq(trial).and(TRIAL_ROUND.OPEN_MARK.isNotNull()), 1).stream()
                .findFirst();
    }

    /** The open rounds that wait for somebody, those due first at the front. */
    public List<Round> waitingFor(long person, int most) {
        List<Long> ids = db.select(TRIAL_ROUND.ID)
                .from(TRIAL_OPINION)
                .join(TRIAL_ROUND)
                .on(TRIAL_ROUND.ID.eq(TRIAL_OPINION.ROUND), TRIAL_ROUND.OPEN_MARK.isNotNull())
                .where(TRIAL_OPINION.PERSON.eq(person), TRIAL_OPINION.AT.isNull())
                .orderBy(TRIAL_ROUND.DUE, TRIAL_ROUND.ID)
                .limit(most)
                .fetch(TRIAL_ROUND.ID);
        List<Round> found = rounds(TRIAL_ROUND.ID.in(ids), most);
        return found.stream()
                .sorted((a, b) -> Integer.compare(ids.indexOf(a.id()), ids.indexOf(b.id())))
                .toList();
    }

    /** How many open rounds wait for somebody. */
    public int count(long person) {
        return db.fetchCount(db.selectOne()
                .from(TRIAL_OPINION)
                .join(TRIAL_ROUND)
                .on(TRIAL_ROUND.ID.eq(TRIAL_OPINION.ROUND), TRIAL_ROUND.OPEN_MARK.isNotNull())
                .where(TRIAL_OPINION.PERSON.eq(person), TRIAL_OPINION.AT.isNull()));
    }

    private List<Round> rounds(Condition which, int most) {
        var rounds = db.select(TRIAL_ROUND.fields())
                .select(PERSON.NAME)
                .from(TRIAL_ROUND)
                .join(PERSON)
                .on(PERSON.ID.eq(TRIAL_ROUND.OPENED_BY))
                .where(which)
                .orderBy(TRIAL_ROUND.ID.desc())
                .limit(most)
                .fetch();
        List<Long> ids = rounds.getValues(TRIAL_ROUND.ID);
        Map<Long, List<Asked>> asked = db.select(TRIAL_OPINION.fields())
                .select(PERSON.NAME)
                .from(TRIAL_OPINION)
                .join(PERSON)
                .on(PERSON.ID.eq(TRIAL_OPINION.PERSON))
                .where(TRIAL_OPINION.ROUND.in(ids))
                .orderBy(PERSON.NAME, PERSON.ID)
                .fetchGroups(
                        TRIAL_OPINION.ROUND,
                        row -> new Asked(
                                row.get(TRIAL_OPINION.PERSON),
                                row.get(PERSON.NAME),
                                Optional.ofNullable(row.get(TRIAL_OPINION.OPINION))
                                        .map(Opinion::valueOf),
                                row.get(TRIAL_OPINION.WORDS),
                                Optional.ofNullable(row.get(TRIAL_OPINION.AT)).map(Times::instant)));
        var versions = db.select(TRIAL_ROUND_VERSION.ROUND, VERSION.ITEM, VERSION.NUMBER, LINE.TRIAL_NUMBER)
                .from(TRIAL_ROUND_VERSION)
                .join(VERSION)
                .on(VERSION.ID.eq(TRIAL_ROUND_VERSION.VERSION))
                .join(LINE)
                .on(LINE.ID.eq(VERSION.LINE))
                .where(TRIAL_ROUND_VERSION.ROUND.in(ids))
                .fetchGroups(TRIAL_ROUND_VERSION.ROUND);
        return rounds.map(row -> new Round(
                row.get(TRIAL_ROUND.ID),
                row.get(TRIAL_ROUND.TRIAL),
                row.get(TRIAL_ROUND.OPENED_BY),
                row.get(PERSON.NAME),
                Times.instant(row.get(TRIAL_ROUND.OPENED_AT)),
                row.get(TRIAL_ROUND.NOTE),
                row.get(TRIAL_ROUND.DUE),
                Optional.ofNullable(row.get(TRIAL_ROUND.ENDED_HOW)).map(Ending::valueOf),
                asked.getOrDefault(row.get(TRIAL_ROUND.ID), List.of()),
                Optional.ofNullable(versions.get(row.get(TRIAL_ROUND.ID)))
                        .map(of -> of.intoMap(
                                VERSION.ITEM,
                                r -> new VersionName(
                                        Optional.ofNullable(r.get(LINE.TRIAL_NUMBER))
                                                .orElse(0),
                                        r.get(VERSION.NUMBER))))
                        .orElse(Map.of())));
    }

    public void answer(long round, long person, Opinion opinion, String words, Instant now) {
        db.update(TRIAL_OPINION)
                .set(TRIAL_OPINION.OPINION, opinion.name())
                .set(TRIAL_OPINION.WORDS, words)
                .set(TRIAL_OPINION.AT, Times.utc(now))
                .where(TRIAL_OPINION.ROUND.eq(round), TRIAL_OPINION.PERSON.eq(person))
                .execute();
    }

    public void end(long round, Ending how, Instant now) {
        db.update(TRIAL_ROUND)
                .setNull(TRIAL_ROUND.OPEN_MARK)
                .set(TRIAL_ROUND.ENDED_AT, Times.utc(now))
                .set(TRIAL_ROUND.ENDED_HOW, how.name())
                .where(TRIAL_ROUND.ID.eq(round), TRIAL_ROUND.OPEN_MARK.isNotNull())
                .execute();
    }
}
