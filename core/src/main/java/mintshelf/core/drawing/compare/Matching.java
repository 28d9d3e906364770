package mintshelf.core.drawing.compare;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import mintshelf.core.drawing.Box;
import mintshelf.core.drawing.Primitive;
import mintshelf.core.drawing.Scene;
import mintshelf.core.drawing.Style;

/**
 * Pairs the primitives of two sheets: those that are the same, those that moved together, those that changed. What it decides
 * depends on the contents alone: neither on their order nor on which sheet is called old.
 *
 * <p>Four passes, each over what the one before left. <b>Equal</b>: to the last bit, as multisets, by hashing; O(n), and nearly
 * everything on nearly every sheet. <b>Near</b>: within the tolerance (a millionth of the sheet, a thousandth of a unit at least), the
 * nearest pairs first, found in a grid of cells. <b>Shifted</b>: the idea of the generalized Hough transform (D. H. Ballard, Pattern
 * Recognition 13, 1981): every unmatched old shape votes, with every unmatched new one of its form, for the translation between
 * them; the translation with most votes is taken as a view that moved, its members are paired, and the vote is held again, up to
 * {@link #MOST_SHIFTS} times. Fewer than {@link #LEAST_VOTES} votes are no view. Of two with as many votes the shorter one wins, then
 * the one that is the same seen from either sheet. Forms of which there are more than {@link #MOST_VOTERS}, rows of dots, do not vote:
 * they would vote for everything; they follow the view that others found. <b>Changed</b>: what carries one handle on both sheets, then
 * what is alike in place and form ({@link Likeness}), the most alike first.
 *
 * <p>O(n) in the common case, O(n + v²) a vote with v at most {@link #MOST_VOTERS} of a form. It does not hold for views that were
 * turned or scaled: their lines come out as removed and added. Beyond {@link #MOST_LIKE} unmatched shapes nothing is called changed:
 * such sheets are two sheets.
 */
final class Matching {
    private static final int LEAST_VOTES = 6;
    private static final int MOST_SHIFTS = 24;
    private static final int MOST_VOTERS = 40;
    private static final int MOST_LIKE = 20_000;

    final Shape[] old;
    final Shape[] now;
    /** For each primitive of the old sheet its partner on the new one, -1 for none; and the other way round. */
    final int[] oldTo;

    final int[] nowTo;
    /** For each primitive of the old sheet: 0 alone, 1 the same, 2 moved together, 3 changed. */
    final int[] how;
    /** Which shift it moved with, by its place among {@link #shifts}. */
    final int[] shiftOf;

    final List<double[]> shifts = new ArrayList<>();
    final double tolerance;
    private final double size;

    static final int SAME = 1;
    static final int SHIFTED = 2;
    static final int CHANGED = 3;

    Matching(Scene oldScene, Scene newScene, Box oldBox, Box newBox) {
        Box both = oldBox.with(newBox);
        size = both.isEmpty() ? 1 : Math.max(Math.max(both.width(), both.height()), 1e-9);
        tolerance = Math.max(0.001, size * 1e-6);
        Map<Kind, Integer> kinds = new HashMap<>();
        Map<Style, Integer> styles = new HashMap<>();
        old = shapes(oldScene, kinds, styles);
        now = shapes(newScene, kinds, styles);
        oldTo = filled(old.length);
        nowTo = filled(now.length);
        how = new int[old.length];
        shiftOf = filled(old.length);
        equal();
        near();
        shifted();
        changed();
    }

    private static int[] filled(int n) {
        int[] all = new int[n];
        Arrays.fill(all, -1);
        return all;
    }

    /** What of a primitive is equal or not, without tolerance. */
    private record Kind(Class<?> type, int style, int values, boolean closed, String text, int anchor) {}

