package mintshelf.companion;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.Stream;
import mintshelf.companion.machine.Machine;

/**
 * Where the launcher lays links for a watch that runs: nothing has to be started for them then. The folder is the person's own; what lies in it is read
 * as every link is.
 */
final class LinkBox implements AutoCloseable {
    private static final int LONGEST = 1_000;

    private final Path folder;
    private final Path sign;

    private LinkBox(Path folder) {
        this.folder = folder;
        this.sign = folder.resolve(".watch");
    }

    /** Says that a watch takes links from now on. */
    static LinkBox open(Machine machine) throws IOException {
        LinkBox box = new LinkBox(machine.data().resolve("mint-shelf/links"));
        Files.createDirectories(box.folder);
        if (machine.kind() != Machine.Kind.WINDOWS)
            Files.setPosixFilePermissions(box.folder, PosixFilePermissions.fromString("rwx------"));
        Files.writeString(box.sign, Long.toString(ProcessHandle.current().pid()));
        // A session that ends stops it without a word.
        Runtime.getRuntime().addShutdownHook(new Thread(() -> box.sign.toFile().delete(), "sign"));
        return box;
    }

    /** The links that lie there; each is given once. */
    List<String> taken() throws IOException {
        List<Path> files;
        try (Stream<Path> all = Files.list(folder)) {
            files = all.filter(f -> f.getFileName().toString().endsWith(".link"))
                    .toList();
        }
        List<String> links = new ArrayList<>();
        for (Path file : files) {
            if (Files.size(file) <= LONGEST) links.add(Files.readString(file));
            Files.delete(file);
        }
        return links;
    }

    @Override
    public void close() throws IOException {
        Files.deleteIfExists(sign);
    }
}
