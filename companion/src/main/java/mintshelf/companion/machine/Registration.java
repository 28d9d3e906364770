package mintshelf.companion.machine;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.nio.file.attribute.PosixFilePermissions;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;

/**
 * What makes a machine know the companion: the scheme of its links, its entries in file managers, the watch that begins with the session. All of it
 * belongs to the person alone, and all of it goes away again.
 */
public final class Registration {
    /**
     * A file that is written.
     *
     * @param runs whether it is a program
     */
    public record Written(Path file, String text, boolean runs) {}

    private final Machine machine;
    private final Path launcher;
    private final List<Written> files;
    private final List<List<String>> put;
    private final List<List<String>> away;

    private Registration(
            Machine machine, Path launcher, List<Written> files, List<List<String>> put, List<List<String>> away) {
        this.machine = machine;
        this.launcher = launcher;
        this.files = List.copyOf(files);
        this.put = List.copyOf(put);
        this.away = List.copyOf(away);
    }

    /**
     * What a machine is told.
     *
     * @param launcher the program that starts the companion
     */
    public static Registration of(Machine machine, Path launcher) {
        return switch (machine.kind()) {
            case LINUX -> linux(machine, launcher);
            case WINDOWS -> windows(machine, launcher);
            case MAC -> mac(machine, launcher);
        };
    }

    private static Registration linux(Machine machine, Path launcher) {
        Path applications = machine.data().resolve("applications");
        List<Written> files = new ArrayList<>();
        files.add(new Written(applications.resolve(LinuxFiles.SCHEME), LinuxFiles.scheme(launcher.toString()), false));
        files.add(new Written(
                machine.config().resolve("systemd/user").resolve(LinuxFiles.UNIT),
                LinuxFiles.unit(launcher.toString()),
                false));
        files.add(new Written(
                machine.config().resolve("autostart").resolve(LinuxFiles.AUTOSTART),
                LinuxFiles.autostart(launcher.toString()),
                false));
        files.addAll(FileManagers.entries(machine, launcher.toString()));
        return new Registration(
                machine,
                launcher,
                files,
                List.of(
                        List.of("xdg-mime", "default", LinuxFiles.SCHEME, "x-scheme-handler/mint-shelf"),
                        List.of("update-desktop-database", applications.toString()),
                        List.of("systemctl", "--user", "daemon-reload"),
                        List.of("systemctl", "--user", "enable", "--now", LinuxFiles.UNIT)),
                List.of(
                        List.of("systemctl", "--user", "disable", "--now", LinuxFiles.UNIT),
                        List.of("update-desktop-database", applications.toString())));
    }

    private static Registration windows(Machine machine, Path launcher) {
        Path folder = machine.data().resolve("mint-shelf");
        Path in = folder.resolve("register.reg");
        Path out = folder.resolve("away.reg");
        return new Registration(
                machine,
                launcher,
                List.of(
                        new Written(in, WindowsFiles.in(launcher.toString()), false),
                        new Written(out, WindowsFiles.out(), false)),
                List.of(List.of("reg.exe", "import", in.toString())),
                List.of(List.of("reg.exe", "import", out.toString())));
    }

    private static Registration mac(Machine machine, Path launcher) {
        Path bundle = machine.home().resolve("Applications/Mint Shelf.app");
        Path script = machine.data().resolve("mint-shelf/open.applescript");
        Path watch = machine.home().resolve("Library/LaunchAgents").resolve(MacFiles.AGENT + ".plist");
        List<List<String>> put = new ArrayList<>();
        put.add(List.of("osacompile", "-o", bundle.toString(), script.toString()));
        put.addAll(MacFiles.scheme(bundle));
        put.add(List.of("launchctl", "load", watch.toString()));
        return new Registration(
                machine,
                launcher,
                List.of(
                        new Written(script, MacFiles.script(launcher.toString()), false),
                        new Written(watch, MacFiles.agent(launcher.toString()), false)),
                put,
                List.of(List.of("launchctl", "unload", watch.toString()), List.of("rm", "-r", bundle.toString())));
    }

    public List<Written> files() {
        return files;
    }

    /** Writes it all, and tells the programs that keep such things; those that the machine has not are passed over. */
    public void put() throws IOException {
        for (Written one : files) write(one);
        if (machine.kind() == Machine.Kind.LINUX) FileManagers.putActions(machine, Optional.of(launcher.toString()));
        for (List<String> command : put) machine.ask(command.toArray(String[]::new));
    }

    /** Takes all of it away; what somebody else wrote there stays. */
    public void away() throws IOException {
        for (List<String> command : away) machine.ask(command.toArray(String[]::new));
        for (Written one : files) {
            Files.deleteIfExists(one.file());
            deleteEmpty(one.file().getParent());
        }
        if (machine.kind() != Machine.Kind.LINUX) return;
        FileManagers.putActions(machine, Optional.empty());
        for (Path list : List.of(
                machine.config().resolve("mimeapps.list"), machine.data().resolve("applications/mimeapps.list")))
            LinuxFiles.forget(list);
    }

    /** Whether all of it is there as this companion writes it. */
    public boolean isThere() throws IOException {
        for (Written one : files) {
            if (!Files.exists(one.file()) || !Files.readString(one.file()).equals(one.text())) return false;
        }
        return true;
    }

    private static void write(Written one) throws IOException {
        Path folder = one.file().getParent();
        Files.createDirectories(folder);
        Path part = Files.createTempFile(folder, ".mint", ".part");
        try {
            Files.writeString(part, one.text(), StandardCharsets.UTF_8);
            if (Files.getFileStore(folder).supportsFileAttributeView("posix")) {
                Files.setPosixFilePermissions(
                        part, PosixFilePermissions.fromString(one.runs() ? "rwxr-xr-x" : "rw-r--r--"));
            }
            Files.move(part, one.file(), StandardCopyOption.REPLACE_EXISTING, StandardCopyOption.ATOMIC_MOVE);
        } finally {
            Files.deleteIfExists(part);
        }
    }

    /** A folder of ours that nothing is left in. */
    private static void deleteEmpty(Path folder) throws IOException {
        if (!folder.getFileName().toString().equals(FileManagers.MENU)) return;
        try (Stream<Path> left = Files.exists(folder) ? Files.list(folder) : Stream.empty()) {
            if (left.findAny().isPresent()) return;
        }
        Files.deleteIfExists(folder);
    }
}
