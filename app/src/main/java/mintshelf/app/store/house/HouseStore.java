package mintshelf.app.store.house;

import static mintshelf.database.schema.Tables.FACT;
import static mintshelf.database.schema.Tables.KIND;
import static mintshelf.database.schema.Tables.KIND_FACT;
import static mintshelf.database.schema.Tables.ROLE;
import static mintshelf.database.schema.Tables.SHELF_ROUTE;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import mintshelf.core.base.Texts;
import mintshelf.core.change.PaperType;
import mintshelf.core.document.Aspect;
import mintshelf.core.document.OutputFormat;
import mintshelf.core.document.Outputs;
import mintshelf.core.fact.FactDefinition;
import mintshelf.core.fact.FactForm;
import mintshelf.core.fact.FactUse;
import mintshelf.core.fact.RequiredAt;
import mintshelf.core.house.FactRule;
import mintshelf.core.route.Route;
import org.jooq.DSLContext;
import org.jooq.Record;
import org.springframework.stereotype.Repository;
import tools.jackson.databind.json.JsonMapper;

/** House rules: kinds, series, routes, facts, filing rules. */
@Repository
public class HouseStore {
    private final DSLContext db;
    private final JsonMapper json;
    private final RouteStore routes;

    public HouseStore(DSLContext db, JsonMapper json, RouteStore routes) {
        this.db = db;
        this.json = json;
        this.routes = routes;
    }

    /** An edition of a route, see {@link RouteStore}. */
    public Route edition(long edition) {
        return routes.edition(edition);
    }

    /** What new revisions of a kind follow on a shelf: the latest edition of the kind's route, or of the one that stands in its place there. */
    public Route latest(Kind kind, long shelf) {
        return routes.latest(db.select(SHELF_ROUTE.ROUTE)
                .from(SHELF_ROUTE)
                .where(SHELF_ROUTE.SHELF.eq(shelf), SHELF_ROUTE.KIND.eq(kind.id()))
                .fetchOptional(SHELF_ROUTE.ROUTE)
                .orElse(kind.route()));
    }

    /** The routes that shelves have in place of their kinds' own, one statement. */
    public List<ShelfRoute> shelfRoutes() {
        return db.selectFrom(SHELF_ROUTE)
                .orderBy(SHELF_ROUTE.SHELF, SHELF_ROUTE.KIND)
                .fetch(row -> new ShelfRoute(row.getShelf(), row.getKind(), row.getRoute()));
    }

    /** Puts a route in the place of a kind's own on a shelf; empty gives the kind its own back. */
    public void replaceRoute(long shelf, long kind, Optional<Long> route) {
        db.deleteFrom(SHELF_ROUTE)
                .where(SHELF_ROUTE.SHELF.eq(shelf), SHELF_ROUTE.KIND.eq(kind))
                .execute();
        route.ifPresent(r -> db.insertInto(SHELF_ROUTE)
                .set(SHELF_ROUTE.SHELF, shelf)
                .set(SHELF_ROUTE.KIND, kind)
                .set(SHELF_ROUTE.ROUTE, r)
                .execute());
    }

    /** A route in the place of a kind's own on a shelf. */
    public record ShelfRoute(long shelf, long kind, long route) {}

    public List<Kind> kinds() {
        return db.selectFrom(KIND).orderBy(KIND.POSITION).fetch(HouseStore::kind);
    }

    public Kind kind(long id) {
        return db.selectFrom(KIND).where(KIND.ID.eq(id)).fetchSingle(HouseStore::kind);
    }

    public Kind kind(String code) {
        return db.selectFrom(KIND).where(KIND.CODE.eq(code)).fetchSingle(HouseStore::kind);
    }

