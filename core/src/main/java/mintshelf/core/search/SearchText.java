package mintshelf.core.search;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import mintshelf.core.base.Texts;

/**
 * A search as typed, parted: words and phrases, and questions for what a document is ({@code stage:"in review","in preparation"}, {@code
 * mass>2}). A hyphen before a part turns it round. O(letters).
 *
 * @param parts in the order typed
 * @param leftOut what was not read, and why, in words: beyond the limits nothing is passed in silence
 */
public record SearchText(List<Part> parts, List<String> leftOut) {
    public static final int MOST_LETTERS = 500;
    public static final int MOST_PARTS = 20;
    public static final int MOST_VALUES = 20;
    private static final Pattern WORD = Pattern.compile("[\\p{L}\\p{N}]+");
    private static final Pattern NAME = Pattern.compile("(\\p{L}[\\p{L}\\p{N}_-]*)(:|<=|>=|<|>|=)(?=[^\\s,])");

    public SearchText {
        parts = List.copyOf(parts);
        leftOut = List.copyOf(leftOut);
    }

    /** How a question compares. */
    public enum Compare {
        IS(":"),
        LESS("<"),
        AT_MOST("<="),
        MORE(">"),
        AT_LEAST(">=");

        private final String sign;

        Compare(String sign) {
            this.sign = sign;
        }

        static Compare of(String sign) {
            for (Compare c : values()) if (c.sign.equals(sign)) return c;
            return IS; // "=" is another way to write ":"
        }
    }

    /** One part of it. */
    public sealed interface Part {
        /** Whether documents are looked for that it does not hold of. */
        boolean not();

        /** As typed. */
        String source();
    }

    /** A word or a phrase in quotation marks. */
    public record Said(String text, boolean phrase, boolean not, String source) implements Part {}

    /** A question for what a document is: a name, how it compares, and one value or several of which one is enough. */
    public record Asked(String name, Compare compare, List<String> values, boolean not, String source)
            implements Part {}

    /** The words of a text, lower case, letters and digits only. */
    public static List<String> words(String text) {
        List<String> words = new ArrayList<>();
        Matcher word = WORD.matcher(text.toLowerCase(Locale.ROOT));
        while (word.find()) words.add(word.group());
        return words;
    }

    /** Reads any text; what stands for a condition never reaches a query unread. */
    public static SearchText read(String raw) {
        List<String> leftOut = new ArrayList<>();
        String line = Texts.line(raw.length() > 4 * MOST_LETTERS ? raw.substring(0, 4 * MOST_LETTERS) : raw);
        if (line.length() > MOST_LETTERS) {
            line = line.substring(0, MOST_LETTERS);
            leftOut.add("all behind the first " + MOST_LETTERS + " letters");
        }
        Reader reader = new Reader(line);
        List<Part> parts = new ArrayList<>();
        for (Optional<Part> next = reader.next(); next.isPresent(); next = reader.next()) {
            if (parts.size() == MOST_PARTS) {
                leftOut.add("all behind the first " + MOST_PARTS + " conditions");
                break;
            }
            parts.add(next.get());
        }
        return new SearchText(parts, leftOut);
    }

    /** The words that are not asked for by name, as one text: a number may have blanks. */
    public String plain() {
        StringBuilder plain = new StringBuilder();
        for (Part part : parts) {
            if (part instanceof Said said && !said.not())
                plain.append(plain.isEmpty() ? "" : " ").append(said.text());
        }
        return plain.toString();
    }

    public boolean isEmpty() {
        return parts.isEmpty();
    }

    /** The line of a text that has most of the words, as beginnings of its words; empty where none has any. O(letters). */
    public static String line(List<String> words, String text) {
        String best = "";
        long most = 0;
        for (String line : text.split("\n")) {
            String low = line.toLowerCase(Locale.ROOT);
            long has = words.stream().filter(w -> begins(low, w)).count();
            if (has <= most) continue;
            most = has;
            best = line;
        }
        return Texts.shorten(best, 160);
    }

    /** Whether all words stand in a text, as beginnings of its words. */
    public static boolean has(List<String> words, String text) {
        String low = text.toLowerCase(Locale.ROOT);
        return words.stream().allMatch(w -> begins(low, w));
    }

    private static boolean begins(String line, String word) {
        for (int at = line.indexOf(word); at >= 0; at = line.indexOf(word, at + 1)) {
            if (at == 0 || !Character.isLetterOrDigit(line.charAt(at - 1))) return true;
        }
        return false;
    }

    /** Walks along the line, part by part. */
    private static final class Reader {
        private final String line;
        private int at;

        Reader(String line) {
            this.line = line;
        }

        Optional<Part> next() {
            while (at < line.length() && line.charAt(at) == ' ') at++;
            if (at == line.length()) return Optional.empty();
            int start = at;
            boolean not = line.charAt(at) == '-' && at + 1 < line.length() && turns(line.charAt(at + 1));
            if (not) at++;
            if (line.charAt(at) == '"') {
                String phrase = quoted();
                return Optional.of(new Said(phrase, true, not, line.substring(start, at)));
            }
            Matcher name = NAME.matcher(line).region(at, line.length());
            if (name.lookingAt()) {
                at = name.end();
                List<String> values = values();
                return Optional.of(new Asked(
                        name.group(1).toLowerCase(Locale.ROOT),
                        Compare.of(name.group(2)),
                        values,
                        not,
                        line.substring(start, at)));
            }
            String word = until(" ");
            return Optional.of(new Said(word, false, not, line.substring(start, at)));
        }

        private static boolean turns(char c) {
            return c == '"' || Character.isLetter(c);
        }

        private List<String> values() {
            List<String> values = new ArrayList<>();
            while (at < line.length() && line.charAt(at) != ' ') {
                String value = line.charAt(at) == '"' ? quoted() : until(" ,");
                if (!value.isBlank() && values.size() < MOST_VALUES) values.add(value.strip());
                if (at < line.length() && line.charAt(at) == ',') at++;
            }
            return values;
        }

        private String quoted() {
            int end = line.indexOf('"', at + 1);
            String text = line.substring(at + 1, end < 0 ? line.length() : end);
            at = end < 0 ? line.length() : end + 1;
            return text;
        }

        private String until(String stops) {
            int start = at;
            while (at < line.length() && stops.indexOf(line.charAt(at)) < 0) at++;
            return line.substring(start, at);
        }
    }
}
