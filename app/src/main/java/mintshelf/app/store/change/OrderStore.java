package mintshelf.app.store.change;

import static mintshelf.database.schema.Tables.CHANGE_ORDER;
import static mintshelf.database.schema.Tables.ITEM;
import static mintshelf.database.schema.Tables.ORDER_LINE;
import static mintshelf.database.schema.Tables.PERSON;
import static mintshelf.database.schema.Tables.REVISION;

import java.time.Instant;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import mintshelf.app.store.Prepared;
import mintshelf.app.store.Times;
import mintshelf.app.store.document.Visible;
import mintshelf.core.access.Access;
import mintshelf.core.change.OrderLine;
import org.jooq.DSLContext;
import org.jooq.Record;
import org.jooq.impl.DSL;
import org.springframework.stereotype.Repository;

/** Change orders and their lines. */
@Repository
public class OrderStore {
    private static final short MARK = 1;
    private final DSLContext db;
    private final Prepared open =
            new Prepared((db, items) -> db.select(ORDER_LINE.ITEM, ORDER_LINE.CHANGE_ORDER, ITEM.NUMBER)
                    .from(ORDER_LINE)
                    .join(ITEM)
                    .on(ITEM.ID.eq(ORDER_LINE.CHANGE_ORDER))
                    .where(ORDER_LINE.OPEN_MARK.eq(MARK), ORDER_LINE.ITEM.in(items)));

    public OrderStore(DSLContext db) {
        this.db = db;
    }

    /**
     * An order.
     *
     * @param item the paper's own id
     * @param notice id of the notice that it made
     */
    public record Order(
            long item, String reason, Optional<Long> notice, Optional<Instant> carriedOutAt, String endedWhy) {}

    /** The order that a document is on: its id and number. */
    public record On(long order, String number, Optional<Long> notice) {}

    public void add(long item, String reason) {
        db.insertInto(CHANGE_ORDER)
                .set(CHANGE_ORDER.ITEM, item)
                .set(CHANGE_ORDER.REASON, reason)
                .execute();
    }

    /** Puts a document on an order; the database refuses one that is on an open order. */
    public void addLine(long order, int position, long item, OrderLine.What what, String reason, Optional<Long> from) {
        db.insertInto(ORDER_LINE)
                .set(ORDER_LINE.CHANGE_ORDER, order)
                .set(ORDER_LINE.POSITION, position)
                .set(ORDER_LINE.ITEM, item)
                .set(ORDER_LINE.WHAT, what.name())
                .set(ORDER_LINE.REASON, reason)
                .set(ORDER_LINE.FROM_REVISION, from.orElse(null))
                .set(ORDER_LINE.OPEN_MARK, MARK)
                .execute();
    }

    public void setReason(long order, String reason) {
        db.update(CHANGE_ORDER)
                .set(CHANGE_ORDER.REASON, reason)
                .where(CHANGE_ORDER.ITEM.eq(order))
                .execute();
    }

    public void setLineReason(long line, String reason) {
        db.update(ORDER_LINE)
                .set(ORDER_LINE.REASON, reason)
                .where(ORDER_LINE.ID.eq(line))
                .execute();
    }

    public void removeLine(long line) {
        db.deleteFrom(ORDER_LINE).where(ORDER_LINE.ID.eq(line)).execute();
    }

    /** Work on a line has started: this revision is what the order releases. */
    public void setTo(long line, long revision) {
        db.update(ORDER_LINE)
                .set(ORDER_LINE.TO_REVISION, revision)
                .where(ORDER_LINE.ID.eq(line))
                .execute();
    }

    /** Ends an order: its documents are free for the next one. */
    public void end(long order, Optional<Long> notice, String why, Instant now) {
        db.update(CHANGE_ORDER)
                .set(CHANGE_ORDER.NOTICE, notice.orElse(null))
                .set(CHANGE_ORDER.CARRIED_OUT_AT, notice.isPresent() ? Times.utc(now) : null)
                .set(CHANGE_ORDER.ENDED_WHY, why.isEmpty() ? null : why)
                .where(CHANGE_ORDER.ITEM.eq(order))
                .execute();
        db.update(ORDER_LINE)
                .setNull(ORDER_LINE.OPEN_MARK)
                .where(ORDER_LINE.CHANGE_ORDER.eq(order))
                .execute();
    }

    public Optional<Order> order(long item) {
        return Optional.ofNullable(orders(List.of(item)).get(item));
    }

    /** Orders by id; one statement. */
    public Map<Long, Order> orders(Collection<Long> items) {
        if (items.isEmpty()) return Map.of();
        return db.selectFrom(CHANGE_ORDER)
                .where(CHANGE_ORDER.ITEM.in(items))
                .fetchMap(
                        CHANGE_ORDER.ITEM,
                        row -> new Order(
                                row.getItem(),
                                row.getReason(),
                                Optional.ofNullable(row.getNotice()),
                                Optional.ofNullable(row.getCarriedOutAt()).map(Times::instant),
                                Optional.ofNullable(row.getEndedWhy()).orElse("")));
    }

    /** The order that made a notice. */
    public Optional<Long> ofNotice(long notice) {
        return db.select(CHANGE_ORDER.ITEM)
                .from(CHANGE_ORDER)
                .where(CHANGE_ORDER.NOTICE.eq(notice))
                .limit(1)
                .fetchOptional(CHANGE_ORDER.ITEM);
    }

    public List<OrderLine> lines(long order) {
        return lines(List.of(order)).getOrDefault(order, List.of());
    }

