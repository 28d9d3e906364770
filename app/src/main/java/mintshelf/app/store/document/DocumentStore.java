package mintshelf.app.store.document;

import static mintshelf.database.schema.Tables.FORMER_FILE_NAME;
import static mintshelf.database.schema.Tables.ITEM;
import static mintshelf.database.schema.Tables.LINE;
import static mintshelf.database.schema.Tables.PERSON;
import static mintshelf.database.schema.Tables.REVISION;
import static mintshelf.database.schema.Tables.SHELF;
import static mintshelf.database.schema.Tables.STRUCTURE_LOG;

import java.time.Instant;
import java.util.Collection;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import mintshelf.app.store.AtCommit;
import mintshelf.app.store.Rows;
import mintshelf.app.store.Times;
import mintshelf.core.document.Aspect;
import mintshelf.core.document.FileName;
import mintshelf.core.numbering.NumberKey;
import org.jooq.DSLContext;
import org.springframework.stereotype.Repository;

/** Documents themselves: added, touched, dropped and brought back. */
@Repository
public class DocumentStore {
    private static final short MARK = 1;
    private static final Rows MOVED = Rows.added(STRUCTURE_LOG, STRUCTURE_LOG.ITEM);
    private final AtCommit<Touched> touched = new AtCommit<>(this::noteTouched);
    private final AtCommit<Long> moved = new AtCommit<>(this::noteMoved);
    private final DSLContext db;