    /** The kind of a code that somebody wrote. */
    public Optional<Kind> kindCalled(String code) {
        return db.selectFrom(KIND).where(KIND.CODE.eq(code)).fetchOptional(HouseStore::kind);
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
                paper(row.get(KIND.PAPER)),
                new Outputs(formats(row.get(KIND.OUTPUTS)), row.get(KIND.OUTPUT_NAME)));
    }

    private static List<OutputFormat> formats(String kept) {
        return Stream.of(kept.split(","))
                .filter(f -> !f.isEmpty())
                .map(OutputFormat::valueOf)
                .toList();
    }

    private static String kept(Outputs outputs) {
        return outputs.formats().stream().map(OutputFormat::name).collect(Collectors.joining(","));
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

    /** The kinds of the papers of a type, in their order: a house may have several. */
    public List<Kind> kinds(PaperType paper) {
        return db.selectFrom(KIND)
                .where(KIND.PAPER.eq(paper.name()))
                .orderBy(KIND.POSITION)
                .fetch(HouseStore::kind);
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

    public String roleName(String code) {
        return db.select(ROLE.NAME).from(ROLE).where(ROLE.CODE.eq(code)).fetchSingle(ROLE.NAME);
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
                .set(KIND.OUTPUTS, kept(kind.outputs()))
                .set(KIND.OUTPUT_NAME, kind.outputs().name())
                .set(KIND.PAPER, kind.paper().map(PaperType::name).orElse(null))
                .set(KIND.POSITION, position)
                .returningResult(KIND.ID)
                .fetchSingle()
                .value1();
        return kind(id);
    }

    /** Writes what the latest edition of a kind says; its code, aspect and paper stay. */
    public void change(Kind kind) {
        db.update(KIND)
                .set(KIND.NAME, kind.name())
                .set(KIND.GLYPH, kind.glyph())
                .set(KIND.NUMBER_SERIES, kind.numberSeries())
                .set(KIND.REVISION_SERIES, kind.revisionSeries())
                .set(KIND.LABEL_TAKEN, kind.labelAtStart() ? "START" : "RELEASE")
                .set(KIND.ROUTE, kind.route())
                .set(KIND.OUTPUTS, kept(kind.outputs()))
                .set(KIND.OUTPUT_NAME, kind.outputs().name())
                .where(KIND.ID.eq(kind.id()))
                .execute();
    }

    /** Takes all facts off a kind's fact sheet; what documents say stays. */
    public void clearFacts(long kind) {
        db.deleteFrom(KIND_FACT).where(KIND_FACT.KIND.eq(kind)).execute();
    }

    /** All facts of the house, by their short names. */
    public List<FactDefinition> facts() {
        return db.selectFrom(FACT).orderBy(FACT.ID).fetch(this::fact);
    }

    /** Writes what the latest edition of a fact says; its short name and its type stay. */
    public void change(FactRule fact) {
        db.update(FACT)
                .set(FACT.LABEL, fact.label())
                .set(FACT.FORM, json.writeValueAsString(fact.form()))
                .set(FACT.USED, json.writeValueAsString(fact.use()))
                .where(FACT.NAME_KEY.eq(Texts.key(fact.code())))
                .execute();
    }

    public long addFact(FactRule fact) {
        return db.insertInto(FACT)
                .set(FACT.NAME, fact.code())
                .set(FACT.NAME_KEY, Texts.key(fact.code()))
                .set(FACT.LABEL, fact.label())
                .set(FACT.TYPE, fact.type().name())
                .set(FACT.FORM, json.writeValueAsString(fact.form()))
                .set(FACT.USED, json.writeValueAsString(fact.use()))
                .returningResult(FACT.ID)
                .fetchSingle()
                .value1();
    }

    /** Puts a fact on a kind's fact sheet. */
    public void giveFact(long kind, long fact, RequiredAt required, boolean cleared, int position) {
        db.insertInto(KIND_FACT)
                .set(KIND_FACT.KIND, kind)
                .set(KIND_FACT.FACT, fact)
                .set(KIND_FACT.REQUIRED, required.name())
                .set(KIND_FACT.CLEARED, cleared)
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
                                RequiredAt.valueOf(row.get(KIND_FACT.REQUIRED)),
                                row.get(KIND_FACT.CLEARED)));
    }

    private FactDefinition fact(Record row) {
        return new FactDefinition(
                row.get(FACT.ID),
                row.get(FACT.NAME),
                row.get(FACT.LABEL),
                json.readValue(row.get(FACT.FORM), FactForm.class),
                json.readValue(row.get(FACT.USED), FactUse.class));
    }
}
