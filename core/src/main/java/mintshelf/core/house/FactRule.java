package mintshelf.core.house;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import mintshelf.core.base.Refusal;
import mintshelf.core.base.Texts;
import mintshelf.core.fact.FactType;

/**
 * What a fact is.
 *
 * @param code as searched and mapped: {@code material}
 * @param label as shown: "Material"
 * @param unit unit symbol of a number, empty for others
 * @param pattern form that a text must have as a whole, empty for any
 * @param choices the values of a list
 */
public record FactRule(String code, String label, FactType type, String unit, String pattern, List<String> choices)
        implements Rule {
    private static final int MOST_CHOICES = 200;

    public FactRule {
        choices = List.copyOf(choices);
    }

    @Override
    public Subject subject() {
        return Subject.FACT;
    }

    @Override
    public String name() {
        return label;
    }

    /** What its values are: "a number in kg", "A0, A1 or A2". */
    public String values() {
        return switch (type) {
            case TEXT -> pattern.isEmpty() ? "a text" : "a text of the form " + pattern;
            case NUMBER -> unit.isEmpty() ? "a number" : "a number in " + unit;
            case DATE -> "a day";
            case YES_NO -> "yes or no";
            case CHOICE -> listed(choices);
            case PERSON -> "a person";
            case DOCUMENT -> "a document";
        };
    }

    private static String listed(List<String> choices) {
        if (choices.size() < 2) return String.join("", choices);
        return String.join(", ", choices.subList(0, choices.size() - 1)) + " or " + choices.get(choices.size() - 1);
    }

    @Override
    public List<RuleLine> lines(House house) {
        return List.of(RuleLine.of("Name", label), RuleLine.of("Values", values()));
    }

    @Override
    public List<Refusal> ask(House house) {
        List<Refusal> wrong = new ArrayList<>();
        Rule.named(label, 80).ifPresent(wrong::add);
        if (!code.matches("[a-z][a-z0-9_]{0,39}")) {
            wrong.add(Refusal.of(
                    "fact.code",
                    "“" + Texts.shorten(code, 40) + "” is no short name of a fact.",
                    "Small letters, digits and _, beginning with a letter: it is written in searches and patterns."));
        }
        if (List.of("n", "yy", "yyyy", "check", "check37").contains(code)) {
            wrong.add(Refusal.of(
                    "fact.code",
                    "“" + code + "” means something else in number patterns.",
                    "Choose another short name."));
        }
        if (unit.length() > 20)
            wrong.add(Refusal.of("fact.unit", "The unit is longer than 20 letters.", "Shorten it."));
        if (!unit.isEmpty() && type != FactType.NUMBER) {
            wrong.add(Refusal.of("fact.unit", "Only numbers have a unit.", "Empty it, or make the fact a number."));
        }
        if (!pattern.isEmpty()) Rule.form("The form", pattern).ifPresent(wrong::add);
        choices(wrong);
        FactRule was = house.facts().get(code);
        if (was != null && was.type() != type) {
            wrong.add(Refusal.of(
                    "fact.type",
                    "What documents say under " + was.label() + " is "
                            + was.type().name().toLowerCase(Locale.ROOT).replace('_', ' ') + ".",
                    "Make another fact for the other type; this one keeps its values."));
        }
        return List.copyOf(wrong);
    }

    private void choices(List<Refusal> wrong) {
        if ((type == FactType.CHOICE) == choices.isEmpty()) {
            wrong.add(
                    choices.isEmpty()
                            ? Refusal.of(
                                    "fact.choices", "A list without values can never be filled.", "Write at least one.")
                            : Refusal.of("fact.choices", "Only a list has values to choose from.", "Empty them."));
        }
        Set<String> seen = new HashSet<>();
        for (String choice : choices) {
            if (choice.isBlank() || choice.length() > 100 || !seen.add(Texts.key(choice))) {
                wrong.add(Refusal.of(
                        "fact.choices",
                        "“" + Texts.shorten(choice, 40) + "” stands twice, is empty, or is longer than 100 letters.",
                        "Each value once."));
                return;
            }
        }
        if (choices.size() > MOST_CHOICES) {
            wrong.add(Refusal.of(
                    "fact.choices", "A list has at most " + MOST_CHOICES + " values.", "Use a text with a form."));
        }
    }
}