    private static Shape[] shapes(Scene scene, Map<Kind, Integer> kinds, Map<Style, Integer> styles) {
        List<Primitive> all = scene.primitives();
        Style last = new Style("", 0, 0, List.of());
        int lastStyle = -1;
        Shape[] shapes = new Shape[all.size()];
        for (int i = 0; i < shapes.length; i++) {
            Primitive p = all.get(i);
            if (lastStyle < 0 || !p.style().equals(last)) {
                last = p.style();
                lastStyle = styles.computeIfAbsent(last, s -> styles.size());
            }
            Shape raw = Shape.of(i, p, 0);
            boolean text = p instanceof Primitive.Text;
            Kind kind = new Kind(
                    p.getClass(),
                    lastStyle,
                    raw.values().length,
                    p instanceof Primitive.Polyline line && line.closed(),
                    text ? ((Primitive.Text) p).text() : "",
                    text ? anchor((Primitive.Text) p) : 0);
            Integer number = kinds.get(kind);
            if (number == null) {
                number = kinds.size();
                kinds.put(kind, number);
            }
            shapes[i] = new Shape(i, p, number, raw.values(), raw.box());
        }
        return shapes;
    }

    private static int anchor(Primitive.Text t) {
        return t.across() + 4 * t.up() + (t.mirrored() ? 16 : 0);
    }

    private void pair(int a, int b, int what) {
        oldTo[a] = b;
        nowTo[b] = a;
        how[a] = what;
    }

    private record Exact(int kind, int hash, double[] values) {
        static Exact of(Shape shape) {
            return new Exact(shape.kind(), Arrays.hashCode(shape.values()) * 31 + shape.kind(), shape.values());
        }

        @Override
        public int hashCode() {
            return hash;
        }

        @Override
        public boolean equals(Object other) {
            return other instanceof Exact exact
                    && exact.hash == hash
                    && exact.kind == kind
                    && Arrays.equals(values, exact.values);
        }
    }

    /** Equal to the last bit, as multisets: nearly everything on nearly every sheet. */
    private void equal() {
        int[] next = new int[now.length];
        Map<Exact, Integer> heads = new HashMap<>(now.length * 2);
        for (int i = now.length - 1; i >= 0; i--) {
            Integer before = heads.put(Exact.of(now[i]), i);
            next[i] = before == null ? -1 : before;
        }
        for (int i = 0; i < old.length; i++) {
            Exact key = Exact.of(old[i]);
            Integer head = heads.get(key);
            if (head == null) continue;
            pair(i, head, SAME);
            if (next[head] < 0) heads.remove(key);
            else heads.put(key, next[head]);
        }
    }

    private record Cell(int kind, long x, long y) {}

    private record Pair(int a, int b, double apart) {}

    /** Nearest pairs first; between equals the content decides, the same way from either side. */
    private Comparator<Pair> byNearness() {
        return Comparator.<Pair>comparingDouble(Pair::apart)
                .thenComparing((p, q) -> Shape.byContent(lesser(p), lesser(q)))
                .thenComparing((p, q) -> Shape.byContent(greater(p), greater(q)));
    }

    private Shape lesser(Pair p) {
        return Shape.byContent(old[p.a()], now[p.b()]) <= 0 ? old[p.a()] : now[p.b()];
    }

    private Shape greater(Pair p) {
        return Shape.byContent(old[p.a()], now[p.b()]) <= 0 ? now[p.b()] : old[p.a()];
    }

    private void take(List<Pair> pairs, int what) {
        pairs.sort(byNearness());
        for (Pair p : pairs) if (oldTo[p.a()] < 0 && nowTo[p.b()] < 0) pair(p.a(), p.b(), what);
    }

    private Map<Cell, List<Integer>> grid(Shape[] shapes, int[] partners, double cell) {
        Map<Cell, List<Integer>> grid = new HashMap<>();
        for (Shape s : shapes) {
            if (partners[s.index()] >= 0) continue;
            grid.computeIfAbsent(cell(s, cell, 0, 0), c -> new ArrayList<>(2)).add(s.index());
        }
        return grid;
    }

