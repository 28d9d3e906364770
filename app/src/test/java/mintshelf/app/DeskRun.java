package mintshelf.app;

import java.io.PrintWriter;
import java.io.StringWriter;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import mintshelf.companion.Companion;
import picocli.CommandLine;

/** The companion's commands on a desk, as a person types them. */
final class DeskRun {
    private final Path folder;
    private final StringWriter out = new StringWriter();

    DeskRun(Path folder) {
        this.folder = folder;
    }

    /** Its exit status; what it says is {@link #said}. */
    int run(String... arguments) {
        List<String> all = new ArrayList<>(List.of("desk"));
        all.addAll(List.of(arguments));
        all.addAll(List.of("--desk", folder.toString()));
        out.getBuffer().setLength(0);
        CommandLine line = Companion.commandLine();
        line.setOut(new PrintWriter(out)).setErr(new PrintWriter(out));
        return line.execute(all.toArray(String[]::new));
    }

    /** What the last one said. */
    String said() {
        return out.toString();
    }
}
