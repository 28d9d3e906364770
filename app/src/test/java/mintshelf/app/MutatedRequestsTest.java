package mintshelf.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.lang.reflect.ParameterizedType;
import java.lang.reflect.RecordComponent;
import java.lang.reflect.Type;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.TreeMap;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import mintshelf.app.use.change.AskForChange;
import mintshelf.app.use.desk.Tokens;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import org.springframework.core.DefaultParameterNameDiscoverer;
import org.springframework.core.MethodParameter;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMethod;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.method.HandlerMethod;
import org.springframework.web.servlet.mvc.method.annotation.RequestMappingHandlerMapping;
import tools.jackson.databind.json.JsonMapper;

/**
 * Requests made from the list of addresses, with parts missing, null, of the wrong type, too long, of other people, in other
 * encodings. None is the server's fault: no answer is a 5xx, and the interface for programs answers with problems. Seeded: what
 * fails names its seed.
 */
class MutatedRequestsTest {
    private static final Server SERVER = Server.with();
    private static final JsonMapper JSON = JsonMapper.builder().build();
    /** What ends sessions or the server's people; and a stream, which does not end: LiveTest asks that. */
    private static final List<String> LEFT_OUT = List.of("/sign-out", "/first-start", "/live");

    private static final List<String> VALUES = List.of(
            "",
            " ",
            "x",
            "null",
            "-1",
            "0",
            "1",
            "true",
            "1e9",
            "3.5",
            "9999999999999999999999",
            "1,2,,3",
            "1,2,3",
            "../../x",
            "é€漢字\uD83D\uDE80",
            "%",
            "\u0000",
            "a\u0000b",
            "\u202Eabc",
            "'\"<>&;--",
            "${7*7}",
            "2026-02-30",
            "2026-11-26",
            "[]",
            "{}",
            "y".repeat(6000),
            "\uFFFF",
            "\uD800");

    private final HttpClient http =
            HttpClient.newBuilder().followRedirects(HttpClient.Redirect.NEVER).build();
    private final Web manager = Web.as(SERVER, "ines");
    private final Web designer = Web.as(SERVER, "priya");
    private final Web nobody = new Web(SERVER.origin());
    private final String token = SERVER.bean(Tokens.class).make(SERVER.actor("priya"), "mutations", true, 2);
    private final List<String> ids =
            new ArrayList<>(List.of("0", "-1", "999999999", "9223372036854775807", "x", "%C3%A9", "1"));
    private final List<String> wrong = new ArrayList<>();
    private int sent;

    MutatedRequestsTest() {
        long shelf = SERVER.shelf();
        long draft = SERVER.file("priya", shelf, "draft.txt", "d", true);
        long released = SERVER.released(shelf, "released.txt");
        Review review = new Review(SERVER);
        long reviewed = review.drawing(shelf, "reviewed.dxf");
        long round = review.send("priya", reviewed);
        long drawn = review.drawing(shelf, "drawn.dxf");
        SERVER.checkIn("tomasz", drawn, "stray", false);
        String order = SERVER.bean(AskForChange.class)
                .ask(
                        SERVER.actor("priya"),
                        List.of(SERVER.released(shelf, "ordered.txt")),
                        Server.key(),
                        "Order",
                        "because",
                        Map.of());
        for (long id : List.of(shelf, draft, released, reviewed, round, drawn)) ids.add("" + id);
        ids.add(order.substring("/orders/".length()));
    }

    @AfterAll
    static void stop() {
        SERVER.stop();
    }

    private record Address(RequestMethod method, String pattern, HandlerMethod handler) {}

    private List<Address> addresses() {
        Map<String, Address> all = new TreeMap<>();
        SERVER.bean("requestMappingHandlerMapping", RequestMappingHandlerMapping.class)
                .getHandlerMethods()
                .forEach((info, handler) -> {
                    if (!handler.getBeanType().getName().startsWith("mintshelf")) return;
                    for (String pattern : info.getPatternValues()) {
                        if (LEFT_OUT.contains(pattern)) continue;
                        for (RequestMethod m : info.getMethodsCondition().getMethods()) {
                            all.put(pattern + " " + m, new Address(m, pattern, handler));
                        }
                    }
                });
        return List.copyOf(all.values());
    }

