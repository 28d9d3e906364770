package mintshelf.app.store.document;

import static mintshelf.database.schema.Tables.CONTENT;
import static mintshelf.database.schema.Tables.HOLD;
import static mintshelf.database.schema.Tables.ITEM;
import static mintshelf.database.schema.Tables.KIND;
import static mintshelf.database.schema.Tables.LINE;
import static mintshelf.database.schema.Tables.PERSON;
import static mintshelf.database.schema.Tables.REVISION;
import static mintshelf.database.schema.Tables.SHELF;
import static mintshelf.database.schema.Tables.STAGE;
import static mintshelf.database.schema.Tables.VERSION;
import static mintshelf.database.schema.Tables.VERSION_FILE;

import java.time.LocalDateTime;
import java.util.Collection;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import mintshelf.app.store.Prepared;
import mintshelf.app.store.Times;
import mintshelf.app.store.content.StoredContent;
import mintshelf.app.store.house.HouseStore;
import mintshelf.app.store.shelf.ShelfStore;
import mintshelf.app.store.shelf.ShelfStore.Folder;
import mintshelf.core.access.Place;
import mintshelf.core.base.ContentHash;
import mintshelf.core.content.ContentKind;
import mintshelf.core.document.Aspect;
import mintshelf.core.document.Document;
import mintshelf.core.document.Head;
import mintshelf.core.document.Holder;
import mintshelf.core.document.Revision;
import mintshelf.database.schema.tables.Content;
import mintshelf.database.schema.tables.Person;
import mintshelf.database.schema.tables.Stage;
import mintshelf.database.schema.tables.Version;
import mintshelf.database.schema.tables.VersionFile;
import org.jooq.DSLContext;
import org.jooq.Field;
import org.jooq.Record;
import org.jooq.Select;
import org.jooq.impl.DSL;
import org.springframework.stereotype.Repository;

/** Documents by their ids, each with what every page and act needs of it; and their locks. */
@Repository
public class SpineStore {
    private final Prepared spines = new Prepared(SpineStore::spinesOf);
    private final Prepared mainLines = new Prepared(
            (db, items) -> db.select(LINE.ID).from(LINE).where(LINE.MAIN_MARK.eq(MARK), LINE.ITEM.in(items)));
    private final Prepared locks = new Prepared((db, lines) -> db.select(LINE.ID)
            .from(LINE)
            .where(LINE.ID.in(lines))
            .orderBy(LINE.ID)
            .forUpdate());
    private static final short MARK = 1;
    private static final mintshelf.database.schema.tables.Revision HEAD_REVISION = REVISION.as("head_revision");
    private static final mintshelf.database.schema.tables.Revision PENDING = REVISION.as("pending");
    private static final mintshelf.database.schema.tables.Revision RELEASED = REVISION.as("released");
    private static final Stage HEAD_STAGE = STAGE.as("head_stage");
    private static final Stage PENDING_STAGE = STAGE.as("pending_stage");
    private static final Stage RELEASED_STAGE = STAGE.as("released_stage");
    private static final Person HOLDER = PERSON.as("holder");
    private static final Person AUTHOR = PERSON.as("author");
    private static final Version OUT = VERSION.as("out_version");
    private static final VersionFile OUT_FILE = VERSION_FILE.as("out_file");
    private static final Content OUT_CONTENT = CONTENT.as("out_content");
    private static final Field<Integer> REMARKS = DSL.field(
            "(select count(*) from remark r where r.item = item.id and r.state in ('OPEN','ANSWERED'))", Integer.class);
    private static final Field<Integer> STRAYS =
            DSL.field("(select count(*) from stray s where s.item = item.id and s.state = 'KEPT')", Integer.class);
    private final DSLContext db;
    private final ShelfStore shelves;

    public SpineStore(DSLContext db, ShelfStore shelves) {
        this.db = db;
        this.shelves = shelves;
    }

    /**
     * Locks the main lines of documents in ascending order, so that sets which overlap never wait for each other in a ring.
     * Within the caller's transaction, before anything of them is read.
     */
    public void lock(Collection<Long> items) {
        List<Long> lines = mainLines.fetch(db, items).stream()
                .map(r -> r.get(LINE.ID))
                .sorted()
                .toList();
        locks.fetch(db, lines);
    }

    public Optional<Spine> spine(long item) {
        return Optional.ofNullable(spines(List.of(item)).get(item));
    }

