package mintshelf.app.store.structure;

import static mintshelf.database.schema.Tables.ITEM;
import static mintshelf.database.schema.Tables.ITEM_LINK;
import static mintshelf.database.schema.Tables.LINE;
import static mintshelf.database.schema.Tables.NUMBER_CLAIM;
import static mintshelf.database.schema.Tables.VERSION;

import java.time.Instant;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import mintshelf.app.store.AtCommit;
import mintshelf.app.store.Times;
import org.jooq.Condition;
import org.jooq.DSLContext;
import org.jooq.Record;
import org.jooq.impl.DSL;
import org.springframework.stereotype.Repository;

/** Typed links between documents. */
@Repository
public class LinkStore {
    private static final short MARK = 1;

    private final DSLContext db;
    private final AtCommit<Long> captures = new AtCommit<>(this::captureAll);

    public LinkStore(DSLContext db) {
        this.db = db;
    }

    /** What a link says, read from the one that has it to its target. */
    public enum Kind {
        SHOWS("shows", "shown on"),
        MADE_FROM("made from", "made into"),
        DESCRIBES("describes", "described by"),
        EVIDENCE("evidence for", "has evidence in"),
        STARTED_FROM("started from", "starting point of"),
        DERIVED_FROM("derived from", "derived to");

        private final String words;
        private final String backwards;

        Kind(String words, String backwards) {
            this.words = words;
            this.backwards = backwards;
        }

        public String words() {
            return words;
        }

        /** The same, read from the target. */
        public String backwards() {
            return backwards;
        }
    }

    /**
     * A link.
     *
     * @param captured number of the target's version that the link was last held against, by content
     * @param latest number of the target's latest version, by content
     * @param byNumber whether it was found by the equal number, not drawn by hand
     */
    public record Link(
            long id,
            long item,
            Kind kind,
            long target,
            int captured,
            int capturedNumber,
            int latest,
            boolean byNumber) {
        /** Whether the target has moved on since. */
        public boolean isBehind() {
            return captured < latest;
        }
    }

    /** Draws a link; one that is there already stays as it is. */
    public void add(long item, Kind kind, long target, boolean byNumber, long person, Instant now) {
        db.insertInto(ITEM_LINK)
                .set(ITEM_LINK.ITEM, item)
                .set(ITEM_LINK.KIND, kind.name())
                .set(ITEM_LINK.TARGET, target)
                .set(
                        ITEM_LINK.CAPTURED,
                        DSL.select(LINE.HEAD_VERSION).from(LINE).where(LINE.ITEM.eq(target), LINE.MAIN_MARK.eq(MARK)))
                .set(ITEM_LINK.FOUND_BY, byNumber ? "NUMBER" : "HAND")
                .set(ITEM_LINK.PERSON, person)
                .set(ITEM_LINK.AT, Times.utc(now))
                .onDuplicateKeyUpdate()
                .set(ITEM_LINK.ID, ITEM_LINK.ID)
                .execute();
    }

    /** As {@link #add}, held against a version of the target that need not be its latest. */
    public void addAt(long item, Kind kind, long target, long version, long person, Instant now) {
        add(item, kind, target, false, person, now);
        db.update(ITEM_LINK)
                .set(ITEM_LINK.CAPTURED, version)
                .where(ITEM_LINK.ITEM.eq(item), ITEM_LINK.KIND.eq(kind.name()), ITEM_LINK.TARGET.eq(target))
                .execute();
    }

    /** Holds a link against a version of its target from now on. */
    public void holdAgainst(long id, long version) {
        db.update(ITEM_LINK)
                .set(ITEM_LINK.CAPTURED, version)
                .where(ITEM_LINK.ID.eq(id))
                .execute();
    }

    /** What a document was derived from; of several the first. */
    public Optional<Link> origin(long item) {
        return links(ITEM_LINK.ITEM.eq(item).and(ITEM_LINK.KIND.eq(Kind.DERIVED_FROM.name()))).stream()
                .findFirst();
    }

    /** What documents were derived from, by document; of several the first. */
    public Map<Long, Long> origins(Collection<Long> items) {
        Map<Long, Long> origins = new HashMap<>();
        if (items.isEmpty()) return origins;
        db.select(ITEM_LINK.ITEM, ITEM_LINK.TARGET)
                .from(ITEM_LINK)
                .where(ITEM_LINK.ITEM.in(items), ITEM_LINK.KIND.eq(Kind.DERIVED_FROM.name()))
                .orderBy(ITEM_LINK.ID)
                .forEach(row -> origins.putIfAbsent(row.value1(), row.value2()));
        return origins;
    }

    public boolean remove(long id) {
        return db.deleteFrom(ITEM_LINK).where(ITEM_LINK.ID.eq(id)).execute() > 0;
    }

    /**
     * Holds the links of a document against the versions of their targets that are the latest when the transaction ends; not those to what it
     * began from: that goes its own way, and is taken up by an act of its own.
     */
    public void capture(long item) {
        captures.add(item);
    }

