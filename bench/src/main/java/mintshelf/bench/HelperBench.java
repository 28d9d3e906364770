package mintshelf.bench;

import java.io.IOException;
import java.io.PrintWriter;
import java.io.StringWriter;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
import java.time.Duration;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import mintshelf.app.Server;
import mintshelf.app.ground.Actor;
import mintshelf.app.store.desk.DeskLinkStore.Act;
import mintshelf.app.use.desk.DeskLinks;
import mintshelf.app.use.desk.Tokens;
import mintshelf.companion.Companion;
import mintshelf.companion.machine.Machine;
import picocli.CommandLine;

/** The companion on a machine: from a click to the open file, from a save to its notice, and what a watch costs that has nothing to do. */
final class HelperBench {
    private static final int FILES = 20_000;
    private static final int LARGE = 10 << 20;
    private static final int TRIES = 7;
    private static final int IDLE = 180; // seconds: once among them the whole desk is looked at

    private HelperBench() {}

    static void helper() {
        try {
            measure();
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }

    private static void measure() throws IOException, InterruptedException {
        Server server = Server.shared();
        Actor priya = server.actor("priya");
        long shelf = server.shelf();
        Path home = Files.createTempDirectory("mint-shelf-helper-");
        Path folder = Files.createDirectories(home.resolve("desk"));
        Path bin = Files.createDirectories(home.resolve("bin"));
        Path opened = home.resolve("opened");
        Path opener =
                Files.writeString(bin.resolve("xdg-open"), "#!/bin/sh\nprintf '%s\\n' \"$1\" >> '" + opened + "'\n");
        Files.setPosixFilePermissions(opener, PosixFilePermissions.fromString("rwxr-xr-x"));
        Map<String, String> environment = Map.of("PATH", bin + ":/usr/bin:/bin", "HOME", home.toString());
        Machine machine = new Machine(Machine.Kind.LINUX, home, environment);
        String desk = "bench " + Server.key().substring(0, 6);
        run(
                machine,
                "desk",
                "pair",
                server.origin(),
                server.bean(Tokens.class).code(priya),
                "--name",
                desk,
                "--desk",
                folder.toString());
        run(machine, "desk", "register", "--desk", folder.toString());
        for (int i = 0; i < FILES; i++) {
            Path file = folder.resolve("kept/" + i / 200 + "/file " + i + ".txt");
            Files.createDirectories(file.getParent());
            Files.writeString(file, "file " + i);
        }
        Path launcher = home.resolve(".local/share/mint-shelf/mint-shelf");
        Path log = home.resolve("log");
        double[] alone = clicks(server, priya, shelf, desk, launcher, environment, opened);
        Process watch = start(environment, log, launcher.toString(), "desk", "watch", "--all");
        try {
            await(() -> Files.exists(home.resolve(".local/share/mint-shelf/links/.watch")));
            Thread.sleep(15_000);
            double[] watched = clicks(server, priya, shelf, desk, launcher, environment, opened);
            Bench.say(
                    "from a click to the program that opens a file of 10 MB: median %.2f s with a watch, %.2f s without (asked: under 1)",
                    Bench.percentile(watched, 0.5), Bench.percentile(alone, 0.5));
            told(server, priya, shelf, desk, launcher, environment, folder, log, opened);
            Thread.sleep(15_000);
            Duration before = watch.toHandle().info().totalCpuDuration().orElseThrow();
            Thread.sleep(IDLE * 1_000L);
            Duration spent =
                    watch.toHandle().info().totalCpuDuration().orElseThrow().minus(before);
            long memory = Files.readAllLines(Path.of("/proc/" + watch.pid() + "/status")).stream()
                    .filter(l -> l.startsWith("VmRSS"))
                    .mapToLong(l -> Long.parseLong(l.replaceAll("\\D", "")))
                    .findFirst()
                    .orElseThrow();
            Bench.say(
                    "a watch over %d files that has nothing to do: %.2f %% of a core (asked: under 1), %d MB (asked: under 120)",
                    FILES, 100.0 * spent.toMillis() / (IDLE * 1_000), memory / 1_024);
        } finally {
            watch.destroy();
            watch.waitFor();
        }
    }

    /** Seconds from the link to the program, of files that are not here yet. */
    private static double[] clicks(
            Server server,
            Actor priya,
            long shelf,
            String desk,
            Path launcher,
            Map<String, String> environment,
            Path opened)
            throws IOException, InterruptedException {
        double[] all = new double[TRIES];
        for (int i = -2; i < TRIES; i++) {
            byte[] bytes = new byte[LARGE];
            new Random(i + System.nanoTime()).nextBytes(bytes);
            long item = server.file("priya", shelf, Server.PLAIN, "large " + Server.key() + ".bin", bytes, false);
            int before = lines(opened);
            String link = server.bean(DeskLinks.class)
                    .offer(priya, item, Optional.empty(), Act.WORK, desk)
                    .link();
            long start = System.nanoTime();
            start(environment, launcher.resolveSibling("out"), launcher.toString(), "desk", "open", link);
            await(() -> lines(opened) > before);
            if (i >= 0) all[i] = (System.nanoTime() - start) / 1e9;
        }
        return all;
    }

    private static void told(
            Server server,
            Actor priya,
            long shelf,
            String desk,
            Path launcher,
            Map<String, String> environment,
            Path folder,
            Path log,
            Path opened)
            throws IOException, InterruptedException {
        double[] all = new double[TRIES];
        for (int i = 0; i < TRIES; i++) {
            String name = "told " + Server.key() + ".txt";
            long item =
                    server.file("priya", shelf, Server.PLAIN, name, ("t" + i).getBytes(StandardCharsets.UTF_8), false);
            int before = lines(opened);
            String link = server.bean(DeskLinks.class)
                    .offer(priya, item, Optional.empty(), Act.WORK, desk)
                    .link();
            start(environment, launcher.resolveSibling("out"), launcher.toString(), "desk", "open", link);
            await(() -> lines(opened) > before);
            Thread.sleep(3_000);
            long saved = count(log);
            long start = System.nanoTime();
            Files.writeString(folder.resolve(server.shelfName(shelf)).resolve(name), "changed " + i);
            await(() -> count(log) > saved);
            all[i] = (System.nanoTime() - start) / 1e9;
        }
        Bench.say(
                "from a save to its notice, among %d files: median %.2f s, worst %.2f s (asked: within 2)",
                FILES, Bench.percentile(all, 0.5), Arrays.stream(all).max().orElseThrow());
    }

    private interface Question {
        boolean ask() throws IOException;
    }

    private static void await(Question question) throws IOException, InterruptedException {
        for (int i = 0; i < 6_000; i++) {
            if (question.ask()) return;
            Thread.sleep(5);
        }
        throw new IllegalStateException("It did not come.");
    }

    private static int lines(Path file) throws IOException {
        return Files.exists(file) ? Files.readAllLines(file).size() : 0;
    }

    private static long count(Path log) throws IOException {
        return Files.readAllLines(log).stream()
                .filter(l -> l.startsWith("saved  "))
                .count();
    }

    private static Process start(Map<String, String> environment, Path out, String... command) throws IOException {
        ProcessBuilder builder =
                new ProcessBuilder(command).redirectErrorStream(true).redirectOutput(out.toFile());
        builder.environment().clear();
        builder.environment().putAll(environment);
        return builder.start();
    }

    private static void run(Machine machine, String... arguments) {
        StringWriter said = new StringWriter();
        CommandLine line = Companion.commandLine(machine);
        line.setOut(new PrintWriter(said)).setErr(new PrintWriter(said));
        List<String> all = new ArrayList<>(List.of(arguments));
        if (line.execute(all.toArray(String[]::new)) != 0) throw new IllegalStateException(said.toString());
    }
}
