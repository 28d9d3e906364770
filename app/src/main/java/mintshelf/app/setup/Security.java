package mintshelf.app.setup;

import jakarta.servlet.http.HttpServletRequest;
import java.io.Serializable;
import java.util.List;
import mintshelf.app.use.person.SignIn;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.core.annotation.Order;
import org.springframework.security.authentication.AuthenticationProvider;
import org.springframework.security.authentication.BadCredentialsException;
import org.springframework.security.authentication.LockedException;
import org.springframework.security.authentication.UsernamePasswordAuthenticationToken;
import org.springframework.security.config.annotation.web.builders.HttpSecurity;
import org.springframework.security.core.Authentication;
import org.springframework.security.core.authority.SimpleGrantedAuthority;
import org.springframework.security.web.SecurityFilterChain;
import org.springframework.security.web.authentication.LoginUrlAuthenticationEntryPoint;
import org.springframework.security.web.authentication.WebAuthenticationDetails;
import org.springframework.security.web.header.writers.ReferrerPolicyHeaderWriter.ReferrerPolicy;

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

    @Bean
    SecurityFilterChain filters(HttpSecurity http, Settings settings) throws Exception {
        LoginUrlAuthenticationEntryPoint signIn = new LoginUrlAuthenticationEntryPoint("/sign-in");
        http.authorizeHttpRequests(r -> r.requestMatchers(
                                "/sign-in",
                                "/first-start",
                                "/invitations/*",
                                "/static/**",
                                "/webjars/**",
                                "/error",
                                "/favicon.svg",
                                "/actuator/health")
                        .permitAll()
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
                .logout(l -> l.logoutUrl("/sign-out").logoutSuccessUrl("/sign-in?out"))
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
        return http.build();
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