    /** Documents by id, in the order asked for; two statements, whatever the number. */
    public Map<Long, Spine> spines(Collection<Long> items) {
        Map<Long, Spine> result = new LinkedHashMap<>();
        if (items.isEmpty()) return result;
        List<Record> rows = spines.fetch(db, items);
        Map<Long, List<Folder>> paths = shelves.pathsUp(
                rows.stream().map(r -> r.get(ITEM.SHELF)).distinct().toList());
        Map<Long, Spine> byId = new HashMap<>();
        for (Record row : rows) byId.put(row.get(ITEM.ID), spine(row, paths.get(row.get(ITEM.FOLDER))));
        for (long id : items) if (byId.containsKey(id)) result.put(id, byId.get(id));
        return result;
    }

    private static Select<?> spinesOf(DSLContext db, List<Long> items) {
        return db.select(
                        ITEM.ID,
                        ITEM.NUMBER,
                        ITEM.TITLE,
                        ITEM.FILE_NAME,
                        ITEM.SHELF,
                        ITEM.FOLDER,
                        ITEM.KIND,
                        ITEM.CHANGED_AT,
                        ITEM.DROPPED_AT,
                        ITEM.AUTHOR,
                        ITEM.OUT_TITLE,
                        ITEM.OUT_AT)
                .select(SHELF.LIBRARY, SHELF.HIDES_REVISING, KIND.HIDES_REVISING)
                .select(
                        AUTHOR.NAME,
                        KIND.NAME,
                        KIND.CODE,
                        KIND.PAPER,
                        KIND.GLYPH,
                        KIND.ASPECT,
                        LINE.ID,
                        STRAYS,
                        REMARKS)
                .select(VERSION.ID, VERSION.NUMBER, VERSION.REVISION, VERSION.DIGEST, VERSION.MADE_BY)
                .select(CONTENT.ID, CONTENT.SHA256, CONTENT.SIZE, CONTENT.CONTENT_KIND)
                .select(told(HEAD_REVISION, HEAD_STAGE))
                .select(told(PENDING, PENDING_STAGE))
                .select(told(RELEASED, RELEASED_STAGE))
                .select(OUT.ID, OUT.NUMBER, OUT.DIGEST, OUT.MADE_BY)
                .select(OUT_CONTENT.ID, OUT_CONTENT.SHA256, OUT_CONTENT.SIZE, OUT_CONTENT.CONTENT_KIND)
                .select(HOLD.ID, HOLD.PERSON, HOLD.AT, HOLD.DESK, HOLD.PURPOSE, HOLD.BASE_VERSION, HOLDER.NAME)
                // The order written is the best one; to search for another among so many tables takes longer than the
                // rows.
                .hint("straight_join")
                .from(ITEM)
                .join(KIND)
                .on(KIND.ID.eq(ITEM.KIND))
                .join(SHELF)
                .on(SHELF.ID.eq(ITEM.SHELF))
                .join(AUTHOR)
                .on(AUTHOR.ID.eq(ITEM.AUTHOR))
                .join(LINE)
                .on(LINE.ITEM.eq(ITEM.ID), LINE.MAIN_MARK.eq(MARK))
                .join(VERSION)
                .on(VERSION.ID.eq(LINE.HEAD_VERSION))
                .join(VERSION_FILE)
                .on(VERSION_FILE.VERSION.eq(VERSION.ID), VERSION_FILE.ROLE.eq("MAIN"))
                .join(CONTENT)
                .on(CONTENT.ID.eq(VERSION_FILE.CONTENT))
                .join(HEAD_REVISION)
                .on(HEAD_REVISION.ID.eq(VERSION.REVISION))
                .join(HEAD_STAGE)
                .on(HEAD_STAGE.EDITION.eq(HEAD_REVISION.EDITION), HEAD_STAGE.CODE.eq(HEAD_REVISION.STAGE))
                .leftJoin(PENDING)
                .on(PENDING.ITEM.eq(ITEM.ID), PENDING.PENDING_MARK.eq(MARK))
                .leftJoin(PENDING_STAGE)
                .on(PENDING_STAGE.EDITION.eq(PENDING.EDITION), PENDING_STAGE.CODE.eq(PENDING.STAGE))
                .leftJoin(RELEASED)
                .on(RELEASED.ITEM.eq(ITEM.ID), RELEASED.RELEASED_MARK.eq(MARK))
                .leftJoin(RELEASED_STAGE)
                .on(RELEASED_STAGE.EDITION.eq(RELEASED.EDITION), RELEASED_STAGE.CODE.eq(RELEASED.STAGE))
                .leftJoin(OUT)
                .on(OUT.ID.eq(RELEASED.RELEASED_VERSION))
                .leftJoin(OUT_FILE)
                .on(OUT_FILE.VERSION.eq(OUT.ID), OUT_FILE.ROLE.eq("MAIN"))
                .leftJoin(OUT_CONTENT)
                .on(OUT_CONTENT.ID.eq(OUT_FILE.CONTENT))
                .leftJoin(HOLD)
                .on(HOLD.LINE.eq(LINE.ID), HOLD.OPEN_MARK.eq(MARK))
                .leftJoin(HOLDER)
                .on(HOLDER.ID.eq(HOLD.PERSON))
                .where(ITEM.ID.in(items));
    }

