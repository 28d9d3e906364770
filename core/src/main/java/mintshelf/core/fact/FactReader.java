package mintshelf.core.fact;

import com.google.re2j.Pattern;
import java.math.BigDecimal;
import java.time.DateTimeException;
import java.time.LocalDate;
import java.util.Locale;
import java.util.Optional;
import mintshelf.core.base.Outcome;
import mintshelf.core.base.Refusal;
import mintshelf.core.base.Texts;

/** Reads what a person typed, or a sheet said, as a fact's value. */
public final class FactReader {
    static final int LONGEST = 500;

    private FactReader() {}

    /**
     * The value, nothing for an empty text, or the refusal that says what is expected.
     *
     * @param lookup finds persons and documents that are named
     */
    public static Outcome<Optional<FactValue>> read(FactDefinition fact, String raw, FactLookup lookup) {
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
            case TEXT -> text(fact, text);
            case PERSON -> found(fact, lookup.person(text));
            case DOCUMENT -> found(fact, lookup.document(text));
        };
    }

    private static Outcome<Optional<FactValue>> found(FactDefinition fact, Outcome<String> found) {
        if (found instanceof Outcome.Granted<String> granted) return granted(new FactValue.Words(granted.value()));
        Refusal why = found.refusal().orElseThrow();
        return Outcome.refused(why.code(), fact.label() + ": " + why.reason(), why.remedy());
    }

    private static Outcome<Optional<FactValue>> text(FactDefinition fact, String text) {
        if (!fact.form().pattern().isEmpty() && !Pattern.matches(fact.form().pattern(), text)) {
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
        BigDecimal number = new BigDecimal(bare);
        FactForm form = fact.form();
        if (!form.least().isEmpty() && number.compareTo(new BigDecimal(form.least())) < 0) {
            return refused(fact, number.toPlainString() + " is less than " + form.least() + unit(fact) + ".");
        }
        if (!form.most().isEmpty() && number.compareTo(new BigDecimal(form.most())) > 0) {
            return refused(fact, number.toPlainString() + " is more than " + form.most() + unit(fact) + ".");
        }
        return granted(new FactValue.Quantity(number));
    }

    private static String unit(FactDefinition fact) {
        return fact.unit().isEmpty() ? "" : " " + fact.unit();
    }

    private static String inUnit(FactDefinition fact) {
        return fact.unit().isEmpty() ? "" : " in " + fact.unit();
    }

    private static Outcome<Optional<FactValue>> date(FactDefinition fact, String text) {
        try {
            LocalDate day = LocalDate.parse(text);
            FactForm form = fact.form();
            if (!form.least().isEmpty() && day.isBefore(LocalDate.parse(form.least()))) {
                return refused(fact, day + " is before " + form.least() + ".");
            }
            if (!form.most().isEmpty() && day.isAfter(LocalDate.parse(form.most()))) {
                return refused(fact, day + " is after " + form.most() + ".");
            }
            return granted(new FactValue.Day(day));
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
