package mintshelf.core.drawing.dxf;

import java.nio.charset.Charset;
import java.util.ArrayList;
import java.util.List;
import java.util.regex.MatchResult;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** The attributes of a drawing: what blocks carry as named values, a title block above all. */
public final class Attributes {
    private static final Pattern CODE =
            Pattern.compile("\\\\U\\+([0-9A-Fa-f]{4})|\\\\M\\+([1-5])([0-9A-Fa-f]{4})|%%([cdpuokCDPUOK%]|\\d{3})");
    /** Code pages of \M+n: 1 to 5. */
    private static final String[] PAGES = {"", "windows-31j", "x-windows-950", "x-windows-949", "x-Johab", "GBK"};

    private Attributes() {}

    /**
     * A value of an inserted block.
     *
     * @param sites where the value lies in the file: twice where a file keeps it once more as a text of several lines, nowhere
     *     where the file leaves it out
     */
    public record Attribute(String block, String tag, String value, List<Place> sites) {}

    /** The bytes of a value: the first and the one behind the last. */
    public record Place(int from, int to) {}

    /** All attributes of inserted blocks: those of the entities section, then those inside blocks. O(bytes). */
    static List<Attribute> of(DxfDrawing drawing) {
        List<Attribute> found = new ArrayList<>();
        if (drawing.entities >= 0) in(drawing, drawing.entities, drawing.entitiesEnd, found);
        // Layouts but the active one keep their entities in blocks, and title blocks stand in blocks of their own too.
        for (DxfDrawing.Block block : drawing.blocksInOrder()) in(drawing, block.from(), block.to(), found);
        return List.copyOf(found);
    }

    private static void in(DxfDrawing drawing, int from, int to, List<Attribute> found) {
        TagCursor tags = new TagCursor(drawing.source, from, 1);
        DxfSource source = drawing.source;
        String block = "";
        boolean insert = false;
        boolean attribute = false;
        String tag = "";
        String value = "";
        List<Place> sites = new ArrayList<>();
        while (true) {
            boolean more = tags.at < to && tags.next();
            if (!more && (!tags.damaged || !tags.resume())) break;
            if (!more) continue;
            if (tags.code == 0) {
                if (attribute) found.add(new Attribute(block, tag, text(value), List.copyOf(sites)));
                insert = tags.is("INSERT");
                attribute = tags.is("ATTRIB");
                tag = "";
                value = "";
                sites.clear();
                if (insert) block = "";
            } else if (insert && tags.code == 2) {
                block = source.text(tags.start, tags.end);
                insert = false;
            } else if (attribute && tags.code == 1) {
                if (sites.isEmpty()) value = source.text(tags.start, tags.end);
                if (sites.size() < 8) sites.add(new Place(tags.start, tags.end));
            } else if (attribute && tags.code == 2 && tag.isEmpty()) {
                tag = source.text(tags.start, tags.end);
            }
        }
        if (attribute) found.add(new Attribute(block, tag, text(value), List.copyOf(sites)));
    }

    /**
     * Resolves the codes that a line of text may hold: \U+XXXX and \M+nXXXX, %%c %%d %%p for ⌀ ° ±, %%nnn for a character; marks
     * that switch underlines go. In one pass, so that a resolved sign never begins another code.
     */
    static String text(String raw) {
        if (raw.indexOf('\\') < 0 && raw.indexOf('%') < 0) return raw;
        return CODE.matcher(raw).replaceAll(m -> Matcher.quoteReplacement(resolved(m)));
    }

    private static String resolved(MatchResult m) {
        if (m.group(1) != null) return String.valueOf((char) Integer.parseInt(m.group(1), 16));
        if (m.group(2) != null) {
            int pair = Integer.parseInt(m.group(3), 16);
            byte[] bytes = pair < 256 ? new byte[] {(byte) pair} : new byte[] {(byte) (pair >> 8), (byte) pair};
            return new String(bytes, Charset.forName(PAGES[m.group(2).charAt(0) - '0']));
        }
        String code = m.group(4);
        if (code.length() == 3) {
            int c = Integer.parseInt(code);
            return c >= 32 && c < 256 ? String.valueOf((char) c) : "";
        }
        return switch (Character.toLowerCase(code.charAt(0))) {
            case 'c' -> "⌀";
            case 'd' -> "°";
            case 'p' -> "±";
            case '%' -> "%";
            default -> "";
        };
    }
}
