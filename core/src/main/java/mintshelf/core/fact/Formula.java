package mintshelf.core.fact;

import java.util.LinkedHashSet;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import mintshelf.core.base.Outcome;

/**
 * A text with facts in braces: {@code {material}, {thickness} mm}. It has a value when all that it names have one. What it names is
 * typed or read, never computed itself: so it ends. O(length).
 */
public final class Formula {
    private static final Pattern FIELD = Pattern.compile("\\{([a-z][a-z0-9_]{0,39})}");

    private final String text;

    private Formula(String text) {
        this.text = text;
    }

    /** Reads a formula; it names at least one fact. */
    public static Outcome<Formula> parse(String text) {
        String fixed = FIELD.matcher(text).replaceAll("");
        if (text.length() > 200 || fixed.matches(".*[{}].*") || fixed.equals(text)) {
            return Outcome.refused(
                    "fact.formula",
                    "“" + text + "” cannot be put together.",
                    "Write up to 200 letters with facts in braces: {material}, {thickness} mm.");
        }
        return Outcome.granted(new Formula(text));
    }

    /** The facts that it names, in their order. */
    public Set<String> facts() {
        Set<String> facts = new LinkedHashSet<>();
        Matcher field = FIELD.matcher(text);
        while (field.find()) facts.add(field.group(1));
        return facts;
    }

    /** Its value, cut to what a fact can hold; nothing while one of its facts is empty. */
    public Optional<String> of(Map<String, String> values) {
        for (String fact : facts()) {
            if (values.getOrDefault(fact, "").isBlank()) return Optional.empty();
        }
        String made =
                FIELD.matcher(text).replaceAll(m -> Matcher.quoteReplacement(values.getOrDefault(m.group(1), "")));
        return Optional.of(made.length() > FactReader.LONGEST ? made.substring(0, FactReader.LONGEST) : made);
    }
}
