package mintshelf.core.drawing.dxf;

import java.util.ArrayList;
import java.util.List;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** The attributes of a drawing: what blocks carry as named values, a title block above all. */
public final class Attributes {
    private static final Pattern CODE = Pattern.compile("\\\\U\\+([0-9A-Fa-f]{4})|%%([cdpuok%CDPUOK])");

    private Attributes() {}

    /**
     * A value of an inserted block.
     *
     * @param sites the tags that hold the value: two where a file keeps it once more as a text of several lines, none where
     *     the file leaves it out
     */
    public record Attribute(String block, String tag, String value, List<Integer> sites) {}

    /** All attributes of inserted blocks, in the order of the file. O(tags). */
    public static List<Attribute> of(DxfTags tags) {
        List<Attribute> found = new ArrayList<>();
        String block = "";
        int i = 0;
        while (i < tags.size()) {
            if (tags.is(i, 0, "INSERT")) {
                block = first(tags, i + 1, 2);
            } else if (tags.is(i, 0, "ATTRIB")) {
                found.add(new Attribute(block, first(tags, i + 1, 2), text(first(tags, i + 1, 1)), sites(tags, i + 1)));
            }
            i++;
        }
        return List.copyOf(found);
    }

    private static String first(DxfTags tags, int from, int code) {
        for (int i = from; i < tags.size() && tags.code(i) != 0; i++) if (tags.code(i) == code) return tags.value(i);
        return "";
    }

    private static List<Integer> sites(DxfTags tags, int from) {
        List<Integer> sites = new ArrayList<>();
        for (int i = from; i < tags.size() && tags.code(i) != 0; i++) if (tags.code(i) == 1) sites.add(i);
        return List.copyOf(sites);
    }

    /**
     * Resolves the codes that a line of text may hold: \U+XXXX, and %%c %%d %%p for ⌀ ° ±; marks that switch underlines go. In
     * one pass, so that a resolved sign never begins another code.
     */
    static String text(String raw) {
        if (raw.indexOf('\\') < 0 && raw.indexOf('%') < 0) return raw;
        return CODE.matcher(raw)
                .replaceAll(m -> Matcher.quoteReplacement(
                        m.group(1) != null
                                ? String.valueOf((char) Integer.parseInt(m.group(1), 16))
                                : sign(Character.toLowerCase(m.group(2).charAt(0)))));
    }

    private static String sign(char code) {
        return switch (code) {
            case 'c' -> "⌀";
            case 'd' -> "°";
            case 'p' -> "±";
            case '%' -> "%";
            default -> "";
        };
    }
}
