package mintshelf.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** The sample of the documentation, run as it stands there: a round trip with a shell and curl. */
class RoundTripSampleTest {
    private static final Path SAMPLE =
            Path.of("../docs/round-trip/round-trip.sh").toAbsolutePath();

    private final Server server = Server.shared();
    private final long shelf = server.shelf();

    @TempDir
    Path folder;

    private String run(String login, String... arguments) throws Exception {
        List<String> command = new ArrayList<>(List.of("sh", SAMPLE.toString()));
        command.addAll(List.of(arguments));
        ProcessBuilder builder =
                new ProcessBuilder(command).directory(folder.toFile()).redirectErrorStream(true);
        builder.environment()
                .putAll(Map.of("MINT_SHELF", server.origin(), "MINT_TOKEN", ApiTest.token(server, login, true)));
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
}
