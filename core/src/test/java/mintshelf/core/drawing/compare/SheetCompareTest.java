package mintshelf.core.drawing.compare;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Collections;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.stream.Stream;
import mintshelf.core.base.Outcome;
import mintshelf.core.drawing.Box;
import mintshelf.core.drawing.Primitive;
import mintshelf.core.drawing.Scene;
import mintshelf.core.drawing.Source;
import mintshelf.core.drawing.Style;
import mintshelf.core.drawing.compare.Comparison.Difference;
import mintshelf.core.drawing.compare.Comparison.Kind;
import mintshelf.core.drawing.dxf.DxfDrawing;
import org.junit.jupiter.api.Assumptions;
import org.junit.jupiter.api.Test;

class SheetCompareTest {
    private static final Style OUTLINE = new Style("OUTLINE", Style.INK, 0.5, List.of());
    private static final Style THIN = new Style("DIM", 0x00ff00, 0.25, List.of());
    private static final int CASES = 400;

    private static Scene scene(List<Primitive> primitives) {
        return new Scene(primitives, Map.of(), Map.of());
    }

    private static Primitive line(double x1, double y1, double x2, double y2) {
        return new Primitive.Polyline(OUTLINE, new double[] {x1, y1, x2, y2}, false);
    }

    private static Primitive circle(double x, double y, double r) {
        return new Primitive.Arc(OUTLINE, x, y, r, 0, 360);
    }

    private static Primitive text(double x, double y, String text) {
        return new Primitive.Text(THIN, x, y, 3.5, 0, 1, 0, 0, false, text);
    }

    /** An A3 frame, so that there are zones. */
    private static List<Primitive> sheet(Primitive... more) {
        List<Primitive> all = new ArrayList<>();
        all.add(new Primitive.Polyline(THIN, new double[] {0, 0, 420, 0, 420, 297, 0, 297}, true));
        Collections.addAll(all, more);
        return all;
    }

    private static Primitive random(Random random) {
        double x = random.nextInt(4000) / 10.0;
        double y = random.nextInt(2800) / 10.0;
        Style style = random.nextInt(3) == 0 ? THIN : OUTLINE;
        return switch (random.nextInt(6)) {
            case 0 -> new Primitive.Arc(style, x, y, 1 + random.nextInt(9), 0, 360);
            case 1 ->
                new Primitive.Arc(style, x, y, 1 + random.nextInt(9), random.nextInt(360), 1 + random.nextInt(350));
            case 2 ->
                new Primitive.Text(
                        style,
                        x,
                        y,
                        2.5,
                        90 * random.nextInt(2),
                        1,
                        random.nextInt(3),
                        0,
                        false,
                        "T" + random.nextInt(20));
            case 3 -> new Primitive.Polyline(style, new double[] {x, y, x + 9, y, x + 9, y + 7, x, y + 7}, true);
            case 4 -> new Primitive.Fill(Source.NONE, style, new double[][] {{x, y, x + 3, y, x, y + 2}});
            default ->
                new Primitive.Polyline(
                        style, new double[] {x, y, x + random.nextInt(60) - 30, y + random.nextInt(60) - 30}, false);
        };
    }

    private static List<Primitive> random(Random random, int count) {
        List<Primitive> all = sheet();
        for (int i = 0; i < count; i++) all.add(random(random));
        return all;
    }

    /** Some removed, some added, some moved together, some changed. */
    private static List<Primitive> edited(List<Primitive> from, Random random) {
        List<Primitive> to = new ArrayList<>();
        double dx = random.nextInt(40) - 20;
        for (Primitive p : from) {
            int what = random.nextInt(12);
            if (what == 0) continue;
            if (what == 1 && p instanceof Primitive.Arc arc) {
                to.add(new Primitive.Arc(arc.style(), arc.x(), arc.y(), arc.radius() + 0.5, arc.from(), arc.sweep()));
            } else if (what < 4 && p.box().minX() > 200) {
                to.add(moved(p, dx, 3));
            } else {
                to.add(p);
            }
        }
        for (int i = random.nextInt(5); i > 0; i--) to.add(random(random));
        return to;
    }

