package mintshelf.app.store.outbox;

import static mintshelf.database.schema.Tables.DELIVERY;
import static mintshelf.database.schema.Tables.OUTBOX_EVENT;
import static mintshelf.database.schema.Tables.PERSON;

import java.time.Instant;
import java.util.Collection;
import java.util.List;
import java.util.Optional;
import mintshelf.app.store.Leased;
import mintshelf.app.store.Times;
import mintshelf.core.base.Texts;
import mintshelf.core.house.DistributionRule.Way;
import mintshelf.database.schema.tables.records.DeliveryRecord;
import org.jooq.DSLContext;
import org.jooq.impl.DSL;
import org.springframework.stereotype.Repository;

/** What happened and is told outside; written with the act, delivered from here at least once. */
@Repository
public class OutboxStore {
    private static final Leased<DeliveryRecord> WAITING = new Leased<>(
            DELIVERY.STATE.eq(State.WAITING.name()), DELIVERY.NEXT_AT, DELIVERY.LEASE_UNTIL, DELIVERY.TRIES);

    private final DSLContext db;

    public OutboxStore(DSLContext db) {
        this.db = db;
    }

    /** An event that carries a secret link: it is forgotten once it is sent. */
    public static final String INVITED = "person.invited";

    /** An event on its way to a person. */
    public record Delivery(
            long id,
            long event,
            Instant at,
            String code,
            Optional<Long> round,
            Optional<Long> item,
            Optional<Long> ask,
            String says,
            String to,
            long receiver,
            String byName,
            int tries,
            Way way) {}

    /** What became of a delivery. */
    public enum State {
        WAITING,
        SENT,
        /** Before it went out nobody needed it any more. */
        NEEDLESS,
        FAILED
    }

    /** How a delivery ended, as a round's trail shows it. */
    public record Told(long ask, long receiver, String name, State state, Optional<Instant> sentAt, String says) {}

    /** @param to the address of the page that the news leads to; empty where the round is */
    public long event(
            String code, Optional<Long> round, Optional<Long> item, long by, String says, String to, Instant now) {
        return db.insertInto(OUTBOX_EVENT)
                .set(OUTBOX_EVENT.AT, Times.utc(now))
                .set(OUTBOX_EVENT.CODE, code)
                .set(OUTBOX_EVENT.ROUND, round.orElse(null))
                .set(OUTBOX_EVENT.ITEM, item.orElse(null))
                .set(OUTBOX_EVENT.BY_PERSON, by)
                .set(OUTBOX_EVENT.SAYS, Texts.shorten(says, 1000))
                .set(OUTBOX_EVENT.TO_PAGE, to)
                .returningResult(OUTBOX_EVENT.ID)
                .fetchSingle()
                .value1();
    }

    /** Sends an event to a person by mail, by link; twice to the same one is once. */
    public void mail(long event, long receiver, Optional<Long> ask, Instant now) {
        mail(event, receiver, ask, Way.LINK, now);
    }

    /** As {@link #mail(long, long, Optional, Instant)}, with what goes with it. */
    public void mail(long event, long receiver, Optional<Long> ask, Way way, Instant now) {
        db.insertInto(DELIVERY)
                .set(DELIVERY.EVENT, event)
                .set(DELIVERY.CHANNEL, "MAIL")
                .set(DELIVERY.RECEIVER, receiver)
                .set(DELIVERY.ASK, ask.orElse(null))
                .set(DELIVERY.ENCLOSES, way.name())
                .set(DELIVERY.STATE, State.WAITING.name())
                .set(DELIVERY.NEXT_AT, Times.utc(now))
                .onDuplicateKeyUpdate()
                .set(DELIVERY.EVENT, event)
                .execute();
    }

    /** Takes the next delivery under a lease; a node that dies lets it go when the lease ends. */
    public Optional<Delivery> take(Instant now, Instant leaseUntil) {
        return WAITING.take(db, now, leaseUntil).map(this::delivery);
    }

    private Delivery delivery(DeliveryRecord waiting) {
        return db.select(OUTBOX_EVENT.fields())
                .select(PERSON.NAME)
                .from(OUTBOX_EVENT)
                .leftJoin(PERSON)
                .on(PERSON.ID.eq(OUTBOX_EVENT.BY_PERSON))
                .where(OUTBOX_EVENT.ID.eq(waiting.getEvent()))
                .fetchSingle(row -> new Delivery(
                        waiting.getId(),
                        waiting.getEvent(),
                        Times.instant(row.get(OUTBOX_EVENT.AT)),
                        row.get(OUTBOX_EVENT.CODE),
                        Optional.ofNullable(row.get(OUTBOX_EVENT.ROUND)),
                        Optional.ofNullable(row.get(OUTBOX_EVENT.ITEM)),
                        Optional.ofNullable(waiting.getAsk()),
                        row.get(OUTBOX_EVENT.SAYS),
                        row.get(OUTBOX_EVENT.TO_PAGE),
                        waiting.getReceiver(),
                        Optional.ofNullable(row.get(PERSON.NAME)).orElse("Mint Shelf"),
                        waiting.getTries(),
                        Way.valueOf(waiting.getEncloses())));
    }

