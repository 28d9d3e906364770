package mintshelf.companion;

import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.stream.Collectors;
import mintshelf.core.drawing.dxf.Attributes.Attribute;
import mintshelf.core.drawing.dxf.DxfTags;

/** The JSON of {@code drawing facts}; docs/formats.md describes it. */
final class Json {
    private Json() {}

    static String of(DxfTags tags, List<Attribute> attributes, Map<String, String> title) {
        String list = attributes.stream()
                .map(a -> "{" + pair("block", a.block()) + "," + pair("tag", a.tag()) + "," + pair("value", a.value())
                        + "}")
                .collect(Collectors.joining(","));
        String block = title.entrySet().stream()
                .map(e -> pair(e.getKey(), e.getValue()))
                .collect(Collectors.joining(","));
        return "{" + pair("format", "DXF") + ",\"binary\":false," + pair("version", tags.version()) + ","
                + pair("encoding", tags.charset().name().toLowerCase(Locale.ROOT)) + ",\"attributes\":[" + list
                + "],\"titleBlock\":{" + block + "}}";
    }

    private static String pair(String name, String value) {
        return text(name) + ":" + text(value);
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