    public DocumentStore(DSLContext db) {
        this.db = db;
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

    /** The file names in folders, by folder; one statement. */
    public Map<Long, Set<String>> fileNames(Collection<Long> folders) {
        Map<Long, Set<String>> names = new HashMap<>();
        if (folders.isEmpty()) return names;
        db.select(ITEM.FOLDER, ITEM.FILE_NAME_KEY)
                .from(ITEM)
                .where(ITEM.FOLDER.in(folders), ITEM.FILE_NAME_KEY.isNotNull())
                .forEach(row -> names.computeIfAbsent(row.value1(), f -> new HashSet<>())
                        .add(row.value2()));
        return names;
    }

    /** Documents that lie in folders, in the order in which they were filed. */
    public List<Long> lyingIn(Collection<Long> folders, int most) {
        if (folders.isEmpty()) return List.of();
        return db.select(ITEM.ID)
                .from(ITEM)
                .where(ITEM.FOLDER.in(folders), ITEM.DROPPED_AT.isNull())
                .orderBy(ITEM.ID)
                .limit(most)
                .fetch(ITEM.ID);
    }

    /** Tables that lie on library shelves, in the order of their numbers. */
    public List<Long> tablesOfLibraries(int most) {
        return db.select(ITEM.ID)
                .from(ITEM)
                .join(SHELF)
                .on(SHELF.ID.eq(ITEM.SHELF), SHELF.LIBRARY.isTrue())
                .where(
                        ITEM.DROPPED_AT.isNull(),
                        ITEM.FILE_NAME_KEY.endsWith(".csv").or(ITEM.FILE_NAME_KEY.endsWith(".xlsx")))
                .orderBy(ITEM.NUMBER_SORT, ITEM.ID)
                .limit(most)
                .fetch(ITEM.ID);
    }

    /** Gives a document another file name; the database refuses one that another document of its folder has. */
    public void rename(long item, FileName file) {
        db.update(ITEM)
                .set(ITEM.FILE_NAME, file.name())
                .set(ITEM.FILE_NAME_KEY, file.key())
                .where(ITEM.ID.eq(item))
                .execute();
    }

    /** Gives a document another number; it is claimed by {@link NumberStore#rename}. */
    public void renumber(long item, NumberKey number) {
        db.update(ITEM)
                .set(ITEM.NUMBER, number.number())
                .set(ITEM.NUMBER_SORT, number.sort())
                .where(ITEM.ID.eq(item))
                .execute();
    }

    /** Makes a document one of another kind; its number is moved along by {@link NumberStore#reclaim}. */
    public void changeKind(long item, Aspect aspect, long kind, Instant now) {
        db.update(ITEM)
                .set(ITEM.ASPECT, aspect.name())
                .set(ITEM.KIND, kind)
                .set(ITEM.CHANGED_AT, Times.utc(now))
                .where(ITEM.ID.eq(item))
                .execute();
        structureMoved(item);
    }

    /** Keeps a file name that a document had: files that say it mean the document still. */
    public void rememberName(long item, FileName former, Instant now) {
        db.insertInto(FORMER_FILE_NAME)
                .set(FORMER_FILE_NAME.ITEM, item)
                .set(FORMER_FILE_NAME.FILE_NAME, former.name())
                .set(FORMER_FILE_NAME.FILE_NAME_KEY, former.key())
                .set(FORMER_FILE_NAME.AT, Times.utc(now))
                .onDuplicateKeyUpdate()
                .set(FORMER_FILE_NAME.AT, Times.utc(now))
                .execute();
    }

    /** Puts a document into another folder; the database refuses a second file of one name in it. */
    public void relocate(long item, long shelf, long folder, Instant now) {
        db.update(ITEM)
                .set(ITEM.SHELF, shelf)
                .set(ITEM.FOLDER, folder)
                .set(ITEM.CHANGED_AT, Times.utc(now))
                .where(ITEM.ID.eq(item))
                .execute();
        structureMoved(item);
    }

    /** The title that was worked on goes with its revision: the one that is out stands again. */
    void takeTitleBack(long revision) {
        db.update(ITEM.join(REVISION).on(REVISION.ITEM.eq(ITEM.ID)))
                .set(ITEM.TITLE, ITEM.OUT_TITLE)
                .where(REVISION.ID.eq(revision), ITEM.OUT_TITLE.isNotNull())
                .execute();
    }

    void setTitle(long item, String title, Instant now) {
        db.update(ITEM)
                .set(ITEM.TITLE, title)
                .set(ITEM.CHANGED_AT, Times.utc(now))
                .where(ITEM.ID.eq(item))
                .execute();
    }

    /** What readers know of a document is what its revision says that moved last outside the house. */
    void wentOut(long revision, Instant now) {
        db.update(ITEM.join(REVISION).on(REVISION.ITEM.eq(ITEM.ID)))
                .set(ITEM.OUT_TITLE, REVISION.TITLE)
                .set(ITEM.OUT_AT, Times.utc(now))
                .where(REVISION.ID.eq(revision))
                .execute();
    }

    /** Notes that what a document consists of, or its latest version, is another now. The database says when. */
    public void structureMoved(long item) {
        moved.add(item);
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

    /** Notes that a dropped document's files are gone. */
    public void noteFreed(long item, Instant now) {
        db.update(ITEM)
                .set(ITEM.FREED_AT, Times.utc(now))
                .where(ITEM.ID.eq(item))
                .execute();
    }

    /** Makes a version the latest of its line; graphs in memory learn of it. */
    public void setHead(long item, long line, long version) {
        db.update(LINE).set(LINE.HEAD_VERSION, version).where(LINE.ID.eq(line)).execute();
        structureMoved(item);
    }

    /** As {@link #setHead}, on the line of a trial: nothing of the document moves by it. */
    public void setTrialHead(long line, long version) {
        db.update(LINE).set(LINE.HEAD_VERSION, version).where(LINE.ID.eq(line)).execute();
    }

    /**
     * Adds the line of a trial to documents.
     *
     * @param from ids of the versions at which it begins, by document
     */
    public void addTrialLines(long trial, int number, Map<Long, Long> from) {
        from.forEach((item, version) -> db.insertInto(LINE)
                .set(LINE.ITEM, item)
                .set(LINE.TRIAL, trial)
                .set(LINE.TRIAL_NUMBER, number)
                .set(LINE.FROM_VERSION, version)
                .execute());
    }

    /** Notes as which version of its document the line of a trial was adopted. */
    public void adopted(long line, long version) {
        db.update(LINE).set(LINE.ADOPTED_AS, version).where(LINE.ID.eq(line)).execute();
    }
}
