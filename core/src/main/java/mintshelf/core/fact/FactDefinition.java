package mintshelf.core.fact;

import java.util.List;

/**
 * What a fact is.
 *
 * @param name as searched and mapped: {@code material}
 * @param label as shown: "Material"
 * @param unit unit symbol of a number, empty for others
 * @param pattern regular expression that a text must match as a whole, empty for any
 * @param choices the values of a list
 */
public record FactDefinition(
        long id, String name, String label, FactType type, String unit, String pattern, List<String> choices) {
    public FactDefinition {
        choices = List.copyOf(choices);
    }
}
