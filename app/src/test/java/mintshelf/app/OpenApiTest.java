package mintshelf.app;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.annotation.JsonProperty;
import java.io.IOException;
import java.io.InputStream;
import java.lang.reflect.GenericArrayType;
import java.lang.reflect.ParameterizedType;
import java.lang.reflect.RecordComponent;
import java.lang.reflect.Type;
import java.lang.reflect.WildcardType;
import java.math.BigDecimal;
import java.nio.charset.StandardCharsets;
import java.time.LocalDate;
import java.util.Arrays;
import java.util.Collection;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import org.junit.jupiter.api.Test;
import org.springframework.core.MethodParameter;
import org.springframework.core.io.ClassPathResource;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestHeader;
import org.springframework.web.bind.annotation.RequestMethod;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ValueConstants;
import org.springframework.web.method.HandlerMethod;
import org.springframework.web.servlet.mvc.method.annotation.RequestMappingHandlerMapping;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/**
 * The description of the interface for programs is kept beside the code, for its words; what it says of addresses, parameters, bodies
 * and answers is made of the code here and compared.
 */
class OpenApiTest {
    private static final JsonMapper JSON = JsonMapper.builder().build();
    private final Server server = Server.shared();
    private final JsonNode described;

    OpenApiTest() throws IOException {
        try (InputStream in = new ClassPathResource("mintshelf/app/api/openapi.json").getInputStream()) {
            described = JSON.readTree(new String(in.readAllBytes(), StandardCharsets.UTF_8));
        }
    }

    private Map<String, HandlerMethod> handlers() {
        Map<String, HandlerMethod> handlers = new TreeMap<>();
        server.bean("requestMappingHandlerMapping", RequestMappingHandlerMapping.class)
                .getHandlerMethods()
                .forEach((info, handler) -> info.getPatternValues().stream()
                        .filter(p -> p.startsWith("/api/v1"))
                        .forEach(p -> {
                            for (RequestMethod m : info.getMethodsCondition().getMethods()) {
                                handlers.put(m.name().toLowerCase(Locale.ROOT) + " " + p.substring(7), handler);
                            }
                        }));
        return handlers;
    }

    /** A type in a word: integer, string, boolean, array of …, the name of a record, or object. */
    private String word(Type type) {
        if (type instanceof ParameterizedType p) {
            Class<?> raw = (Class<?>) p.getRawType();
            Type first = p.getActualTypeArguments()[0];
            if (Collection.class.isAssignableFrom(raw)) return "array of " + word(first);
            if (raw == Optional.class || raw == ResponseEntity.class) return word(first);
            return "object";
        }
        if (type instanceof WildcardType || type instanceof GenericArrayType) return "object";
        Class<?> c = (Class<?>) type;
        if (c.isRecord())
            return described.path("components").path("schemas").has(c.getSimpleName()) ? c.getSimpleName() : "object";
        if (c == long.class || c == int.class || c == Long.class || c == Integer.class) return "integer";
        if (c == BigDecimal.class) return "number";
        if (c == boolean.class || c == Boolean.class) return "boolean";
        if (c == String.class || c == LocalDate.class || c.isEnum()) return "string";
        return c == void.class ? "nothing" : "object";
    }

    /** A described schema in the same words; that it may be null is its own affair. */
    private String word(JsonNode schema) {
        if (schema.has("anyOf")) {
            for (JsonNode one : schema.path("anyOf"))
                if (!one.path("type").asString("").equals("null")) return word(one);
        }
        if (schema.has("$ref")) return schema.path("$ref").asString().replaceAll(".*/", "");
        JsonNode type = schema.path("type");
        String word = type.isArray() ? type.get(0).asString() : type.asString("object");
        return word.equals("array") ? "array of " + word(schema.path("items")) : word;
    }

    private static Set<String> said(JsonNode parameters, String in) {
        Set<String> said = new TreeSet<>();
        for (JsonNode p : parameters) {
            if (p.path("in").asString().equals(in)) {
                said.add(p.path("name").asString() + (p.path("required").asBoolean() ? " required" : ""));
            }
        }
        return said;
    }

    private static String name(String given, MethodParameter parameter) {
        return given.isEmpty() ? parameter.getParameter().getName() : given;
    }

    @Test
    void everyParameterIsDescribedAsItIsAsked() {
        handlers().forEach((address, handler) -> {
            JsonNode operation = operation(address);
            Set<String> query = new TreeSet<>();
            Set<String> path = new TreeSet<>();
            Set<String> header = new TreeSet<>();
            for (MethodParameter p : handler.getMethodParameters()) {
                RequestParam asked = p.getParameterAnnotation(RequestParam.class);
                if (asked != null) {
                    boolean required = asked.required()
                            && asked.defaultValue().equals(ValueConstants.DEFAULT_NONE)
                            && p.getParameterType() != Optional.class;
                    String name = name(asked.name(), p);
                    query.add(name + (required ? " required" : ""));
                    assertThat(type(operation.path("parameters"), name))
                            .as(address + " " + name)
                            .isEqualTo(word(p.getGenericParameterType()));
                }
                PathVariable at = p.getParameterAnnotation(PathVariable.class);
                if (at != null) path.add(name(at.name(), p) + " required");
                RequestHeader head = p.getParameterAnnotation(RequestHeader.class);
                if (head != null)
                    header.add(name(head.value().isEmpty() ? head.name() : head.value(), p) + " required");
            }
            JsonNode parameters = operation.path("parameters");
            assertThat(said(parameters, "query")).as(address).isEqualTo(query);
            assertThat(said(parameters, "path")).as(address).isEqualTo(path);
            assertThat(said(parameters, "header")).as(address).containsAll(header);
        });
    }

