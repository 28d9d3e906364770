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

/** The commands as a person runs them: in a process of their own. */
class CommandsTest {
    private final Server server = Server.shared();

    private record Answer(int status, String words) {}

    private Answer run(String... arguments) throws IOException, InterruptedException {
        List<String> command = new ArrayList<>(List.of(
                Path.of(System.getProperty("java.home"), "bin", "java").toString(),
                "-XX:TieredStopAtLevel=1",
                "-cp",
                System.getProperty("java.class.path"),
                MintShelf.class.getName()));
        command.addAll(List.of(arguments));
        ProcessBuilder builder = new ProcessBuilder(command).redirectErrorStream(true);
        builder.environment()
                .putAll(Map.of(
                        "MINT_SHELF_DB_URL",
                        Server.database().url(server.schema()),
                        "MINT_SHELF_DB_USER",
                        "mint",
                        "MINT_SHELF_DB_PASSWORD",
                        "mint"));
        Process process = builder.start();
        String words = new String(process.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
        return new Answer(process.waitFor(), words);
    }

    @Test
    void verifyEndsWithZeroWhenAllIsWholeAndSaysWhatItRead() throws Exception {
        server.file("priya", server.shelf(), "verified.txt", "verified", false);
        Answer answer = run("verify");
        assertThat(answer.words()).contains("all is whole").contains("chains");
        assertThat(answer.status()).isZero();
    }

    @Test
    void aBackupIsWrittenAndAMissingFileIsAnswered() throws Exception {
        Path file = Files.createTempDirectory("mint-shelf-").resolve("b.sql.gz");
        assertThat(run("backup", file.toString()).status()).isZero();
        assertThat(Files.size(file)).isGreaterThan(10_000);
        assertThat(run("restore", "/nowhere.gz").status()).isEqualTo(3);
        assertThat(run("backup").status()).isEqualTo(2);
        assertThat(run("fly").status()).isEqualTo(2);
    }
}
