package mintshelf.core.model.step;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.stream.Stream;
import mintshelf.core.base.Outcome;
import org.junit.jupiter.api.Assumptions;
import org.junit.jupiter.api.Test;

class StepReaderTest {
    private static final String HEAD = """
            ISO-10303-21;
            HEADER;
            FILE_DESCRIPTION((''),'2;1');
            FILE_NAME('head.stp','2026-11-17T09:00:00',(''),(''),'','gauge works','');
            FILE_SCHEMA(('AUTOMOTIVE_DESIGN { 1 0 10303 214 1 1 1 1 }'));
            ENDSEC;
            DATA;
            """;
    private static final String END = "ENDSEC;\nEND-ISO-10303-21;\n";

    private static Outcome<StepModel> open(byte[] bytes) {
        try {
            return StepReader.read(new ByteArrayInputStream(bytes));
        } catch (IOException e) {
            throw new AssertionError(e);
        }
    }

    private static StepModel read(String data) {
        return ((Outcome.Granted<StepModel>) open((HEAD + data + END).getBytes(StandardCharsets.UTF_8))).value();
    }

    private static String product(int at, String id, String version) {
        return "#%d=PRODUCT('%s','name of %s','',(#2));\n#%d=PRODUCT_DEFINITION_FORMATION('%s','',#%d);\n#%d=PRODUCT_DEFINITION('design','',#%d,#3);\n"
                .formatted(at, id, id, at + 1, version, at, at + 2, at + 1);
    }

    @Test
    void productsUsagesUnitsAndExternalFilesAreRead() {
        StepModel model = read(product(10, "TG40-3000", "A") + product(20, "TG40-3030", "C") + """
                #40=NEXT_ASSEMBLY_USAGE_OCCURRENCE('1','plate','',#12,#22,$);
                #41=NEXT_ASSEMBLY_USAGE_OCCURRENCE('2','plate','',#12,#22,$);
                #50=(LENGTH_UNIT()NAMED_UNIT(*)SI_UNIT(.MILLI.,.METRE.));
                #51=(CONVERSION_BASED_UNIT('INCH',#52)LENGTH_UNIT()NAMED_UNIT(#53));
                #54=(GEOMETRIC_REPRESENTATION_CONTEXT(3)GLOBAL_UNIT_ASSIGNED_CONTEXT((#51,#55))REPRESENTATION_CONTEXT('',''));
                #60=DOCUMENT_FILE('tg40-3030.stp','','',#61,'',$);
                #62=APPLIED_EXTERNAL_IDENTIFICATION_ASSIGNMENT('tg40-3030.stp',#63,#64,(#60));
                #70=CARTESIAN_POINT('',(0.,1.E-3,-2.5));
                """);
        assertThat(model.protocol()).isEqualTo("AP214");
        assertThat(model.head().system()).isEqualTo("gauge works");
        assertThat(model.products())
                .containsExactly(
                        new StepModel.Product("TG40-3000", "name of TG40-3000", "", "A"),
                        new StepModel.Product("TG40-3030", "name of TG40-3030", "", "C"));
        assertThat(model.usages()).containsExactly(new StepModel.Usage("TG40-3000", "TG40-3030", 2));
        assertThat(model.roots()).containsExactly("TG40-3000");
        assertThat(model.lengthUnit())
                .as("of the context, not of the first unit")
                .isEqualTo("in");
        assertThat(model.externals()).singleElement().satisfies(e -> {
            assertThat(e.name()).isEqualTo("tg40-3030.stp");
            assertThat(e.places()).hasSize(2);
        });
        assertThat(model.instances()).isEqualTo(14);
        assertThat(model.said()).isEmpty();
    }

