package mintshelf.core.fact;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import mintshelf.core.base.Outcome;

/** The facts of a fact sheet that are put together from others. */
public final class Computed {
    private Computed() {}

    /** What each of them is, given the others; an empty text where one of its parts is. O(facts · letters). */
    public static Map<FactDefinition, String> of(List<FactDefinition> sheet, Map<String, String> values) {
        Map<FactDefinition, String> computed = new LinkedHashMap<>();
        for (FactDefinition fact : sheet) {
            if (fact.use().source() != FactSource.COMPUTED) continue;
            if (!(Formula.parse(fact.use().formula()) instanceof Outcome.Granted<Formula> formula)) continue;
            computed.put(fact, formula.value().of(values).orElse(""));
        }
        return computed;
    }
}
