package mintshelf.core.model.step;

import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;
import java.util.function.LongFunction;
import mintshelf.core.base.Numbers;
import mintshelf.core.model.step.StepValue.Typed;

/**
 * What is said of products beside their structure: validation properties, and the attributes that whoever drew them gave them (ISO
 * 10303-41, property definitions; ISO 10303-45, their representations). O(instances kept).
 */
final class StepProperties {
    /** Names of a product beyond this many are passed over: nobody gave it so many. */
    private static final int MOST_NAMES = 500;

    private static final int LONGEST = 500;

    private final Map<Long, Typed> instances;
    private final Map<Long, String> units;
    private final LongFunction<Optional<String>> productOf;
    private final Map<String, Map<String, Double>> measured = new LinkedHashMap<>();
    private final Map<String, Map<String, StepProperty>> named = new LinkedHashMap<>();

    StepProperties(Map<Long, Typed> instances, Map<Long, String> units, LongFunction<Optional<String>> productOf) {
        this.instances = instances;
        this.units = units;
        this.productOf = productOf;
        instances.values().stream()
                .filter(i -> i.type().equals("PROPERTY_DEFINITION_REPRESENTATION"))
                .forEach(this::add);
    }

    /** Volume and surface area by product, in the file's units, as written. */
    Map<String, Map<String, Double>> measured() {
        return measured;
    }

    /** Attributes by product and name, the first of a name; volume and area are among them. */
    Map<String, Map<String, StepProperty>> named() {
        return named;
    }

    private Optional<Typed> instance(long id) {
        return Optional.ofNullable(instances.get(id));
    }

    private void add(Typed shown) {
        Optional<Typed> property =
                instance(shown.at(0).ref()).filter(p -> p.type().equals("PROPERTY_DEFINITION"));
        Optional<Typed> representation = instance(shown.at(1).ref());
        if (property.isEmpty() || representation.isEmpty()) return;
        Optional<String> product = ofShape(property.get().at(2).ref());
        if (product.isEmpty()) return;
        boolean validates = property.get().at(0).text().equals("geometric validation property");
        for (long id : representation.get().at(1).refs()) {
            Optional<Typed> item = instance(id);
            if (item.isEmpty()) continue;
            if (validates) validation(product.get(), item.get());
            else attribute(product.get(), property.get().at(0).text(), item.get());
        }
    }

    /** The product that a property's definition is of: the definition itself, or the shape of it. */
    private Optional<String> ofShape(long definition) {
        Optional<String> direct = productOf.apply(definition);
        return direct.isPresent()
                ? direct
                : instance(definition)
                        .filter(d -> d.type().equals("PRODUCT_DEFINITION_SHAPE"))
                        .flatMap(shape -> productOf.apply(shape.at(2).ref()));
    }

    private void validation(String product, Typed item) {
        if (!item.type().equals("MEASURE_REPRESENTATION_ITEM") || !(item.at(1) instanceof Typed measure)) return;
        String name = switch (measure.type()) {
            case "VOLUME_MEASURE" -> "volume";
            case "AREA_MEASURE" -> "area";
            default -> "";
        };
        if (name.isEmpty()) return;
        measure.number().ifPresent(n -> {
            measured.computeIfAbsent(product, p -> new LinkedHashMap<>()).putIfAbsent(name, n);
            keep(
                    product,
                    name,
                    new StepProperty(Numbers.plain(n), unit(item.at(2).ref())));
        });
    }

    private void attribute(String product, String property, Typed item) {
        String name = item.at(0).text().isBlank() ? property : item.at(0).text();
        Optional<StepProperty> value = switch (item.type()) {
            case "DESCRIPTIVE_REPRESENTATION_ITEM" ->
                Optional.of(new StepProperty(item.at(1).text().strip(), ""));
            case "MEASURE_REPRESENTATION_ITEM" ->
                item.at(1)
                        .number()
                        .map(n -> new StepProperty(
                                Numbers.plain(n), unit(item.at(2).ref())));
            case "VALUE_REPRESENTATION_ITEM", "INTEGER_REPRESENTATION_ITEM", "REAL_REPRESENTATION_ITEM" ->
                item.at(1).number().map(n -> new StepProperty(Numbers.plain(n), ""));
            default -> Optional.empty();
        };
        value.ifPresent(v -> keep(product, name.strip(), v));
    }

    private void keep(String product, String name, StepProperty value) {
        Map<String, StepProperty> of = named.computeIfAbsent(product, p -> new LinkedHashMap<>());
        boolean fits = !name.isEmpty() && name.length() <= 100 && of.size() < MOST_NAMES;
        if (fits && !value.text().isEmpty() && value.text().length() <= LONGEST) of.putIfAbsent(name, value);
    }

    /** The symbol of a unit, with its power; {@link StepProperty#UNKNOWN} for what the file does not say or is put together of several. */
    private String unit(long id) {
        String plain = units.get(id);
        if (plain != null) return plain;
        Optional<Typed> derived = instance(id).filter(d -> d.type().equals("DERIVED_UNIT"));
        if (derived.isEmpty() || derived.get().at(0).refs().size() != 1) return StepProperty.UNKNOWN;
        Optional<Typed> element = instance(derived.get().at(0).refs().get(0));
        if (element.isEmpty()) return StepProperty.UNKNOWN;
        String base = units.get(element.get().at(0).ref());
        double power = element.get().at(1).number().orElse(0.0);
        return base == null || power != Math.rint(power) || power < 1 || power > 3
                ? StepProperty.UNKNOWN
                : base + (power == 1 ? "" : Integer.toString((int) power));
    }
}
