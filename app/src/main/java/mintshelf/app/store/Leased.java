package mintshelf.app.store;

import java.time.Instant;
import java.time.LocalDateTime;
import java.util.List;
import java.util.Optional;
import java.util.stream.IntStream;
import org.jooq.Condition;
import org.jooq.DSLContext;
import org.jooq.Field;
import org.jooq.TableField;
import org.jooq.UpdatableRecord;
import org.jooq.impl.DSL;

/**
 * Rows of a table that wait for a worker, whatever node it runs on: the one that waits longest is taken under a lease, those of other
 * workers are passed over, and a worker that dies lets its row go when the lease ends.
 *
 * @param waiting what makes a row wait
 * @param from the moment from which it waits
 * @param lease until when it is somebody's
 * @param tries how often it was taken
 */
public record Leased<R extends UpdatableRecord<R>>(
        Condition waiting,
        TableField<R, LocalDateTime> from,
        TableField<R, LocalDateTime> lease,
        TableField<R, Integer> tries) {

    /** Takes the next row, as it stood before it was taken; in the caller's transaction. */
    public Optional<R> take(DSLContext db, Instant now, Instant until) {
        LocalDateTime at = Times.utc(now);
        Optional<R> next = db.selectFrom(from.getTable())
                .where(waiting, from.le(at), lease.isNull().or(lease.lt(at)))
                .orderBy(from, from.getTable().getPrimaryKey().getFields().get(0))
                .limit(1)
                .forUpdate()
                .skipLocked()
                .fetchOptional();
        next.ifPresent(row -> db.update(from.getTable())
                .set(lease, Times.utc(until))
                .set(tries, tries.plus(1))
                .where(is(row))
                .execute());
        return next;
    }

    private Condition is(R row) {
        List<TableField<R, ?>> key = from.getTable().getPrimaryKey().getFields();
        return DSL.and(IntStream.range(0, key.size())
                .mapToObj(i -> same(key.get(i), row))
                .toList());
    }

    private static <R extends UpdatableRecord<R>, T> Condition same(Field<T> field, R row) {
        return field.eq(row.get(field));
    }
}