    @Test
    void volumesAndAreasBelongToTheirProducts() {
        StepModel model = read(product(10, "TG40-3030", "C") + """
                #30=PRODUCT_DEFINITION_SHAPE('','',#12);
                #31=PROPERTY_DEFINITION('geometric validation property','volume',#30);
                #32=PROPERTY_DEFINITION_REPRESENTATION(#31,#33);
                #33=REPRESENTATION('volume',(#34),#99);
                #34=MEASURE_REPRESENTATION_ITEM('volume measure',VOLUME_MEASURE(73512.5),#98);
                #35=PROPERTY_DEFINITION('geometric validation property','area',#30);
                #36=PROPERTY_DEFINITION_REPRESENTATION(#35,#37);
                #37=REPRESENTATION('area',(#38),#99);
                #38=MEASURE_REPRESENTATION_ITEM('area measure',AREA_MEASURE(2.E4),#98);
                """);
        assertThat(model.facts()).isEqualTo(Map.of("TG40-3030", Map.of("volume", 73512.5, "area", 20000.0)));
    }

    /** Attributes in the forms in which writers give them: simple and complex measures, texts, numbers, of the definition or its shape. */
    @Test
    void attributesBelongToTheirProductsWithTheirUnits() {
        StepModel model = read(product(10, "TG40-3030", "C") + """
                #20=(MASS_UNIT()NAMED_UNIT(*)SI_UNIT($,.GRAM.));
                #21=(LENGTH_UNIT()NAMED_UNIT(*)SI_UNIT(.MILLI.,.METRE.));
                #22=DERIVED_UNIT_ELEMENT(#21,3.);
                #23=DERIVED_UNIT((#22));
                #24=DERIVED_UNIT((#22,#22));
                #30=PRODUCT_DEFINITION_SHAPE('','',#12);
                #40=PROPERTY_DEFINITION('Mass','',#12);
                #41=PROPERTY_DEFINITION_REPRESENTATION(#40,#42);
                #42=REPRESENTATION('',(#43,#43),#99);
                #43=(MASS_MEASURE_WITH_UNIT()MEASURE_REPRESENTATION_ITEM()MEASURE_WITH_UNIT(MASS_MEASURE(485.),#20)REPRESENTATION_ITEM(''));
                #50=PROPERTY_DEFINITION('material property','material name',#30);
                #51=PROPERTY_DEFINITION_REPRESENTATION(#50,#52);
                #52=REPRESENTATION('material name',(#53,#54,#55,#56,#57),#99);
                #53=DESCRIPTIVE_REPRESENTATION_ITEM('Material','EN AW-6082 T6');
                #54=DESCRIPTIVE_REPRESENTATION_ITEM('material','another');
                #55=INTEGER_REPRESENTATION_ITEM('Teeth',24);
                #56=VALUE_REPRESENTATION_ITEM('Density',POSITIVE_RATIO_MEASURE(2.7E-06));
                #57=DESCRIPTIVE_REPRESENTATION_ITEM('Empty','  ');
                #60=PROPERTY_DEFINITION('geometric validation property','volume',#30);
                #61=PROPERTY_DEFINITION_REPRESENTATION(#60,#62);
                #62=REPRESENTATION('volume',(#63,#64),#99);
                #63=MEASURE_REPRESENTATION_ITEM('volume measure',VOLUME_MEASURE(1.E5),#23);
                #64=MEASURE_REPRESENTATION_ITEM('area measure',AREA_MEASURE(1.E400),#24);
                #70=PROPERTY_DEFINITION('Of nobody','',#777);
                #71=PROPERTY_DEFINITION_REPRESENTATION(#70,#52);
                """);
        Map<String, StepProperty> said = model.said(model.top().orElseThrow());
        assertThat(said)
                .containsEntry("Mass", new StepProperty("485", "g"))
                .containsEntry("Material", new StepProperty("EN AW-6082 T6", ""))
                .containsEntry("Teeth", new StepProperty("24", ""))
                .containsEntry("Density", new StepProperty("0.0000027", ""))
                .containsEntry("volume", new StepProperty("100000", "mm3"))
                .containsEntry("product", new StepProperty("TG40-3030", ""))
                .containsEntry("version", new StepProperty("C", ""))
                .doesNotContainKeys("Empty", "area", "description");
        assertThat(model.lengthUnit()).isEqualTo("mm");
    }

