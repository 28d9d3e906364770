package mintshelf.core.model.compare;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import mintshelf.core.model.compare.ModelComparison.Difference;
import mintshelf.core.model.compare.ModelComparison.Kind;
import mintshelf.core.model.compare.ModelComparison.Measures;
import mintshelf.core.model.shape.Body;
import mintshelf.core.model.shape.Extent;
import mintshelf.core.model.shape.Face;
import mintshelf.core.model.shape.Volume;

/** Says what changed between two models (ISO 10303-21 files of parts and assemblies), in words. */
public final class ModelCompare {
    /** Differences that are told; those beyond are counted with what has no words. */
    public static final int MOST = 500;

    private ModelCompare() {}

    /** Differences with the faces that they are of. */
    private static final class All {
        final List<Difference> differences = new ArrayList<>();
        int same;
        int changed;
        int unsaid;
    }

    /** Compares. O(faces + edges), and what differs against each other where much of it is alike. */
    public static ModelComparison compare(ModelFile old, ModelFile now) {
        All all = new All();
        new Components(old, now).differences().forEach(all.differences::add);
        Map<String, Body> olds = byProduct(old.bodies());
        Map<String, Body> nows = byProduct(now.bodies());
        boolean single = olds.size() == 1 && nows.size() == 1;
        boolean named = olds.size() > 1 || nows.size() > 1;
        for (Map.Entry<String, Body> one : olds.entrySet()) {
            Body other = single ? nows.values().iterator().next() : nows.remove(one.getKey());
            if (other != null) compare(one.getValue(), other, named ? one.getKey() : "", all);
            else
                add(
                        all,
                        Kind.ONLY_IN_OLD,
                        "part " + one.getKey() + " gone",
                        one.getValue().extent());
        }
        if (!single)
            nows.forEach((product, body) -> add(all, Kind.ONLY_IN_NEW, "part " + product + " added", body.extent()));
        if (!old.says().lengthUnit().equals(now.says().lengthUnit())
                && !old.says().lengthUnit().isEmpty()
                && !now.says().lengthUnit().isEmpty())
            add(
                    all,
                    Kind.CHANGED,
                    "written in " + now.says().lengthUnit() + ", was in "
                            + old.says().lengthUnit(),
                    Extent.NONE);
        int before = faces(old.bodies());
        int after = faces(now.bodies());
        List<Difference> told = new ArrayList<>();
        for (Difference d : all.differences.subList(0, Math.min(MOST, all.differences.size())))
            told.add(new Difference(told.size() + 1, d.kind(), d.says(), d.box()));
        return new ModelComparison(
                before,
                after,
                all.same,
                all.changed,
                before - all.same - all.changed,
                after - all.same - all.changed,
                told,
                all.unsaid + all.differences.size() - told.size(),
                old.lost() + now.lost(),
                measures(old),
                measures(now));
    }

    private static void add(All all, Kind kind, String says, Extent box) {
        all.differences.add(new Difference(0, kind, says, box));
    }

    private static void compare(Body old, Body now, String product, All all) {
        BodyCompare two = new BodyCompare(old, now);
        for (Difference d : two.differences())
            add(all, d.kind(), product.isEmpty() ? d.says() : product + ": " + d.says(), d.box());
        all.same += two.same;
        all.changed += two.changed;
        all.unsaid += two.unsaid;
    }

    /** One body a product: what a file has of one product in several places is one. */
    private static Map<String, Body> byProduct(List<Body> bodies) {
        Map<String, Body> all = new LinkedHashMap<>();
        for (Body body : bodies) {
            all.merge(body.product(), body, (a, b) -> {
                List<Face> faces = new ArrayList<>(a.faces());
                faces.addAll(b.faces());
                return new Body(a.product(), a.solids() + b.solids(), faces);
            });
        }
        return all;
    }

    private static int faces(List<Body> bodies) {
        return bodies.stream().mapToInt(b -> b.faces().size()).sum();
    }

    private static Measures measures(ModelFile file) {
        List<Body> bodies = file.bodies();
        Extent extent = Extent.NONE;
        double volume = 0;
        boolean known = !bodies.isEmpty();
        for (Body body : bodies) {
            extent = extent.with(body.extent());
            Optional<Double> one = Volume.of(body);
            known &= one.isPresent();
            volume += one.orElse(0.0);
        }
        return new Measures(extent, known ? Optional.of(volume) : Optional.empty(), mass(file));
    }

    /** The mass as whoever drew the model says it of its product, with its unit. */
    private static Optional<String> mass(ModelFile file) {
        return file.says().top().stream()
                .flatMap(top -> file.says().said(top).entrySet().stream())
                .filter(e -> e.getKey().equalsIgnoreCase("mass"))
                .map(e -> e.getValue().shown())
                .findFirst();
    }
}
