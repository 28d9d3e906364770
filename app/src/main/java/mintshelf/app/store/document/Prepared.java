package mintshelf.app.store.document;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.BiFunction;
import org.jooq.DSLContext;
import org.jooq.Field;
import org.jooq.Record;
import org.jooq.Select;

/**
 * A statement over a list of ids, which come last in it, written once for each length of the list: to write one of a hundred
 * columns anew costs more than to run it. Lists are filled up to a power of two with their last id, so that there are few lengths.
 */
final class Prepared {
    /** Ids of one statement. */
    static final int MOST = 512;

    private final BiFunction<DSLContext, List<Long>, Select<?>> query;
    private final Map<Integer, Written> written = new ConcurrentHashMap<>();

    /** @param before what is bound before the ids */
    private record Written(String sql, List<Object> before, Field<?>[] fields) {}

    /** @param query gives the statement for ids; the ids are its last values */
    Prepared(BiFunction<DSLContext, List<Long>, Select<?>> query) {
        this.query = query;
    }

    /** Rows of 1 to {@link #MOST} ids, in no order. */
    List<? extends Record> fetch(DSLContext db, List<Long> ids) {
        int length = ids.size() == 1 ? 1 : Integer.highestOneBit(ids.size() - 1) << 1;
        Written w = written.computeIfAbsent(length, n -> write(db, n));
        List<Object> values = new ArrayList<>(w.before());
        values.addAll(ids);
        for (int i = ids.size(); i < length; i++) values.add(ids.get(ids.size() - 1));
        return db.resultQuery(w.sql(), values.toArray()).coerce(w.fields()).fetch();
    }

    private Written write(DSLContext db, int length) {
        List<Long> ids = new ArrayList<>();
        for (long i = 0; i < length; i++) ids.add(i);
        Select<?> select = query.apply(db, ids);
        List<Object> values = select.getBindValues();
        return new Written(
                select.getSQL(),
                List.copyOf(values.subList(0, values.size() - length)),
                select.getSelect().toArray(Field<?>[]::new));
    }
}
