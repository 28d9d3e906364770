package mintshelf.core.model.step;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;

/**
 * What an exchange file says of products (ISO 10303 parts 41, 44 and 242).
 *
 * @param schema of the file, as named in its head
 * @param lengthUnit such as mm; empty where the file has no shape
 * @param instances how many the data section holds
 * @param externals names of the files that it refers to, each once, in the order of the file
 * @param facts validation properties by product id: volume and area in the file's units, as written
 * @param properties what whoever drew them said of products, by product id and name; volume and area are among them
 * @param said what could not be read, a sentence each
 */
public record StepModel(
        Head head,
        String schema,
        String lengthUnit,
        long instances,
        List<Product> products,
        List<Usage> usages,
        List<External> externals,
        Map<String, Map<String, Double>> facts,
        Map<String, Map<String, StepProperty>> properties,
        List<String> said) {
    public StepModel {
        products = List.copyOf(products);
        usages = List.copyOf(usages);
        externals = List.copyOf(externals);
        said = List.copyOf(said);
    }

    /**
     * The head: name, time stamp, the system that wrote it.
     *
     * @param stampFrom first byte of the time stamp, between the quotes; -1 where the file has none
     * @param stampTo the byte behind its last
     */
    public record Head(String name, String timeStamp, String system, long stampFrom, long stampTo) {}

    /** A product: its id, name and version. */
    public record Product(String id, String name, String description, String version) {}

    /** How often a product stands in another one, next to it. */
    public record Usage(String parent, String child, int count) {}

    /**
     * A file that this one refers to.
     *
     * @param places where its name stands in the file: first byte and the one behind the last, between the quotes
     * @param count how often what it describes stands in this file's products, over all paths; 1 where the file says nothing
     */
    public record External(String name, List<long[]> places, int count) {
        public External {
            places = List.copyOf(places);
        }
    }

    /** Millimetres of one of the file's length units; 1 where it says none that is known. */
    public double millimetres() {
        return switch (lengthUnit) {
            case "m" -> 1000;
            case "cm" -> 10;
            case "dm" -> 100;
            case "in" -> 25.4;
            case "ft" -> 304.8;
            case "µm" -> 0.001;
            default -> 1;
        };
    }

    /** Products that stand in no other one. O(products + usages). */
    public List<String> roots() {
        List<String> used = usages.stream().map(Usage::child).distinct().toList();
        List<String> parents = usages.stream().map(Usage::parent).distinct().toList();
        return parents.stream().filter(p -> !used.contains(p)).toList();
    }

    /** The product that the file is of: the only one that stands in no other; nothing where there are several, or none. */
    public Optional<Product> top() {
        Set<String> used = usages.stream().map(Usage::child).collect(Collectors.toSet());
        List<Product> tops =
                products.stream().filter(p -> !used.contains(p.id())).toList();
        return tops.size() == 1 ? Optional.of(tops.get(0)) : Optional.empty();
    }

    /**
     * What the file says of its top product by name: its attributes, and {@code product}, {@code name}, {@code description} and
     * {@code version} where none of them is called so. Empty where it is of no single product.
     */
    public Map<String, StepProperty> said(Product top) {
        Map<String, StepProperty> all = new LinkedHashMap<>(properties.getOrDefault(top.id(), Map.of()));
        List<String[]> own = List.of(
                new String[] {"product", top.id()},
                new String[] {"name", top.name()},
                new String[] {"description", top.description()},
                new String[] {"version", top.version()});
        for (String[] one : own) if (!one[1].isBlank()) all.putIfAbsent(one[0], new StepProperty(one[1].strip(), ""));
        return all;
    }

    /** The schema in short: AP203, AP214, AP242, else as it is named. */
    public String protocol() {
        if (schema.startsWith("CONFIG_CONTROL_DESIGN") || schema.startsWith("AP203")) return "AP203";
        if (schema.startsWith("AUTOMOTIVE_DESIGN")) return "AP214";
        if (schema.startsWith("AP242")) return "AP242";
        return schema;
    }
}
