package mintshelf.app.store.house;

import static mintshelf.database.schema.Tables.FACT;
import static mintshelf.database.schema.Tables.FILING_RULE;
import static mintshelf.database.schema.Tables.KIND;
import static mintshelf.database.schema.Tables.KIND_FACT;
import static mintshelf.database.schema.Tables.NUMBER_SERIES;
import static mintshelf.database.schema.Tables.ROLE;
import static mintshelf.database.schema.Tables.ROUTE;
import static mintshelf.database.schema.Tables.ROUTE_EDITION;
import static mintshelf.database.schema.Tables.STAGE;

import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import java.util.concurrent.ConcurrentHashMap;
import java.util.stream.Collectors;
import mintshelf.core.access.Right;
import mintshelf.core.base.ContentHash;
import mintshelf.core.base.Refusal;
import mintshelf.core.base.Texts;
import mintshelf.core.change.PaperType;
import mintshelf.core.content.ContentKind;
import mintshelf.core.document.Aspect;
import mintshelf.core.document.Stage;
import mintshelf.core.fact.FactDefinition;
import mintshelf.core.fact.FactType;
import mintshelf.core.filing.FilingRule;
import mintshelf.core.revision.StageClass;
import mintshelf.core.route.Effect;
import mintshelf.core.route.Gate;
import mintshelf.core.route.Gates;
import mintshelf.core.route.Move;
import mintshelf.core.route.Route;
import mintshelf.core.route.RouteProof;
import mintshelf.core.route.SignOffLine;
import org.jooq.DSLContext;
import org.jooq.Record;
import org.jooq.impl.DSL;
import org.springframework.stereotype.Repository;
import tools.jackson.databind.json.JsonMapper;

/** House rules: kinds, series, routes, facts, filing rules. */
@Repository
public class HouseStore {
    private final DSLContext db;
    private final JsonMapper json;
    private final Map<Long, Route> editions = new ConcurrentHashMap<>();

    public HouseStore(DSLContext db, JsonMapper json) {
        this.db = db;
        this.json = json;
    }

    /** The moves of a route edition as kept. */
    record Definition(List<KeptMove> moves) {}

    record KeptMove(
            String code,
            String name,
            String from,
            String to,
            String who,
            List<String> gates,
            List<String> effects,
            List<SignOffLine> signOffs) {}

    public List<Kind> kinds() {
        return db.selectFrom(KIND).orderBy(KIND.POSITION).fetch(HouseStore::kind);
    }

    public Kind kind(long id) {
        return db.selectFrom(KIND).where(KIND.ID.eq(id)).fetchSingle(HouseStore::kind);
    }

    public Kind kind(String code) {
        return db.selectFrom(KIND).where(KIND.CODE.eq(code)).fetchSingle(HouseStore::kind);
    }

    private static Kind kind(Record row) {
        return new Kind(
                row.get(KIND.ID),
                row.get(KIND.CODE),
                row.get(KIND.NAME),
                Aspect.valueOf(row.get(KIND.ASPECT)),
                row.get(KIND.GLYPH),
                row.get(KIND.NUMBER_SERIES),
                row.get(KIND.REVISION_SERIES),
                row.get(KIND.LABEL_TAKEN).equals("START"),
                row.get(KIND.ROUTE),
                paper(row.get(KIND.PAPER)));
    }

    /** What the documents of a kind are in a change, as kept. */
    public static Optional<PaperType> paper(@org.jspecify.annotations.Nullable String kept) {
        return Optional.ofNullable(kept).map(PaperType::valueOf);
    }

    /** The kind of the papers of a type: the first one of the house. */
    public Kind kind(PaperType paper) {
        return db.selectFrom(KIND)
                .where(KIND.PAPER.eq(paper.name()))
                .orderBy(KIND.POSITION)
                .limit(1)
                .fetchSingle(HouseStore::kind);
    }

    /** Whether readers are not told that documents of a kind are being revised. */
    public boolean hidesRevising(long kind) {
        return db.select(KIND.HIDES_REVISING).from(KIND).where(KIND.ID.eq(kind)).fetchSingle(KIND.HIDES_REVISING);
    }

    public void hideRevising(long kind, boolean hides) {
        db.update(KIND).set(KIND.HIDES_REVISING, hides).where(KIND.ID.eq(kind)).execute();
    }

    public boolean isEmpty() {
        return !db.fetchExists(KIND);
    }

    public long addSeries(String code, String name, String pattern, String scope) {
        return db.insertInto(NUMBER_SERIES)
                .set(NUMBER_SERIES.CODE, code)
                .set(NUMBER_SERIES.NAME, name)
                .set(NUMBER_SERIES.PATTERN, pattern)
                .set(NUMBER_SERIES.SCOPE, scope)
                .returningResult(NUMBER_SERIES.ID)
                .fetchSingle()
                .value1();
    }

