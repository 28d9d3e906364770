package mintshelf.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** The samples of the documentation, run as they stand there: round trips with a shell and curl, and with what macros use. */
class RoundTripSampleTest {
    private static final Path SAMPLES = Path.of("../docs/round-trip").toAbsolutePath();

    private final Server server = Server.shared();
    private final long shelf = server.shelf();

    @TempDir
    Path folder;

    private String run(String login, String... arguments) throws Exception {
        return run(login, List.of("sh", SAMPLES.resolve("round-trip.sh").toString()), arguments);
    }

    private String macro(String login, String... arguments) throws Exception {
        return run(login, List.of("python3", SAMPLES.resolve("mint_shelf.py").toString()), arguments);
    }

    private String run(String login, List<String> program, String... arguments) throws Exception {
        List<String> command = new ArrayList<>(program);
        command.addAll(List.of(arguments));
        ProcessBuilder builder =
                new ProcessBuilder(command).directory(folder.toFile()).redirectErrorStream(true);
        builder.environment()
                .putAll(Map.of(
                        "MINT_SHELF",
                        server.origin(),
                        "MINT_TOKEN",
                        ApiTest.token(server, login, true),
                        "PYTHONDONTWRITEBYTECODE",
                        "1"));
        Process process = builder.start();
        String said = new String(process.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
        return process.waitFor() + " " + said;
    }

    @Test
    void aFileIsHeldBroughtChangedByAProgramAndCheckedIn() throws Exception {
        long item = server.file("priya", shelf, "round trip.txt", "wide as it was", false);
        String number = server.document(item).number();
        assertThat(run("priya", number, "wider by two", "sed", "-i", "s/wide/wider/"))
                .startsWith("0 ")
                .contains("\"what\":\"version\",\"number\":2");
        assertThat(new String(server.bytes(item), StandardCharsets.UTF_8)).isEqualTo("wider as it was");
        assertThat(server.document(item).holder()).isEmpty();
        assertThat(folder.resolve("round trip.txt")).exists();
    }

    @Test
    void whatIsRefusedIsPrintedInTheServersWordsAndNothingElseIsDone() throws Exception {
        long item = server.file("tomasz", shelf, "round held.txt", "held", true);
        assertThat(run("priya", server.document(item).number(), "mine", "touch"))
                .startsWith("1 ")
                .contains("held by");
        assertThat(run("priya", "NO-SUCH-4711", "mine", "touch"))
                .startsWith("1 ")
                .contains("No document that you see has the number NO-SUCH-4711.");
        try (var files = Files.list(folder)) {
            assertThat(files).isEmpty();
        }
    }

    @Test
    void whatMacrosUseHoldsBringsAndChecksIn() throws Exception {
        long item = server.file("priya", shelf, "macro gauge.txt", "wide as it was", false);
        String number = server.document(item).number();
        assertThat(macro("priya", "bring", number, "wider")).startsWith("0 ");
        Path file = brought("macro gauge.txt");
        assertThat(file).hasContent("wide as it was");
        assertThat(server.document(item).holder()).isPresent();
        Files.writeString(file, "wider than it was");
        assertThat(macro("priya", "bring", number))
                .as("what was changed is never written over")
                .startsWith("1 ")
                .contains("is in no version");
        assertThat(file).hasContent("wider than it was");
        Path elsewhere = Files.createDirectories(folder.resolve("elsewhere")).resolve(file.getFileName());
        Files.copy(file, elsewhere);
        assertThat(macro("priya", "check-in", elsewhere.toString()))
                .as("a copy that only bears its name")
                .startsWith("1 ")
                .contains("You hold no document whose file is");
        Files.delete(elsewhere);
        assertThat(macro("priya", "check-in", file.toString(), "wider by two"))
                .startsWith("0 ")
                .contains(number + " is checked in as version 2");
        assertThat(new String(server.bytes(item), StandardCharsets.UTF_8)).isEqualTo("wider than it was");

        assertThat(macro("priya", "check-in", file.toString()))
                .as("nobody holds it any more")
                .startsWith("1 ")
                .contains("You hold no document whose file is");
        assertThat(macro("priya", "bring", number)).as("a second round").startsWith("0 ");
        assertThat(macro("priya", "check-in", file.toString())).contains(number + " is as it was");
        assertThat(macro("priya", "bring", number)).startsWith("0 ");
        assertThat(macro("priya", "undo", file.toString())).startsWith("0 ").contains("is no longer checked out");
        assertThat(server.document(item).holder()).isEmpty();
        assertThat(file).exists();
    }

    @Test
    void whatMacrosAreRefusedIsSaidInTheServersWords() throws Exception {
        long item = server.file("tomasz", shelf, "macro held.txt", "held", true);
        assertThat(macro("priya", "bring", server.document(item).number()))
                .startsWith("1 ")
                .contains("held by");
        assertThat(macro("priya", "bring", "NO-SUCH-4711")).startsWith("1 ").contains("No document that you see");
        assertThat(macro("priya")).startsWith("2 ").contains("MINT_TOKEN");
        try (var files = Files.list(folder)) {
            assertThat(files).isEmpty();
        }
        String leads = "import sys; sys.path.insert(0, '" + SAMPLES + "'); import mint_shelf\n"
                + "for path in ['../out.txt', '/etc/out.txt', 'a/../../out.txt', '']:\n"
                + "    try: print('taken', mint_shelf.Shelf().place(path))\n"
                + "    except mint_shelf.Refused as refused: print(refused)\n";
        assertThat(run("priya", List.of("python3", "-B", "-c", leads)))
                .doesNotContain("taken")
                .contains("/etc/out.txt leads out of");
    }

    private Path brought(String name) throws IOException {
        try (var files = Files.walk(folder)) {
            return files.filter(f -> f.getFileName().toString().equals(name))
                    .findFirst()
                    .orElseThrow();
        }
    }
}
