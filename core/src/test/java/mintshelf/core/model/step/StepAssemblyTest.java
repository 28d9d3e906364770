package mintshelf.core.model.step;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import org.junit.jupiter.api.Assumptions;
import org.junit.jupiter.api.Test;

class StepAssemblyTest {
    private static StepAssembly.Assembly read(String data, double unit) throws IOException {
        String file = "ISO-10303-21;\nHEADER;\nFILE_SCHEMA(('AP214'));\nENDSEC;\nDATA;\n" + data
                + "ENDSEC;\nEND-ISO-10303-21;\n";
        return StepAssembly.read(new ByteArrayInputStream(file.getBytes(StandardCharsets.US_ASCII)), unit);
    }

    /** A frame that stands 100 up, and in it a pin turned by 90° about z, 10 along x. */
    private static String nested(boolean fromParent) {
        StringBuilder s = new StringBuilder();
        String[] names = {"top", "frame", "pin"};
        for (int i = 0; i < 3; i++) {
            s.append("#%d=PRODUCT('%s','%s','',());\n".formatted(10 + i, names[i], names[i]));
            s.append("#%d=PRODUCT_DEFINITION_FORMATION('','',#%d);\n".formatted(20 + i, 10 + i));
            s.append("#%d=PRODUCT_DEFINITION('','',#%d,$);\n".formatted(30 + i, 20 + i));
            s.append("#%d=PRODUCT_DEFINITION_SHAPE('','',#%d);\n".formatted(40 + i, 30 + i));
            s.append("#%d=SHAPE_DEFINITION_REPRESENTATION(#%d,#%d);\n".formatted(50 + i, 40 + i, 60 + i));
        }
        s.append("#1=AXIS2_PLACEMENT_3D('',#2,$,$);\n#2=CARTESIAN_POINT('',(0.,0.,0.));\n");
        s.append("#3=AXIS2_PLACEMENT_3D('',#4,#7,#8);\n#4=CARTESIAN_POINT('',(0.,0.,100.));\n");
        s.append("#5=AXIS2_PLACEMENT_3D('',#6,#7,#9);\n#6=CARTESIAN_POINT('',(10.,0.,0.));\n");
        s.append("#7=DIRECTION('',(0.,0.,1.));\n#8=DIRECTION('',(1.,0.,0.));\n#9=DIRECTION('',(0.,1.,0.));\n");
        int[][] uses = {{0, 1, 3}, {1, 2, 5}};
        for (int i = 0; i < 2; i++) {
            int parent = uses[i][0];
            int child = uses[i][1];
            s.append("#%d=NEXT_ASSEMBLY_USAGE_OCCURRENCE('','','',#%d,#%d,$);\n"
                    .formatted(70 + i, 30 + parent, 30 + child));
            s.append("#%d=PRODUCT_DEFINITION_SHAPE('','',#%d);\n".formatted(80 + i, 70 + i));
            int a = fromParent ? uses[i][2] : 1;
            int b = fromParent ? 1 : uses[i][2];
            s.append("#%d=ITEM_DEFINED_TRANSFORMATION('','',#%d,#%d);\n".formatted(90 + i, a, b));
            int r1 = 60 + (fromParent ? parent : child);
            int r2 = 60 + (fromParent ? child : parent);
            s.append(("#%d=(REPRESENTATION_RELATIONSHIP('','',#%d,#%d)"
                            + "REPRESENTATION_RELATIONSHIP_WITH_TRANSFORMATION(#%d)"
                            + "SHAPE_REPRESENTATION_RELATIONSHIP());\n")
                    .formatted(100 + i, r1, r2, 90 + i));
            s.append("#%d=CONTEXT_DEPENDENT_SHAPE_REPRESENTATION(#%d,#%d);\n".formatted(110 + i, 100 + i, 80 + i));
        }
        s.append("#120=DOCUMENT_FILE('pin.stp','','',$,'',$);\n#121=APPLIED_DOCUMENT_REFERENCE(#120,'',(#32));\n");
        return s.toString();
    }

    @Test
    void anExternalFileStandsWhereAllLevelsAbovePutIt() throws IOException {
        for (boolean fromParent : new boolean[] {false, true}) {
            StepAssembly.Assembly found = read(nested(fromParent), 1);
            assertThat(found.placed())
                    .as("relation from the parent: " + fromParent)
                    .hasSize(1);
            assertThat(found.placed().get(0).file()).isEqualTo("pin.stp");
            double[] expected = {0, -1, 0, 10, 1, 0, 0, 0, 0, 0, 1, 100, 0, 0, 0, 1};
            assertThat(found.placed().get(0).matrix()).containsExactly(expected, within(1e-9));
            assertThat(found.ownShape()).isFalse();
        }
    }

    @Test
    void placesAreInMillimetresWhateverTheFilesUnit() throws IOException {
        double[] matrix = read(nested(false), 25.4).placed().get(0).matrix();
        assertThat(matrix[3]).isCloseTo(254, within(1e-9));
        assertThat(matrix[11]).isCloseTo(2540, within(1e-9));
    }

    @Test
    void aRingOfUsagesAndBrokenPlacementsEnd() throws IOException {
        String ring = """
                #1=PRODUCT_DEFINITION('','',#9,$);
                #2=PRODUCT_DEFINITION('','',#9,$);
                #5=NEXT_ASSEMBLY_USAGE_OCCURRENCE('','','',#1,#2,$);
                #6=NEXT_ASSEMBLY_USAGE_OCCURRENCE('','','',#2,#1,$);
                #7=CONTEXT_DEPENDENT_SHAPE_REPRESENTATION(#99,#98);
                """;
        assertThat(read(ring, 1).placed()).isEmpty();
    }

    @Test
    void theSampleAssemblyPlacesItsFiveFiles() throws IOException {
        Path sample = Path.of("../../shared/samples/step/s1-c5-214/s1-c5-214.stp");
        Assumptions.assumeTrue(Files.exists(sample), "samples are not here");
        StepAssembly.Assembly found = StepAssembly.read(Files.newInputStream(sample), 1);
        assertThat(found.placed())
                .extracting(StepAssembly.Placed::file)
                .containsExactlyInAnyOrder("TAIL.stp", "HEAD.stp", "MAINBODY.stp", "FOOT.stp", "FOOT.stp");
    }
}
