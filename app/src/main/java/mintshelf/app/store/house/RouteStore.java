package mintshelf.app.store.house;

import static mintshelf.database.schema.Tables.PERSON;
import static mintshelf.database.schema.Tables.ROUTE;
import static mintshelf.database.schema.Tables.ROUTE_EDITION;
import static mintshelf.database.schema.Tables.STAGE;

import java.time.Instant;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.concurrent.ConcurrentHashMap;
import java.util.stream.Collectors;
import mintshelf.app.store.Times;
import mintshelf.core.access.Right;
import mintshelf.core.base.ContentHash;
import mintshelf.core.base.Refusal;
import mintshelf.core.document.Stage;
import mintshelf.core.house.RouteRule;
import mintshelf.core.revision.StageClass;
import mintshelf.core.route.Effect;
import mintshelf.core.route.Gate;
import mintshelf.core.route.Gates;
import mintshelf.core.route.Move;
import mintshelf.core.route.Route;
import mintshelf.core.route.RouteProof;
import mintshelf.core.route.StopRule;
import org.jooq.DSLContext;
import org.jooq.Record;
import org.jooq.impl.DSL;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Repository;
import tools.jackson.databind.json.JsonMapper;

/** Routes and their editions, which never change; and editions that are being written. */
@Repository
public class RouteStore {
    private final DSLContext db;
    private final JsonMapper json;
    private final Map<Long, Route> editions = new ConcurrentHashMap<>();

    public RouteStore(DSLContext db, JsonMapper json) {
        this.db = db;
        this.json = json;
    }

    /** What a route edition says beside its stages, as kept. */
    record Definition(
            List<KeptMove> moves,
            @Nullable Map<String, StopRule> rules,
            @Nullable Map<String, String> foreign) {
        /** What stops say, empty where an edition was kept before they said anything. */
        Map<String, StopRule> said() {
            return rules == null ? Map.of() : rules;
        }

        Map<String, String> theirs() {
            return foreign == null ? Map.of() : foreign;
        }
    }

    record KeptMove(
            String code,
            String name,
            String from,
            String to,
            String who,
            List<String> gates,
            List<String> effects,
            @Nullable String signOff) {}

    /** Adds a route with its first edition, as a house draws it. */
    public long addRoute(String code, String name, List<Stage> stages, List<Move> moves) {
        Route drawn = proved(new Route(0, code, name, stages, moves));
        long route = newRoute(code, name);
        addEdition(route, drawn, Optional.empty());
        return route;
    }

    /** Adds a route; it is nothing yet without an edition. */
    public long newRoute(String code, String name) {
        return db.insertInto(ROUTE)
                .set(ROUTE.CODE, code)
                .set(ROUTE.NAME, name)
                .returningResult(ROUTE.ID)
                .fetchSingle()
                .value1();
    }

    /** Who made an edition, when and why; nobody for one that is shipped. */
    public record Made(OptionalLong person, Instant at, String why) {}

    /** Adds the next edition of a route, as somebody of the house drew it. */
    public long addEdition(Route route, Made made) {
        long id = route(route.code()).orElseThrow();
        long edition = addEdition(id, route, Optional.empty());
        db.update(ROUTE_EDITION)
                .set(ROUTE_EDITION.MADE_BY, RuleStore.boxed(made.person()))
                .set(ROUTE_EDITION.MADE_AT, Times.utc(made.at()))
                .set(ROUTE_EDITION.WHY, made.why())
                .where(ROUTE_EDITION.ID.eq(edition))
                .execute();
        db.update(ROUTE).set(ROUTE.NAME, route.name()).where(ROUTE.ID.eq(id)).execute();
        return edition;
    }

    /**
     * Adds the next edition of a route, proved before.
     *
     * @param shipped hash of the file that it is made from; empty where a house drew it
     */
    public long addEdition(long route, Route drawn, Optional<ContentHash> shipped) {
        proved(drawn);
        List<KeptMove> moves = drawn.moves().stream()
                .map(m -> new KeptMove(
                        m.code(),
                        m.name(),
                        m.from(),
                        m.to(),
                        m.who().name(),
                        m.gates().stream().map(Gate::code).toList(),
                        m.effects().stream().map(Effect::name).toList(),
                        m.signOff()))
                .toList();
        Definition definition = new Definition(moves, drawn.rules(), drawn.foreign());
        int next = db.select(DSL.coalesce(DSL.max(ROUTE_EDITION.EDITION), 0))
                        .from(ROUTE_EDITION)
                        .where(ROUTE_EDITION.ROUTE.eq(route))
                        .fetchSingle()
                        .value1()
                + 1;
        long edition = db.insertInto(ROUTE_EDITION)
                .set(ROUTE_EDITION.ROUTE, route)
                .set(ROUTE_EDITION.EDITION, next)
                .set(ROUTE_EDITION.DEFINITION, json.writeValueAsString(definition))
                .set(ROUTE_EDITION.SHIPPED, shipped.map(ContentHash::bytes).orElse(null))
                .returningResult(ROUTE_EDITION.ID)
                .fetchSingle()
                .value1();
        for (Stage stage : drawn.stages()) {
            db.insertInto(STAGE)
                    .set(STAGE.EDITION, edition)
                    .set(STAGE.CODE, stage.code())
                    .set(STAGE.NAME, stage.name())
                    .set(STAGE.CLASS, stage.stageClass().name())
                    .set(STAGE.POSITION, stage.position())
                    .execute();
        }
        return edition;
    }

    /** The file that the latest edition of a route was made from; empty where the house drew it. */
    public Optional<ContentHash> shipped(long route) {
        return db.select(ROUTE_EDITION.SHIPPED)
                .from(ROUTE_EDITION)
                .where(ROUTE_EDITION.ROUTE.eq(route))
                .orderBy(ROUTE_EDITION.EDITION.desc())
                .limit(1)
                .fetchOptional(ROUTE_EDITION.SHIPPED)
                .map(ContentHash::of);
    }

