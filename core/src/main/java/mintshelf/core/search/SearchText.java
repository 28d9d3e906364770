package mintshelf.core.search;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import mintshelf.core.base.Texts;

/**
 * A search as typed, read: words, of which each may be the beginning of one in title or file name, or of a number.
 *
 * @param text the cleaned text as a whole, for beginnings of numbers
 * @param words its words of two letters and more, lower case, letters and digits only
 * @param notUnderstood what reads as a question for a fact ("mass>2", "held:me"), which this search cannot answer: it is left out of
 *     the words and said, for an answer to another question would pass for the one to this
 */
public record SearchText(String text, List<String> words, List<String> notUnderstood) {
    private static final Pattern WORD = Pattern.compile("[\\p{L}\\p{N}]+");
    private static final int MOST_WORDS = 12;

    public SearchText {
        words = List.copyOf(words);
        notUnderstood = List.copyOf(notUnderstood);
    }

    /** A name, then a colon or a comparison, then a value or a phrase in quotation marks. */
    private static final Pattern QUESTION =
            Pattern.compile("(?<![\\p{L}\\p{N}_-])\\p{L}[\\p{L}_-]*(?::|[<>]=?|=)(?:\"[^\"]*\"?|[^\\s\"]+)");

    /** Reads any text; what is not a letter or digit parts words and never reaches a query. */
    public static SearchText read(String raw) {
        String line = Texts.shorten(Texts.line(raw), 200);
        List<String> notUnderstood = new ArrayList<>();
        Matcher question = QUESTION.matcher(line);
        while (question.find()) notUnderstood.add(question.group());
        String text = notUnderstood.isEmpty()
                ? line
                : question.replaceAll(" ").strip().replaceAll("\\s+", " ");
        List<String> words = new ArrayList<>();
        Matcher word = WORD.matcher(text.toLowerCase(Locale.ROOT));
        while (word.find() && words.size() < MOST_WORDS) {
            if (word.group().length() >= 2) words.add(word.group());
        }
        return new SearchText(text, words, notUnderstood);
    }

    /** The line of a text that has most of the words, as beginnings of its words; empty where none has any. O(letters). */
    public String line(String text) {
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

    private static boolean begins(String line, String word) {
        for (int at = line.indexOf(word); at >= 0; at = line.indexOf(word, at + 1)) {
            if (at == 0 || !Character.isLetterOrDigit(line.charAt(at - 1))) return true;
        }
        return false;
    }

    public boolean isEmpty() {
        return text.isEmpty();
    }
}
