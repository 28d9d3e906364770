package mintshelf.app.setup;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import jakarta.servlet.http.HttpSession;
import java.io.IOException;
import java.util.List;
import java.util.Optional;
import mintshelf.app.use.person.EnterBySignOn;
import mintshelf.app.use.person.EnterBySignOn.Named;
import mintshelf.app.use.person.EnterBySignOn.Result;
import org.slf4j.LoggerFactory;
import org.springframework.security.authentication.UsernamePasswordAuthenticationToken;
import org.springframework.security.config.annotation.web.builders.HttpSecurity;
import org.springframework.security.core.Authentication;
import org.springframework.security.core.authority.SimpleGrantedAuthority;
import org.springframework.security.core.context.SecurityContext;
import org.springframework.security.core.context.SecurityContextHolder;
import org.springframework.security.oauth2.client.OAuth2AuthorizedClient;
import org.springframework.security.oauth2.client.registration.ClientRegistration;
import org.springframework.security.oauth2.client.registration.ClientRegistrationRepository;
import org.springframework.security.oauth2.client.registration.ClientRegistrations;
import org.springframework.security.oauth2.client.web.DefaultOAuth2AuthorizationRequestResolver;
import org.springframework.security.oauth2.client.web.OAuth2AuthorizationRequestCustomizers;
import org.springframework.security.oauth2.client.web.OAuth2AuthorizedClientRepository;
import org.springframework.security.oauth2.core.oidc.user.OidcUser;
import org.springframework.security.web.authentication.AuthenticationSuccessHandler;
import org.springframework.security.web.authentication.SavedRequestAwareAuthenticationSuccessHandler;
import org.springframework.security.web.context.HttpSessionSecurityContextRepository;
import org.springframework.stereotype.Component;
import tools.jackson.databind.json.JsonMapper;

/**
 * Signing in by a house's own sign-on: OpenID Connect Core 1.0, code flow with proof of the code's owner (RFC 7636). The provider is asked for
 * its addresses when somebody first wants to sign in, so that the server starts without it. Its tokens are read once and kept nowhere.
 */
@Component
public class HouseSignOn {
    /** The one provider of a house. */
    static final String HOUSE = "house";

    /** Where the sign-on begins. */
    public static final String BEGINS = "/oauth2/authorization/" + HOUSE;

    private final Settings settings;
    private final EnterBySignOn enter;
    private final JsonMapper json;
    private final ProviderCalls calls;
    private final Provider provider = new Provider();

    HouseSignOn(Settings settings, EnterBySignOn enter, JsonMapper json, ProviderCalls calls) {
        this.settings = settings;
        this.enter = enter;
        this.json = json;
        this.calls = calls;
    }

    /** What people call it; empty where the house has none. */
    public Optional<String> name() {
        return settings.signOn().isThere() ? Optional.of(settings.signOn().name()) : Optional.empty();
    }

    /** Whether the provider answers. */
    public boolean answers() {
        try {
            return provider.findByRegistrationId(HOUSE) != null;
        } catch (RuntimeException e) {
            LoggerFactory.getLogger(HouseSignOn.class)
                    .warn("The sign-on at {} does not answer", settings.signOn().issuer(), e);
            return false;
        }
    }

    /** Lets people in by it, where the house has one. */
    void into(HttpSecurity http, boolean secure) {
        if (!settings.signOn().isThere()) return;
        DefaultOAuth2AuthorizationRequestResolver resolver = new DefaultOAuth2AuthorizationRequestResolver(provider);
        resolver.setAuthorizationRequestCustomizer(OAuth2AuthorizationRequestCustomizers.withPkce());
        http.oauth2Login(l -> l.loginPage("/sign-in")
                .clientRegistrationRepository(provider)
                .authorizedClientRepository(new NothingKept())
                .authorizationEndpoint(a -> a.authorizationRequestRepository(new AskedSignOn(json, secure))
                        .authorizationRequestResolver(resolver))
                .tokenEndpoint(t -> t.accessTokenResponseClient(calls.tokens()))
                .userInfoEndpoint(u -> u.oidcUserService(calls.users()))
                .successHandler(letIn())
                .failureHandler((request, response, error) -> {
                    LoggerFactory.getLogger(HouseSignOn.class).info("No sign-on: {}", error.getMessage());
                    response.sendRedirect("/sign-in?not-signed-on");
                }));
    }

