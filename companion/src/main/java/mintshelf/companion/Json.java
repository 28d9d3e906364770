package mintshelf.companion;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.stream.Collectors;

/** Writes JSON: objects keep the order of their members, numbers use dots, texts are UTF-8. */
final class Json {
    private Json() {}

    /** Members of an object: name, value, name, value. */
    static Map<String, String> members(String... pairs) {
        Map<String, String> map = new LinkedHashMap<>();
        for (int i = 0; i < pairs.length; i += 2) map.put(pairs[i], pairs[i + 1]);
        return map;
    }

    static String of(Object value) {
        if (value instanceof Map<?, ?> map) {
            return map.entrySet().stream()
                    .map(e -> text(String.valueOf(e.getKey())) + ": " + of(e.getValue()))
                    .collect(Collectors.joining(", ", "{", "}"));
        }
        if (value instanceof List<?> list) {
            return list.stream().map(Json::of).collect(Collectors.joining(", ", "[", "]"));
        }
        if (value instanceof Double number) return number(number);
        if (value instanceof Number || value instanceof Boolean) return value.toString();
        return text(String.valueOf(value));
    }

    /** A millionth is finer than any sheet. */
    private static String number(double value) {
        if (!Double.isFinite(value)) return "null";
        String text = String.format(Locale.ROOT, "%.6f", value).replaceAll("0+$", "");
        return text.endsWith(".") ? text + "0" : text;
    }

    private static String text(String value) {
        StringBuilder out = new StringBuilder("\"");
        for (char c : value.toCharArray()) {
            if (c == '"' || c == '\\') out.append('\\').append(c);
            else if (c < 0x20) out.append(String.format("\\u%04x", (int) c));
            else out.append(c);
        }
        return out.append('"').toString();
    }
}
