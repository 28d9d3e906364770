package mintshelf.app.store.takein;

import static mintshelf.database.schema.Tables.PERSON;
import static mintshelf.database.schema.Tables.TAKE_IN;

import java.time.Instant;
import java.util.List;
import java.util.Optional;
import mintshelf.app.store.Leased;
import mintshelf.app.store.Times;
import mintshelf.app.store.takein.TakeIn.State;
import mintshelf.core.base.Refusal;
import mintshelf.core.base.Texts;
import mintshelf.core.takein.TakeRules;
import mintshelf.database.schema.tables.records.TakeInRecord;
import org.jooq.Condition;
import org.jooq.DSLContext;
import org.springframework.stereotype.Repository;
import tools.jackson.core.type.TypeReference;
import tools.jackson.databind.json.JsonMapper;

/** Taking-ins, and those of them that wait to be gone on with. */
@Repository
public class TakeInStore {
    private static final TypeReference<List<Refusal>> GENERAL = new TypeReference<>() {};
    private static final TypeReference<List<List<String>>> ROWS = new TypeReference<>() {};
    private static final Leased<TakeInRecord> WORKING = new Leased<>(
            TAKE_IN.STATE.in(State.UNPACKING.name(), State.READING.name(), State.FILING.name()),
            TAKE_IN.NEXT_AT,
            TAKE_IN.LEASE_UNTIL,
            TAKE_IN.TRIES);

    private final DSLContext db;
    private final JsonMapper json;

    public TakeInStore(DSLContext db, JsonMapper json) {
        this.db = db;
        this.json = json;
    }

    public long begin(long person, long shelf, long folder, String name, Instant now) {
        return db.insertInto(TAKE_IN)
                .set(TAKE_IN.PERSON, person)
                .set(TAKE_IN.SHELF, shelf)
                .set(TAKE_IN.FOLDER, folder)
                .set(TAKE_IN.NAME, name)
                .set(TAKE_IN.STATE, State.BRINGING.name())
                .set(TAKE_IN.RULES, json.writeValueAsString(TakeRules.USUAL))
                .set(TAKE_IN.BEGUN_AT, Times.utc(now))
                .set(TAKE_IN.MOVED_AT, Times.utc(now))
                .set(TAKE_IN.NEXT_AT, Times.utc(now))
                .returningResult(TAKE_IN.ID)
                .fetchSingle()
                .value1();
    }

    public Optional<TakeIn> takeIn(long id) {
        return all(TAKE_IN.ID.eq(id), 1).stream().findFirst();
    }

    /** As {@link #takeIn}, locked within the caller's transaction. */
    public Optional<TakeIn> lock(long id) {
        db.select(TAKE_IN.ID).from(TAKE_IN).where(TAKE_IN.ID.eq(id)).forUpdate().fetch();
        return takeIn(id);
    }

    /** Of a shelf, those that were given up left out, the latest first. */
    public List<TakeIn> ofShelf(long shelf, int most) {
        return all(TAKE_IN.SHELF.eq(shelf).and(TAKE_IN.STATE.ne(State.DROPPED.name())), most);
    }

    /** Those of a person that wait for them: brought in part, or to be looked at. */
    public List<TakeIn> waitingFor(long person, int most) {
        return all(TAKE_IN.PERSON.eq(person).and(TAKE_IN.STATE.in(State.BRINGING.name(), State.OPEN.name())), most);
    }

    private List<TakeIn> all(Condition which, int most) {
        return db.select(
                        TAKE_IN.ID,
                        TAKE_IN.PERSON,
                        PERSON.NAME,
                        TAKE_IN.SHELF,
                        TAKE_IN.FOLDER,
                        TAKE_IN.NAME,
                        TAKE_IN.STATE,
                        TAKE_IN.RULES,
                        TAKE_IN.TABLE_NAME,
                        TAKE_IN.ARCHIVE,
                        TAKE_IN.GENERAL,
                        TAKE_IN.DONE,
                        TAKE_IN.TOTAL,
                        TAKE_IN.SAYS,
                        TAKE_IN.BEGUN_AT,
                        TAKE_IN.MOVED_AT,
                        TAKE_IN.ENDED_AT)
                .from(TAKE_IN)
                .join(PERSON)
                .on(PERSON.ID.eq(TAKE_IN.PERSON))
                .where(which)
                .orderBy(TAKE_IN.ID.desc())
                .limit(most)
                .fetch(row -> new TakeIn(
                        row.get(TAKE_IN.ID),
                        row.get(TAKE_IN.PERSON),
                        row.get(PERSON.NAME),
                        row.get(TAKE_IN.SHELF),
                        row.get(TAKE_IN.FOLDER),
                        row.get(TAKE_IN.NAME),
                        State.valueOf(row.get(TAKE_IN.STATE)),
                        json.readValue(row.get(TAKE_IN.RULES), TakeRules.class),
                        row.get(TAKE_IN.TABLE_NAME),
                        Optional.ofNullable(row.get(TAKE_IN.ARCHIVE)),
                        Optional.ofNullable(row.get(TAKE_IN.GENERAL))
                                .map(g -> json.readValue(g, GENERAL))
                                .orElse(List.of()),
                        row.get(TAKE_IN.DONE),
                        row.get(TAKE_IN.TOTAL),
                        row.get(TAKE_IN.SAYS),
                        Times.instant(row.get(TAKE_IN.BEGUN_AT)),
                        Times.instant(row.get(TAKE_IN.MOVED_AT)),
                        Optional.ofNullable(row.get(TAKE_IN.ENDED_AT)).map(Times::instant)));
    }

