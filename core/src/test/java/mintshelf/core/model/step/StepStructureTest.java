package mintshelf.core.model.step;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.tuple;

import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.math.BigDecimal;
import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import mintshelf.core.base.Outcome;
import mintshelf.core.model.step.StepStructure.Head;
import mintshelf.core.model.step.StepStructure.Product;
import mintshelf.core.model.step.StepStructure.Usage;
import org.junit.jupiter.api.Test;

class StepStructureTest {
    private static final Head HEAD = new Head(
            "TG40-3000.stp",
            Instant.parse("2026-11-29T22:00:00Z"),
            "Priya Malhan",
            "Ebbcote",
            List.of("1 line is left out"));

    private static String written(List<Product> products, List<Usage> usages) throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        StepStructure.write(HEAD, products, usages, out);
        return out.toString(StandardCharsets.US_ASCII);
    }

    private static StepModel read(String file) throws IOException {
        Outcome<StepModel> read = StepReader.read(new ByteArrayInputStream(file.getBytes(StandardCharsets.US_ASCII)));
        return ((Outcome.Granted<StepModel>) read).value();
    }

    private static Product made(String id) {
        return new Product(id, "Part " + id, "A", false, "");
    }

    private static Usage usage(int parent, int child, String quantity, String unit) {
        return new Usage(parent, child, "" + child, new BigDecimal(quantity), unit);
    }

    @Test
    void whatIsWrittenIsReadAgain() throws IOException {
        String file = written(
                List.of(
                        new Product("TG40-3000", "Encoder head", "B", false, "TG40-3000 Head.stp"),
                        new Product("TG40-3020", "Lid, Ø 6.6 \\ it's", "A", false, "TG40-3020 Lid.stp"),
                        new Product("EGW-SG-02", "Shaft grease", "A", true, "")),
                List.of(usage(0, 1, "2", "pc"), usage(0, 2, "20.5", "g")));
        StepModel model = read(file);
        assertThat(model.said()).isEmpty();
        assertThat(model.schema()).isEqualTo("AP242_MANAGED_MODEL_BASED_3D_ENGINEERING_MIM_LF");
        assertThat(model.head().name()).isEqualTo("TG40-3000.stp");
        assertThat(model.products())
                .extracting(StepModel.Product::id, StepModel.Product::name, StepModel.Product::version)
                .containsExactly(
                        tuple("TG40-3000", "Encoder head", "B"),
                        tuple("TG40-3020", "Lid, Ø 6.6 \\ it's", "A"),
                        tuple("EGW-SG-02", "Shaft grease", "A"));
        assertThat(model.usages())
                .containsExactly(
                        new StepModel.Usage("TG40-3000", "TG40-3020", 2),
                        new StepModel.Usage("TG40-3000", "EGW-SG-02", 1));
        assertThat(model.externals())
                .extracting(StepModel.External::name, StepModel.External::count)
                .containsExactly(tuple("TG40-3000 Head.stp", 1), tuple("TG40-3020 Lid.stp", 2));
        assertThat(file)
                .contains(",.BOUGHT.)", "MASS_MEASURE(20.5)", "SI_UNIT($,.GRAM.)", "'1.1'", "'1.2'")
                .doesNotContain("Ø");
    }

    @Test
    void manyPiecesAreOneUsageThatIsCounted() throws IOException {
        String file = written(
                List.of(made("a"), made("b"), made("c")),
                List.of(usage(0, 1, "" + StepStructure.SINGLE, "pc"), usage(0, 2, "4000", "pc")));
        assertThat(file.split("NEXT_ASSEMBLY_USAGE_OCCURRENCE")).hasSize(StepStructure.SINGLE + 2);
        assertThat(file).contains("COUNT_MEASURE(4000.)");
        assertThat(read(file).usages())
                .containsExactly(
                        new StepModel.Usage("a", "b", StepStructure.SINGLE), new StepModel.Usage("a", "c", 4000));
    }

    @Test
    void twoRevisionsOfOneProductAreOneProduct() throws IOException {
        String file = written(
                List.of(made("top"), made("pin"), new Product("pin", "Pin", "B", false, "")),
                List.of(usage(0, 1, "1", "pc"), usage(0, 2, "2", "pc")));
        assertThat(file.split("=PRODUCT\\(")).hasSize(3);
        assertThat(read(file).usages()).containsExactly(new StepModel.Usage("top", "pin", 3));
        assertThat(file).contains("FILE_DESCRIPTION(('product structure','1 line is left out'),'2;1');");
    }

    @Test
    void everyUnitIsWrittenOnceAndCountsAsOne() throws IOException {
        List<Product> products = new ArrayList<>(List.of(made("top")));
        List<Usage> usages = new ArrayList<>();
        for (String unit : List.of("m", "mm", "m2", "g", "kg", "ml", "l", "m", "m2")) {
            products.add(made("p" + products.size()));
            usages.add(usage(0, products.size() - 1, "6.2", unit));
        }
        String file = written(products, usages);
        assertThat(file.split("\\.METRE\\.")).hasSize(3);
        assertThat(file).contains("LENGTH_MEASURE(6.2)", "AREA_MEASURE(6.2)", "VOLUME_MEASURE(6.2)", "'ml'");
        assertThat(read(file).usages()).hasSize(9).allMatch(u -> u.count() == 1);
        assertThat(read(file).said()).isEmpty();
    }

    @Test
    void aUsageOfNoProductIsRefusedBeforeAnythingIsWritten() {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        assertThatThrownBy(() -> StepStructure.write(HEAD, List.of(made("a")), List.of(usage(0, 1, "1", "pc")), out))
                .isInstanceOf(IllegalArgumentException.class);
        assertThat(out.size()).isZero();
    }

    @Test
    void seededStructuresComeBackAsTheyWere() throws IOException {
        Random random = new Random(29);
        for (int run = 0; run < 200; run++) {
            int n = 2 + random.nextInt(12);
            List<Product> products = new ArrayList<>();
            for (int i = 0; i < n; i++) products.add(made("R" + run + "-" + i));
            Map<String, Integer> wanted = new LinkedHashMap<>();
            List<Usage> usages = new ArrayList<>();
            for (int i = 0; i < 3 * n; i++) {
                int parent = random.nextInt(n - 1);
                int child = parent + 1 + random.nextInt(n - 1 - parent);
                int many = 1 + random.nextInt(random.nextInt(10) == 0 ? 900 : 5);
                usages.add(usage(parent, child, "" + many, "pc"));
                wanted.merge(
                        products.get(parent).id() + " " + products.get(child).id(), many, Integer::sum);
            }
            Map<String, Integer> found = new LinkedHashMap<>();
            read(written(products, usages)).usages().forEach(u -> found.put(u.parent() + " " + u.child(), u.count()));
            assertThat(found).as("run " + run).containsExactlyInAnyOrderEntriesOf(wanted);
        }
    }

    @Test
    void whatIsNoCountStandsForOne() throws IOException {
        String file = written(List.of(made("a"), made("b")), List.of(usage(0, 1, "2.5", "pc")));
        assertThat(file).contains("COUNT_MEASURE(2.5)");
        assertThat(read(file).usages()).containsExactly(new StepModel.Usage("a", "b", 1));
        assertThat(read(file.replace("2.5)", "1.E300)")).usages().get(0).count())
                .isEqualTo(1);
        assertThat(read(file.replace("2.5)", "-4.)")).usages().get(0).count()).isEqualTo(1);
    }
}
