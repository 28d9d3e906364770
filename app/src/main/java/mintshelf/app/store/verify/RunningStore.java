package mintshelf.app.store.verify;

import static mintshelf.database.schema.Tables.BACKUP_TAKEN;
import static mintshelf.database.schema.Tables.CONTENT;
import static mintshelf.database.schema.Tables.DELIVERY;
import static mintshelf.database.schema.Tables.HOLD;
import static mintshelf.database.schema.Tables.ITEM;
import static mintshelf.database.schema.Tables.OUTPUT;
import static mintshelf.database.schema.Tables.PERSON;
import static mintshelf.database.schema.Tables.ROUND;
import static mintshelf.database.schema.Tables.RUN;
import static mintshelf.database.schema.Tables.SHELF;
import static mintshelf.database.schema.Tables.VERSION;
import static mintshelf.database.schema.Tables.VERSION_FILE;

import java.math.BigDecimal;
import java.time.Instant;
import java.time.LocalDateTime;
import java.util.List;
import java.util.Optional;
import mintshelf.app.store.Times;
import org.jooq.Condition;
import org.jooq.DSLContext;
import org.jooq.Field;
import org.jooq.Record;
import org.jooq.Table;
import org.jooq.impl.DSL;
import org.springframework.stereotype.Repository;

/** How the server runs: what waits, what failed, how much is kept. Read only. */
@Repository
public class RunningStore {
    private final DSLContext db;

    public RunningStore(DSLContext db) {
        this.db = db;
    }

    /**
     * Work that is taken by whatever node is free.
     *
     * @param waiting how much of it waits
     * @param atWork how much of that a node has under a lease now
     * @param failed how much failed since the moment asked for
     * @param oldest since when the oldest waits
     * @param says why the latest failure failed; empty without one
     */
    public record Work(int waiting, int atWork, int failed, Optional<Instant> oldest, String says) {}

    /** Mails: failed since a moment. */
    public Work mails(Instant now, Instant since) {
        return work(
                DELIVERY,
                DELIVERY.STATE.eq("WAITING"),
                DELIVERY.STATE.eq("FAILED").and(DELIVERY.NEXT_AT.gt(Times.utc(since))),
                DELIVERY.LEASE_UNTIL,
                DELIVERY.NEXT_AT,
                DELIVERY.SAYS,
                now);
    }

    /** Outputs such as PDFs. */
    public Work outputs(Instant now) {
        return work(
                OUTPUT,
                OUTPUT.STATE.eq("WAITING"),
                OUTPUT.STATE.eq("FAILED"),
                OUTPUT.LEASE_UNTIL,
                OUTPUT.ASKED_AT,
                OUTPUT.SAYS,
                now);
    }

    /** Runs: stopped since a moment. */
    public Work runs(Instant now, Instant since) {
        return work(
                RUN,
                RUN.STATE.eq("WORKING"),
                RUN.STATE.eq("STOPPED").and(RUN.BEGUN_AT.gt(Times.utc(since))),
                RUN.LEASE_UNTIL,
                RUN.BEGUN_AT,
                RUN.SAYS,
                now);
    }

    private Work work(
            Table<?> table,
            Condition waits,
            Condition failed,
            Field<LocalDateTime> lease,
            Field<LocalDateTime> from,
            Field<String> says,
            Instant now) {
        Record row = db.select(
                        DSL.count().filterWhere(waits).as("waiting"),
                        DSL.count()
                                .filterWhere(waits.and(lease.gt(Times.utc(now))))
                                .as("at_work"),
                        DSL.min(from).filterWhere(waits).as("oldest"),
                        DSL.count().filterWhere(failed).as("failed"))
                .from(table)
                .where(waits.or(failed))
                .fetchSingle();
        String why = db.select(says)
                .from(table)
                .where(failed)
                .orderBy(from.desc())
                .limit(1)
                .fetchOptional(says)
                .orElse("");
        return new Work(
                row.get("waiting", Integer.class),
                row.get("at_work", Integer.class),
                row.get("failed", Integer.class),
                Optional.ofNullable(row.get("oldest", LocalDateTime.class)).map(Times::instant),
                why);
    }

    /** What stands on a shelf: documents, their versions, and the bytes of the files as they were sent. */
    public record Kept(String shelf, int documents, int versions, long bytes) {}

    /** By shelf, the largest first. O(versions). */
    public List<Kept> kept() {
        Field<BigDecimal> bytes = DSL.sum(CONTENT.SIZE);
        return db.select(SHELF.NAME, DSL.countDistinct(VERSION.ITEM), DSL.countDistinct(VERSION.ID), bytes)
                .from(VERSION)
                .join(ITEM)
                .on(ITEM.ID.eq(VERSION.ITEM))
                .join(SHELF)
                .on(SHELF.ID.eq(ITEM.SHELF))
                .join(VERSION_FILE)
                .on(VERSION_FILE.VERSION.eq(VERSION.ID))
                .join(CONTENT)
                .on(CONTENT.ID.eq(VERSION_FILE.CONTENT))
                .groupBy(SHELF.ID, SHELF.NAME)
                .orderBy(bytes.desc())
                .fetch(row -> new Kept(
                        row.value1(), row.value2(), row.value3(), row.value4().longValue()));
    }

    /** The bytes that the database takes on its disk, indexes and all. */
    public long database() {
        return db.fetchSingle("select coalesce(sum(data_length + index_length), 0) from information_schema.tables"
                        + " where table_schema = database()")
                .get(0, Long.class);
    }

    /** A backup that was written. */
    public record Backup(Instant at, String file, long size) {}

    public Optional<Backup> lastBackup() {
        return db.selectFrom(BACKUP_TAKEN)
                .orderBy(BACKUP_TAKEN.ID.desc())
                .limit(1)
                .fetchOptional(row -> new Backup(Times.instant(row.getAt()), row.getFileName(), row.getSize()));
    }

    /** Counts for the instruments of whoever watches the server. */
    public record Counts(int openRounds, int openHolds, int people, int signedIn) {}

    /** @param since who asked for a page after it is signed in and there */
    public Counts counts(Instant since) {
        return new Counts(
                db.fetchCount(ROUND, ROUND.OPEN_MARK.isNotNull()),
                db.fetchCount(HOLD, HOLD.OPEN_MARK.isNotNull()),
                db.fetchCount(PERSON, PERSON.LEFT_AT.isNull()),
                db.fetchSingle(
                                "select count(distinct principal_name) from SPRING_SESSION where last_access_time > ?",
                                since.toEpochMilli())
                        .get(0, Integer.class));
    }
}
