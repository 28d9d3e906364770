package mintshelf.app.page.desk;

import java.io.IOException;
import java.io.InputStream;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import mintshelf.app.setup.Settings;
import org.springframework.core.io.ClassPathResource;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** The interface for programs, for people to read: the same description that programs get. */
@Controller
public class InterfacePage {
    private final Map<String, List<Operation>> byTag = new LinkedHashMap<>();
    private final List<Shape> shapes = new ArrayList<>();
    private final Settings settings;

    public InterfacePage(JsonMapper json, Settings settings) throws IOException {
        this.settings = settings;
        try (InputStream in = new ClassPathResource("mintshelf/app/api/openapi.json").getInputStream()) {
            JsonNode description = json.readTree(in);
            description
                    .path("paths")
                    .properties()
                    .forEach(path -> path.getValue()
                            .properties()
                            .forEach(method -> byTag.computeIfAbsent(
                                            method.getValue()
                                                    .path("tags")
                                                    .path(0)
                                                    .asString(),
                                            t -> new ArrayList<>())
                                    .add(operation(path.getKey(), method.getKey(), method.getValue()))));
            description
                    .path("components")
                    .path("schemas")
                    .properties()
                    .forEach(s -> shapes.add(new Shape(
                            s.getKey(), s.getValue().path("description").asString(""), fields(s.getValue()))));
        }
    }

    /** A value that is sent along: where it stands, what it is. */
    public record Field(String name, String what) {}

    /**
     * A thing that programs can ask.
     *
     * @param body what is sent; empty without one
     * @param answers what comes back
     */
    public record Operation(
            String method, String path, String summary, List<Field> fields, String body, String answers) {}

    /** An answer's shape. */
    public record Shape(String name, String what, List<Field> fields) {}

    private static Operation operation(String path, String method, JsonNode operation) {
        List<Field> fields = new ArrayList<>();
        for (JsonNode p : operation.path("parameters")) {
            String more = p.path("description").asString("");
            fields.add(new Field(
                    p.path("name").asString(),
                    p.path("in").asString() + ", " + type(p.path("schema")) + (more.isEmpty() ? "" : ": " + more)));
        }
        JsonNode body = operation.path("requestBody").path("content");
        String sent = body.has("application/json")
                ? type(body.path("application/json").path("schema"))
                : body.isEmpty() ? "" : "the bytes";
        JsonNode answers = operation.path("responses").path("200");
        String back = answers.isMissingNode()
                ? "nothing"
                : type(answers.path("content").path("application/json").path("schema"));
        return new Operation(
                method.toUpperCase(Locale.ROOT),
                "/api/v1" + path,
                operation.path("summary").asString(),
                fields,
                sent,
                back.isEmpty() ? answers.path("description").asString() : back);
    }

    private static List<Field> fields(JsonNode schema) {
        List<Field> fields = new ArrayList<>();
        schema.path("properties").properties().forEach(p -> fields.add(new Field(p.getKey(), type(p.getValue()))));
        return fields;
    }

    /** A schema in a few letters: {@code [Document]}, {@code {documents: [integer]}}, {@code string or none}. */
    private static String type(JsonNode schema) {
        if (schema.has("$ref")) return schema.path("$ref").asString().replaceAll(".*/", "");
        if (schema.has("anyOf")) return type(schema.path("anyOf").path(0)) + " or none";
        if (schema.has("enum")) {
            List<String> values = new ArrayList<>();
            schema.path("enum").forEach(v -> values.add(v.asString()));
            return String.join(" | ", values);
        }
        if (schema.path("type").isArray()) return schema.path("type").path(0).asString() + " or none";
        String type = schema.path("type").asString("");
        if (type.equals("array")) return "[" + type(schema.path("items")) + "]";
        if (type.equals("object") && schema.has("properties")) {
            List<String> inside = new ArrayList<>();
            fields(schema).forEach(f -> inside.add(f.name() + ": " + f.what()));
            return "{" + String.join(", ", inside) + "}";
        }
        return schema.path("format").asString("").equals("date-time") ? "time" : type;
    }

    @GetMapping("/desk/programs/interface")
    String show(Model model) {
        model.addAttribute("tags", byTag);
        model.addAttribute("shapes", shapes);
        model.addAttribute("origin", settings.origin());
        return "desk/interface";
    }
}
