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
        assertThat(out.toString()).isEqualToIgnoringNewLines("number: TG40 \"x\"");
        assertThat(run("drawing", "facts", sheet(), "--json")).isZero();
        assertThat(out.toString())
                .contains("\"titleBlock\":{\"number\":\"TG40 \\\"x\\\"\"}")
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
}
