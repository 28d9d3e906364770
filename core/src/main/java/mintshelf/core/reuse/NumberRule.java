package mintshelf.core.reuse;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import mintshelf.core.base.Outcome;
import mintshelf.core.base.Texts;
import mintshelf.core.document.FileName;
import mintshelf.core.numbering.NumberKey;

/**
 * How numbers of a design become those of another one: {@code TG40-####} becomes {@code TG41-####}. A # is a digit, a * at the end the rest of
 * the number; both go along as they are, what stands around them is exchanged.
 *
 * @param from what numbers look like that it is for, {@code to} what they look like afterwards
 */
public record NumberRule(String from, String to) {
    private static final int LONGEST = 60;
    private static final Pattern LAST_DIGITS = Pattern.compile("(\\d+)(?=\\D*$)");

    /** Reads a rule; refused where it says nothing, changes nothing, or would make one number of two. */
    public static Outcome<NumberRule> of(String from, String to) {
        String left = clean(from);
        String right = clean(to);
        if (left.isEmpty() || right.isEmpty())
            return Outcome.refused(
                    "rule.empty", "The rule for numbers needs both sides.", "Write it like TG40-#### and TG41-####.");
        if (left.length() > LONGEST || right.length() > LONGEST)
            return Outcome.refused(
                    "rule.long", "A side of the rule has more than " + LONGEST + " signs.", "Shorten it.");
        if (!signs(left).equals(signs(right)))
            return Outcome.refused(
                    "rule.signs",
                    "“" + left + "” and “" + right + "” have not the same # and *: two numbers could become one.",
                    "Write as many of them on the right as on the left.");
        if (left.indexOf('*') >= 0 && (left.indexOf('*') != left.length() - 1 || !right.endsWith("*")))
            return Outcome.refused(
                    "rule.rest",
                    "A * stands for the rest of a number, and nothing can follow it.",
                    "Put it at the end of both sides.");
        if (left.equalsIgnoreCase(right))
            return Outcome.refused(
                    "rule.same", "The rule leaves every number as it is.", "Say on the right what is new.");
        return Outcome.granted(new NumberRule(left, right));
    }

    private static String clean(String side) {
        return Texts.line(side).replaceAll("[\\u2010-\\u2015\\u2212]", "-");
    }

    private static String signs(String side) {
        return side.replaceAll("[^#*]", "");
    }

    /** The number that another one becomes; nothing where it does not look like the left side. O(length). */
    public Optional<String> apply(String number) {
        StringBuilder pattern = new StringBuilder();
        for (char c : from.toCharArray())
            pattern.append(c == '#' ? "(\\d)" : c == '*' ? "(.*)" : Pattern.quote(String.valueOf(c)));
        Matcher match = Pattern.compile(pattern.toString(), Pattern.CASE_INSENSITIVE | Pattern.UNICODE_CASE)
                .matcher(number);
        if (!match.matches()) return Optional.empty();
        StringBuilder made = new StringBuilder();
        int group = 0;
        for (char c : to.toCharArray()) made.append(c == '#' || c == '*' ? match.group(++group) : String.valueOf(c));
        return Optional.of(made.toString());
    }

    /** A rule that fits a number as it is: its last figures go along, the other ones with what stands around them may be written anew. */
    public static String like(String number) {
        Matcher digits = LAST_DIGITS.matcher(number);
        if (!digits.find()) return number + "*";
        return number.substring(0, digits.start())
                + "#".repeat(digits.group().length())
                + (digits.end() == number.length() ? "" : number.substring(digits.end()));
    }

    /** The next numbers behind one, by its last figures, as wide as they are; none where there are none, fewer where they end. */
    public static List<String> after(String number, int most) {
        Matcher digits = LAST_DIGITS.matcher(number);
        List<String> next = new ArrayList<>();
        if (!digits.find() || digits.group().length() > 15) return next;
        int width = digits.group().length();
        long value = Long.parseLong(digits.group());
        for (int i = 1; i <= most; i++) {
            String figures = Long.toString(value + i);
            if (figures.length() > width) break;
            next.add(number.substring(0, digits.start())
                    + "0".repeat(width - figures.length())
                    + figures
                    + number.substring(digits.end()));
        }
        return next;
    }

    /**
     * What a copy's file is called: the former number in its name is exchanged, in lower case where it stands so; a name without it is the new
     * number's.
     */
    public static String fileName(String fileName, String number, String anew) {
        FileName name = FileName.of(fileName);
        Matcher stands = Pattern.compile(
                        Pattern.quote(number).replaceAll("[-_ ]", "\\\\E[-_ ]\\\\Q"),
                        Pattern.CASE_INSENSITIVE | Pattern.UNICODE_CASE)
                .matcher(name.stem());
        String end = name.extension().isEmpty() ? "" : "." + name.extension();
        if (!stands.find()) return FileName.of(anew + end).name();
        String found = stands.group();
        boolean small = found.equals(found.toLowerCase(java.util.Locale.ROOT))
                && !found.equals(found.toUpperCase(java.util.Locale.ROOT));
        String made = small ? anew.toLowerCase(java.util.Locale.ROOT) : anew;
        // Where the file's name has other signs between the parts, they go on.
        if (found.indexOf('_') >= 0 && number.indexOf('_') < 0)
            made = made.replace('-', '_').replace(' ', '_');
        return FileName.of(name.stem().substring(0, stands.start())
                        + made
                        + name.stem().substring(stands.end())
                        + end)
                .name();
    }

    /** The key by which numbers are the same; nothing for what is none. */
    static Optional<String> key(String number) {
        return NumberKey.of(number).toOptional().map(NumberKey::key);
    }
}