    /** Takes what else is due for the receiver of a delivery, under the same lease; what others have is passed over. */
    public List<Delivery> takeAlso(Delivery first, Instant now, Instant leaseUntil, int most) {
        List<DeliveryRecord> also = db.selectFrom(DELIVERY)
                .where(
                        DELIVERY.STATE.eq(State.WAITING.name()),
                        DELIVERY.RECEIVER.eq(first.receiver()),
                        DELIVERY.NEXT_AT.le(Times.utc(now)),
                        DELIVERY.LEASE_UNTIL.isNull().or(DELIVERY.LEASE_UNTIL.lt(Times.utc(now))),
                        DELIVERY.EVENT.notIn(
                                DSL.select(OUTBOX_EVENT.ID).from(OUTBOX_EVENT).where(OUTBOX_EVENT.CODE.eq(INVITED))))
                .orderBy(DELIVERY.ID)
                .limit(most)
                .forUpdate()
                .skipLocked()
                .fetch();
        if (also.isEmpty()) return List.of();
        db.update(DELIVERY)
                .set(DELIVERY.LEASE_UNTIL, Times.utc(leaseUntil))
                .set(DELIVERY.TRIES, DELIVERY.TRIES.plus(1))
                .where(DELIVERY.ID.in(also.stream().map(DeliveryRecord::getId).toList()))
                .execute();
        return also.stream().map(this::delivery).toList();
    }

    public void sent(long delivery, Instant now) {
        db.update(DELIVERY)
                .set(DELIVERY.STATE, State.SENT.name())
                .set(DELIVERY.SENT_AT, Times.utc(now))
                .setNull(DELIVERY.LEASE_UNTIL)
                .where(DELIVERY.ID.eq(delivery))
                .execute();
        db.update(OUTBOX_EVENT)
                .set(OUTBOX_EVENT.TO_PAGE, "")
                .where(
                        OUTBOX_EVENT.CODE.eq(INVITED),
                        OUTBOX_EVENT.ID.eq(
                                DSL.select(DELIVERY.EVENT).from(DELIVERY).where(DELIVERY.ID.eq(delivery))))
                .execute();
    }

    /** Ends a delivery that nobody needs any more, or that cannot be made. */
    public void giveUp(long delivery, boolean needless, String says) {
        db.update(DELIVERY)
                .set(DELIVERY.STATE, (needless ? State.NEEDLESS : State.FAILED).name())
                .set(DELIVERY.SAYS, Texts.shorten(says, 300))
                .setNull(DELIVERY.LEASE_UNTIL)
                .where(DELIVERY.ID.eq(delivery))
                .execute();
    }

    /** Lets mails that failed since a moment wait again; how many. */
    public int again(Instant since, Instant now) {
        return db.update(DELIVERY)
                .set(DELIVERY.STATE, State.WAITING.name())
                .set(DELIVERY.TRIES, 0)
                .set(DELIVERY.NEXT_AT, Times.utc(now))
                .where(
                        DELIVERY.STATE.eq(State.FAILED.name()),
                        DELIVERY.NEXT_AT.gt(Times.utc(since)),
                        // The link of an invitation is forgotten once it is sent: a new one is made on the person's
                        // card.
                        DELIVERY.EVENT.notIn(DSL.select(OUTBOX_EVENT.ID)
                                .from(OUTBOX_EVENT)
                                .where(OUTBOX_EVENT.CODE.eq(INVITED), OUTBOX_EVENT.TO_PAGE.eq(""))))
                .execute();
    }

    /**
     * A mail that went out came back.
     *
     * @param events of which it told; none where it told of more than its identification can name
     * @return how many deliveries it held, 0 when that was known
     */
    public int bounced(long receiver, Collection<Long> events, String says) {
        return db.update(DELIVERY)
                .set(DELIVERY.STATE, State.FAILED.name())
                .set(DELIVERY.SAYS, Texts.shorten(says, 300))
                .where(DELIVERY.RECEIVER.eq(receiver), DELIVERY.EVENT.in(events), DELIVERY.STATE.eq(State.SENT.name()))
                .execute();
    }

    public void later(long delivery, Instant nextAt, String says) {
        db.update(DELIVERY)
                .set(DELIVERY.NEXT_AT, Times.utc(nextAt))
                .set(DELIVERY.SAYS, Texts.shorten(says, 300))
                .setNull(DELIVERY.LEASE_UNTIL)
                .where(DELIVERY.ID.eq(delivery))
                .execute();
    }

    /** Lets a delivery that was taken wait for something, without counting it as a try. */
    public void wait(long delivery, Instant nextAt) {
        db.update(DELIVERY)
                .set(DELIVERY.NEXT_AT, Times.utc(nextAt))
                .set(DELIVERY.TRIES, DELIVERY.TRIES.minus(1))
                .setNull(DELIVERY.LEASE_UNTIL)
                .where(DELIVERY.ID.eq(delivery))
                .execute();
    }

    /** Who was told of asks by mail, and whether it went out. */
    public List<Told> told(Collection<Long> asks) {
        if (asks.isEmpty()) return List.of();
        return db.select(DELIVERY.ASK, DELIVERY.RECEIVER, PERSON.NAME, DELIVERY.STATE, DELIVERY.SENT_AT, DELIVERY.SAYS)
                .from(DELIVERY)
                .join(PERSON)
                .on(PERSON.ID.eq(DELIVERY.RECEIVER))
                .where(DELIVERY.ASK.in(asks))
                .orderBy(DELIVERY.ID)
                .fetch(row -> new Told(
                        row.value1(),
                        row.value2(),
                        row.value3(),
                        State.valueOf(row.value4()),
                        Optional.ofNullable(row.value5()).map(Times::instant),
                        row.value6()));
    }
}
