package mintshelf.app.store.house;

import static mintshelf.database.schema.Tables.SHEET_MAP;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import mintshelf.core.drawing.titleblock.SheetMap;
import org.jooq.DSLContext;
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
    public record Edition(long id, SheetMap map) {}

    record Definition(String block, List<SheetMap.Field> fields) {}

    /** Adds a map, or the next edition of one that is there. */
    public long add(SheetMap map) {
        int last = db.select(SHEET_MAP.EDITION)
                .from(SHEET_MAP)
                .where(SHEET_MAP.NAME.eq(map.name()))
                .orderBy(SHEET_MAP.EDITION.desc())
                .limit(1)
                .fetchOptional(SHEET_MAP.EDITION)
                .orElse(0);
        return db.insertInto(SHEET_MAP)
                .set(SHEET_MAP.NAME, map.name())
                .set(SHEET_MAP.EDITION, last + 1)
                .set(SHEET_MAP.DEFINITION, json.writeValueAsString(new Definition(map.block(), map.fields())))
                .returningResult(SHEET_MAP.ID)
                .fetchSingle()
                .value1();
    }

    public boolean isEmpty() {
        return !db.fetchExists(SHEET_MAP);
    }

    /** The latest edition of each map, in the order in which the maps were added. */
    public List<Edition> latest() {
        Map<String, Edition> latest = new LinkedHashMap<>();
        db.selectFrom(SHEET_MAP)
                .orderBy(SHEET_MAP.EDITION, SHEET_MAP.ID)
                .forEach(row -> latest.put(row.getName(), edition(row.getId(), row.getName(), row.getDefinition())));
        return new ArrayList<>(latest.values());
    }

    /** An edition that a proof names. */
    public Edition edition(long id) {
        return db.selectFrom(SHEET_MAP)
                .where(SHEET_MAP.ID.eq(id))
                .fetchSingle(row -> edition(row.getId(), row.getName(), row.getDefinition()));
    }

    private Edition edition(long id, String name, String definition) {
        Definition read = json.readValue(definition, Definition.class);
        return new Edition(id, new SheetMap(name, read.block(), read.fields()));
    }
}
