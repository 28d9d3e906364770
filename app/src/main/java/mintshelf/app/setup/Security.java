package mintshelf.app.setup;

import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import jakarta.servlet.http.HttpSession;
import java.io.IOException;
import java.io.Serializable;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.time.Instant;
import java.util.Base64;
import java.util.List;
import java.util.Optional;
import mintshelf.app.page.Problem;
import mintshelf.app.use.desk.Tokens;
import mintshelf.app.use.person.Sessions;
import mintshelf.app.use.person.SignIn;
import mintshelf.core.base.Refusal;
import org.springframework.boot.web.servlet.FilterRegistrationBean;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.core.annotation.Order;
import org.springframework.core.env.Environment;
import org.springframework.http.HttpMethod;
import org.springframework.security.authentication.AuthenticationProvider;
import org.springframework.security.authentication.BadCredentialsException;
import org.springframework.security.authentication.LockedException;
import org.springframework.security.authentication.UsernamePasswordAuthenticationToken;
import org.springframework.security.authorization.AuthorizationDecision;
import org.springframework.security.config.annotation.web.builders.HttpSecurity;
import org.springframework.security.config.http.SessionCreationPolicy;
import org.springframework.security.core.Authentication;
import org.springframework.security.core.authority.SimpleGrantedAuthority;
import org.springframework.security.core.context.SecurityContextHolder;
import org.springframework.security.web.SecurityFilterChain;
import org.springframework.security.web.access.intercept.AuthorizationFilter;
import org.springframework.security.web.authentication.LoginUrlAuthenticationEntryPoint;
import org.springframework.security.web.authentication.WebAuthenticationDetails;
import org.springframework.security.web.authentication.logout.HeaderWriterLogoutHandler;
import org.springframework.security.web.csrf.CookieCsrfTokenRepository;
import org.springframework.security.web.firewall.RequestRejectedHandler;
import org.springframework.security.web.header.writers.ClearSiteDataHeaderWriter;
import org.springframework.security.web.header.writers.ReferrerPolicyHeaderWriter.ReferrerPolicy;
import org.springframework.security.web.savedrequest.RequestCache;
import org.springframework.security.web.util.matcher.IpAddressMatcher;
import org.springframework.session.security.web.authentication.SpringSessionRememberMeServices;
import org.springframework.session.web.http.CookieSerializer;
import org.springframework.session.web.http.DefaultCookieSerializer;
import org.springframework.session.web.http.SessionRepositoryFilter;
import org.springframework.web.filter.OncePerRequestFilter;
import tools.jackson.databind.json.JsonMapper;

/** Who gets in, and with which headers pages leave. What a person may do is decided in the core, not here. */
@Configuration
public class Security {
    /** Everything from here; no inline script or style, no eval, no frames. */
    static final String POLICY = "default-src 'self'; img-src 'self' data:; object-src 'none'; base-uri 'self';"
            + " form-action 'self'; frame-ancestors 'none'";

    /** The signed-in person, as the session keeps them. */
    public record SignedIn(long person, String login, String name) implements Serializable {
        @Override
        public String toString() {
            return login; // Spring Session's principal name
        }
    }

    /** The kernel that reads models makes code of its own as it starts: it runs in a worker, and only there that is let. */
    static final String KERNEL_POLICY = "default-src 'none'; script-src 'self' 'unsafe-eval'; connect-src 'self'";

    @Bean
    @Order(1)
    SecurityFilterChain kernel(HttpSecurity http) throws Exception {
        http.securityMatcher("/static/occt/**")
                .authorizeHttpRequests(r -> r.anyRequest().permitAll())
                .headers(h -> h.contentSecurityPolicy(c -> c.policyDirectives(KERNEL_POLICY))
                        .cacheControl(c -> c.disable()));
        return http.build();
    }

    /** What the gate itself refuses, an address of odd letters: a program reads it as it reads every refusal. */
    @Bean
    RequestRejectedHandler rejected(JsonMapper json) {
        return (request, response, e) -> {
            if (Problem.isAsked(request)) {
                problem(
                        response,
                        json,
                        400,
                        "request.bad",
                        "That is no address of this server.",
                        "See the description.");
            } else {
                response.sendError(400);
            }
        };
    }

