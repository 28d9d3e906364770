package mintshelf.core.fact;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/**
 * Which facts go along when a new document begins as a copy of another.
 *
 * @param kept what the new one says from the start, by short name, in the order of its sheet
 * @param cleared what the other one says and the new one does not, for its kind wants it said anew
 */
public record FactsAlong(Map<String, String> kept, List<FactDefinition> cleared) {
    public FactsAlong {
        kept = Map.copyOf(kept);
        cleared = List.copyOf(cleared);
    }

    /** A fact on the sheet of the new document's kind; {@code cleared} where copies begin without it. */
    public record Sheet(FactDefinition fact, boolean cleared) {}

    /** What is put together from others follows from them and is never taken along. O(facts). */
    public static FactsAlong of(Map<String, String> values, List<Sheet> sheet) {
        Map<String, String> kept = new LinkedHashMap<>();
        List<FactDefinition> cleared = new ArrayList<>();
        for (Sheet one : sheet) {
            String value = values.getOrDefault(one.fact().name(), "");
            if (value.isEmpty() || one.fact().use().source() == FactSource.COMPUTED) continue;
            if (one.cleared()) cleared.add(one.fact());
            else kept.put(one.fact().name(), value);
        }
        return new FactsAlong(kept, cleared);
    }
}
