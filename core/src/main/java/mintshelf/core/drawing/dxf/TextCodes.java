package mintshelf.core.drawing.dxf;

import java.util.ArrayList;
import java.util.List;

/** The codes inside texts of exchange drawings, resolved to what a reader sees. */
final class TextCodes {
    private TextCodes() {}

    /** A single line: \U+XXXX, %%c %%d %%p; underline and overline marks (%%u %%o) go. */
    static String line(String raw) {
        return Attributes.text(raw);
    }

    /** A text of several lines: paragraphs, stacks (\S1/2;), fonts, heights, colours and groups resolved. */
    static List<String> lines(String raw) {
        List<String> lines = new ArrayList<>();
        StringBuilder line = new StringBuilder();
        String text = Attributes.text(raw);
        int i = 0;
        while (i < text.length()) {
            char c = text.charAt(i);
            if (c == '{' || c == '}') {
                i++;
            } else if (c != '\\' || i + 1 >= text.length()) {
                line.append(c);
                i++;
            } else {
                i = code(text, i + 1, line, lines);
            }
        }
        lines.add(line.toString());
        return lines;
    }

    /** Reads one code at {@code at}, behind its backslash; gives where the text goes on. */
    private static int code(String text, int at, StringBuilder line, List<String> lines) {
        char c = text.charAt(at);
        switch (c) {
            case 'P', 'X' -> {
                lines.add(line.toString());
                line.setLength(0);
                return at + 1;
            }
            case '~' -> line.append('\u00a0');
            case '\\', '{', '}' -> line.append(c);
            case 'L', 'l', 'O', 'o', 'K', 'k' -> {
                // Underlines and the like have no letters of their own.
            }
            case 'S' -> {
                int end = text.indexOf(';', at);
                if (end < 0) return at + 1;
                line.append(text.substring(at + 1, end).replace('^', ' ').replace('#', '/'));
                return end + 1;
            }
            case 'A', 'C', 'c', 'F', 'f', 'H', 'Q', 'T', 'W', 'p' -> {
                int end = text.indexOf(';', at);
                return end < 0 ? at + 1 : end + 1;
            }
            default -> line.append(c);
        }
        return at + 1;
    }
}