    /** Programs sign each request with a token; they have no session and no form to forge. */
    @Bean
    @Order(3)
    SecurityFilterChain api(HttpSecurity http, Tokens tokens, JsonMapper json) throws Exception {
        http.securityMatcher("/api/v1/**")
                .csrf(c -> c.disable())
                .sessionManagement(s -> s.sessionCreationPolicy(SessionCreationPolicy.STATELESS))
                .authorizeHttpRequests(r -> r.requestMatchers("/api/v1/pairings", "/api/v1/openapi.json")
                        .permitAll()
                        .requestMatchers(HttpMethod.GET, "/api/v1/**")
                        .authenticated()
                        .requestMatchers(HttpMethod.HEAD, "/api/v1/**")
                        .authenticated()
                        // To ask how a desk stands, or what an act would do, changes nothing, though it is a POST.
                        .requestMatchers("/api/v1/desks/*/status", "/api/v1/plans")
                        .authenticated()
                        .anyRequest()
                        .hasAuthority("WRITE"))
                .addFilterBefore(new BearerFilter(tokens), AuthorizationFilter.class)
                .exceptionHandling(e -> e.authenticationEntryPoint((request, response, error) -> problem(
                                response,
                                json,
                                401,
                                "token.missing",
                                "The request is not signed with a token that is in force.",
                                "Make one on the page Companion and tokens, or pair the companion anew."))
                        .accessDeniedHandler((request, response, error) -> problem(
                                response,
                                json,
                                403,
                                "token.scope",
                                "This token may read only.",
                                "Make one that may write.")))
                .headers(h -> h.contentSecurityPolicy(c -> c.policyDirectives("default-src 'none'")));
        return http.build();
    }

    /** The desk page asks the same interface with its session, and with the word against forged requests. */
    @Bean
    @Order(2)
    SecurityFilterChain apiInBrowser(HttpSecurity http, JsonMapper json, Settings settings, Environment environment)
            throws Exception {
        http.securityMatcher(request -> request.getRequestURI().startsWith("/api/v1/")
                        && request.getHeader("Authorization") == null
                        && request.getSession(false) != null)
                .authorizeHttpRequests(r -> r.requestMatchers("/api/v1/pairings", "/api/v1/openapi.json")
                        .permitAll()
                        .anyRequest()
                        .hasAuthority("PERSON"))
                .csrf(c -> c.csrfTokenRepository(tokens(settings, environment)))
                .exceptionHandling(e -> e.authenticationEntryPoint((request, response, error) -> problem(
                                response,
                                json,
                                401,
                                "session.ended",
                                "Your session has ended.",
                                "Sign in again; what was sent so far is kept for a day."))
                        .accessDeniedHandler((request, response, error) -> problem(
                                response,
                                json,
                                403,
                                "session.forged",
                                "The request did not come from a page of this session.",
                                "Load the page again.")))
                .headers(h -> h.contentSecurityPolicy(c -> c.policyDirectives("default-src 'none'")));
        return http.build();
    }

    private static void problem(
            HttpServletResponse response, JsonMapper json, int status, String code, String reason, String remedy)
            throws IOException {
        Problem.write(response, json, status, Refusal.of(code, reason, remedy));
    }

    /** Finds the person of a request's token. */
    private static final class BearerFilter extends OncePerRequestFilter {
        private final Tokens tokens;

        BearerFilter(Tokens tokens) {
            this.tokens = tokens;
        }

        @Override
        protected void doFilterInternal(HttpServletRequest request, HttpServletResponse response, FilterChain chain)
                throws IOException, ServletException {
            String header = request.getHeader("Authorization");
            Optional<String> token = header == null ? Optional.empty() : token(request, header);
            if (token.isPresent()) {
                tokens.bearer(token.get())
                        .ifPresent(b -> SecurityContextHolder.getContext()
                                .setAuthentication(UsernamePasswordAuthenticationToken.authenticated(
                                        new SignedIn(b.person(), b.login(), b.name()),
                                        null,
                                        List.of(new SimpleGrantedAuthority(b.mayWrite() ? "WRITE" : "READ")))));
            }
            chain.doFilter(request, response);
        }