    /** The id of a route. */
    public Optional<Long> route(String code) {
        return db.select(ROUTE.ID).from(ROUTE).where(ROUTE.CODE.eq(code)).fetchOptional(ROUTE.ID);
    }

    /** The latest edition of a route: what new revisions follow. */
    public Route latest(long route) {
        long edition = db.select(ROUTE_EDITION.ID)
                .from(ROUTE_EDITION)
                .where(ROUTE_EDITION.ROUTE.eq(route))
                .orderBy(ROUTE_EDITION.EDITION.desc())
                .limit(1)
                .fetchSingle()
                .value1();
        return edition(edition);
    }

    /** An edition with its stages in order and its moves. It never changes: read once, kept for ever. */
    public Route edition(long edition) {
        Route known = editions.get(edition);
        if (known != null) return known;
        Route read = read(edition);
        editions.put(edition, read);
        return read;
    }

    private Route read(long edition) {
        Record head = db.select(ROUTE.CODE, ROUTE.NAME, ROUTE_EDITION.DEFINITION)
                .from(ROUTE_EDITION)
                .join(ROUTE)
                .on(ROUTE.ID.eq(ROUTE_EDITION.ROUTE))
                .where(ROUTE_EDITION.ID.eq(edition))
                .fetchSingle();
        List<Stage> stages = db.selectFrom(STAGE)
                .where(STAGE.EDITION.eq(edition))
                .orderBy(STAGE.POSITION)
                .fetch(row -> new Stage(
                        edition,
                        row.getCode(),
                        row.getName(),
                        StageClass.valueOf(row.get(STAGE.CLASS)),
                        row.getPosition()));
        Definition definition = json.readValue(head.get(ROUTE_EDITION.DEFINITION), Definition.class);
        List<Move> moves = definition.moves().stream()
                .map(m -> new Move(
                        m.code(),
                        m.name(),
                        m.from(),
                        m.to(),
                        Right.valueOf(m.who()),
                        m.gates().stream().map(RouteStore::gate).toList(),
                        m.effects().stream().map(Effect::valueOf).toList(),
                        m.signOff() == null ? "" : m.signOff()))
                .toList();
        return proved(new Route(
                edition,
                head.get(ROUTE.CODE),
                head.get(ROUTE.NAME),
                stages,
                moves,
                definition.said(),
                definition.theirs()));
    }

    private static Gate gate(String code) {
        return Gates.of(code)
                .orElseThrow(() -> new IllegalStateException(
                        "A route has the gate " + code + ", which this release does not know"));
    }

    private static Route proved(Route route) {
        List<Refusal> wrong = RouteProof.ask(route);
        if (wrong.isEmpty()) return route;
        throw new IllegalStateException("The route " + route.name() + " cannot be gone: "
                + wrong.stream().map(Refusal::says).collect(Collectors.joining(" ")));
    }

    /** All routes of the house as they are in force, by their codes; in the order in which they were made. */
    public Map<String, Route> inForce() {
        Map<String, Route> all = new LinkedHashMap<>();
        for (Long route : db.select(ROUTE.ID).from(ROUTE).orderBy(ROUTE.ID).fetch(ROUTE.ID)) {
            Route latest = latest(route);
            all.put(latest.code(), latest);
        }
        return all;
    }

    /** The editions of a route, the latest first; at most {@code most}. */
    public List<Edition> editions(String code, int most) {
        return db.select(
                        ROUTE_EDITION.ID,
                        ROUTE_EDITION.EDITION,
                        ROUTE_EDITION.MADE_AT,
                        ROUTE_EDITION.WHY,
                        DSL.coalesce(PERSON.NAME, "").as("by"))
                .from(ROUTE_EDITION)
                .join(ROUTE)
                .on(ROUTE.ID.eq(ROUTE_EDITION.ROUTE))
                .leftJoin(PERSON)
                .on(PERSON.ID.eq(ROUTE_EDITION.MADE_BY))
                .where(ROUTE.CODE.eq(code))
                .orderBy(ROUTE_EDITION.EDITION.desc())
                .limit(most)
                .fetch(row -> new Edition(
                        row.get(ROUTE_EDITION.EDITION),
                        row.get("by", String.class),
                        Times.instant(row.get(ROUTE_EDITION.MADE_AT)),
                        row.get(ROUTE_EDITION.WHY),
                        new RouteRule(edition(row.get(ROUTE_EDITION.ID)))));
    }

    /** The number of a route's latest edition, 0 where there is none; the route is locked until the caller's transaction ends. */
    public int latestNumber(String code) {
        Optional<Long> route = db.select(ROUTE.ID)
                .from(ROUTE)
                .where(ROUTE.CODE.eq(code))
                .forUpdate()
                .fetchOptional(ROUTE.ID);
        return route.map(id -> db.select(ROUTE_EDITION.EDITION)
                        .from(ROUTE_EDITION)
                        .where(ROUTE_EDITION.ROUTE.eq(id))
                        .orderBy(ROUTE_EDITION.EDITION.desc())
                        .limit(1)
                        .forUpdate()
                        .fetchSingle()
                        .value1())
                .orElse(0);
    }

    /** A stage by its name, of one edition of a route. */
    public record StageName(long edition, String code, String name) {}

    /** The stages of all editions. */
    public List<StageName> stageNames() {
        return db.select(STAGE.EDITION, STAGE.CODE, STAGE.NAME)
                .from(STAGE)
                .orderBy(STAGE.POSITION, STAGE.EDITION)
                .fetch(row -> new StageName(row.value1(), row.value2(), row.value3()));
    }
}
