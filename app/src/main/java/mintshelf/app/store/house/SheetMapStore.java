package mintshelf.app.store.house;

import static mintshelf.database.schema.Tables.PERSON;
import static mintshelf.database.schema.Tables.SHEET_MAP;

import java.time.Instant;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalLong;
import mintshelf.app.store.Times;
import mintshelf.core.drawing.titleblock.RevisionBlock;
import mintshelf.core.drawing.titleblock.SheetMap;
import org.jooq.DSLContext;
import org.jooq.Record;
import org.jooq.SelectOnConditionStep;
import org.springframework.stereotype.Repository;
import tools.jackson.databind.json.JsonMapper;

/** Sheet maps, as rows of data; editions are added, never changed. */
@Repository
public class SheetMapStore {
    private final DSLContext db;
    private final JsonMapper json;

    public SheetMapStore(DSLContext db, JsonMapper json) {
        this.db = db;
        this.json = json;
    }

    /** A map with the id of its edition. */
    public record Edition(long id, int edition, boolean inUse, SheetMap map, EditionNote note) {}

    /** As kept; what earlier releases did not keep is null. */
    record Definition(String block, String format, List<Field> fields, Revisions revisions) {}

    record Revisions(
            String block,
            List<RevisionBlock.Column> columns,
            int most,
            boolean upwards,
            boolean releasedOnly,
            boolean drawn,
            double fromRight,
            double fromBottom,
            double rowHeight,
            double textHeight,
            Integer lines) {
        static Revisions of(RevisionBlock r) {
            return new Revisions(
                    r.block(),
                    r.columns(),
                    r.most(),
                    r.upwards(),
                    r.releasedOnly(),
                    r.drawn(),
                    r.fromRight(),
                    r.fromBottom(),
                    r.rowHeight(),
                    r.textHeight(),
                    r.lines());
        }

        RevisionBlock read() {
            return new RevisionBlock(
                    block,
                    columns,
                    most,
                    upwards,
                    releasedOnly,
                    drawn,
                    fromRight,
                    fromBottom,
                    rowHeight,
                    textHeight,
                    lines == null ? 1 : lines);
        }
    }

    record Field(String tag, String fact, SheetMap.Way way, SheetMap.Spot spot) {}

    /** Adds a map, or the next edition of one that is there. */
    public long add(SheetMap map) {
        return add(map, true);
    }

    public long add(SheetMap map, boolean inUse) {
        return add(map, inUse, new RouteStore.Made(OptionalLong.empty(), Instant.EPOCH, ""));
    }

    /** As {@link #add(SheetMap)}; whether it is used for sheets, and who made it when and why. */
    public long add(SheetMap map, boolean inUse, RouteStore.Made made) {
        int last = db.select(SHEET_MAP.EDITION)
                .from(SHEET_MAP)
                .where(SHEET_MAP.NAME.eq(map.name()))
                .orderBy(SHEET_MAP.EDITION.desc())
                .limit(1)
                .fetchOptional(SHEET_MAP.EDITION)
                .orElse(0);
        List<Field> fields = map.fields().stream()
                .map(f -> new Field(f.tag(), f.fact(), f.way(), f.spot().orElse(null)))
                .toList();
        Definition definition = new Definition(
                map.block(),
                map.format(),
                fields,
                map.revisions().map(Revisions::of).orElse(null));
        return db.insertInto(SHEET_MAP)
                .set(SHEET_MAP.NAME, map.name())
                .set(SHEET_MAP.EDITION, last + 1)
                .set(SHEET_MAP.IN_USE, inUse)
                .set(SHEET_MAP.MADE_BY, RuleStore.boxed(made.person()))
                .set(SHEET_MAP.MADE_AT, Times.utc(made.at()))
                .set(SHEET_MAP.WHY, made.why())
                .set(SHEET_MAP.DEFINITION, json.writeValueAsString(definition))
                .returningResult(SHEET_MAP.ID)
                .fetchSingle()
                .value1();
    }

    public boolean isEmpty() {
        return !db.fetchExists(SHEET_MAP);
    }

    /** The latest edition of each map, in the order in which the maps were added; those out of use too. */
    public List<Edition> all() {
        Map<String, Edition> latest = new LinkedHashMap<>();
        select().orderBy(SHEET_MAP.EDITION, SHEET_MAP.ID)
                .forEach(row -> latest.put(row.get(SHEET_MAP.NAME).toLowerCase(Locale.ROOT), edition(row)));
        return new ArrayList<>(latest.values());
    }

    /** The latest edition of each map that is in use. */
    public List<Edition> latest() {
        return all().stream().filter(Edition::inUse).toList();
    }

    /** An edition that a proof names. */
    public Edition edition(long id) {
        return find(id).orElseThrow();
    }

    public Optional<Edition> find(long id) {
        return select().where(SHEET_MAP.ID.eq(id)).fetchOptional(this::edition);
    }

    /** The editions of the map that an edition is of, the latest first; at most {@code most}. */
    public List<Edition> editions(Edition of, int most) {
        return select().where(SHEET_MAP.NAME.eq(of.map().name()))
                .orderBy(SHEET_MAP.EDITION.desc())
                .limit(most)
                .fetch(this::edition);
    }

    private SelectOnConditionStep<Record> select() {
        return db.select(SHEET_MAP.fields())
                .select(PERSON.NAME)
                .from(SHEET_MAP)
                .leftJoin(PERSON)
                .on(PERSON.ID.eq(SHEET_MAP.MADE_BY));
    }

    private Edition edition(Record row) {
        Definition read = json.readValue(row.get(SHEET_MAP.DEFINITION), Definition.class);
        List<SheetMap.Field> fields = read.fields().stream()
                .map(f -> new SheetMap.Field(f.tag(), f.fact(), f.way(), Optional.ofNullable(f.spot())))
                .toList();
        String format = read.format() == null ? "" : read.format();
        return new Edition(
                row.get(SHEET_MAP.ID),
                row.get(SHEET_MAP.EDITION),
                row.get(SHEET_MAP.IN_USE),
                new SheetMap(
                        row.get(SHEET_MAP.NAME),
                        read.block(),
                        format,
                        fields,
                        Optional.ofNullable(read.revisions()).map(Revisions::read)),
                row.get(SHEET_MAP.MADE_BY) == null
                        ? EditionNote.shipped(row.get(SHEET_MAP.EDITION))
                        : new EditionNote(
                                row.get(SHEET_MAP.EDITION),
                                row.get(PERSON.NAME),
                                Times.instant(row.get(SHEET_MAP.MADE_AT)),
                                row.get(SHEET_MAP.WHY)));
    }
}