        /**
         * The token that signs a request. Readers of feeds know passwords only: theirs is a token. Nothing else is opened so: what a
         * browser once knows as a password it sends by itself, whoever makes it ask.
         */
        private static Optional<String> token(HttpServletRequest request, String header) {
            if (header.startsWith("Bearer "))
                return Optional.of(header.substring(7).strip());
            boolean feed =
                    request.getMethod().equals("GET") && request.getRequestURI().matches("/api/v1/searches/\\d+/feed");
            if (!feed || !header.startsWith("Basic ")) return Optional.empty();
            try {
                byte[] said = Base64.getDecoder().decode(header.substring(6).strip());
                String pair = new String(said, StandardCharsets.UTF_8);
                return Optional.of(pair.substring(pair.indexOf(':') + 1));
            } catch (IllegalArgumentException e) {
                return Optional.empty();
            }
        }
    }

    /** Whether somebody asks from one of these addresses or networks. */
    static boolean isFrom(List<String> addresses, String address) {
        return addresses.stream().anyMatch(a -> new IpAddressMatcher(a).matches(address));
    }

    @Bean
    SecurityFilterChain filters(HttpSecurity http, Settings settings, Environment environment, HouseSignOn signOn)
            throws Exception {
        LoginUrlAuthenticationEntryPoint signIn = new LoginUrlAuthenticationEntryPoint("/sign-in");
        signIn.setFavorRelativeUris(true);
        http.authorizeHttpRequests(r -> r.requestMatchers(
                                "/sign-in",
                                "/sign-in/house",
                                "/first-start",
                                "/invitations/*",
                                "/static/**",
                                "/webjars/**",
                                "/error",
                                "/favicon.svg",
                                "/actuator/health",
                                "/actuator/health/*")
                        .permitAll()
                        .requestMatchers("/actuator/**")
                        .access((who, context) -> new AuthorizationDecision(isFrom(
                                settings.metricsFrom(), context.getRequest().getRemoteAddr())))
                        // The demo's stand-in for a mail program is read by whoever the mail is for, signed in or not.
                        .requestMatchers(settings.demo() ? new String[] {"/post-tray"} : new String[] {"/favicon.svg"})
                        .permitAll()
                        .anyRequest()
                        .authenticated())
                .formLogin(f -> f.loginPage("/sign-in")
                        .usernameParameter("login")
                        .passwordParameter("password")
                        .defaultSuccessUrl("/today")
                        .failureHandler((request, response, error) -> response.sendRedirect(
                                "/sign-in?" + (error instanceof LockedException ? "braked" : "wrong"))))
                .logout(l -> l.logoutUrl("/sign-out")
                        .logoutSuccessUrl("/sign-in?out")
                        // What was fetched while signed in is not left in the browser for the next one.
                        .addLogoutHandler(new HeaderWriterLogoutHandler(
                                new ClearSiteDataHeaderWriter(ClearSiteDataHeaderWriter.Directive.CACHE))))
                // Who is not signed in has no session: form tokens and the page that was asked for lie in cookies.
                .csrf(c -> c.csrfTokenRepository(tokens(settings, environment)))
                .requestCache(c -> c.requestCache(asked()))
                .rememberMe(r -> r.rememberMeServices(stay(settings)))
                .exceptionHandling(e -> e.authenticationEntryPoint((request, response, error) -> {
                    if (request.getHeader("HX-Request") != null) {
                        // A part of a page cannot show the sign-in; the page as a whole goes there.
                        response.setHeader("HX-Redirect", "/sign-in");
                        response.setStatus(401);
                    } else {
                        signIn.commence(request, response, error);
                    }
                }))
                .headers(h -> h.contentSecurityPolicy(c -> c.policyDirectives(POLICY))
                        .referrerPolicy(p -> p.policy(ReferrerPolicy.SAME_ORIGIN))
                        .permissionsPolicyHeader(p -> p.policy("camera=(), microphone=(), geolocation=()")));
        signOn.into(http, isSecure(settings, environment));
        return http.build();
    }

    /** Whether people reach the server by HTTPS: cookies are for that alone then, and their names say so. */
    private static boolean isSecure(Settings settings, Environment environment) {
        return settings.origin().startsWith("https:")
                || environment.containsProperty("server.ssl.certificate")
                || environment.containsProperty("server.ssl.key-store");
    }

