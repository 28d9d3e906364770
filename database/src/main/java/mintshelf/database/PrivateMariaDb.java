package mintshelf.database;

import java.io.IOException;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.nio.channels.FileChannel;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.SQLException;
import java.time.Duration;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.TimeUnit;
import java.util.function.Consumer;

/**
 * A MariaDB server of our own: own data folder, loopback only, free port, own socket, Debian's programs. A system service is
 * never touched.
 *
 * <p>A server that outlived its application (killed with -9) is found by its pid file and stopped before the next start, so that
 * two never share a data folder.
 */
public final class PrivateMariaDb implements AutoCloseable {
    /** How long a start may take; a recovery after a kill reads the whole redo log. */
    private static final Duration START = Duration.ofSeconds(120);

    private static final String USER = "mint";

    private final Path folder;
    private final Path sockets;
    private final int port;
    private final List<String> command;
    private final FileChannel lock;
    private volatile Process process;
    private volatile boolean closing;

    private PrivateMariaDb(Path folder, Path sockets, int port, List<String> command, FileChannel lock) {
        this.folder = folder;
        this.sockets = sockets;
        this.port = port;
        this.command = List.copyOf(command);
        this.lock = lock;
    }

    /** Where a server that runs for another application of ours on this folder is reached; empty when none does. */
    public static Optional<Address> running(Path folder) throws IOException {
        Path address = folder.resolve("address");
        if (!Files.exists(address)) return Optional.empty();
        FileChannel lock = lock(folder);
        if (lock != null) {
            lock.close();
            return Optional.empty();
        }
        List<String> lines = Files.readAllLines(address);
        return Optional.of(new Address(Integer.parseInt(lines.get(0)), Path.of(lines.get(1))));
    }

    /** Where a server listens. */
    public record Address(int port, Path socket) {}

    /** Null when another process has it: the lock ends with its process, however that ends. */
    private static FileChannel lock(Path folder) throws IOException {
        Files.createDirectories(folder);
        FileChannel channel =
                FileChannel.open(folder.resolve("lock"), StandardOpenOption.CREATE, StandardOpenOption.WRITE);
        if (channel.tryLock() != null) return channel;
        channel.close();
        return null;
    }

    /** How an instance is tuned. */
    public enum Durability {
        /** Every commit is on disk before it is answered. */
        FULL,
        /** For tests: the operating system decides when bytes reach the disk. A killed server loses nothing, a machine may. */
        RELAXED
    }

    /**
     * Installs (the first time) and starts a server on {@code folder}.
     *
     * @param bufferPool size of InnoDB's cache in MiB
     * @throws IOException when the programs are missing or the server does not answer; the message names its log
     */
    public static PrivateMariaDb start(Path folder, int bufferPool, Durability durability) throws IOException {
        Path data = folder.resolve("data");
        FileChannel lock = lock(folder);
        if (lock == null) throw new IOException("Another Mint Shelf uses " + folder + "; end that one first");
        Files.createDirectories(folder.resolve("tmp"));
        stopOrphan(folder);
        if (!Files.isDirectory(data.resolve("mysql"))) install(data, folder);
        // A socket's path stays under 108 characters, whatever the depth of the data folder.
        Path sockets = Files.createTempDirectory(Path.of("/tmp"), "mint-shelf-");
        int port = freePort();
        List<String> command = new ArrayList<>(List.of(
                "setsid", // Ctrl-C in the terminal ends the application, which then ends the server in order
                program("mariadbd"),
                "--no-defaults",
                "--user=" + System.getProperty("user.name"),
                "--datadir=" + data.toAbsolutePath(),
                "--tmpdir=" + folder.resolve("tmp").toAbsolutePath(),
                "--bind-address=127.0.0.1",
                "--port=" + port,
                "--socket=" + sockets.resolve("s"),
                "--pid-file=" + folder.resolve("pid").toAbsolutePath(),
                "--log-error=" + folder.resolve("error.log").toAbsolutePath(),
                "--skip-name-resolve",
                "--character-set-server=utf8mb4",
                "--collation-server=utf8mb4_uca1400_ai_ci",
                "--innodb-buffer-pool-size=" + bufferPool + "M",
                "--innodb-log-file-size=" + (durability == Durability.FULL ? "256M" : "96M"),
                "--innodb-flush-log-at-trx-commit=" + (durability == Durability.FULL ? 1 : 0),
                "--innodb-lock-wait-timeout=20",
                "--max-allowed-packet=64M",
                "--max-connections=200",
                "--default-time-zone=+00:00",
                "--innodb-ft-min-token-size=2",
                "--innodb-ft-enable-stopword=OFF",
                "--max-recursive-iterations=1000000",
                "--sql-mode=STRICT_TRANS_TABLES,ONLY_FULL_GROUP_BY,ERROR_FOR_DIVISION_BY_ZERO,NO_ENGINE_SUBSTITUTION"));
        PrivateMariaDb server = new PrivateMariaDb(folder, sockets, port, command, lock);
        server.launch();
        Files.write(
                folder.resolve("address"),
                List.of(Integer.toString(port), server.socket().toString()));
        server.awaitReady();
        server.grant();
        return server;
    }

