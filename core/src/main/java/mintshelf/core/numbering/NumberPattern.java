package mintshelf.core.numbering;

import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.OptionalLong;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import mintshelf.core.base.Outcome;

/**
 * The pattern of a number series: fixed text and fields in braces.
 *
 * <pre>
 * {n:4}        counter, at least four places      {yyyy} {yy}  year
 * {n:4:10}     counter in steps of ten            {check} {check37}  ISO 7064 MOD 11-2, MOD 37-2 over what stands before
 * {material}   the value of a fact
 * </pre>
 *
 * <p>A counter counts in a scope: by the fixed text that stands around it, so that a year or a fact in the pattern begins at one
 * again. Check characters are those of ISO/IEC 7064: pure systems, MOD 11-2 (digits, X for ten) and MOD 37-2 (letters and digits, * for
 * thirty-six), over all letters and digits before them, others passed over. Reading and drawing are O(length).
 */
public final class NumberPattern {
    private static final Pattern FIELD = Pattern.compile("\\{([a-z][a-z0-9_]*)(?::(\\d{1,2}))?(?::(\\d{1,4}))?}");

    private sealed interface Part {}

    private record Fixed(String text) implements Part {}

    private record Counter(int width, int step) implements Part {}

    private record Year(boolean full) implements Part {}

    private record Fact(String name) implements Part {}

    private record Check(CheckCharacter system) implements Part {}

    private final String text;
    private final List<Part> parts;

    private NumberPattern(String text, List<Part> parts) {
        this.text = text;
        this.parts = List.copyOf(parts);
    }

    /** Reads a pattern; it must hold exactly one counter. */
    public static Outcome<NumberPattern> parse(String text) {
        List<Part> parts = new ArrayList<>();
        Matcher field = FIELD.matcher(text);
        int at = 0;
        int counters = 0;
        while (field.find()) {
            if (field.start() > at) parts.add(new Fixed(text.substring(at, field.start())));
            at = field.end();
            switch (field.group(1)) {
                case "n" -> {
                    counters++;
                    parts.add(new Counter(numberOr(field.group(2), 1), Math.max(1, numberOr(field.group(3), 1))));
                }
                case "yyyy" -> parts.add(new Year(true));
                case "yy" -> parts.add(new Year(false));
                case "check" -> parts.add(new Check(CheckCharacter.MOD_11_2));
                case "check37" -> parts.add(new Check(CheckCharacter.MOD_37_2));
                default -> parts.add(new Fact(field.group(1)));
            }
        }
        if (at < text.length()) parts.add(new Fixed(text.substring(at)));
        if (counters != 1) {
            return Outcome.refused(
                    "series.counter",
                    "A number pattern needs exactly one counter.",
                    "Write it as {n:4}, four places wide.");
        }
        for (Part part : parts) {
            if (part instanceof Fixed fixed && fixed.text().matches(".*[{}].*")) {
                return Outcome.refused(
                        "series.form",
                        "“" + fixed.text() + "” holds a brace that is no field.",
                        "Close each { with a }.");
            }
        }
        return Outcome.granted(new NumberPattern(text, parts));
    }

    /** Names of the facts that its numbers carry. */
    public Set<String> facts() {
        return parts.stream()
                .filter(Fact.class::isInstance)
                .map(p -> ((Fact) p).name())
                .collect(Collectors.toCollection(LinkedHashSet::new));
    }

    private static int numberOr(String digits, int otherwise) {
        return digits == null ? otherwise : Integer.parseInt(digits);
    }

    /** The fixed text, years and facts around the counter: numbers that share it share a counter. */
    public Outcome<String> scopeKey(int year, Map<String, String> facts) {
        StringBuilder out = new StringBuilder();
        for (Part part : parts) {
            if (part instanceof Counter) out.append('#');
            else if (part instanceof Check) out.append("");
            else {
                Outcome<String> words = words(part, year, facts);
                if (!(words instanceof Outcome.Granted<String> granted)) return words;
                out.append(granted.value());
            }
        }
        return Outcome.granted(out.toString());
    }

    /** The number that the counter's value makes; a refusal names the fact that lacks a value. */
    public Outcome<String> render(long value, int year, Map<String, String> facts) {
        StringBuilder out = new StringBuilder();
        for (Part part : parts) {
            if (part instanceof Counter counter) {
                out.append(String.format(Locale.ROOT, "%0" + counter.width() + "d", value * counter.step()));
            } else if (part instanceof Check check) {
                out.append(check.system().of(out.toString()));
            } else {
                Outcome<String> words = words(part, year, facts);
                if (!(words instanceof Outcome.Granted<String> granted)) return words;
                out.append(granted.value());
            }
        }
        return Outcome.granted(out.toString());
    }

    private static Outcome<String> words(Part part, int year, Map<String, String> facts) {
        if (part instanceof Fixed fixed) return Outcome.granted(fixed.text());
        if (part instanceof Year y) {
            return Outcome.granted(
                    String.format(Locale.ROOT, y.full() ? "%04d" : "%02d", y.full() ? year : year % 100));
        }
        String name = ((Fact) part).name();
        String value = facts.getOrDefault(name, "").strip();
        if (value.isEmpty()) {
            return Outcome.refused(
                    "series.fact", "The number needs the fact “" + name + "”, which is empty.", "Fill it first.");
        }
        return Outcome.granted(value);
    }

    /**
     * The counter's value in a number that was typed or imported, when the number fits the pattern in this year and with these
     * facts: it then pushes the counter on.
     */
    public OptionalLong counterIn(String number, int year, Map<String, String> facts) {
        StringBuilder regex = new StringBuilder();
        int step = 1;
        for (Part part : parts) {
            if (part instanceof Counter counter) {
                step = counter.step();
                regex.append("(\\d{").append(counter.width()).append(",15})");
            } else if (part instanceof Check) {
                regex.append('.');
            } else if (words(part, year, facts) instanceof Outcome.Granted<String> granted) {
                regex.append(Pattern.quote(granted.value()));
            } else {
                return OptionalLong.empty();
            }
        }
        Matcher fits = Pattern.compile(regex.toString(), Pattern.CASE_INSENSITIVE | Pattern.UNICODE_CASE)
                .matcher(number);
        if (!fits.matches()) return OptionalLong.empty();
        long shown = Long.parseLong(fits.group(1));
        if (shown % step != 0) return OptionalLong.empty();
        boolean same = render(shown / step, year, facts) instanceof Outcome.Granted<String> again
                && again.value().equalsIgnoreCase(number);
        return same ? OptionalLong.of(shown / step) : OptionalLong.empty();
    }

    @Override
    public String toString() {
        return text;
    }
}
