package mintshelf.demo;

import com.icegreen.greenmail.util.GreenMail;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import javax.sql.DataSource;
import mintshelf.app.setup.Commands;
import mintshelf.app.setup.OlderForm;
import mintshelf.app.store.search.NodeIndex;
import mintshelf.database.PrivateMariaDb;
import mintshelf.demo.practice.StandInEditor;
import mintshelf.standin.OpenIdProvider;
import org.jooq.DSLContext;
import org.jooq.impl.DSL;
import org.springframework.boot.SpringApplication;
import org.springframework.context.ConfigurableApplicationContext;

/** {@code ./shelf demo}, {@code shot} and {@code screenshots}. */
public final class Demo {
    /** Of the demo that was asked for: the small one and the large one do not know each other. */
    private static Path folder = Path.of(".run/demo").toAbsolutePath();

    private static final String SCHEMA = "mint_shelf";

    private Demo() {}

    /** Exit status 0 = done, 2 = wrong call, 3 = could not be read or written. */
    public static void main(String[] arguments) throws Exception {
        List<String> words = new ArrayList<>(Arrays.asList(arguments));
        String command = words.isEmpty() ? "demo" : words.remove(0);
        if (words.contains("--large")) folder = Path.of(".run/large").toAbsolutePath();
        try {
            switch (command) {
                case "demo" -> demo(words);
                case "shot" -> shot(words);
                case "screenshots" -> Pictures.refresh(origin());
                case "editor" -> StandInEditor.run(Path.of(words.isEmpty() ? "" : words.get(0)));
                default -> System.exit(2);
            }
        } catch (IOException e) {
            System.err.println(e.getMessage());
            System.exit(3);
        }
    }

    private static String option(List<String> words, String name, String otherwise) {
        int at = words.indexOf(name);
        return at < 0 || at + 1 >= words.size() ? otherwise : words.get(at + 1);
    }

    private static String origin() throws IOException {
        Path file = folder.resolve("origin");
        if (!Files.exists(file)) throw new IOException("The demo does not run; start it with ./shelf demo");
        return Files.readString(file).strip();
    }

    private static PrivateMariaDb database() throws IOException {
        Files.createDirectories(folder);
        return PrivateMariaDb.start(
                folder.resolve("db"), folder.endsWith("large") ? 768 : 256, PrivateMariaDb.Durability.FULL);
    }

    private static void demo(List<String> words) throws IOException {
        if (PrivateMariaDb.running(folder.resolve("db")).isPresent()) {
            throw new IOException("The demo runs already, on " + origin());
        }
        if (words.contains("--fresh")) PrivateMariaDb.deleteTree(folder);
        Steps.begin("Database");
        PrivateMariaDb database = database();
        if (OlderForm.isThatOf(database.url(SCHEMA), database.user(), database.password())) {
            System.out.println("The demo's database was made by an earlier Mint Shelf; it is made anew.");
            database.close();
            PrivateMariaDb.deleteTree(folder);
            database = database();
        }
        Steps.end("");
        database.keepAlive(System.err::println);
        Map<String, Object> properties = new HashMap<>();
        properties.put("mint-shelf.database-folder", folder.toString());
        properties.put("mint-shelf.index-folder", folder.resolve("index").toString());
        properties.put("spring.datasource.url", database.url(SCHEMA));
        properties.put("spring.datasource.username", database.user());
        properties.put("spring.datasource.password", database.password());
        properties.put("mint-shelf.demo", "true");
        String port = option(words, "--port", "8040");
        GreenMail mail = PostTray.open();
        properties.put("spring.mail.host", "127.0.0.1");
        properties.put("spring.mail.port", mail.getSmtp().getPort());
        properties.put("mint-shelf.origin", "http://localhost:" + port);
        properties.put("mint-shelf.mail-from", "shelf@ebbcote.example");
        properties.put("mint-shelf.zone", Scenario.ZONE.getId());
        OpenIdProvider signOn = Cast.signOn();
        properties.put("mint-shelf.sign-on.issuer", signOn.issuer());
        properties.put("mint-shelf.sign-on.client", OpenIdProvider.CLIENT);
        properties.put("mint-shelf.sign-on.secret", OpenIdProvider.SECRET);
        properties.put("mint-shelf.sign-on.name", "Harbour sign-on");
        SpringApplication application = new SpringApplication(DemoApplication.class);
        application.setDefaultProperties(properties);
        application.setLogStartupInfo(false);
        SpringApplication.getShutdownHandlers().add(database::close);
        SpringApplication.getShutdownHandlers().add(mail::stop);
        SpringApplication.getShutdownHandlers().add(signOn::close);
        Steps.begin("Application");
        ConfigurableApplicationContext context = application.run("--server.port=" + port, "--server.address=127.0.0.1");
        Steps.end("");
        String origin = "http://localhost:" + context.getEnvironment().getProperty("local.server.port");
        if (words.contains("--large")) large(context);
        Files.writeString(folder.resolve("origin"), origin);
        System.out.println("\nMint Shelf's demo answers on " + origin);
        System.out.println("Sign in as one of these, password " + Cast.PASSWORD + ":");
        Cast.ALL.forEach(p -> System.out.printf("  %-10s %-19s %s%n", p.login(), p.name(), p.does()));
        System.out.println("What Mint Shelf mails arrives in the post tray: " + origin + "/post-tray");
        System.out.println("Ctrl-C ends it; what you did stays until ./shelf demo --fresh.");
        Commands.waitFor(context);
    }

    /** A hundred thousand documents of a million versions beside the story, where they are not there yet. */
    private static void large(ConfigurableApplicationContext context) {
        if (context.getBean(DSLContext.class).fetchCount(DSL.table("item")) >= Large.DOCUMENTS) return;
        Steps.begin("A hundred thousand documents, a million versions");
        Large.build(context.getBean(DataSource.class), Large.DOCUMENTS);
        Steps.end("");
        Steps.begin("Their index");
        context.getBean(NodeIndex.class).rebuild();
        Steps.end("");
    }

    private static void shot(List<String> words) throws IOException {
        if (words.size() < 2) {
            System.err.println("shot PATH OUT.png [--as LOGIN] [--size 1280x800] [--dark] [--do SCRIPT]…");
            System.exit(2);
        }
        String[] size = option(words, "--size", "1280x800").split("x");
        List<String> steps = new ArrayList<>();
        for (int i = 2; i + 1 < words.size(); i++) if (words.get(i).equals("--do")) steps.add(words.get(i + 1));
        try (Shots shots = new Shots(origin())) {
            shots.signIn(option(words, "--as", "priya"));
            shots.shot(
                    words.get(0),
                    Path.of(words.get(1)),
                    Integer.parseInt(size[0]),
                    Integer.parseInt(size[1]),
                    words.contains("--dark"),
                    steps);
        }
    }
}