    /** Adds a route with its first edition, as a house draws it. */
    public long addRoute(String code, String name, List<Stage> stages, List<Move> moves) {
        proved(new Route(0, code, name, stages, moves));
        long route = newRoute(code, name);
        addEdition(route, code, name, stages, moves, Optional.empty());
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

    /**
     * Adds the next edition of a route, proved before.
     *
     * @param shipped hash of the file that it is made from; empty where a house drew it
     */
    public long addEdition(
            long route, String code, String name, List<Stage> stages, List<Move> moves, Optional<ContentHash> shipped) {
        proved(new Route(0, code, name, stages, moves));
        Definition definition = new Definition(moves.stream()
                .map(m -> new KeptMove(
                        m.code(),
                        m.name(),
                        m.from(),
                        m.to(),
                        m.who().name(),
                        m.gates().stream().map(Gate::code).toList(),
                        m.effects().stream().map(Effect::name).toList(),
                        m.signOffs()))
                .toList());
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
        for (Stage stage : stages) {
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

    public String roleName(String code) {
        return db.select(ROLE.NAME).from(ROLE).where(ROLE.CODE.eq(code)).fetchSingle(ROLE.NAME);
    }

    /** The id of a route. */
    public Optional<Long> route(String code) {
        return db.select(ROUTE.ID).from(ROUTE).where(ROUTE.CODE.eq(code)).fetchOptional(ROUTE.ID);
    }

    /** The facts of title blocks that carry a signer or the day of a signature, on any edition of any route; one statement. */
    public Set<String> signOffFacts() {
        Set<String> facts = new TreeSet<>();
        db.select(ROUTE_EDITION.ID).from(ROUTE_EDITION).fetch(ROUTE_EDITION.ID).stream()
                .flatMap(id -> edition(id).moves().stream())
                .flatMap(m -> m.signOffs().stream())
                .forEach(line -> facts.addAll(List.of(line.fact(), line.day())));
        facts.remove("");
        return facts;
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
                        m.gates().stream().map(HouseStore::gate).toList(),
                        m.effects().stream().map(Effect::valueOf).toList(),
                        m.signOffs()))
                .toList();
        Route route = new Route(edition, head.get(ROUTE.CODE), head.get(ROUTE.NAME), stages, moves);
        return proved(route);
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

    /** Adds a kind and gives it with its id. */
    public Kind addKind(Kind kind, int position) {
        long id = db.insertInto(KIND)
                .set(KIND.CODE, kind.code())
                .set(KIND.NAME, kind.name())
                .set(KIND.ASPECT, kind.aspect().name())
                .set(KIND.GLYPH, kind.glyph())
                .set(KIND.NUMBER_SERIES, kind.numberSeries())
                .set(KIND.REVISION_SERIES, kind.revisionSeries())
                .set(KIND.LABEL_TAKEN, kind.labelAtStart() ? "START" : "RELEASE")
                .set(KIND.ROUTE, kind.route())
                .set(KIND.PAPER, kind.paper().map(PaperType::name).orElse(null))
                .set(KIND.POSITION, position)
                .returningResult(KIND.ID)
                .fetchSingle()
                .value1();
        return kind(id);
    }

    public long addFact(String name, String label, FactType type, String unit, String pattern, List<String> choices) {
        return db.insertInto(FACT)
                .set(FACT.NAME, name)
                .set(FACT.NAME_KEY, Texts.key(name))
                .set(FACT.LABEL, label)
                .set(FACT.TYPE, type.name())
                .set(FACT.UNIT, unit)
                .set(FACT.PATTERN, pattern)
                .set(FACT.CHOICES, choices.isEmpty() ? null : json.writeValueAsString(choices))
                .returningResult(FACT.ID)
                .fetchSingle()
                .value1();
    }

    public void giveFact(long kind, long fact, KindFact.Required required, int position) {
        db.insertInto(KIND_FACT)
                .set(KIND_FACT.KIND, kind)
                .set(KIND_FACT.FACT, fact)
                .set(KIND_FACT.REQUIRED, required.name())
                .set(KIND_FACT.POSITION, position)
                .execute();
    }

    /** The fact sheets of all kinds, by kind, in order; one statement. */
    public Map<Long, List<KindFact>> factSheets() {
        return db.select(KIND_FACT.fields())
                .select(FACT.fields())
                .from(KIND_FACT)
                .join(FACT)
                .on(FACT.ID.eq(KIND_FACT.FACT))
                .orderBy(KIND_FACT.KIND, KIND_FACT.POSITION)
                .fetchGroups(
                        KIND_FACT.KIND,
                        row -> new KindFact(
                                row.get(KIND_FACT.KIND),
                                fact(row),
                                KindFact.Required.valueOf(row.get(KIND_FACT.REQUIRED))));
    }

    private FactDefinition fact(Record row) {
        String choices = row.get(FACT.CHOICES);
        return new FactDefinition(
                row.get(FACT.ID),
                row.get(FACT.NAME),
                row.get(FACT.LABEL),
                FactType.valueOf(row.get(FACT.TYPE)),
                row.get(FACT.UNIT),
                row.get(FACT.PATTERN),
                choices == null ? List.of() : Arrays.asList(json.readValue(choices, String[].class)));
    }

    public void addFilingRule(int position, String contentKind, String namePattern, long kind) {
        db.insertInto(FILING_RULE)
                .set(FILING_RULE.POSITION, position)
                .set(FILING_RULE.CONTENT_KIND, contentKind)
                .set(FILING_RULE.NAME_PATTERN, namePattern)
                .set(FILING_RULE.KIND, kind)
                .execute();
    }

    private static String says(Record row) {
        String content = row.get(FILING_RULE.CONTENT_KIND);
        String named = row.get(FILING_RULE.NAME_PATTERN).isEmpty() ? "" : "its name";
        String words = content.isEmpty() ? named : ContentKind.valueOf(content).words();
        return "filing rule " + row.get(FILING_RULE.POSITION) + ": " + words
                + (content.isEmpty() || named.isEmpty() ? "" : " and " + named);
    }

    /** The filing rules in their order. */
    public List<FilingRule> filingRules() {
        return db.select(FILING_RULE.fields())
                .select(KIND.NAME)
                .from(FILING_RULE)
                .join(KIND)
                .on(KIND.ID.eq(FILING_RULE.KIND))
                .orderBy(FILING_RULE.POSITION)
                .fetch(row -> new FilingRule(
                        row.get(FILING_RULE.CONTENT_KIND),
                        row.get(FILING_RULE.NAME_PATTERN),
                        row.get(FILING_RULE.KIND),
                        row.get(KIND.NAME),
                        says(row)));
    }
}
