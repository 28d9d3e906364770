package mintshelf.companion;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import mintshelf.companion.Companion.Unreadable;
import mintshelf.companion.machine.Machine;
import mintshelf.companion.machine.QuietHours;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/** What the companion knows of its machine: the desks that are registered here, and how its person wants to be told. */
final class Helper {
    private final Machine machine;
    private final Path file;

    Helper(Machine machine) {
        this.machine = machine;
        this.file = machine.config().resolve("mint-shelf/helper.json");
    }

    private JsonNode read() {
        try {
            return Files.exists(file)
                    ? ShelfClient.JSON.readTree(Files.readString(file))
                    : ShelfClient.JSON.createObjectNode();
        } catch (IOException | RuntimeException e) {
            throw new Unreadable(file + " cannot be read: " + e.getMessage());
        }
    }

    private void write(List<String> desks, Optional<String> quiet) throws IOException {
        ObjectNode now = ShelfClient.JSON.createObjectNode();
        ArrayNode list = now.putArray("desks");
        desks.forEach(list::add);
        quiet.ifPresent(q -> now.put("quiet", q));
        Files.createDirectories(file.getParent());
        Files.writeString(file, ShelfClient.JSON.writeValueAsString(now));
    }

    private List<String> folders() {
        List<String> folders = new ArrayList<>();
        read().path("desks").forEach(d -> folders.add(d.asString()));
        return folders;
    }

    /** The desks that are registered here; a folder that is none any more, or is on a drive that is not there, is passed over. */
    List<DeskFolder> desks() {
        List<DeskFolder> desks = new ArrayList<>();
        for (String folder : folders()) {
            DeskFolder.at(Path.of(folder)).ifPresent(desks::add);
        }
        return desks;
    }

    void add(DeskFolder desk) throws IOException {
        Set<String> folders = new LinkedHashSet<>(folders());
        folders.add(desk.root().toString());
        write(List.copyOf(folders), quietText());
    }

    /** Takes a desk out; whether any is left. */
    boolean remove(DeskFolder desk) throws IOException {
        List<String> left = folders().stream()
                .filter(f -> !f.equals(desk.root().toString()))
                .toList();
        write(left, quietText());
        return !left.isEmpty();
    }

    private Optional<String> quietText() {
        return Optional.of(read().path("quiet").asString("")).filter(q -> !q.isEmpty());
    }

    Optional<QuietHours> quiet() {
        return quietText().flatMap(QuietHours::read);
    }

    void quiet(Optional<QuietHours> hours) throws IOException {
        write(folders(), hours.map(QuietHours::text));
    }

    Machine machine() {
        return machine;
    }
}