    private static Spine spine(Record row, List<Folder> path) {
        Optional<Revision> pending = RevisionStore.revision(row, PENDING, PENDING_STAGE);
        Optional<Revision> released = RevisionStore.revision(row, RELEASED, RELEASED_STAGE);
        Optional<Revision> ended = pending.isEmpty() && released.isEmpty()
                ? RevisionStore.revision(row, HEAD_REVISION, HEAD_STAGE)
                : Optional.empty();
        Optional<Holder> holder = row.get(HOLD.ID) == null
                ? Optional.empty()
                : Optional.of(new Holder(
                        row.get(HOLD.ID),
                        row.get(HOLD.PERSON),
                        row.get(HOLDER.NAME),
                        Times.instant(row.get(HOLD.AT)),
                        row.get(HOLD.DESK),
                        row.get(HOLD.PURPOSE),
                        Optional.ofNullable(row.get(HOLD.BASE_VERSION)).orElse(0L)));
        StoredContent content = content(row);
        Document document = new Document(
                row.get(ITEM.ID),
                row.get(ITEM.NUMBER),
                row.get(ITEM.TITLE),
                row.get(ITEM.FILE_NAME),
                new Place(
                        row.get(ITEM.SHELF),
                        path.stream().map(Folder::id).toList(),
                        row.get(ITEM.KIND),
                        row.get(SHELF.LIBRARY)),
                row.get(LINE.ID),
                new Head(
                        row.get(VERSION.ID),
                        row.get(VERSION.NUMBER),
                        row.get(VERSION.REVISION),
                        content.hash(),
                        ContentHash.of(row.get(VERSION.DIGEST)),
                        row.get(VERSION.MADE_BY).equals(VersionRow.MadeBy.STAMPED.name())),
                pending,
                released,
                ended,
                holder,
                row.get(ITEM.DROPPED_AT) != null,
                0,
                row.get(KIND.ASPECT).equals(Aspect.PART.name()));
        return new Spine(
                document,
                row.get(KIND.NAME),
                row.get(KIND.CODE),
                HouseStore.paper(row.get(KIND.PAPER)),
                row.get(KIND.GLYPH),
                row.get(AUTHOR.NAME),
                row.get(ITEM.AUTHOR),
                Times.instant(row.get(ITEM.CHANGED_AT)),
                Optional.ofNullable(row.get(OUT.NUMBER)),
                content,
                path,
                row.get(STRAYS),
                row.get(REMARKS),
                Optional.ofNullable(row.get(ITEM.OUT_AT)).map(at -> out(row, document.head(), content, at)),
                row.get(SHELF.HIDES_REVISING) || row.get(KIND.HIDES_REVISING));
    }

    /** What is in force; of what is not any more, its last version, which is the latest one. */
    private static Spine.Out out(Record row, Head head, StoredContent content, LocalDateTime at) {
        if (row.get(OUT.ID) == null) {
            return new Spine.Out(row.get(ITEM.OUT_TITLE), Times.instant(at), head, content);
        }
        StoredContent released = new StoredContent(
                row.get(OUT_CONTENT.ID),
                ContentHash.of(row.get(OUT_CONTENT.SHA256)),
                row.get(OUT_CONTENT.SIZE),
                ContentKind.valueOf(row.get(OUT_CONTENT.CONTENT_KIND)));
        Head version = new Head(
                row.get(OUT.ID),
                row.get(OUT.NUMBER),
                row.get(RELEASED.ID),
                released.hash(),
                ContentHash.of(row.get(OUT.DIGEST)),
                row.get(OUT.MADE_BY).equals(VersionRow.MadeBy.STAMPED.name()));
        return new Spine.Out(row.get(ITEM.OUT_TITLE), Times.instant(at), version, released);
    }

    static StoredContent content(Record row) {
        return new StoredContent(
                row.get(CONTENT.ID),
                ContentHash.of(row.get(CONTENT.SHA256)),
                row.get(CONTENT.SIZE),
                ContentKind.valueOf(row.get(CONTENT.CONTENT_KIND)));
    }

    /** The columns that a {@link Revision} is read from: all columns of both tables would be thrice as many. */
    private static List<Field<?>> told(mintshelf.database.schema.tables.Revision r, Stage s) {
        return List.of(
                r.ID,
                r.ORDINAL,
                r.LABEL,
                r.PENDING_MARK,
                r.RELEASED_MARK,
                r.STARTED_AT,
                r.REASON,
                s.EDITION,
                s.CODE,
                s.NAME,
                s.CLASS,
                s.POSITION);
    }
}
