package mintshelf.core.model.step;

import java.io.IOException;
import java.io.InputStream;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import mintshelf.core.model.step.StepValue.Typed;

/**
 * Where the external files of an assembly stand: each occurrence with its place in space (ISO 10303-43 item defined
 * transformations, ISO 10303-44 usages). Meant for assembly files, which are small: their points are kept in memory.
 */
public final class StepAssembly extends StepInstances {
    /** Occurrences that are placed; a file beyond that says so by {@link Assembly#cut}. */
    public static final int MOST = 5000;

    private static final int DEEPEST = 60;
    private static final int MOST_KEPT = 3_000_000;

    private static final Set<String> WANTED = Set.of(
            "PRODUCT",
            "PRODUCT_DEFINITION",
            "PRODUCT_DEFINITION_WITH_ASSOCIATED_DOCUMENTS",
            "PRODUCT_DEFINITION_FORMATION",
            "PRODUCT_DEFINITION_FORMATION_WITH_SPECIFIED_SOURCE",
            "PRODUCT_DEFINITION_SHAPE",
            "NEXT_ASSEMBLY_USAGE_OCCURRENCE",
            "SHAPE_DEFINITION_REPRESENTATION",
            "CONTEXT_DEPENDENT_SHAPE_REPRESENTATION",
            "ITEM_DEFINED_TRANSFORMATION",
            "AXIS2_PLACEMENT_3D",
            "CARTESIAN_POINT",
            "DIRECTION",
            "DOCUMENT_FILE",
            "APPLIED_DOCUMENT_REFERENCE",
            "MANIFOLD_SOLID_BREP",
            "SHELL_BASED_SURFACE_MODEL");

    /** A relation of two representations by a transformation. */
    private record Relation(long first, long second, long transformation) {}

    private final Map<Long, Relation> relations = new HashMap<>();
    private final List<Placed> placed = new ArrayList<>();
    private boolean cut;

    private StepAssembly(InputStream in) {
        super(in, WANTED, MOST_KEPT);
    }

    /**
     * An occurrence of an external file.
     *
     * @param file as the assembly names it
     * @param name of the product
     * @param matrix 4 × 4, by rows, in millimetres where {@code unit} was 1
     */
    public record Placed(String file, String name, double[] matrix) {}

    /**
     * @param ownShape whether the file has solids of its own too
     * @param cut whether more occurrences are in it than are told
     */
    public record Assembly(List<Placed> placed, boolean ownShape, boolean cut) {
        public Assembly {
            placed = List.copyOf(placed);
        }
    }

    /**
     * Reads the occurrences; what breaks off is read up to there. O(bytes).
     *
     * @param unit millimetres of one of the file's length units
     */
    public static Assembly read(InputStream in, double unit) throws IOException {
        StepAssembly reader = new StepAssembly(in);
        reader.read();
        reader.place(unit);
        boolean shape = reader.kept.values().stream()
                .anyMatch(i -> i.type().startsWith("MANIFOLD") || i.type().startsWith("SHELL"));
        return new Assembly(reader.placed, shape, reader.cut);
    }

    @Override
    void complex(long id, Map<String, Typed> parts) {
        Typed relation = parts.get("REPRESENTATION_RELATIONSHIP");
        Typed moved = parts.get("REPRESENTATION_RELATIONSHIP_WITH_TRANSFORMATION");
        if (moved == null) return;
        long first = relation == null ? -1 : relation.at(2).ref();
        long second = relation == null ? -1 : relation.at(3).ref();
        relations.put(id, new Relation(first, second, moved.at(0).ref()));
    }

    /** A usage with its place in its parent. */
    private record Use(long child, double[] matrix) {}

