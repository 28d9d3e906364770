package mintshelf.app.store.document;

import static mintshelf.database.schema.Tables.ITEM;
import static mintshelf.database.schema.Tables.LINE;
import static mintshelf.database.schema.Tables.PERSON;
import static mintshelf.database.schema.Tables.REVISION;
import static mintshelf.database.schema.Tables.REVISION_HAND;
import static mintshelf.database.schema.Tables.STAGE;
import static mintshelf.database.schema.Tables.VERSION;

import java.time.Instant;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Stream;
import mintshelf.app.store.Prepared;
import mintshelf.app.store.Times;
import mintshelf.core.base.Texts;
import mintshelf.core.document.Revision;
import mintshelf.core.document.Stage;
import mintshelf.core.revision.StageClass;
import mintshelf.database.schema.tables.Version;
import org.jooq.DSLContext;
import org.jooq.Record;
import org.jooq.impl.DSL;
import org.springframework.stereotype.Repository;

/** Revisions of documents: their labels, their stages, who worked on them, what they are called. */
@Repository
public class RevisionStore {
    private final Prepared titles = new Prepared((db, revisions) ->
            db.select(REVISION.ID, REVISION.TITLE).from(REVISION).where(REVISION.ID.in(revisions)));
    private static final short MARK = 1;
    private static final Version OUT = VERSION.as("out_version");
    private final Prepared stages = new Prepared((db, revisions) -> db.select(REVISION.fields())
            .select(STAGE.fields())
            .from(REVISION)
            .join(STAGE)
            .on(STAGE.EDITION.eq(REVISION.EDITION), STAGE.CODE.eq(REVISION.STAGE))
            .where(REVISION.ID.in(revisions)));
    private final DSLContext db;
    private final DocumentStore documents;

    public RevisionStore(DSLContext db, DocumentStore documents) {
        this.db = db;
        this.documents = documents;
    }

    /** A revision as a row has it, with its stage; none where the join found none. */
    static Optional<Revision> revision(
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
        if (to.wasReleased() && to != StageClass.RELEASED) documents.wentOut(revision, now);
    }

    /** Puts a revision onto another edition of its route, into a stop of the same purpose: since when it stands there stays. */
    public void moveOver(long revision, Stage stage) {
        db.update(REVISION)
                .set(REVISION.EDITION, stage.edition())
                .set(REVISION.STAGE, stage.code())
                .where(REVISION.ID.eq(revision))
                .execute();
    }

    /** Documents with a revision under way on one of these editions, in the order in which they were filed. */
    public List<Long> underWayOn(Collection<Long> editions, int most) {
        return db.selectDistinct(REVISION.ITEM)
                .from(REVISION)
                .join(ITEM)
                .on(ITEM.ID.eq(REVISION.ITEM))
                .where(REVISION.EDITION.in(editions), REVISION.PENDING_MARK.isNotNull(), ITEM.DROPPED_AT.isNull())
                .orderBy(REVISION.ITEM)
                .limit(most)
                .fetch(REVISION.ITEM);
    }

    public void noteRelease(long revision, long version, Instant now) {
        db.update(REVISION)
                .set(REVISION.RELEASED_AT, Times.utc(now))
                .set(REVISION.RELEASED_VERSION, version)
                .where(REVISION.ID.eq(revision))
                .execute();
        documents.wentOut(revision, now);
    }

    /** Revisions by their ids; a statement for each few hundred. */
    public Map<Long, Revision> revisionsById(Collection<Long> ids) {
        Map<Long, Revision> found = new HashMap<>();
        stages.fetch(db, ids).forEach(row -> revision(row, REVISION, STAGE).ifPresent(r -> found.put(r.id(), r)));
        return found;
    }

