package mintshelf.core.model.compare;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.BiPredicate;
import java.util.function.Function;
import mintshelf.core.model.shape.Feature;
import mintshelf.core.model.shape.Vec;

/** Which features of two bodies are the same thing: at one place first, then of one measure, then the nearest of a kind. */
final class FeaturePairs {
    /** Features of one measure that are held each against each: more are taken in their order. */
    private static final int MOST_EACH = 200;

    private final double near;
    private final List<Feature> olds;
    private final List<Feature> nows;
    private final List<Pair> pairs = new ArrayList<>();

    FeaturePairs(List<Feature> olds, List<Feature> nows, double near) {
        this.olds = new ArrayList<>(olds);
        this.nows = new ArrayList<>(nows);
        this.near = near;
        join(this::place, (a, b) -> a.measuresLike(b, near));
        join(this::place, (a, b) -> true);
        join(FeaturePairs::measures, (a, b) -> true);
        join(f -> f.kind(), FeaturePairs::isNear);
    }

    /** Two features that are one thing. */
    record Pair(Feature old, Feature now) {
        boolean isMoved(double near) {
            // A fillet goes where its walls go.
            boolean carried = old.kind() == Feature.Kind.FILLET || old.kind() == Feature.Kind.CHAMFER;
            return !carried && !old.standsLike(now, 2 * near);
        }
    }

    List<Pair> pairs() {
        return pairs;
    }

    List<Feature> gone() {
        return olds;
    }

    List<Feature> came() {
        return nows;
    }

    private static long cell(double value) {
        return Math.round(value * 100 + 0.037);
    }

    private Object place(Feature f) {
        boolean edge = f.kind() == Feature.Kind.FILLET || f.kind() == Feature.Kind.CHAMFER;
        Vec d = f.axis().upward();
        Vec at = edge ? f.at() : f.at().across(d);
        return List.of(f.kind(), cell(at.x()), cell(at.y()), cell(at.z()), cell(d.x()), cell(d.y()), cell(d.z()));
    }

    private static Object measures(Feature f) {
        List<Object> key = new ArrayList<>(List.of(f.kind(), f.through()));
        f.sizes().forEach((size, value) -> {
            key.add(size);
            key.add(cell(value));
        });
        return key;
    }

    /** What is resized and stands elsewhere by it: no farther than it is large. */
    private static boolean isNear(Feature a, Feature b) {
        double size = a.sizes().values().stream().mapToDouble(v -> v).max().orElse(0)
                + b.sizes().values().stream().mapToDouble(v -> v).max().orElse(0);
        boolean parallel = a.axis().upward().distance(b.axis().upward()) < 1e-3;
        return parallel && a.at().distance(b.at()) <= size;
    }

    private void join(Function<Feature, Object> key, BiPredicate<Feature, Feature> may) {
        Map<Object, List<Feature>> byKey = new LinkedHashMap<>();
        for (Feature f : nows)
            byKey.computeIfAbsent(key.apply(f), k -> new ArrayList<>()).add(f);
        Map<Object, List<Feature>> before = new LinkedHashMap<>();
        for (Feature f : olds)
            before.computeIfAbsent(key.apply(f), k -> new ArrayList<>()).add(f);
        List<Feature> left = new ArrayList<>();
        for (Map.Entry<Object, List<Feature>> one : before.entrySet()) {
            List<Feature> there = byKey.get(one.getKey());
            if (there == null) left.addAll(one.getValue());
            else left.addAll(join(one.getValue(), there, may));
        }
        olds.clear();
        olds.addAll(left);
        nows.clear();
        byKey.values().forEach(nows::addAll);
    }

    private record Candidate(int old, int now, double far) {}

    /** Joins the nearest first; gives what is left of the old ones, and takes what was joined out of the new ones. */
    private List<Feature> join(List<Feature> was, List<Feature> is, BiPredicate<Feature, Feature> may) {
        List<Candidate> all = new ArrayList<>();
        if (was.size() <= MOST_EACH && is.size() <= MOST_EACH) {
            for (int i = 0; i < was.size(); i++) {
                for (int k = 0; k < is.size(); k++) {
                    if (may.test(was.get(i), is.get(k)))
                        all.add(new Candidate(
                                i, k, was.get(i).at().distance(is.get(k).at())));
                }
            }
            all.sort(Comparator.comparingDouble(Candidate::far));
        } else {
            was.sort(inSpace());
            is.sort(inSpace());
            for (int i = 0; i < Math.min(was.size(), is.size()); i++)
                if (may.test(was.get(i), is.get(i))) all.add(new Candidate(i, i, 0));
        }
        boolean[] oldTaken = new boolean[was.size()];
        boolean[] nowTaken = new boolean[is.size()];
        for (Candidate one : all) {
            if (oldTaken[one.old()] || nowTaken[one.now()]) continue;
            oldTaken[one.old()] = true;
            nowTaken[one.now()] = true;
            pairs.add(new Pair(was.get(one.old()), is.get(one.now())));
        }
        List<Feature> left = new ArrayList<>();
        for (int i = 0; i < was.size(); i++) if (!oldTaken[i]) left.add(was.get(i));
        List<Feature> rest = new ArrayList<>();
        for (int k = 0; k < is.size(); k++) if (!nowTaken[k]) rest.add(is.get(k));
        is.clear();
        is.addAll(rest);
        return left;
    }

    private static Comparator<Feature> inSpace() {
        return Comparator.<Feature>comparingDouble(f -> f.at().x())
                .thenComparingDouble(f -> f.at().y())
                .thenComparingDouble(f -> f.at().z());
    }
}