    private static Cell cell(Shape s, double cell, double dx, double dy) {
        return new Cell(s.kind(), (long) Math.floor((s.box().middleX() + dx) / cell), (long)
                Math.floor((s.box().middleY() + dy) / cell));
    }

    /** Equal to within the tolerance; values at a cell's edge are looked for in its neighbours too. */
    private void near() {
        paired(0, 0, tolerance, SAME, -1);
    }

    private int paired(double dx, double dy, double within, int what, int shift) {
        double size = within * 4;
        Map<Cell, List<Integer>> grid = grid(now, nowTo, size);
        List<Pair> pairs = new ArrayList<>();
        for (Shape s : old) {
            if (oldTo[s.index()] >= 0) continue;
            for (int i = -1; i <= 1; i++) {
                for (int k = -1; k <= 1; k++) {
                    Cell cell = cell(s, size, dx + i * within, dy + k * within);
                    if ((i != 0 || k != 0) && cell.equals(cell(s, size, dx, dy))) continue;
                    for (int b : grid.getOrDefault(cell, List.of())) {
                        double apart = now[b].distance(s, dx, dy);
                        if (apart <= within) pairs.add(new Pair(s.index(), b, apart));
                    }
                }
            }
        }
        int before = count(what);
        take(pairs, what);
        if (shift >= 0) for (int i = 0; i < old.length; i++) if (how[i] == what && shiftOf[i] < 0) shiftOf[i] = shift;
        return count(what) - before;
    }

    private int count(int what) {
        int n = 0;
        for (int h : how) if (h == what) n++;
        return n;
    }

    private record Form(int kind, long a, long b, long c) {}

    /** The same for shapes that differ by a translation only, as far as rounding goes. */
    private Form form(Shape s) {
        double[] v = s.values();
        double grain = tolerance * 50;
        double rest = v.length > s.places() ? v[v.length - 1] : 0;
        return new Form(
                s.kind(),
                Math.round(s.box().width() / grain),
                Math.round(s.box().height() / grain),
                Math.round(rest / grain));
    }

    /** Finds views that moved as a whole: each unmatched pair of one form votes for the translation between its two. */
    private void shifted() {
        for (int round = 0; round < MOST_SHIFTS; round++) {
            double[] best = vote();
            if (best.length == 0) return;
            int shift = shifts.size();
            shifts.add(new double[] {best[0], best[1]});
            int taken = paired(best[0], best[1], tolerance * 4, SHIFTED, shift);
            if (taken < LEAST_VOTES) {
                // Too few after all: they are looked at one by one.
                for (int i = 0; i < old.length; i++) {
                    if (shiftOf[i] != shift) continue;
                    nowTo[oldTo[i]] = -1;
                    oldTo[i] = -1;
                    how[i] = 0;
                    shiftOf[i] = -1;
                }
                shifts.remove(shift);
                return;
            }
        }
    }

    private record Move(long x, long y) {}

