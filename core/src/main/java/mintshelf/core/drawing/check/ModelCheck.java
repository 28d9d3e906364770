package mintshelf.core.drawing.check;

import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import mintshelf.core.drawing.Box;
import mintshelf.core.drawing.check.CheckRules.Rule;
import mintshelf.core.fact.Agreement;
import mintshelf.core.fact.FactDefinition;

/** The rules that a model is held to: what its file says of the part against what the record says of it. */
public final class ModelCheck {
    private static final String FILE = "file";
    private static final String RECORD = "record";

    private ModelCheck() {}

    /**
     * The findings, in the order of the facts; none where the rule is not asked. Numbers agree as {@link Agreement} says: a record of 0.74 kg
     * does not contradict a model of 0.7384. O(facts).
     *
     * @param said what the file says, by fact name, each in its fact's unit
     * @param record what the record says, by fact name
     */
    public static List<Finding> check(
            CheckRules rules, Collection<FactDefinition> facts, Map<String, String> said, Map<String, String> record) {
        return Optional.ofNullable(rules.severities().get(Rule.MODEL_RECORD))
                .map(severity -> Agreement.of(List.of(side(FILE, facts, said), side(RECORD, facts, record))).stream()
                        .filter(a -> !a.agrees())
                        .map(a -> new Finding(
                                Rule.MODEL_RECORD,
                                severity,
                                "The model says " + a.fact().name().replace('_', ' ') + " " + value(a, FILE)
                                        + ", the record " + value(a, RECORD) + ".",
                                "Change the one that is wrong.",
                                1,
                                "",
                                Box.EMPTY))
                        .toList())
                .orElse(List.of());
    }

    private static Agreement.Side side(String name, Collection<FactDefinition> facts, Map<String, String> said) {
        Map<FactDefinition, String> by = new LinkedHashMap<>();
        facts.forEach(f -> Optional.ofNullable(said.get(f.name())).ifPresent(v -> by.put(f, v)));
        return new Agreement.Side(name, by);
    }

    private static String value(Agreement agreement, String side) {
        String value = "“" + agreement.said().getOrDefault(side, "") + "”";
        String unit = agreement.fact().unit();
        return unit.isEmpty() ? value : value + " " + unit;
    }
}
