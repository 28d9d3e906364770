package mintshelf.core.model.compare;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import mintshelf.core.model.compare.ModelComparison.Difference;
import mintshelf.core.model.compare.ModelComparison.Kind;
import mintshelf.core.model.shape.Body;
import mintshelf.core.model.shape.Extent;
import mintshelf.core.model.shape.Face;
import mintshelf.core.model.shape.Feature;
import mintshelf.core.model.shape.Features;
import mintshelf.core.model.shape.Surface;
import mintshelf.core.model.shape.Vec;

/** Two bodies held against each other: equal faces, then what the others make. */
final class BodyCompare {
    private final Body old;
    private final Body now;
    private final FaceMatch faces;
    private final double near;
    private final Words words = new Words();
    /** Whether a face has been told of, or is as it was. */
    private final boolean[] oldDone;

    private final boolean[] nowDone;
    private Vec moved = Vec.ZERO;
    int same;
    int changed;
    int unsaid;

    BodyCompare(Body old, Body now) {
        this.old = old;
        this.now = now;
        this.near = FaceMatch.near(old.extent(), now.extent());
        this.faces = new FaceMatch(old.faces(), now.faces(), near);
        this.oldDone = new boolean[old.faces().size()];
        this.nowDone = new boolean[now.faces().size()];
    }

    List<Difference> differences() {
        same = faces.match(Vec.ZERO);
        for (int i = 0; i < oldDone.length; i++) if (faces.toNew[i] >= 0) oldDone[i] = true;
        for (int i = 0; i < nowDone.length; i++) if (faces.toOld[i] >= 0) nowDone[i] = true;
        if (2 * same < old.faces().size()) faces.moved().ifPresent(this::moved);
        if (same < oldDone.length || same < nowDone.length) {
            features();
            planes();
            rest();
        }
        return words.all();
    }

    private void moved(Vec by) {
        int came = faces.match(by);
        changed += came;
        moved = by;
        for (int i = 0; i < oldDone.length; i++) if (faces.toNew[i] >= 0) oldDone[i] = true;
        for (int i = 0; i < nowDone.length; i++) if (faces.toOld[i] >= 0) nowDone[i] = true;
        words.say(
                Kind.MOVED,
                (came == oldDone.length ? "all of it moved by " : "most of it moved by ") + Feature.place(by),
                old.extent().with(now.extent()));
    }

    private static boolean isOpen(Feature feature, boolean[] done) {
        return feature.faces().stream().anyMatch(f -> !done[f]);
    }

    private void features() {
        List<Feature> olds = new ArrayList<>();
        for (Feature f : Features.of(old)) {
            if (isOpen(f, oldDone))
                olds.add(new Feature(f.kind(), f.through(), f.sizes(), f.at().plus(moved), f.axis(), f.faces()));
        }
        List<Feature> nows = new ArrayList<>();
        for (Feature f : Features.of(now)) if (isOpen(f, nowDone)) nows.add(f);
        FeaturePairs pairs = new FeaturePairs(olds, nows, near);
        for (FeaturePairs.Pair pair : pairs.pairs()) {
            tell(pair);
            settle(pair.old(), pair.now());
        }
        for (Feature gone : pairs.gone()) {
            words.gone(gone, box(gone, old));
            gone.faces().forEach(f -> oldDone[f] = true);
        }
        for (Feature came : pairs.came()) {
            words.came(came, box(came, now));
            came.faces().forEach(f -> nowDone[f] = true);
        }
    }

    private static Extent box(Feature feature, Body body) {
        Extent box = Extent.NONE;
        for (int f : feature.faces()) box = box.with(body.faces().get(f).extent());
        return box;
    }

    private void tell(FeaturePairs.Pair pair) {
        Extent box = box(pair.old(), old).with(box(pair.now(), now));
        if (!pair.old().measuresLike(pair.now(), near)) words.changed(pair.old(), pair.now(), box);
        else if (pair.isMoved(near)) words.moved(pair.old(), pair.now(), box);
    }

    /** Faces of two features that are the same thing count as changed, kind by kind; those that have no other are gone or new. */
    private void settle(Feature was, Feature is) {
        Map<Surface.Kind, Integer> open = new HashMap<>();
        for (int f : was.faces()) {
            if (!oldDone[f]) open.merge(old.faces().get(f).surface().kind(), 1, Integer::sum);
            oldDone[f] = true;
        }
        for (int f : is.faces()) {
            if (nowDone[f]) continue;
            nowDone[f] = true;
            Surface.Kind kind = now.faces().get(f).surface().kind();
            if (open.getOrDefault(kind, 0) > 0) {
                open.merge(kind, -1, Integer::sum);
                changed++;
            }
        }
    }

    private void planes() {
        Planes planes = new Planes(old, now, near, moved, i -> faces.toNew[i] >= 0);
        changed += planes.find(oldDone, nowDone);
        planes.tell(words);
    }

    /** What is on one surface ends elsewhere; all else is counted. */
    private void rest() {
        Map<String, List<Integer>> open = new LinkedHashMap<>();
        for (int i = 0; i < nowDone.length; i++)
            if (!nowDone[i])
                open.computeIfAbsent(key(now.faces().get(i), Vec.ZERO), k -> new ArrayList<>())
                        .add(i);
        int free = 0;
        for (int i = 0; i < oldDone.length; i++) {
            if (oldDone[i]) continue;
            Face face = old.faces().get(i);
            Optional<Integer> on = open.getOrDefault(key(face, moved), List.of()).stream()
                    .filter(k ->
                            !nowDone[k] && faces.isOnEqual(face, now.faces().get(k), moved))
                    .findFirst();
            if (on.isEmpty()) {
                unsaid++;
                if (face.is(Surface.Kind.FREE)) free++;
                continue;
            }
            nowDone[on.get()] = true;
            changed++;
            // What ends elsewhere because a neighbour did is told by the neighbour.
            if (words.isEmpty()) unsaid++;
        }
        for (int i = 0; i < nowDone.length; i++) {
            if (nowDone[i]) continue;
            unsaid++;
            if (now.faces().get(i).is(Surface.Kind.FREE)) free++;
        }
        if (free > 0)
            words.say(
                    Kind.CHANGED,
                    free == 1 ? "a face of free form differs" : free + " faces of free form differ",
                    now.extent());
    }

    private static String key(Face face, Vec by) {
        Surface on = face.surface();
        Vec at = on.at().plus(by);
        if (face.is(Surface.Kind.FREE))
            return "FREE " + cells(on.poles().centre().plus(by));
        if (face.is(Surface.Kind.PLANE)) {
            Vec n = on.with(face);
            return "PLANE " + cells(n) + " " + cell(at.dot(n));
        }
        return on.kind() + " " + cell(on.radius()) + " "
                + cells(at.across(on.axis().upward()));
    }

    private static String cells(Vec v) {
        return cell(v.x()) + " " + cell(v.y()) + " " + cell(v.z());
    }

    private static long cell(double value) {
        return Math.round(value * 50 + 0.037);
    }
}
