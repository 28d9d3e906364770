package mintshelf.companion.machine;

import java.io.File;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.TimeUnit;

/** A machine as the companion sees it: where its person's settings lie, and the programs that it has. */
public final class Machine {
    private static final int LONGEST = 20; // seconds that a program may take whose answer is waited for

    /** What kind of system it is. */
    public enum Kind {
        LINUX,
        WINDOWS,
        MAC
    }

    private final Kind kind;
    private final Path home;
    private final Map<String, String> environment;

    /** A machine with a home and an environment of its own. */
    public Machine(Kind kind, Path home, Map<String, String> environment) {
        this.kind = kind;
        this.home = home;
        this.environment = Map.copyOf(environment);
    }

    /** The machine that this runs on. */
    public static Machine here() {
        String os = System.getProperty("os.name", "").toLowerCase(Locale.ROOT);
        Kind kind = os.contains("win") ? Kind.WINDOWS : os.contains("mac") ? Kind.MAC : Kind.LINUX;
        // Desktops go by HOME, where the system's own list of people may say otherwise.
        String home = kind == Kind.WINDOWS ? "" : System.getenv().getOrDefault("HOME", "");
        return new Machine(
                kind, Path.of(home.isEmpty() ? System.getProperty("user.home", ".") : home), System.getenv());
    }

    public Kind kind() {
        return kind;
    }

    public Path home() {
        return home;
    }

    /** What the environment says; empty for nothing. */
    public String says(String name) {
        return environment.getOrDefault(name, "");
    }

    /** Where settings of the person lie (XDG Base Directory Specification). */
    public Path config() {
        return switch (kind) {
            case LINUX -> folder("XDG_CONFIG_HOME", ".config");
            case WINDOWS -> folder("APPDATA", "AppData/Roaming");
            case MAC -> home.resolve("Library/Application Support");
        };
    }

    /** Where data of the person lie. */
    public Path data() {
        return switch (kind) {
            case LINUX -> folder("XDG_DATA_HOME", ".local/share");
            case WINDOWS -> folder("LOCALAPPDATA", "AppData/Local");
            case MAC -> home.resolve("Library/Application Support");
        };
    }

    private Path folder(String variable, String otherwise) {
        String said = says(variable);
        // A relative path there is to be ignored, says the specification.
        return said.isEmpty() || !Path.of(said).isAbsolute() ? home.resolve(otherwise) : Path.of(said);
    }

    /** Where a program lies; nothing where the machine has none of that name. */
    public Optional<Path> program(String name) {
        if (Path.of(name).isAbsolute()) return Optional.of(Path.of(name)).filter(Files::isExecutable);
        for (String folder : says("PATH").split(File.pathSeparator)) {
            if (folder.isEmpty()) continue;
            Path at = Path.of(folder, name);
            if (Files.isExecutable(at) && !Files.isDirectory(at)) return Optional.of(at);
        }
        return Optional.empty();
    }

    /** Starts a program and does not wait for it; whether the machine has it. */
    public boolean start(String... command) throws IOException {
        Optional<ProcessBuilder> process = process(command);
        if (process.isEmpty()) return false;
        process.get()
                .redirectErrorStream(true)
                .redirectOutput(ProcessBuilder.Redirect.DISCARD)
                .start();
        return true;
    }

    /** What a program says within a few seconds; nothing where the machine has none, or where it fails. */
    public Optional<String> ask(String... command) throws IOException {
        Optional<ProcessBuilder> process = process(command);
        if (process.isEmpty()) return Optional.empty();
        // Its words go through a file: one that neither ends nor says anything is not waited for for ever.
        Path said = Files.createTempFile("mint-shelf-", ".said");
        Process running = process.get()
                .redirectErrorStream(true)
                .redirectOutput(said.toFile())
                .start();
        try {
            running.getOutputStream().close();
            boolean ended = running.waitFor(LONGEST, TimeUnit.SECONDS);
            return ended && running.exitValue() == 0 ? Optional.of(Files.readString(said)) : Optional.empty();
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            return Optional.empty();
        } finally {
            running.destroyForcibly();
            Files.deleteIfExists(said);
        }
    }

    private Optional<ProcessBuilder> process(String... command) {
        return program(command[0]).map(at -> {
            List<String> all = new ArrayList<>(List.of(command));
            all.set(0, at.toString());
            ProcessBuilder builder = new ProcessBuilder(all);
            builder.environment().clear();
            builder.environment().putAll(environment);
            return builder;
        });
    }

    /** Opens a file with the program that the machine has for it, or an address with the browser; whether there is any. */
    public boolean open(String what) throws IOException {
        return switch (kind) {
            case LINUX -> start("xdg-open", what);
            case WINDOWS -> start("rundll32.exe", "url.dll,FileProtocolHandler", what);
            case MAC -> start("open", what);
        };
    }
}
