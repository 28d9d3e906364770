package mintshelf.core.drawing.compare;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collections;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import java.util.TreeSet;
import mintshelf.core.drawing.Primitive;
import mintshelf.core.drawing.Scene;
import mintshelf.core.drawing.Style;
import org.assertj.core.data.Offset;
import org.junit.jupiter.api.Test;

/** The laws that the docstrings of {@link Matching} and {@link Likeness} state, on sheets made by chance. */
class MatchingLawsTest {
    private static final Style INK = new Style("OUTLINE", Style.INK, 0.5, List.of());
    private static final Style THIN = new Style("DIM", 0x00ff00, 0.25, List.of());
    private static final int CASES = 200;

    private static Primitive one(Random random) {
        double x = random.nextInt(4_000) / 10.0;
        double y = random.nextInt(2_800) / 10.0;
        Style style = random.nextBoolean() ? INK : THIN;
        return switch (random.nextInt(4)) {
            case 0 ->
                new Primitive.Polyline(
                        style, new double[] {x, y, x + 1 + random.nextInt(60), y + random.nextInt(40)}, false);
            case 1 -> new Primitive.Arc(style, x, y, 1 + random.nextInt(20), 0, 360);
            case 2 ->
                new Primitive.Arc(style, x, y, 1 + random.nextInt(20), random.nextInt(90), 30 + random.nextInt(200));
            default -> new Primitive.Text(style, x, y, 3.5, 0, 1, 0, 0, false, "T" + random.nextInt(9));
        };
    }

    private static Primitive moved(Primitive p, double dx, double dy) {
        if (p instanceof Primitive.Polyline line) {
            double[] points = line.points().clone();
            for (int i = 0; i < points.length; i += 2) {
                points[i] += dx;
                points[i + 1] += dy;
            }
            return new Primitive.Polyline(line.style(), points, line.closed());
        }
        if (p instanceof Primitive.Arc a) {
            return new Primitive.Arc(a.style(), a.x() + dx, a.y() + dy, a.radius(), a.from(), a.sweep());
        }
        Primitive.Text t = (Primitive.Text) p;
        return new Primitive.Text(
                t.style(),
                t.x() + dx,
                t.y() + dy,
                t.height(),
                t.angle(),
                t.width(),
                t.across(),
                t.up(),
                t.mirrored(),
                t.text());
    }

    private static Scene scene(List<Primitive> primitives) {
        return new Scene(primitives, Map.of(), Map.of());
    }

    private static Matching match(List<Primitive> a, List<Primitive> b) {
        Scene old = scene(a);
        Scene now = scene(b);
        return new Matching(old, now, old.extents(), now.extents());
    }

    private static List<Primitive> sheet(Random random, int most) {
        List<Primitive> all = new ArrayList<>();
        for (int i = 5 + random.nextInt(most); i > 0; i--) all.add(one(random));
        return all;
    }

    /** What was paired how, as texts of the contents: no index, no side. */
    private static Set<String> said(Matching m, List<Primitive> a, List<Primitive> b, boolean turned) {
        Set<String> said = new TreeSet<>();
        for (int i = 0; i < m.oldTo.length; i++) {
            String left = text(a.get(i));
            String right = m.oldTo[i] < 0 ? "-" : text(b.get(m.oldTo[i]));
            said.add(m.how[i] + " " + (turned ? right + " | " + left : left + " | " + right));
        }
        for (int i = 0; i < m.nowTo.length; i++) {
            if (m.nowTo[i] >= 0) continue;
            said.add("0 " + (turned ? text(b.get(i)) + " | -" : "- | " + text(b.get(i))));
        }
        return said;
    }

    private static String text(Primitive p) {
        Shape shape = Shape.of(0, p, 0);
        return p.getClass().getSimpleName()
                + p.style().layer()
                + Arrays.toString(shape.values())
                + (p instanceof Primitive.Text t ? t.text() : "");
    }

    @Test
    void theSameSheetInAnotherOrderIsTheSame() {
        for (int seed = 0; seed < CASES; seed++) {
            Random random = new Random(seed);
            List<Primitive> a = sheet(random, 60);
            List<Primitive> b = new ArrayList<>(a);
            Collections.shuffle(b, random);
            Matching m = match(a, b);
            assertThat(m.how).as("seed " + seed).containsOnly(Matching.SAME);
            assertThat(m.nowTo).as("seed " + seed).doesNotContain(-1);
        }
    }

