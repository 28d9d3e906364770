package mintshelf.core.model.compare;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import mintshelf.core.model.shape.Extent;
import mintshelf.core.model.shape.Face;
import mintshelf.core.model.shape.Surface;
import mintshelf.core.model.shape.Vec;

/** Finds for each face the equal one of another model: same surface, same reach, within a tolerance, whatever its number and order. */
final class FaceMatch {
    /** Faces of one form that are voted with: more say nothing of where the whole moved. */
    private static final int MOST_ALIKE = 12;

    /** Faces about one middle that are held against one: more than that nobody drew. */
    private static final int MOST_IN_CELL = 400;

    private final List<Face> olds;
    private final List<Face> nows;
    private final double near;
    /** The face of the new model by that of the old one; -1 for none. */
    final int[] toNew;

    final int[] toOld;

    FaceMatch(List<Face> olds, List<Face> nows, double near) {
        this.olds = olds;
        this.nows = nows;
        this.near = near;
        this.toNew = new int[olds.size()];
        this.toOld = new int[nows.size()];
        Arrays.fill(toNew, -1);
        Arrays.fill(toOld, -1);
    }

    /** The tolerance between two models: a thousandth of a millimetre, of large ones a millionth of their size. */
    static double near(Extent a, Extent b) {
        return Math.max(1e-3, 1e-6 * Math.max(a.size().length(), b.size().length()));
    }

    private record Cell(long x, long y, long z) {}

    /**
     * Matches what is not matched yet.
     *
     * @param by how far old faces are moved before they are held against new ones
     * @return how many were matched
     */
    int match(Vec by) {
        Map<Cell, List<Integer>> free = new HashMap<>();
        double wide = 8 * near;
        for (int i = 0; i < nows.size(); i++) {
            if (toOld[i] < 0)
                free.computeIfAbsent(cell(nows.get(i).extent().centre(), wide), c -> new ArrayList<>(1))
                        .add(i);
        }
        int matched = 0;
        for (int i = 0; i < olds.size(); i++) {
            if (toNew[i] >= 0) continue;
            Vec centre = olds.get(i).extent().centre().plus(by);
            int found = find(free, olds.get(i), centre, by, wide);
            if (found < 0) continue;
            toNew[i] = found;
            toOld[found] = i;
            matched++;
        }
        return matched;
    }

    private static Cell cell(Vec p, double wide) {
        return new Cell(Math.round(p.x() / wide), Math.round(p.y() / wide), Math.round(p.z() / wide));
    }

    private int find(Map<Cell, List<Integer>> free, Face face, Vec centre, Vec by, double wide) {
        Cell low = cell(centre.plus(new Vec(-near, -near, -near)), wide);
        Cell high = cell(centre.plus(new Vec(near, near, near)), wide);
        for (long x = low.x(); x <= high.x(); x++) {
            for (long y = low.y(); y <= high.y(); y++) {
                for (long z = low.z(); z <= high.z(); z++) {
                    List<Integer> there = free.get(new Cell(x, y, z));
                    if (there == null) continue;
                    // The last first: of many that are the same each is taken out at once.
                    for (int k = there.size() - 1; k >= Math.max(0, there.size() - MOST_IN_CELL); k--) {
                        int i = there.get(k);
                        if (!isEqual(face, nows.get(i), by)) continue;
                        there.remove(k);
                        return i;
                    }
                }
            }
        }
        return -1;
    }

    private boolean isEqual(Face a, Face b, Vec by) {
        Extent moved = a.extent().isEmpty()
                ? a.extent()
                : new Extent(a.extent().low().plus(by), a.extent().high().plus(by));
        return isOnEqual(a, b, by) && moved.isLike(b.extent(), near);
    }

    /** Whether both lie on one surface, whatever their edges. */
    boolean isOnEqual(Face a, Face b, Vec by) {
        Surface s = a.surface();
        Surface t = b.surface();
        if (s.kind() != t.kind() || (s.isRound() && a.with() != b.with())) return false;
        if (s.kind() == Surface.Kind.FREE) {
            return s.poles().isEmpty() == t.poles().isEmpty()
                    && (s.poles().isEmpty()
                            || new Extent(
                                            s.poles().low().plus(by),
                                            s.poles().high().plus(by))
                                    .isLike(t.poles(), near));
        }
        if (Math.abs(s.other() - t.other()) > 1e-4 + (s.kind() == Surface.Kind.TORUS ? near : 0)) return false;
        Vec d = s.at().plus(by).minus(t.at());
        return switch (s.kind()) {
            case PLANE -> {
                Vec n = t.with(b);
                yield s.with(a).distance(n) < 1e-4 && Math.abs(d.dot(n)) <= near;
            }
            case SPHERE -> Math.abs(s.radius() - t.radius()) <= near && d.length() <= near;
            case TORUS ->
                Math.abs(s.radius() - t.radius()) <= near && d.length() <= near && isParallel(s.axis(), t.axis());
            case CYLINDER ->
                Math.abs(s.radius() - t.radius()) <= near
                        && isParallel(s.axis(), t.axis())
                        && d.across(t.axis()).length() <= near;
            default ->
                isParallel(s.axis(), t.axis())
                        && d.across(t.axis()).length() <= near
                        && s.tip().plus(by).distance(t.tip()) <= 10 * near;
        };
    }

    private static boolean isParallel(Vec a, Vec b) {
        return a.upward().distance(b.upward()) < 1e-4;
    }

    /** A face without its place. */
    private record Form(Surface.Kind kind, boolean with, Cell size, Cell axis, long radius, long other) {
        static Form of(Face face, double near) {
            Surface on = face.surface();
            Vec axis = face.is(Surface.Kind.PLANE) ? on.with(face) : on.axis().upward();
            return new Form(
                    on.kind(),
                    face.with() || face.is(Surface.Kind.PLANE),
                    cell(face.extent().size(), 8 * near),
                    cell(axis, 1e-3),
                    Math.round(on.radius() / near / 8),
                    Math.round(on.other() * 1e3));
        }
    }

    /** By how much most of what is not matched moved; nothing where that is not so. */
    Optional<Vec> moved() {
        Map<Form, List<Vec>> there = new HashMap<>();
        int open = 0;
        for (int i = 0; i < nows.size(); i++) {
            if (toOld[i] >= 0) continue;
            open++;
            there.computeIfAbsent(Form.of(nows.get(i), near), f -> new ArrayList<>())
                    .add(nows.get(i).extent().centre());
        }
        Map<Cell, Integer> votes = new HashMap<>();
        Map<Cell, Vec> by = new HashMap<>();
        int left = 0;
        for (int i = 0; i < olds.size(); i++) {
            if (toNew[i] >= 0) continue;
            left++;
            List<Vec> alike = there.getOrDefault(Form.of(olds.get(i), near), List.of());
            if (alike.size() > MOST_ALIKE) continue;
            for (Vec to : alike) {
                Vec move = to.minus(olds.get(i).extent().centre());
                Cell cell = cell(move, 8 * near);
                votes.merge(cell, 1, Integer::sum);
                by.putIfAbsent(cell, move);
            }
        }
        int needed = Math.max(3, Math.min(left, open) / 2);
        return votes.entrySet().stream()
                .max(Map.Entry.<Cell, Integer>comparingByValue()
                        .thenComparing(
                                e -> -by.getOrDefault(e.getKey(), Vec.ZERO).length()))
                .filter(e -> e.getValue() >= needed)
                .map(e -> by.getOrDefault(e.getKey(), Vec.ZERO))
                .filter(v -> v.length() > near);
    }
}
