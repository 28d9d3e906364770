package mintshelf.app.setup;

import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import mintshelf.app.page.Fault;
import mintshelf.app.page.Problem;
import mintshelf.core.base.Refusal;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.core.Ordered;
import org.springframework.core.annotation.Order;
import org.springframework.stereotype.Component;
import org.springframework.web.filter.OncePerRequestFilter;
import tools.jackson.databind.json.JsonMapper;

/**
 * While the database does not answer, requests are answered in words that need none, and pages try again by themselves. Outermost, for
 * sessions lie in the database too.
 */
@Component
@Order(Ordered.HIGHEST_PRECEDENCE)
class DatabaseAway extends OncePerRequestFilter {
    private static final Logger LOG = LoggerFactory.getLogger(DatabaseAway.class);
    private static final Refusal AWAY = Refusal.of(
            "database.away",
            "The shelf's database does not answer at this moment.",
            "It is started again by itself; what was acknowledged is there.");

    private final JsonMapper json;

    DatabaseAway(JsonMapper json) {
        this.json = json;
    }

    @Override
    protected void doFilterInternal(HttpServletRequest request, HttpServletResponse response, FilterChain chain)
            throws ServletException, IOException {
        try {
            chain.doFilter(request, response);
        } catch (ServletException | RuntimeException e) {
            if (response.isCommitted() || !Fault.isDatabaseAway(e)) throw e;
            LOG.warn("{} {}: the database does not answer", request.getMethod(), request.getRequestURI());
            response.reset();
            response.setHeader("Retry-After", "5");
            if (Problem.isAsked(request)) {
                Problem.write(response, json, 503, AWAY);
                return;
            }
            response.setStatus(503);
            response.setContentType("text/html;charset=UTF-8");
            // Only looking is tried again by itself; whether an act was done, its page says when it is sent again.
            if (request.getMethod().equals("GET")) response.setHeader("Refresh", "5");
            String again = request.getMethod().equals("GET")
                    ? "This page tries again by itself."
                    : "Send it again in a moment.";
            response.getOutputStream()
                    .write(
                            ("<!DOCTYPE html><html lang=\"en\"><head><meta charset=\"utf-8\"><title>Mint Shelf</title></head><body><h1>"
                                            + AWAY.reason() + "</h1><p>" + AWAY.remedy() + " " + again
                                            + "</p></body></html>")
                                    .getBytes(StandardCharsets.UTF_8));
        }
    }
}
