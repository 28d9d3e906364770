package mintshelf.app.store.content;

import static mintshelf.database.schema.Tables.CONTENT;
import static mintshelf.database.schema.Tables.CONTENT_TEXT;
import static mintshelf.database.schema.Tables.ITEM;
import static mintshelf.database.schema.Tables.KIND;
import static mintshelf.database.schema.Tables.VERSION;
import static mintshelf.database.schema.Tables.VERSION_FILE;

import java.util.Collection;
import java.util.List;
import java.util.Map;
import mintshelf.core.base.ContentHash;
import mintshelf.core.content.ContentKind;
import org.jooq.DSLContext;
import org.jooq.impl.DSL;
import org.springframework.stereotype.Repository;

/** What contents say in words. */
@Repository
public class TextStore {
    /** Contents whose words are read. */
    public static final List<ContentKind> READABLE = List.of(
            ContentKind.DXF, ContentKind.TEXT, ContentKind.PDF, ContentKind.OFFICE, ContentKind.STEP, ContentKind.SVG);

    private final DSLContext db;

    public TextStore(DSLContext db) {
        this.db = db;
    }

    /**
     * A version whose content nobody has read for words yet.
     *
     * @param isPaper whether a change wrote it
     */
    public record Unread(long version, boolean isPaper, StoredContent content) {}

    /** Versions after an id, in their order, whose contents are of some kinds and not read yet. */
    public List<Unread> unread(Collection<ContentKind> kinds, long afterVersion, int most) {
        return db.select(
                        VERSION_FILE.VERSION,
                        CONTENT.ID,
                        CONTENT.SHA256,
                        CONTENT.SIZE,
                        CONTENT.CONTENT_KIND,
                        KIND.PAPER)
                .from(VERSION_FILE)
                .join(CONTENT)
                .on(CONTENT.ID.eq(VERSION_FILE.CONTENT))
                .leftJoin(CONTENT_TEXT)
                .on(CONTENT_TEXT.CONTENT.eq(CONTENT.ID))
                .join(VERSION)
                .on(VERSION.ID.eq(VERSION_FILE.VERSION))
                .join(ITEM)
                .on(ITEM.ID.eq(VERSION.ITEM))
                .join(KIND)
                .on(KIND.ID.eq(ITEM.KIND))
                .where(
                        VERSION_FILE.VERSION.gt(afterVersion),
                        VERSION_FILE.ROLE.eq("MAIN"),
                        CONTENT.CONTENT_KIND.in(kinds.stream().map(Enum::name).toList()),
                        CONTENT_TEXT.CONTENT.isNull())
                .orderBy(VERSION_FILE.VERSION)
                .limit(most)
                .fetch(row -> new Unread(
                        row.value1(),
                        row.value6() != null,
                        new StoredContent(
                                row.value2(),
                                ContentHash.of(row.value3()),
                                row.value4(),
                                ContentKind.valueOf(row.value5()))));
    }

    /** The highest id of a version; 0 where there is none. */
    public long latestVersion() {
        return db.select(DSL.coalesce(DSL.max(VERSION.ID), 0L)).from(VERSION).fetchSingle(0, Long.class);
    }

    /** What was read of a content: its lines, and the traits of its sheet as they are kept. */
    public record Read(List<String> words, String traits) {}

    /** Keeps what was read of contents, by content; another node may have done so meanwhile. One statement. */
    public void keep(Map<Long, Read> read) {
        var insert = db.insertInto(CONTENT_TEXT, CONTENT_TEXT.CONTENT, CONTENT_TEXT.WORDS, CONTENT_TEXT.TRAITS);
        for (var entry : read.entrySet()) {
            insert = insert.values(
                    entry.getKey(),
                    String.join("\n", entry.getValue().words()),
                    entry.getValue().traits());
        }
        insert.onDuplicateKeyIgnore().execute();
    }

    /** The traits of contents, as they are kept; those that have none yet are left out. */
    public Map<Long, String> traits(Collection<Long> contents) {
        if (contents.isEmpty()) return Map.of();
        return db.select(CONTENT_TEXT.CONTENT, CONTENT_TEXT.TRAITS)
                .from(CONTENT_TEXT)
                .where(CONTENT_TEXT.CONTENT.in(contents))
                .fetchMap(CONTENT_TEXT.CONTENT, CONTENT_TEXT.TRAITS);
    }

    /** The lines of contents. */
    public Map<Long, String> words(Collection<Long> contents) {
        if (contents.isEmpty()) return Map.of();
        return db.select(CONTENT_TEXT.CONTENT, CONTENT_TEXT.WORDS)
                .from(CONTENT_TEXT)
                .where(CONTENT_TEXT.CONTENT.in(contents))
                .fetchMap(CONTENT_TEXT.CONTENT, CONTENT_TEXT.WORDS);
    }
}