    private void captureAll(List<Long> items) {
        db.execute(
                "update item_link k join line l on l.item = k.target and l.main_mark = 1 set k.captured = l.head_version"
                        + " where k.kind not in ('DERIVED_FROM', 'STARTED_FROM') and {0}",
                DSL.field("k.item", Long.class)
                        .in(items.stream().sorted().distinct().toList()));
    }

    public Optional<Link> link(long id) {
        return links(ITEM_LINK.ID.eq(id)).stream().findFirst();
    }

    /** The links of documents and those that lead to them. */
    public List<Link> around(Collection<Long> items) {
        return links(ITEM_LINK.ITEM.in(items).or(ITEM_LINK.TARGET.in(items)));
    }

    /** A sheet and the model that it shows. */
    public record Shown(long item, long target) {}

    /** Which sheets show which models, of those named on either side: all there are. */
    public List<Shown> shown(Collection<Long> items) {
        if (items.isEmpty()) return List.of();
        return db.select(ITEM_LINK.ITEM, ITEM_LINK.TARGET)
                .from(ITEM_LINK)
                .where(ITEM_LINK.KIND.eq(Kind.SHOWS.name()))
                .and(ITEM_LINK.ITEM.in(items).or(ITEM_LINK.TARGET.in(items)))
                .fetch(row -> new Shown(row.value1(), row.value2()));
    }

    /** A document that belongs to another one. */
    public record Belongs(long item, Kind kind, long target) {}

    /** Which sheets show these, and which papers describe them: all there are. */
    public List<Belongs> belonging(Collection<Long> targets) {
        if (targets.isEmpty()) return List.of();
        return db.select(ITEM_LINK.ITEM, ITEM_LINK.KIND, ITEM_LINK.TARGET)
                .from(ITEM_LINK)
                .where(ITEM_LINK.TARGET.in(targets))
                .and(ITEM_LINK.KIND.in(Kind.SHOWS.name(), Kind.DESCRIBES.name()))
                .orderBy(ITEM_LINK.ID)
                .fetch(row -> new Belongs(row.value1(), Kind.valueOf(row.value2()), row.value3()));
    }

    private List<Link> links(Condition which) {
        var captured = VERSION.as("captured_v");
        var substance = VERSION.as("substance_v");
        var head = VERSION.as("head_v");
        var headSubstance = VERSION.as("head_substance_v");
        return db.select(ITEM_LINK.fields())
                .select(captured.NUMBER, substance.NUMBER, head.NUMBER, headSubstance.NUMBER)
                .from(ITEM_LINK)
                .join(captured)
                .on(captured.ID.eq(ITEM_LINK.CAPTURED))
                .leftJoin(substance)
                .on(substance.ID.eq(captured.SUBSTANCE))
                .join(LINE)
                .on(LINE.ITEM.eq(ITEM_LINK.TARGET), LINE.MAIN_MARK.eq(MARK))
                .join(head)
                .on(head.ID.eq(LINE.HEAD_VERSION))
                .leftJoin(headSubstance)
                .on(headSubstance.ID.eq(head.SUBSTANCE))
                .where(which)
                .orderBy(ITEM_LINK.KIND, ITEM_LINK.ID)
                .limit(500)
                .fetch((Record row) -> new Link(
                        row.get(ITEM_LINK.ID),
                        row.get(ITEM_LINK.ITEM),
                        Kind.valueOf(row.get(ITEM_LINK.KIND)),
                        row.get(ITEM_LINK.TARGET),
                        Optional.ofNullable(row.get(substance.NUMBER)).orElse(row.get(captured.NUMBER)),
                        row.get(captured.NUMBER),
                        Optional.ofNullable(row.get(headSubstance.NUMBER)).orElse(row.get(head.NUMBER)),
                        row.get(ITEM_LINK.FOUND_BY).equals("NUMBER")));
    }

    /** Other documents that bear the same number now, as an aspect of the same thing. */
    public List<Long> sameNumber(long item) {
        var mine = NUMBER_CLAIM.as("mine");
        return db.select(NUMBER_CLAIM.ITEM)
                .from(mine)
                .join(NUMBER_CLAIM)
                .on(
                        NUMBER_CLAIM.NUMBER_KEY.eq(mine.NUMBER_KEY),
                        NUMBER_CLAIM.ITEM.ne(mine.ITEM),
                        NUMBER_CLAIM.CURRENT_MARK.eq(MARK))
                .join(ITEM)
                .on(ITEM.ID.eq(NUMBER_CLAIM.ITEM), ITEM.DROPPED_AT.isNull())
                .where(mine.ITEM.eq(item), mine.CURRENT_MARK.eq(MARK))
                .fetch(NUMBER_CLAIM.ITEM);
    }

    /** The aspect of a document: DRAWING, MODEL, PAPER or PART. */
    public String aspect(long item) {
        return db.select(ITEM.ASPECT).from(ITEM).where(ITEM.ID.eq(item)).fetchSingle(ITEM.ASPECT);
    }
}
