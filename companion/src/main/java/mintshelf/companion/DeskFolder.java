package mintshelf.companion;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.file.FileVisitResult;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.SimpleFileVisitor;
import java.nio.file.StandardCopyOption;
import java.nio.file.attribute.BasicFileAttributes;
import java.nio.file.attribute.PosixFilePermissions;
import java.security.MessageDigest;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import mintshelf.companion.Companion.Unreadable;
import mintshelf.core.base.ContentHash;
import tools.jackson.databind.JsonNode;

/** A folder that is a desk: where its server is, and what lies in it. Beside the files it keeps two of its own. */
final class DeskFolder {
    private static final String SETTINGS = ".mint-desk.json";
    private static final String HASHES = ".mint-desk-hashes.json";
    private static final int MOST = 100_000;

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
            Path file = at.resolve(SETTINGS);
            if (!Files.exists(file)) continue;
            try {
                return new DeskFolder(at, ShelfClient.JSON.readTree(Files.readString(file)));
            } catch (IOException e) {
                throw new Unreadable(file + ": " + e.getMessage());
            }
        }
        throw new Unreadable(folder + " is no desk. Pair it first: ./shelf desk pair ADDRESS CODE");
    }

    /** Makes a folder a desk. What is signed with the token acts as its person: only the owner may read it. */
    static DeskFolder make(Path folder, String origin, String token, String name) throws IOException {
        Path file = folder.resolve(SETTINGS);
        Map<String, String> settings = new LinkedHashMap<>();
        settings.put("origin", origin);
        settings.put("name", name);
        settings.put("token", token);
        Files.createDirectories(folder);
        Files.writeString(file, ShelfClient.JSON.writeValueAsString(settings));
        if (Files.getFileStore(folder).supportsFileAttributeView("posix")) {
            Files.setPosixFilePermissions(file, PosixFilePermissions.fromString("rw-------"));
        }
        return of(folder);
    }

    String name() {
        return settings.path("name").asString();
    }

    ShelfClient client() {
        return new ShelfClient(
                settings.path("origin").asString(), settings.path("token").asString());
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
                    if (!a.isRegularFile() || name.startsWith(".")) return FileVisitResult.CONTINUE;
                    if (found.size() >= MOST) throw new Unreadable("More than " + MOST + " files lie here.");
                    String path = path(file).orElseThrow();
                    String stamp = a.size() + " " + a.lastModifiedTime().toMillis();
                    JsonNode before = known.path(path);
                    String hash = before.path("stamp").asString("").equals(stamp)
                            ? before.path("hash").asString()
                            : hash(file);
                    found.put(path, hash);
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
        MessageDigest digest = ContentHash.digest();
        byte[] buffer = new byte[1 << 16];
        try (InputStream in = Files.newInputStream(file)) {
            for (int n = in.read(buffer); n > 0; n = in.read(buffer)) digest.update(buffer, 0, n);
        }
        return ContentHash.of(digest.digest()).hex();
    }

    /**
     * Puts a version in its place, whole or not at all.
     *
     * @return false where another file lies there by now than was read; it stays
     */
    boolean bring(ShelfClient client, long document, int version, String path) throws IOException {
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
