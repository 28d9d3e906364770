package mintshelf.core.redline;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Random;
import mintshelf.core.drawing.Primitive;
import mintshelf.core.drawing.Scene;
import mintshelf.core.drawing.compare.Kept;
import org.assertj.core.data.Offset;
import org.junit.jupiter.api.Test;

class FollowingTest {
    private static final int CASES = 150;
    private static final Offset<Double> HAIR = Offset.offset(0.002);

    private static Followed follow(Mark mark, List<Primitive> old, List<Primitive> now) {
        return Following.follow(mark, Kept.between(Sheets.scene(old), Sheets.scene(now), 1));
    }

    private static List<Primitive> with(List<Primitive> all, int index, Primitive other) {
        List<Primitive> changed = new ArrayList<>(all);
        changed.set(index, other);
        return changed;
    }

    private static List<Primitive> without(List<Primitive> all, int index) {
        List<Primitive> changed = new ArrayList<>(all);
        changed.remove(index);
        return changed;
    }

    @Test
    void aCloudMovesWithTheHoleThatBecameLarger() {
        List<Primitive> old = Sheets.plate();
        Mark cloud = Sheets.mark(Tool.CLOUD, Sheets.scene(old), 112, 112, 128, 128);
        assertThat(cloud.anchors()).extracting(Anchor::handle).containsExactly(6L);

        Followed at = follow(cloud, old, with(old, 5, Sheets.circle(6, 120, 120, 3.3)));
        assertThat(at.fate()).isEqualTo(Followed.Fate.CHANGED);
        assertThat(at.says()).isEqualTo("moved with ⌀ 5.5 → ⌀ 6.6");
        assertThat(at.mark().box()).isEqualTo(cloud.box());

        Followed shifted = follow(cloud, old, with(old, 5, Sheets.circle(6, 124, 118, 2.75)));
        assertThat(shifted.says()).isEqualTo("moved with circle ⌀ 5.5 moved by 4.0 right, 2.0 down");
        assertThat(shifted.mark().box().minX()).isCloseTo(116, HAIR);
        assertThat(shifted.mark().box().maxY()).isCloseTo(126, HAIR);
    }

    @Test
    void whatItMarkedIsGone() {
        List<Primitive> old = Sheets.plate();
        Mark arrow = Sheets.mark(Tool.ARROW_NOTE, Sheets.scene(old), 120, 122.75, 150, 150);
        Followed at = follow(arrow, old, without(old, 5));
        assertThat(at.isGone()).isTrue();
        assertThat(at.says()).isEqualTo("what it marked is gone");
        assertThat(at.mark().strokes()).isEqualTo(arrow.strokes());
    }

    @Test
    void aSizeGoesWithEachOfItsEnds() {
        List<Primitive> old = Sheets.plate();
        Mark size = Sheets.mark(Tool.SIZE, Sheets.scene(old), 240, 120, 260, 120, 250, 90);
        assertThat(size.anchors()).extracting(Anchor::handle).containsExactly(7L, 3L);
        assertThat(size.says()).isEqualTo("20 measured");

        Followed at = follow(size, old, with(old, 6, Sheets.circle(7, 236, 120, 2.75)));
        assertThat(at.mark().says()).isEqualTo("24 measured");
        assertThat(at.mark().point(1)).isEqualTo(new Point(260, 120));

        Followed half = follow(size, old, without(old, 6));
        assertThat(half.says()).isEqualTo("part of what it marked is gone");
        assertThat(half.isGone()).isFalse();
    }

    @Test
    void anArrowAtTheEndOfALineStaysAtThatEnd() {
        List<Primitive> old = Sheets.plate();
        Mark arrow = Sheets.mark(Tool.ARROW_NOTE, Sheets.scene(old), 258, 220, 300, 240);
        assertThat(arrow.anchors().get(0).handle()).isEqualTo(4L);
        // Drawn from its other end, and longer: the tip keeps its part of the line.
        Followed at = follow(arrow, old, with(old, 3, Sheets.line(4, 100, 220, 270, 220)));
        assertThat(at.says()).startsWith("moved with line");
        assertThat(at.mark().point(0).x()).isBetween(267.0, 269.0);
    }

    @Test
    void whatMarksNothingStaysWhereItIs() {
        List<Primitive> old = Sheets.plate();
        for (Mark mark : List.of(
                Sheets.mark(Tool.STAMP, Sheets.scene(old), 120, 120),
                Sheets.mark(Tool.NOTE, Sheets.scene(old), 350, 60))) {
            assertThat(mark.anchors()).isEmpty();
            assertThat(follow(mark, old, List.of(old.get(0)))).isEqualTo(Followed.own(mark));
        }
    }