    private static Primitive moved(Primitive p, double dx, double dy) {
        if (p instanceof Primitive.Arc a) {
            return new Primitive.Arc(a.style(), a.x() + dx, a.y() + dy, a.radius(), a.from(), a.sweep());
        }
        if (p instanceof Primitive.Text t) {
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
        if (p instanceof Primitive.Polyline l)
            return new Primitive.Polyline(l.style(), moved(l.points(), dx, dy), l.closed());
        return new Primitive.Fill(Source.NONE, p.style(), new double[][] {moved(((Primitive.Fill) p).rings()[0], dx, dy)
        });
    }

    private static double[] moved(double[] points, double dx, double dy) {
        double[] moved = points.clone();
        for (int i = 0; i < moved.length; i++) moved[i] += i % 2 == 0 ? dx : dy;
        return moved;
    }

    private static List<List<Object>> seen(Comparison comparison, boolean mirrored) {
        List<List<Object>> all = new ArrayList<>();
        for (Difference d : comparison.differences()) {
            Kind kind = !mirrored
                    ? d.kind()
                    : d.kind() == Kind.ONLY_IN_NEW
                            ? Kind.ONLY_IN_OLD
                            : d.kind() == Kind.ONLY_IN_OLD ? Kind.ONLY_IN_NEW : d.kind();
            all.add(List.of(kind, d.box(), mirrored ? d.nows().size() : d.olds().size()));
        }
        all.sort(Comparator.comparing(Object::toString));
        return all;
    }

    @Test
    void everyPrimitiveIsCountedOnceOnEachSheet() {
        for (int seed = 0; seed < CASES; seed++) {
            Random random = new Random(seed);
            List<Primitive> old = random(random, 1 + random.nextInt(120));
            List<Primitive> now = edited(old, random);
            Comparison c = SheetCompare.compare(scene(old), scene(now));
            assertThat(c.same() + c.changed() + c.shifted() + c.removed())
                    .as("seed " + seed)
                    .isEqualTo(old.size());
            assertThat(c.same() + c.changed() + c.shifted() + c.added())
                    .as("seed " + seed)
                    .isEqualTo(now.size());
            assertThat(c.differences().stream().mapToInt(d -> d.olds().size()).sum())
                    .as("seed " + seed)
                    .isEqualTo(c.changed() + c.shifted() + c.removed());
        }
    }

    @Test
    void aSheetDoesNotDifferFromItselfInWhateverOrderAndDirectionItIsDrawn() {
        for (int seed = 0; seed < CASES; seed++) {
            Random random = new Random(seed);
            List<Primitive> old = random(random, 80);
            List<Primitive> now = new ArrayList<>();
            for (Primitive p : old) {
                double grain = (random.nextInt(3) - 1) * 0.0004;
                if (p instanceof Primitive.Polyline l && l.points().length == 4 && random.nextBoolean()) {
                    double[] q = l.points();
                    now.add(new Primitive.Polyline(l.style(), new double[] {q[2], q[3] + grain, q[0], q[1]}, false));
                } else {
                    now.add(random.nextInt(4) == 0 ? moved(p, grain, grain) : p);
                }
            }
            Collections.shuffle(now, random);
            Comparison c = SheetCompare.compare(scene(old), scene(now));
            assertThat(c.isEmpty()).as("seed " + seed).isTrue();
            assertThat(c.differences()).isEmpty();
        }
    }

    @Test
    void comparedTheOtherWayRoundEverythingIsMirrored() {
        for (int seed = 0; seed < CASES; seed++) {
            Random random = new Random(seed);
            List<Primitive> old = random(random, 1 + random.nextInt(90));
            List<Primitive> now = edited(old, random);
            Comparison there = SheetCompare.compare(scene(old), scene(now));
            Comparison back = SheetCompare.compare(scene(now), scene(old));
            assertThat(List.of(back.same(), back.changed(), back.shifted(), back.removed(), back.added()))
                    .as("seed " + seed)
                    .isEqualTo(List.of(there.same(), there.changed(), there.shifted(), there.added(), there.removed()));
            assertThat(seen(back, true)).as("seed " + seed).isEqualTo(seen(there, false));
        }
    }

    @Test
    void theOrderOfEntitiesDoesNotMatter() {
        for (int seed = 0; seed < CASES; seed++) {
            Random random = new Random(seed);
            List<Primitive> old = random(random, 60);
            List<Primitive> now = edited(old, random);
            Comparison before = SheetCompare.compare(scene(old), scene(now));
            List<Primitive> shuffled = new ArrayList<>(now);
            Collections.shuffle(shuffled, random);
            Collections.shuffle(old, random);
            Comparison after = SheetCompare.compare(scene(old), scene(shuffled));
            assertThat(seen(after, false)).as("seed " + seed).isEqualTo(seen(before, false));
        }
    }

    @Test
    void aLargerHoleAndItsTextAreSaidWithTheirZones() {
        Scene old = scene(
                sheet(circle(65, 270, 2.75), circle(300, 100, 10), text(80, 260, "4X %%c5.5".replace("%%c", "⌀"))));
        Scene now = scene(sheet(circle(65, 270, 3.3), circle(300, 100, 10), text(80, 260, "4X ⌀6.6")));
        Comparison c = SheetCompare.compare(old, now);
        assertThat(c.differences())
                .extracting(Difference::says)
                .containsExactlyInAnyOrder("⌀ 5.5 → ⌀ 6.6", "text 4X ⌀5.5 → 4X ⌀6.6");
        assertThat(c.differences()).extracting(Difference::zone).containsExactly("A2", "A2");
        assertThat(SheetCompare.compare(old, now, 0.5).differences().get(0).says())
                .isEqualTo("⌀ 11.0 → ⌀ 13.2");
    }

    @Test
    void aViewThatMovedIsOneDifference() {
        List<Primitive> view = new ArrayList<>();
        for (int i = 0; i < 12; i++) view.add(line(100 + i * 3, 50, 100 + i * 7, 80 + i));
        List<Primitive> old = sheet(view.toArray(new Primitive[0]));
        List<Primitive> now = sheet();
        view.forEach(p -> now.add(moved(p, 25, -10)));
        Comparison c = SheetCompare.compare(scene(old), scene(now));
        assertThat(c.shifted()).isEqualTo(12);
        assertThat(c.differences()).hasSize(1);
        assertThat(c.differences().get(0).says())
                .isEqualTo("view of 12 lines and texts moved by 25.0 right, 10.0 down");
    }

    @Test
    void aDifferenceInsideARevisionCloudIsMarkedAndTheCloudIsNone() {
        Source cloud = new Source(9, "", "LWPOLYLINE");
        List<Primitive> now = sheet(circle(100, 100, 4), circle(300, 200, 6));
        for (int i = 0; i < 12; i++) {
            double a = Math.toRadians(30 * i);
            now.add(new Primitive.Arc(cloud, THIN, 100 + 15 * Math.cos(a), 100 + 15 * Math.sin(a), 4, 0, 170));
        }
        Comparison c = SheetCompare.compare(scene(sheet(circle(100, 100, 3), circle(300, 200, 5))), scene(now));
        assertThat(c.added()).isEqualTo(12);
        assertThat(c.differences()).hasSize(2);
        assertThat(c.differences())
                .filteredOn(Difference::clouded)
                .singleElement()
                .satisfies(d -> assertThat(d.box().middleX()).isEqualTo(100));
    }

    @Test
    void whatIsFilledIntoAFormNeedsNoCloud() {
        Source value = new Source(5, "", "ATTRIB");
        Source row = new Source(6, "REVISION_ROW", "LINE");
        Primitive old = new Primitive.Text(value, THIN, 300, 20, 3.5, 0, 1, 0, 0, false, "B");
        Primitive now = new Primitive.Text(value, THIN, 300, 20, 3.5, 0, 1, 0, 0, false, "C");
        Primitive drawn = new Primitive.Polyline(row, THIN, new double[] {298, 26, 320, 26}, false);
        Comparison c = SheetCompare.compare(scene(sheet(old)), scene(sheet(now, drawn)));
        assertThat(c.differences()).isNotEmpty().noneMatch(Difference::isUnmarked);
        Primitive loose =
                new Primitive.Polyline(new Source(7, "", "LINE"), THIN, new double[] {298, 26, 320, 26}, false);
        assertThat(SheetCompare.compare(scene(sheet(old)), scene(sheet(now, loose)))
                        .unclouded())
                .isEqualTo(1);
    }

    @Test
    void whatHasOneHandleIsChangedEvenWhereItWentFar() {
        Source source = new Source(77, "", "LINE");
        Primitive before = new Primitive.Polyline(source, OUTLINE, new double[] {10, 10, 30, 10}, false);
        Primitive after = new Primitive.Polyline(source, OUTLINE, new double[] {10, 10, 42, 10}, false);
        Comparison c = SheetCompare.compare(scene(sheet(before)), scene(sheet(after)));
        assertThat(c.changed()).isEqualTo(1);
        assertThat(c.differences().get(0).says()).isEqualTo("line 12.0 longer");
    }

    @Test
    void zonesAreCountedFromTheMiddleAndOnlyOnSheets() {
        Zones a3 = Zones.of(new Box(0, 0, 420, 297));
        assertThat(a3.at(5, 290)).isEqualTo("A1");
        assertThat(a3.at(415, 5)).isEqualTo("F8");
        assertThat(a3.at(211, 148)).isEqualTo("D5");
        assertThat(a3.box("D5").holds(new Box(211, 140, 212, 148))).isTrue();
        assertThat(Zones.of(new Box(0, 0, 300, 300)).at(1, 1)).isEmpty();
        assertThat(Zones.of(new Box(0, 0, 16.54, 11.69)).format()).isEqualTo("A3");
    }

    @Test
    void everySampleEqualsItself() throws IOException {
        Path samples = Path.of("../../shared/samples");
        Assumptions.assumeTrue(Files.isDirectory(samples), "no samples here");
        try (Stream<Path> files = Files.walk(samples)) {
            for (Path file : files.filter(f -> f.toString().endsWith(".dxf")).toList()) {
                if (!(DxfDrawing.read(Files.readAllBytes(file)) instanceof Outcome.Granted<DxfDrawing> d)) continue;
                for (String layout : d.value().layouts()) {
                    if (!(d.value().scene(layout, 0) instanceof Outcome.Granted<Scene> s)) continue;
                    List<Primitive> shuffled = new ArrayList<>(s.value().primitives());
                    Collections.shuffle(shuffled, new Random(1));
                    assertThat(SheetCompare.compare(s.value(), scene(shuffled)).isEmpty())
                            .as(file + " " + layout)
                            .isTrue();
                }
            }
        }
    }
}
