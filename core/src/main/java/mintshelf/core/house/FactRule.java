package mintshelf.core.house;

import java.math.BigDecimal;
import java.time.DateTimeException;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import mintshelf.core.base.Outcome;
import mintshelf.core.base.Refusal;
import mintshelf.core.base.Texts;
import mintshelf.core.fact.FactDefinition;
import mintshelf.core.fact.FactForm;
import mintshelf.core.fact.FactLookup;
import mintshelf.core.fact.FactReader;
import mintshelf.core.fact.FactSource;
import mintshelf.core.fact.FactType;
import mintshelf.core.fact.FactUse;
import mintshelf.core.fact.Formula;

/**
 * What a fact is, how it comes to its value, and who may change it when.
 *
 * @param code as searched and mapped: {@code material}
 * @param label as shown: "Material"
 */
public record FactRule(String code, String label, FactForm form, FactUse use) implements Rule {
    private static final int MOST_CHOICES = 200;

    public FactType type() {
        return form.type();
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
        return form.says();
    }

    /** As acts read it. */
    public FactDefinition definition(long id) {
        return new FactDefinition(id, code, label, form, use);
    }

    @Override
    public List<RuleLine> lines(House house) {
        List<RuleLine> lines = new ArrayList<>();
        lines.add(RuleLine.of("Name", label));
        lines.add(RuleLine.of("Values", values()));
        lines.add(RuleLine.of("Source", use.source().words() + (use.formula().isEmpty() ? "" : ": " + use.formula())));
        if (!use.property().isEmpty()) lines.add(RuleLine.of("In models", "the property “" + use.property() + "”"));
        if (!use.preset().isEmpty()) lines.add(RuleLine.of("Preset", preset()));
        if (use.source().isTyped()) lines.add(RuleLine.of("Typed", use.hands().says()));
        return List.copyOf(lines);
    }

    private String preset() {
        if (type() == FactType.DATE && use.preset().equals(FactUse.TODAY)) return "the day of filing";
        return type() == FactType.PERSON ? "who files it" : use.preset();
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
        if (form.unit().length() > 20)
            wrong.add(Refusal.of("fact.unit", "The unit is longer than 20 letters.", "Shorten it."));
        if (!form.unit().isEmpty() && type() != FactType.NUMBER) {
            wrong.add(Refusal.of("fact.unit", "Only numbers have a unit.", "Empty it, or make the fact a number."));
        }
        if (!form.pattern().isEmpty()) Rule.form("The form", form.pattern()).ifPresent(wrong::add);
        choices(wrong);
        range(wrong);
        FactRule was = house.facts().get(code);
        if (was != null && was.type() != type()) {
            wrong.add(Refusal.of(
                    "fact.type",
                    "What documents say under " + was.label() + " is "
                            + was.type().name().toLowerCase(Locale.ROOT).replace('_', ' ') + ".",
                    "Make another fact for the other type; this one keeps its values."));
        }
        source(wrong, house);
        if (wrong.isEmpty()) presetFits(wrong);
        return List.copyOf(wrong);
    }

