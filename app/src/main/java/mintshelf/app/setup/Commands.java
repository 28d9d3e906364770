package mintshelf.app.setup;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import mintshelf.app.MintShelf;
import mintshelf.app.use.person.People;
import mintshelf.app.use.record.VerifyExport;
import mintshelf.app.use.verify.Verify;
import mintshelf.database.PrivateMariaDb;
import org.springframework.boot.SpringApplication;
import org.springframework.context.ConfigurableApplicationContext;

/**
 * What {@code ./shelf} asks of the application. Exit status 0 = done, 1 = the answer is "no", 2 = wrong call, 3 = could not be
 * read or written.
 */
public final class Commands {
    private static final String SCHEMA = "mint_shelf";

    private Commands() {}

    /** A database to work on: an external one, our own that runs, or our own that was started for this. */
    private record Target(String url, String user, String password, Optional<PrivateMariaDb> own)
            implements AutoCloseable {
        @Override
        public void close() {
            own.ifPresent(PrivateMariaDb::close);
        }
    }

    /** Runs a command; {@code serve} returns when the server ends. */
    public static int run(String[] arguments) {
        String command = arguments.length == 0 ? "serve" : arguments[0];
        List<String> rest = Arrays.asList(arguments).subList(Math.min(1, arguments.length), arguments.length);
        try {
            return switch (command) {
                case "serve" -> serve(rest);
                case "verify" ->
                    rest.size() <= 1 ? verify(rest.stream().findFirst().map(Path::of)) : usage();
                case "backup", "restore" -> rest.size() == 1 ? backupOrRestore(command, Path.of(rest.get(0))) : usage();
                default -> usage();
            };
        } catch (IOException e) {
            System.err.println(e.getMessage());
            return 3;
        }
    }

    private static int usage() {
        System.err.println("serve | verify [EXPORT] | backup FILE | restore FILE");
        return 2;
    }

    private static Path folder() {
        return Path.of(Optional.ofNullable(System.getenv("MINT_SHELF_HOME")).orElse(".run/serve"))
                .toAbsolutePath();
    }

    private static Target target(boolean start) throws IOException {
        String url = System.getenv("MINT_SHELF_DB_URL");
        if (url != null) {
            return new Target(
                    url,
                    Optional.ofNullable(System.getenv("MINT_SHELF_DB_USER")).orElse("mint"),
                    Optional.ofNullable(System.getenv("MINT_SHELF_DB_PASSWORD")).orElse(""),
                    Optional.empty());
        }
        Path database = folder().resolve("db");
        Optional<PrivateMariaDb.Address> running = PrivateMariaDb.running(database);
        if (running.isPresent()) {
            if (start) throw new IOException("Another Mint Shelf uses " + database + "; end that one first");
            return new Target(PrivateMariaDb.url(running.get().port(), SCHEMA), "mint", "mint", Optional.empty());
        }
        PrivateMariaDb own = PrivateMariaDb.start(database, 512, PrivateMariaDb.Durability.FULL);
        return new Target(own.url(SCHEMA), own.user(), own.password(), Optional.of(own));
    }

    private static int serve(List<String> arguments) throws IOException {
        Target target = target(true);
        SpringApplication application = new SpringApplication(MintShelf.class);
        application.setDefaultProperties(properties(target));
        target.own().ifPresent(own -> own.keepAlive(System.err::println));
        // After the application has closed: its last statements still find the database.
        SpringApplication.getShutdownHandlers().add(target::close);
        ConfigurableApplicationContext context = application.run(arguments.toArray(String[]::new));
        System.out.println("Mint Shelf answers on http://localhost:"
                + context.getEnvironment().getProperty("local.server.port"));
        context.getBean(People.class)
                .firstCode()
                .ifPresent(code -> System.out.println("Nobody keeps it yet. Who begins needs this code: " + code));
        waitFor(context);
        return 0;
    }

    /** Keeps the calling thread until the application closes. */
    public static void waitFor(ConfigurableApplicationContext context) {
        try {
            while (context.isActive()) Thread.sleep(500);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }

    private static Map<String, Object> properties(Target target) {
        Map<String, Object> properties = new HashMap<>();
        properties.put("spring.datasource.url", target.url());
        properties.put("spring.datasource.username", target.user());
        properties.put("spring.datasource.password", target.password());
        if (target.own().isPresent()) properties.put("mint-shelf.database-folder", folder().toString());
        properties.put("mint-shelf.index-folder", folder().resolve("index").toString());
        return properties;
    }

    /** @param export of the record, taken earlier: whether anything was rewritten since is asked besides */
    private static int verify(Optional<Path> export) throws IOException {
        if (export.isPresent() && !Files.isReadable(export.get()))
            throw new IOException(export.get() + " cannot be read");
        try (Target target = target(false)) {
            SpringApplication application = new SpringApplication(MintShelf.class);
            application.setDefaultProperties(properties(target));
            application.setLogStartupInfo(false);
            try (ConfigurableApplicationContext context = application.run("--server.port=-1")) { // listens nowhere
                Verify.Findings findings = context.getBean(Verify.class).verify();
                findings.problems().forEach(System.out::println);
                System.out.println(findings.says());
                if (export.isEmpty()) return findings.problems().isEmpty() ? 0 : 1;
                VerifyExport.Findings earlier =
                        context.getBean(VerifyExport.class).verify(export.get());
                earlier.problems().forEach(System.out::println);
                System.out.println(earlier.says());
                return findings.problems().isEmpty() && earlier.wrong() == 0 ? 0 : 1;
            }
        }
    }

    private static int backupOrRestore(String command, Path file) throws IOException {
        if (command.equals("restore") && !Files.isReadable(file)) throw new IOException(file + " cannot be read");
        try (Target target = target(false)) {
            Backup backup = new Backup(target.url(), target.user(), target.password());
            if (command.equals("backup")) {
                System.out.println(file + ": " + backup.write(file) + " bytes");
            } else {
                backup.restore(file);
                System.out.println(file + " is restored; ./shelf verify checks it.");
            }
            return 0;
        }
    }
}
