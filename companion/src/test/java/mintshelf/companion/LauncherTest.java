package mintshelf.companion;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
import java.util.Map;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.Test;

/** The script that starts the companion, run by a real shell. */
class LauncherTest extends OnMachine {
    /** Runs the launcher as it is installed, with a Java that notes what it is asked. */
    private String run(String... arguments) throws Exception {
        Path noted = home.resolve("noted");
        Files.deleteIfExists(noted);
        Path bin = Files.createDirectories(home.resolve("fake"));
        Path java = Files.writeString(bin.resolve("java"), "#!/bin/sh\nprintf '%s|' \"$@\" > '" + noted + "'\n");
        Files.setPosixFilePermissions(java, PosixFilePermissions.fromString("rwxr-xr-x"));
        Path script = home.resolve("mint-shelf");
        try (var in = Launcher.class.getResourceAsStream("launcher.sh")) {
            Files.write(script, in.readAllBytes());
        }
        String[] command = new String[arguments.length + 2];
        command[0] = "sh";
        command[1] = script.toString();
        System.arraycopy(arguments, 0, command, 2, arguments.length);
        ProcessBuilder builder = new ProcessBuilder(command);
        builder.environment().putAll(Map.of("PATH", bin + ":/usr/bin:/bin", "HOME", home.toString()));
        builder.environment().remove("XDG_DATA_HOME");
        assertThat(builder.start().waitFor(10, TimeUnit.SECONDS)).isTrue();
        return Files.exists(noted) ? Files.readString(noted) : "not started";
    }

    @Test
    void commandsAreHandedOverAsTheyAreAndAWatchStaysSmall() throws Exception {
        assertThat(run("desk", "act", "look", "--", "gland plate.dxf"))
                .contains(
                        "-Xmx512m|", "-Dmintshelf.launcher=/usr/bin/mint-shelf|", "|desk|act|look|--|gland plate.dxf|");
        assertThat(run("desk", "watch", "--all")).contains("-Xmx80m|");
    }

    @Test
    void aLinkGoesToTheWatchThatRunsAndElseStartsItsOwnProgram() throws Exception {
        String link = shelf.link(
                1, shelf.add(1, "TG40-3030", "TG40/gland.dxf", "gland").versions.size(), "look");
        assertThat(run("desk", "open", link)).contains("|desk|open|" + link + "|");
        try (LinkBox box = LinkBox.open(machine())) {
            assertThat(run("desk", "open", link)).isEqualTo("not started");
            assertThat(box.taken()).containsExactly(link);
            assertThat(box.taken()).as("once").isEmpty();
        }
        assertThat(run("desk", "open", link)).as("no watch runs any more").contains("|desk|open|");
        Path sign = home.resolve(".local/share/mint-shelf/links/.watch");
        Files.writeString(sign, "999999999");
        assertThat(run("desk", "open", link)).as("one that was killed").contains("|desk|open|");
    }

    @Test
    void theWatchOpensWhatLiesInTheBox() throws Exception {
        shelf.add(1, "TG40-3030", "TG40/gland.dxf", "gland");
        String link = shelf.link(1, 1, "work");
        Path links = Files.createDirectories(home.resolve(".local/share/mint-shelf/links"));
        Files.writeString(links.resolve("1.link"), link);
        Files.writeString(links.resolve("2.link"), "x".repeat(5_000));
        Files.writeString(links.resolve("3.link"), "mint-shelf:open/0123456789abcdef/../../etc");
        assertThat(shelf("watch", "--all", "--seconds", "2")).isZero();
        assertThat(folder.resolve("TG40/gland.dxf")).hasContent("gland");
        assertThat(opened(1)).containsExactly(folder.resolve("TG40/gland.dxf").toString());
        assertThat(out.toString()).contains("you hold it now", "That is no link of Mint Shelf");
        try (var left = Files.list(links)) {
            assertThat(left).isEmpty();
        }
    }

    @Test
    void whereNoneIsInstalledTheSameScriptIsWritten() throws Exception {
        Path file = home.resolve(".local/share/mint-shelf/mint-shelf");
        assertThat(file).exists();
        assertThat(Files.isExecutable(file)).isTrue();
        assertThat(Files.readString(file, StandardCharsets.UTF_8))
                .contains(System.getProperty("java.home"), "launcher='" + file + "'")
                .containsPattern("\nclasses='/[^']+'\n");
        Process started = new ProcessBuilder(file.toString(), "desk", "--help").start();
        assertThat(new String(started.getInputStream().readAllBytes(), StandardCharsets.UTF_8))
                .as("it does start it")
                .contains("mint-shelf desk");
        assertThat(started.waitFor()).isZero();
    }
}
