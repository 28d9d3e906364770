package mintshelf.companion.watch;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Another program that has a file open, as the system tells. */
class LetGoTest {
    @TempDir
    Path folder;

    private boolean heldBy(String how, Path file) throws IOException, InterruptedException {
        // The shell opens it, says so, and keeps it until its input ends.
        Process other = new ProcessBuilder("sh", "-c", "exec 3" + how + "'" + file + "'; echo open; read line").start();
        try {
            assertThat(other.inputReader().readLine()).isEqualTo("open");
            return LetGo.isHeld(file);
        } finally {
            other.outputWriter().close();
            other.waitFor(5, TimeUnit.SECONDS);
        }
    }

    @Test
    void aFileIsHeldWhileAnotherProgramHasItOpenForWriting() throws Exception {
        Path file = Files.writeString(folder.resolve("gland plate.dxf"), "gland");
        assertThat(LetGo.isHeld(file)).isFalse();
        assertThat(heldBy(">>", file)).isTrue();
        assertThat(heldBy("<>", file)).as("for reading and writing").isTrue();
        assertThat(heldBy("<", file)).as("who reads it holds nobody up").isFalse();
        assertThat(LetGo.isHeld(file)).as("let go again").isFalse();
        assertThat(LetGo.isHeld(folder.resolve("gone.dxf"))).isFalse();
    }
}
