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
public final class StepAssembly {
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
    private static final int[] HASHES =
            WANTED.stream().mapToInt(StepScanner::hash).sorted().toArray();

    /** A relation of two representations by a transformation. */
    private record Relation(long first, long second, long transformation) {}

    private final StepScanner scan;
    private final Map<Long, Typed> kept = new HashMap<>();
    private final Map<Long, Relation> relations = new HashMap<>();
    private final List<Placed> placed = new ArrayList<>();
    private boolean shape;
    private boolean cut;

    private StepAssembly(InputStream in) {
        this.scan = new StepScanner(in);
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
        try {
            reader.instances();
        } catch (StepScanner.Broken e) {
            // What was read before is told.
        }
        reader.place(unit);
        return new Assembly(reader.placed, reader.shape, reader.cut);
    }

    private void instances() throws IOException {
        while (scan.next() >= 0) {
            if (scan.next() != '#') {
                scan.keyword();
                if (scan.next() != ';') scan.skip();
                else scan.expect(';');
                continue;
            }
            long id = scan.name();
            scan.expect('=');
            if (scan.next() == '(') {
                complex(id);
            } else if (scan.isKeywordIn(WANTED, HASHES) && kept.size() < MOST_KEPT) {
                Typed instance = new Typed(scan.lastWord(), scan.parameters(0));
                scan.expect(';');
                shape |= instance.type().startsWith("MANIFOLD")
                        || instance.type().startsWith("SHELL");
                kept.put(id, instance);
            } else {
                scan.skip();
            }
        }
    }

    private void complex(long id) throws IOException {
        scan.expect('(');
        long first = -1;
        long second = -1;
        long transformation = -1;
        while (scan.next() != ')') {
            String type = scan.keyword();
            if (type.isEmpty()) throw new StepScanner.Broken("a complex instance that is none");
            Typed part = new Typed(type, scan.parameters(0));
            if (type.equals("REPRESENTATION_RELATIONSHIP")) {
                first = part.at(2).ref();
                second = part.at(3).ref();
            } else if (type.equals("REPRESENTATION_RELATIONSHIP_WITH_TRANSFORMATION")) {
                transformation = part.at(0).ref();
            }
        }
        scan.expect(')');
        scan.expect(';');
        if (transformation >= 0) relations.put(id, new Relation(first, second, transformation));
    }

    private Optional<Typed> instance(long id, String type) {
        return Optional.ofNullable(kept.get(id)).filter(i -> i.type().startsWith(type));
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

    /** The frame of a placement: its axes as columns, its place behind them; what is missing is as the standard says. */
    private double[] axes(long id, double unit) {
        Optional<Typed> placement = instance(id, "AXIS2_PLACEMENT_3D");
        if (placement.isEmpty()) return identity();
        double[] o = vector(placement.get().at(1).ref(), "CARTESIAN_POINT", new double[] {0, 0, 0});
        double[] z = unit(vector(placement.get().at(2).ref(), "DIRECTION", new double[] {0, 0, 1}));
        double[] x = vector(placement.get().at(3).ref(), "DIRECTION", new double[] {1, 0, 0});
        double along = dot(x, z);
        double[] square = {x[0] - along * z[0], x[1] - along * z[1], x[2] - along * z[2]};
        if (Math.sqrt(dot(square, square)) < 1e-9) {
            // Parallel to the axis: any direction across does.
            double[] other = Math.abs(z[0]) < 0.9 ? new double[] {1, 0, 0} : new double[] {0, 1, 0};
            double off = dot(other, z);
            square = new double[] {other[0] - off * z[0], other[1] - off * z[1], other[2] - off * z[2]};
        }
        x = unit(square);
        double[] y = {z[1] * x[2] - z[2] * x[1], z[2] * x[0] - z[0] * x[2], z[0] * x[1] - z[1] * x[0]};
        return new double[] {
            x[0], y[0], z[0], o[0] * unit, x[1], y[1], z[1], o[1] * unit, x[2], y[2], z[2], o[2] * unit, 0, 0, 0, 1
        };
    }

    private double[] vector(long id, String type, double[] otherwise) {
        Optional<Typed> found = instance(id, type);
        if (found.isEmpty() || !(found.get().at(1) instanceof StepValue.Many many)) return otherwise;
        double[] vector = otherwise.clone();
        for (int i = 0; i < Math.min(3, many.values().size()); i++) {
            double value = many.values().get(i).number().orElse(0.0);
            vector[i] = Double.isFinite(value) ? value : 0;
        }
        return vector;
    }

    private static double dot(double[] a, double[] b) {
        return a[0] * b[0] + a[1] * b[1] + a[2] * b[2];
    }

    private static double[] unit(double[] v) {
        double length = Math.sqrt(dot(v, v));
        return length < 1e-12 ? new double[] {0, 0, 1} : new double[] {v[0] / length, v[1] / length, v[2] / length};
    }

    private static double[] identity() {
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
