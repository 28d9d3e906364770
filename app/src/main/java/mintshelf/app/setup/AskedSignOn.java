package mintshelf.app.setup;

import jakarta.servlet.http.Cookie;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.util.Base64;
import java.util.HashMap;
import java.util.Map;
import java.util.Set;
import org.springframework.security.oauth2.client.web.AuthorizationRequestRepository;
import org.springframework.security.oauth2.core.endpoint.OAuth2AuthorizationRequest;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.json.JsonMapper;

/**
 * What was asked of the house's sign-on, in a cookie of who asks: whoever is not signed in has no session. It is read as plain words,
 * never as objects; whoever forges their own cookie deceives nobody but themselves.
 */
final class AskedSignOn implements AuthorizationRequestRepository<OAuth2AuthorizationRequest> {
    private static final int SECONDS = 600;
    private static final int LONGEST = 4000;

    private final JsonMapper json;
    private final boolean secure;

    AskedSignOn(JsonMapper json, boolean secure) {
        this.json = json;
        this.secure = secure;
    }

    /** As the cookie keeps it: words alone. */
    record Kept(
            String uri,
            String request,
            String client,
            String redirect,
            String state,
            Set<String> scopes,
            Map<String, String> attributes,
            Map<String, String> parameters) {}

    private String cookieName() {
        return secure ? "__Host-mint-sign-on" : "mint-sign-on";
    }

    private void send(HttpServletResponse response, String value, int seconds) {
        Cookie cookie = new Cookie(cookieName(), value);
        cookie.setPath("/");
        cookie.setHttpOnly(true);
        cookie.setSecure(secure);
        cookie.setMaxAge(seconds);
        cookie.setAttribute("SameSite", "Lax");
        response.addCookie(cookie);
    }

    @Override
    public void saveAuthorizationRequest(
            OAuth2AuthorizationRequest asked, HttpServletRequest request, HttpServletResponse response) {
        if (asked == null) {
            send(response, "", 0);
            return;
        }
        Kept kept = new Kept(
                asked.getAuthorizationUri(),
                asked.getAuthorizationRequestUri(),
                asked.getClientId(),
                asked.getRedirectUri(),
                asked.getState(),
                asked.getScopes(),
                words(asked.getAttributes()),
                words(asked.getAdditionalParameters()));
        send(response, Base64.getUrlEncoder().encodeToString(json.writeValueAsBytes(kept)), SECONDS);
    }

    private static Map<String, String> words(Map<String, Object> all) {
        Map<String, String> words = new HashMap<>();
        all.forEach((name, value) -> words.put(name, String.valueOf(value)));
        return words;
    }

    @Override
    public OAuth2AuthorizationRequest loadAuthorizationRequest(HttpServletRequest request) {
        if (request.getCookies() == null) return null;
        for (Cookie cookie : request.getCookies()) {
            boolean ours = cookie.getName().equals(cookieName());
            if (!ours || cookie.getValue().isEmpty() || cookie.getValue().length() > LONGEST) continue;
            try {
                return asked(json.readValue(Base64.getUrlDecoder().decode(cookie.getValue()), Kept.class));
            } catch (JacksonException | IllegalArgumentException e) {
                return null;
            }
        }
        return null;
    }

    private static OAuth2AuthorizationRequest asked(Kept kept) {
        return OAuth2AuthorizationRequest.authorizationCode()
                .authorizationUri(kept.uri())
                .authorizationRequestUri(kept.request())
                .clientId(kept.client())
                .redirectUri(kept.redirect())
                .state(kept.state())
                .scopes(kept.scopes())
                .attributes(a -> a.putAll(kept.attributes()))
                .additionalParameters(p -> p.putAll(kept.parameters()))
                .build();
    }

    @Override
    public OAuth2AuthorizationRequest removeAuthorizationRequest(
            HttpServletRequest request, HttpServletResponse response) {
        OAuth2AuthorizationRequest asked = loadAuthorizationRequest(request);
        if (asked != null) send(response, "", 0);
        return asked;
    }
}
