package mintshelf.companion;

import java.io.PrintWriter;
import java.math.BigDecimal;
import java.math.RoundingMode;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import tools.jackson.core.JsonGenerator;
import tools.jackson.core.StreamWriteFeature;

/** Writes JSON as it goes: objects keep the order of their members. */
final class Json {
    private Json() {}

    /** Members of an object: name, value, name, value. */
    static Map<String, String> members(String... pairs) {
        Map<String, String> map = new LinkedHashMap<>();
        for (int i = 0; i < pairs.length; i += 2) map.put(pairs[i], pairs[i + 1]);
        return map;
    }

    /** A line of JSON; values are maps, lists, numbers, truths and texts. */
    static void print(PrintWriter out, Object value) {
        try (JsonGenerator json = ShelfClient.JSON
                .writer()
                .without(StreamWriteFeature.AUTO_CLOSE_TARGET)
                .createGenerator(out)) {
            write(json, value);
        }
        out.println();
    }

    private static void write(JsonGenerator json, Object value) {
        if (value instanceof Map<?, ?> map) {
            json.writeStartObject();
            map.forEach((name, member) -> {
                json.writeName(String.valueOf(name));
                write(json, member);
            });
            json.writeEndObject();
        } else if (value instanceof List<?> list) {
            json.writeStartArray();
            list.forEach(each -> write(json, each));
            json.writeEndArray();
        } else if (value instanceof Double number) {
            number(json, number);
        } else if (value instanceof Number || value instanceof Boolean) {
            json.writePOJO(value);
        } else {
            json.writeString(String.valueOf(value));
        }
    }

    /** A millionth is finer than any sheet. */
    private static void number(JsonGenerator json, double value) {
        if (!Double.isFinite(value)) {
            json.writeNull();
            return;
        }
        BigDecimal rounded =
                new BigDecimal(value).setScale(6, RoundingMode.HALF_UP).stripTrailingZeros();
        json.writeNumber(rounded.scale() < 1 ? rounded.setScale(1) : rounded);
    }
}
