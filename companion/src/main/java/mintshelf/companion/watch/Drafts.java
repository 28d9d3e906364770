package mintshelf.companion.watch;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.stream.Stream;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/**
 * What was saved on the way between two versions, kept on the machine: contents by their hashes, so that the same is kept once, the last twenty of a
 * file. Saves that follow each other within minutes are folded
 * into the last of them, or a busy quarter of an hour would push out the morning.
 */
public final class Drafts {
    /** How many of a file are kept. */
    public static final int MOST = 20;

    /** Larger files are not kept. */
    private static final long LARGEST = 512L << 20;

    /** What follows within this is folded, as long as the fold is not longer than {@link #FOLD}. */
    private static final Duration FOLLOWS = Duration.ofMinutes(3);

    private static final Duration FOLD = Duration.ofMinutes(10);
    private static final JsonMapper JSON = JsonMapper.builder().build();

    private final Path contents;
    private final Path list;

    /** @param folder of its own, within the desk */
    public Drafts(Path folder) {
        this.contents = folder.resolve("contents");
        this.list = folder.resolve("drafts.json");
    }

    /**
     * A draft.
     *
     * @param at when it was saved
     * @param since when the first of those was saved that are folded into it
     */
    public record Draft(String hash, Instant at, Instant since, long size) {}

    /** The drafts of a file, the latest first. */
    public List<Draft> of(String path) {
        return List.copyOf(read().getOrDefault(path, List.of()));
    }

    /** Keeps what lies there as the latest draft; what is kept as that already, or is too large, is not kept again. */
    public boolean keep(String path, Path file, String hash, Instant now) throws IOException {
        long size = Files.size(file);
        if (size > LARGEST) return false;
        Map<String, List<Draft>> all = read();
        List<Draft> drafts = new ArrayList<>(all.getOrDefault(path, List.of()));
        if (!drafts.isEmpty() && drafts.get(0).hash().equals(hash)) return false;
        if (!bring(file, hash)) return false;
        // The first of a session stays: what was there before somebody began is what they want back.
        Instant since = now;
        if (drafts.size() > 1 && folds(drafts.get(0), now))
            since = drafts.remove(0).since();
        drafts.removeIf(d -> d.hash().equals(hash));
        drafts.add(0, new Draft(hash, now, since, size));
        while (drafts.size() > MOST) drafts.remove(drafts.size() - 1);
        all.put(path, drafts);
        write(all);
        sweep(all);
        return true;
    }

    /** Whether a save is folded into the one before; a clock that was set back folds nothing. */
    private static boolean folds(Draft before, Instant now) {
        Duration after = Duration.between(before.at(), now);
        Duration whole = Duration.between(before.since(), now);
        return !after.isNegative() && after.compareTo(FOLLOWS) < 0 && whole.compareTo(FOLD) < 0;
    }

    /** The bytes of a content that is kept. */
    public Optional<Path> content(String hash) {
        return Optional.of(contents.resolve(hash)).filter(Files::exists);
    }

    /** Copies a file among the contents; whether its bytes are those of the hash, for it may be written to meanwhile. */
    private boolean bring(Path file, String hash) throws IOException {
        Path place = contents.resolve(hash);
        if (Files.exists(place)) return true;
        Files.createDirectories(contents);
        Path part = Files.createTempFile(contents, ".mint", ".part");
        try {
            Files.copy(file, part, StandardCopyOption.REPLACE_EXISTING);
            if (!FileHash.of(part).equals(hash)) return false;
            Files.move(part, place, StandardCopyOption.ATOMIC_MOVE, StandardCopyOption.REPLACE_EXISTING);
            return true;
        } finally {
            Files.deleteIfExists(part);
        }
    }

    private Map<String, List<Draft>> read() {
        Map<String, List<Draft>> all = new TreeMap<>();
        if (!Files.exists(list)) return all;
        try {
            JsonNode root = JSON.readTree(Files.readString(list));
            for (String path : root.propertyNames()) {
                List<Draft> drafts = new ArrayList<>();
                root.path(path)
                        .forEach(d -> drafts.add(new Draft(
                                d.path("hash").asString(),
                                Instant.parse(d.path("at").asString()),
                                Instant.parse(d.path("since").asString()),
                                d.path("size").asLong())));
                all.put(path, drafts);
            }
        } catch (IOException | RuntimeException e) {
            return new TreeMap<>(); // it is written anew; contents that nothing names go with the next one
        }
        return all;
    }

    private void write(Map<String, List<Draft>> all) throws IOException {
        Map<String, List<Map<String, Object>>> written = new TreeMap<>();
        all.forEach((path, drafts) -> written.put(
                path,
                drafts.stream()
                        .map(d -> {
                            Map<String, Object> one = new LinkedHashMap<>();
                            one.put("hash", d.hash());
                            one.put("at", d.at().toString());
                            one.put("since", d.since().toString());
                            one.put("size", d.size());
                            return one;
                        })
                        .toList()));
        Path part = Files.createTempFile(list.getParent(), ".mint", ".part");
        try {
            Files.writeString(part, JSON.writeValueAsString(written));
            Files.move(part, list, StandardCopyOption.ATOMIC_MOVE, StandardCopyOption.REPLACE_EXISTING);
        } finally {
            Files.deleteIfExists(part);
        }
    }

    private void sweep(Map<String, List<Draft>> all) throws IOException {
        Set<String> named = new HashSet<>();
        all.values().forEach(drafts -> drafts.forEach(d -> named.add(d.hash())));
        List<Path> gone;
        try (Stream<Path> files = Files.list(contents)) {
            gone = files.filter(f -> !named.contains(f.getFileName().toString()))
                    .toList();
        }
        for (Path one : gone) Files.deleteIfExists(one);
    }
}