    private void launch() throws IOException {
        process = new ProcessBuilder(command)
                .redirectErrorStream(true)
                .redirectOutput(folder.resolve("start.log").toFile())
                .start();
    }

    /** Starts in a row after which a server that dies again and again is left alone. */
    private static final int STARTS = 5;

    private static final Duration HEALTHY = Duration.ofMinutes(10);

    /**
     * From now on a server that dies, killed or for want of disk, is started again on the same port: at once, then after longer and
     * longer pauses, five times in a row at most.
     *
     * @param says is told each time, in a sentence
     */
    public void keepAlive(Consumer<String> says) {
        Thread watch = new Thread(() -> watch(says), "database");
        watch.setDaemon(true);
        watch.start();
    }

    private void watch(Consumer<String> says) {
        int starts = 0;
        while (!closing) {
            long since = System.nanoTime();
            int status;
            try {
                status = process.waitFor();
            } catch (InterruptedException e) {
                Thread.currentThread().interrupt();
                return;
            }
            if (closing) return;
            if (System.nanoTime() - since > HEALTHY.toNanos()) starts = 0;
            if (++starts > STARTS) {
                says.accept("The database ended " + STARTS + " times in a row; it is not started again. Its log is "
                        + folder.resolve("error.log"));
                return;
            }
            says.accept(
                    "The database ended with " + status + "; it is started again (" + starts + " of " + STARTS + ")");
            sleep((starts - 1) * 3_000L);
            try {
                Files.deleteIfExists(folder.resolve("pid"));
                Files.deleteIfExists(sockets.resolve("s"));
                launch();
                awaitReady();
                says.accept("The database answers again");
            } catch (IOException e) {
                says.accept(e.getMessage());
            }
        }
    }

    /** Whole or not at all: what breaks off leaves no data folder that looks installed. */
    private static void install(Path data, Path folder) throws IOException {
        Path half = folder.resolve("data.half");
        deleteTree(half);
        run(
                Duration.ofMinutes(2),
                folder.resolve("install.log"),
                program("mariadb-install-db"),
                "--no-defaults",
                "--user=" + System.getProperty("user.name"),
                "--datadir=" + half.toAbsolutePath(),
                // In a shared one, another server that starts at this moment clears away what this one writes there.
                "--tmpdir=" + folder.resolve("tmp").toAbsolutePath(),
                "--auth-root-authentication-method=socket",
                "--skip-test-db",
                "--skip-name-resolve");
        Files.move(half, data);
    }

    private void awaitReady() throws IOException {
        long until = System.nanoTime() + START.toNanos();
        while (System.nanoTime() < until) {
            if (!process.isAlive() && !Files.exists(folder.resolve("pid"))) break;
            if (Files.exists(sockets.resolve("s")) && query("select 1")) return;
            sleep(50);
        }
        throw new IOException("MariaDB did not start; its log is " + folder.resolve("error.log"));
    }

    private void grant() throws IOException {
        if (!query("create user if not exists " + USER + "@127.0.0.1 identified by '" + USER + "';"
                + "grant all on `mint%`.* to " + USER + "@127.0.0.1")) {
            throw new IOException("The database user could not be made; the log is " + folder.resolve("error.log"));
        }
    }

    private boolean query(String sql) throws IOException {
        return run(
                        Duration.ofSeconds(20),
                        folder.resolve("client.log"),
                        false,
                        program("mariadb"),
                        "--no-defaults",
                        "--socket=" + sockets.resolve("s"),
                        "--default-character-set=utf8mb4",
                        "-e",
                        sql)
                == 0;
    }

