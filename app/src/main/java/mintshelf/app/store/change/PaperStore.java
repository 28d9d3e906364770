package mintshelf.app.store.change;

import static mintshelf.database.schema.Tables.ITEM;
import static mintshelf.database.schema.Tables.ORDER_REQUEST;
import static mintshelf.database.schema.Tables.PAPER;
import static mintshelf.database.schema.Tables.PAPER_LINE;
import static mintshelf.database.schema.Tables.REVISION;
import static mintshelf.database.schema.Tables.VERSION;

import java.time.Instant;
import java.time.LocalDate;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import mintshelf.app.store.Prepared;
import mintshelf.app.store.Times;
import mintshelf.app.store.document.Visible;
import mintshelf.core.access.Access;
import mintshelf.core.change.Effective;
import mintshelf.core.change.PaperLine;
import mintshelf.core.change.PaperType;
import mintshelf.core.change.Priority;
import org.jooq.DSLContext;
import org.jooq.InsertSetMoreStep;
import org.jooq.Record;
import org.jooq.impl.DSL;
import org.springframework.stereotype.Repository;

/** Papers of change, requests and orders, and their lines. */
@Repository
public class PaperStore {
    /** The first of the open orders on a document: its gates and its work go by that one. */
    private static final short FIRST = 1;

    private final DSLContext db;
    private final Prepared open = new Prepared((db, items) -> db.select(PAPER_LINE.ITEM, PAPER_LINE.PAPER, ITEM.NUMBER)
            .from(PAPER_LINE)
            .join(ITEM)
            .on(ITEM.ID.eq(PAPER_LINE.PAPER))
            .where(PAPER_LINE.TURN.eq(FIRST), PAPER_LINE.ITEM.in(items)));

    public PaperStore(DSLContext db) {
        this.db = db;
    }

    /**
     * A request or an order.
     *
     * @param item the paper's own id
     * @param cause code of the reason that the house counts it under; empty for none
     * @param deferredUntil the day on which a deferred request comes back
     * @param notice id of the notice that it made
     * @param effective from when on what it changes counts
     */
    public record Paper(
            long item,
            PaperType type,
            String reason,
            String cause,
            Priority priority,
            Optional<LocalDate> deferredUntil,
            Optional<Long> notice,
            Optional<Instant> carriedOutAt,
            String endedWhy,
            Optional<Effective> effective) {}

    /** The order that a document is on: its id and number. */
    public record On(long order, String number) {}

    public void add(long item, PaperType type, String reason, String cause, Priority priority) {
        db.insertInto(PAPER)
                .set(PAPER.ITEM, item)
                .set(PAPER.TYPE, type.name())
                .set(PAPER.REASON, reason)
                .set(PAPER.CAUSE, cause)
                .set(PAPER.PRIORITY, priority.name())
                .execute();
    }

    /** Puts a document on an order, after those that are on it; the database refuses a turn that another order has. */
    public void addLine(
            long order, int position, long item, PaperLine.What what, String reason, Optional<Long> from, int turn) {
        line(order, position, item, what, reason, from)
                .set(PAPER_LINE.TURN, (short) turn)
                .execute();
    }

    /** Names a document on a request; any number of requests may. */
    public void nameLine(
            long request, int position, long item, PaperLine.What what, String reason, Optional<Long> from) {
        line(request, position, item, what, reason, from).execute();
    }

    private InsertSetMoreStep<?> line(
            long paper, int position, long item, PaperLine.What what, String reason, Optional<Long> from) {
        return db.insertInto(PAPER_LINE)
                .set(PAPER_LINE.PAPER, paper)
                .set(PAPER_LINE.POSITION, position)
                .set(PAPER_LINE.ITEM, item)
                .set(PAPER_LINE.WHAT, what.name())
                .set(PAPER_LINE.REASON, reason)
                .set(PAPER_LINE.FROM_REVISION, from.orElse(null));
    }

    /** What a paper says of itself, beside its lines. */
    public void set(long paper, String reason, String cause, Priority priority) {
        db.update(PAPER)
                .set(PAPER.REASON, reason)
                .set(PAPER.CAUSE, cause)
                .set(PAPER.PRIORITY, priority.name())
                .where(PAPER.ITEM.eq(paper))
                .execute();
    }

    /** The day on which a deferred request comes back; none where it is asked again. */
    public void defer(long request, Optional<LocalDate> until) {
        db.update(PAPER)
                .set(PAPER.DEFERRED_UNTIL, until.orElse(null))
                .where(PAPER.ITEM.eq(request))
                .execute();
    }

