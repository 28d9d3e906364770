package mintshelf.app.page;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.lang.reflect.Type;
import java.util.Arrays;
import java.util.Map;
import java.util.TreeMap;
import mintshelf.app.ground.Asked;
import org.springframework.core.MethodParameter;
import org.springframework.http.HttpInputMessage;
import org.springframework.http.converter.HttpMessageConverter;
import org.springframework.web.bind.annotation.ControllerAdvice;
import org.springframework.web.context.request.RequestContextHolder;
import org.springframework.web.context.request.ServletRequestAttributes;
import org.springframework.web.servlet.HandlerInterceptor;
import org.springframework.web.servlet.mvc.method.annotation.RequestBodyAdviceAdapter;

/** Tells acts with what they are asked: the fields of a form, the body of a call. What only guards the form is left out. */
@ControllerAdvice
public class ActBodies extends RequestBodyAdviceAdapter implements HandlerInterceptor {
    @Override
    public boolean preHandle(HttpServletRequest request, HttpServletResponse response, Object handler) {
        if (request.getMethod().equals("POST")) Asked.with(asks(request));
        return true;
    }

    @Override
    public void afterCompletion(
            HttpServletRequest request, HttpServletResponse response, Object handler, Exception failed) {
        Asked.nothing();
    }

    private static String asks(HttpServletRequest request) {
        StringBuilder all = new StringBuilder(request.getRequestURI());
        for (Map.Entry<String, String[]> field : new TreeMap<>(request.getParameterMap()).entrySet()) {
            if (field.getKey().equals("_csrf") || field.getKey().equals("actKey")) continue;
            all.append('\n').append(field.getKey()).append('=').append(Arrays.toString(field.getValue()));
        }
        return all.toString();
    }

    @Override
    public boolean supports(MethodParameter parameter, Type type, Class<? extends HttpMessageConverter<?>> converter) {
        return true;
    }

    @Override
    public Object afterBodyRead(
            Object body,
            HttpInputMessage input,
            MethodParameter parameter,
            Type type,
            Class<? extends HttpMessageConverter<?>> converter) {
        if (RequestContextHolder.getRequestAttributes() instanceof ServletRequestAttributes now) {
            Asked.with(asks(now.getRequest()) + "\n" + body); // records say all that they hold
        }
        return body;
    }
}
