package mintshelf.app.store.job;

import static mintshelf.database.schema.Tables.GROUP_MEMBER;
import static mintshelf.database.schema.Tables.JOB;
import static mintshelf.database.schema.Tables.JOB_ITEM;

import java.time.Instant;
import java.time.LocalDate;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import mintshelf.app.store.Times;
import mintshelf.core.change.Job;
import org.jooq.Condition;
import org.jooq.DSLContext;
import org.jooq.impl.DSL;
import org.springframework.stereotype.Repository;

/** Jobs: who gave what to whom, over which documents. */
@Repository
public class JobStore {
    private static final List<String> OPEN = List.of(Job.State.GIVEN.name(), Job.State.BEGUN.name());
    private final DSLContext db;

    public JobStore(DSLContext db) {
        this.db = db;
    }

    public long add(
            Optional<Long> paper,
            String what,
            Optional<Long> group,
            Optional<Long> person,
            Optional<LocalDate> due,
            Collection<Long> items,
            long giver,
            Instant now) {
        long id = db.insertInto(JOB)
                .set(JOB.PAPER, paper.orElse(null))
                .set(JOB.WHAT, what)
                .set(JOB.FOR_GROUP, group.orElse(null))
                .set(JOB.PERSON, person.orElse(null))
                .set(JOB.DUE, due.orElse(null))
                .set(JOB.STATE, Job.State.GIVEN.name())
                .set(JOB.GIVEN_BY, giver)
                .set(JOB.GIVEN_AT, Times.utc(now))
                .returningResult(JOB.ID)
                .fetchSingle()
                .value1();
        for (long item : items) {
            db.insertInto(JOB_ITEM)
                    .set(JOB_ITEM.JOB, id)
                    .set(JOB_ITEM.ITEM, item)
                    .execute();
        }
        return id;
    }

    /** Until the transaction ends, nobody else begins or ends it. */
    public void lock(long job) {
        db.select(JOB.ID).from(JOB).where(JOB.ID.eq(job)).forUpdate().fetch();
    }

    public void begin(long job, long person, Instant now) {
        db.update(JOB)
                .set(JOB.PERSON, person)
                .set(JOB.STATE, Job.State.BEGUN.name())
                .set(JOB.BEGUN_AT, DSL.coalesce(JOB.BEGUN_AT, Times.utc(now)))
                .where(JOB.ID.eq(job))
                .execute();
    }

    /** Another person has it from now on, and has not begun. */
    public void pass(long job, long person) {
        db.update(JOB)
                .set(JOB.PERSON, person)
                .set(JOB.STATE, Job.State.GIVEN.name())
                .where(JOB.ID.eq(job))
                .execute();
    }

    /** @param versions with which version of each document it was done */
    public void done(long job, long by, Map<Long, Long> versions, Instant now) {
        versions.forEach((item, version) -> db.update(JOB_ITEM)
                .set(JOB_ITEM.VERSION, version)
                .where(JOB_ITEM.JOB.eq(job), JOB_ITEM.ITEM.eq(item))
                .execute());
        // Of a group's job nobody had taken, who says that it is done has done it.
        db.update(JOB)
                .set(JOB.PERSON, DSL.coalesce(JOB.PERSON, by))
                .set(JOB.STATE, Job.State.DONE.name())
                .set(JOB.ENDED_AT, Times.utc(now))
                .set(JOB.ENDED_BY, by)
                .where(JOB.ID.eq(job))
                .execute();
    }

    public void drop(long job, long by, Instant now) {
        db.update(JOB)
                .set(JOB.STATE, Job.State.DROPPED.name())
                .set(JOB.ENDED_AT, Times.utc(now))
                .set(JOB.ENDED_BY, by)
                .where(JOB.ID.eq(job))
                .execute();
    }

    public void lateTold(long job) {
        db.update(JOB).set(JOB.LATE_TOLD, true).where(JOB.ID.eq(job)).execute();
    }

    public Optional<Job> job(long id) {
        return jobs(JOB.ID.eq(id), 1).stream().findFirst();
    }

    /** Open ones that a person has, or that a group of theirs was given and nobody has taken, the one due first first. */
    public List<Job> mine(long person, int most) {
        return jobs(JOB.STATE.in(OPEN).and(has(person)), most);
    }

    /** How many {@link #mine} would be. */
    public int count(long person) {
        return db.fetchCount(JOB, JOB.STATE.in(OPEN).and(has(person)));
    }

    private static Condition has(long person) {
        return JOB.PERSON
                .eq(person)
                .or(JOB.PERSON
                        .isNull()
                        .and(JOB.FOR_GROUP.in(DSL.select(GROUP_MEMBER.PERSON_GROUP)
                                .from(GROUP_MEMBER)
                                .where(GROUP_MEMBER.PERSON.eq(person)))));
    }

    /** Open ones that a person gave. */
    public List<Job> given(long person, int most) {
        return jobs(JOB.GIVEN_BY.eq(person).and(JOB.STATE.in(OPEN)), most);
    }

    /** All for an order, those that were dropped aside. */
    public List<Job> of(long paper, int most) {
        return jobs(JOB.PAPER.eq(paper).and(JOB.STATE.ne(Job.State.DROPPED.name())), most);
    }

    /** Open ones that a person has over one of some documents. */
    public List<Job> mineOn(long person, Collection<Long> items) {
        if (items.isEmpty()) return List.of();
        return jobs(
                JOB.STATE
                        .in(OPEN)
                        .and(has(person))
                        .and(JOB.ID.in(DSL.select(JOB_ITEM.JOB).from(JOB_ITEM).where(JOB_ITEM.ITEM.in(items)))),
                50);
    }

    /** Open ones that should be done by now and of which nobody was told yet. */
    public List<Job> late(LocalDate today, int most) {
        return jobs(JOB.STATE.in(OPEN).and(JOB.LATE_TOLD.isFalse()).and(JOB.DUE.lt(today)), most);
    }

    private List<Job> jobs(Condition which, int most) {
        var rows = db.selectFrom(JOB)
                .where(which)
                .orderBy(DSL.coalesce(JOB.DUE, LocalDate.of(9999, 12, 31)), JOB.ID)
                .limit(most)
                .fetch();
        Map<Long, Map<Long, Optional<Long>>> items = new HashMap<>();
        db.select(JOB_ITEM.JOB, JOB_ITEM.ITEM, JOB_ITEM.VERSION)
                .from(JOB_ITEM)
                .where(JOB_ITEM.JOB.in(rows.map(r -> r.getId())))
                .forEach(row -> items.computeIfAbsent(row.value1(), j -> new HashMap<>())
                        .put(row.value2(), Optional.ofNullable(row.value3())));
        return rows.map(row -> new Job(
                row.getId(),
                Optional.ofNullable(row.getPaper()),
                row.getWhat(),
                Optional.ofNullable(row.getForGroup()),
                Optional.ofNullable(row.getPerson()),
                Optional.ofNullable(row.getDue()),
                Job.State.valueOf(row.getState()),
                row.getGivenBy(),
                Times.instant(row.getGivenAt()),
                items.getOrDefault(row.getId(), Map.of())));
    }
}
