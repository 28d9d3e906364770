package mintshelf.companion;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.FileVisitResult;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.SimpleFileVisitor;
import java.nio.file.StandardCopyOption;
import java.nio.file.attribute.BasicFileAttributes;
import java.nio.file.attribute.PosixFilePermission;
import java.nio.file.attribute.PosixFilePermissions;
import java.util.Collection;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import mintshelf.companion.Companion.Unreadable;
import mintshelf.companion.machine.Machine;
import mintshelf.companion.watch.Drafts;
import mintshelf.companion.watch.FileHash;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ObjectNode;

/** A folder that is a desk: where its server is, and what lies in it. Beside the files it keeps two of its own. */
final class DeskFolder {
    private static final String SETTINGS = ".mint-desk.json";
    private static final String HASHES = ".mint-desk-hashes.json";
    private static final int MOST = 100_000;
    /** How old a file is, in ms, before its size and time tell that it was not written since. */
    private static final long SETTLED = 2_000;

    private final Path root;
    private final JsonNode settings;
    /** Hashes as they were read last. */
    private Map<String, String> read = Map.of();

    private DeskFolder(Path root, JsonNode settings) {
        this.root = root;
        this.settings = settings;
    }

    /** The desk that a folder is in. */
    static DeskFolder of(Path folder) {
        for (Path at = folder.toAbsolutePath().normalize(); at != null; at = at.getParent()) {
            Optional<DeskFolder> desk = at(at);
            if (desk.isPresent()) return desk.get();
        }
        throw new Unreadable(folder + " is no desk. Pair it first: mint-shelf desk pair ADDRESS CODE");
    }

    /** The desk that a folder is; nothing where it is none, or is not there. */
    static Optional<DeskFolder> at(Path folder) {
        Path file = folder.resolve(SETTINGS);
        if (!Files.exists(file)) return Optional.empty();
        try {
            return Optional.of(new DeskFolder(folder, ShelfClient.JSON.readTree(Files.readString(file))));
        } catch (IOException e) {
            throw new Unreadable(file + ": " + e.getMessage());
        }
    }

    /** Makes a folder a desk. What is signed with the token acts as its person: only the owner may read it. */
    static DeskFolder make(Path folder, String origin, String token, String name, Optional<Path> certificate)
            throws IOException {
        Files.createDirectories(folder);
        ObjectNode settings = ShelfClient.JSON.createObjectNode();
        settings.put("origin", origin);
        settings.put("name", name);
        settings.put("token", token);
        certificate.ifPresent(
                c -> settings.put("certificate", c.toAbsolutePath().toString()));
        write(folder.resolve(SETTINGS), settings);
        return of(folder);
    }

    private static void write(Path file, JsonNode settings) throws IOException {
        boolean posix = Files.getFileStore(file.getParent()).supportsFileAttributeView("posix");
        Path part = posix
                ? Files.createTempFile(
                        file.getParent(),
                        ".mint",
                        ".part",
                        PosixFilePermissions.asFileAttribute(PosixFilePermissions.fromString("rw-------")))
                : Files.createTempFile(file.getParent(), ".mint", ".part");
        try {
            Files.writeString(part, ShelfClient.JSON.writeValueAsString(settings));
            Files.move(part, file, StandardCopyOption.REPLACE_EXISTING);
        } finally {
            Files.deleteIfExists(part);
        }
    }

    Path root() {
        return root;
    }

    /** By what it knows links of pages; nothing where it takes none. */
    Optional<String> opens() {
        return Optional.of(settings.path("opens").asString("")).filter(t -> !t.isEmpty());
    }

    /** Keeps by what it knows links of pages; from the next reading on. */
    void opens(Optional<String> tag) throws IOException {
        ObjectNode now = ShelfClient.JSON.createObjectNode();
        settings.properties().forEach(e -> now.set(e.getKey(), e.getValue()));
        if (tag.isPresent()) now.put("opens", tag.get());
        else now.remove("opens");
        write(root.resolve(SETTINGS), now);
    }

    /** Whether others than the owner could read the desk's token. */
    boolean isReadByOthers() throws IOException {
        if (!Files.getFileStore(root).supportsFileAttributeView("posix")) return false;
        Set<PosixFilePermission> may = Files.getPosixFilePermissions(root.resolve(SETTINGS));
        return may.contains(PosixFilePermission.GROUP_READ) || may.contains(PosixFilePermission.OTHERS_READ);
    }

    Drafts drafts() {
        return new Drafts(root.resolve(".mint-desk-drafts"));
    }

    String name() {
        return settings.path("name").asString();
    }

    ShelfClient client(Machine machine) {
        return new ShelfClient(
                machine,
                settings.path("origin").asString(),
                settings.path("token").asString(),
                Optional.of(settings.path("certificate").asString(""))
                        .filter(c -> !c.isEmpty())
                        .map(Path::of));
    }

