package mintshelf.app.page;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.util.LinkedHashMap;
import java.util.Map;
import mintshelf.core.base.Refusal;
import tools.jackson.databind.json.JsonMapper;

/** A refusal as programs read it: RFC 9457, with the refusal's code and remedy. */
public final class Problem {
    private Problem() {}

    /** Whether who asks is a program or a script, whatever it says that it accepts. */
    public static boolean isAsked(HttpServletRequest request) {
        String path = request.getRequestURI();
        return path.startsWith("/api/") || path.startsWith("/uploads");
    }

    public static void write(HttpServletResponse response, JsonMapper json, int status, Refusal refusal)
            throws IOException {
        response.setStatus(status);
        response.setContentType("application/problem+json");
        if (status == 401) response.setHeader("WWW-Authenticate", "Bearer");
        Map<String, Object> problem = new LinkedHashMap<>();
        problem.put("title", refusal.reason());
        problem.put("status", status);
        problem.put("detail", refusal.reason());
        problem.put("code", refusal.code());
        problem.put("remedy", refusal.remedy());
        response.getOutputStream().write(json.writeValueAsBytes(problem));
    }
}
