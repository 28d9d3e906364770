package mintshelf.app.store;

import java.sql.PreparedStatement;
import java.sql.SQLException;
import java.util.Collections;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import java.util.stream.Collectors;
import org.jooq.DSLContext;
import org.jooq.Field;
import org.jooq.Table;

/** Rows written by one statement whose text is made once for each number of rows: for what every act writes. */
public final class Rows {
    private final String head;
    private final String row;
    private final String tail;
    private final Map<Integer, String> written = new ConcurrentHashMap<>();

    private Rows(Table<?> table, List<Field<?>> columns, String tail) {
        this.head = columns.stream()
                .map(c -> quoted(c.getName()))
                .collect(Collectors.joining(", ", "insert into " + quoted(table.getName()) + " (", ") values "));
        this.row = "(" + String.join(", ", Collections.nCopies(columns.size(), "?")) + ")";
        this.tail = tail;
    }

    /** Rows of a table; one that is there already is an error. */
    public static Rows added(Table<?> table, Field<?>... columns) {
        return new Rows(table, List.of(columns), "");
    }

    /** Rows of a table; of one that is there already {@code moved} is taken over. */
    public static Rows kept(Table<?> table, List<Field<?>> moved, Field<?>... columns) {
        return new Rows(
                table,
                List.of(columns),
                moved.stream()
                        .map(c -> quoted(c.getName()) + " = values(" + quoted(c.getName()) + ")")
                        .collect(Collectors.joining(", ", " on duplicate key update ", "")));
    }

    private static String quoted(String name) {
        return "`" + name + "`";
    }

    /** Writes rows, values in the order of the columns; null for nothing. */
    public void write(DSLContext db, List<Object[]> rows) {
        if (rows.isEmpty()) return;
        String sql =
                written.computeIfAbsent(rows.size(), n -> head + String.join(", ", Collections.nCopies(n, row)) + tail);
        db.connection(connection -> {
            try (PreparedStatement statement = connection.prepareStatement(sql)) {
                int at = 1;
                for (Object[] values : rows) for (Object value : values) statement.setObject(at++, value);
                statement.executeUpdate();
            } catch (SQLException e) {
                throw Prepared.told(sql, e);
            }
        });
    }
}