    @Test
    void noRequestIsTheServersFault() {
        run(20261126, 9);
        System.out.println(sent + " mutated requests");
    }

    @Test
    @Tag("long")
    void noRequestIsTheServersFaultInTheLongForm() {
        for (long seed = 1; seed <= 20; seed++) run(seed, 40);
        System.out.println(sent + " mutated requests");
    }

    private void run(long seed, int each) {
        Random random = new Random(seed);
        for (Address address : addresses()) {
            for (int i = 0; i < each; i++) one(seed, random, address);
        }
        assertThat(wrong).as("seed " + seed).isEmpty();
    }

    private void one(long seed, Random random, Address address) {
        String path = path(random, address.pattern());
        Map<String, String> fields = fields(random, address.handler());
        String body = body(random, address.handler());
        boolean api = address.pattern().startsWith("/api/");
        HttpResponse<String> answer;
        if (api) answer = api(random, address, path, fields, body);
        else {
            Web web = List.of(manager, designer, designer, nobody).get(random.nextInt(4));
            answer = switch (address.method()) {
                case GET -> web.get(path + query(fields));
                case POST -> web.post(path, fields);
                default ->
                    web.send(address.method().name(), path + query(fields), body.getBytes(StandardCharsets.UTF_8));
            };
        }
        sent++;
        String type = answer.headers().firstValue("Content-Type").orElse("");
        // An address with a NUL is refused by the connector, before anybody knows whom it asks.
        boolean connector = path.contains("%00") && answer.statusCode() == 400;
        boolean problem = !api
                || answer.statusCode() < 400
                || answer.body().isEmpty()
                || connector
                || type.startsWith("application/problem+json");
        if (answer.statusCode() >= 500
                || !problem
                || answer.body().contains("at mintshelf.")
                || answer.body().contains("Exception:")) {
            wrong.add("seed " + seed + ": " + address.method() + " " + path + " " + shorten(fields.toString()) + " "
                    + shorten(body) + " -> " + answer.statusCode() + " " + type);
        }
    }

    private static String shorten(String text) {
        return text.length() < 300 ? text : text.substring(0, 300) + "…";
    }

    private HttpResponse<String> api(
            Random random, Address address, String path, Map<String, String> fields, String body) {
        HttpRequest.Builder request = HttpRequest.newBuilder(URI.create(SERVER.origin() + path + query(fields)))
                .method(address.method().name(), HttpRequest.BodyPublishers.ofString(body));
        if (random.nextInt(12) > 0) request.header("Authorization", "Bearer " + token);
        if (random.nextInt(8) > 0) request.header("Content-Type", "application/json");
        if (random.nextInt(6) > 0) {
            request.header("Idempotency-Key", random.nextInt(5) == 0 ? "not a key" : Server.key());
        }
        if (random.nextInt(10) == 0) request.header("Accept", "image/png");
        if (random.nextInt(10) == 0) request.header("Range", "bytes=5-1");
        try {
            return http.send(request.build(), HttpResponse.BodyHandlers.ofString());
        } catch (IOException | InterruptedException e) {
            throw new IllegalStateException(address + " " + path, e);
        }
    }

    private String path(Random random, String pattern) {
        return Pattern.compile("\\{[^}]+}").matcher(pattern).replaceAll(found -> {
            boolean number = !found.group().contains("token") && !found.group().contains("name");
            if (number || random.nextInt(3) == 0) return ids.get(random.nextInt(ids.size()));
            String value = VALUES.get(random.nextInt(VALUES.size() - 2))
                    .replace("/", "")
                    .replace("\\", "");
            return Matcher.quoteReplacement(
                    Web.encode(value.isBlank() ? "x" : shorten(value)).replace("+", "%20"));
        });
    }

