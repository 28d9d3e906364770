package mintshelf.core.drawing.dxf;

import java.util.ArrayList;
import java.util.List;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** The attributes of a drawing: what blocks carry as named values, a title block above all. */
public final class Attributes {
    private static final Pattern UNICODE = Pattern.compile("\\\\U\\+([0-9A-Fa-f]{4})");

    private Attributes() {}

    /** A value of an inserted block. */
    public record Attribute(String block, String tag, String value) {}

    /** All attributes of inserted blocks, in the order of the file. O(tags). */
    public static List<Attribute> of(DxfTags tags) {
        List<Attribute> found = new ArrayList<>();
        String block = "";
        int i = 0;
        while (i < tags.size()) {
            if (tags.is(i, 0, "INSERT")) {
                block = first(tags, i + 1, 2);
            } else if (tags.is(i, 0, "ATTRIB")) {
                found.add(new Attribute(block, first(tags, i + 1, 2), text(first(tags, i + 1, 1))));
            }
            i++;
        }
        return List.copyOf(found);
    }

    private static String first(DxfTags tags, int from, int code) {
        for (int i = from; i < tags.size() && tags.code(i) != 0; i++) if (tags.code(i) == code) return tags.value(i);
        return "";
    }

    /** Resolves the codes that a line of text may hold: \U+XXXX, and %%c %%d %%p for ⌀ ° ±. */
    static String text(String raw) {
        if (raw.indexOf('\\') < 0 && raw.indexOf('%') < 0) return raw;
        Matcher escape = UNICODE.matcher(raw);
        String text = escape.replaceAll(
                m -> Matcher.quoteReplacement(String.valueOf((char) Integer.parseInt(m.group(1), 16))));
        return text.replaceAll("(?i)%%c", "⌀")
                .replaceAll("(?i)%%d", "°")
                .replaceAll("(?i)%%p", "±")
                .replace("%%%", "%");
    }
}
