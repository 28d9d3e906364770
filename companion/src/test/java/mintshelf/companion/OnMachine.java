package mintshelf.companion;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.io.PrintWriter;
import java.io.StringWriter;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import mintshelf.companion.machine.Machine;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.io.TempDir;
import picocli.CommandLine;

/** A machine of its own, whose programs only note what they are to open, with a desk that is paired and registered. */
abstract class OnMachine {
    @TempDir
    Path home;

    StubShelf shelf;
    Path folder;
    final Map<String, String> environment = new HashMap<>();
    StringWriter out = new StringWriter();
    StringWriter err = new StringWriter();

    @BeforeEach
    void begin() throws Exception {
        folder = Files.createDirectories(home.resolve("desk"));
        Path bin = Files.createDirectories(home.resolve("bin"));
        program(bin, "xdg-open", "printf '%s\\n' \"$1\" >> '" + home.resolve("opened") + "'");
        program(bin, "xdg-mime", "echo mint-shelf.desktop");
        environment.put("PATH", bin.toString());
        shelf = new StubShelf();
        assertThat(desk("pair", shelf.origin(), "4711", "--name", "bench")).isZero();
        assertThat(desk("register")).isZero();
        assertThat(opened(1)).hasSize(1);
        Files.deleteIfExists(home.resolve("opened"));
    }

    @AfterEach
    void stop() {
        shelf.close();
    }

    private static void program(Path bin, String name, String does) throws IOException {
        Path file = bin.resolve(name);
        Files.writeString(file, "#!/bin/sh\n" + does + "\n");
        Files.setPosixFilePermissions(file, PosixFilePermissions.fromString("rwxr-xr-x"));
    }

    Machine machine() {
        return new Machine(Machine.Kind.LINUX, home, environment);
    }

    /** A command of this desk. */
    int desk(String command, String... arguments) {
        List<String> all = new ArrayList<>(List.of(command));
        all.addAll(Arrays.asList(arguments));
        all.addAll(List.of("--desk", folder.toString()));
        return shelf(all.toArray(String[]::new));
    }

    /** A command that finds its desk by itself. */
    int shelf(String... arguments) {
        out = new StringWriter();
        err = new StringWriter();
        CommandLine line = Companion.commandLine(machine());
        line.setOut(new PrintWriter(out)).setErr(new PrintWriter(err));
        List<String> all = new ArrayList<>(List.of("desk"));
        all.addAll(Arrays.asList(arguments));
        return line.execute(all.toArray(String[]::new));
    }

    /** What was opened; programs are not waited for, so it may take a moment. */
    List<String> opened(int many) throws Exception {
        Path list = home.resolve("opened");
        if (many == 0) Thread.sleep(400); // whatever is opened against all expectation is, by then
        for (int i = 0; i < 100; i++) {
            List<String> lines = Files.exists(list) ? Files.readAllLines(list) : List.of();
            if (lines.size() >= many) return lines;
            Thread.sleep(50);
        }
        return Files.exists(list) ? Files.readAllLines(list) : List.of();
    }

    Path write(String path, String text) {
        try {
            Files.createDirectories(folder.resolve(path).getParent());
            return Files.writeString(folder.resolve(path), text);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    String read(String path) throws IOException {
        return Files.readString(folder.resolve(path));
    }
}
