package mintshelf.core.model.compare;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import mintshelf.core.model.compare.ModelComparison.Difference;
import mintshelf.core.model.compare.ModelComparison.Kind;
import mintshelf.core.model.shape.Extent;
import mintshelf.core.model.shape.Feature;
import mintshelf.core.model.shape.Vec;

/** What differs, in sentences: equal things are told once, with how many they are. */
final class Words {
    /** What several features have in common. */
    private record Common(Kind kind, Feature.Kind what, String says) {}

    private static final class Told {
        int count;
        Extent box = Extent.NONE;
        Vec at = Vec.ZERO;
        Vec by = Vec.ZERO;
        boolean apart;
        double farthest;
    }

    private final Map<Common, Told> told = new LinkedHashMap<>();
    private final List<Difference> plain = new ArrayList<>();

    boolean isEmpty() {
        return told.isEmpty() && plain.isEmpty();
    }

    void say(Kind kind, String says, Extent box) {
        plain.add(new Difference(0, kind, says, box));
    }

    private Told tell(Kind kind, Feature feature, String says, Extent box) {
        Told one = told.computeIfAbsent(new Common(kind, feature.kind(), says), c -> new Told());
        one.count++;
        one.box = one.box.with(box);
        one.at = feature.at();
        return one;
    }

    void gone(Feature feature, Extent box) {
        tell(Kind.ONLY_IN_OLD, feature, feature.measures(), box);
    }

    void came(Feature feature, Extent box) {
        tell(Kind.ONLY_IN_NEW, feature, feature.measures(), box);
    }

    void moved(Feature was, Feature is, Extent box) {
        Told one = tell(Kind.MOVED, is, is.measures(), box);
        Vec by = is.at().minus(was.at());
        if (is.kind() == Feature.Kind.HOLE || is.kind() == Feature.Kind.SLOT)
            by = by.across(is.axis().unit());
        if (one.count > 1 && by.distance(one.by) > 1e-3) one.apart = true;
        one.by = by;
        one.farthest = Math.max(one.farthest, by.length());
    }

    void changed(Feature was, Feature is, Extent box) {
        List<String> says = new ArrayList<>();
        for (Feature.Size size : Feature.Size.values()) {
            boolean before = was.sizes().containsKey(size);
            boolean after = is.sizes().containsKey(size);
            if (before && after) {
                if (!Feature.number(was.size(size)).equals(Feature.number(is.size(size))))
                    says.add(size.says(was.size(size), is.size(size)));
            } else if (after) {
                says.add(size.says(is.size(size)) + " added");
            } else if (before && size != Feature.Size.DEPTH) {
                says.add(size.says(was.size(size)) + " gone");
            }
        }
        if (was.through() != is.through()) says.add(is.through() ? "goes through now" : "does not go through any more");
        if (!says.isEmpty()) tell(Kind.CHANGED, is, String.join(", ", says), box);
    }

    /** All of it, sizes first; numbered later. */
    List<Difference> all() {
        List<Difference> all = new ArrayList<>();
        told.forEach((common, one) -> all.add(new Difference(0, common.kind(), says(common, one), one.box)));
        Map<String, Integer> times = new LinkedHashMap<>();
        Map<String, Difference> first = new LinkedHashMap<>();
        for (Difference d : plain) {
            times.merge(d.says(), 1, Integer::sum);
            first.merge(
                    d.says(),
                    d,
                    (a, b) -> new Difference(0, a.kind(), a.says(), a.box().with(b.box())));
        }
        first.forEach((says, d) -> {
            int n = times.getOrDefault(says, 1);
            all.add(new Difference(0, d.kind(), n == 1 ? says : says + ", at " + n + " places", d.box()));
        });
        all.sort(Comparator.comparing((Difference d) -> d.kind() == Kind.MOVED ? 1 : d.kind() == Kind.CHANGED ? 0 : 2)
                .thenComparing(Difference::kind)
                .thenComparing(Difference::says));
        return all;
    }

    private static String says(Common common, Told one) {
        String what = common.what().words(one.count);
        String at = one.count == 1 ? " at " + Feature.place(one.at) : "";
        return switch (common.kind()) {
            case CHANGED -> what + " " + common.says() + at;
            case MOVED ->
                what + " " + common.says() + " moved "
                        + (one.apart ? "by up to " + Feature.number(one.farthest) : "by " + Feature.place(one.by));
            case ONLY_IN_OLD -> what + " gone" + at + ": " + common.says();
            case ONLY_IN_NEW -> what + " added" + at + ": " + common.says();
        };
    }
}
