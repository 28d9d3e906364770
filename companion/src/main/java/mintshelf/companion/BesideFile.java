package mintshelf.companion;

import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.stream.Stream;
import mintshelf.core.content.ContentKind;
import mintshelf.core.document.FileName;
import mintshelf.core.document.NeutralForm;
import mintshelf.core.document.NeutralRules;

/** What lies beside a file on the desk in an open form, under the same name: it goes with the file as its neutral copy. */
final class BesideFile {
    private BesideFile() {}

    /**
     * Neutral copies of a file, by name; none of a file that is shown as it is.
     *
     * @param own files that are documents of their own
     */
    static List<Path> of(Path file, Set<Path> own) throws IOException {
        FileName main = FileName.of(file.getFileName().toString());
        if (!NeutralForm.isWanted(kind(file), main)) return List.of();
        Path folder = file.toAbsolutePath().getParent();
        try (Stream<Path> all = Files.list(folder)) {
            List<Path> named = all.filter(Files::isRegularFile)
                    .filter(one ->
                            own.stream().noneMatch(o -> o.toAbsolutePath().equals(one.toAbsolutePath())))
                    .filter(one -> NeutralRules.belongs(
                            main, FileName.of(one.getFileName().toString())))
                    .sorted()
                    .toList();
            List<Path> open = new ArrayList<>();
            for (Path one : named) {
                if (NeutralForm.of(kind(one), FileName.of(one.getFileName().toString()))
                        .isPresent()) open.add(one);
            }
            return open;
        }
    }

    private static ContentKind kind(Path file) throws IOException {
        try (InputStream in = Files.newInputStream(file)) {
            return ContentKind.of(in.readNBytes(ContentKind.SAMPLE));
        }
    }
}
