package mintshelf.core.model.step;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Set;
import mintshelf.core.base.Outcome;
import mintshelf.core.base.Refusal;
import mintshelf.core.model.step.StepAssembly.Placed;
import org.junit.jupiter.api.Assumptions;
import org.junit.jupiter.api.Test;

/** Components taken out of an assembly. */
class StepTakeOutTest {
    /** A head with a lid, twice, a nut and a shim, each a file of its own; what is of the lid carries a mark. */
    private static String head() {
        StringBuilder s = new StringBuilder();
        s.append("#1=AXIS2_PLACEMENT_3D('',#2,$,$);\n#2=CARTESIAN_POINT('',(0.,0.,0.));\n");
        s.append("#3=AXIS2_PLACEMENT_3D('',#2,$,$);\n#4=DOCUMENT_TYPE('geometry');\n#5=IDENTIFICATION_ROLE('id',$);\n");
        s.append("#6=(LENGTH_UNIT()NAMED_UNIT(*)SI_UNIT(.MILLI.,.METRE.));\n");
        s.append("#7=(GEOMETRIC_REPRESENTATION_CONTEXT(3)GLOBAL_UNIT_ASSIGNED_CONTEXT((#6))"
                + "REPRESENTATION_CONTEXT('',''));\n");
        String[] names = {"head", "lid", "nut", "shim"};
        for (int i = 0; i < 4; i++) {
            String mark = i == 1 ? " /*lid*/" : "";
            s.append("#%d=PRODUCT('%s','%s; #99','',());%s\n".formatted(10 + i, names[i], names[i], mark));
            s.append("#%d=PRODUCT_DEFINITION_FORMATION('','',#%d);%s\n".formatted(20 + i, 10 + i, mark));
            s.append("#%d=PRODUCT_DEFINITION('','',#%d,$);%s\n".formatted(30 + i, 20 + i, mark));
            s.append("#%d=PRODUCT_DEFINITION_SHAPE('','',#%d);%s\n".formatted(40 + i, 30 + i, mark));
            s.append("#%d=SHAPE_DEFINITION_REPRESENTATION(#%d,#%d);%s\n".formatted(50 + i, 40 + i, 60 + i, mark));
            s.append("#%d=SHAPE_REPRESENTATION('%s',(#1),#7);%s\n".formatted(60 + i, names[i], mark));
            if (i == 0) continue;
            s.append("#%d=DOCUMENT_FILE('%s.stp','','',#4,'',$);%s\n".formatted(70 + i, names[i], mark));
            s.append("#%d=APPLIED_DOCUMENT_REFERENCE(#%d,'',(#%d));%s\n".formatted(80 + i, 70 + i, 30 + i, mark));
            s.append("#%d=APPLIED_EXTERNAL_IDENTIFICATION_ASSIGNMENT('%s.stp',#5,$,(#%d));%s\n"
                    .formatted(90 + i, names[i], 70 + i, mark));
        }
        int[] children = {1, 2, 1, 3};
        for (int i = 0; i < 4; i++) {
            String mark = children[i] == 1 ? " /*lid*/" : "";
            s.append("#%d=NEXT_ASSEMBLY_USAGE_OCCURRENCE('%s:%d','','',#30,#%d,$);%s\n"
                    .formatted(100 + i, names[children[i]], i, 30 + children[i], mark));
            s.append("#%d=PRODUCT_DEFINITION_SHAPE('','',#%d);%s\n".formatted(110 + i, 100 + i, mark));
            s.append("#%d=ITEM_DEFINED_TRANSFORMATION('','',#1,#3);%s\n".formatted(120 + i, mark));
            s.append(("#%d=(REPRESENTATION_RELATIONSHIP('','',#%d,#60)REPRESENTATION_RELATIONSHIP_WITH_TRANSFORMATION"
                            + "(#%d)SHAPE_REPRESENTATION_RELATIONSHIP());%s\n")
                    .formatted(130 + i, 60 + children[i], 120 + i, mark));
            s.append("#%d=CONTEXT_DEPENDENT_SHAPE_REPRESENTATION(#%d,#%d);%s\n"
                    .formatted(140 + i, 130 + i, 110 + i, mark));
        }
        s.append("#200=PRODUCT_RELATED_PRODUCT_CATEGORY('part',$,(#10,#11, #12 ,#13));\n");
        return "ISO-10303-21;\nHEADER;\nFILE_SCHEMA(('AP214'));\nENDSEC;\nDATA;\n" + s + "ENDSEC;\nEND-ISO-10303-21;\n";
    }

