package mintshelf.companion;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.PrintWriter;
import java.io.StringWriter;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import picocli.CommandLine;

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
                .contains("\"titleBlock\": {\"number\": \"TG40 \\\"x\\\"\"}")
                .contains("\"entities\": {\"INSERT\": 1}")
                .contains("\"block\": \"TITLE\"");
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
                .contains("\"same\": 2, \"changed\": 1, \"shifted\": 0, \"removed\": 0, \"added\": 0")
                .contains(
                        "\"kind\": \"changed\", \"zone\": \"\", \"box\": [44.0, 44.0, 56.0, 56.0], \"says\": \"⌀ 10.0 → ⌀ 12.0\"");
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
}
