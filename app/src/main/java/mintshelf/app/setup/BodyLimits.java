package mintshelf.app.setup;

import jakarta.servlet.FilterChain;
import jakarta.servlet.ReadListener;
import jakarta.servlet.ServletException;
import jakarta.servlet.ServletInputStream;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletRequestWrapper;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.Set;
import mintshelf.app.ground.CountedInput;
import mintshelf.app.ground.Refused;
import mintshelf.app.page.Problem;
import mintshelf.core.base.Numbers;
import mintshelf.core.base.Refusal;
import org.springframework.core.Ordered;
import org.springframework.core.annotation.Order;
import org.springframework.stereotype.Component;
import org.springframework.web.filter.OncePerRequestFilter;
import tools.jackson.databind.json.JsonMapper;

/**
 * How much a request may bring: little where nobody need sign in, a form where a form is sent, a list of files where programs ask. Uploads
 * are streamed and have limits of their own. Counted while it is read, for a length is only a promise.
 */
@Component
@Order(Ordered.HIGHEST_PRECEDENCE + 10)
class BodyLimits extends OncePerRequestFilter {
    private static final Set<String> OPEN = Set.of("/sign-in", "/first-start", "/api/v1/pairings");
    private static final long OPEN_MOST = 64 << 10;
    private static final long FORM_MOST = 8L << 20;
    private static final long LIST_MOST = 64L << 20;

    private final JsonMapper json;

    BodyLimits(JsonMapper json) {
        this.json = json;
    }

    @Override
    protected void doFilterInternal(HttpServletRequest request, HttpServletResponse response, FilterChain chain)
            throws ServletException, IOException {
        String path = request.getRequestURI();
        boolean upload = request.getMethod().equals("PUT") && path.contains("/uploads/");
        boolean brings = !Set.of("GET", "HEAD", "OPTIONS").contains(request.getMethod());
        if (upload || !brings) {
            chain.doFilter(request, response);
            return;
        }
        long most = OPEN.contains(path) || path.startsWith("/invitations/")
                ? OPEN_MOST
                : path.startsWith("/api/") ? LIST_MOST : FORM_MOST;
        if (request.getContentLengthLong() > most) {
            refuse(request, response, tooLarge(most));
            return;
        }
        String type = request.getContentType();
        if (type != null && type.startsWith("application/x-www-form-urlencoded")) {
            try {
                request.getParameterMap();
            } catch (IllegalStateException e) {
                refuse(
                        request,
                        response,
                        Refusal.of(
                                "body.fields",
                                "The form brings too many fields, or too much in them.",
                                "Do it in portions; nothing was changed."));
                return;
            }
        }
        chain.doFilter(new Counted(request, most), response);
    }

    private static Refusal tooLarge(long most) {
        return Refusal.of(
                "body.large",
                "More was sent than the " + Numbers.size(most) + " that are taken here.",
                "Do it in portions; nothing was changed.");
    }

    private void refuse(HttpServletRequest request, HttpServletResponse response, Refusal refusal) throws IOException {
        response.setHeader("Connection", "close"); // the rest of the body is not waited for
        if (Problem.isAsked(request)) {
            Problem.write(response, json, 413, refusal);
            return;
        }
        response.setStatus(413);
        response.setContentType("text/plain;charset=UTF-8");
        response.getOutputStream().write(refusal.says().getBytes(StandardCharsets.UTF_8));
    }

    private static final class Counted extends HttpServletRequestWrapper {
        private final long most;

        Counted(HttpServletRequest request, long most) {
            super(request);
            this.most = most;
        }

        @Override
        public ServletInputStream getInputStream() throws IOException {
            ServletInputStream in = super.getInputStream();
            CountedInput counted = new CountedInput(in) {
                @Override
                protected void came(long all) {
                    if (all > most) throw new Refused(tooLarge(most));
                }
            };
            return new ServletInputStream() {
                @Override
                public int read() throws IOException {
                    return counted.read();
                }

                @Override
                public int read(byte[] bytes, int from, int length) throws IOException {
                    return counted.read(bytes, from, length);
                }

                @Override
                public boolean isFinished() {
                    return in.isFinished();
                }

                @Override
                public boolean isReady() {
                    return in.isReady();
                }

                @Override
                public void setReadListener(ReadListener listener) {
                    in.setReadListener(listener);
                }
            };
        }
    }
}
