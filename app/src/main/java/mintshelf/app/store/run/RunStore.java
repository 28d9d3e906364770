package mintshelf.app.store.run;

import static mintshelf.database.schema.Tables.PERSON;
import static mintshelf.database.schema.Tables.RUN;
import static mintshelf.database.schema.Tables.RUN_ROW;

import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import mintshelf.app.store.Leased;
import mintshelf.app.store.Rows;
import mintshelf.app.store.Times;
import mintshelf.core.base.Texts;
import mintshelf.database.schema.tables.records.RunRecord;
import org.jooq.Condition;
import org.jooq.DSLContext;
import org.jooq.impl.DSL;
import org.springframework.stereotype.Repository;

/** Runs by their ids and by the acts that made them, and those that wait to be gone on with. */
@Repository
public class RunStore {
    private static final int PORTION = 500;
    private static final Rows ROWS = Rows.added(
            RUN_ROW, RUN_ROW.RUN, RUN_ROW.POSITION, RUN_ROW.ITEM, RUN_ROW.EXPECTED, RUN_ROW.BECAME, RUN_ROW.NUMBER);
    private static final Rows BECAME = Rows.kept(
            RUN_ROW,
            List.of(RUN_ROW.BECAME, RUN_ROW.NUMBER),
            RUN_ROW.RUN,
            RUN_ROW.POSITION,
            RUN_ROW.ITEM,
            RUN_ROW.EXPECTED,
            RUN_ROW.BECAME,
            RUN_ROW.NUMBER);
    private static final Leased<RunRecord> WORKING =
            new Leased<>(RUN.STATE.eq(Run.State.WORKING.name()), RUN.NEXT_AT, RUN.LEASE_UNTIL, RUN.TRIES);

    private final DSLContext db;

    public RunStore(DSLContext db) {
        this.db = db;
    }

    /** Keeps the report of an act that is done; in the act's transaction. */
    public long done(long person, String key, Run.What what, String says, List<Run.Row> rows, Instant now) {
        long id = add(person, key, what, says, Optional.empty(), rows.size(), rows.size(), now, now);
        List<Object[]> values = new ArrayList<>();
        for (Run.Row row : rows) {
            values.add(new Object[] {id, values.size(), row.item(), "", row.became(), row.number()});
        }
        write(values);
        return id;
    }

    /**
     * Begins a run that is gone on with in portions.
     *
     * @param wish what is to be done, as the act that does it reads it
     * @param leaseUntil until then it is the caller's to go on with
     */
    public Work begin(
            long person,
            String key,
            Run.What what,
            String says,
            String wish,
            List<Run.Due> rows,
            Instant now,
            Instant leaseUntil) {
        long id = add(person, key, what, says, Optional.of(wish), 0, rows.size(), now, leaseUntil);
        List<Object[]> values = new ArrayList<>();
        for (Run.Due row : rows) {
            values.add(new Object[] {id, values.size(), row.item(), row.expected(), null, 0L});
        }
        write(values);
        return new Work(id, person, what, wish, 0, rows.size(), leaseUntil, 1);
    }

    private void write(List<Object[]> values) {
        for (int from = 0; from < values.size(); from += PORTION) {
            ROWS.write(db, values.subList(from, Math.min(from + PORTION, values.size())));
        }
    }

    private long add(
            long person,
            String key,
            Run.What what,
            String says,
            Optional<String> wish,
            int done,
            int total,
            Instant now,
            Instant leaseUntil) {
        return db.insertInto(RUN)
                .set(RUN.PERSON, person)
                .set(RUN.ACT_KEY, key)
                .set(RUN.WHAT, what.name())
                .set(RUN.SAYS, Texts.shorten(says, 500))
                .set(RUN.WISH, wish.orElse(null))
                .set(RUN.STATE, (done == total ? Run.State.DONE : Run.State.WORKING).name())
                .set(RUN.ENDED_AT, done == total ? Times.utc(now) : null)
                .set(RUN.DONE, done)
                .set(RUN.TOTAL, total)
                .set(RUN.BEGUN_AT, Times.utc(now))
                .set(RUN.NEXT_AT, Times.utc(now))
                .set(RUN.LEASE_UNTIL, Times.utc(leaseUntil))
                .set(RUN.TRIES, 1)
                .returningResult(RUN.ID)
                .fetchSingle()
                .value1();
    }

    /**
     * A run that somebody goes on with.
     *
     * @param leaseUntil by which the one who goes on is known
     * @param tries how often its next portion was tried
     */
    public record Work(
            long id, long person, Run.What what, String wish, int done, int total, Instant leaseUntil, int tries) {}

    /** Takes the next run that waits, those of others passed over. */
    public Optional<Work> take(Instant now, Instant leaseUntil) {
        return WORKING.take(db, now, leaseUntil).map(row -> work(row, leaseUntil, row.getTries() + 1));
    }

    /** The run for the next portion, locked; none when it is another's by now, or has ended. */
    public Optional<Work> locked(Work work) {
        return db.selectFrom(RUN)
                .where(mine(work))
                .forUpdate()
                .fetchOptional(row -> work(row, work.leaseUntil(), row.getTries()));
    }

    private static Work work(RunRecord row, Instant leaseUntil, int tries) {
        return new Work(
                row.getId(),
                row.getPerson(),
                Run.What.valueOf(row.getWhat()),
                row.getWish(),
                row.getDone(),
                row.getTotal(),
                leaseUntil,
                tries);
    }

