package mintshelf.core.model.step;

import java.math.BigDecimal;
import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;
import mintshelf.core.base.Texts;
import mintshelf.core.fact.FactDefinition;
import mintshelf.core.fact.FactType;
import mintshelf.core.fact.Quantities;

/** What a model says of facts: each fact names the property that it is taken from. */
public final class ModelFacts {
    private ModelFacts() {}

    /**
     * Values by fact name, as a person would type them; a fact whose property is not there, or is measured in a unit that does not lead to
     * the fact's, is left out. Names of properties are compared without regard to case. O(facts + properties).
     */
    public static Map<String, String> of(Map<String, StepProperty> said, Collection<FactDefinition> facts) {
        Map<String, StepProperty> byKey = new LinkedHashMap<>();
        said.forEach((name, value) -> byKey.putIfAbsent(Texts.key(name), value));
        Map<String, String> values = new LinkedHashMap<>();
        for (FactDefinition fact : facts) {
            if (fact.use().property().isEmpty() || !fact.use().source().isRead()) continue;
            Optional.ofNullable(byKey.get(Texts.key(fact.use().property())))
                    .flatMap(property -> value(fact, property))
                    .ifPresent(value -> values.put(fact.name(), value));
        }
        return values;
    }

    private static Optional<String> value(FactDefinition fact, StepProperty property) {
        if (fact.type() != FactType.NUMBER
                || fact.unit().isEmpty()
                || property.unit().isEmpty()) {
            return Optional.of(property.text());
        }
        return Quantities.convert(new BigDecimal(property.text()), property.unit(), fact.unit());
    }
}
