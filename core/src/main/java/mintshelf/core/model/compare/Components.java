package mintshelf.core.model.compare;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;
import mintshelf.core.model.compare.ModelComparison.Difference;
import mintshelf.core.model.compare.ModelComparison.Kind;
import mintshelf.core.model.shape.Extent;
import mintshelf.core.model.shape.Feature;
import mintshelf.core.model.shape.Vec;
import mintshelf.core.model.step.StepAssembly.Placed;
import mintshelf.core.model.step.StepModel;

/** What stands in two assemblies: added, gone, moved, exchanged components, and how often products stand in others. */
final class Components {
    private final List<Difference> all = new ArrayList<>();

    Components(ModelFile old, ModelFile now) {
        placed(old.placed(), now.placed());
        usages(old, now);
    }

    List<Difference> differences() {
        return all;
    }

    private void add(Kind kind, String says, Extent box) {
        all.add(new Difference(0, kind, says, box));
    }

    private record Place(List<Long> at) {
        static Place of(Placed one) {
            List<Long> at = new ArrayList<>();
            for (int i = 0; i < 12; i++) at.add(Math.round(one.matrix()[i] * (i % 4 == 3 ? 1e3 : 1e5) + 0.037));
            return new Place(at);
        }
    }

    private static Vec at(Placed one) {
        return new Vec(one.matrix()[3], one.matrix()[7], one.matrix()[11]);
    }

    private void placed(List<Placed> old, List<Placed> now) {
        List<Placed> was = new ArrayList<>();
        Map<String, Map<Place, List<Placed>>> is = new LinkedHashMap<>();
        for (Placed one : now) {
            is.computeIfAbsent(one.file(), f -> new LinkedHashMap<>())
                    .computeIfAbsent(Place.of(one), p -> new ArrayList<>())
                    .add(one);
        }
        for (Placed one : old) {
            List<Placed> same = is.getOrDefault(one.file(), Map.of()).getOrDefault(Place.of(one), List.of());
            if (same.isEmpty()) was.add(one);
            else same.remove(same.size() - 1);
        }
        List<Placed> left = new ArrayList<>();
        is.values().forEach(byPlace -> byPlace.values().forEach(left::addAll));
        exchanged(was, left);
        moved(was, left);
        counted(was, left);
    }

    /** Another file at the same place. */
    private void exchanged(List<Placed> was, List<Placed> is) {
        Map<Place, Placed> byPlace = new LinkedHashMap<>();
        is.forEach(one -> byPlace.putIfAbsent(Place.of(one), one));
        Map<List<String>, Integer> times = new LinkedHashMap<>();
        Map<List<String>, Extent> boxes = new LinkedHashMap<>();
        for (Placed one : List.copyOf(was)) {
            Placed other = byPlace.remove(Place.of(one));
            if (other == null) continue;
            was.remove(one);
            is.remove(other);
            List<String> names = List.of(one.name(), other.name());
            times.merge(names, 1, Integer::sum);
            boxes.merge(names, Extent.NONE.with(at(one)), Extent::with);
        }
        times.forEach((names, n) -> add(
                Kind.CHANGED,
                names.get(0) + " exchanged for " + names.get(1) + (n == 1 ? "" : ", " + n + " times"),
                boxes.getOrDefault(names, Extent.NONE)));
    }

    private void moved(List<Placed> was, List<Placed> is) {
        for (Placed one : List.copyOf(was)) {
            for (Placed other : is) {
                if (!other.file().equals(one.file())) continue;
                Vec by = at(other).minus(at(one));
                add(
                        Kind.MOVED,
                        one.name() + (by.length() < 1e-3 ? " turned" : " moved by " + Feature.place(by)),
                        Extent.NONE.with(at(one)).with(at(other)));
                was.remove(one);
                is.remove(other);
                break;
            }
        }
    }

    private void counted(List<Placed> was, List<Placed> is) {
        Set<String> names = new LinkedHashSet<>();
        was.forEach(p -> names.add(p.name()));
        is.forEach(p -> names.add(p.name()));
        for (String name : names) {
            told(name, was, Kind.ONLY_IN_OLD, " gone");
            told(name, is, Kind.ONLY_IN_NEW, " added");
        }
    }

    private void told(String name, List<Placed> from, Kind kind, String became) {
        List<Placed> of = from.stream().filter(p -> p.name().equals(name)).toList();
        if (of.isEmpty()) return;
        Extent box = Extent.NONE;
        for (Placed one : of) box = box.with(at(one));
        add(kind, (of.size() == 1 ? "" : of.size() + " × ") + name + became, box);
    }

    /** Products that stand in others inside of one file. */
    private void usages(ModelFile old, ModelFile now) {
        if (!old.placed().isEmpty() || !now.placed().isEmpty()) return;
        Map<List<String>, Integer> was = counts(old.says());
        Map<List<String>, Integer> is = counts(now.says());
        Set<List<String>> both = new TreeSet<>((a, b) -> String.join("\0", a).compareTo(String.join("\0", b)));
        both.addAll(was.keySet());
        both.addAll(is.keySet());
        for (List<String> one : both) {
            int before = was.getOrDefault(one, 0);
            int after = is.getOrDefault(one, 0);
            if (before == after) continue;
            String in = " in " + one.get(0);
            if (before == 0) add(Kind.ONLY_IN_NEW, times(after) + one.get(1) + " added" + in, Extent.NONE);
            else if (after == 0) add(Kind.ONLY_IN_OLD, times(before) + one.get(1) + " gone" + in, Extent.NONE);
            else add(Kind.CHANGED, one.get(1) + " × " + before + " → × " + after + in, Extent.NONE);
        }
    }

    private static String times(int n) {
        return n == 1 ? "" : n + " × ";
    }

    private static Map<List<String>, Integer> counts(StepModel model) {
        Map<List<String>, Integer> counts = new LinkedHashMap<>();
        model.usages().forEach(u -> counts.merge(List.of(u.parent(), u.child()), u.count(), Integer::sum));
        return counts;
    }
}
