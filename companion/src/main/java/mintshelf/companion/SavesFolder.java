package mintshelf.companion;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.nio.file.attribute.FileTime;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.format.DateTimeFormatter;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.stream.Stream;
import mintshelf.companion.machine.Machine;
import mintshelf.companion.watch.Drafts;
import mintshelf.companion.watch.Drafts.Draft;

/**
 * What was saved of a file on the way, laid out as copies in a folder of the machine, named by when it was: a person looks at them in the program that
 * they work with, as at any file.
 */
final class SavesFolder {
    /** So many bytes are laid out at most, from the latest on. */
    private static final long ROOM = 1L << 30;

    /** What was laid out that long ago was looked at. */
    private static final Duration KEPT = Duration.ofDays(7);

    private static final DateTimeFormatter WHEN = DateTimeFormatter.ofPattern("yyyy-MM-dd HH.mm.ss", Locale.ROOT);

    private final Path folders;
    private final DeskFolder desk;
    private final Clock clock;

    SavesFolder(Machine machine, DeskFolder desk, Clock clock) {
        this.folders = machine.data().resolve("mint-shelf").resolve("saves");
        this.desk = desk;
        this.clock = clock;
    }

    /** A folder with copies of what was saved; how many of how many. */
    record Laid(Path folder, int copies, int kept) {}

    /** Lays out what is kept of a file; nothing where nothing is. What was laid out of it before goes, but for what a program has open. */
    Optional<Laid> of(String path) throws IOException {
        Drafts drafts = desk.drafts();
        List<Draft> all = drafts.of(path);
        if (all.isEmpty()) return Optional.empty();
        sweep();
        String file = path.substring(path.lastIndexOf('/') + 1);
        String which = Integer.toHexString((desk.root() + "\n" + path).hashCode());
        Path folder = Files.createDirectories(folders.resolve(file + " " + which));
        clear(folder);
        int copies = 0;
        long room = ROOM;
        for (Draft draft : all) {
            Optional<Path> content = drafts.content(draft.hash());
            room -= draft.size();
            boolean fits = room >= 0 || copies == 0;
            if (content.isEmpty() || !fits) continue;
            Path copy = folder.resolve(named(file, draft));
            Files.copy(content.get(), copy, StandardCopyOption.REPLACE_EXISTING);
            Files.setLastModifiedTime(copy, FileTime.from(draft.at()));
            // A copy that is saved over is in no version and on no desk: programs ask before they write what may not be
            // written.
            copy.toFile().setReadOnly();
            copies++;
        }
        return Optional.of(new Laid(folder, copies, all.size()));
    }

    /** "gland 2026-11-26 14.02.05.dxf": in the order of time where names are sorted. */
    private String named(String file, Draft draft) {
        int dot = file.lastIndexOf('.');
        String stem = dot > 0 ? file.substring(0, dot) : file;
        return stem + " " + WHEN.format(draft.at().atZone(clock.getZone())) + (dot > 0 ? file.substring(dot) : "");
    }

    private void sweep() throws IOException {
        Instant old = clock.instant().minus(KEPT);
        for (Path folder : in(Files.createDirectories(folders))) {
            if (!Files.isDirectory(folder)
                    || !Files.getLastModifiedTime(folder).toInstant().isBefore(old)) continue;
            clear(folder);
            if (in(folder).isEmpty()) Files.delete(folder);
        }
    }

    private static List<Path> in(Path folder) throws IOException {
        try (Stream<Path> files = Files.list(folder)) {
            return files.toList();
        }
    }

    private static void clear(Path folder) throws IOException {
        for (Path one : in(folder)) {
            try {
                one.toFile().setWritable(true);
                Files.delete(one);
            } catch (IOException e) {
                // A program has it open, where that holds a file: it is written over, or stays until the next time.
            }
        }
    }
}
