package mintshelf.app.store.document;

import static mintshelf.database.schema.Tables.CONTENT;
import static mintshelf.database.schema.Tables.FACT;
import static mintshelf.database.schema.Tables.FACT_VALUE;
import static mintshelf.database.schema.Tables.HOLD;
import static mintshelf.database.schema.Tables.ITEM;
import static mintshelf.database.schema.Tables.KIND;
import static mintshelf.database.schema.Tables.LINE;
import static mintshelf.database.schema.Tables.PERSON;
import static mintshelf.database.schema.Tables.REVISION;
import static mintshelf.database.schema.Tables.REVISION_HAND;
import static mintshelf.database.schema.Tables.SHELF;
import static mintshelf.database.schema.Tables.STAGE;
import static mintshelf.database.schema.Tables.STRUCTURE_LOG;
import static mintshelf.database.schema.Tables.VERSION;
import static mintshelf.database.schema.Tables.VERSION_FILE;

import java.math.BigDecimal;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.stream.Stream;
import mintshelf.app.store.AtCommit;
import mintshelf.app.store.Prepared;
import mintshelf.app.store.Rows;
import mintshelf.app.store.Times;
import mintshelf.app.store.content.StoredContent;
import mintshelf.app.store.house.HouseStore;
import mintshelf.app.store.shelf.ShelfStore;
import mintshelf.app.store.shelf.ShelfStore.Folder;
import mintshelf.core.access.Place;
import mintshelf.core.base.ContentHash;
import mintshelf.core.base.Texts;
import mintshelf.core.content.ContentKind;
import mintshelf.core.document.Document;
import mintshelf.core.document.FileName;
import mintshelf.core.document.Head;
import mintshelf.core.document.Holder;
import mintshelf.core.document.Revision;
import mintshelf.core.document.Stage;
import mintshelf.core.fact.FactValue;
import mintshelf.core.numbering.NumberKey;
import mintshelf.core.revision.StageClass;
import org.jooq.DSLContext;
import org.jooq.Field;
import org.jooq.Record;
import org.jooq.Select;
import org.jooq.impl.DSL;
import org.springframework.stereotype.Repository;
import tools.jackson.databind.json.JsonMapper;

/** Documents with their lines, revisions, versions and facts. Holds are read here and written by their own store. */
@Repository
public class DocumentStore {
    private final Prepared spines = new Prepared(DocumentStore::spinesOf);
    private final Prepared mainLines = new Prepared(
            (db, items) -> db.select(LINE.ID).from(LINE).where(LINE.MAIN_MARK.eq(MARK), LINE.ITEM.in(items)));
    private final Prepared locks = new Prepared((db, lines) -> db.select(LINE.ID)
            .from(LINE)
            .where(LINE.ID.in(lines))
            .orderBy(LINE.ID)
            .forUpdate());
    private final Prepared values = new Prepared((db, revisions) -> db.select(
                    FACT_VALUE.REVISION,
                    FACT.NAME,
                    FACT_VALUE.TEXT_VALUE,
                    FACT_VALUE.NUMBER_VALUE,
                    FACT_VALUE.DATE_VALUE)
            .from(FACT_VALUE)
            .join(FACT)
            .on(FACT.ID.eq(FACT_VALUE.FACT))
            .where(FACT_VALUE.REVISION.in(revisions)));

    private final Prepared filled = new Prepared((db, revisions) -> db.select(FACT_VALUE.REVISION, FACT.NAME)
            .from(FACT_VALUE)
            .join(FACT)
            .on(FACT.ID.eq(FACT_VALUE.FACT))
            .where(FACT_VALUE.REVISION.in(revisions)));

    private final Prepared titles = new Prepared((db, revisions) ->
            db.select(REVISION.ID, REVISION.TITLE).from(REVISION).where(REVISION.ID.in(revisions)));

    /** Ids of one statement that is written anew each time. */
    private static final int PORTION = 1000;

    private static final short MARK = 1;
    private static final Rows MOVED = Rows.added(STRUCTURE_LOG, STRUCTURE_LOG.ITEM);

