package mintshelf.app.page;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.net.URI;
import java.time.Clock;
import java.time.ZoneId;
import java.util.Map;
import java.util.Optional;
import mintshelf.app.effect.RefusedAccess;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.Refused;
import mintshelf.core.base.Refusal;
import mintshelf.core.base.Texts;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.dao.DataAccessException;
import org.springframework.http.HttpStatus;
import org.springframework.ui.ExtendedModelMap;
import org.springframework.web.bind.annotation.ControllerAdvice;
import org.springframework.web.bind.annotation.ExceptionHandler;
import org.springframework.web.context.request.async.AsyncRequestNotUsableException;
import org.springframework.web.servlet.ModelAndView;
import tools.jackson.databind.json.JsonMapper;

/** Words what cannot be done: what happened, what was kept, what to do next. Never a stack trace. */
@ControllerAdvice
public class Refusals {
    private static final Logger LOG = LoggerFactory.getLogger(Refusals.class);
    private final Actors actors;
    private final Frame frame;
    private final Clock clock;
    private final JsonMapper json;
    private final RefusedAccess refusedAccess;

    public Refusals(Actors actors, Frame frame, Clock clock, JsonMapper json, RefusedAccess refusedAccess) {
        this.refusedAccess = refusedAccess;
        this.json = json;
        this.actors = actors;
        this.frame = frame;
        this.clock = clock;
    }

    @ExceptionHandler(Exception.class)
    ModelAndView answer(Exception e, HttpServletRequest request, HttpServletResponse response) throws Exception {
        if (response.isCommitted() || e instanceof AsyncRequestNotUsableException) {
            LOG.debug("{} {} broke off", request.getMethod(), request.getRequestURI());
            return null;
        }
        if (e instanceof IOException) throw e; // the connection is gone
        if (Fault.isDatabaseAway(e)) throw e; // answered outermost, where no session is needed
        Fault fault = Fault.of(e);
        if (fault.ours()) LOG.error("{} {} failed", request.getMethod(), request.getRequestURI(), e);
        else if (!(e instanceof Refused || e instanceof NotThere)) {
            LOG.info("{} {}: {}", request.getMethod(), Texts.line(request.getRequestURI()), fault.status());
        }
        if (e instanceof Refused refused) note(refused.refusal(), request);
        response.resetBuffer();
        if (fault.status() == HttpStatus.SERVICE_UNAVAILABLE) response.setHeader("Retry-After", "10");
        if (Problem.isAsked(request)) {
            Problem.write(response, json, fault.status().value(), fault.refusal());
            return null;
        }
        return page(fault.refusal(), fault.status(), request, response);
    }

    /** Who tries what their roles do not let them is in the record. */
    private void note(Refusal refusal, HttpServletRequest request) {
        if (!refusal.code().startsWith("access.")) return;
        Actor actor = actors.of(request);
        if (actor == null) return;
        try {
            refusedAccess.note(actor, request.getMethod(), request.getRequestURI(), refusal);
        } catch (DataAccessException e) {
            // The refusal is answered all the same.
            LOG.warn("A refused access was not noted: {}", e.toString());
        }
    }

    private ModelAndView page(
            Refusal refusal, HttpStatus status, HttpServletRequest request, HttpServletResponse response) {
        response.setStatus(status.value());
        boolean part = request.getHeader("HX-Request") != null;
        ModelAndView view = new ModelAndView(part ? "refusal :: part" : "refusal");
        if (actors.of(request) != null) {
            var model = new ExtendedModelMap();
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
