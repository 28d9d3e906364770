package mintshelf.companion;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.PrintWriter;
import java.io.StringWriter;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import picocli.CommandLine;
import tools.jackson.databind.JsonNode;

class CompanionTest {
    @TempDir
    Path folder;

    private final StringWriter out = new StringWriter();
    private final StringWriter err = new StringWriter();

    private int run(String... arguments) {
        CommandLine line = Companion.commandLine();
        line.setOut(new PrintWriter(out)).setErr(new PrintWriter(err));
        return line.execute(arguments);
    }

    private String sheet() throws Exception {
        String dxf =
                "0\nSECTION\n2\nENTITIES\n0\nINSERT\n2\nTITLE\n0\nATTRIB\n1\nTG40 \"x\"\n2\nNUMBER\n0\nSEQEND\n0\nENDSEC\n0\nEOF\n";
        return Files.write(folder.resolve("a.dxf"), dxf.getBytes(StandardCharsets.UTF_8))
                .toString();
    }

    @Test
    void factsAreSaidInWordsAndAsJson() throws Exception {
        assertThat(run("drawing", "facts", sheet())).isZero();
        assertThat(out.toString())
                .startsWith("number: TG40 \"x\"")
                .contains("entities: 1")
                .contains("not drawn: 1 INSERT of a missing block");
        assertThat(run("drawing", "facts", sheet(), "--json")).isZero();
        assertThat(out.toString())
                .contains("\"titleBlock\":{\"number\":\"TG40 \\\"x\\\"\"}")
                .contains("\"entities\":{\"INSERT\":1}")
                .contains("\"block\":\"TITLE\"");
    }

    @Test
    void whatCannotBeReadIsOneLineAndStatusThree() throws Exception {
        assertThat(run("drawing", "facts", folder.resolve("none.dxf").toString()))
                .isEqualTo(3);
        Path text = Files.writeString(folder.resolve("t.dxf"), "hello\nworld\n");
        assertThat(run("drawing", "facts", text.toString())).isEqualTo(3);
        assertThat(err.toString().lines()).hasSize(2);
        assertThat(run("drawing", "facts")).isEqualTo(2);
    }

    private String drawing(String name, double radius, String number) throws Exception {
        String dxf = "0\nSECTION\n2\nENTITIES\n0\nCIRCLE\n8\n0\n10\n50\n20\n50\n40\n" + radius
                + "\n0\nLINE\n8\n0\n10\n0\n20\n0\n11\n100\n21\n0\n0\nINSERT\n2\nTITLE\n0\nATTRIB\n10\n5\n20\n5\n1\n"
                + number
                + "\n2\nNUMBER\n0\nSEQEND\n0\nENDSEC\n0\nEOF\n";
        return Files.write(folder.resolve(name), dxf.getBytes(StandardCharsets.UTF_8))
                .toString();
    }

    @Test
    void aComparisonAnswersWithItsStatusAndItsCountsAddUp() throws Exception {
        String old = drawing("old.dxf", 5, "A");
        assertThat(run("drawing", "compare", old, old)).isZero();
        assertThat(run("drawing", "compare", old, drawing("new.dxf", 6, "A"), "--json"))
                .isEqualTo(1);
        assertThat(out.toString())
                .contains("\"same\":2,\"changed\":1,\"shifted\":0,\"removed\":0,\"added\":0")
                .contains(
                        "\"kind\":\"changed\",\"zone\":\"\",\"box\":[44.0,44.0,56.0,56.0],\"says\":\"⌀ 10.0 → ⌀ 12.0\"");
    }

    @Test
    void aPictureIsWrittenInThreeForms() throws Exception {
        for (String form : new String[] {"svg", "pdf", "png"}) {
            Path picture = folder.resolve("p." + form);
            assertThat(run("drawing", "render", drawing("r.dxf", 5, "A"), picture.toString(), "--width", "300"))
                    .isZero();
            assertThat(Files.size(picture)).isGreaterThan(300);
        }
        assertThat(run(
                        "drawing",
                        "render",
                        drawing("r.dxf", 5, "A"),
                        folder.resolve("p.gif").toString()))
                .isEqualTo(2);
        assertThat(run(
                        "drawing",
                        "render",
                        drawing("r.dxf", 5, "A"),
                        folder.resolve("p.svg").toString(),
                        "--layout",
                        "No"))
                .isEqualTo(3);
    }

    @Test
    void stampingReplacesTheValueAndNoOtherByte() throws Exception {
        Path target = folder.resolve("out.dxf");
        assertThat(run("drawing", "stamp", drawing("s.dxf", 5, "A"), target.toString(), "--set", "NUMBER=TG40-3030"))
                .isZero();
        assertThat(Files.readString(target))
                .isEqualTo(Files.readString(folder.resolve("s.dxf")).replace("\nA\n", "\nTG40-3030\n"));
        assertThat(run("drawing", "stamp", drawing("s.dxf", 5, "A"), target.toString(), "--set", "NONE=1"))
                .isEqualTo(1);
    }