    /** Deferred requests whose day has come, the earliest first. */
    public List<Long> due(LocalDate today, int most) {
        return db.select(PAPER.ITEM)
                .from(PAPER)
                .where(PAPER.DEFERRED_UNTIL.le(today))
                .orderBy(PAPER.DEFERRED_UNTIL, PAPER.ITEM)
                .limit(most)
                .fetch(PAPER.ITEM);
    }

    /** Whether the new one of a line can take the place of the old one. */
    public void setInterchangeable(long line, boolean interchangeable) {
        db.update(PAPER_LINE)
                .set(PAPER_LINE.INTERCHANGEABLE, interchangeable)
                .where(PAPER_LINE.ID.eq(line))
                .execute();
    }

    public void setReason(long order, String reason) {
        db.update(PAPER).set(PAPER.REASON, reason).where(PAPER.ITEM.eq(order)).execute();
    }

    public void setLineReason(long line, String reason) {
        db.update(PAPER_LINE)
                .set(PAPER_LINE.REASON, reason)
                .where(PAPER_LINE.ID.eq(line))
                .execute();
    }

    /** Takes a line off; the orders that wait behind it on its document move up, and are given back. */
    public Set<Long> removeLine(PaperLine line) {
        db.deleteFrom(PAPER_LINE).where(PAPER_LINE.ID.eq(line.id())).execute();
        return line.turn() == 0 ? Set.of() : moveUp(List.of(line), false);
    }

    /** What happens to a line: it is revised, or it is withdrawn and this takes its place. */
    public void setWhat(long line, PaperLine.What what, Optional<Long> successor) {
        db.update(PAPER_LINE)
                .set(PAPER_LINE.WHAT, what.name())
                .set(PAPER_LINE.SUCCESSOR, successor.orElse(null))
                .where(PAPER_LINE.ID.eq(line))
                .execute();
    }

    public void setEffective(long paper, Optional<Effective> effective) {
        db.update(PAPER)
                .set(PAPER.EFFECTIVE_BY, effective.map(e -> e.by().name()).orElse(null))
                .set(PAPER.EFFECTIVE_FROM, effective.map(Effective::from).orElse(null))
                .where(PAPER.ITEM.eq(paper))
                .execute();
    }

    /** Work on a line has started: this revision is what the order releases. */
    public void setTo(long line, long revision) {
        db.update(PAPER_LINE)
                .set(PAPER_LINE.TO_REVISION, revision)
                .where(PAPER_LINE.ID.eq(line))
                .execute();
    }

    /** An order takes a request up; the database refuses one that another order has taken. */
    public void takeUp(long order, long request) {
        db.insertInto(ORDER_REQUEST)
                .set(ORDER_REQUEST.REQUEST, request)
                .set(ORDER_REQUEST.CHANGE_ORDER, order)
                .execute();
    }

    /**
     * Ends an order: its documents are free for the next one.
     *
     * @return the orders that waited for it on a document; where it was carried out they start from what it released
     */
    public Set<Long> end(long order, Optional<Long> notice, String why, Instant now) {
        List<PaperLine> lines = lines(order);
        db.update(PAPER)
                .set(PAPER.NOTICE, notice.orElse(null))
                .set(PAPER.CARRIED_OUT_AT, notice.isPresent() ? Times.utc(now) : null)
                .set(PAPER.ENDED_WHY, why.isEmpty() ? null : why)
                .where(PAPER.ITEM.eq(order))
                .execute();
        db.update(PAPER_LINE)
                .setNull(PAPER_LINE.TURN)
                .where(PAPER_LINE.PAPER.eq(order))
                .execute();
        if (notice.isEmpty()) {
            // Without its change: the requests may go on another one.
            db.deleteFrom(ORDER_REQUEST)
                    .where(ORDER_REQUEST.CHANGE_ORDER.eq(order))
                    .execute();
        }
        return moveUp(lines, notice.isPresent());
    }

    private Set<Long> moveUp(List<PaperLine> gone, boolean released) {
        Map<Long, PaperLine> of = new HashMap<>();
        gone.forEach(l -> of.put(l.item(), l));
        Set<Long> moved = new TreeSet<>();
        // In the order of their turns: the database never sees two with one turn.
        for (Record row : db.select(PAPER_LINE.ID, PAPER_LINE.PAPER, PAPER_LINE.ITEM, PAPER_LINE.TURN)
                .from(PAPER_LINE)
                .where(PAPER_LINE.ITEM.in(of.keySet()), PAPER_LINE.TURN.gt(FIRST))
                .orderBy(PAPER_LINE.ITEM, PAPER_LINE.TURN)
                .fetch()) {
            PaperLine before = of.get(row.get(PAPER_LINE.ITEM));
            short turn = row.get(PAPER_LINE.TURN);
            if (turn <= before.turn()) continue;
            var update = db.update(PAPER_LINE).set(PAPER_LINE.TURN, (short) (turn - 1));
            (released && before.toRevision().isPresent()
                            ? update.set(
                                    PAPER_LINE.FROM_REVISION,
                                    before.toRevision().get())
                            : update)
                    .where(PAPER_LINE.ID.eq(row.get(PAPER_LINE.ID)))
                    .execute();
            moved.add(row.get(PAPER_LINE.PAPER));
        }
        return moved;
    }