    private AuthenticationSuccessHandler letIn() {
        SavedRequestAwareAuthenticationSuccessHandler onward = new SavedRequestAwareAuthenticationSuccessHandler();
        onward.setRequestCache(new AskedPage());
        onward.setDefaultTargetUrl("/today");
        HttpSessionSecurityContextRepository sessions = new HttpSessionSecurityContextRepository();
        return (request, response, named) -> {
            Result result = enter.enter(named((OidcUser) named.getPrincipal()), Security.address(request));
            if (result instanceof Result.In in) {
                Authentication person = UsernamePasswordAuthenticationToken.authenticated(
                        new Security.SignedIn(in.person(), in.login(), in.name()),
                        null,
                        List.of(new SimpleGrantedAuthority("PERSON")));
                SecurityContext context = SecurityContextHolder.createEmptyContext();
                context.setAuthentication(person);
                SecurityContextHolder.setContext(context);
                sessions.saveContext(context, request, response);
                onward.onAuthenticationSuccess(request, response, person);
            } else {
                turnAway(request, response, result instanceof Result.Left ? "left" : "unknown");
            }
        };
    }

    private static void turnAway(HttpServletRequest request, HttpServletResponse response, String why)
            throws IOException {
        SecurityContextHolder.clearContext();
        HttpSession session = request.getSession(false);
        if (session != null) session.invalidate();
        response.sendRedirect("/sign-in?" + why);
    }

    private Named named(OidcUser user) {
        List<String> groups = user.hasClaim(settings.signOn().groups())
                ? user.getClaimAsStringList(settings.signOn().groups())
                : null;
        return new Named(
                user.getIssuer().toString(),
                user.getSubject(),
                said(user.getPreferredUsername()),
                said(user.getFullName()),
                said(user.getEmail()),
                Optional.ofNullable(groups));
    }

    private static String said(String claim) {
        return claim == null ? "" : claim;
    }

    /** The provider as it describes itself, asked for once. */
    private final class Provider implements ClientRegistrationRepository {
        private volatile ClientRegistration known;

        @Override
        public ClientRegistration findByRegistrationId(String id) {
            if (!id.equals(HOUSE)) return null;
            ClientRegistration found = known;
            if (found == null) {
                found = ClientRegistrations.fromIssuerLocation(settings.signOn().issuer())
                        .registrationId(HOUSE)
                        .clientId(settings.signOn().client())
                        .clientSecret(settings.signOn().secret())
                        .redirectUri(settings.origin() + "/login/oauth2/code/" + HOUSE)
                        .userNameAttributeName("sub")
                        .scope("openid", "profile", "email")
                        .build();
                known = found;
            }
            return found;
        }
    }

    /** Tokens of the provider are of no use afterwards. */
    private static final class NothingKept implements OAuth2AuthorizedClientRepository {
        /** The interface's own form. */
        @Override
        @SuppressWarnings("TypeParameterUnusedInFormals")
        public <T extends OAuth2AuthorizedClient> T loadAuthorizedClient(
                String id, Authentication principal, HttpServletRequest request) {
            return null;
        }

        @Override
        public void saveAuthorizedClient(
                OAuth2AuthorizedClient client,
                Authentication principal,
                HttpServletRequest request,
                HttpServletResponse response) {
            // nothing is kept
        }

        @Override
        public void removeAuthorizedClient(
                String id, Authentication principal, HttpServletRequest request, HttpServletResponse response) {
            // nothing was kept
        }
    }
}