    private double[] vote() {
        Map<Form, List<Integer>> forms = new HashMap<>();
        for (Shape s : now)
            if (nowTo[s.index()] < 0)
                forms.computeIfAbsent(form(s), f -> new ArrayList<>()).add(s.index());
        Map<Form, List<Integer>> olds = new HashMap<>();
        for (Shape s : old)
            if (oldTo[s.index()] < 0)
                olds.computeIfAbsent(form(s), f -> new ArrayList<>()).add(s.index());
        double grain = tolerance * 20;
        Map<Move, double[]> votes = new HashMap<>();
        olds.forEach((form, from) -> {
            List<Integer> to = forms.getOrDefault(form, List.of());
            // Crowds of like things, such as rows of dots, would vote for everything.
            if (to.isEmpty() || to.size() > MOST_VOTERS || from.size() > MOST_VOTERS) return;
            for (int a : from) {
                for (int b : to) {
                    double dx = now[b].box().middleX() - old[a].box().middleX();
                    double dy = now[b].box().middleY() - old[a].box().middleY();
                    double[] sum = votes.computeIfAbsent(
                            new Move(Math.round(Math.rint(dx / grain)), Math.round(Math.rint(dy / grain))),
                            m -> new double[3]);
                    sum[0]++;
                    sum[1] += dx;
                    sum[2] += dy;
                }
            }
        });
        return votes.entrySet().stream()
                .filter(v -> v.getValue()[0] >= LEAST_VOTES
                        && (v.getKey().x() != 0 || v.getKey().y() != 0))
                .max(Comparator.<Map.Entry<Move, double[]>>comparingDouble(v -> v.getValue()[0])
                        // Between equals the shorter way, and then the one that is the same seen from the other side.
                        .thenComparingDouble(v -> -Math.hypot(
                                (double) v.getKey().x(), (double) v.getKey().y()))
                        .thenComparingLong(v -> Math.abs(v.getKey().x()))
                        .thenComparingLong(v -> v.getKey().x() * v.getKey().y()))
                .map(v -> new double[] {v.getValue()[1] / v.getValue()[0], v.getValue()[2] / v.getValue()[0]})
                .orElse(new double[0]);
    }

    private record Handle(long handle, String path, String type, Class<?> kind) {
        static Handle of(Primitive p) {
            return new Handle(p.source().handle(), p.source().path(), p.source().type(), p.getClass());
        }
    }

    /** The rest: first what has one handle on both sheets, then what is like in place and form. */
    private void changed() {
        int left = 0;
        for (int to : oldTo) if (to < 0) left++;
        if (left > MOST_LIKE) return;
        Map<Handle, List<Integer>> olds = new HashMap<>();
        Map<Handle, List<Integer>> nows = new HashMap<>();
        for (Shape s : old) add(s, oldTo, olds);
        for (Shape s : now) add(s, nowTo, nows);
        List<Pair> pairs = new ArrayList<>();
        olds.forEach((handle, from) -> {
            List<Integer> to = nows.getOrDefault(handle, List.of());
            if (to.isEmpty() || (long) from.size() * to.size() > 400) return;
            for (int a : from) for (int b : to) like(a, b, size / 4, pairs);
        });
        take(pairs, CHANGED);
        pairs.clear();
        double reach = size * 0.05;
        Map<Move, List<Integer>> grid = new HashMap<>();
        for (Shape s : now) {
            if (nowTo[s.index()] < 0)
                grid.computeIfAbsent(move(s, reach, 0, 0), m -> new ArrayList<>())
                        .add(s.index());
        }
        for (Shape s : old) {
            if (oldTo[s.index()] >= 0) continue;
            for (int i = -1; i <= 1; i++) {
                for (int k = -1; k <= 1; k++) {
                    List<Integer> there = grid.getOrDefault(move(s, reach, i, k), List.of());
                    if (there.size() > 200) continue;
                    for (int b : there) like(s.index(), b, reach, pairs);
                }
            }
        }
        take(pairs, CHANGED);
    }

    private static Move move(Shape s, double cell, int dx, int dy) {
        return new Move(
                (long) Math.floor(s.box().middleX() / cell) + dx,
                (long) Math.floor(s.box().middleY() / cell) + dy);
    }

    private static void add(Shape s, int[] partners, Map<Handle, List<Integer>> by) {
        if (partners[s.index()] < 0 && s.primitive().source().handle() != 0) {
            by.computeIfAbsent(Handle.of(s.primitive()), h -> new ArrayList<>()).add(s.index());
        }
    }

    private void like(int a, int b, double reach, List<Pair> pairs) {
        if (old[a].primitive().getClass() != now[b].primitive().getClass()) return;
        double unlike = Likeness.unlike(old[a], now[b], reach);
        if (unlike <= 1) pairs.add(new Pair(a, b, unlike));
    }
}