    /** A place on the desk; refused when the path leads out of it. */
    Path place(String path) {
        Path place = root.resolve(path).normalize();
        if (!place.startsWith(root) || path.startsWith("/")) {
            throw new Unreadable("“" + path + "” leads out of the desk.");
        }
        return place;
    }

    /** A path of the desk with slashes; nothing for what lies outside. */
    Optional<String> path(Path file) {
        Path at = file.toAbsolutePath().normalize();
        return at.startsWith(root) ? Optional.of(root.relativize(at).toString().replace('\\', '/')) : Optional.empty();
    }

    /** Hashes of all files by path. What has the size and time of before is not read again. */
    Map<String, String> files() {
        Map<String, String> found = new TreeMap<>();
        JsonNode known = known();
        Map<String, Map<String, String>> keep = new TreeMap<>();
        long now = System.currentTimeMillis();
        try {
            Files.walkFileTree(root, new SimpleFileVisitor<>() {
                @Override
                public FileVisitResult preVisitDirectory(Path folder, BasicFileAttributes a) {
                    boolean hidden = !folder.equals(root)
                            && folder.getFileName().toString().startsWith(".");
                    return hidden ? FileVisitResult.SKIP_SUBTREE : FileVisitResult.CONTINUE;
                }

                @Override
                public FileVisitResult visitFile(Path file, BasicFileAttributes a) throws IOException {
                    String name = file.getFileName().toString();
                    boolean ours = name.startsWith(".") || name.equals(ShelfFolders.WINDOWS);
                    if (!a.isRegularFile() || ours) return FileVisitResult.CONTINUE;
                    if (found.size() >= MOST) throw new Unreadable("More than " + MOST + " files lie here.");
                    String path = path(file).orElseThrow();
                    String stamp = a.size() + " " + a.lastModifiedTime().toMillis();
                    JsonNode before = known.path(path);
                    long age = now - a.lastModifiedTime().toMillis();
                    String hash = before.path("stamp").asString("").equals(stamp)
                            ? before.path("hash").asString()
                            : hash(file);
                    found.put(path, hash);
                    // Within one tick of its clock a file can be written again and keep size and time; one from the
                    // future tells nothing.
                    if (age > SETTLED || before.path("stamp").asString("").equals(stamp))
                        keep.put(path, Map.of("stamp", stamp, "hash", hash));
                    return FileVisitResult.CONTINUE;
                }
            });
            Files.writeString(root.resolve(HASHES), ShelfClient.JSON.writeValueAsString(keep));
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        read = Map.copyOf(found);
        return found;
    }

    /** Hashes of some files by path, as far as they are there. */
    Map<String, String> files(Collection<String> paths) {
        Map<String, String> found = new TreeMap<>();
        try {
            for (String path : paths) {
                Path file = place(path);
                if (Files.isRegularFile(file)) found.put(path, hash(file));
            }
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        read = Map.copyOf(found);
        return found;
    }

    /** Forgets what was read last: nothing is put in a place before it is read again. */
    void forget() {
        read = Map.of();
    }

    private JsonNode known() {
        try {
            Path file = root.resolve(HASHES);
            return Files.exists(file)
                    ? ShelfClient.JSON.readTree(Files.readString(file))
                    : ShelfClient.JSON.createObjectNode();
        } catch (IOException | RuntimeException e) {
            return ShelfClient.JSON.createObjectNode(); // everything is read anew
        }
    }

    static String hash(Path file) throws IOException {
        return FileHash.of(file);
    }

    /**
     * Puts a version in its place, whole or not at all.
     *
     * @return false where another file lies there by now than was read; it stays
     */
    boolean bring(ShelfClient client, long document, String version, String path) throws IOException {
        Path place = place(path);
        Files.createDirectories(place.getParent());
        Path part = Files.createTempFile(place.getParent(), ".mint", ".part");
        try {
            client.download(document, version, part);
            if (Files.exists(place) && !hash(place).equals(read.get(path))) return false;
            Files.move(part, place, StandardCopyOption.REPLACE_EXISTING, StandardCopyOption.ATOMIC_MOVE);
            return true;
        } finally {
            Files.deleteIfExists(part);
        }
    }

    /** Lets a file be read only, or written again; where the file system does not know that, it stays as it is. */
    void protect(String path, boolean readOnly) {
        java.io.File file = place(path).toFile();
        if (file.exists() && !file.setWritable(!readOnly)) return;
    }

    /** Sets a file aside under another name; gives the name. */
    String aside(String path) throws IOException {
        Path place = place(path);
        String name = place.getFileName().toString();
        int dot = name.lastIndexOf('.');
        for (int i = 1; ; i++) {
            String other = (dot > 0 ? name.substring(0, dot) : name) + " (mine" + (i == 1 ? "" : " " + i) + ")"
                    + (dot > 0 ? name.substring(dot) : "");
            Path to = place.resolveSibling(other);
            if (Files.exists(to)) continue;
            Files.move(place, to);
            return other;
        }
    }
}