    private void place(double unit) {
        Map<Long, Long> definitionOf = new HashMap<>();
        Map<Long, double[]> matrices = new HashMap<>();
        kept.values().stream()
                .filter(i -> i.type().equals("SHAPE_DEFINITION_REPRESENTATION"))
                .forEach(i -> instance(i.at(0).ref(), "PRODUCT_DEFINITION_SHAPE")
                        .ifPresent(s -> definitionOf.put(i.at(1).ref(), s.at(2).ref())));
        for (Typed i : kept.values()) {
            if (!i.type().equals("CONTEXT_DEPENDENT_SHAPE_REPRESENTATION")) continue;
            Relation relation = relations.get(i.at(0).ref());
            Optional<Typed> of = instance(i.at(1).ref(), "PRODUCT_DEFINITION_SHAPE");
            if (relation == null || of.isEmpty()) continue;
            long usage = of.get().at(2).ref();
            Optional<Typed> use = instance(usage, "NEXT_ASSEMBLY_USAGE_OCCURRENCE");
            Optional<Typed> moved = instance(relation.transformation(), "ITEM_DEFINED_TRANSFORMATION");
            if (use.isEmpty() || moved.isEmpty()) continue;
            // Files relate the component's shape to the assembly's, or the other way round.
            boolean fromParent = Optional.ofNullable(definitionOf.get(relation.first()))
                    .equals(Optional.of(use.get().at(3).ref()));
            double[] a = axes(moved.get().at(fromParent ? 3 : 2).ref(), unit);
            double[] b = axes(moved.get().at(fromParent ? 2 : 3).ref(), unit);
            matrices.put(usage, times(b, inverse(a)));
        }
        Map<Long, List<Use>> below = new HashMap<>();
        Set<Long> used = new HashSet<>();
        kept.forEach((id, i) -> {
            if (!i.type().equals("NEXT_ASSEMBLY_USAGE_OCCURRENCE")) return;
            below.computeIfAbsent(i.at(3).ref(), p -> new ArrayList<>())
                    .add(new Use(i.at(4).ref(), matrices.getOrDefault(id, identity())));
            used.add(i.at(4).ref());
        });
        Map<Long, String> files = new HashMap<>();
        for (Typed i : kept.values()) {
            if (!i.type().equals("APPLIED_DOCUMENT_REFERENCE")) continue;
            instance(i.at(0).ref(), "DOCUMENT_FILE")
                    .ifPresent(f ->
                            i.at(2).refs().forEach(d -> files.put(d, f.at(0).text())));
        }
        kept.entrySet().stream()
                .filter(e -> e.getValue().type().equals("PRODUCT_DEFINITION")
                        || e.getValue().type().equals("PRODUCT_DEFINITION_WITH_ASSOCIATED_DOCUMENTS"))
                .map(Map.Entry::getKey)
                .filter(d -> !used.contains(d))
                .sorted()
                .forEach(top -> walk(top, identity(), below, files, 0));
    }

    private void walk(long definition, double[] at, Map<Long, List<Use>> below, Map<Long, String> files, int depth) {
        if (depth > DEEPEST) return;
        for (Use use : below.getOrDefault(definition, List.of())) {
            if (placed.size() >= MOST) {
                cut = true;
                return;
            }
            double[] matrix = times(at, use.matrix());
            String file = files.get(use.child());
            if (file != null) placed.add(new Placed(file, name(use.child()), matrix));
            walk(use.child(), matrix, below, files, depth + 1);
        }
    }

    private String name(long definition) {
        return instance(definition, "PRODUCT_DEFINITION")
                .flatMap(d -> instance(d.at(2).ref(), "PRODUCT_DEFINITION_FORMATION"))
                .flatMap(f -> instance(f.at(2).ref(), "PRODUCT"))
                .map(p -> p.at(1).text().isBlank() ? p.at(0).text() : p.at(1).text())
                .orElse("");
    }

    /** The matrix that moves nothing, 4 × 4 by rows. */
    public static double[] identity() {
        return new double[] {1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1};
    }

    /** The product of two matrices, 4 × 4 by rows. */
    public static double[] times(double[] a, double[] b) {
        double[] c = new double[16];
        for (int row = 0; row < 4; row++) {
            for (int column = 0; column < 4; column++) {
                double sum = 0;
                for (int k = 0; k < 4; k++) sum += a[row * 4 + k] * b[k * 4 + column];
                c[row * 4 + column] = sum;
            }
        }
        return c;
    }

    /** Of a turn and a shift: the turn transposed, the shift turned back. */
    private static double[] inverse(double[] m) {
        double[] i = identity();
        for (int row = 0; row < 3; row++) {
            for (int column = 0; column < 3; column++) i[row * 4 + column] = m[column * 4 + row];
        }
        for (int row = 0; row < 3; row++) {
            i[row * 4 + 3] = -(i[row * 4] * m[3] + i[row * 4 + 1] * m[7] + i[row * 4 + 2] * m[11]);
        }
        return i;
    }
}