    private static Outcome<byte[]> without(String file, String... names) {
        return StepTakeOut.without(file.getBytes(StandardCharsets.US_ASCII), Set.of(names));
    }

    private static String text(Outcome<byte[]> written) {
        return new String(written.orElseThrow(r -> new IllegalStateException(r.says())), StandardCharsets.US_ASCII);
    }

    private static List<String> placed(byte[] file) throws IOException {
        return StepAssembly.read(new ByteArrayInputStream(file), 1).placed().stream()
                .map(Placed::file)
                .sorted()
                .toList();
    }

    private static String code(String file, String... names) {
        return without(file, names).refusal().map(Refusal::code).orElse("");
    }

    @Test
    void whatIsOfAComponentGoesAndEveryOtherByteStays() {
        String marks = head().replaceAll("#\\d+=[^\n]* (/\\*lid\\*/\n)", "$1").replaceAll("(/\\*lid\\*/\n)", " $1");
        assertThat(text(without(head(), "lid.stp"))).isEqualTo(marks.replace("(#10,#11, #12 ,", "(#10, #12 ,"));
    }

    @Test
    void severalGoAtOnceAndTheLastOnesOfAListWithTheirComma() throws IOException {
        String left = text(without(head(), "nut.stp", "shim.stp"));
        assertThat(left).contains("(#10,#11));").doesNotContain("nut").doesNotContain("shim");
        assertThat(placed(left.getBytes(StandardCharsets.US_ASCII))).containsExactly("lid.stp", "lid.stp");
        String none = text(without(head(), "lid.stp", "nut.stp", "shim.stp"));
        assertThat(none).contains("'part',$,(#10));", "#60=SHAPE_REPRESENTATION");
        assertThat(placed(none.getBytes(StandardCharsets.US_ASCII))).isEmpty();
    }

    @Test
    void whatCannotBeTakenOutWithoutGuessingIsRefused() {
        assertThat(code(head(), "other.stp")).isEqualTo("step.no_product");
        assertThat(code(head().replace("(#71,'',(#31))", "(#71,'',())"), "lid.stp"))
                .isEqualTo("step.no_product");
        assertThat(code(head().replace("#30,#31,$", "#31,#32,$"), "lid.stp")).isEqualTo("step.parts");
        assertThat(code(head().replaceAll("#30,#31,\\$", "#30,#32,\\$"), "lid.stp"))
                .isEqualTo("step.parts");
        assertThat(code("no file", "lid.stp")).isEqualTo("step.none");
        assertThat(code(head() + "SIGNATURE;\nabc\nENDSEC;\n", "lid.stp")).isIn("step.signed", "step.differs");
        // What was missing before is missing afterwards, and is nobody's fault.
        assertThat(code(head().replace("#5,$,(#73)", "#999,$,(#73)"), "lid.stp"))
                .isEmpty();
    }

    @Test
    void theSampleAssemblyLosesBothOfItsFeetAndNothingElse() throws IOException {
        Path sample = Path.of("../../shared/samples/step/s1-c5-214/s1-c5-214.stp");
        Assumptions.assumeTrue(Files.exists(sample), "samples are not here");
        byte[] file = Files.readAllBytes(sample);
        byte[] left =
                StepTakeOut.without(file, Set.of("FOOT.stp")).orElseThrow(r -> new IllegalStateException(r.says()));
        assertThat(placed(left)).containsExactly("HEAD.stp", "MAINBODY.stp", "TAIL.stp");
        assertThat(left.length).isLessThan(file.length);
    }
}
