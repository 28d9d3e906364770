package mintshelf.app;

import static jakarta.servlet.DispatcherType.REQUEST;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import jakarta.servlet.ServletException;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.lang.reflect.Proxy;
import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.Test;

/** The net under all tests catches what breaks, and nothing else. */
class BrokenTest {
    private static void ask(String path, int status, Optional<Exception> thrown) throws Exception {
        Map<String, Object> says = Map.of(
                "getMethod", "GET", "getRequestURI", path, "getQueryString", "face=look", "getDispatcherType", REQUEST);
        HttpServletRequest request = as(HttpServletRequest.class, says);
        HttpServletResponse response = as(HttpServletResponse.class, Map.of("getStatus", status));
        Broken.whatBreaks().getFilter().doFilter(request, response, (asked, answer) -> {
            if (thrown.isPresent()) throw new ServletException(thrown.get());
        });
    }

    /** What only answers what it is told to. */
    private static <T> T as(Class<T> type, Map<String, Object> says) {
        return type.cast(Proxy.newProxyInstance(
                BrokenTest.class.getClassLoader(), new Class<?>[] {type}, (self, m, given) -> says.get(m.getName())));
    }

    @Test
    void aRequestThatBreaksIsNoted() throws Exception {
        Optional<Exception> why = Optional.of(new IllegalStateException("no such field"));
        assertThatThrownBy(() -> ask("/thrown", 200, why)).isInstanceOf(ServletException.class);
        ask("/answered", 500, Optional.empty());
        assertThat(Broken.take())
                .satisfiesExactly(
                        one -> assertThat(one)
                                .startsWith("GET /thrown?face=look ")
                                .endsWith("no such field"),
                        one -> assertThat(one).isEqualTo("GET /answered?face=look"));
        assertThat(Broken.take()).as("told once").isEmpty();
    }

    @Test
    void refusalsAndPeopleWhoLeaveAreNot() throws Exception {
        for (int status : new int[] {200, 302, 404, 409, 503}) ask("/refused", status, Optional.empty());
        Optional<Exception> left = Optional.of(new IOException("Broken pipe"));
        assertThatThrownBy(() -> ask("/left", 200, left)).isInstanceOf(ServletException.class);
        assertThat(Broken.take()).isEmpty();
    }
}
