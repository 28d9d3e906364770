package mintshelf.companion;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Collection;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import java.util.function.Consumer;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import mintshelf.companion.Companion.Unreadable;
import mintshelf.companion.machine.Machine;
import mintshelf.companion.machine.QuietHours;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/** What the companion knows of its machine: the desks that are registered here, and how its person wants to be told. */
final class Helper {
    /** A word of a command; one with spaces stands in quotes. */
    private static final Pattern WORD = Pattern.compile("\"([^\"]*)\"|(\\S+)");

    private final Path file;

    Helper(Machine machine) {
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

    /** Writes it as it was read, but for what is changed. */
    private void write(Consumer<ObjectNode> change) throws IOException {
        ObjectNode now = ShelfClient.JSON.createObjectNode();
        read().properties().forEach(e -> now.set(e.getKey(), e.getValue()));
        change.accept(now);
        Files.createDirectories(file.getParent());
        Files.writeString(file, ShelfClient.JSON.writeValueAsString(now));
    }

    private void write(Collection<String> folders) throws IOException {
        write(now -> {
            ArrayNode list = now.putArray("desks");
            folders.forEach(list::add);
        });
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
        write(folders);
    }

    /** Takes a desk out; whether any is left. */
    boolean remove(DeskFolder desk) throws IOException {
        List<String> left = folders().stream()
                .filter(f -> !f.equals(desk.root().toString()))
                .toList();
        write(left);
        return !left.isEmpty();
    }

    Optional<QuietHours> quiet() {
        return QuietHours.read(read().path("quiet").asString(""));
    }

    void quiet(Optional<QuietHours> hours) throws IOException {
        write(now -> now.put("quiet", hours.map(QuietHours::text).orElse("")));
    }

    /** The program that its person chose for files of an ending, as the words of a command; empty for the machine's own. */
    List<String> program(String ending) {
        List<String> words = new ArrayList<>();
        Matcher word = WORD.matcher(
                read().path("programs").path(ending.toLowerCase(Locale.ROOT)).asString(""));
        while (word.find()) words.add(word.group(1) == null ? word.group(2) : word.group(1));
        return words;
    }

    /** Keeps a command for files of an ending; an empty one leaves them to the machine again. */
    void program(String ending, String command) throws IOException {
        write(now -> {
            ObjectNode programs = now.path("programs") instanceof ObjectNode has ? has : now.putObject("programs");
            programs.put(ending.toLowerCase(Locale.ROOT), command);
        });
    }
}
