package mintshelf.app.store.document;

import static mintshelf.database.schema.Tables.EARLIER_REVISION;

import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import mintshelf.core.base.Texts;
import org.jooq.DSLContext;
import org.springframework.stereotype.Repository;
import tools.jackson.core.type.TypeReference;
import tools.jackson.databind.json.JsonMapper;

/** What sheets said of the revisions of documents before those came here. */
@Repository
public class EarlierStore {
    private static final TypeReference<TreeMap<String, String>> SAID = new TypeReference<>() {};

    private final DSLContext db;
    private final JsonMapper json;

    public EarlierStore(DSLContext db, JsonMapper json) {
        this.db = db;
        this.json = json;
    }

    /**
     * A row of the sheet's revision table.
     *
     * @param said by the names that rows of a revision block have: "description", "date", "by" …, as it was written
     * @param own whether the revision was taken in with its file, and is one of the document's
     */
    public record Earlier(String label, Map<String, String> said, boolean own) {
        public String says(String fact) {
            return said.getOrDefault(fact, "");
        }
    }

    /** The rows, the oldest first. */
    public List<Earlier> of(long item) {
        return db.selectFrom(EARLIER_REVISION)
                .where(EARLIER_REVISION.ITEM.eq(item))
                .orderBy(EARLIER_REVISION.POSITION)
                .fetch(row -> new Earlier(row.getLabel(), json.readValue(row.getSaid(), SAID), row.getOwn()));
    }

    public void keep(long item, List<Earlier> rows) {
        for (int i = 0; i < rows.size(); i++) {
            db.insertInto(EARLIER_REVISION)
                    .set(EARLIER_REVISION.ITEM, item)
                    .set(EARLIER_REVISION.POSITION, i)
                    .set(EARLIER_REVISION.LABEL, Texts.shorten(rows.get(i).label(), 40))
                    .set(
                            EARLIER_REVISION.SAID,
                            json.writeValueAsString(rows.get(i).said()))
                    .set(EARLIER_REVISION.OWN, rows.get(i).own())
                    .execute();
        }
    }
}
