package mintshelf.app.page;

import jakarta.validation.ConstraintViolationException;
import java.sql.SQLException;
import java.sql.SQLNonTransientConnectionException;
import java.sql.SQLTransientConnectionException;
import java.util.Optional;
import java.util.Set;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.Refused;
import mintshelf.core.base.Refusal;
import org.springframework.dao.DuplicateKeyException;
import org.springframework.http.HttpStatus;
import org.springframework.http.converter.HttpMessageNotReadableException;
import org.springframework.web.ErrorResponse;
import org.springframework.web.bind.ServletRequestBindingException;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.method.annotation.MethodArgumentTypeMismatchException;
import org.springframework.web.servlet.resource.NoResourceFoundException;

/**
 * What is answered when something goes another way than it should: one place for pages and for programs.
 *
 * @param ours whether the server is at fault, not who asked: only then the log keeps where
 */
public record Fault(HttpStatus status, Refusal refusal, boolean ours) {
    /** What the database says of data that does not fit: too long, of other letters, out of range. */
    private static final Set<Integer> DATA = Set.of(1264, 1267, 1292, 1366, 1406, 1525, 3988);

    /** What an exception means to who asked. */
    public static Fault of(Exception e) {
        if (e instanceof Refused refused) return of(refused.refusal());
        if (e instanceof NotThere || e instanceof NoResourceFoundException) return NOT_THERE;
        if (e instanceof MethodArgumentTypeMismatchException mismatch) {
            // An address with letters for a number leads nowhere; a field with them is a bad request.
            boolean address = mismatch.getParameter().hasParameterAnnotation(PathVariable.class);
            return address ? NOT_THERE : BAD;
        }
        if (e instanceof ServletRequestBindingException
                || e instanceof HttpMessageNotReadableException
                || e instanceof ConstraintViolationException
                || e instanceof IllegalArgumentException) return BAD;
        if (e instanceof DuplicateKeyException) {
            return new Fault(
                    HttpStatus.CONFLICT,
                    Refusal.of(
                            "race.lost",
                            "Somebody else was a moment faster.",
                            "Look at it again; nothing of yours was changed."),
                    false);
        }
        if (e instanceof ErrorResponse known && known.getStatusCode().is4xxClientError()) {
            HttpStatus status = HttpStatus.valueOf(known.getStatusCode().value());
            if (status == HttpStatus.BAD_REQUEST) return BAD;
            return new Fault(
                    status,
                    Refusal.of(
                            "page.refused",
                            "That address does not take this.",
                            "Go back and try another way; nothing was changed."),
                    false);
        }
        if (sql(e).filter(s -> DATA.contains(s.getErrorCode())).isPresent()) return BAD;
        return new Fault(
                HttpStatus.INTERNAL_SERVER_ERROR,
                Refusal.of(
                        "server.fault",
                        "That did not work, by a fault of the server.",
                        "Nothing was changed. The fault was noted."),
                true);
    }

    private static final Fault NOT_THERE = new Fault(
            HttpStatus.NOT_FOUND,
            Refusal.of(
                    "page.none",
                    "There is nothing here for you.",
                    "It may have been dropped, or your roles do not reach it."),
            false);
    private static final Fault BAD = new Fault(
            HttpStatus.BAD_REQUEST,
            Refusal.of(
                    "request.bad",
                    "Something was missing in what was sent, or was not as it should be.",
                    "Load the page again; nothing was changed."),
            false);

    private static Fault of(Refusal refusal) {
        HttpStatus status = HttpStatus.CONFLICT;
        if (refusal.code().startsWith("access.")) status = HttpStatus.FORBIDDEN;
        if (refusal.code().equals("body.large")) status = HttpStatus.CONTENT_TOO_LARGE;
        if (refusal.code().endsWith(".busy")) status = HttpStatus.SERVICE_UNAVAILABLE;
        return new Fault(status, refusal, false);
    }

    /** Whether the database cannot be reached: it died, it is being started again, or too many wait for it. */
    public static boolean isDatabaseAway(Throwable e) {
        for (Throwable at = e; at != null && at.getCause() != at; at = at.getCause()) {
            if (at instanceof SQLTransientConnectionException || at instanceof SQLNonTransientConnectionException)
                return true;
            if (at instanceof SQLException sql
                    && sql.getSQLState() != null
                    && sql.getSQLState().startsWith("08")) return true;
        }
        return false;
    }

    private static Optional<SQLException> sql(Throwable e) {
        for (Throwable at = e; at != null && at.getCause() != at; at = at.getCause()) {
            if (at instanceof SQLException found) return Optional.of(found);
        }
        return Optional.empty();
    }
}