    /** Of documents the revisions that had come into force last by a moment; two statements. */
    public Map<Long, Revision> inForceBy(Collection<Long> items, Instant moment) {
        if (items.isEmpty()) return Map.of();
        Map<Long, Long> last = new HashMap<>();
        db.select(REVISION.ITEM, REVISION.ID)
                .from(REVISION)
                .where(REVISION.ITEM.in(items), REVISION.RELEASED_AT.le(Times.utc(moment)))
                .orderBy(REVISION.RELEASED_AT, REVISION.ORDINAL)
                .forEach(row -> last.put(row.value1(), row.value2()));
        Map<Long, Revision> byId = revisionsById(last.values());
        Map<Long, Revision> found = new HashMap<>();
        last.forEach((item, revision) -> found.put(item, byId.get(revision)));
        return found;
    }

    /** The titles of revisions; a statement for each few hundred. */
    public Map<Long, String> titles(Collection<Long> revisions) {
        Map<Long, String> titles = new HashMap<>();
        this.titles.fetch(db, revisions).forEach(row -> titles.put(row.get(REVISION.ID), row.get(REVISION.TITLE)));
        return titles;
    }

    /** The ids of the versions with which revisions were released; those that never were are left out. */
    public Map<Long, Long> releasedVersions(Collection<Long> revisions) {
        if (revisions.isEmpty()) return Map.of();
        return db.select(REVISION.ID, REVISION.RELEASED_VERSION)
                .from(REVISION)
                .where(REVISION.ID.in(revisions).and(REVISION.RELEASED_VERSION.isNotNull()))
                .fetchMap(row -> row.value1(), row -> row.value2());
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
                .join(LINE)
                .on(LINE.ID.eq(VERSION.LINE), LINE.MAIN_MARK.eq((short) 1))
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
                .join(LINE)
                .on(LINE.ID.eq(VERSION.LINE), LINE.MAIN_MARK.eq((short) 1))
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
        documents.takeTitleBack(revision);
    }

    /** Labels that may not be given again. */
    public List<String> usedLabels(long item) {
        return db.select(REVISION.LABEL)
                .from(REVISION)
                .where(REVISION.ITEM.eq(item), REVISION.LABEL_KEY.isNotNull())
                .fetch(REVISION.LABEL);
    }

    /** Whether anybody but {@code author} worked on the revision. */
    public boolean othersWorkedOn(long revision, long author) {
        return authors(revision).stream().anyMatch(a -> a != author);
    }

    /** Gives a pending revision its title; what is released keeps the one that it was signed with. */
    public void setTitle(long item, long revision, String title, Instant now) {
        db.update(REVISION)
                .set(REVISION.TITLE, title)
                .where(REVISION.ID.eq(revision))
                .execute();
        documents.setTitle(item, title, now);
    }

    /** How many documents of a kind stand in a stage. */
    public record Standing(long kind, long edition, String stage, boolean pending, int documents) {}

    /** Where the documents of all kinds stand: their pending or released revisions, those of dropped ones not. One statement. */
    public List<Standing> standings() {
        return db.select(ITEM.KIND, REVISION.EDITION, REVISION.STAGE, REVISION.PENDING_MARK, DSL.count())
                .from(REVISION)
                .join(ITEM)
                .on(ITEM.ID.eq(REVISION.ITEM))
                .where(ITEM.DROPPED_AT.isNull())
                .and(REVISION.PENDING_MARK.isNotNull().or(REVISION.RELEASED_MARK.isNotNull()))
                .groupBy(ITEM.KIND, REVISION.EDITION, REVISION.STAGE, REVISION.PENDING_MARK)
                .fetch(row ->
                        new Standing(row.value1(), row.value2(), row.value3(), row.value4() != null, row.value5()));
    }

    /** How many documents each kind has; one statement. */
    public Map<Long, Integer> documentsByKind() {
        return db.select(ITEM.KIND, DSL.count())
                .from(ITEM)
                .where(ITEM.DROPPED_AT.isNull())
                .groupBy(ITEM.KIND)
                .fetchMap(ITEM.KIND, row -> row.value2());
    }
}
