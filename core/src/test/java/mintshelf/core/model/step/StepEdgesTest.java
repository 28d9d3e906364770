package mintshelf.core.model.step;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;

class StepEdgesTest {
    private static List<double[]> edges(double unit, String... instances) throws IOException {
        String file = "ISO-10303-21;\nHEADER;\nENDSEC;\nDATA;\n" + String.join("\n", instances)
                + "\nENDSEC;\nEND-ISO-10303-21;\n";
        return StepEdges.read(new ByteArrayInputStream(file.getBytes(StandardCharsets.UTF_8)), unit);
    }

    private static final String[] POINTS = {
        "#1=CARTESIAN_POINT('',(10.,0.,0.));",
        "#2=CARTESIAN_POINT('',(0.,10.,0.));",
        "#3=CARTESIAN_POINT('',(0.,0.,0.));",
        "#4=DIRECTION('',(0.,0.,1.));",
        "#5=DIRECTION('',(1.,0.,0.));",
        "#6=AXIS2_PLACEMENT_3D('',#3,#4,#5);",
        "#7=VERTEX_POINT('',#1);",
        "#8=VERTEX_POINT('',#2);"
    };

    private static String[] with(String... more) {
        String[] all = Arrays.copyOf(POINTS, POINTS.length + more.length);
        System.arraycopy(more, 0, all, POINTS.length, more.length);
        return all;
    }

    @Test
    void aStraightEdgeJoinsItsEndsInMillimetres() throws IOException {
        List<double[]> edges = edges(25.4, with("#10=LINE('',#1,#99);", "#11=EDGE_CURVE('',#7,#8,#10,.T.);"));
        assertThat(edges).hasSize(1);
        assertThat(edges.get(0)).containsExactly(new double[] {254, 0, 0, 0, 254, 0}, within(1e-9));
    }

    @Test
    void anArcGoesTheWayItsSenseSays() throws IOException {
        double[] quarter = edges(1, with("#10=CIRCLE('',#6,10.);", "#11=EDGE_CURVE('',#7,#8,#10,.T.);"))
                .get(0);
        double[] rest = edges(1, with("#10=CIRCLE('',#6,10.);", "#11=EDGE_CURVE('',#7,#8,#10,.F.);"))
                .get(0);
        assertThat(length(quarter)).isCloseTo(Math.PI * 5, within(0.1));
        assertThat(length(rest)).isCloseTo(Math.PI * 15, within(0.3));
        double[] whole = edges(1, with("#10=CIRCLE('',#6,10.);", "#11=EDGE_CURVE('',#7,#7,#10,.T.);"))
                .get(0);
        assertThat(length(whole)).isCloseTo(Math.PI * 20, within(0.4));
    }

    @Test
    void aSplineOnASurfaceIsFollowedInSpace() throws IOException {
        double[] spline = edges(
                        1,
                        with(
                                "#9=CARTESIAN_POINT('',(10.,10.,0.));",
                                "#10=B_SPLINE_CURVE_WITH_KNOTS('',2,(#1,#9,#2),.UNSPECIFIED.,.F.,.F.,(3,3),(0.,1.),.UNSPECIFIED.);",
                                "#12=SURFACE_CURVE('',#10,(#50),.PCURVE_S1.);",
                                "#11=EDGE_CURVE('',#7,#8,#12,.T.);"))
                .get(0);
        // The middle of a parabola between its ends and its pole.
        int middle = spline.length / 3 / 2 * 3;
        assertThat(spline[middle]).isCloseTo(7.5, within(1e-9));
        assertThat(spline[middle + 1]).isCloseTo(7.5, within(1e-9));
        assertThat(spline[spline.length - 2]).isCloseTo(10, within(1e-9));
    }

    @Test
    void whatIsBrokenOrMissingIsLeftOutOrStraight() throws IOException {
        assertThat(edges(1, with("#11=EDGE_CURVE('',#7,#80,#10,.T.);"))).isEmpty();
        assertThat(edges(1, with("#10=CIRCLE('',#6,0.);", "#11=EDGE_CURVE('',#7,#8,#10,.T.);"))
                        .get(0))
                .hasSize(6);
        assertThat(edges(1, with("#11=EDGE_CURVE('',#7,#8,#11,.T.);")).get(0)).hasSize(6);
        assertThat(edges(1, with("#12=SURFACE_CURVE('',#12,(#50),.X.);", "#11=EDGE_CURVE('',#7,#8,#12,.T.);"))
                        .get(0))
                .hasSize(6);
        assertThat(edges(1, with("#11=EDGE_CURVE('',#7"))).isEmpty();
        assertThat(edges(
                                1,
                                with(
                                        "#10=B_SPLINE_CURVE_WITH_KNOTS('',9,(#1,#2),.U.,.F.,.F.,(1),(0.),.U.);",
                                        "#11=EDGE_CURVE('',#7,#8,#10,.T.);"))
                        .get(0))
                .hasSize(6);
    }

    @Test
    void bytesThatWereBentNeverBreakTheReader() throws IOException {
        String file = "ISO-10303-21;\nHEADER;\nENDSEC;\nDATA;\n"
                + String.join("\n", with("#10=CIRCLE('',#6,10.);", "#11=EDGE_CURVE('',#7,#8,#10,.T.);"))
                + "\nENDSEC;\nEND-ISO-10303-21;\n";
        Random random = new Random(11);
        for (int i = 0; i < 2000; i++) {
            byte[] bent = file.getBytes(StandardCharsets.US_ASCII);
            for (int k = 0; k < 3; k++) bent[random.nextInt(bent.length)] = (byte) random.nextInt(128);
            for (double[] edge : StepEdges.read(new ByteArrayInputStream(bent), 1))
                assertThat(edge).hasSizeGreaterThan(3);
        }
    }

    private static double length(double[] line) {
        double length = 0;
        for (int i = 3; i < line.length; i += 3) {
            length += Math.sqrt(Math.pow(line[i] - line[i - 3], 2)
                    + Math.pow(line[i + 1] - line[i - 2], 2)
                    + Math.pow(line[i + 2] - line[i - 1], 2));
        }
        return length;
    }
}
