package mintshelf.core.reference;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import mintshelf.core.base.Outcome;
import mintshelf.core.drawing.dxf.DxfDrawing;
import mintshelf.core.drawing.dxf.ExternalReference;
import mintshelf.core.model.step.StepModel;
import mintshelf.core.model.step.StepReader;
import mintshelf.core.reference.Resolution.Filed;
import org.junit.jupiter.api.Test;

class ReferenceTest {
    private static final Filed PARENT = filed(1, "TG40-3000.stp", 1, "TG40", "3000 Encoder head");

    private static Filed filed(long id, String name, long shelf, String... folders) {
        return new Filed(id, name, shelf, List.of(folders), false);
    }

    private static Filed library(long id, String name, String... folders) {
        return new Filed(id, name, 9, List.of(folders), true);
    }

    private static Resolution look(String path, Filed... candidates) {
        return Resolution.of(path, PARENT, List.of(candidates), Optional.empty());
    }

    @Test
    void aRelativePathLeadsFromTheParentsFolder() {
        Filed mine = filed(2, "TG40-3010.stp", 1, "TG40", "3000 Encoder head", "parts");
        Filed other = filed(3, "TG40-3010.stp", 1, "TG40", "4000 Mast");
        assertThat(look("parts\\TG40-3010.STP", mine, other)).isEqualTo(new Resolution.Found(2));
        assertThat(look("../4000 Mast/tg40-3010.stp", mine, other)).isEqualTo(new Resolution.Found(3));
    }

    @Test
    void aPathLeadsOverToAnotherShelfThatLiesBesideOnTheDesk() {
        Filed clamp = filed(4, "TG40-1040.stp", 2, "LS18", "clamps");
        assertThat(look("../../LS18/clamps/TG40-1040.stp", clamp)).isEqualTo(new Resolution.Found(4));
        assertThat(look("TG40-1040.stp", clamp))
                .as("by its name alone nothing is taken from a foreign shelf")
                .isEqualTo(new Resolution.Ambiguous(List.of(4L)));
    }

    @Test
    void aNameThatIsUniqueOnTheShelfIsEnoughThenALibraryIsAsked() {
        Filed moved = filed(5, "TG40-3010.stp", 1, "TG40", "elsewhere");
        Filed ring = library(6, "ORING-40x2.stp", "Library", "O-rings");
        assertThat(look("old/place/TG40-3010.stp", moved)).isEqualTo(new Resolution.Found(5));
        assertThat(look("C:\\work\\ORING-40x2.stp", ring)).isEqualTo(new Resolution.Found(6));
        assertThat(look("TG40-3010.stp", moved, library(7, "TG40-3010.stp", "Library")))
                .as("the own shelf goes before a library")
                .isEqualTo(new Resolution.Found(5));
    }

    @Test
    void whereTwoRemainNothingIsGuessedAndThePickIsRemembered() {
        Filed one = filed(5, "plate.dxf", 1, "TG40", "a");
        Filed two = filed(6, "plate.dxf", 1, "TG40", "b");
        assertThat(look("plate.dxf", one, two)).isEqualTo(new Resolution.Ambiguous(List.of(5L, 6L)));
        assertThat(Resolution.of("plate.dxf", PARENT, List.of(one, two), Optional.of(6L)))
                .isEqualTo(new Resolution.Found(6));
        assertThat(Resolution.of("plate.dxf", PARENT, List.of(one, two), Optional.of(8L)))
                .as("a pick that has gone is none")
                .isEqualTo(new Resolution.Ambiguous(List.of(5L, 6L)));
    }

    @Test
    void aMissingFileStaysMissingAndAFileNeverRefersToItself() {
        assertThat(look("gone.stp")).isEqualTo(new Resolution.Missing());
        assertThat(look("TG40-3000.stp", PARENT)).isEqualTo(new Resolution.Missing());
        assertThat(look("../../../../../etc/passwd")).isEqualTo(new Resolution.Missing());
    }

    @Test
    void whatIsMissingKeepsADocumentFromReleaseAndIsNamed() {
        assertThat(ReferenceRules.gate("TG40-4000", List.of(), List.of())).isEmpty();
        assertThat(ReferenceRules.gate("TG40-4000", List.of("bracket.stp"), List.of()))
                .hasValueSatisfying(r ->
                        assertThat(r.reason()).isEqualTo("TG40-4000 refers to 1 file that is missing: bracket.stp."));
        assertThat(ReferenceRules.gate("T", List.of("a", "b"), List.of("c", "d")))
                .hasValueSatisfying(r -> assertThat(r.reason())
                        .isEqualTo("T refers to 4 files that are not found: a, b, c and 1 more."));
    }

