package mintshelf.core.model.step;

/**
 * What a file says of a product under a name.
 *
 * @param text the value; a number in plain decimals
 * @param unit of a measured number, with its power: {@code kg}, {@code mm3}; empty for what is no measure
 */
public record StepProperty(String text, String unit) {
    /** The unit of what is measured in none that the file says. */
    public static final String UNKNOWN = "?";

    /** As a person reads it: "0.485 kg". */
    public String shown() {
        return unit.isEmpty() ? text : text + " " + unit;
    }
}
