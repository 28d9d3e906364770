package mintshelf.core.model.step;

import java.io.IOException;
import java.io.InputStream;
import java.util.HashMap;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import mintshelf.core.model.step.StepValue.Typed;

/** The instances of some kinds that an exchange file has, with the geometry of placements and points among them. */
class StepInstances {
    private final StepScanner scan;
    private final Set<String> wanted;
    private final int[] hashes;
    private final int most;
    final Map<Long, Typed> kept = new HashMap<>();

    /** @param most instances that are kept: beyond them the rest is passed over */
    StepInstances(InputStream in, Set<String> wanted, int most) {
        this.scan = new StepScanner(in);
        this.wanted = wanted;
        this.hashes = wanted.stream().mapToInt(StepScanner::hash).sorted().toArray();
        this.most = most;
    }

    /** Reads all; what breaks off is read up to there. O(bytes). */
    void read() throws IOException {
        try {
            instances();
        } catch (StepScanner.Broken e) {
            // What was read before is told.
        }
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
            } else if (scan.isKeywordIn(wanted, hashes) && kept.size() < most) {
                Typed instance = new Typed(scan.lastWord(), scan.parameters(0));
                scan.expect(';');
                kept.put(id, instance);
            } else {
                scan.skip();
            }
        }
    }

    private void complex(long id) throws IOException {
        Map<String, Typed> parts = new HashMap<>();
        scan.expect('(');
        while (scan.next() != ')') {
            String type = scan.keyword();
            if (type.isEmpty()) throw new StepScanner.Broken("a complex instance that is none");
            parts.put(type, new Typed(type, scan.parameters(0)));
        }
        scan.expect(')');
        scan.expect(';');
        complex(id, parts);
    }

    /** Takes an instance of several kinds at once, by the names of its parts. */
    void complex(long id, Map<String, Typed> parts) {
        // Most readers need none.
    }

    Optional<Typed> instance(long id, String type) {
        return Optional.ofNullable(kept.get(id)).filter(i -> i.type().startsWith(type));
    }

    /** The frame of a placement: its axes as columns, its place behind them; what is missing is as the standard says. */
    double[] axes(long id, double unit) {
        Optional<Typed> placement = instance(id, "AXIS2_PLACEMENT_3D");
        if (placement.isEmpty()) return StepAssembly.identity();
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

    double[] vector(long id, String type, double[] otherwise) {
        Optional<Typed> found = instance(id, type);
        if (found.isEmpty() || !(found.get().at(1) instanceof StepValue.Many many)) return otherwise;
        double[] vector = otherwise.clone();
        for (int i = 0; i < Math.min(3, many.values().size()); i++) {
            double value = many.values().get(i).number().orElse(0.0);
            vector[i] = Double.isFinite(value) ? value : 0;
        }
        return vector;
    }

    static double dot(double[] a, double[] b) {
        return a[0] * b[0] + a[1] * b[1] + a[2] * b[2];
    }

    static double[] unit(double[] v) {
        double length = Math.sqrt(dot(v, v));
        return length < 1e-12 ? new double[] {0, 0, 1} : new double[] {v[0] / length, v[1] / length, v[2] / length};
    }
}