    public void setRules(long id, TakeRules rules) {
        db.update(TAKE_IN)
                .set(TAKE_IN.RULES, json.writeValueAsString(rules))
                .where(TAKE_IN.ID.eq(id))
                .execute();
    }

    public void setArchive(long id, long upload) {
        db.update(TAKE_IN).set(TAKE_IN.ARCHIVE, upload).where(TAKE_IN.ID.eq(id)).execute();
    }

    public void dropArchive(long id) {
        db.update(TAKE_IN).setNull(TAKE_IN.ARCHIVE).where(TAKE_IN.ID.eq(id)).execute();
    }

    /** @param name empty for no table */
    public void setTable(long id, String name, List<List<String>> rows) {
        db.update(TAKE_IN)
                .set(TAKE_IN.TABLE_NAME, Texts.shorten(name, 200))
                .set(TAKE_IN.TABLE_ROWS, json.writeValueAsString(rows))
                .where(TAKE_IN.ID.eq(id))
                .execute();
    }

    /** The rows of its table as they came; none where it has none. */
    public List<List<String>> table(long id) {
        return db.select(TAKE_IN.TABLE_ROWS)
                .from(TAKE_IN)
                .where(TAKE_IN.ID.eq(id))
                .fetchOptional(TAKE_IN.TABLE_ROWS)
                .map(rows -> json.readValue(rows, ROWS))
                .orElse(List.of());
    }

    public void setGeneral(long id, List<Refusal> general) {
        db.update(TAKE_IN)
                .set(TAKE_IN.GENERAL, json.writeValueAsString(general))
                .where(TAKE_IN.ID.eq(id))
                .execute();
    }

    /**
     * Moves it on; a lease on it ends.
     *
     * @param total how much there is to do
     * @param says why it stands there; mostly empty
     */
    public void move(long id, State state, int total, String says, Instant now) {
        boolean ends = state == State.DONE || state == State.DROPPED;
        db.update(TAKE_IN)
                .set(TAKE_IN.STATE, state.name())
                .set(TAKE_IN.DONE, 0)
                .set(TAKE_IN.TOTAL, total)
                .set(TAKE_IN.SAYS, Texts.shorten(says, 500))
                .set(TAKE_IN.MOVED_AT, Times.utc(now))
                .set(TAKE_IN.NEXT_AT, Times.utc(now))
                .set(TAKE_IN.ENDED_AT, ends ? Times.utc(now) : null)
                .set(TAKE_IN.TRIES, 0)
                .setNull(TAKE_IN.LEASE_UNTIL)
                .where(TAKE_IN.ID.eq(id))
                .execute();
    }

    /** That its person did something with it. */
    public void touch(long id, Instant now) {
        db.update(TAKE_IN)
                .set(TAKE_IN.MOVED_AT, Times.utc(now))
                .where(TAKE_IN.ID.eq(id))
                .execute();
    }

    /**
     * One that somebody goes on with.
     *
     * @param leaseUntil by which the one who goes on is known
     * @param tries how often its next portion was tried
     */
    public record Work(long id, State state, Instant leaseUntil, int tries) {}

    /** Takes the next one that waits, those of others passed over. */
    public Optional<Work> take(Instant now, Instant leaseUntil) {
        return WORKING.take(db, now, leaseUntil)
                .map(row -> new Work(row.getId(), State.valueOf(row.getState()), leaseUntil, row.getTries() + 1));
    }

    /** Whether it is the caller's still: locked, with the lease renewed. None where it is another's by now, or was moved. */
    public Optional<Work> renewed(Work work, Instant leaseUntil) {
        int mine = db.update(TAKE_IN)
                .set(TAKE_IN.LEASE_UNTIL, Times.utc(leaseUntil))
                .where(
                        TAKE_IN.ID.eq(work.id()),
                        TAKE_IN.STATE.eq(work.state().name()),
                        TAKE_IN.LEASE_UNTIL.eq(Times.utc(work.leaseUntil())))
                .execute();
        return mine == 1 ? Optional.of(new Work(work.id(), work.state(), leaseUntil, work.tries())) : Optional.empty();
    }

    /** Notes how much more is done; the next portion was not tried yet. */
    public void did(long id, int more) {
        db.update(TAKE_IN)
                .set(TAKE_IN.DONE, TAKE_IN.DONE.plus(more))
                .set(TAKE_IN.TRIES, 1)
                .where(TAKE_IN.ID.eq(id))
                .execute();
    }

    /** Its work is begun from the start: what is there is counted anew. */
    public void again(long id) {
        db.update(TAKE_IN).set(TAKE_IN.DONE, 0).where(TAKE_IN.ID.eq(id)).execute();
    }

    public void setTotal(long id, int total) {
        db.update(TAKE_IN).set(TAKE_IN.TOTAL, total).where(TAKE_IN.ID.eq(id)).execute();
    }

    /** Lets it go for whoever is next, from a moment on. */
    public void letGo(Work work, Instant nextAt) {
        db.update(TAKE_IN)
                .setNull(TAKE_IN.LEASE_UNTIL)
                .set(TAKE_IN.NEXT_AT, Times.utc(nextAt))
                .where(
                        TAKE_IN.ID.eq(work.id()),
                        TAKE_IN.STATE.eq(work.state().name()),
                        TAKE_IN.LEASE_UNTIL.eq(Times.utc(work.leaseUntil())))
                .execute();
    }
}
