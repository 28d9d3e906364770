package mintshelf.core.drawing.dxf;

import static mintshelf.core.drawing.Drawn.all;
import static mintshelf.core.drawing.Drawn.entity;
import static mintshelf.core.drawing.Drawn.texts;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import mintshelf.core.drawing.Drawn;
import mintshelf.core.drawing.Primitive;
import mintshelf.core.drawing.Scene;
import org.junit.jupiter.api.Test;

class LeaderPainterTest {
    @Test
    void aLeadersArrowStandsAtItsFirstPointAndLooksAtIt() {
        Scene scene = Drawn.scene(entity("LEADER", 71, 1, 10, 10, 20, 10, 10, 30, 20, 10, 10, 40, 20, 20));
        assertThat(all(scene, Primitive.Polyline.class).get(0).points()).containsExactly(10, 10, 30, 10, 40, 20);
        double[] arrow = all(scene, Primitive.Fill.class).get(0).rings()[0];
        assertThat(arrow[0]).isEqualTo(10);
        assertThat((arrow[2] + arrow[4]) / 2).isCloseTo(12.5, within(1e-9));
        assertThat((arrow[3] + arrow[5]) / 2).isCloseTo(10, within(1e-9));
    }

    @Test
    void aLeaderMayHaveNoArrowAndMayBeBent() {
        Scene bare = Drawn.scene(entity("LEADER", 71, 0, 10, 0, 20, 0, 10, 30, 20, 10));
        assertThat(all(bare, Primitive.Fill.class)).isEmpty();
        Scene bent = Drawn.scene(entity("LEADER", 71, 0, 72, 1, 10, 0, 20, 0, 10, 30, 20, 10, 10, 60, 20, 0));
        assertThat(all(bent, Primitive.Polyline.class).get(0).points().length).isGreaterThan(20);
        assertThat(Drawn.scene(entity("LEADER", 10, 0, 20, 0)).primitives()).isEmpty();
    }

    @Test
    void aLeaderWithTextDrawsItsLinesToTheLandingAndItsText() {
        Scene scene = Drawn.scene(entity(
                "MULTILEADER",
                8,
                "0",
                300,
                "CONTEXT_DATA{",
                41,
                3.5,
                140,
                2,
                12,
                50,
                22,
                40,
                304,
                "break edges",
                302,
                "LEADER{",
                10,
                45,
                20,
                40,
                304,
                "LEADER_LINE{",
                10,
                10,
                20,
                10,
                305,
                "}",
                304,
                "LEADER_LINE{",
                10,
                20,
                20,
                5,
                10,
                30,
                20,
                30,
                305,
                "}",
                303,
                "}",
                301,
                "}"));
        assertThat(texts(scene)).containsExactly("break edges");
        Primitive.Text text = all(scene, Primitive.Text.class).get(0);
        assertThat(text.height()).isEqualTo(3.5);
        List<Primitive.Polyline> lines = all(scene, Primitive.Polyline.class);
        assertThat(lines.get(0).points()).containsExactly(10, 10, 45, 40);
        assertThat(lines.get(1).points()).containsExactly(20, 5, 30, 30, 45, 40);
        assertThat(all(scene, Primitive.Fill.class)).hasSize(2);
    }

    @Test
    void anEmptyOneIsSaidToBeMissing() {
        assertThat(Drawn.scene(entity("MULTILEADER", 300, "CONTEXT_DATA{", 301, "}"))
                        .notDrawn())
                .containsEntry("MULTILEADER", 1);
        assertThat(Drawn.scene(entity("MLINE", 11, 0, 21, 0)).notDrawn()).containsEntry("MLINE", 1);
    }

    @Test
    void aToleranceFrameHasACellForEachPartThatIsFilled() {
        Scene scene = Drawn.scene(
                entity("TOLERANCE", 10, 20, 20, 30, 1, "{\\Fgdt;j}%%v{\\Fgdt;n}0.1{\\Fgdt;m}%%vA%%v%%vB%%v"));
        assertThat(texts(scene)).containsExactly("⌖", "⌀0.1Ⓜ", "A", "B");
        List<Primitive.Polyline> cells = all(scene, Primitive.Polyline.class);
        assertThat(cells).hasSize(5).allMatch(Primitive.Polyline::closed);
        for (int i = 1; i < cells.size(); i++) {
            assertThat(cells.get(i).points()[0])
                    .as("each begins where the one before ends")
                    .isCloseTo(cells.get(i - 1).points()[2], within(1e-9));
        }
    }

    @Test
    void aToleranceOfTwoRowsStandsBelowAndTurnsAsAWhole() {
        Scene level = Drawn.scene(entity("TOLERANCE", 10, 0, 20, 0, 1, "{\\Fgdt;c}%%v0.2^J{\\Fgdt;b}%%v0.1%%vA"));
        assertThat(texts(level)).containsExactly("⏥", "0.2", "⟂", "0.1", "A");
        Scene upright = Drawn.scene(entity("TOLERANCE", 10, 0, 20, 0, 11, 0, 21, 1, 1, "{\\Fgdt;c}%%v0.2"));
        assertThat(all(upright, Primitive.Text.class)).allMatch(t -> Math.abs(t.angle() - 90) < 1e-9);
        assertThat(upright.extents().height()).isGreaterThan(upright.extents().width());
    }

    @Test
    void lettersOfTheSignFontBecomeSignsAndOtherTextStays() {
        assertThat(LeaderPainter.signs("plain 0.05")).isEqualTo("plain 0.05");
        assertThat(LeaderPainter.signs("{\\Fgdt;a}{\\Fgdt;z}")).isEqualTo("∠z");
        assertThat(LeaderPainter.signs("{\\Fgdt;j")).as("not closed").isNotBlank();
        assertThat(LeaderPainter.signs("")).isEmpty();
    }

    @Test
    void parallelLinesRunAtTheirOffsetsAlongTheMiters() {
        Scene scene = Drawn.scene(entity(
                "MLINE", 71, 1, 73, 2, 11, 0, 21, 0, 13, 0, 23, 1, 74, 1, 41, 5, 74, 1, 41, -5, 11, 100, 21, 0, 13, 0,
                23, 1, 74, 1, 41, 5, 74, 1, 41, -5));
        List<Primitive.Polyline> lines = all(scene, Primitive.Polyline.class);
        assertThat(lines.get(0).points()).containsExactly(0, 5, 100, 5);
        assertThat(lines.get(1).points()).containsExactly(0, -5, 100, -5);
    }
}
