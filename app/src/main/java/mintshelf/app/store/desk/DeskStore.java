package mintshelf.app.store.desk;

import static mintshelf.database.schema.Tables.CONTENT;
import static mintshelf.database.schema.Tables.DESK;
import static mintshelf.database.schema.Tables.DESK_FILE;
import static mintshelf.database.schema.Tables.LINE;
import static mintshelf.database.schema.Tables.TRIAL;
import static mintshelf.database.schema.Tables.VERSION;
import static mintshelf.database.schema.Tables.VERSION_FILE;

import java.time.Instant;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import mintshelf.app.store.Times;
import mintshelf.core.base.ContentHash;
import mintshelf.core.base.Texts;
import mintshelf.core.document.VersionName;
import mintshelf.database.schema.tables.Line;
import org.jooq.DSLContext;
import org.springframework.stereotype.Repository;

/** Desks, and what was brought to them. */
@Repository
public class DeskStore {
    /** The line that a version was made on: that of the desk, or the one at which a trial begins. */
    private static final Line MADE = LINE.as("made");

    private final DSLContext db;

    public DeskStore(DSLContext db) {
        this.db = db;
    }

    /**
     * A desk of a person.
     *
     * @param opens by what its companion knows links of pages; nothing where it takes none
     */
    public record Desk(long id, long person, String name, Optional<Instant> seen, Optional<String> opens) {}

    /**
     * A file of a desk's record.
     *
     * @param version id of the version that was brought, {@code name} its name
     * @param content of it
     * @param onPurpose whether it is an older one on purpose
     * @param trialLine id of the line on which the desk works, where that is one of a trial under way; else it is the main one
     */
    public record Brought(
            long item,
            long version,
            VersionName name,
            ContentHash content,
            String path,
            boolean onPurpose,
            Optional<Long> trialLine) {}

    public List<Desk> of(long person) {
        return db.selectFrom(DESK)
                .where(DESK.PERSON.eq(person))
                .orderBy(DESK.NAME)
                .fetch(r -> new Desk(
                        r.getId(),
                        r.getPerson(),
                        r.getName(),
                        Optional.ofNullable(r.getSeenAt()).map(Times::instant),
                        Optional.ofNullable(r.getOpensTag())));
    }

    /** Its companion takes links of pages from now on, or none any more. */
    public void opens(long desk, Optional<String> tag) {
        db.update(DESK)
                .set(DESK.OPENS_TAG, tag.orElse(null))
                .where(DESK.ID.eq(desk))
                .execute();
    }

    public Optional<Desk> desk(long person, String name) {
        return of(person).stream()
                .filter(d -> Texts.key(d.name()).equals(Texts.key(name)))
                .findFirst();
    }

    /** Adds a desk; one of that name is there already: it. */
    public Desk add(long person, String name, Instant now) {
        db.insertInto(DESK)
                .set(DESK.PERSON, person)
                .set(DESK.NAME, name)
                .set(DESK.NAME_KEY, Texts.key(name))
                .set(DESK.CREATED_AT, Times.utc(now))
                .onDuplicateKeyUpdate()
                .set(DESK.ID, DESK.ID)
                .execute();
        return desk(person, name).orElseThrow();
    }

    public void seen(long desk, Instant now) {
        db.update(DESK)
                .set(DESK.SEEN_AT, Times.utc(now))
                .where(DESK.ID.eq(desk))
                .execute();
    }

    public void remove(long desk) {
        db.deleteFrom(DESK).where(DESK.ID.eq(desk)).execute();
    }

