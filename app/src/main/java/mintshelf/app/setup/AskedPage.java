package mintshelf.app.setup;

import jakarta.servlet.http.Cookie;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.nio.charset.StandardCharsets;
import java.util.Base64;
import org.springframework.security.web.savedrequest.RequestCache;
import org.springframework.security.web.savedrequest.SavedRequest;
import org.springframework.security.web.savedrequest.SimpleSavedRequest;

/**
 * The page that somebody asked for before signing in, in a cookie of theirs: a path of this server and nothing else, so that neither a
 * forged host nor a forged cookie leads away.
 */
final class AskedPage implements RequestCache {
    private static final String COOKIE = "mint-asked";
    private static final int MINUTES = 30;

    @Override
    public void saveRequest(HttpServletRequest request, HttpServletResponse response) {
        boolean page = request.getMethod().equals("GET")
                && request.getHeader("HX-Request") == null
                && (request.getHeader("Accept") == null
                        || request.getHeader("Accept").contains("text/html"));
        String path =
                request.getRequestURI() + (request.getQueryString() == null ? "" : "?" + request.getQueryString());
        if (!page || path.length() > 1500) return;
        send(response, Base64.getUrlEncoder().encodeToString(path.getBytes(StandardCharsets.UTF_8)), MINUTES * 60);
    }

    private static void send(HttpServletResponse response, String value, int seconds) {
        Cookie cookie = new Cookie(COOKIE, value);
        cookie.setPath("/");
        cookie.setHttpOnly(true);
        cookie.setMaxAge(seconds);
        cookie.setAttribute("SameSite", "Lax");
        response.addCookie(cookie);
    }

    @Override
    public SavedRequest getRequest(HttpServletRequest request, HttpServletResponse response) {
        String path = path(request);
        return path == null ? null : new SimpleSavedRequest(path);
    }

    private static String path(HttpServletRequest request) {
        if (request.getCookies() == null) return null;
        for (Cookie cookie : request.getCookies()) {
            if (!cookie.getName().equals(COOKIE) || cookie.getValue().isEmpty()) continue;
            try {
                String path = new String(Base64.getUrlDecoder().decode(cookie.getValue()), StandardCharsets.UTF_8);
                boolean ours = path.startsWith("/") && !path.startsWith("//") && !path.contains("\\");
                return ours && path.chars().noneMatch(c -> c < ' ') ? path : null;
            } catch (IllegalArgumentException e) {
                return null;
            }
        }
        return null;
    }

    @Override
    public HttpServletRequest getMatchingRequest(HttpServletRequest request, HttpServletResponse response) {
        return null;
    }

    @Override
    public void removeRequest(HttpServletRequest request, HttpServletResponse response) {
        if (path(request) != null) send(response, "", 0);
    }
}
