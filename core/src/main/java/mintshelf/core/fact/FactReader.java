package mintshelf.core.fact;

import com.google.re2j.Pattern;
import java.math.BigDecimal;
import java.time.DateTimeException;
import java.time.LocalDate;
import java.util.Locale;
import java.util.Optional;
import mintshelf.core.base.Outcome;
import mintshelf.core.base.Texts;

/** Reads what a person typed, or a sheet said, as a fact's value. */
public final class FactReader {
    private static final int LONGEST = 500;

    private FactReader() {}

    /** The value, nothing for an empty text, or the refusal that says what is expected. */
    public static Outcome<Optional<FactValue>> read(FactDefinition fact, String raw) {
        String text = Texts.line(raw);
        if (text.isEmpty()) return Outcome.granted(Optional.empty());
        if (text.length() > LONGEST) {
            return refused(fact, "has " + text.length() + " characters; " + LONGEST + " are the most.");
        }
        return switch (fact.type()) {
            case NUMBER -> number(fact, text);
            case DATE -> date(fact, text);
            case YES_NO -> yesNo(fact, text);
            case CHOICE -> choice(fact, text);
            case TEXT, PERSON, DOCUMENT -> text(fact, text);
        };
    }

    private static Outcome<Optional<FactValue>> text(FactDefinition fact, String text) {
        if (!fact.pattern().isEmpty() && !Pattern.matches(fact.pattern(), text)) {
            return refused(fact, "“" + text + "” is not of the form that the house expects.");
        }
        return granted(new FactValue.Words(text));
    }

    /** Accepts a decimal comma where it cannot be a thousands mark, and the fact's own unit behind the number. */
    private static Outcome<Optional<FactValue>> number(FactDefinition fact, String text) {
        String bare = text;
        if (!fact.unit().isEmpty() && bare.endsWith(fact.unit())) {
            bare = bare.substring(0, bare.length() - fact.unit().length()).strip();
        }
        if (bare.indexOf(',') == bare.lastIndexOf(',') && bare.indexOf('.') < 0) bare = bare.replace(',', '.');
        if (!bare.matches("[+-]?\\d{1,20}(\\.\\d{1,10})?")) {
            return refused(fact, "“" + text + "” is not a number" + inUnit(fact) + ".");
        }
        return granted(new FactValue.Quantity(new BigDecimal(bare)));
    }

    private static String inUnit(FactDefinition fact) {
        return fact.unit().isEmpty() ? "" : " in " + fact.unit();
    }

    private static Outcome<Optional<FactValue>> date(FactDefinition fact, String text) {
        try {
            return granted(new FactValue.Day(LocalDate.parse(text)));
        } catch (DateTimeException e) {
            return refused(fact, "“" + text + "” is not a date such as 2026-11-23.");
        }
    }

    private static Outcome<Optional<FactValue>> yesNo(FactDefinition fact, String text) {
        String lower = text.toLowerCase(Locale.ROOT);
        if (lower.equals("yes") || lower.equals("no")) return granted(new FactValue.Words(lower));
        return refused(fact, "“" + text + "” is neither yes nor no.");
    }

    private static Outcome<Optional<FactValue>> choice(FactDefinition fact, String text) {
        for (String choice : fact.choices()) {
            if (Texts.key(choice).equals(Texts.key(text))) return granted(new FactValue.Words(choice));
        }
        return refused(fact, "“" + text + "” is not one of " + String.join(", ", fact.choices()) + ".");
    }

    private static Outcome<Optional<FactValue>> granted(FactValue value) {
        return Outcome.granted(Optional.of(value));
    }

    private static Outcome<Optional<FactValue>> refused(FactDefinition fact, String what) {
        return Outcome.refused("fact.form", fact.label() + ": " + what, "Correct it; nothing was changed.");
    }
}
