package mintshelf.companion.watch;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.Set;
import java.util.TreeSet;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class ChangesTest {
    @TempDir
    Path folder;

    /** What is told within a few seconds, until it holds all that is awaited. */
    private static Set<String> told(Changes changes, String... awaited) throws InterruptedException {
        Set<String> told = new TreeSet<>();
        for (int i = 0; i < 100 && !told.containsAll(Set.of(awaited)); i++) {
            told.addAll(changes.touched());
            Thread.sleep(50);
        }
        return told;
    }

    @Test
    void writingRenamingOverAndNewFoldersAreToldAndHiddenOnesAreNot() throws Exception {
        Files.createDirectories(folder.resolve("TG40/.hidden"));
        Files.writeString(folder.resolve("TG40/gland.dxf"), "gland");
        try (Changes changes = new Changes(folder)) {
            assertThat(changes.touched()).as("what lay there before").isEmpty();
            Files.writeString(folder.resolve("TG40/gland.dxf"), "wider");
            assertThat(told(changes, "TG40/gland.dxf")).contains("TG40/gland.dxf");
            Path beside = Files.writeString(folder.resolve("TG40/gland.tmp"), "still wider");
            Files.move(beside, folder.resolve("TG40/gland.dxf"), StandardCopyOption.REPLACE_EXISTING);
            assertThat(told(changes, "TG40/gland.dxf")).contains("TG40/gland.dxf");
            Files.writeString(folder.resolve("TG40/.hidden/x.dxf"), "x");
            Files.createDirectories(folder.resolve("LS18/deep/er"));
            Files.writeString(folder.resolve("LS18/deep/er/staff.stp"), "staff");
            assertThat(told(changes, "LS18/deep/er/staff.stp"))
                    .contains("LS18/deep/er/staff.stp")
                    .noneMatch(path -> path.contains("hidden"));
            assertThat(changes.missed()).isFalse();
        }
    }
}
