package mintshelf.app.page;

import jakarta.servlet.http.HttpServletRequest;
import mintshelf.app.ground.Actor;
import mintshelf.app.setup.Security;
import mintshelf.app.setup.Security.SignedIn;
import mintshelf.app.sight.Grants;
import org.springframework.core.MethodParameter;
import org.springframework.security.core.context.SecurityContextHolder;
import org.springframework.stereotype.Component;
import org.springframework.web.bind.support.WebDataBinderFactory;
import org.springframework.web.context.request.NativeWebRequest;
import org.springframework.web.method.support.HandlerMethodArgumentResolver;
import org.springframework.web.method.support.ModelAndViewContainer;

/** Gives every page method the actor, with the grants as they stand at this request. */
@Component
public class Actors implements HandlerMethodArgumentResolver {
    private static final String KEPT = Actors.class.getName();
    private final Grants grants;

    public Actors(Grants grants) {
        this.grants = grants;
    }

    @Override
    public boolean supportsParameter(MethodParameter parameter) {
        return parameter.getParameterType() == Actor.class;
    }

    @Override
    public Object resolveArgument(
            MethodParameter parameter,
            ModelAndViewContainer model,
            NativeWebRequest request,
            WebDataBinderFactory binder) {
        return of(request.getNativeRequest(HttpServletRequest.class));
    }

    /** The signed-in actor of a request, or null on pages that need no sign-in. Loaded once a request. */
    public Actor of(HttpServletRequest request) {
        if (request.getAttribute(KEPT) instanceof Actor kept) return kept;
        var signedIn = SecurityContextHolder.getContext().getAuthentication();
        if (signedIn == null || !(signedIn.getPrincipal() instanceof SignedIn person)) return null;
        Actor actor = grants.actor(person.person(), person.login(), person.name(), Security.address(request));
        request.setAttribute(KEPT, actor);
        return actor;
    }
}
