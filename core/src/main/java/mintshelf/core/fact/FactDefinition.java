package mintshelf.core.fact;

import java.util.List;

/**
 * What a fact is.
 *
 * @param name as searched and mapped: {@code material}
 * @param label as shown: "Material"
 */
public record FactDefinition(long id, String name, String label, FactForm form, FactUse use) {
    public FactType type() {
        return form.type();
    }

    public String unit() {
        return form.unit();
    }

    public List<String> choices() {
        return form.choices();
    }

    /** Name and unit, as a field is labelled: "Mass, kg". */
    public String labelled() {
        return form.unit().isEmpty() ? label : label + ", " + form.unit();
    }
}
