package mintshelf.app.api;

import mintshelf.app.use.NotThere;
import mintshelf.app.use.Refused;
import org.springframework.core.Ordered;
import org.springframework.core.annotation.Order;
import org.springframework.dao.DuplicateKeyException;
import org.springframework.http.HttpStatus;
import org.springframework.http.ProblemDetail;
import org.springframework.http.converter.HttpMessageNotReadableException;
import org.springframework.web.bind.MissingServletRequestParameterException;
import org.springframework.web.bind.annotation.ExceptionHandler;
import org.springframework.web.bind.annotation.RestControllerAdvice;
import org.springframework.web.method.annotation.MethodArgumentTypeMismatchException;

/** What cannot be done, as problems after RFC 9457: with the refusal's code, its reason and its remedy. */
@RestControllerAdvice(assignableTypes = {DocumentApi.class, DeskApi.class})
@Order(Ordered.HIGHEST_PRECEDENCE)
class Problems {
    private static ProblemDetail problem(HttpStatus status, String code, String reason, String remedy) {
        ProblemDetail problem = ProblemDetail.forStatusAndDetail(status, reason);
        problem.setProperty("code", code);
        problem.setProperty("remedy", remedy);
        return problem;
    }

    @ExceptionHandler(Refused.class)
    ProblemDetail refused(Refused e) {
        HttpStatus status = e.refusal().code().startsWith("access.") ? HttpStatus.FORBIDDEN : HttpStatus.CONFLICT;
        return problem(
                status, e.refusal().code(), e.refusal().reason(), e.refusal().remedy());
    }

    @ExceptionHandler({NotThere.class, MethodArgumentTypeMismatchException.class})
    ProblemDetail notThere() {
        return problem(HttpStatus.NOT_FOUND, "not.there", "There is nothing here for you.", "");
    }

    @ExceptionHandler({
        HttpMessageNotReadableException.class,
        MissingServletRequestParameterException.class,
        IllegalArgumentException.class
    })
    ProblemDetail unreadable() {
        return problem(
                HttpStatus.BAD_REQUEST,
                "request.bad",
                "The request is not as its description says.",
                "See /api/v1/openapi.json; nothing was changed.");
    }

    @ExceptionHandler(DuplicateKeyException.class)
    ProblemDetail race() {
        return problem(
                HttpStatus.CONFLICT, "race.lost", "Somebody else was a moment faster.", "Ask again how it stands.");
    }
}
