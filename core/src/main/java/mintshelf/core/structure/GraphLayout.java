package mintshelf.core.structure;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import mintshelf.core.structure.StructureGraph.Use;

/**
 * Places documents in rows: a document above all of its components, neighbours near each other. Rows are counted from the bottom,
 * places in a row from the left. O(sweeps × (documents + uses)).
 */
public final class GraphLayout {
    private static final int SWEEPS = 6;

    private GraphLayout() {}

    /** Where a document stands. */
    public record Spot(long document, int row, int place) {}

    /**
     * @param documents to place, each once
     * @param uses among them; others are not looked at, a ring is cut where it closes
     */
    public static List<Spot> of(List<Long> documents, List<Use> uses) {
        Set<Long> all = new HashSet<>(documents);
        Map<Long, List<Long>> below = new HashMap<>();
        Map<Long, List<Long>> above = new HashMap<>();
        for (Use u : uses) {
            if (!all.contains(u.parent()) || !all.contains(u.component()) || u.parent() == u.component()) continue;
            below.computeIfAbsent(u.parent(), p -> new ArrayList<>()).add(u.component());
            above.computeIfAbsent(u.component(), c -> new ArrayList<>()).add(u.parent());
        }
        Map<Long, Integer> rows = new HashMap<>();
        for (long d : documents) row(d, below, rows, new HashSet<>());
        List<List<Long>> layers = new ArrayList<>();
        for (long d : documents) {
            int row = rows.getOrDefault(d, 0);
            while (layers.size() <= row) layers.add(new ArrayList<>());
            layers.get(row).add(d);
        }
        for (int sweep = 0; sweep < SWEEPS; sweep++) {
            boolean up = sweep % 2 == 0;
            for (int i = up ? 1 : layers.size() - 2; up ? i < layers.size() : i >= 0; i += up ? 1 : -1) {
                order(layers.get(i), places(layers), up ? below : above);
            }
        }
        List<Spot> spots = new ArrayList<>();
        for (int row = 0; row < layers.size(); row++) {
            for (int place = 0; place < layers.get(row).size(); place++) {
                spots.add(new Spot(layers.get(row).get(place), row, place));
            }
        }
        return spots;
    }

    /** One above the highest of its components. */
    private static int row(long document, Map<Long, List<Long>> below, Map<Long, Integer> rows, Set<Long> open) {
        Integer known = rows.get(document);
        if (known != null) return known;
        if (!open.add(document)) return -1;
        int row = 0;
        for (long c : below.getOrDefault(document, List.of())) row = Math.max(row, row(c, below, rows, open) + 1);
        open.remove(document);
        rows.put(document, row);
        return row;
    }

    private static Map<Long, Double> places(List<List<Long>> layers) {
        Map<Long, Double> places = new LinkedHashMap<>();
        for (List<Long> layer : layers) {
            for (int i = 0; i < layer.size(); i++) places.put(layer.get(i), (i + 0.5) / layer.size());
        }
        return places;
    }

    private static void order(List<Long> layer, Map<Long, Double> places, Map<Long, List<Long>> neighbours) {
        Map<Long, Double> wanted = new HashMap<>();
        for (long d : layer) {
            wanted.put(
                    d,
                    neighbours.getOrDefault(d, List.of()).stream()
                            .mapToDouble(n -> places.getOrDefault(n, 0.5))
                            .average()
                            .orElse(places.getOrDefault(d, 0.5)));
        }
        layer.sort(Comparator.comparingDouble((Long d) -> wanted.getOrDefault(d, 0.5)));
    }
}
