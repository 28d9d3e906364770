package mintshelf.app.store.house;

import static mintshelf.database.schema.Tables.PERSON;
import static mintshelf.database.schema.Tables.ROUTE;
import static mintshelf.database.schema.Tables.ROUTE_DRAFT;

import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import mintshelf.app.store.Times;
import mintshelf.core.base.Outcome;
import mintshelf.core.route.Route;
import mintshelf.core.route.Scxml;
import org.jooq.DSLContext;
import org.springframework.stereotype.Repository;
import tools.jackson.databind.json.JsonMapper;

/** Editions of routes that are being written: kept after every step, one a person and route. */
@Repository
public class DraftStore {
    /** How many steps can be taken back. */
    private static final int STEPS = 50;

    private final DSLContext db;
    private final JsonMapper json;

    public DraftStore(DSLContext db, JsonMapper json) {
        this.db = db;
        this.json = json;
    }

    /**
     * What somebody is writing.
     *
     * @param base number of the edition that it began from
     * @param steps how many steps can be taken back
     */
    public record Draft(Route route, int base, Instant begunAt, int steps) {}

    public Optional<Draft> of(long person, String code) {
        return db.select(ROUTE_DRAFT.BASE, ROUTE_DRAFT.BEGUN_AT, ROUTE_DRAFT.STATES)
                .from(ROUTE_DRAFT)
                .join(ROUTE)
                .on(ROUTE.ID.eq(ROUTE_DRAFT.ROUTE))
                .where(ROUTE_DRAFT.PERSON.eq(person), ROUTE.CODE.eq(code))
                .fetchOptional(row -> {
                    List<String> states = states(row.value3());
                    return new Draft(
                            route(code, states.get(states.size() - 1)),
                            row.value1(),
                            Times.instant(row.value2()),
                            states.size() - 1);
                });
    }

    private List<String> states(String kept) {
        return new ArrayList<>(List.of(json.readValue(kept, String[].class)));
    }

    /** What was written here is read here. */
    private static Route route(String code, String state) {
        Outcome<Scxml.Read> read = Scxml.read(code, state);
        if (read instanceof Outcome.Granted<Scxml.Read> granted)
            return granted.value().route();
        throw new IllegalStateException("A draft of " + code + " cannot be read: "
                + read.refusal().orElseThrow().reason());
    }

    /** Begins a draft with this state, in the place of one that is there. */
    public void begin(long person, long route, int base, Route state, Instant now) {
        drop(person, route);
        db.insertInto(ROUTE_DRAFT)
                .set(ROUTE_DRAFT.PERSON, person)
                .set(ROUTE_DRAFT.ROUTE, route)
                .set(ROUTE_DRAFT.BASE, base)
                .set(ROUTE_DRAFT.BEGUN_AT, Times.utc(now))
                .set(ROUTE_DRAFT.STATES, json.writeValueAsString(List.of(Scxml.write(state))))
                .execute();
    }

    /** One step more; of very many the oldest cannot be taken back any more. */
    public void step(long person, long route, Route state) {
        List<String> states = lockedStates(person, route);
        states.add(Scxml.write(state));
        if (states.size() > STEPS) states.remove(1);
        keep(person, route, states);
    }

    /** One step back; the first state stays. */
    public void back(long person, long route) {
        List<String> states = lockedStates(person, route);
        if (states.size() < 2) return;
        states.remove(states.size() - 1);
        keep(person, route, states);
    }

    private List<String> lockedStates(long person, long route) {
        return states(db.select(ROUTE_DRAFT.STATES)
                .from(ROUTE_DRAFT)
                .where(ROUTE_DRAFT.PERSON.eq(person), ROUTE_DRAFT.ROUTE.eq(route))
                .forUpdate()
                .fetchSingle()
                .value1());
    }

    private void keep(long person, long route, List<String> states) {
        db.update(ROUTE_DRAFT)
                .set(ROUTE_DRAFT.STATES, json.writeValueAsString(states))
                .where(ROUTE_DRAFT.PERSON.eq(person), ROUTE_DRAFT.ROUTE.eq(route))
                .execute();
    }

    public void drop(long person, long route) {
        db.deleteFrom(ROUTE_DRAFT)
                .where(ROUTE_DRAFT.PERSON.eq(person), ROUTE_DRAFT.ROUTE.eq(route))
                .execute();
    }

    /** Names of those who write an edition of a route now, without one of them. */
    public List<String> writers(String code, long without) {
        return db.select(PERSON.NAME)
                .from(ROUTE_DRAFT)
                .join(ROUTE)
                .on(ROUTE.ID.eq(ROUTE_DRAFT.ROUTE))
                .join(PERSON)
                .on(PERSON.ID.eq(ROUTE_DRAFT.PERSON))
                .where(ROUTE.CODE.eq(code), ROUTE_DRAFT.PERSON.ne(without))
                .orderBy(PERSON.NAME)
                .limit(5)
                .fetch(PERSON.NAME);
    }
}
