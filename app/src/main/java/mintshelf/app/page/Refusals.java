package mintshelf.app.page;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.net.URI;
import java.time.Clock;
import java.time.ZoneId;
import java.util.Map;
import java.util.Optional;
import mintshelf.app.use.NotThere;
import mintshelf.app.use.Refused;
import mintshelf.core.base.Refusal;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.dao.DuplicateKeyException;
import org.springframework.http.HttpStatus;
import org.springframework.web.bind.MissingServletRequestParameterException;
import org.springframework.web.bind.annotation.ControllerAdvice;
import org.springframework.web.bind.annotation.ExceptionHandler;
import org.springframework.web.method.annotation.MethodArgumentTypeMismatchException;
import org.springframework.web.servlet.ModelAndView;
import org.springframework.web.servlet.resource.NoResourceFoundException;

/** Words what cannot be done: what happened, what was kept, what to do next. Never a stack trace. */
@ControllerAdvice
public class Refusals {
    private static final Logger LOG = LoggerFactory.getLogger(Refusals.class);
    private final Actors actors;
    private final Frame frame;
    private final Clock clock;

    public Refusals(Actors actors, Frame frame, Clock clock) {
        this.actors = actors;
        this.frame = frame;
        this.clock = clock;
    }

    @ExceptionHandler(Refused.class)
    ModelAndView refused(Refused e, HttpServletRequest request, HttpServletResponse response) {
        HttpStatus status = e.refusal().code().startsWith("access.") ? HttpStatus.FORBIDDEN : HttpStatus.CONFLICT;
        return page(e.refusal(), status, request, response);
    }

    @ExceptionHandler({NotThere.class, NoResourceFoundException.class, MethodArgumentTypeMismatchException.class})
    ModelAndView notThere(HttpServletRequest request, HttpServletResponse response) {
        return page(
                Refusal.of(
                        "page.none",
                        "There is nothing here for you.",
                        "It may have been dropped, or your roles do not reach it."),
                HttpStatus.NOT_FOUND,
                request,
                response);
    }

    @ExceptionHandler({MissingServletRequestParameterException.class, IllegalArgumentException.class})
    ModelAndView incomplete(HttpServletRequest request, HttpServletResponse response) {
        return page(
                Refusal.of(
                        "page.incomplete",
                        "Something was missing in what the page sent.",
                        "Load the page again; nothing was changed."),
                HttpStatus.BAD_REQUEST,
                request,
                response);
    }

    @ExceptionHandler(DuplicateKeyException.class)
    ModelAndView taken(HttpServletRequest request, HttpServletResponse response) {
        return page(
                Refusal.of(
                        "race.lost",
                        "Somebody else was a moment faster.",
                        "Look at it again; nothing of yours was changed."),
                HttpStatus.CONFLICT,
                request,
                response);
    }

    @ExceptionHandler(Exception.class)
    ModelAndView broken(Exception e, HttpServletRequest request, HttpServletResponse response) throws Exception {
        if (e instanceof org.springframework.web.ErrorResponse known) {
            return page(
                    Refusal.of(
                            "page.refused",
                            "That address does not take this.",
                            "Go back and try another way; nothing was changed."),
                    HttpStatus.valueOf(known.getStatusCode().value()),
                    request,
                    response);
        }
        if (response.isCommitted() || e instanceof java.io.IOException) throw e;
        LOG.error("{} {} failed", request.getMethod(), request.getRequestURI(), e);
        return page(
                Refusal.of(
                        "server.fault",
                        "That did not work, by a fault of the server.",
                        "Nothing was changed. The fault was noted."),
                HttpStatus.INTERNAL_SERVER_ERROR,
                request,
                response);
    }

    private ModelAndView page(
            Refusal refusal, HttpStatus status, HttpServletRequest request, HttpServletResponse response) {
        response.setStatus(status.value());
        boolean part = request.getHeader("HX-Request") != null;
        ModelAndView view = new ModelAndView(part ? "refusal :: part" : "refusal");
        if (actors.of(request) != null) {
            var model = new org.springframework.ui.ExtendedModelMap();
            frame.add(request, model);
            view.addAllObjects(model);
        } else {
            view.addObject("w", new Words(ZoneId.of("UTC"), clock.instant()));
        }
        view.addAllObjects(Map.of("refusal", refusal, "back", back(request).orElse("/today")));
        return view;
    }

    /** The page before, when it was one of ours. */
    private static Optional<String> back(HttpServletRequest request) {
        String referer = request.getHeader("Referer");
        if (referer == null) return Optional.empty();
        try {
            URI uri = URI.create(referer);
            if (!request.getServerName().equals(uri.getHost())) return Optional.empty();
            return Optional.of(uri.getRawPath() + (uri.getRawQuery() == null ? "" : "?" + uri.getRawQuery()));
        } catch (IllegalArgumentException e) {
            return Optional.empty();
        }
    }
}
