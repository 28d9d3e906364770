package mintshelf.companion;

import java.io.File;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
import java.util.Arrays;
import java.util.Objects;
import java.util.stream.Collectors;
import mintshelf.companion.machine.Machine;
import mintshelf.companion.machine.Quoted;

/** The program that starts the companion: the one that is installed, else one that is written for where it runs from now. */
final class Launcher {
    /** Set by the launcher that is installed: where it lies. */
    private static final String INSTALLED = "mintshelf.launcher";

    private Launcher() {}

    /** Where it lies; one is written where none is installed. */
    static Path of(Machine machine) throws IOException {
        boolean windows = machine.kind() == Machine.Kind.WINDOWS;
        String installed = System.getProperty(INSTALLED, "");
        Path file = machine.data().resolve("mint-shelf").resolve(windows ? "mint-shelf.cmd" : "mint-shelf");
        if (!installed.isEmpty() && !installed.equals(file.toString())) return Path.of(installed);
        String text = windows ? forWindows() : forShells(file);
        if (Files.exists(file) && Files.readString(file).equals(text)) return file;
        Files.createDirectories(file.getParent());
        Files.writeString(file, text);
        if (!windows) Files.setPosixFilePermissions(file, PosixFilePermissions.fromString("rwxr-xr-x"));
        return file;
    }

    private static String java() {
        return Path.of(System.getProperty("java.home"), "bin", "java").toString();
    }

    /** What Java was started with: it is started from anywhere. */
    private static String path() {
        return Arrays.stream(System.getProperty("java.class.path").split(File.pathSeparator))
                .map(entry -> Path.of(entry).toAbsolutePath().toString())
                .collect(Collectors.joining(File.pathSeparator));
    }

    /** Whether it runs from a jar as a program of its own, else from where the classes lie. */
    private static boolean isProgram() {
        // Within another jar it has no path of its own.
        return !String.valueOf(
                        Companion.class.getProtectionDomain().getCodeSource().getLocation())
                .startsWith("file:");
    }

    /** The same script that is installed, with other places. */
    static String forShells(Path file) throws IOException {
        try (InputStream in = Objects.requireNonNull(Launcher.class.getResourceAsStream("launcher.sh"))) {
            return new String(in.readAllBytes(), StandardCharsets.UTF_8)
                    .replace("java=java\n", "java=" + Quoted.shell(java()) + "\n")
                    .replace(
                            isProgram() ? "jar=/usr/share/mint-shelf/companion.jar\n" : "classes=\n",
                            (isProgram() ? "jar=" : "classes=") + Quoted.shell(path()) + "\n")
                    .replace("launcher=/usr/bin/mint-shelf\n", "launcher=" + Quoted.shell(file.toString()) + "\n");
        }
    }

    private static String forWindows() {
        String what = isProgram() ? "-jar \"" + path() + "\"" : "-cp \"" + path() + "\" " + Companion.class.getName();
        return "@\"" + java() + "\" -Xshare:auto -XX:TieredStopAtLevel=1 -XX:+UseSerialGC -Xmx512m " + what + " %*\r\n";
    }
}