    /** The next rows that are to be done, in their order. */
    public List<Run.Due> due(Work work, int most) {
        return db.select(RUN_ROW.ITEM, RUN_ROW.EXPECTED)
                .from(RUN_ROW)
                .where(RUN_ROW.RUN.eq(work.id()), RUN_ROW.POSITION.ge(work.done()))
                .orderBy(RUN_ROW.POSITION)
                .limit(most)
                .fetch(row -> new Run.Due(row.value1(), row.value2()));
    }

    /** Notes what became of the next rows; the run has ended with the last of them. */
    public Work did(Work work, List<Run.Row> rows, Instant now, Instant leaseUntil) {
        List<Object[]> values = new ArrayList<>();
        for (Run.Row row : rows) {
            values.add(
                    new Object[] {work.id(), work.done() + values.size(), row.item(), "", row.became(), row.number()});
        }
        BECAME.write(db, values);
        int done = work.done() + rows.size();
        var update = db.update(RUN).set(RUN.DONE, done).set(RUN.TRIES, 1).set(RUN.LEASE_UNTIL, Times.utc(leaseUntil));
        if (done >= work.total()) {
            update = update.set(RUN.STATE, Run.State.DONE.name())
                    .set(RUN.ENDED_AT, Times.utc(now))
                    .setNull(RUN.LEASE_UNTIL);
        }
        update.where(RUN.ID.eq(work.id())).execute();
        return new Work(work.id(), work.person(), work.what(), work.wish(), done, work.total(), leaseUntil, 1);
    }

    /** Lets it go for whoever is next, from a moment on. */
    public void letGo(Work work, Instant nextAt) {
        db.update(RUN)
                .setNull(RUN.LEASE_UNTIL)
                .set(RUN.NEXT_AT, Times.utc(nextAt))
                .where(mine(work))
                .execute();
    }

    /** Ends it before its last row: what is done stays done, the rest stays as it was, and why. */
    public boolean stop(Work work, String why, Instant now) {
        return db.update(RUN)
                        .set(RUN.STATE, Run.State.STOPPED.name())
                        .set(RUN.SAYS, DSL.left(DSL.concat(RUN.SAYS, DSL.val("; stopped: " + why)), 500))
                        .set(RUN.ENDED_AT, Times.utc(now))
                        .setNull(RUN.LEASE_UNTIL)
                        .where(mine(work))
                        .execute()
                == 1;
    }

    private static Condition mine(Work work) {
        return RUN.ID
                .eq(work.id())
                .and(RUN.STATE.eq(Run.State.WORKING.name()))
                .and(RUN.LEASE_UNTIL.eq(Times.utc(work.leaseUntil())));
    }

    public Optional<Run> run(long id) {
        return runs(RUN.ID.eq(id), 1).stream().findFirst();
    }

    /** Rows of a run from a position on. */
    public List<Run.Row> rows(long run, int from, int most) {
        return db.select(RUN_ROW.ITEM, RUN_ROW.BECAME, RUN_ROW.NUMBER)
                .from(RUN_ROW)
                .where(RUN_ROW.RUN.eq(run), RUN_ROW.POSITION.ge(from))
                .orderBy(RUN_ROW.POSITION)
                .limit(most)
                .fetch(row -> new Run.Row(
                        row.value1(), Optional.ofNullable(row.value2()).orElse(""), row.value3()));
    }

    /** What a run was to do, as the act that does it reads it; none of a run that was done at once. */
    public Optional<String> wish(long run) {
        return db.select(RUN.WISH).from(RUN).where(RUN.ID.eq(run)).fetchOptional(RUN.WISH);
    }

    /** The run of a person's act, by the key of the act. */
    public Optional<Run> of(long person, String key) {
        return runs(RUN.PERSON.eq(person).and(RUN.ACT_KEY.eq(key)), 1).stream().findFirst();
    }

    /** A person's runs, the latest first, before one of them; an id that there is not begins at the latest. */
    public List<Run> of(long person, long before, int most) {
        Condition mine = RUN.PERSON.eq(person);
        Condition earlier = run(before)
                .map(r -> DSL.row(RUN.BEGUN_AT, RUN.ID).lt(Times.utc(r.begun()), before))
                .orElse(DSL.noCondition());
        return runs(mine.and(earlier), most);
    }

    /** Forgets reports of long ago, some at a time; what was done stands in the record. Gives how many. */
    public int forget(Instant before, int most) {
        return db.deleteFrom(RUN)
                .where(RUN.ENDED_AT.lt(Times.utc(before)))
                .limit(most)
                .execute();
    }

    private List<Run> runs(Condition which, int most) {
        return db.select(RUN.fields())
                .select(PERSON.NAME)
                .from(RUN)
                .join(PERSON)
                .on(PERSON.ID.eq(RUN.PERSON))
                .where(which)
                .orderBy(RUN.BEGUN_AT.desc(), RUN.ID.desc())
                .limit(most)
                .fetch(row -> new Run(
                        row.get(RUN.ID),
                        row.get(RUN.PERSON),
                        row.get(PERSON.NAME),
                        Run.What.valueOf(row.get(RUN.WHAT)),
                        row.get(RUN.SAYS),
                        Run.State.valueOf(row.get(RUN.STATE)),
                        row.get(RUN.DONE),
                        row.get(RUN.TOTAL),
                        Times.instant(row.get(RUN.BEGUN_AT)),
                        Optional.ofNullable(row.get(RUN.ENDED_AT)).map(Times::instant)));
    }
}
