package mintshelf.app;

import static org.assertj.core.api.Assertions.assertThat;

import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Queue;
import java.util.concurrent.ConcurrentLinkedQueue;
import org.junit.jupiter.api.extension.AfterAllCallback;
import org.junit.jupiter.api.extension.ExtensionContext;
import org.springframework.boot.web.servlet.FilterRegistrationBean;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.core.Ordered;
import org.springframework.web.filter.OncePerRequestFilter;

/** No request of any test may break the server, whether or not the test looks at its answer: a class in whose time one did fails. */
@Configuration
class Broken {
    private static final Queue<String> REQUESTS = new ConcurrentLinkedQueue<>();

    /** The requests that broke since it was asked last. */
    static List<String> take() {
        List<String> all = new ArrayList<>();
        for (String one = REQUESTS.poll(); one != null; one = REQUESTS.poll()) all.add(one);
        return all;
    }

    @Bean
    static FilterRegistrationBean<OncePerRequestFilter> whatBreaks() {
        FilterRegistrationBean<OncePerRequestFilter> bean = new FilterRegistrationBean<>(new OncePerRequestFilter() {
            @Override
            protected void doFilterInternal(HttpServletRequest request, HttpServletResponse response, FilterChain chain)
                    throws ServletException, IOException {
                try {
                    chain.doFilter(request, response);
                    if (response.getStatus() == HttpServletResponse.SC_INTERNAL_SERVER_ERROR) note(request, "");
                } catch (ServletException | RuntimeException e) {
                    // Whoever went away in the middle broke nothing.
                    if (!(e.getCause() instanceof IOException)) note(request, " " + e.getMessage());
                    throw e;
                }
            }
        });
        bean.setOrder(Ordered.HIGHEST_PRECEDENCE);
        return bean;
    }

    private static void note(HttpServletRequest request, String why) {
        String asked = request.getQueryString();
        REQUESTS.add(request.getMethod() + " " + request.getRequestURI() + (asked == null ? "" : "?" + asked) + why);
    }

    /** Asked after every class of tests: found by JUnit itself. */
    public static final class AtTheEnd implements AfterAllCallback {
        @Override
        public void afterAll(ExtensionContext context) {
            assertThat(take()).as("requests that broke the server").isEmpty();
        }
    }
}