    /** The open orders that wait behind an order on one of its documents. */
    public List<Long> behind(long order) {
        var first = PAPER_LINE.as("first");
        return db.selectDistinct(PAPER_LINE.PAPER)
                .from(PAPER_LINE)
                .join(first)
                .on(first.ITEM.eq(PAPER_LINE.ITEM), first.TURN.lt(PAPER_LINE.TURN))
                .where(first.PAPER.eq(order))
                .orderBy(PAPER_LINE.PAPER)
                .fetch(PAPER_LINE.PAPER);
    }

    /** The paper of an item, whichever it is. */
    public Optional<Paper> paper(long item) {
        return Optional.ofNullable(papers(List.of(item)).get(item));
    }

    public Optional<Paper> order(long item) {
        return paper(item).filter(p -> p.type() == PaperType.ORDER);
    }

    public Optional<Paper> request(long item) {
        return paper(item).filter(p -> p.type() == PaperType.REQUEST);
    }

    /** Papers by id; one statement. */
    public Map<Long, Paper> papers(Collection<Long> items) {
        if (items.isEmpty()) return Map.of();
        return db.selectFrom(PAPER)
                .where(PAPER.ITEM.in(items))
                .fetchMap(
                        PAPER.ITEM,
                        row -> new Paper(
                                row.getItem(),
                                PaperType.valueOf(row.getType()),
                                row.getReason(),
                                row.getCause(),
                                Priority.valueOf(row.getPriority()),
                                Optional.ofNullable(row.getDeferredUntil()),
                                Optional.ofNullable(row.getNotice()),
                                Optional.ofNullable(row.getCarriedOutAt()).map(Times::instant),
                                Optional.ofNullable(row.getEndedWhy()).orElse(""),
                                effective(row.getEffectiveBy(), row.getEffectiveFrom())));
    }

    private static Optional<Effective> effective(String by, String from) {
        return Optional.ofNullable(by).map(b -> new Effective(Effective.By.valueOf(b), from));
    }

    /** The order that made a notice. */
    public Optional<Long> ofNotice(long notice) {
        return db.select(PAPER.ITEM)
                .from(PAPER)
                .where(PAPER.NOTICE.eq(notice))
                .limit(1)
                .fetchOptional(PAPER.ITEM);
    }

    public List<PaperLine> lines(long order) {
        return lines(List.of(order)).getOrDefault(order, List.of());
    }

    /** The lines of orders, in their order; one statement. */
    public Map<Long, List<PaperLine>> lines(Collection<Long> orders) {
        if (orders.isEmpty()) return Map.of();
        return db.selectFrom(PAPER_LINE)
                .where(PAPER_LINE.PAPER.in(orders))
                .orderBy(PAPER_LINE.PAPER, PAPER_LINE.POSITION, PAPER_LINE.ID)
                .fetchGroups(PAPER_LINE.PAPER, PaperStore::line);
    }

    private static PaperLine line(Record row) {
        return new PaperLine(
                row.get(PAPER_LINE.ID),
                row.get(PAPER_LINE.POSITION),
                row.get(PAPER_LINE.ITEM),
                PaperLine.What.valueOf(row.get(PAPER_LINE.WHAT)),
                row.get(PAPER_LINE.REASON),
                row.get(PAPER_LINE.INTERCHANGEABLE),
                Optional.ofNullable(row.get(PAPER_LINE.FROM_REVISION)),
                Optional.ofNullable(row.get(PAPER_LINE.TO_REVISION)),
                Optional.ofNullable(row.get(PAPER_LINE.SUCCESSOR)),
                Optional.ofNullable(row.get(PAPER_LINE.TURN))
                        .map(Short::intValue)
                        .orElse(0));
    }

    /** The open order whose turn it is on each of the documents that is on one; one statement. */
    public Map<Long, On> open(Collection<Long> items) {
        if (items.isEmpty()) return Map.of();
        Map<Long, On> on = new HashMap<>();
        for (Record row : open.fetch(db, items)) {
            on.put(row.get(PAPER_LINE.ITEM), new On(row.get(PAPER_LINE.PAPER), row.get(ITEM.NUMBER)));
        }
        return on;
    }

