package mintshelf.app.store;

import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.BiFunction;
import org.jooq.DSLContext;
import org.jooq.Field;
import org.jooq.Record;
import org.jooq.Select;
import org.springframework.dao.DataAccessException;
import org.springframework.jdbc.UncategorizedSQLException;
import org.springframework.jdbc.support.SQLExceptionSubclassTranslator;
import org.springframework.transaction.support.TransactionSynchronizationManager;

/**
 * A statement over a list of ids, which come last in it, written once for each length of the list: of what is asked in every act
 * the writing costs more than the answer. Lists are filled up to a power of two with their last id, so that there are few lengths.
 */
public final class Prepared {
    /** Ids of one statement. */
    private static final int MOST = 512;

    private static final SQLExceptionSubclassTranslator ERRORS = new SQLExceptionSubclassTranslator();

    private final BiFunction<DSLContext, List<Long>, Select<?>> query;
    private final Map<Integer, Written> written = new ConcurrentHashMap<>();

    /** @param before what is bound before the ids */
    private record Written(String sql, List<Object> before, Field<?>[] fields) {}

    /** @param query gives the statement for ids; the ids are its last values */
    public Prepared(BiFunction<DSLContext, List<Long>, Select<?>> query) {
        this.query = query;
    }

    /** Rows of the ids, in the statement's order within each few hundred of them. */
    public List<Record> fetch(DSLContext db, Collection<Long> ids) {
        List<Long> all = List.copyOf(ids);
        if (all.size() <= MOST) return some(db, all);
        List<List<Long>> portions = new ArrayList<>();
        for (int from = 0; from < all.size(); from += MOST) {
            portions.add(all.subList(from, Math.min(all.size(), from + MOST)));
        }
        // One portion is read while the database works on another; within a transaction there is one connection only.
        boolean alone = TransactionSynchronizationManager.isActualTransactionActive();
        return (alone ? portions.stream() : portions.parallelStream())
                .map(some -> some(db, some))
                .flatMap(List::stream)
                .toList();
    }

    private List<Record> some(DSLContext db, List<Long> ids) {
        if (ids.isEmpty()) return List.of();
        int length = ids.size() == 1 ? 1 : Integer.highestOneBit(ids.size() - 1) << 1;
        Written w = written.computeIfAbsent(length, n -> write(db, n));
        return db.connectionResult(connection -> {
            try (PreparedStatement statement = connection.prepareStatement(w.sql())) {
                int at = 1;
                for (Object value : w.before()) statement.setObject(at++, value);
                for (int i = 0; i < length; i++) statement.setLong(at++, ids.get(Math.min(i, ids.size() - 1)));
                try (ResultSet rows = statement.executeQuery()) {
                    return List.copyOf(db.fetch(rows, w.fields()));
                }
            } catch (SQLException e) {
                throw told(w.sql(), e);
            }
        });
    }

    /** As the other statements tell of their errors, so that what may be tried again is. */
    static DataAccessException told(String sql, SQLException e) {
        DataAccessException known = ERRORS.translate("prepared", sql, e);
        return Objects.requireNonNullElseGet(known, () -> new UncategorizedSQLException("prepared", sql, e));
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