    @Test
    void whatIsWrittenIsJsonWhateverIsInIt() throws Exception {
        StringWriter written = new StringWriter();
        PrintWriter to = new PrintWriter(written);
        Map<String, Object> value = new LinkedHashMap<>();
        value.put("text", "a \"b\" \\ \n \u0001 ⌀");
        value.put("numbers", List.of(1, 2.5, 1e-9, 12345678.9, -0.25, Double.NaN, 3.0));
        value.put("nested", Map.of("truth", true));
        Json.print(to, value);
        Json.print(to, List.of());
        to.flush();
        List<String> lines = written.toString().lines().toList();
        assertThat(lines).hasSize(2);
        JsonNode read = ShelfClient.JSON.readTree(lines.get(0));
        assertThat(read.path("text").asString()).isEqualTo("a \"b\" \\ \n \u0001 ⌀");
        assertThat(lines.get(0)).contains("\"numbers\":[1,2.5,0.0,12345678.9,-0.25,null,3.0]");
        assertThat(read.path("nested").path("truth").asBoolean()).isTrue();
        assertThat(lines.get(1)).isEqualTo("[]");
    }

    private static String step(String... names) {
        StringBuilder data = new StringBuilder();
        int id = 1;
        for (String name : names) {
            data.append("#")
                    .append(id)
                    .append("=PRODUCT('")
                    .append(name)
                    .append("','")
                    .append(name)
                    .append("','',());\n");
            data.append("#")
                    .append(id + 1)
                    .append("=PRODUCT_DEFINITION_FORMATION('','',#")
                    .append(id)
                    .append(");\n");
            data.append("#")
                    .append(id + 2)
                    .append("=PRODUCT_DEFINITION('design','',#")
                    .append(id + 1)
                    .append(",$);\n");
            id += 3;
        }
        for (int i = 1; i < names.length; i++) {
            data.append("#")
                    .append(id)
                    .append("=NEXT_ASSEMBLY_USAGE_OCCURRENCE('u")
                    .append(i)
                    .append("','','',#3,#")
                    .append(3 * i + 3)
                    .append(",$);\n");
            id++;
        }
        return "ISO-10303-21;\nHEADER;\nFILE_DESCRIPTION((''),'2;1');\nFILE_NAME('well','2026-11-26',(''),(''),'','','');\n"
                + "FILE_SCHEMA(('AP214'));\nENDSEC;\nDATA;\n" + data + "ENDSEC;\nEND-ISO-10303-21;\n";
    }

    @Test
    void theStructureOfAModelIsSaidInWordsAndAsJson() throws Exception {
        String said = "#900=PROPERTY_DEFINITION('Material','',#3);#901=PROPERTY_DEFINITION_REPRESENTATION(#900,#902);"
                + "#902=REPRESENTATION('',(#903),#99);#903=DESCRIPTIVE_REPRESENTATION_ITEM('Material','316L');\nENDSEC;\nEND-";
        Path file = Files.writeString(
                folder.resolve("well.stp"), step("well", "gland", "cone").replace("ENDSEC;\nEND-", said));
        assertThat(run("model", "structure", file.toString())).isZero();
        assertThat(out.toString())
                .contains("well")
                .contains("gland")
                .contains("cone")
                .contains("well: Material 316L");
        out.getBuffer().setLength(0);
        assertThat(run("model", "structure", file.toString(), "--json")).isZero();
        JsonNode read = ShelfClient.JSON.readTree(out.toString());
        assertThat(read.path("products")).hasSize(3);
        assertThat(read.path("properties").path("well").path("Material").asString())
                .isEqualTo("316L");
        assertThat(run("model", "structure", sheet())).isEqualTo(3);
    }

    @Test
    void twoModelsAreHeldAgainstEachOther() throws Exception {
        Path old = Files.writeString(folder.resolve("old.stp"), step("well", "gland", "cone"));
        Path now = Files.writeString(folder.resolve("now.stp"), step("well", "gland", "lid"));
        assertThat(run("model", "compare", old.toString(), old.toString())).isZero();
        assertThat(out.toString()).contains("No difference.");
        out.getBuffer().setLength(0);
        assertThat(run("model", "compare", old.toString(), now.toString())).isEqualTo(1);
        assertThat(out.toString()).contains("cone gone").contains("lid added");
        out.getBuffer().setLength(0);
        assertThat(run("model", "compare", old.toString(), now.toString(), "--json"))
                .isEqualTo(1);
        JsonNode read = ShelfClient.JSON.readTree(out.toString());
        assertThat(read.path("differences")).isNotEmpty();
        assertThat(read.path("same").asInt()).isZero();
        assertThat(run("model", "compare", old.toString(), sheet())).isEqualTo(3);
        assertThat(run("model", "compare", old.toString(), "nowhere.stp")).isEqualTo(3);
    }

    @Test
    void whatTheRulesSayIsOneLineAFindingAndAsJson() throws Exception {
        String sheet = drawing("c.dxf", 5, "A");
        int status = run("drawing", "check", sheet, "--json");
        JsonNode read = ShelfClient.JSON.readTree(out.toString());
        assertThat(read.path("findings").isArray()).isTrue();
        assertThat(status).isEqualTo(read.path("findings").isEmpty() ? 0 : 1);
        out.getBuffer().setLength(0);
        run("drawing", "check", sheet);
        assertThat(out.toString().lines().count())
                .isEqualTo(Math.max(1, read.path("findings").size()));
    }
}