    /**
     * What an order does to a document, or did.
     *
     * @param label of the revision that it made or makes; empty where its work has not begun, and for one that is withdrawn
     * @param turn 1 where it is its turn, more where others go before it, 0 where it has ended
     * @param effective from when on it counts
     * @param why the reason of its line; mostly empty
     */
    public record Done(
            long order,
            Optional<Long> notice,
            PaperLine.What what,
            String label,
            int turn,
            Optional<Effective> effective,
            String why) {}

    /** The orders that a document was or is on, the latest first. */
    public List<Done> of(long document, int most) {
        return db.select(PAPER_LINE.PAPER, PAPER.NOTICE, PAPER_LINE.WHAT, REVISION.LABEL, PAPER_LINE.TURN)
                .select(PAPER.EFFECTIVE_BY, PAPER.EFFECTIVE_FROM, PAPER_LINE.REASON)
                .from(PAPER_LINE)
                .join(PAPER)
                .on(PAPER.ITEM.eq(PAPER_LINE.PAPER))
                .leftJoin(REVISION)
                .on(REVISION.ID.eq(PAPER_LINE.TO_REVISION))
                .where(PAPER_LINE.ITEM.eq(document), PAPER.TYPE.eq(PaperType.ORDER.name()))
                .orderBy(PAPER_LINE.PAPER.desc())
                .limit(most)
                .fetch(row -> new Done(
                        row.get(PAPER_LINE.PAPER),
                        Optional.ofNullable(row.get(PAPER.NOTICE)),
                        PaperLine.What.valueOf(row.get(PAPER_LINE.WHAT)),
                        Optional.ofNullable(row.get(REVISION.LABEL)).orElse(""),
                        Optional.ofNullable(row.get(PAPER_LINE.TURN))
                                .map(Short::intValue)
                                .orElse(0),
                        effective(row.get(PAPER.EFFECTIVE_BY), row.get(PAPER.EFFECTIVE_FROM)),
                        row.get(PAPER_LINE.REASON)));
    }

    /** The numbers of papers, by id. */
    public Map<Long, String> numbers(Collection<Long> papers) {
        if (papers.isEmpty()) return Map.of();
        return db.select(ITEM.ID, ITEM.NUMBER)
                .from(ITEM)
                .where(ITEM.ID.in(papers))
                .fetchMap(row -> row.value1(), row -> row.value2());
    }

    /** The numbers of the orders that revisions were made on, by revision; one statement. */
    public Map<Long, String> ofRevisions(Collection<Long> revisions) {
        if (revisions.isEmpty()) return Map.of();
        return db.select(PAPER_LINE.TO_REVISION, DSL.min(ITEM.NUMBER))
                .from(PAPER_LINE)
                .join(ITEM)
                .on(ITEM.ID.eq(PAPER_LINE.PAPER))
                .where(PAPER_LINE.TO_REVISION.in(revisions))
                .groupBy(PAPER_LINE.TO_REVISION)
                .fetchMap(row -> row.value1(), row -> row.value2());
    }

    /** Whether an order names the revision. */
    public boolean names(long revision) {
        return db.fetchExists(PAPER_LINE, PAPER_LINE.TO_REVISION.eq(revision));
    }

    /** Orders that a person may see, the latest first. */
    public List<Long> visible(Access access, long before, int most) {
        return db.select(ITEM.ID)
                .from(PAPER)
                .join(ITEM)
                .on(ITEM.ID.eq(PAPER.ITEM), ITEM.DROPPED_AT.isNull())
                .where(Visible.to(access), ITEM.ID.lt(before), PAPER.TYPE.eq(PaperType.ORDER.name()))
                .orderBy(ITEM.ID.desc())
                .limit(most)
                .fetch(ITEM.ID);
    }

    /** The numbers of the versions with which revisions were released, by revision; those that never were are left out. */
    public Map<Long, Integer> releasedWith(Collection<Long> revisions) {
        if (revisions.isEmpty()) return Map.of();
        return db.select(REVISION.ID, VERSION.NUMBER)
                .from(REVISION)
                .join(VERSION)
                .on(VERSION.ID.eq(REVISION.RELEASED_VERSION))
                .where(REVISION.ID.in(revisions))
                .fetchMap(row -> row.value1(), row -> row.value2());
    }

    /** The labels of revisions, by id. */
    public Map<Long, String> labels(Collection<Long> revisions) {
        if (revisions.isEmpty()) return Map.of();
        return db.select(REVISION.ID, REVISION.LABEL)
                .from(REVISION)
                .where(REVISION.ID.in(revisions))
                .fetchMap(row -> row.value1(), row -> row.value2() == null ? "–" : row.value2());
    }
}
