package mintshelf.companion;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Set;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class BesideFileTest {
    @TempDir
    Path desk;

    private Path file(String name, String text) throws IOException {
        return Files.writeString(desk.resolve(name), text);
    }

    @Test
    void openFormsOfTheSameNameGoAlong() throws IOException {
        Path main = file("plate.prt", "\0 of another program");
        Path step = file("Plate.STP", "ISO-10303-21;");
        Path paper = file("plate.pdf", "%PDF-1.7");
        file("plate.bak", "\0 of another program");
        file("plates.pdf", "%PDF-1.7");
        Files.createDirectory(desk.resolve("plate.dxf"));
        assertThat(BesideFile.of(main, Set.of())).containsExactlyInAnyOrder(step, paper);
        assertThat(BesideFile.of(main, Set.of(paper)))
                .as("a document of its own is no copy")
                .containsExactly(step);
    }

    @Test
    void whatIsShownAsItIsHasNone() throws IOException {
        Path main = file("plate.stp", "ISO-10303-21;");
        file("plate.pdf", "%PDF-1.7");
        assertThat(BesideFile.of(main, Set.of())).isEmpty();
    }
}