    private String type(JsonNode parameters, String name) {
        for (JsonNode p : parameters) if (p.path("name").asString().equals(name)) return word(p.path("schema"));
        return "not described";
    }

    private JsonNode operation(String address) {
        String[] two = address.split(" ");
        JsonNode operation = described.path("paths").path(two[1]).path(two[0]);
        assertThat(operation.isMissingNode()).as(address).isFalse();
        return operation;
    }

    @Test
    void everyBodyHasTheFieldsThatAreDescribed() {
        handlers().forEach((address, handler) -> {
            JsonNode schema = operation(address)
                    .path("requestBody")
                    .path("content")
                    .path("application/json")
                    .path("schema");
            Optional<MethodParameter> body = Arrays.stream(handler.getMethodParameters())
                    .filter(p -> p.hasParameterAnnotation(RequestBody.class))
                    .findFirst();
            assertThat(schema.isMissingNode()).as(address + " has a body").isEqualTo(body.isEmpty());
            body.ifPresent(p -> fields(address, p.getParameterType(), schema));
        });
    }

    /** As it is written: a word that Java keeps for itself is a field all the same. */
    private static String name(RecordComponent c) {
        JsonProperty named = c.getAccessor().getAnnotation(JsonProperty.class);
        return named == null ? c.getName() : named.value();
    }

    private void fields(String where, Class<?> record, JsonNode schema) {
        JsonNode told = schema.has("$ref")
                ? described.path("components").path("schemas").path(word(schema))
                : schema;
        Map<String, String> wanted = new TreeMap<>();
        for (RecordComponent c : record.getRecordComponents()) wanted.put(name(c), word(c.getGenericType()));
        Map<String, String> is = new TreeMap<>();
        told.path("properties")
                .propertyNames()
                .forEach(n -> is.put(n, word(told.path("properties").path(n))));
        assertThat(is).as(where).isEqualTo(wanted);
        for (RecordComponent c : record.getRecordComponents()) {
            if (c.getGenericType() instanceof ParameterizedType p
                    && p.getActualTypeArguments()[0] instanceof Class<?> inner
                    && inner.isRecord()
                    && word(inner).equals("object")) {
                fields(
                        where + "." + c.getName(),
                        inner,
                        told.path("properties").path(c.getName()).path("items"));
            }
        }
    }

    @Test
    void everyAnswerIsOfTheTypeThatIsDescribed() {
        handlers().forEach((address, handler) -> {
            Type type = handler.getMethod().getGenericReturnType();
            String word = word(type);
            if (word.equals("object") || word.equals("string")) return; // files, and answers of several forms
            JsonNode responses = operation(address).path("responses");
            JsonNode good = responses.path(responses.propertyNames().stream()
                    .filter(n -> n.startsWith("2"))
                    .findFirst()
                    .orElseThrow());
            JsonNode schema = good.path("content").path("application/json").path("schema");
            if (word.equals("nothing"))
                assertThat(schema.isMissingNode()).as(address).isTrue();
            else assertThat(word(schema)).as(address).isEqualTo(word);
        });
    }

    @Test
    void everySchemaHasTheFieldsOfItsRecord() {
        Map<String, Class<?>> records = new TreeMap<>();
        for (HandlerMethod handler : handlers().values()) {
            for (Class<?> inner : handler.getBeanType().getDeclaredClasses()) records.put(inner.getSimpleName(), inner);
        }
        handlers().values().stream()
                .map(h -> h.getMethod().getReturnType())
                .filter(Class::isRecord)
                .forEach(r -> records.put(r.getSimpleName(), r));
        List<String> names =
                List.copyOf(described.path("components").path("schemas").propertyNames());
        assertThat(names).hasSizeGreaterThan(15);
        for (String name : names) {
            assertThat(records).containsKey(name);
            fields(
                    name,
                    records.get(name),
                    described.path("components").path("schemas").path(name));
        }
    }

    @Test
    void everyReferenceLeadsSomewhereAndEveryOperationHasAWordAndARight() {
        for (JsonNode ref : described.findValues("$ref")) {
            JsonNode to = described.at(ref.asString().substring(1));
            assertThat(to.isMissingNode()).as(ref.asString()).isFalse();
        }
        handlers().forEach((address, handler) -> {
            JsonNode operation = operation(address);
            assertThat(operation.path("summary").asString("")).as(address).isNotBlank();
            assertThat(operation.path("responses").size()).as(address).isPositive();
        });
    }
}
