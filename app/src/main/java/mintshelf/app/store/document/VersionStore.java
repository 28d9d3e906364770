package mintshelf.app.store.document;

import static mintshelf.database.schema.Tables.CONTENT;
import static mintshelf.database.schema.Tables.ITEM;
import static mintshelf.database.schema.Tables.LINE;
import static mintshelf.database.schema.Tables.PERSON;
import static mintshelf.database.schema.Tables.REVISION;
import static mintshelf.database.schema.Tables.VERSION;
import static mintshelf.database.schema.Tables.VERSION_FILE;

import java.time.Instant;
import java.util.Collection;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.stream.Collectors;
import mintshelf.app.store.Times;
import mintshelf.core.base.ContentHash;
import mintshelf.core.document.VersionName;
import mintshelf.database.schema.tables.Person;
import org.jooq.Condition;
import org.jooq.DSLContext;
import org.jooq.Field;
import org.jooq.impl.DSL;
import org.springframework.stereotype.Repository;
import tools.jackson.databind.json.JsonMapper;

/** Versions of documents and the heads of their lines. */
@Repository
public class VersionStore {
    /** Ids of one statement that is written anew each time. */
    private static final int PORTION = 1000;

    private static final short MARK = 1;
    private static final Person AUTHOR = PERSON.as("author");
    private final DSLContext db;
    private final JsonMapper json;
    private final DocumentStore documents;
    private final NeutralStore neutral;

    public VersionStore(DSLContext db, JsonMapper json, DocumentStore documents, NeutralStore neutral) {
        this.neutral = neutral;
        this.db = db;
        this.json = json;
        this.documents = documents;
    }

    /** The versions of the main line, oldest first. */
    public List<VersionRow> versions(long item) {
        return versions(VERSION.ITEM.eq(item).and(LINE.MAIN_MARK.eq(MARK)));
    }

    public Optional<VersionRow> version(long item, int number) {
        return version(item, VersionName.main(number));
    }

    /** A version of the main line or of a trial. */
    public Optional<VersionRow> version(long item, VersionName name) {
        Condition line = name.isTrial() ? LINE.TRIAL_NUMBER.eq(name.trial()) : LINE.MAIN_MARK.eq(MARK);
        return versions(VERSION.ITEM.eq(item).and(line).and(VERSION.NUMBER.eq(name.number()))).stream()
                .findFirst();
    }

    /** The versions of a document on the lines of trials, the first trial first, the oldest first. */
    public List<VersionRow> tried(long item) {
        return versions(VERSION.ITEM.eq(item).and(LINE.TRIAL_NUMBER.isNotNull())).stream()
                .sorted(Comparator.comparingInt(VersionRow::trial).thenComparingInt(VersionRow::number))
                .toList();
    }

