package mintshelf.app.store.run;

import static mintshelf.database.schema.Tables.PERSON;
import static mintshelf.database.schema.Tables.RUN;

import java.time.Instant;
import java.util.List;
import java.util.Optional;
import mintshelf.app.store.Times;
import mintshelf.core.base.Texts;
import org.jooq.Condition;
import org.jooq.DSLContext;
import org.jooq.impl.DSL;
import org.springframework.stereotype.Repository;
import tools.jackson.databind.json.JsonMapper;

/** Runs by their ids and by the acts that made them. */
@Repository
public class RunStore {
    private final DSLContext db;
    private final JsonMapper json;

    public RunStore(DSLContext db, JsonMapper json) {
        this.db = db;
        this.json = json;
    }

    /** Keeps the report of an act that is done; in the act's transaction. */
    public long done(long person, String key, Run.What what, String says, List<Run.Row> rows, Instant now) {
        return db.insertInto(RUN)
                .set(RUN.PERSON, person)
                .set(RUN.ACT_KEY, key)
                .set(RUN.WHAT, what.name())
                .set(RUN.SAYS, Texts.shorten(says, 500))
                .set(RUN.REPORT, json.writeValueAsString(rows))
                .set(RUN.STATE, Run.State.DONE.name())
                .set(RUN.DONE, rows.size())
                .set(RUN.TOTAL, rows.size())
                .set(RUN.BEGUN_AT, Times.utc(now))
                .set(RUN.ENDED_AT, Times.utc(now))
                .returningResult(RUN.ID)
                .fetchSingle()
                .value1();
    }

    public Optional<Run> run(long id) {
        return runs(RUN.ID.eq(id), 1).stream().findFirst();
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
                        List.of(json.readValue(row.get(RUN.REPORT), Run.Row[].class)),
                        Run.State.valueOf(row.get(RUN.STATE)),
                        row.get(RUN.DONE),
                        row.get(RUN.TOTAL),
                        Times.instant(row.get(RUN.BEGUN_AT)),
                        Optional.ofNullable(row.get(RUN.ENDED_AT)).map(Times::instant)));
    }
}
