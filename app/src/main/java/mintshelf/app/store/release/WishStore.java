package mintshelf.app.store.release;

import static mintshelf.database.schema.Tables.PERSON;
import static mintshelf.database.schema.Tables.RELEASE_WISH;
import static mintshelf.database.schema.Tables.RELEASE_WISH_ITEM;

import java.time.Instant;
import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Optional;
import java.util.OptionalLong;
import mintshelf.app.store.Leased;
import mintshelf.app.store.Rows;
import mintshelf.app.store.Times;
import mintshelf.core.base.Texts;
import mintshelf.database.schema.tables.records.ReleaseWishRecord;
import org.jooq.Condition;
import org.jooq.DSLContext;
import org.jooq.impl.DSL;
import org.springframework.stereotype.Repository;

/** Releases that were asked for before they were open. */
@Repository
public class WishStore {
    private static final short MARK = 1;
    private static final Rows ITEMS = Rows.added(
            RELEASE_WISH_ITEM,
            RELEASE_WISH_ITEM.WISH,
            RELEASE_WISH_ITEM.POSITION,
            RELEASE_WISH_ITEM.ITEM,
            RELEASE_WISH_ITEM.ASKED,
            RELEASE_WISH_ITEM.READY_VERSION,
            RELEASE_WISH_ITEM.OPEN_MARK);
    private static final Leased<ReleaseWishRecord> WAITING = new Leased<>(
            RELEASE_WISH.STATE.eq("WAITING"), RELEASE_WISH.NEXT_AT, RELEASE_WISH.LEASE_UNTIL, RELEASE_WISH.TRIES);

    private final DSLContext db;

    public WishStore(DSLContext db) {
        this.db = db;
    }

    /**
     * A document that was to move.
     *
     * @param asked whether it was asked for itself
     * @param ready the version at which it was ready; none where something was in its way
     */
    public record Item(long item, boolean asked, Optional<Integer> ready) {}

    /**
     * A release that waits, or did.
     *
     * @param named what it releases: "TG40-1000 and 2 more"
     * @param tries how often it was looked at
     */
    public record Wish(
            long id,
            long person,
            String personName,
            String named,
            String remark,
            Instant at,
            String state,
            String why,
            int tries) {
        public boolean waits() {
            return state.equals("WAITING");
        }
    }

    public long add(long person, String named, String remark, List<Item> items, Instant now) {
        long id = db.insertInto(RELEASE_WISH)
                .set(RELEASE_WISH.PERSON, person)
                .set(RELEASE_WISH.NAMED, Texts.shorten(named, 200))
                .set(RELEASE_WISH.REMARK, remark)
                .set(RELEASE_WISH.ASKED_AT, Times.utc(now))
                .set(RELEASE_WISH.STATE, "WAITING")
                .set(RELEASE_WISH.ENDED_WHY, "")
                .set(RELEASE_WISH.NEXT_AT, Times.utc(now))
                .set(RELEASE_WISH.TRIES, 0)
                .returningResult(RELEASE_WISH.ID)
                .fetchSingle()
                .value1();
        List<Object[]> values = new ArrayList<>();
        for (Item item : items) {
            values.add(new Object[] {
                id, values.size(), item.item(), item.asked(), item.ready().orElse(null), MARK
            });
        }
        ITEMS.write(db, values);
        return id;
    }

    /** Takes the next that waits, those of others passed over. */
    public Optional<Long> take(Instant now, Instant leaseUntil) {
        return WAITING.take(db, now, leaseUntil).map(ReleaseWishRecord::getId);
    }

    /** Lets it wait until another moment. */
    public void wait(long wish, Instant until) {
        db.update(RELEASE_WISH)
                .set(RELEASE_WISH.NEXT_AT, Times.utc(until))
                .setNull(RELEASE_WISH.LEASE_UNTIL)
                .where(RELEASE_WISH.ID.eq(wish), RELEASE_WISH.STATE.eq("WAITING"))
                .execute();
    }

    /** Whether it waits still, locked so until the transaction ends. */
    public boolean locked(long wish) {
        return db.select(RELEASE_WISH.STATE)
                .from(RELEASE_WISH)
                .where(RELEASE_WISH.ID.eq(wish))
                .forUpdate()
                .fetchOptional(RELEASE_WISH.STATE)
                .filter("WAITING"::equals)
                .isPresent();
    }

    /** Ends it; whether it waited until now. */
    public boolean end(long wish, String state, OptionalLong by, String why, Instant now) {
        boolean ended = db.update(RELEASE_WISH)
                        .set(RELEASE_WISH.STATE, state)
                        .set(RELEASE_WISH.ENDED_AT, Times.utc(now))
                        .set(RELEASE_WISH.ENDED_BY, by.isPresent() ? by.getAsLong() : null)
                        .set(RELEASE_WISH.ENDED_WHY, why)
                        .setNull(RELEASE_WISH.LEASE_UNTIL)
                        .where(RELEASE_WISH.ID.eq(wish), RELEASE_WISH.STATE.eq("WAITING"))
                        .execute()
                == 1;
        if (ended) {
            db.update(RELEASE_WISH_ITEM)
                    .setNull(RELEASE_WISH_ITEM.OPEN_MARK)
                    .where(RELEASE_WISH_ITEM.WISH.eq(wish))
                    .execute();
        }
        return ended;
    }

    public Optional<Wish> wish(long id) {
        return wishes(RELEASE_WISH.ID.eq(id), 1).stream().findFirst();
    }

    public List<Item> items(long wish) {
        return db.selectFrom(RELEASE_WISH_ITEM)
                .where(RELEASE_WISH_ITEM.WISH.eq(wish))
                .orderBy(RELEASE_WISH_ITEM.POSITION)
                .fetch(row -> new Item(row.getItem(), row.getAsked(), Optional.ofNullable(row.getReadyVersion())));
    }

    /** Those that wait for one of the documents which was asked for, the oldest first. */
    public List<Wish> waiting(Collection<Long> items) {
        if (items.isEmpty()) return List.of();
        return wishes(
                RELEASE_WISH.ID.in(DSL.select(RELEASE_WISH_ITEM.WISH)
                        .from(RELEASE_WISH_ITEM)
                        .where(
                                RELEASE_WISH_ITEM.ITEM.in(items),
                                RELEASE_WISH_ITEM.OPEN_MARK.eq(MARK),
                                RELEASE_WISH_ITEM.ASKED.isTrue())),
                20);
    }

    /** Those of a person that wait. */
    public List<Wish> waitingOf(long person) {
        return wishes(RELEASE_WISH.PERSON.eq(person).and(RELEASE_WISH.STATE.eq("WAITING")), 100);
    }

    private List<Wish> wishes(Condition which, int most) {
        return db.select(RELEASE_WISH.fields())
                .select(PERSON.NAME)
                .from(RELEASE_WISH)
                .join(PERSON)
                .on(PERSON.ID.eq(RELEASE_WISH.PERSON))
                .where(which)
                .orderBy(RELEASE_WISH.ID)
                .limit(most)
                .fetch(row -> new Wish(
                        row.get(RELEASE_WISH.ID),
                        row.get(RELEASE_WISH.PERSON),
                        row.get(PERSON.NAME),
                        row.get(RELEASE_WISH.NAMED),
                        row.get(RELEASE_WISH.REMARK),
                        Times.instant(row.get(RELEASE_WISH.ASKED_AT)),
                        row.get(RELEASE_WISH.STATE),
                        row.get(RELEASE_WISH.ENDED_WHY),
                        row.get(RELEASE_WISH.TRIES)));
    }
}