    private static CookieCsrfTokenRepository tokens(Settings settings, Environment environment) {
        boolean secure = isSecure(settings, environment);
        CookieCsrfTokenRepository tokens = new CookieCsrfTokenRepository();
        tokens.setHeaderName("X-CSRF-TOKEN");
        tokens.setCookieName(secure ? "__Host-mint-form" : "mint-form");
        tokens.setCookiePath("/");
        tokens.setCookieCustomizer(c -> c.httpOnly(true).sameSite("Lax").secure(secure));
        return tokens;
    }

    /** The page that was asked for before signing in, as a path of ours: no name of a host passes into a redirect. */
    private static RequestCache asked() {
        return new AskedPage();
    }

    /** Stay signed in on this machine: a session that lives for thirty days, where the house lets it. */
    private static SpringSessionRememberMeServices stay(Settings settings) {
        SpringSessionRememberMeServices stay = new SpringSessionRememberMeServices();
        stay.setRememberMeParameterName(settings.staySignedIn() ? "stay" : "not-here");
        stay.setValiditySeconds((int) STAYS.toSeconds());
        return stay;
    }

    private static final Duration STAYS = Duration.ofDays(30);
    /** A session ends after so long, however busy it is. */
    private static final Duration LONGEST = Duration.ofDays(7);

    @Bean
    CookieSerializer sessionCookie(Settings settings, Environment environment) {
        boolean secure = isSecure(settings, environment);
        DefaultCookieSerializer cookie = new DefaultCookieSerializer();
        cookie.setCookieName(secure ? "__Host-mint-shelf" : "mint-shelf");
        cookie.setCookiePath("/");
        cookie.setUseHttpOnlyCookie(true);
        cookie.setUseSecureCookie(secure);
        cookie.setSameSite("Lax");
        cookie.setRememberMeRequestAttribute(SpringSessionRememberMeServices.REMEMBER_ME_LOGIN_ATTR);
        return cookie;
    }

    /** Ends sessions that have lived for too long, and tells which one asks. */
    @Bean
    FilterRegistrationBean<OncePerRequestFilter> sessionLimits() {
        OncePerRequestFilter filter = new OncePerRequestFilter() {
            @Override
            protected void doFilterInternal(HttpServletRequest request, HttpServletResponse response, FilterChain chain)
                    throws ServletException, IOException {
                HttpSession session = request.getSession(false);
                if (session != null) {
                    Duration age = Duration.between(Instant.ofEpochMilli(session.getCreationTime()), Instant.now());
                    boolean stays = session.getMaxInactiveInterval() >= STAYS.toSeconds();
                    if (age.compareTo(stays ? STAYS : LONGEST) > 0) session.invalidate();
                    else Sessions.here(session.getId());
                }
                try {
                    chain.doFilter(request, response);
                } finally {
                    Sessions.here(null);
                }
            }
        };
        FilterRegistrationBean<OncePerRequestFilter> registered = new FilterRegistrationBean<>(filter);
        registered.setOrder(SessionRepositoryFilter.DEFAULT_ORDER + 1);
        return registered;
    }

    @Bean
    AuthenticationProvider provider(SignIn signIn) {
        return new AuthenticationProvider() {
            @Override
            public Authentication authenticate(Authentication given) {
                String address = given.getDetails() instanceof WebAuthenticationDetails d ? d.getRemoteAddress() : "";
                SignIn.Result result = signIn.signIn(given.getName(), String.valueOf(given.getCredentials()), address);
                if (result instanceof SignIn.Result.Braked) throw new LockedException("braked");
                if (result instanceof SignIn.Result.In in) {
                    return UsernamePasswordAuthenticationToken.authenticated(
                            new SignedIn(in.person(), in.login(), in.name()),
                            null,
                            List.of(new SimpleGrantedAuthority("PERSON")));
                }
                throw new BadCredentialsException("wrong");
            }

            @Override
            public boolean supports(Class<?> type) {
                return UsernamePasswordAuthenticationToken.class.isAssignableFrom(type);
            }
        };
    }

    /** The address from which a request came. */
    public static String address(HttpServletRequest request) {
        return request.getRemoteAddr();
    }
}