    /** A file that is nothing but words does not fill the memory: what is too much is left out, and that is said. */
    @Test
    void whatSaysMoreThanIsReadIsLeftOutAndSaid() {
        String long500k = "x".repeat(500_000);
        StringBuilder data = new StringBuilder(product(10, "TG40-3030", "C"));
        for (int i = 0; i < 120; i++) {
            data.append("#")
                    .append(100 + i)
                    .append("=DESCRIPTIVE_REPRESENTATION_ITEM('n','")
                    .append(long500k)
                    .append("');\n");
        }
        StepModel model = read(data.toString());
        assertThat(model.said())
                .containsExactly("It says more of products than is read here; the rest of that is left out.");
        assertThat(model.products()).hasSize(1);
        assertThat(model.instances()).isGreaterThan(120);
    }

    /** A file of several products that stand in nothing is of none of them. */
    @Test
    void aFileIsOfTheOneProductThatStandsInNoOther() {
        assertThat(read(product(10, "A", "1") + product(20, "B", "1")).top()).isEmpty();
        assertThat(read("").top()).isEmpty();
        assertThat(read(product(10, "A", "1")).top()).map(StepModel.Product::id).contains("A");
    }

    @Test
    void stringsAreDecodedAndEncodedBack() {
        StepModel model = read(
                "#1=PRODUCT('it''s','Geh\\X2\\00E4\\X0\\use \\X\\D8 \\S\\d \\X4\\0001F600\\X0\\ \\\\','a\nb',(#2));"
                        + "#2=PRODUCT('\\PE\\\\S\\0','unclosed \\X2\\00E4',$,());\n");
        assertThat(model.products().get(0)).isEqualTo(new StepModel.Product("it's", "Gehäuse Ø ä 😀 \\", "ab", ""));
        assertThat(model.products().get(1).id())
                .as("a page of its own: Cyrillic")
                .isEqualTo("А");
        assertThat(model.products().get(1).name()).isEqualTo("unclosed \\X2\\00E4");
        for (String text : List.of("plain", "it's", "Ø 6.6 – ä", "😀 \\ back", "標準", "")) {
            byte[] encoded = StepText.encode(text).getBytes(StandardCharsets.US_ASCII);
            assertThat(StepText.decode(encoded, 0, encoded.length)).isEqualTo(text);
        }
    }

    @Test
    void commentsAndStringsHideNothingAndEndNothing() {
        StepModel model = read("""
                /* ; ' #1=PRODUCT('no','','',()); */
                #10 = CURVE ( 'a ; ''b'' ( /* ' , #11 ) /* ; */ ;
                #11=PRODUCT('yes','','',(#2));
                """);
        assertThat(model.products()).extracting(StepModel.Product::id).containsExactly("yes");
        assertThat(model.instances()).isEqualTo(2);
    }

    @Test
    void brokenFilesAreReadAsFarAsTheyGoOrRefusedWithTheLine() {
        assertThat(open("solid nothing".getBytes(StandardCharsets.UTF_8))
                        .refusal()
                        .orElseThrow()
                        .reason())
                .contains("Line 1");
        assertThat(open(new byte[0]).refusal()).isPresent();
        byte[] whole = (HEAD + product(10, "TG40-3030", "C") + END).getBytes(StandardCharsets.UTF_8);
        StepModel cut = ((Outcome.Granted<StepModel>) open(Arrays.copyOf(whole, whole.length - 60))).value();
        assertThat(cut.products()).hasSize(1);
        assertThat(cut.said()).isNotEmpty();
        StepModel dangling = read("#40=NEXT_ASSEMBLY_USAGE_OCCURRENCE('1','','',#12,#22,$);");
        assertThat(dangling.said()).containsExactly("1 usage names a product that the file does not hold.");
        StepModel deep = read("#40=PRODUCT(" + "(".repeat(5000) + ");");
        assertThat(deep.said().get(0)).contains("nested too deep");
    }