    /** The record of a desk, by document. */
    public Map<Long, Brought> files(long desk) {
        Map<Long, Brought> files = new HashMap<>();
        db.select(
                        DESK_FILE.ITEM,
                        DESK_FILE.VERSION,
                        VERSION.NUMBER,
                        CONTENT.SHA256,
                        DESK_FILE.PATH,
                        DESK_FILE.ON_PURPOSE,
                        MADE.TRIAL_NUMBER,
                        LINE.ID,
                        TRIAL.ID)
                .from(DESK_FILE)
                .join(VERSION)
                .on(VERSION.ID.eq(DESK_FILE.VERSION))
                .join(MADE)
                .on(MADE.ID.eq(VERSION.LINE))
                .join(LINE)
                .on(LINE.ID.eq(DESK_FILE.LINE))
                .leftJoin(TRIAL)
                .on(TRIAL.ID.eq(LINE.TRIAL), TRIAL.ENDED_AT.isNull())
                .join(VERSION_FILE)
                .on(VERSION_FILE.VERSION.eq(VERSION.ID), VERSION_FILE.ROLE.eq("MAIN"))
                .join(CONTENT)
                .on(CONTENT.ID.eq(VERSION_FILE.CONTENT))
                .where(DESK_FILE.DESK.eq(desk))
                .forEach(r -> files.put(
                        r.value1(),
                        new Brought(
                                r.value1(),
                                r.value2(),
                                new VersionName(Optional.ofNullable(r.value7()).orElse(0), r.value3()),
                                ContentHash.of(r.value4()),
                                r.value5(),
                                r.value6(),
                                Optional.ofNullable(r.value9()).map(trial -> r.value8()))));
        return files;
    }

    /**
     * Notes that a version was brought.
     *
     * @param on the line on which the desk works from now on, where it is another than that of the version: a trial's that begins at it
     */
    public void brought(
            long desk, long item, long version, Optional<Long> on, String path, boolean onPurpose, Instant now) {
        long line = on.orElseGet(() -> db.select(VERSION.LINE)
                .from(VERSION)
                .where(VERSION.ID.eq(version))
                .fetchSingle()
                .value1());
        db.insertInto(DESK_FILE)
                .set(DESK_FILE.DESK, desk)
                .set(DESK_FILE.ITEM, item)
                .set(DESK_FILE.LINE, line)
                .set(DESK_FILE.VERSION, version)
                .set(DESK_FILE.PATH, path)
                .set(DESK_FILE.ON_PURPOSE, onPurpose)
                .set(DESK_FILE.AT, Times.utc(now))
                .onDuplicateKeyUpdate()
                .set(DESK_FILE.LINE, line)
                .set(DESK_FILE.VERSION, version)
                .set(DESK_FILE.PATH, path)
                .set(DESK_FILE.ON_PURPOSE, onPurpose)
                .set(DESK_FILE.AT, Times.utc(now))
                .execute();
    }

    /** Forgets files that were cleared off the desk. */
    public void cleared(long desk, Collection<Long> items) {
        db.deleteFrom(DESK_FILE)
                .where(DESK_FILE.DESK.eq(desk), DESK_FILE.ITEM.in(items))
                .execute();
    }

    /**
     * For bytes on a disk: versions of documents that have them, the highest of each document; of a trial where there is one.
     *
     * @param tried ids of the lines of trials on which the desk has documents: their versions are looked at beside those of the main lines
     */
    public Map<Long, VersionName> versionsWith(Map<Long, ContentHash> disk, Collection<Long> tried) {
        Map<Long, VersionName> found = new HashMap<>();
        if (disk.isEmpty()) return found;
        db.select(VERSION.ITEM, VERSION.NUMBER, CONTENT.SHA256, LINE.TRIAL_NUMBER)
                .from(VERSION)
                .join(LINE)
                .on(LINE.ID.eq(VERSION.LINE), LINE.MAIN_MARK.eq((short) 1).or(LINE.ID.in(tried)))
                .join(VERSION_FILE)
                .on(VERSION_FILE.VERSION.eq(VERSION.ID), VERSION_FILE.ROLE.eq("MAIN"))
                .join(CONTENT)
                .on(CONTENT.ID.eq(VERSION_FILE.CONTENT))
                .where(
                        VERSION.ITEM.in(disk.keySet()),
                        CONTENT.SHA256.in(disk.values().stream()
                                .map(ContentHash::bytes)
                                .distinct()
                                .toList()))
                .forEach(r -> {
                    if (!ContentHash.of(r.value3()).equals(disk.get(r.value1()))) return;
                    VersionName name =
                            new VersionName(Optional.ofNullable(r.value4()).orElse(0), r.value2());
                    found.merge(r.value1(), name, DeskStore::higher);
                });
        return found;
    }

    private static VersionName higher(VersionName a, VersionName b) {
        if (a.isTrial() != b.isTrial()) return a.isTrial() ? a : b;
        return a.number() >= b.number() ? a : b;
    }
}
