package mintshelf.core.base;

import java.text.Normalizer;
import java.util.Locale;
import java.util.function.Predicate;

/** Text that came from outside, made fit to be kept. */
public final class Texts {
    /** Letters of a code, a number behind it aside. */
    private static final int CODE = 34;

    private Texts() {}

    /**
     * One line: control and format characters out (line breaks become blanks), blanks folded and trimmed, composed (NFC).
     *
     * <p>Bidirectional overrides go too: they can make a name read as another one (Unicode TR 36, 2.5).
     */
    public static String line(String raw) {
        if (isPlain(raw)) return raw;
        StringBuilder out = new StringBuilder(raw.length());
        raw.codePoints().forEach(c -> {
            int type = Character.getType(c);
            if (c == '\n' || c == '\r' || c == '\t' || Character.isSpaceChar(c)) out.append(' ');
            else if (type != Character.CONTROL
                    && type != Character.FORMAT
                    && type != Character.SURROGATE
                    && type != Character.UNASSIGNED) out.appendCodePoint(c);
        });
        return Normalizer.normalize(out, Normalizer.Form.NFC)
                .replaceAll(" +", " ")
                .strip();
    }

    /** Whether a text is a clean line of ASCII already: most names are, and desks have many. */
    private static boolean isPlain(String raw) {
        char before = ' ';
        for (int i = 0; i < raw.length(); i++) {
            char c = raw.charAt(i);
            if (c < ' ' || c > '~' || (c == ' ' && before == ' ')) return false;
            before = c;
        }
        return raw.isEmpty() || before != ' ';
    }

    /** Several lines: as {@link #line}, line breaks kept, at most one empty line in a row. */
    public static String lines(String raw) {
        StringBuilder out = new StringBuilder();
        for (String part : raw.replace("\r\n", "\n").replace('\r', '\n').split("\n", -1)) {
            out.append(line(part)).append('\n');
        }
        return out.toString().replaceAll("\n{3,}", "\n\n").strip();
    }

    /** The key under which names are compared: composed and without case. */
    public static String key(String raw) {
        if (isPlain(raw)) return raw.toLowerCase(Locale.ROOT);
        return Normalizer.normalize(line(raw).toUpperCase(Locale.ROOT).toLowerCase(Locale.ROOT), Normalizer.Form.NFC);
    }

    /**
     * A code made of a name, which nothing has yet: small letters, digits and hyphens, at most 40; names in other letters give
     * {@code otherwise}, with a number behind.
     */
    public static String code(String name, String otherwise, Predicate<String> taken) {
        String code = key(name).replaceAll("[^a-z0-9]+", "-").replaceAll("^-+|-+$", "");
        if (code.length() > CODE) code = code.substring(0, CODE).replaceAll("-+$", "");
        if (code.isEmpty()) code = otherwise;
        String free = code;
        for (int n = 2; taken.test(free); n++) free = code + "-" + n;
        return free;
    }

    /** At most {@code most} characters, cut at a code point, with an ellipsis where something was cut. */
    public static String shorten(String text, int most) {
        if (text.length() <= most) return text;
        int end = most - 1;
        if (Character.isHighSurrogate(text.charAt(end - 1))) end--;
        return text.substring(0, end).stripTrailing() + "…";
    }

    /** A text of required length, or the refusal that says what is wrong with it. */
    public static Outcome<String> required(String what, String raw, int most) {
        String text = line(raw);
        if (text.isEmpty()) {
            return Outcome.refused("text.missing", what + " is empty.", "Type one; nothing else was changed.");
        }
        return tooLong(what, text, most);
    }

    /** A text that may be empty but not longer than {@code most}. */
    public static Outcome<String> optional(String what, String raw, int most) {
        return tooLong(what, line(raw), most);
    }

    /** A text of several lines that may be empty but not longer than {@code most}. */
    public static Outcome<String> optionalLines(String what, String raw, int most) {
        return tooLong(what, lines(raw), most);
    }

    private static Outcome<String> tooLong(String what, String text, int most) {
        if (text.length() <= most) return Outcome.granted(text);
        return Outcome.refused(
                "text.long",
                what + " has " + Numbers.grouped(text.length()) + " characters; " + Numbers.grouped(most)
                        + " are the most.",
                "Shorten it; nothing was changed.");
    }
}
