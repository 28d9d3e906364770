package mintshelf.core.fact;

import java.util.List;

/**
 * What the values of a fact look like.
 *
 * @param unit unit symbol of a number, empty for others
 * @param pattern form (RE2) that a text must have as a whole, empty for any
 * @param choices the values of a list
 * @param least the least number or the first day, as typed; empty for none
 * @param most the greatest number or the last day, as typed; empty for none
 */
public record FactForm(FactType type, String unit, String pattern, List<String> choices, String least, String most) {
    public FactForm {
        choices = List.copyOf(choices);
    }

    /** Any value of a type. */
    public static FactForm of(FactType type) {
        return new FactForm(type, "", "", List.of(), "", "");
    }

    /** The same values in a unit. */
    public FactForm in(String symbol) {
        return new FactForm(type, symbol, pattern, choices, least, most);
    }

    /** Those of a form alone. */
    public FactForm like(String form) {
        return new FactForm(type, unit, form, choices, least, most);
    }

    /** A list of values. */
    public static FactForm oneOf(List<String> choices) {
        return new FactForm(FactType.CHOICE, "", "", choices, "", "");
    }

    /** Those within a range; either end may be empty. */
    public FactForm within(String least, String most) {
        return new FactForm(type, unit, pattern, choices, least, most);
    }

    /** In words: "a number in kg, from 0.1 to 40", "A0, A1 or A2". */
    public String says() {
        String what = switch (type) {
            case TEXT -> pattern.isEmpty() ? "a text" : "a text of the form " + pattern;
            case NUMBER -> unit.isEmpty() ? "a number" : "a number in " + unit;
            case DATE -> "a day";
            case YES_NO -> "yes or no";
            case CHOICE -> listed(choices);
            case PERSON -> "a person";
            case DOCUMENT -> "a document";
        };
        if (!least.isEmpty() && !most.isEmpty()) return what + ", from " + least + " to " + most;
        if (!least.isEmpty()) return what + ", " + least + (type == FactType.DATE ? " or later" : " or more");
        if (!most.isEmpty()) return what + ", " + most + (type == FactType.DATE ? " or earlier" : " or less");
        return what;
    }

    private static String listed(List<String> choices) {
        if (choices.size() < 2) return String.join("", choices);
        return String.join(", ", choices.subList(0, choices.size() - 1)) + " or " + choices.get(choices.size() - 1);
    }
}