    @Test
    void theFrameIsMarkedByNobody() {
        List<Primitive> old = Sheets.plate();
        assertThat(Sheets.mark(Tool.ARROW_NOTE, Sheets.scene(old), 0, 150, 30, 150)
                        .anchors())
                .isEmpty();
    }

    @Test
    void onTheSameSheetInWhateverOrderAllMarksStayAndSayNothing() {
        for (int seed = 0; seed < CASES; seed++) {
            Random random = new Random(seed);
            List<Primitive> old = Sheets.chance(random, 40);
            List<Primitive> now = new ArrayList<>(old);
            Collections.shuffle(now, random);
            Kept kept = Kept.between(Sheets.scene(old), Sheets.scene(now), 1);
            for (int i = 0; i < 12; i++) {
                Mark mark = Sheets.chanceMark(random, Sheets.scene(old));
                assertThat(Following.follow(mark, kept)).as("seed " + seed).isEqualTo(Followed.own(mark));
            }
        }
    }

    @Test
    void whenAllMovesTogetherEveryAnchoredMarkMovesSoFar() {
        int told = 0;
        for (int seed = 0; seed < CASES; seed++) {
            Random random = new Random(seed);
            List<Primitive> old = Sheets.chance(random, 40);
            double dx = random.nextInt(60) - 30;
            double dy = random.nextInt(40) + 1;
            // The frame stays, the view moves.
            List<Primitive> now = new ArrayList<>();
            for (int i = 0; i < old.size(); i++) now.add(i == 0 ? old.get(0) : Sheets.moved(old.get(i), dx, dy));
            Kept kept = Kept.between(Sheets.scene(old), Sheets.scene(now), 1);
            for (int i = 0; i < 12; i++) {
                Mark mark = Sheets.chanceMark(random, Sheets.scene(old));
                Followed at = Following.follow(mark, kept);
                boolean pinned = mark.tool() != Tool.SIZE && !mark.anchors().isEmpty();
                // Where equal things stand a view's width apart some pair with each other; most marks tell the move.
                if (!pinned || at.fate() != Followed.Fate.MOVED) continue;
                assertThat(at.mark().box().minX() - mark.box().minX())
                        .as("seed " + seed)
                        .isCloseTo(dx, HAIR);
                assertThat(at.mark().box().minY() - mark.box().minY())
                        .as("seed " + seed)
                        .isCloseTo(dy, HAIR);
                told++;
            }
        }
        assertThat(told).as("marks that told the move").isGreaterThan(CASES * 4);
    }

    @Test
    void aMarkIsGoneExactlyWhenNothingItMarksIsLeft() {
        for (int seed = 0; seed < CASES; seed++) {
            Random random = new Random(seed);
            List<Primitive> old = Sheets.chance(random, 30);
            Scene before = Sheets.scene(old);
            Mark mark = Sheets.chanceMark(random, before);
            if (mark.anchors().isEmpty()) continue;
            List<Primitive> now = new ArrayList<>();
            for (Primitive p : old) {
                boolean marked = mark.anchors().stream()
                        .anyMatch(a -> Math.abs(a.middle().x() - p.box().middleX()) < 1e-9
                                && Math.abs(a.middle().y() - p.box().middleY()) < 1e-9);
                if (!marked) now.add(p);
            }
            Kept kept = Kept.between(before, Sheets.scene(now), 1);
            Followed at = Following.follow(mark, kept);
            boolean left = mark.anchors().stream().anyMatch(a -> {
                int i = kept.find(
                        a.middle().x(), a.middle().y(), p -> p.source().handle() == a.handle());
                return i >= 0 && kept.fate(i) != Kept.Fate.GONE;
            });
            assertThat(at.isGone()).as("seed " + seed).isEqualTo(!left);
            if (at.isGone()) assertThat(at.mark()).isEqualTo(mark);
        }
    }

    @Test
    void followingThereAndBackEndsWhereItBegan() {
        for (int seed = 0; seed < CASES; seed++) {
            Random random = new Random(seed);
            List<Primitive> old = Sheets.plate();
            double dx = random.nextInt(9) - 4;
            List<Primitive> now = with(old, 5, Sheets.moved(old.get(5), dx, 3));
            Mark mark = Sheets.mark(Tool.CLOUD, Sheets.scene(old), 112, 112, 128, 128);
            Followed there = follow(mark, old, now);
            Mark again = Pins.pin(there.mark(), Sheets.scene(now));
            Followed back = follow(again, now, old);
            assertThat(back.mark().box().minX()).isCloseTo(mark.box().minX(), HAIR);
            assertThat(back.mark().box().maxY()).isCloseTo(mark.box().maxY(), HAIR);
        }
    }
}