    /** The lines of orders, in their order; one statement. */
    public Map<Long, List<OrderLine>> lines(Collection<Long> orders) {
        if (orders.isEmpty()) return Map.of();
        return db.selectFrom(ORDER_LINE)
                .where(ORDER_LINE.CHANGE_ORDER.in(orders))
                .orderBy(ORDER_LINE.CHANGE_ORDER, ORDER_LINE.POSITION, ORDER_LINE.ID)
                .fetchGroups(ORDER_LINE.CHANGE_ORDER, OrderStore::line);
    }

    private static OrderLine line(Record row) {
        return new OrderLine(
                row.get(ORDER_LINE.ID),
                row.get(ORDER_LINE.POSITION),
                row.get(ORDER_LINE.ITEM),
                OrderLine.What.valueOf(row.get(ORDER_LINE.WHAT)),
                row.get(ORDER_LINE.REASON),
                Optional.ofNullable(row.get(ORDER_LINE.FROM_REVISION)),
                Optional.ofNullable(row.get(ORDER_LINE.TO_REVISION)));
    }

    /** The open order of each of the documents that is on one; one statement. */
    public Map<Long, On> open(Collection<Long> items) {
        if (items.isEmpty()) return Map.of();
        Map<Long, On> on = new HashMap<>();
        for (Record row : open.fetch(db, items)) {
            on.put(
                    row.get(ORDER_LINE.ITEM),
                    new On(row.get(ORDER_LINE.CHANGE_ORDER), row.get(ITEM.NUMBER), Optional.empty()));
        }
        return on;
    }

    /** The orders that a document was or is on, the latest first. */
    public List<On> of(long document, int most) {
        return db.select(ORDER_LINE.CHANGE_ORDER, ITEM.NUMBER, CHANGE_ORDER.NOTICE)
                .from(ORDER_LINE)
                .join(CHANGE_ORDER)
                .on(CHANGE_ORDER.ITEM.eq(ORDER_LINE.CHANGE_ORDER))
                .join(ITEM)
                .on(ITEM.ID.eq(ORDER_LINE.CHANGE_ORDER))
                .where(ORDER_LINE.ITEM.eq(document))
                .orderBy(ORDER_LINE.CHANGE_ORDER.desc())
                .limit(most)
                .fetch(row -> new On(row.value1(), row.value2(), Optional.ofNullable(row.value3())));
    }

    /** The numbers of the orders that revisions were made on, by revision; one statement. */
    public Map<Long, String> numbers(Collection<Long> revisions) {
        if (revisions.isEmpty()) return Map.of();
        return db.select(ORDER_LINE.TO_REVISION, DSL.min(ITEM.NUMBER))
                .from(ORDER_LINE)
                .join(ITEM)
                .on(ITEM.ID.eq(ORDER_LINE.CHANGE_ORDER))
                .where(ORDER_LINE.TO_REVISION.in(revisions))
                .groupBy(ORDER_LINE.TO_REVISION)
                .fetchMap(row -> row.value1(), row -> row.value2());
    }

    /** Whether an order names the revision. */
    public boolean names(long revision) {
        return db.fetchExists(ORDER_LINE, ORDER_LINE.TO_REVISION.eq(revision));
    }

    /** Orders that a person may see, the latest first. */
    public List<Long> visible(Access access, long before, int most) {
        return db.select(ITEM.ID)
                .from(CHANGE_ORDER)
                .join(ITEM)
                .on(ITEM.ID.eq(CHANGE_ORDER.ITEM), ITEM.DROPPED_AT.isNull())
                .where(Visible.to(access), ITEM.ID.lt(before))
                .orderBy(ITEM.ID.desc())
                .limit(most)
                .fetch(ITEM.ID);
    }

    /** Orders that a person opened and that have not ended, the latest first. */
    public List<Long> openOf(long person, int most) {
        return db.select(ITEM.ID)
                .from(CHANGE_ORDER)
                .join(ITEM)
                .on(ITEM.ID.eq(CHANGE_ORDER.ITEM), ITEM.DROPPED_AT.isNull())
                .where(ITEM.AUTHOR.eq(person), CHANGE_ORDER.CARRIED_OUT_AT.isNull(), CHANGE_ORDER.ENDED_WHY.isNull())
                .orderBy(ITEM.ID.desc())
                .limit(most)
                .fetch(ITEM.ID);
    }

    /**
     * An order that was asked for and whose work nobody has started or stopped.
     *
     * @param by who asked for it
     */
    public record Asked(long item, String by, Instant at) {}

    /** The latest orders whose work waits to be started. */
    public List<Asked> asked(int most) {
        return db.select(ITEM.ID, PERSON.NAME, ITEM.CREATED_AT)
                .from(CHANGE_ORDER)
                .join(ITEM)
                .on(ITEM.ID.eq(CHANGE_ORDER.ITEM), ITEM.DROPPED_AT.isNull())
                .join(PERSON)
                .on(PERSON.ID.eq(ITEM.AUTHOR))
                .where(CHANGE_ORDER.CARRIED_OUT_AT.isNull(), CHANGE_ORDER.ENDED_WHY.isNull())
                .andNotExists(DSL.selectOne()
                        .from(ORDER_LINE)
                        .where(ORDER_LINE.CHANGE_ORDER.eq(CHANGE_ORDER.ITEM), ORDER_LINE.TO_REVISION.isNotNull()))
                .orderBy(ITEM.ID.desc())
                .limit(most)
                .fetch(row -> new Asked(row.value1(), row.value2(), Times.instant(row.value3())));
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