    @Test
    void theRelativePathLeadsBackToTheFile() {
        Random random = new Random(40);
        for (int i = 0; i < 500; i++) {
            List<String> from = folders(random);
            List<String> to = folders(random);
            String path = Resolution.relative(from, to, "part.stp");
            Filed parent = new Filed(1, "top.stp", 1, from, false);
            Filed part = new Filed(2, "part.stp", 7, to, false);
            assertThat(Resolution.of(path, parent, List.of(part), Optional.empty()))
                    .as("from %s to %s by %s", from, to, path)
                    .isEqualTo(new Resolution.Found(2));
        }
    }

    private static List<String> folders(Random random) {
        return random.ints(1 + random.nextInt(4), 0, 3)
                .mapToObj(i -> List.of("A", "b", "c d").get(i))
                .toList();
    }

    private static String drawing(String path) {
        return """
                0
                SECTION
                2
                BLOCKS
                0
                BLOCK
                2
                PLATE
                70
                4
                10
                0.0
                20
                0.0
                1
                %s
                0
                ENDBLK
                0
                BLOCK
                2
                NOT_A_REFERENCE
                70
                0
                1
                no.dxf
                0
                ENDBLK
                0
                ENDSEC
                0
                SECTION
                2
                ENTITIES
                0
                INSERT
                2
                plate
                70
                2
                71
                3
                0
                INSERT
                2
                PLATE
                0
                IMAGE
                340
                2F
                0
                ENDSEC
                0
                SECTION
                2
                OBJECTS
                0
                IMAGEDEF
                5
                2f
                1
                photo.png
                0
                ENDSEC
                0
                EOF
                """.formatted(path);
    }

    private static DxfDrawing read(String text) {
        return DxfDrawing.read(text.getBytes(StandardCharsets.UTF_8))
                .orElseThrow(r -> new IllegalStateException(r.says()));
    }

    @Test
    void aDrawingNamesItsExternalReferencesAndPicturesWithTheirPlaces() {
        assertThat(Written.of(read(drawing("..\\parts\\plate.dxf"))))
                .containsExactly(
                        new Written(Written.Role.SHEET, "..\\parts\\plate.dxf", 7),
                        new Written(Written.Role.IMAGE, "photo.png", 1));
    }

    @Test
    void aReferenceOfADrawingIsRewrittenAndEveryOtherByteStays() {
        String before = drawing("..\\parts\\plate.dxf");
        Outcome<byte[]> renamed =
                ExternalReference.renamed(read(before), Map.of("..\\parts\\plate.dxf", "new/plate.dxf"));
        byte[] bytes = renamed.orElseThrow(r -> new IllegalStateException(r.says()));
        assertThat(new String(bytes, StandardCharsets.UTF_8)).isEqualTo(drawing("new/plate.dxf"));
        assertThat(ExternalReference.renamed(read(before), Map.of("other.dxf", "x"))
                        .refusal())
                .hasValueSatisfying(r -> assertThat(r.reason()).contains("other.dxf"));
    }

    @Test
    void aModelNamesItsExternalFilesWithTheirQuantityOverAllPaths() throws IOException {
        StepModel model = StepReader.read(new ByteArrayInputStream(assembly().getBytes(StandardCharsets.US_ASCII)))
                .orElseThrow(r -> new IllegalStateException(r.says()));
        assertThat(Written.of(model)).containsExactly(new Written(Written.Role.COMPONENT, "tg40-4030.stp", 6));
    }

    /** A mast of two frames with three gussets each; the gusset is a file of its own. */
    private static String assembly() {
        StringBuilder data = new StringBuilder("ISO-10303-21;\nHEADER;\nFILE_SCHEMA(('AP242'));\nENDSEC;\nDATA;\n");
        String[] products = {"mast", "frame", "gusset"};
        for (int i = 0; i < 3; i++) {
            data.append("#%d=PRODUCT('%s','','',());\n".formatted(10 + i, products[i]));
            data.append("#%d=PRODUCT_DEFINITION_FORMATION('','',#%d);\n".formatted(20 + i, 10 + i));
            data.append("#%d=PRODUCT_DEFINITION('','',#%d,$);\n".formatted(30 + i, 20 + i));
        }
        for (int i = 0; i < 2; i++) {
            data.append("#%d=NEXT_ASSEMBLY_USAGE_OCCURRENCE('a%d','','',#30,#31,$);\n".formatted(40 + i, i));
        }
        for (int i = 0; i < 3; i++) {
            data.append("#%d=NEXT_ASSEMBLY_USAGE_OCCURRENCE('b%d','','',#31,#32,$);\n".formatted(50 + i, i));
        }
        return data + "#60=DOCUMENT_FILE('tg40-4030.stp','','',#61,'',$);\n"
                + "#62=APPLIED_DOCUMENT_REFERENCE(#60,'',(#32));\nENDSEC;\nEND-ISO-10303-21;\n";
    }
}
