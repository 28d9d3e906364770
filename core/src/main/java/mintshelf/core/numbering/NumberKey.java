package mintshelf.core.numbering;

import java.text.Normalizer;
import java.util.Locale;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import mintshelf.core.base.Outcome;
import mintshelf.core.base.Texts;

/**
 * When two numbers are the same number: compared without case, with compatibility forms folded (NFKC) and all hyphens and dashes
 * alike. The key is unique for each aspect; the sort key puts TG40-2 before TG40-10.
 *
 * @param number as shown
 * @param key as compared
 * @param sort as ordered: every run of digits padded to ten places
 */
public record NumberKey(String number, String key, String sort) {
    private static final int LONGEST = 60;
    private static final Pattern DIGITS = Pattern.compile("\\d+");

    /** Checks and keys a number that was typed, read or drawn. */
    public static Outcome<NumberKey> of(String raw) {
        String number = Texts.line(raw).replaceAll("[\\u2010-\\u2015\\u2212]", "-");
        if (number.isEmpty()) {
            return Outcome.refused("number.missing", "The number is empty.", "Type one, or take the proposed one.");
        }
        if (number.length() > LONGEST) {
            return Outcome.refused(
                    "number.long",
                    "The number has " + number.length() + " characters; " + LONGEST + " are the most.",
                    "Shorten it.");
        }
        if (number.matches(".*[/\\\\<>:\"|?*].*") || number.matches("\\.+")) {
            return Outcome.refused(
                    "number.form",
                    "“" + number + "” holds a character that a file name cannot.",
                    "Leave out / \\ < > : \" | ? * .");
        }
        String key = Normalizer.normalize(number, Normalizer.Form.NFKC)
                .toUpperCase(Locale.ROOT)
                .toLowerCase(Locale.ROOT)
                .strip();
        Matcher digits = DIGITS.matcher(key);
        String sort =
                digits.replaceAll(m -> "0".repeat(Math.max(0, 10 - m.group().length())) + m.group());
        return Outcome.granted(new NumberKey(number, key, Texts.shorten(sort, 250)));
    }
}
