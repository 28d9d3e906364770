package mintshelf.app.page;

import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import mintshelf.app.ground.NotThere;
import org.springframework.context.annotation.Configuration;
import org.springframework.format.FormatterRegistry;
import org.springframework.http.CacheControl;
import org.springframework.web.method.support.HandlerMethodArgumentResolver;
import org.springframework.web.servlet.config.annotation.InterceptorRegistry;
import org.springframework.web.servlet.config.annotation.ResourceHandlerRegistry;
import org.springframework.web.servlet.config.annotation.WebMvcConfigurer;
import org.springframework.web.servlet.resource.VersionResourceResolver;

/** Teaches page methods to take the actor. */
@Configuration
public class Pages implements WebMvcConfigurer {
    private final Actors actors;
    private final ActBodies bodies;

    public Pages(Actors actors, ActBodies bodies) {
        this.actors = actors;
        this.bodies = bodies;
    }

    @Override
    public void addArgumentResolvers(List<HandlerMethodArgumentResolver> resolvers) {
        resolvers.add(actors);
    }

    @Override
    public void addFormatters(FormatterRegistry registry) {
        registry.addConverter(new IdLists());
        registry.addConverter(new VersionNames());
    }

    @Override
    public void addInterceptors(InterceptorRegistry registry) {
        registry.addInterceptor(bodies);
    }

    /** Scripts import each other by plain addresses, which no content hash reaches: browsers ask whether they still hold. */
    @Override
    public void addResourceHandlers(ResourceHandlerRegistry registry) {
        for (String folder : List.of("js", "vendor")) {
            registry.addResourceHandler("/static/" + folder + "/**")
                    .addResourceLocations("classpath:/static/" + folder + "/")
                    .setCacheControl(CacheControl.noCache())
                    .resourceChain(true)
                    .addResolver(new VersionResourceResolver().addContentVersionStrategy("/**"));
        }
    }

    private static final String FACT = "fact.";

    /** Documents that one address names. */
    public static final int MOST = 500;

    /** Ids of documents as an address carries them: "12,15,18". */
    public static List<Long> ids(String text) {
        return ids(text, MOST);
    }

    /** As {@link #ids(String)}, for what a form posts: as many as one act takes. */
    public static List<Long> many(String text) {
        return ids(text, 5_000);
    }

    private static List<Long> ids(String text, int most) {
        if (text.isBlank()) return List.of();
        String[] ids = text.split(",", most + 1);
        if (ids.length > most || !Arrays.stream(ids).allMatch(id -> id.matches("\\d{1,18}"))) throw new NotThere();
        return Arrays.stream(ids).map(Long::valueOf).distinct().toList();
    }

    /** The id that a field of a form names; nothing where it names none. */
    public static Optional<Long> id(Map<String, String> form, String field) {
        return ids(form.getOrDefault(field, "")).stream().findFirst();
    }

    /** What a form says of facts, by their short names. */
    public static Map<String, String> facts(Map<String, String> form) {
        Map<String, String> said = new HashMap<>();
        form.forEach((name, value) -> {
            if (name.startsWith(FACT)) said.put(name.substring(FACT.length()), value);
        });
        return said;
    }
}
