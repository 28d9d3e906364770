package mintshelf.core.house;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import mintshelf.core.base.Outcome;
import mintshelf.core.base.Refusal;
import mintshelf.core.numbering.NumberKey;
import mintshelf.core.numbering.NumberPattern;

/** A number series: its pattern and within what its counter counts. */
public record SeriesRule(String code, String name, String pattern, Counts counts) implements Rule {
    /** The longest text that a fact puts into a number, for the question whether it can still be one. */
    private static final int FACT = 12;

    /** Within what a counter counts; numbers differ by the pattern's fixed text, its year and its facts beside. */
    public enum Counts {
        SERVER("over the whole house"),
        SHELF("on each shelf by itself"),
        KIND("for each kind by itself");

        private final String words;

        Counts(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }
    }

    @Override
    public Subject subject() {
        return Subject.SERIES;
    }

    @Override
    public List<RuleLine> lines(House house) {
        return List.of(
                RuleLine.of("Name", name), RuleLine.of("Pattern", pattern), RuleLine.of("Counts", counts.words()));
    }

    @Override
    public List<Refusal> ask(House house) {
        List<Refusal> wrong = new ArrayList<>();
        Rule.named(name, 100).ifPresent(wrong::add);
        if (pattern.length() > 200) {
            wrong.add(Refusal.of("series.long", "The pattern is longer than 200 letters.", "Shorten it."));
            return List.copyOf(wrong);
        }
        Outcome<NumberPattern> read = NumberPattern.parse(pattern);
        read.refusal().ifPresent(wrong::add);
        if (!(read instanceof Outcome.Granted<NumberPattern> granted)) return List.copyOf(wrong);
        Map<String, String> facts = new HashMap<>();
        for (String fact : granted.value().facts()) {
            if (!house.facts().containsKey(fact)) {
                wrong.add(Refusal.of(
                        "series.no_fact",
                        "The pattern names a fact that the house does not have: " + fact + ".",
                        "Make the fact first, or write another one."));
            }
            facts.put(fact, "x".repeat(FACT));
        }
        // The first and a late one: a pattern whose numbers grow too long ends one day, and is refused before it
        // begins.
        for (long value : new long[] {1, 999_999}) {
            if (granted.value().render(value, 2026, facts) instanceof Outcome.Granted<String> number) {
                NumberKey.of(number.value())
                        .refusal()
                        .map(r -> Refusal.of(
                                r.code(),
                                "Its number " + String.format(Locale.ROOT, "%,d", value) + " would be none: "
                                        + r.reason(),
                                r.remedy()))
                        .filter(r -> wrong.stream().noneMatch(w -> w.code().equals(r.code())))
                        .ifPresent(wrong::add);
            }
        }
        return List.copyOf(wrong);
    }
}