    private Map<String, String> fields(Random random, HandlerMethod handler) {
        Map<String, String> fields = new LinkedHashMap<>();
        for (MethodParameter p : handler.getMethodParameters()) {
            RequestParam asked = p.getParameterAnnotation(RequestParam.class);
            if (asked == null || Map.class.isAssignableFrom(p.getParameterType())) continue;
            p.initParameterNameDiscovery(new DefaultParameterNameDiscoverer());
            String name = asked.name().isEmpty() ? p.getParameterName() : asked.name();
            if (name == null || random.nextInt(7) == 0) continue;
            boolean key = name.equals("actKey") && random.nextInt(6) > 0;
            boolean likely = random.nextInt(3) == 0;
            fields.put(
                    name,
                    key
                            ? Server.key()
                            : likely ? ids.get(random.nextInt(ids.size())) : VALUES.get(random.nextInt(VALUES.size())));
        }
        String id = ids.get(random.nextInt(ids.size()));
        if (random.nextInt(3) == 0) fields.put("upload." + id, VALUES.get(random.nextInt(VALUES.size())));
        if (random.nextInt(4) == 0) fields.put("row." + id, VALUES.get(random.nextInt(VALUES.size())));
        if (random.nextInt(4) == 0) fields.put("fact.material", VALUES.get(random.nextInt(VALUES.size())));
        if (random.nextInt(4) == 0) fields.put("named.0", VALUES.get(random.nextInt(VALUES.size())));
        return fields;
    }

    private static String query(Map<String, String> fields) {
        StringBuilder query = new StringBuilder();
        fields.forEach((name, value) -> query.append(query.isEmpty() ? '?' : '&')
                .append(Web.encode(name))
                .append('=')
                .append(Web.encode(value.length() > 2000 ? value.substring(0, 2000) : value)));
        return query.toString();
    }

    private String body(Random random, HandlerMethod handler) {
        for (MethodParameter p : handler.getMethodParameters()) {
            if (p.hasParameterAnnotation(RequestBody.class)) {
                if (random.nextInt(12) == 0)
                    return List.of("", "null", "[", "{\"a\":", "\"x\"", "[[[[]]]]", "{}")
                            .get(random.nextInt(7));
                return JSON.writeValueAsString(value(random, p.getGenericParameterType(), 0))
                        .replace("\\u0000", random.nextBoolean() ? "\\u0000" : "");
            }
        }
        return random.nextInt(4) == 0 ? VALUES.get(random.nextInt(VALUES.size() - 2)) : "";
    }

    /** What a body may hold where this type is asked for; now and then something else. */
    private Object value(Random random, Type type, int depth) {
        int odd = random.nextInt(10);
        if (odd == 0) return null;
        if (odd == 1) return random.nextBoolean() ? VALUES.get(random.nextInt(VALUES.size() - 2)) : List.of();
        if (odd == 2) return random.nextInt();
        if (type instanceof ParameterizedType list) {
            List<Object> all = new ArrayList<>();
            int many = random.nextInt(20) == 0 ? 700 : random.nextInt(4);
            for (int i = 0; i < many; i++) all.add(value(random, list.getActualTypeArguments()[0], depth + 1));
            return all;
        }
        if (type instanceof Class<?> c && c.isRecord()) {
            Map<String, Object> all = new LinkedHashMap<>();
            for (RecordComponent part : c.getRecordComponents()) {
                if (random.nextInt(9) > 0) all.put(part.getName(), value(random, part.getGenericType(), depth + 1));
            }
            return all;
        }
        if (type == String.class) {
            return random.nextInt(3) == 0 ? "0".repeat(64) : VALUES.get(random.nextInt(VALUES.size() - 2));
        }
        if (type == Boolean.class) return random.nextBoolean();
        String id = ids.get(random.nextInt(ids.size()));
        return id.matches("-?\\d{1,18}") ? Long.valueOf(id) : id;
    }
}
