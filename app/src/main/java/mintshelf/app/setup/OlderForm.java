package mintshelf.app.setup;

import java.sql.Connection;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.Optional;
import org.flywaydb.core.Flyway;
import org.springframework.boot.diagnostics.AbstractFailureAnalyzer;
import org.springframework.boot.diagnostics.FailureAnalysis;

/** The database has the form of another Mint Shelf, which is not carried over. It is told in words, and left as it is. */
public final class OlderForm extends RuntimeException {
    private static final String HISTORY = "flyway_schema_history";

    private OlderForm(String by) {
        super("Its migration " + by + " is none of this one's");
    }

    /** Whether a database has such a form; asks, and changes nothing. */
    public static boolean isThatOf(String url, String user, String password) {
        return strange(Flyway.configure().dataSource(url, user, password).load())
                .isPresent();
    }

    /** Refuses a database to which something was done that is none of the migrations that are here; asks, and changes nothing. */
    public static void refuse(Flyway flyway) {
        strange(flyway).ifPresent(script -> {
            throw new OlderForm(script);
        });
    }

    private static Optional<String> strange(Flyway flyway) {
        try (Connection connection = flyway.getConfiguration().getDataSource().getConnection();
                ResultSet tables = connection.getMetaData().getTables(connection.getCatalog(), null, HISTORY, null)) {
            if (!tables.next()) return Optional.empty();
            try (Statement statement = connection.createStatement();
                    ResultSet done = statement.executeQuery(
                            "select script from " + HISTORY + " where success = 1 order by installed_rank")) {
                while (done.next()) {
                    String script = done.getString(1);
                    if (OlderForm.class.getResource("/db/migration/" + script) == null) return Optional.of(script);
                }
                return Optional.empty();
            }
        } catch (SQLException e) {
            throw new IllegalStateException("The form of the database cannot be asked for", e);
        }
    }

    /** Says it at the start instead of a trace. */
    public static final class Analyzer extends AbstractFailureAnalyzer<OlderForm> {
        @Override
        protected FailureAnalysis analyze(Throwable root, OlderForm cause) {
            return new FailureAnalysis(
                    "The database was made by another Mint Shelf: one from before the first release, or a newer one. "
                            + cause.getMessage()
                            + ". Nothing in it was changed.",
                    "Start with an empty database, and keep the old one for the Mint Shelf that made it.",
                    cause);
        }
    }
}