    private static final mintshelf.database.schema.tables.Revision HEAD_REVISION = REVISION.as("head_revision");
    private static final mintshelf.database.schema.tables.Revision PENDING = REVISION.as("pending");
    private static final mintshelf.database.schema.tables.Revision RELEASED = REVISION.as("released");
    private static final mintshelf.database.schema.tables.Stage HEAD_STAGE = STAGE.as("head_stage");
    private static final mintshelf.database.schema.tables.Stage PENDING_STAGE = STAGE.as("pending_stage");
    private static final mintshelf.database.schema.tables.Stage RELEASED_STAGE = STAGE.as("released_stage");
    private static final mintshelf.database.schema.tables.Person HOLDER = PERSON.as("holder");
    private static final mintshelf.database.schema.tables.Person AUTHOR = PERSON.as("author");
    private static final mintshelf.database.schema.tables.Version OUT = VERSION.as("out_version");
    private static final mintshelf.database.schema.tables.VersionFile OUT_FILE = VERSION_FILE.as("out_file");
    private static final mintshelf.database.schema.tables.Content OUT_CONTENT = CONTENT.as("out_content");
    private static final Field<Integer> STRAYS =
            DSL.field("(select count(*) from stray s where s.item = item.id and s.state = 'KEPT')", Integer.class);

    private final DSLContext db;
    private final ShelfStore shelves;
    private final JsonMapper json;
    private final AtCommit<Touched> touched = new AtCommit<>(this::noteTouched);
    private final AtCommit<Long> moved = new AtCommit<>(this::noteMoved);

