package mintshelf.companion;

import java.io.IOException;
import java.net.URISyntaxException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
import mintshelf.companion.machine.Machine;

/** The program that starts the companion: the one that is installed, else one that is written for where it runs from now. */
final class Launcher {
    /** Set by launchers that are installed: where they lie. */
    static final String INSTALLED = "mintshelf.launcher";

    private Launcher() {}

    static Path of(Machine machine) throws IOException {
        String installed = System.getProperty(INSTALLED, "");
        if (!installed.isEmpty()) return Path.of(installed);
        boolean windows = machine.kind() == Machine.Kind.WINDOWS;
        Path file = machine.data().resolve("mint-shelf").resolve(windows ? "mint-shelf.cmd" : "mint-shelf");
        Files.createDirectories(file.getParent());
        Files.writeString(file, windows ? forWindows() : forShells());
        if (!windows) Files.setPosixFilePermissions(file, PosixFilePermissions.fromString("rwxr-xr-x"));
        return file;
    }

    private static String java() {
        return Path.of(System.getProperty("java.home"), "bin", "java").toString();
    }

    /** From a jar as a program of its own; else from where the classes lie. */
    private static String what() {
        try {
            Path from = Path.of(Companion.class
                    .getProtectionDomain()
                    .getCodeSource()
                    .getLocation()
                    .toURI());
            if (Files.isRegularFile(from))
                return "-cp \"" + System.getProperty("java.class.path") + "\" " + Companion.class.getName();
        } catch (URISyntaxException | RuntimeException e) {
            // It runs from within another jar: its class path says from which.
            return "-jar \"" + System.getProperty("java.class.path") + "\"";
        }
        return "-cp \"" + System.getProperty("java.class.path") + "\" " + Companion.class.getName();
    }

    private static final String OPTIONS = "-Xshare:auto -XX:TieredStopAtLevel=1 -XX:+UseSerialGC -Xmx96m";

    private static String forShells() {
        return "#!/bin/sh\nexec \"" + java() + "\" " + OPTIONS + " " + what() + " \"$@\"\n";
    }

    private static String forWindows() {
        return "@\"" + java() + "\" " + OPTIONS + " " + what() + " %*\r\n";
    }
}
