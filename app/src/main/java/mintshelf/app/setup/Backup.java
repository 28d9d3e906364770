package mintshelf.app.setup;

import java.io.File;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.net.URI;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.zip.GZIPInputStream;
import java.util.zip.GZIPOutputStream;

/**
 * Writes the whole database into one gzipped SQL file and reads it back, with MariaDB's own dump program. The dump is one
 * consistent picture (a single transaction) and does not stop the server.
 */
public final class Backup {
    private final String host;
    private final int port;
    private final String schema;
    private final String user;
    private final String password;

    /** @param url a JDBC address of MariaDB */
    public Backup(String url, String user, String password) {
        URI uri = URI.create(url.substring("jdbc:".length()));
        this.host = uri.getHost();
        this.port = uri.getPort() < 0 ? 3306 : uri.getPort();
        this.schema = uri.getPath().substring(1);
        this.user = user;
        this.password = password;
    }

    /** Writes the file under another name first, so that a broken run leaves no half backup. Gives its size in bytes. */
    public long write(Path file) throws IOException {
        Path part = file.resolveSibling(file.getFileName() + ".part");
        Process dump = start(
                ProcessBuilder.Redirect.PIPE,
                "mariadb-dump",
                "--single-transaction",
                "--hex-blob",
                "--triggers",
                "--quick",
                "--skip-comments",
                schema);
        try (OutputStream out = new GZIPOutputStream(Files.newOutputStream(part), 1 << 16);
                InputStream in = dump.getInputStream()) {
            in.transferTo(out);
        }
        finish(dump, "mariadb-dump");
        Files.move(part, file, StandardCopyOption.REPLACE_EXISTING);
        long size = Files.size(file);
        note(file, size);
        return size;
    }

    /** The page that says how the server runs tells of it. A database of an earlier release has no place for that yet. */
    private void note(Path file, long size) {
        String name = String.valueOf(file.getFileName()).replaceAll("[^\\w.-]", "_");
        String shown = name.length() > 200 ? name.substring(0, 200) : name;
        try {
            run("insert into `" + schema + "`.backup_taken (at, file_name, size) values (utc_timestamp(6), '" + shown
                    + "', " + size + ")");
        } catch (IOException e) {
            System.err.println("The backup is written; that it was could not be noted: " + e.getMessage());
        }
    }

    /** Replaces what the database holds by the backup. */
    public void restore(Path file) throws IOException {
        run("drop database if exists `" + schema + "`; create database `" + schema + "`");
        Process client = start(ProcessBuilder.Redirect.DISCARD, "mariadb", schema);
        try (InputStream in = new GZIPInputStream(Files.newInputStream(file), 1 << 16);
                OutputStream out = client.getOutputStream()) {
            in.transferTo(out);
        }
        finish(client, "mariadb");
    }

    private void run(String sql) throws IOException {
        Process client = start(ProcessBuilder.Redirect.DISCARD, "mariadb", "-e", sql);
        client.getOutputStream().close();
        finish(client, "mariadb");
    }

    private Process start(ProcessBuilder.Redirect output, String program, String... arguments) throws IOException {
        List<String> command = new ArrayList<>(List.of(
                program,
                "--no-defaults",
                "--protocol=tcp",
                "--host=" + host,
                "--port=" + port,
                "--user=" + user,
                "--max-allowed-packet=64M",
                "--default-character-set=utf8mb4"));
        command.addAll(List.of(arguments));
        ProcessBuilder builder = new ProcessBuilder(command).redirectOutput(output);
        Map<String, String> environment = builder.environment();
        environment.put("MYSQL_PWD", password); // not on the command line, where others on the machine read it
        File errors = File.createTempFile("mint-shelf-", ".log");
        errors.deleteOnExit();
        return builder.redirectError(ProcessBuilder.Redirect.appendTo(errors)).start();
    }

    private static void finish(Process process, String program) throws IOException {
        try {
            int status = process.waitFor();
            if (status != 0) throw new IOException(program + " ended with " + status);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new IOException(program + " was interrupted", e);
        }
    }
}
