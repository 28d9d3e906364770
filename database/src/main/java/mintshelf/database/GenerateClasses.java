package mintshelf.database;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.MessageDigest;
import java.util.HexFormat;
import java.util.List;
import java.util.logging.Level;
import java.util.logging.Logger;
import org.flywaydb.core.Flyway;
import org.jooq.codegen.GenerationTool;
import org.jooq.meta.jaxb.Configuration;
import org.jooq.meta.jaxb.Database;
import org.jooq.meta.jaxb.ForcedType;
import org.jooq.meta.jaxb.Generate;
import org.jooq.meta.jaxb.Generator;
import org.jooq.meta.jaxb.Jdbc;
import org.jooq.meta.jaxb.Logging;
import org.jooq.meta.jaxb.Target;

/**
 * Build step: runs the migrations on a private instance and writes the jOOQ classes of the schema that they make. Skipped while
 * the migrations are the ones that the classes were made from.
 */
public final class GenerateClasses {
    private GenerateClasses() {}

    /** Arguments: the folder of the migrations, the folder for the classes, where an earlier build has put its copies. */
    public static void main(String[] arguments) throws Exception {
        Logger.getLogger("org.flywaydb").setLevel(Level.WARNING);
        Path migrations = Path.of(arguments[0]);
        Path target = Path.of(arguments[1]);
        Path stamp = target.resolve("made-from.txt");
        String hash = hash(migrations);
        if (Files.exists(stamp) && Files.readString(stamp).equals(hash)) return;
        Path folder = Files.createTempDirectory("mint-shelf-generate-");
        try (PrivateMariaDb server = PrivateMariaDb.start(folder, 64, PrivateMariaDb.Durability.RELAXED)) {
            Flyway.configure()
                    .dataSource(server.url("mint_generate"), server.user(), server.password())
                    .locations("filesystem:" + migrations)
                    .load()
                    .migrate();
            PrivateMariaDb.deleteTree(target);
            // A migration that is not there any more is done by nobody: what was built before this has its copy still.
            PrivateMariaDb.deleteTree(Path.of(arguments[2]));
            generate(server, target);
            Files.writeString(stamp, hash);
        } finally {
            PrivateMariaDb.deleteTree(folder);
        }
    }

    private static void generate(PrivateMariaDb server, Path target) throws Exception {
        GenerationTool.generate(new Configuration()
                .withLogging(Logging.WARN)
                .withJdbc(new Jdbc()
                        .withUrl(server.url("mint_generate"))
                        .withUser(server.user())
                        .withPassword(server.password()))
                .withGenerator(new Generator()
                        .withDatabase(new Database()
                                .withName("org.jooq.meta.mariadb.MariaDBDatabase")
                                .withInputSchema("mint_generate")
                                .withOutputSchemaToDefault(true)
                                .withExcludes("flyway_schema_history|SPRING_SESSION.*")
                                .withForcedTypes(
                                        new ForcedType().withName("BOOLEAN").withIncludeTypes("(?i:TINYINT\\(1\\))")))
                        .withGenerate(new Generate()
                                .withRecords(true)
                                .withKeys(true)
                                .withGlobalObjectReferences(true)
                                .withJavadoc(false)
                                .withComments(false)
                                .withImplicitJoinPathsToOne(false)
                                .withImplicitJoinPathsToMany(false))
                        .withTarget(new Target()
                                .withPackageName("mintshelf.database.schema")
                                .withDirectory(target.toString()))));
    }

    private static String hash(Path migrations) throws Exception {
        MessageDigest digest = MessageDigest.getInstance("SHA-256");
        List<Path> files;
        try (var all = Files.walk(migrations)) {
            files = all.filter(Files::isRegularFile).sorted().toList();
        }
        for (Path file : files) {
            digest.update(file.getFileName().toString().getBytes(StandardCharsets.UTF_8));
            digest.update(read(file));
        }
        return HexFormat.of().formatHex(digest.digest());
    }

    private static byte[] read(Path file) {
        try {
            return Files.readAllBytes(file);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }
}