    /** The JDBC address of the schema {@code name} (its name starts with "mint"); it is made when it is missing. */
    public String url(String name) {
        return url(port, name);
    }

    /** As {@link #url(String)}, for a server on a known port. */
    public static String url(int port, String name) {
        return "jdbc:mariadb://127.0.0.1:" + port + "/" + name
                + "?createDatabaseIfNotExist=true&useServerPrepStmts=true&useBulkStmts=true";
    }

    public String user() {
        return USER;
    }

    /** Signs in over loopback only; the port is closed to the outside by the bind address. */
    public String password() {
        return USER;
    }

    public int port() {
        return port;
    }

    public Path socket() {
        return sockets.resolve("s");
    }

    /** The process id of the server, for tests that kill it. */
    public long pid() throws IOException {
        return pidOf(folder).orElseThrow(() -> new IOException("no pid file"));
    }

    /** A connection to the schema {@code name}. */
    public Connection connect(String name) throws SQLException {
        return DriverManager.getConnection(url(name), USER, USER);
    }

    /** Ends the server in order and waits for it; at most 30 seconds, then by force. */
    @Override
    public void close() {
        closing = true;
        try {
            stopOrphan(folder);
        } catch (IOException e) {
            process.destroyForcibly();
        }
        deleteTree(sockets);
        try {
            lock.close();
        } catch (IOException e) {
            // The lock ends with the process at the latest.
        }
    }

    private static void stopOrphan(Path folder) throws IOException {
        Optional<ProcessHandle> orphan =
                pidOf(folder).flatMap(ProcessHandle::of).filter(PrivateMariaDb::isServer);
        if (orphan.isPresent()) {
            orphan.get().destroy();
            try {
                orphan.get().onExit().get(30, TimeUnit.SECONDS);
            } catch (Exception e) {
                if (e instanceof InterruptedException) Thread.currentThread().interrupt();
                orphan.get().destroyForcibly();
            }
        }
        Files.deleteIfExists(folder.resolve("pid"));
    }

    private static boolean isServer(ProcessHandle handle) {
        return handle.info().command().map(c -> c.contains("mariadbd")).orElse(false);
    }

    private static Optional<Long> pidOf(Path folder) throws IOException {
        Path file = folder.resolve("pid");
        if (!Files.exists(file)) return Optional.empty();
        String text = Files.readString(file).trim();
        return text.matches("\\d+") ? Optional.of(Long.parseLong(text)) : Optional.empty();
    }

    private static void run(Duration limit, Path log, String... command) throws IOException {
        int status = run(limit, log, true, command);
        if (status != 0) throw new IOException(command[0] + " ended with " + status + "; its words are in " + log);
    }

    private static int run(Duration limit, Path log, boolean keep, String... command) throws IOException {
        ProcessBuilder builder = new ProcessBuilder(command).redirectErrorStream(true);
        if (keep) builder.redirectOutput(log.toFile());
        else builder.redirectOutput(ProcessBuilder.Redirect.DISCARD);
        Process process = builder.start();
        try {
            if (!process.waitFor(limit.toMillis(), TimeUnit.MILLISECONDS)) process.destroyForcibly();
            return process.waitFor();
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            process.destroyForcibly();
            return -1;
        }
    }

    /** Where Debian put a program; its server lies in a folder that not every PATH names. */
    private static String program(String name) throws IOException {
        for (String place : List.of("/usr/bin/", "/usr/sbin/", "/usr/local/bin/")) {
            if (Files.isExecutable(Path.of(place + name))) return place + name;
        }
        throw new IOException(name + " is not installed (Debian packages mariadb-server-core and mariadb-client-core)");
    }

    private static int freePort() throws IOException {
        try (ServerSocket socket = new ServerSocket(0, 1, InetAddress.getLoopbackAddress())) {
            return socket.getLocalPort();
        }
    }

    private static void sleep(long millis) {
        try {
            Thread.sleep(millis);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }

    /** Deletes a folder with all that is in it; what cannot be deleted stays. */
    public static void deleteTree(Path folder) {
        if (!Files.exists(folder)) return;
        try (var all = Files.walk(folder)) {
            for (Path path : all.sorted(Comparator.reverseOrder()).toList()) Files.deleteIfExists(path);
        } catch (IOException e) {
            // Left-overs of a temporary folder disturb nobody.
        }
    }
}