    private void choices(List<Refusal> wrong) {
        List<String> choices = form.choices();
        if ((type() == FactType.CHOICE) == choices.isEmpty()) {
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

    /** The ends of a range are values of the fact themselves, and leave something between them. */
    private void range(List<Refusal> wrong) {
        if (form.least().isEmpty() && form.most().isEmpty()) return;
        boolean ordered;
        if (type() == FactType.NUMBER) {
            String number = "[+-]?\\d{1,20}(\\.\\d{1,10})?";
            ordered = List.of(form.least(), form.most()).stream().allMatch(e -> e.isEmpty() || e.matches(number))
                    && (form.least().isEmpty()
                            || form.most().isEmpty()
                            || new BigDecimal(form.least()).compareTo(new BigDecimal(form.most())) <= 0);
        } else if (type() == FactType.DATE) {
            ordered = daysInOrder();
        } else {
            wrong.add(Refusal.of("fact.range", "Only numbers and days lie in a range.", "Empty its ends."));
            return;
        }
        if (!ordered) {
            wrong.add(Refusal.of(
                    "fact.range",
                    "Nothing lies between “" + Texts.shorten(form.least(), 40) + "” and “"
                            + Texts.shorten(form.most(), 40) + "”.",
                    type() == FactType.DATE
                            ? "Write two days such as 2026-11-23, the earlier one first."
                            : "Write two numbers such as 0.5 and 40, the smaller one first."));
        }
    }

    private boolean daysInOrder() {
        try {
            LocalDate least = form.least().isEmpty() ? LocalDate.MIN : LocalDate.parse(form.least());
            LocalDate most = form.most().isEmpty() ? LocalDate.MAX : LocalDate.parse(form.most());
            return !least.isAfter(most);
        } catch (DateTimeException e) {
            return false;
        }
    }

    private void source(List<Refusal> wrong, House house) {
        if (use.property().length() > 100) {
            wrong.add(Refusal.of("fact.property", "The property's name is longer than 100 letters.", "Shorten it."));
        }
        if (!use.property().isEmpty() && !use.source().isRead()) {
            wrong.add(Refusal.of(
                    "fact.property",
                    "What the file says is not taken over.",
                    "Choose that it is, or empty the property."));
        }
        if (use.source() != FactSource.COMPUTED) {
            if (!use.formula().isEmpty()) {
                wrong.add(Refusal.of("fact.formula", "Only what is put together has a formula.", "Empty it."));
            }
            return;
        }
        if (type() != FactType.TEXT) {
            wrong.add(Refusal.of("fact.formula", "What is put together is a text.", "Make the fact a text."));
        }
        if (!use.preset().isEmpty()) {
            wrong.add(Refusal.of("fact.preset", "What is put together has no preset.", "Empty it."));
        }
        Outcome<Formula> read = Formula.parse(use.formula());
        read.refusal().ifPresent(wrong::add);
        if (!(read instanceof Outcome.Granted<Formula> formula)) return;
        for (String named : formula.value().facts()) {
            FactRule other = house.facts().get(named);
            if (named.equals(code) || other == null || other.use().source() == FactSource.COMPUTED) {
                wrong.add(Refusal.of(
                        "fact.formula",
                        other == null && !named.equals(code)
                                ? "It names a fact that is not there: " + named + "."
                                : "It names " + named + ", which is put together itself.",
                        "Name facts that are typed or read."));
            }
        }
        house.facts().values().stream()
                .filter(f -> !f.code().equals(code) && f.use().source() == FactSource.COMPUTED)
                .filter(f -> Formula.parse(f.use().formula()) instanceof Outcome.Granted<Formula> g
                        && g.value().facts().contains(code))
                .forEach(f -> wrong.add(Refusal.of(
                        "fact.formula",
                        f.label() + " is put together from it already.",
                        "Take it out of " + f.label() + " first.")));
    }

    /** A preset that the fact would refuse could never be kept by who files. A document is looked for when somebody files. */
    private void presetFits(List<Refusal> wrong) {
        String preset = use.preset();
        boolean day = type() == FactType.DATE && preset.equals(FactUse.TODAY);
        boolean whoFiles = type() == FactType.PERSON && preset.equals(FactUse.ME);
        if (preset.isEmpty() || day || whoFiles) return;
        if (type() == FactType.PERSON) {
            wrong.add(Refusal.of("fact.preset", "The preset of a person is who files it.", "Choose that, or none."));
            return;
        }
        FactReader.read(definition(0), preset, FactLookup.AS_SAID)
                .refusal()
                .map(r -> Refusal.of("fact.preset", "The preset does not fit. " + r.reason(), "Correct it."))
                .ifPresent(wrong::add);
    }
}
