package mintshelf.core.bom;

import java.util.ArrayList;
import java.util.Collection;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.regex.Pattern;
import mintshelf.core.base.Outcome;
import mintshelf.core.base.Texts;

/**
 * Find numbers of the lines of one BOM (ISO 7573: item references; ASME Y14.34: find numbers). Who has one keeps it; one that was
 * given before, and is of nothing now, is not given to another, for sheets that are out still say it.
 */
public final class FindNumbers {
    private static final Pattern COUNTED = Pattern.compile("\\d{1,6}");
    private static final Pattern ALLOWED = Pattern.compile("[0-9]{1,6}[A-Z]?");

    private FindNumbers() {}

    /**
     * Numbers for lines in their order: those that are known stay, others follow the highest that was ever given. O(lines).
     *
     * @param lines by what identifies a line
     * @param known numbers that lines have, also of lines that are gone
     * @return by the lines' order
     */
    public static <K> List<String> assign(List<K> lines, Map<K, String> known) {
        int next = highest(known.values()) + 1;
        List<String> given = new ArrayList<>();
        for (K line : lines) {
            String has = known.get(line);
            given.add(has != null ? has : String.valueOf(next++));
        }
        return given;
    }

    /** The highest number among some; 0 where none is counted. */
    public static int highest(Collection<String> given) {
        int highest = 0;
        for (String one : given) {
            String digits = one.replaceAll("\\D.*", "");
            if (COUNTED.matcher(digits).matches()) highest = Math.max(highest, Integer.parseInt(digits));
        }
        return highest;
    }

    /** Reads what somebody typed as a find number: digits, perhaps a letter behind them. */
    public static Outcome<String> read(String typed) {
        String text = typed.strip().toUpperCase(Locale.ROOT);
        if (ALLOWED.matcher(text).matches() && !text.matches("0+[A-Z]?")) return Outcome.granted(text);
        return Outcome.refused(
                "bom.find",
                "“" + Texts.shorten(text, 20) + "” is no find number.",
                "Write one to six digits, with a letter behind them where one number has several lines.");
    }

    /** A number that two of some lines have; nothing where each has its own. */
    public static Optional<String> twice(Collection<String> given) {
        Set<String> seen = new HashSet<>();
        return given.stream().filter(f -> !seen.add(f)).findFirst();
    }

    /** By number, then by letter: 2 before 10, 2A behind 2. */
    public static int compare(String one, String other) {
        int byNumber = Integer.compare(highest(List.of(one)), highest(List.of(other)));
        return byNumber != 0 ? byNumber : one.compareTo(other);
    }
}