    @Test
    void partnersArePartnersOfEachOther() {
        for (int seed = 0; seed < CASES; seed++) {
            Random random = new Random(seed);
            List<Primitive> a = sheet(random, 40);
            List<Primitive> b = sheet(random, 40);
            b.addAll(a.subList(0, a.size() / 2));
            Matching m = match(a, b);
            for (int i = 0; i < m.oldTo.length; i++) {
                if (m.oldTo[i] >= 0) assertThat(m.nowTo[m.oldTo[i]]).isEqualTo(i);
                assertThat(m.how[i] == 0).isEqualTo(m.oldTo[i] < 0);
            }
        }
    }

    @Test
    void itIsTheSameSeenFromTheOtherSheetAndInAnotherOrder() {
        for (int seed = 0; seed < CASES; seed++) {
            Random random = new Random(seed);
            List<Primitive> a = sheet(random, 30);
            List<Primitive> b = new ArrayList<>();
            for (Primitive p : a) {
                int fate = random.nextInt(5);
                if (fate == 0) continue;
                b.add(fate == 1 ? moved(p, random.nextInt(9), random.nextInt(9)) : p);
            }
            b.add(one(random));
            Set<String> forth = said(match(a, b), a, b, false);
            assertThat(said(match(b, a), b, a, true)).as("seed " + seed).isEqualTo(forth);
            List<Primitive> shuffled = new ArrayList<>(b);
            Collections.shuffle(shuffled, random);
            assertThat(said(match(a, shuffled), a, shuffled, false))
                    .as("seed " + seed)
                    .isEqualTo(forth);
        }
    }

    @Test
    void aViewThatMovedIsFoundWithItsWayAndTheRestStays() {
        for (int seed = 0; seed < CASES; seed++) {
            Random random = new Random(seed);
            List<Primitive> stays = sheet(random, 20);
            List<Primitive> view = new ArrayList<>();
            for (int i = 0; i < 12; i++) view.add(one(random));
            double dx = 31 + random.nextInt(40);
            double dy = 17 + random.nextInt(30);
            List<Primitive> a = new ArrayList<>(stays);
            a.addAll(view);
            List<Primitive> b = new ArrayList<>(stays);
            view.forEach(p -> b.add(moved(p, dx, dy)));
            Matching m = match(a, b);
            assertThat(m.shifts).as("seed " + seed).hasSize(1);
            assertThat(m.shifts.get(0)[0]).isCloseTo(dx, Offset.offset(1e-3));
            assertThat(m.shifts.get(0)[1]).isCloseTo(dy, Offset.offset(1e-3));
            for (int i = 0; i < a.size(); i++) {
                assertThat(m.how[i])
                        .as("seed " + seed + " shape " + i)
                        .isEqualTo(i < stays.size() ? Matching.SAME : Matching.SHIFTED);
            }
        }
    }

    @Test
    void fewerThanSixThatMovedAreNoView() {
        List<Primitive> a = new ArrayList<>();
        List<Primitive> b = new ArrayList<>();
        for (int i = 0; i < 5; i++) {
            Primitive p = new Primitive.Arc(INK, 40 * i, 10, 2 + i, 0, 360);
            a.add(p);
            b.add(moved(p, 200, 150));
        }
        a.add(new Primitive.Arc(INK, 0, 0, 400, 0, 360));
        b.add(new Primitive.Arc(INK, 0, 0, 400, 0, 360));
        assertThat(match(a, b).shifts).isEmpty();
    }

    @Test
    void likenessIsSymmetricATenthAtMostForTheSameAndNeverNegative() {
        for (int seed = 0; seed < 2_000; seed++) {
            Random random = new Random(seed);
            Shape a = Shape.of(0, one(random), 0);
            Shape b = Shape.of(1, one(random), 0);
            assertThat(Likeness.unlike(a, a, 100)).isLessThanOrEqualTo(0.1);
            double forth = Likeness.unlike(a, b, 100);
            assertThat(forth).isNotNegative().isCloseTo(Likeness.unlike(b, a, 100), Offset.offset(1e-9));
        }
    }
}
