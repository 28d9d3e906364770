package mintshelf.companion.watch;

import static java.nio.file.StandardWatchEventKinds.ENTRY_CREATE;
import static java.nio.file.StandardWatchEventKinds.ENTRY_DELETE;
import static java.nio.file.StandardWatchEventKinds.ENTRY_MODIFY;
import static java.nio.file.StandardWatchEventKinds.OVERFLOW;

import java.io.IOException;
import java.nio.file.FileVisitResult;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.SimpleFileVisitor;
import java.nio.file.WatchEvent;
import java.nio.file.WatchKey;
import java.nio.file.WatchService;
import java.nio.file.attribute.BasicFileAttributes;
import java.util.HashMap;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;

/** What the system says of changes below a folder. Hidden folders are not looked into. */
public final class Changes implements AutoCloseable {
    private final Path root;
    private final WatchService service;
    private final Map<WatchKey, Path> folders = new HashMap<>();
    private boolean missed;

    /** Begins to listen; what the system cannot watch is missed, and has to be looked at now and then. */
    public Changes(Path root) throws IOException {
        this.root = root;
        this.service = root.getFileSystem().newWatchService();
        listen(root, new TreeSet<>());
    }

    /** Paths of files below the root, with slashes, that were touched since it was asked last. */
    public Set<String> touched() {
        Set<String> touched = new TreeSet<>();
        for (WatchKey key = service.poll(); key != null; key = service.poll()) {
            Path folder = folders.get(key);
            for (WatchEvent<?> event : key.pollEvents()) {
                if (event.kind() == OVERFLOW || folder == null) {
                    missed = true;
                    continue;
                }
                Path at = folder.resolve((Path) event.context());
                if (isHidden(at)) continue;
                if (event.kind() == ENTRY_CREATE && Files.isDirectory(at)) listen(at, touched);
                else touched.add(path(at));
            }
            if (!key.reset()) folders.remove(key);
        }
        return touched;
    }

    /** Whether something may have been missed since it was asked last. */
    public boolean missed() {
        boolean was = missed;
        missed = false;
        return was;
    }

    /** Listens to a folder with all below it; files that lie there already were touched before it did. */
    private void listen(Path folder, Set<String> touched) {
        try {
            Files.walkFileTree(folder, new SimpleFileVisitor<>() {
                @Override
                public FileVisitResult preVisitDirectory(Path at, BasicFileAttributes a) throws IOException {
                    if (!at.equals(root) && isHidden(at)) return FileVisitResult.SKIP_SUBTREE;
                    folders.put(at.register(service, ENTRY_CREATE, ENTRY_MODIFY, ENTRY_DELETE), at);
                    return FileVisitResult.CONTINUE;
                }

                @Override
                public FileVisitResult visitFile(Path at, BasicFileAttributes a) {
                    if (!isHidden(at)) touched.add(path(at));
                    return FileVisitResult.CONTINUE;
                }
            });
        } catch (IOException e) {
            missed = true; // the system's limit of watches, a drive that went away: it is looked at now and then
        }
    }

    private static boolean isHidden(Path at) {
        return at.getFileName().toString().startsWith(".");
    }

    private String path(Path at) {
        return root.relativize(at).toString().replace('\\', '/');
    }

    @Override
    public void close() throws IOException {
        service.close();
    }
}
