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
            } else if (c == '^' && i + 1 < text.length()) {
                // A control character as the format writes it: ^J is a line end, ^I a tab.
                char control = text.charAt(i + 1);
                if (control == 'J') {
                    lines.add(line.toString());
                    line.setLength(0);
                } else if (control == ' ') {
                    line.append('^');
                } else if (control == 'I') {
                    line.append(' ');
                }
                i += 2;
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
            case 'P', 'X', 'N' -> {
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
                line.append(stack(text.substring(at + 1, end)));
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

    /** A fraction as 1/2, tolerances one over the other as +0.1 -0.2. */
    private static String stack(String inner) {
        if (inner.indexOf('^') >= 0)
            return inner.replace("^ ", "^").replace('^', ' ').strip();
        return inner.replace('#', '/');
    }

    /** The height that the text sets for itself at its beginning, 0 where it sets none: \H3.5; or \H0.7x;. */
    static double height(String raw, double height) {
        int i = 0;
        while (i < raw.length() && (raw.charAt(i) == '{' || raw.charAt(i) == '\\')) {
            if (raw.charAt(i) == '{') {
                i++;
                continue;
            }
            int end = raw.indexOf(';', i);
            if (end < 0 || i + 1 >= raw.length() || "ACcFfHQTWp".indexOf(raw.charAt(i + 1)) < 0) return 0;
            if (raw.charAt(i + 1) == 'H') {
                String value = raw.substring(i + 2, end);
                boolean times = value.endsWith("x");
                try {
                    double n = Double.parseDouble(times ? value.substring(0, value.length() - 1) : value);
                    double own = times ? n * height : n;
                    return own > 0 && own < 1e9 ? own : 0;
                } catch (NumberFormatException e) {
                    return 0;
                }
            }
            i = end + 1;
        }
        return 0;
    }

    /** Breaks lines at blanks so that none is wider than {@code width}; letters are taken as {@code letter} wide. */
    static List<String> wrapped(List<String> lines, double width, double letter) {
        int most = width <= 0 || letter <= 0 ? Integer.MAX_VALUE : (int) Math.max(1, Math.round(width / letter));
        List<String> wrapped = new ArrayList<>();
        for (String line : lines) {
            String rest = line;
            while (rest.length() > most && wrapped.size() < 2000) {
                int at = rest.lastIndexOf(' ', most);
                if (at <= 0) at = rest.indexOf(' ', most);
                if (at <= 0) break;
                wrapped.add(rest.substring(0, at));
                rest = rest.substring(at + 1);
            }
            wrapped.add(rest);
        }
        return wrapped;
    }
}