    @Test
    void nothingThatHappensToAFileEndsInAnError() {
        byte[] whole = (HEAD + product(10, "TG40-3030", "C")
                        + "#50=(LENGTH_UNIT()NAMED_UNIT(*)SI_UNIT(.MILLI.,.METRE.));\n" + END)
                .getBytes(StandardCharsets.UTF_8);
        Random random = new Random(40);
        for (int i = 0; i < 4000; i++) {
            byte[] bent = Arrays.copyOf(whole, 1 + random.nextInt(whole.length));
            for (int k = random.nextInt(4); k >= 0; k--) {
                bent[random.nextInt(bent.length)] = (byte) "'();#=/*,.$\\X".charAt(random.nextInt(13));
            }
            assertThat(open(bent)).as("seed 40, case " + i).isNotNull();
        }
    }

    @Test
    void externalNamesAreRewrittenAndEveryOtherByteStays() throws IOException {
        byte[] file = (HEAD + "#60 = DOCUMENT_FILE ( 'old ''a''.stp' , '' ) ;\n#61=PRODUCT('old ''a''.stp','','',());\n"
                        + END)
                .getBytes(StandardCharsets.UTF_8);
        Outcome<byte[]> renamed = StepRename.externals(file, Map.of("old 'a'.stp", "Gehäuse's.stp"));
        byte[] now = ((Outcome.Granted<byte[]>) renamed).value();
        String text = new String(now, StandardCharsets.US_ASCII);
        assertThat(text)
                .contains("DOCUMENT_FILE ( 'Geh\\X4\\000000E4\\X0\\use''s.stp' , '' )")
                .contains("PRODUCT('old ''a''.stp'");
        StepModel model = ((Outcome.Granted<StepModel>) open(now)).value();
        assertThat(model.externals()).extracting(StepModel.External::name).containsExactly("Gehäuse's.stp");
        assertThat(((Outcome.Granted<byte[]>) StepRename.externals(file, Map.of())).value())
                .isEqualTo(file);
        assertThat(StepRename.externals(file, Map.of("other.stp", "x.stp"))
                        .refusal()
                        .map(r -> r.code()))
                .contains("step.no_reference");
        byte[] signed = new String(file, StandardCharsets.UTF_8)
                .replace("END-ISO", "SIGNATURE;\nabc\nENDSEC;\nEND-ISO")
                .getBytes(StandardCharsets.UTF_8);
        assertThat(StepRename.externals(signed, Map.of("old 'a'.stp", "x.stp"))
                        .refusal()
                        .map(r -> r.code()))
                .contains("step.signed");
    }

    /** Files of other programs, where they are at hand. */
    @Test
    void filesOfOthersAreReadWhole() throws IOException {
        Path samples = Path.of("../../shared/samples/step");
        Assumptions.assumeTrue(Files.isDirectory(samples), "the samples are not at hand");
        try (Stream<Path> all = Files.walk(samples)) {
            for (Path file : all.filter(Files::isRegularFile).toList()) {
                try (InputStream in = Files.newInputStream(file)) {
                    StepModel model = ((Outcome.Granted<StepModel>) StepReader.read(in)).value();
                    assertThat(model.said()).as(file.toString()).isEmpty();
                    assertThat(model.products()).as(file.toString()).isNotEmpty();
                }
                byte[] bytes = Files.readAllBytes(file);
                assertThat(StepRename.externals(bytes, Map.of()))
                        .isInstanceOfSatisfying(
                                Outcome.Granted.class,
                                same -> assertThat((byte[]) same.value()).isEqualTo(bytes));
            }
        }
    }
}