    /** The versions of lines, oldest first, by line. */
    public Map<Long, List<VersionRow>> ofLines(Collection<Long> lines) {
        Map<Long, Long> of = db.select(VERSION.ID, VERSION.LINE)
                .from(VERSION)
                .where(VERSION.LINE.in(lines))
                .fetchMap(VERSION.ID, VERSION.LINE);
        return versions(VERSION.LINE.in(lines)).stream().collect(Collectors.groupingBy(v -> of.get(v.id())));
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

    /** The revisions of versions, by version. */
    public Map<Long, Long> revisionsOf(Collection<Long> ids) {
        Map<Long, Long> found = new HashMap<>();
        List<Long> all = List.copyOf(ids);
        for (int from = 0; from < all.size(); from += PORTION) {
            db.select(VERSION.ID, VERSION.REVISION)
                    .from(VERSION)
                    .where(VERSION.ID.in(all.subList(from, Math.min(all.size(), from + PORTION))))
                    .forEach(row -> found.put(row.value1(), row.value2()));
        }
        return found;
    }

    private List<VersionRow> versions(Condition where) {
        var base = VERSION.as("base_version");
        var copied = VERSION.as("copied_version");
        Map<Long, Long> items = new HashMap<>();
        List<VersionRow> rows = db.select(VERSION.fields())
                .select(VERSION_FILE.FILE_NAME, PERSON.NAME, base.NUMBER, copied.NUMBER, LINE.TRIAL_NUMBER)
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
                .fetch(row -> {
                    items.put(row.get(VERSION.ID), row.get(VERSION.ITEM));
                    return new VersionRow(
                            row.get(VERSION.ID),
                            row.get(VERSION.NUMBER),
                            row.get(VERSION.REVISION),
                            row.get(VERSION_FILE.FILE_NAME),
                            SpineStore.content(row),
                            ContentHash.of(row.get(VERSION.DIGEST)),
                            row.get(VERSION.COMMENT),
                            row.get(VERSION.AUTHOR),
                            row.get(PERSON.NAME),
                            VersionRow.MadeBy.valueOf(row.get(VERSION.MADE_BY)),
                            Times.instant(row.get(VERSION.AT)),
                            Optional.ofNullable(row.get(base.NUMBER)),
                            Optional.ofNullable(row.get(copied.NUMBER)),
                            Optional.empty(),
                            Optional.ofNullable(row.get(LINE.TRIAL_NUMBER)).orElse(0));
                });
        return shown(rows, items);
    }

    /** With their neutral copies; two statements more, where there are files that nobody here draws. */
    private List<VersionRow> shown(List<VersionRow> rows, Map<Long, Long> items) {
        Set<Long> wanting = rows.stream()
                .filter(VersionRow::wantsNeutral)
                .map(v -> items.get(v.id()))
                .collect(Collectors.toSet());
        List<NeutralStore.Copy> copies = neutral.of(wanting);
        if (copies.isEmpty()) return rows;
        Set<Long> out = neutral.out(wanting);
        return rows.stream().map(v -> v.shownBy(items.get(v.id()), copies, out)).toList();
    }

    public long mainLine(long item) {
        return db.select(LINE.ID)
                .from(LINE)
                .where(LINE.ITEM.eq(item), LINE.MAIN_MARK.eq(MARK))
                .fetchSingle()
                .value1();
    }

    /**
     * What a new version is made of.
     *
     * @param substance the version whose content it carries in a sheet that the shelf wrote; empty for its own
     * @param line on which it is; empty for the main one
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
            Map<String, String> facts,
            Optional<Long> line) {
        /** A version of the main line whose substance is its own. */
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
                    facts,
                    Optional.empty());
        }

        /** The same on the line of a trial. */
        public NewVersion on(long trialLine) {
            return new NewVersion(
                    item,
                    revision,
                    content,
                    fileName,
                    digest,
                    comment,
                    author,
                    madeBy,
                    base,
                    substance,
                    copyOf,
                    facts,
                    Optional.of(trialLine));
        }
    }

    /** A version that was just made. */
    public record Added(long version, int number) {}

    /** Adds the next version of a line and makes it the head. Under the document's lock; what only a trial gets is no change of it. */
    public Added addVersion(NewVersion v, Instant now) {
        // As a value of its own the highest number is the last entry of an index.
        Field<Integer> highest =
                DSL.field(DSL.select(DSL.max(VERSION.NUMBER)).from(VERSION).where(VERSION.LINE.eq(LINE.ID)));
        var last = db.select(LINE.ID, highest)
                .from(LINE)
                .where(LINE.ITEM.eq(v.item()), v.line().map(LINE.ID::eq).orElseGet(() -> LINE.MAIN_MARK.eq(MARK)))
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
        if (v.line().isPresent()) {
            documents.setTrialHead(line, id);
        } else {
            documents.setHead(v.item(), line, id);
            documents.touch(v.item(), now);
        }
        return new Added(id, number);
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

    /** Documents, dropped ones left out, whose head version has this content. */
    public List<Long> withContent(long content) {
        return db.select(ITEM.ID)
                .from(VERSION_FILE)
                .join(LINE)
                .on(LINE.HEAD_VERSION.eq(VERSION_FILE.VERSION), LINE.MAIN_MARK.eq(MARK))
                .join(ITEM)
                .on(ITEM.ID.eq(LINE.ITEM), ITEM.DROPPED_AT.isNull())
                .where(VERSION_FILE.CONTENT.eq(content))
                .orderBy(ITEM.ID)
                .limit(20)
                .fetch(ITEM.ID);
    }

    /** Documents, dropped ones left out, whose head version has one of these contents, by the hash; a statement for each thousand. */
    public Map<ContentHash, Long> withContents(Collection<ContentHash> hashes) {
        Map<ContentHash, Long> found = new HashMap<>();
        List<ContentHash> all = List.copyOf(hashes);
        for (int from = 0; from < all.size(); from += PORTION) {
            db.select(CONTENT.SHA256, ITEM.ID)
                    .from(CONTENT)
                    .join(VERSION_FILE)
                    .on(VERSION_FILE.CONTENT.eq(CONTENT.ID))
                    .join(LINE)
                    .on(LINE.HEAD_VERSION.eq(VERSION_FILE.VERSION), LINE.MAIN_MARK.eq(MARK))
                    .join(ITEM)
                    .on(ITEM.ID.eq(LINE.ITEM), ITEM.DROPPED_AT.isNull())
                    .where(CONTENT.SHA256.in(all.subList(from, Math.min(all.size(), from + PORTION)).stream()
                            .map(ContentHash::bytes)
                            .toList()))
                    .orderBy(ITEM.ID)
                    .forEach(row -> found.putIfAbsent(ContentHash.of(row.value1()), row.value2()));
        }
        return found;
    }

    /** Takes the files from a dropped document's versions; gives their contents, which others may hold too. */
    public List<Long> free(long item) {
        var versions = db.select(VERSION.ID).from(VERSION).where(VERSION.ITEM.eq(item));
        List<Long> held = db.selectDistinct(VERSION_FILE.CONTENT)
                .from(VERSION_FILE)
                .where(VERSION_FILE.VERSION.in(versions))
                .fetch(VERSION_FILE.CONTENT);
        db.deleteFrom(VERSION_FILE).where(VERSION_FILE.VERSION.in(versions)).execute();
        return held;
    }

    /**
     * A version as a search shows it.
     *
     * @param label of its revision; empty where it has none yet
     * @param wasOut whether a revision was released with it
     */
    public record Brief(long item, int number, String label, String comment, String by, Instant at, boolean wasOut) {}

    /** Versions of documents by number; one statement. */
    public List<Brief> brief(Map<Long, Set<Integer>> numbers) {
        if (numbers.isEmpty()) return List.of();
        return db.select(
                        VERSION.ITEM,
                        VERSION.NUMBER,
                        REVISION.LABEL,
                        VERSION.COMMENT,
                        PERSON.NAME,
                        VERSION.AT,
                        DSL.field(REVISION.RELEASED_VERSION.eq(VERSION.ID).and(REVISION.RELEASED_AT.isNotNull())))
                .from(VERSION)
                .join(LINE)
                .on(LINE.ID.eq(VERSION.LINE), LINE.MAIN_MARK.eq(MARK))
                .join(REVISION)
                .on(REVISION.ID.eq(VERSION.REVISION))
                .join(PERSON)
                .on(PERSON.ID.eq(VERSION.AUTHOR))
                .where(DSL.or(numbers.entrySet().stream()
                        .map(e -> VERSION.ITEM.eq(e.getKey()).and(VERSION.NUMBER.in(e.getValue())))
                        .toList()))
                .fetch(row -> new Brief(
                        row.value1(),
                        row.value2(),
                        Optional.ofNullable(row.value3()).orElse(""),
                        row.value4(),
                        row.value5(),
                        Times.instant(row.value6()),
                        Boolean.TRUE.equals(row.value7())));
    }
}