    public DocumentStore(DSLContext db, ShelfStore shelves, JsonMapper json) {
        this.db = db;
        this.shelves = shelves;
        this.json = json;
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
                .select(AUTHOR.NAME, KIND.NAME, KIND.CODE, KIND.PAPER, KIND.GLYPH, LINE.ID, STRAYS)
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
        Optional<Revision> pending = revision(row, PENDING, PENDING_STAGE);
        Optional<Revision> released = revision(row, RELEASED, RELEASED_STAGE);
        Optional<Revision> ended =
                pending.isEmpty() && released.isEmpty() ? revision(row, HEAD_REVISION, HEAD_STAGE) : Optional.empty();
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
                row.get(ITEM.DROPPED_AT) != null);
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
                Optional.ofNullable(row.get(ITEM.OUT_AT)).map(at -> out(row, document.head(), content, at)),
                row.get(SHELF.HIDES_REVISING) || row.get(KIND.HIDES_REVISING));
    }

    /** What is in force; of what is not any more, its last version, which is the latest one. */
    private static Spine.Out out(Record row, Head head, StoredContent content, java.time.LocalDateTime at) {
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

    private static StoredContent content(Record row) {
        return new StoredContent(
                row.get(CONTENT.ID),
                ContentHash.of(row.get(CONTENT.SHA256)),
                row.get(CONTENT.SIZE),
                ContentKind.valueOf(row.get(CONTENT.CONTENT_KIND)));
    }

    /** The columns that a {@link Revision} is read from: all columns of both tables would be thrice as many. */
    private static List<Field<?>> told(
            mintshelf.database.schema.tables.Revision r, mintshelf.database.schema.tables.Stage s) {
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

    private static Optional<Revision> revision(
            Record row, mintshelf.database.schema.tables.Revision r, mintshelf.database.schema.tables.Stage s) {
        if (row.get(r.ID) == null) return Optional.empty();
        return Optional.of(new Revision(
                row.get(r.ID),
                row.get(r.ORDINAL),
                Optional.ofNullable(row.get(r.LABEL)),
                new Stage(
                        row.get(s.EDITION),
                        row.get(s.CODE),
                        row.get(s.NAME),
                        StageClass.valueOf(row.get(s.CLASS)),
                        row.get(s.POSITION)),
                row.get(r.PENDING_MARK) != null,
                row.get(r.RELEASED_MARK) != null,
                Times.instant(row.get(r.STARTED_AT)),
                row.get(r.REASON)));
    }

    /** All revisions of a document in their order. */
    public List<RevisionRow> revisions(long item) {
        return db.select(REVISION.fields())
                .select(STAGE.fields())
                .select(PERSON.NAME, OUT.NUMBER)
                .from(REVISION)
                .join(STAGE)
                .on(STAGE.EDITION.eq(REVISION.EDITION), STAGE.CODE.eq(REVISION.STAGE))
                .join(PERSON)
                .on(PERSON.ID.eq(REVISION.STARTED_BY))
                .leftJoin(OUT)
                .on(OUT.ID.eq(REVISION.RELEASED_VERSION))
                .where(REVISION.ITEM.eq(item))
                .orderBy(REVISION.ORDINAL)
                .fetch(row -> new RevisionRow(
                        revision(row, REVISION, STAGE).orElseThrow(),
                        Optional.ofNullable(row.get(REVISION.DETAILS)).orElse(""),
                        row.get(PERSON.NAME),
                        row.get(REVISION.STARTED_BY),
                        Times.instant(row.get(REVISION.STAGE_SINCE)),
                        Optional.ofNullable(row.get(REVISION.RELEASED_AT)).map(Times::instant),
                        Optional.ofNullable(row.get(OUT.NUMBER)),
                        row.get(REVISION.DROPPED_AT) != null));
    }

    /** The versions of the main line, oldest first. */
    public List<VersionRow> versions(long item) {
        return versions(VERSION.ITEM.eq(item).and(LINE.MAIN_MARK.eq(MARK)));
    }

    public Optional<VersionRow> version(long item, int number) {
        return versions(VERSION.ITEM.eq(item).and(LINE.MAIN_MARK.eq(MARK)).and(VERSION.NUMBER.eq(number))).stream()
                .findFirst();
    }

    /** Versions by their ids; a statement for each few hundred. */
    public Map<Long, VersionRow> versionsById(Collection<Long> ids) {
        Map<Long, VersionRow> found = new HashMap<>();
        List<Long> all = List.copyOf(ids);
        for (int from = 0; from < all.size(); from += PORTION) {
            versions(VERSION.ID.in(all.subList(from, Math.min(all.size(), from + PORTION))))
                    .forEach(v -> found.put(v.id(), v));
        }
        return found;
    }

    private List<VersionRow> versions(org.jooq.Condition where) {
        var base = VERSION.as("base_version");
        var copied = VERSION.as("copied_version");
        return db.select(VERSION.fields())
                .select(VERSION_FILE.FILE_NAME, PERSON.NAME, base.NUMBER, copied.NUMBER)
                .select(CONTENT.ID, CONTENT.SHA256, CONTENT.SIZE, CONTENT.CONTENT_KIND)
                .from(VERSION)
                .join(LINE)
                .on(LINE.ID.eq(VERSION.LINE))
                .join(VERSION_FILE)
                .on(VERSION_FILE.VERSION.eq(VERSION.ID), VERSION_FILE.ROLE.eq("MAIN"))
                .join(CONTENT)
                .on(CONTENT.ID.eq(VERSION_FILE.CONTENT))
                .join(PERSON)
                .on(PERSON.ID.eq(VERSION.AUTHOR))
                .leftJoin(base)
                .on(base.ID.eq(VERSION.BASE))
                .leftJoin(copied)
                .on(copied.ID.eq(VERSION.COPY_OF))
                .where(where)
                .orderBy(VERSION.NUMBER)
                .fetch(row -> new VersionRow(
                        row.get(VERSION.ID),
                        row.get(VERSION.NUMBER),
                        row.get(VERSION.REVISION),
                        row.get(VERSION_FILE.FILE_NAME),
                        content(row),
                        ContentHash.of(row.get(VERSION.DIGEST)),
                        row.get(VERSION.COMMENT),
                        row.get(VERSION.AUTHOR),
                        row.get(PERSON.NAME),
                        VersionRow.MadeBy.valueOf(row.get(VERSION.MADE_BY)),
                        Times.instant(row.get(VERSION.AT)),
                        Optional.ofNullable(row.get(base.NUMBER)),
                        Optional.ofNullable(row.get(copied.NUMBER))));
    }

    /** The names of the facts that have a value, by revision; one statement. */
    public Map<Long, Set<String>> filled(Collection<Long> revisions) {
        Map<Long, Set<String>> names = new HashMap<>();
        if (revisions.isEmpty()) return names;
        filled.fetch(db, revisions)
                .forEach(row -> names.computeIfAbsent(row.get(FACT_VALUE.REVISION), r -> new TreeSet<>())
                        .add(row.get(FACT.NAME)));
        return names;
    }

    /** The facts of a revision by fact name, as text. */
    public Map<String, String> facts(long revision) {
        Map<String, String> facts = new TreeMap<>();
        values(revision).forEach((name, value) -> facts.put(name, value.text()));
        return facts;
    }

    /** The facts of revisions by fact name, as text; a statement for each few hundred. */
    public Map<Long, Map<String, String>> facts(Collection<Long> revisions) {
        Map<Long, Map<String, String>> facts = new HashMap<>();
        for (Record row : values.fetch(db, revisions)) {
            facts.computeIfAbsent(row.get(FACT_VALUE.REVISION), r -> new TreeMap<>())
                    .put(row.get(FACT.NAME), value(row).text());
        }
        return facts;
    }

    /** The facts of a revision by fact name. */
    public Map<String, FactValue> values(long revision) {
        Map<String, FactValue> facts = new TreeMap<>();
        for (Record row : values.fetch(db, List.of(revision))) facts.put(row.get(FACT.NAME), value(row));
        return facts;
    }

    private static FactValue value(Record row) {
        String words = row.get(FACT_VALUE.TEXT_VALUE);
        if (words != null) return new FactValue.Words(words);
        BigDecimal number = row.get(FACT_VALUE.NUMBER_VALUE);
        return number != null
                ? new FactValue.Quantity(number.stripTrailingZeros())
                : new FactValue.Day(row.get(FACT_VALUE.DATE_VALUE));
    }

    public void setFact(long revision, long fact, Optional<FactValue> value) {
        if (value.isEmpty()) {
            db.deleteFrom(FACT_VALUE)
                    .where(FACT_VALUE.REVISION.eq(revision), FACT_VALUE.FACT.eq(fact))
                    .execute();
            return;
        }
        FactValue v = value.get();
        String text = v instanceof FactValue.Words words ? words.text() : null;
        var number = v instanceof FactValue.Quantity quantity ? quantity.number() : null;
        var day = v instanceof FactValue.Day d ? d.day() : null;
        db.insertInto(FACT_VALUE)
                .set(FACT_VALUE.REVISION, revision)
                .set(FACT_VALUE.FACT, fact)
                .set(FACT_VALUE.TEXT_VALUE, text)
                .set(FACT_VALUE.NUMBER_VALUE, number)
                .set(FACT_VALUE.DATE_VALUE, day)
                .onDuplicateKeyUpdate()
                .set(FACT_VALUE.TEXT_VALUE, text)
                .set(FACT_VALUE.NUMBER_VALUE, number)
                .set(FACT_VALUE.DATE_VALUE, day)
                .execute();
    }

    /** A revision that starts takes over the facts of the one before. */
    public void copyFacts(long from, long to) {
        db.insertInto(
                        FACT_VALUE,
                        FACT_VALUE.REVISION,
                        FACT_VALUE.FACT,
                        FACT_VALUE.TEXT_VALUE,
                        FACT_VALUE.NUMBER_VALUE,
                        FACT_VALUE.DATE_VALUE)
                .select(DSL.select(
                                DSL.val(to),
                                FACT_VALUE.FACT,
                                FACT_VALUE.TEXT_VALUE,
                                FACT_VALUE.NUMBER_VALUE,
                                FACT_VALUE.DATE_VALUE)
                        .from(FACT_VALUE)
                        .where(FACT_VALUE.REVISION.eq(from)))
                .execute();
    }

    /** What a new document is made of. */
    public record NewDocument(
            String aspect,
            long kind,
            long shelf,
            long folder,
            NumberKey number,
            String title,
            FileName file,
            long author) {}

    /** Adds a document with its main line; its first revision and version follow in the same transaction. */
    public long add(NewDocument document, Instant now) {
        long item = db.insertInto(ITEM)
                .set(ITEM.ASPECT, document.aspect())
                .set(ITEM.KIND, document.kind())
                .set(ITEM.SHELF, document.shelf())
                .set(ITEM.FOLDER, document.folder())
                .set(ITEM.NUMBER, document.number().number())
                .set(ITEM.NUMBER_SORT, document.number().sort())
                .set(ITEM.TITLE, document.title())
                .set(ITEM.FILE_NAME, document.file().name())
                .set(ITEM.FILE_NAME_KEY, document.file().key())
                .set(ITEM.AUTHOR, document.author())
                .set(ITEM.CREATED_AT, Times.utc(now))
                .set(ITEM.CHANGED_AT, Times.utc(now))
                .returningResult(ITEM.ID)
                .fetchSingle()
                .value1();
        db.insertInto(LINE).set(LINE.ITEM, item).set(LINE.MAIN_MARK, MARK).execute();
        return item;
    }

    /** The other documents of a folder whose file has this name. */
    public boolean fileNameIsTaken(long folder, FileName file) {
        return db.fetchExists(ITEM, ITEM.FOLDER.eq(folder), ITEM.FILE_NAME_KEY.eq(file.key()));
    }

    public long mainLine(long item) {
        return db.select(LINE.ID)
                .from(LINE)
                .where(LINE.ITEM.eq(item), LINE.MAIN_MARK.eq(MARK))
                .fetchSingle()
                .value1();
    }

    /** Starts a pending revision. */
    public long startRevision(
            long item, Optional<String> label, Stage stage, long person, String reason, String details, Instant now) {
        Integer last = db.select(DSL.max(REVISION.ORDINAL))
                .from(REVISION)
                .where(REVISION.ITEM.eq(item))
                .fetchSingle()
                .value1();
        return db.insertInto(REVISION)
                .set(REVISION.ITEM, item)
                .set(REVISION.ORDINAL, last == null ? 1 : last + 1)
                .set(REVISION.TITLE, DSL.select(ITEM.TITLE).from(ITEM).where(ITEM.ID.eq(item)))
                .set(REVISION.LABEL, label.orElse(null))
                .set(REVISION.LABEL_KEY, label.map(Texts::key).orElse(null))
                .set(REVISION.EDITION, stage.edition())
                .set(REVISION.STAGE, stage.code())
                .set(REVISION.PENDING_MARK, MARK)
                .set(REVISION.STARTED_BY, person)
                .set(REVISION.STARTED_AT, Times.utc(now))
                .set(REVISION.REASON, reason)
                .set(REVISION.DETAILS, details.isEmpty() ? null : details)
                .set(REVISION.STAGE_SINCE, Times.utc(now))
                .returningResult(REVISION.ID)
                .fetchSingle()
                .value1();
    }

    public void fixLabel(long revision, String label) {
        db.update(REVISION)
                .set(REVISION.LABEL, label)
                .set(REVISION.LABEL_KEY, Texts.key(label))
                .where(REVISION.ID.eq(revision))
                .execute();
    }

    /** Moves a revision to a stage; the marks follow the stage's class. Supersede the former one before releasing. */
    public void setStage(long revision, Stage stage, Instant now) {
        StageClass to = stage.stageClass();
        db.update(REVISION)
                .set(REVISION.EDITION, stage.edition())
                .set(REVISION.STAGE, stage.code())
                .set(REVISION.STAGE_SINCE, Times.utc(now))
                .set(REVISION.PENDING_MARK, to.isPending() ? MARK : null)
                .set(REVISION.RELEASED_MARK, to == StageClass.RELEASED ? MARK : null)
                .where(REVISION.ID.eq(revision))
                .execute();
        if (to.wasReleased() && to != StageClass.RELEASED) wentOut(revision, now);
    }

    public void noteRelease(long revision, long version, Instant now) {
        db.update(REVISION)
                .set(REVISION.RELEASED_AT, Times.utc(now))
                .set(REVISION.RELEASED_VERSION, version)
                .where(REVISION.ID.eq(revision))
                .execute();
        wentOut(revision, now);
    }

    /** What readers know of a document is what its revision says that moved last outside the house. */
    private void wentOut(long revision, Instant now) {
        db.update(ITEM.join(REVISION).on(REVISION.ITEM.eq(ITEM.ID)))
                .set(ITEM.OUT_TITLE, REVISION.TITLE)
                .set(ITEM.OUT_AT, Times.utc(now))
                .where(REVISION.ID.eq(revision))
                .execute();
    }

    /** The titles of revisions; a statement for each few hundred. */
    public Map<Long, String> titles(Collection<Long> revisions) {
        Map<Long, String> titles = new HashMap<>();
        this.titles.fetch(db, revisions).forEach(row -> titles.put(row.get(REVISION.ID), row.get(REVISION.TITLE)));
        return titles;
    }

    /** The title of a revision. */
    public String title(long revision) {
        return db.select(REVISION.TITLE)
                .from(REVISION)
                .where(REVISION.ID.eq(revision))
                .fetchSingle()
                .value1();
    }

    /** Notes who changed a title or a fact of a revision. */
    public void noteHand(long revision, long person) {
        db.insertInto(REVISION_HAND)
                .set(REVISION_HAND.REVISION, revision)
                .set(REVISION_HAND.PERSON, person)
                .onDuplicateKeyUpdate()
                .set(REVISION_HAND.PERSON, person)
                .execute();
    }

    /** Everybody who made a version of a revision, or changed its title or facts. */
    public Set<Long> authors(long revision) {
        Set<Long> authors = new HashSet<>(db.selectDistinct(VERSION.AUTHOR)
                .from(VERSION)
                .where(VERSION.REVISION.eq(revision), VERSION.MADE_BY.ne(VersionRow.MadeBy.STAMPED.name()))
                .fetch(VERSION.AUTHOR));
        authors.addAll(db.select(REVISION_HAND.PERSON)
                .from(REVISION_HAND)
                .where(REVISION_HAND.REVISION.eq(revision))
                .fetch(REVISION_HAND.PERSON));
        return authors;
    }

    /** The names of those who brought the versions of each revision of a document, the first one first. */
    public Map<Long, List<String>> designers(long item) {
        Map<Long, List<String>> designers = new HashMap<>();
        List<String> theirs = Stream.of(
                        VersionRow.MadeBy.FILED, VersionRow.MadeBy.CHECKED_IN, VersionRow.MadeBy.ADOPTED)
                .map(Enum::name)
                .toList();
        db.select(VERSION.REVISION, PERSON.NAME)
                .from(VERSION)
                .join(PERSON)
                .on(PERSON.ID.eq(VERSION.AUTHOR))
                .where(VERSION.ITEM.eq(item), VERSION.MADE_BY.in(theirs))
                .orderBy(VERSION.NUMBER)
                .forEach(row -> {
                    List<String> names = designers.computeIfAbsent(row.value1(), r -> new ArrayList<>());
                    if (!names.contains(row.value2())) names.add(row.value2());
                });
        return designers;
    }

    /** Drops a pending revision; its label is freed when it never left the house. */
    public void dropRevision(long revision, Stage closed, boolean freeLabel, Instant now) {
        setStage(revision, closed, now);
        var update = db.update(REVISION).set(REVISION.DROPPED_AT, Times.utc(now));
        if (freeLabel) update = update.setNull(REVISION.LABEL_KEY);
        update.where(REVISION.ID.eq(revision)).execute();
        // The title that was worked on goes with it.
        db.update(ITEM.join(REVISION).on(REVISION.ITEM.eq(ITEM.ID)))
                .set(ITEM.TITLE, ITEM.OUT_TITLE)
                .where(REVISION.ID.eq(revision), ITEM.OUT_TITLE.isNotNull())
                .execute();
    }

    /** Labels that may not be given again. */
    public List<String> usedLabels(long item) {
        return db.select(REVISION.LABEL)
                .from(REVISION)
                .where(REVISION.ITEM.eq(item), REVISION.LABEL_KEY.isNotNull())
                .fetch(REVISION.LABEL);
    }

    /**
     * What a new version is made of.
     *
     * @param substance the version whose content it carries in a sheet that the shelf wrote; empty for its own
     */
    public record NewVersion(
            long item,
            long revision,
            long content,
            String fileName,
            ContentHash digest,
            String comment,
            long author,
            VersionRow.MadeBy madeBy,
            Optional<Long> base,
            Optional<Long> substance,
            Optional<Long> copyOf,
            Map<String, String> facts) {
        /** A version whose substance is its own. */
        public NewVersion(
                long item,
                long revision,
                long content,
                String fileName,
                ContentHash digest,
                String comment,
                long author,
                VersionRow.MadeBy madeBy,
                Optional<Long> base,
                Optional<Long> copyOf,
                Map<String, String> facts) {
            this(
                    item,
                    revision,
                    content,
                    fileName,
                    digest,
                    comment,
                    author,
                    madeBy,
                    base,
                    Optional.empty(),
                    copyOf,
                    facts);
        }
    }

    /** A version that was just made. */
    public record Added(long version, int number) {}

    /** Adds the next version of the main line and makes it the head. Under the line's lock. */
    public Added addVersion(NewVersion v, Instant now) {
        // As a value of its own the highest number is the last entry of an index.
        Field<Integer> highest =
                DSL.field(DSL.select(DSL.max(VERSION.NUMBER)).from(VERSION).where(VERSION.LINE.eq(LINE.ID)));
        var last = db.select(LINE.ID, highest)
                .from(LINE)
                .where(LINE.ITEM.eq(v.item()), LINE.MAIN_MARK.eq(MARK))
                .fetchSingle();
        long line = last.value1();
        int number = Optional.ofNullable(last.value2()).orElse(0) + 1;
        long id = db.insertInto(VERSION)
                .set(VERSION.ITEM, v.item())
                .set(VERSION.LINE, line)
                .set(VERSION.REVISION, v.revision())
                .set(VERSION.NUMBER, number)
                .set(VERSION.DIGEST, v.digest().bytes())
                .set(VERSION.COMMENT, v.comment())
                .set(VERSION.AUTHOR, v.author())
                .set(VERSION.MADE_BY, v.madeBy().name())
                .set(VERSION.AT, Times.utc(now))
                .set(VERSION.BASE, v.base().orElse(null))
                .set(VERSION.SUBSTANCE, v.substance().orElse(null))
                .set(VERSION.COPY_OF, v.copyOf().orElse(null))
                .set(VERSION.FACTS, json.writeValueAsString(new TreeMap<>(v.facts())))
                .returningResult(VERSION.ID)
                .fetchSingle()
                .value1();
        db.insertInto(VERSION_FILE)
                .set(VERSION_FILE.VERSION, id)
                .set(VERSION_FILE.ROLE, "MAIN")
                .set(VERSION_FILE.CONTENT, v.content())
                .set(VERSION_FILE.FILE_NAME, v.fileName())
                .execute();
        setHead(v.item(), line, id);
        touch(v.item(), now);
        return new Added(id, number);
    }

    /** Makes a version the latest of its line; graphs in memory learn of it. */
    public void setHead(long item, long line, long version) {
        db.update(LINE).set(LINE.HEAD_VERSION, version).where(LINE.ID.eq(line)).execute();
        structureMoved(item);
    }

    /** Notes that what a document consists of, or its latest version, is another now. The database says when. */
    public void structureMoved(long item) {
        moved.add(item);
    }

    /** Writes the digest of a version of this transaction, once what it refers to is known. */
    public void setDigest(long version, ContentHash digest) {
        db.update(VERSION)
                .set(VERSION.DIGEST, digest.bytes())
                .where(VERSION.ID.eq(version))
                .execute();
    }

    /** The version whose content a version carries: its own, or the one that the shelf wrote it from. */
    public long substance(long version) {
        return db.select(DSL.coalesce(VERSION.SUBSTANCE, VERSION.ID))
                .from(VERSION)
                .where(VERSION.ID.eq(version))
                .fetchSingle()
                .value1();
    }

    /** Whether anybody but {@code author} worked on the revision. */
    public boolean othersWorkedOn(long revision, long author) {
        return authors(revision).stream().anyMatch(a -> a != author);
    }

    public void touch(long item, Instant now) {
        touched.add(new Touched(item, now));
    }

    private record Touched(long item, Instant at) {}

    private void noteTouched(List<Touched> all) {
        Instant last =
                all.stream().map(Touched::at).max(Comparator.naturalOrder()).orElseThrow();
        db.update(ITEM)
                .set(ITEM.CHANGED_AT, Times.utc(last))
                .where(ITEM.ID.in(
                        all.stream().map(Touched::item).sorted().distinct().toList()))
                .execute();
    }

    private void noteMoved(List<Long> items) {
        MOVED.write(
                db,
                items.stream().sorted().distinct().map(i -> new Object[] {i}).toList());
    }

    /** Gives a pending revision its title; what is released keeps the one that it was signed with. */
    public void setTitle(long item, long revision, String title, Instant now) {
        db.update(REVISION)
                .set(REVISION.TITLE, title)
                .where(REVISION.ID.eq(revision))
                .execute();
        db.update(ITEM)
                .set(ITEM.TITLE, title)
                .set(ITEM.CHANGED_AT, Times.utc(now))
                .where(ITEM.ID.eq(item))
                .execute();
    }

    /** Drops a document: it leaves the lists, its number stays used, its file name becomes free. */
    public void drop(long item, long person, String why, Instant now) {
        db.update(ITEM)
                .set(ITEM.DROPPED_AT, Times.utc(now))
                .set(ITEM.DROPPED_BY, person)
                .set(ITEM.DROPPED_WHY, why)
                .setNull(ITEM.FILE_NAME_KEY)
                .where(ITEM.ID.eq(item))
                .execute();
    }

    /** Who dropped a document, when and why. */
    public record Dropped(String byName, Instant at, String why) {}

    public Optional<Dropped> dropped(long item) {
        return db.select(PERSON.NAME, ITEM.DROPPED_AT, ITEM.DROPPED_WHY)
                .from(ITEM)
                .join(PERSON)
                .on(PERSON.ID.eq(ITEM.DROPPED_BY))
                .where(ITEM.ID.eq(item))
                .fetchOptional(row -> new Dropped(row.value1(), Times.instant(row.value2()), row.value3()));
    }

    /** Documents of a shelf that were dropped after {@code since}, the last first. */
    public List<Long> droppedOf(long shelf, Instant since, int most) {
        return db.select(ITEM.ID)
                .from(ITEM)
                .where(ITEM.SHELF.eq(shelf), ITEM.DROPPED_AT.gt(Times.utc(since)), ITEM.FREED_AT.isNull())
                .orderBy(ITEM.DROPPED_AT.desc(), ITEM.ID.desc())
                .limit(most)
                .fetch(ITEM.ID);
    }

    /** Brings a dropped document back, with a file name that is free. */
    public void bringBack(long item, FileName file, Instant now) {
        db.update(ITEM)
                .setNull(ITEM.DROPPED_AT)
                .setNull(ITEM.DROPPED_BY)
                .setNull(ITEM.DROPPED_WHY)
                .set(ITEM.FILE_NAME, file.name())
                .set(ITEM.FILE_NAME_KEY, file.key())
                .set(ITEM.CHANGED_AT, Times.utc(now))
                .where(ITEM.ID.eq(item))
                .execute();
        structureMoved(item);
    }

    /** Documents that were dropped before {@code before} and still have their bytes; locked, those of other nodes passed over. */
    public List<Long> toFree(Instant before, int most) {
        return db.select(ITEM.ID)
                .from(ITEM)
                .where(ITEM.DROPPED_AT.lt(Times.utc(before)), ITEM.FREED_AT.isNull())
                .orderBy(ITEM.ID)
                .limit(most)
                .forUpdate()
                .skipLocked()
                .fetch(ITEM.ID);
    }

    /** Takes the files from a dropped document's versions; gives their contents, which others may hold too. */
    public List<Long> free(long item, Instant now) {
        var versions = db.select(VERSION.ID).from(VERSION).where(VERSION.ITEM.eq(item));
        List<Long> held = db.selectDistinct(VERSION_FILE.CONTENT)
                .from(VERSION_FILE)
                .where(VERSION_FILE.VERSION.in(versions))
                .fetch(VERSION_FILE.CONTENT);
        db.deleteFrom(VERSION_FILE).where(VERSION_FILE.VERSION.in(versions)).execute();
        db.update(ITEM)
                .set(ITEM.FREED_AT, Times.utc(now))
                .where(ITEM.ID.eq(item))
                .execute();
        return held;
    }

    /** Documents, dropped ones left out, whose head version has this content. */
    public List<Long> withContent(long content) {
        return db.select(ITEM.ID)
                .from(VERSION_FILE)
                .join(LINE)
                .on(LINE.HEAD_VERSION.eq(VERSION_FILE.VERSION))
                .join(ITEM)
                .on(ITEM.ID.eq(LINE.ITEM), ITEM.DROPPED_AT.isNull())
                .where(VERSION_FILE.CONTENT.eq(content))
                .orderBy(ITEM.ID)
                .limit(20)
                .fetch(ITEM.ID);
    }
}
