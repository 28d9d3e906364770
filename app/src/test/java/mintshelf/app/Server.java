package mintshelf.app;

import com.icegreen.greenmail.util.GreenMail;
import com.icegreen.greenmail.util.ServerSetup;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.TreeMap;
import java.util.UUID;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.atomic.AtomicInteger;
import mintshelf.app.ground.Actor;
import mintshelf.app.store.content.ContentStore;
import mintshelf.app.store.content.StoredContent;
import mintshelf.app.store.document.SpineStore;
import mintshelf.app.store.filing.FilingStore;
import mintshelf.app.store.house.CheckRuleStore;
import mintshelf.app.store.house.HouseStore;
import mintshelf.app.store.house.Kind;
import mintshelf.app.store.house.RouteStore;
import mintshelf.app.store.person.GrantStore;
import mintshelf.app.store.person.PersonStore;
import mintshelf.app.store.shelf.ShelfStore;
import mintshelf.app.use.content.ReceiveContent;
import mintshelf.app.use.filing.FileDocuments;
import mintshelf.app.use.filing.FilingSheets;
import mintshelf.app.use.hold.CheckIn;
import mintshelf.app.use.hold.CheckOut;
import mintshelf.app.use.mail.SendMail;
import mintshelf.app.use.revision.MoveDocument;
import mintshelf.app.use.shelf.ReadShelf;
import mintshelf.core.access.Scope;
import mintshelf.core.document.Document;
import mintshelf.core.drawing.check.CheckRules;
import mintshelf.core.hold.Became;
import mintshelf.database.PrivateMariaDb;
import mintshelf.database.schema.Tables;
import org.jooq.DSLContext;
import org.springframework.boot.SpringApplication;
import org.springframework.context.ConfigurableApplicationContext;
import org.springframework.core.env.MapPropertySource;
import org.springframework.security.crypto.bcrypt.BCryptPasswordEncoder;

/**
 * The real application on a real database, started once for all test classes; each asks for a schema of its own where it needs
 * one. People of the tests: a data manager, two designers, a checker, a reader.
 */
public final class Server {
    /** Code of the tests' own kind, on the route *Straight*. */
    public static final String PLAIN = "plain-drawing";

    public static final String PASSWORD = "quiet harbour 18";
    private static final AtomicInteger SCHEMAS = new AtomicInteger();
    private static PrivateMariaDb database;
    private static Server shared;
    private static GreenMail mail;

    private final ConfigurableApplicationContext context;
    private final String schema;
    private final Map<String, Long> people = new HashMap<>();
    private final Map<String, Long> ids = new ConcurrentHashMap<>();

    private Server(ConfigurableApplicationContext context, String schema) {
        this.context = context;
        this.schema = schema;
    }

    /** The server that most tests share, with its people. */
    public static synchronized Server shared() {
        if (shared == null) {
            shared = start(newSchema());
            shared.addPeople();
        }
        return shared;
    }

    /** A server on an empty schema of its own. */
    public static synchronized Server empty() {
        return start(newSchema());
    }

    /** A server on a schema that is there. */
    public static synchronized Server on(String schema) {
        return start(schema);
    }

    /** A second node on the same schema. */
    public Server secondNode() {
        Server node = start(schema);
        node.people.putAll(people);
        return node;
    }

    public static synchronized PrivateMariaDb database() {
        if (database != null) return database;
        try {
            Path folder = Files.createTempDirectory("mint-shelf-tests-");
            database = PrivateMariaDb.start(
                    folder, 256, PrivateMariaDb.Durability.valueOf(System.getProperty("mint.durability", "RELAXED")));
            Runtime.getRuntime().addShutdownHook(new Thread(() -> {
                database.close();
                PrivateMariaDb.deleteTree(folder);
            }));
            return database;
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /** The mail server of the tests. */
    public static synchronized GreenMail mail() {
        if (mail == null) {
            mail = new GreenMail(new ServerSetup(0, "127.0.0.1", ServerSetup.PROTOCOL_SMTP));
            mail.start();
        }
        return mail;
    }

    /** Sends all mails that are due. */
    public void post() {
        SendMail mails = bean(SendMail.class);
        while (mails.sendNext()) {
            // until nothing waits
        }
    }

    private static String newSchema() {
        return "mint_test_" + SCHEMAS.incrementAndGet();
    }

    /** A server of its own on an empty schema, with beans beside those of the application. */
    public static synchronized Server with(Class<?>... beans) {
        Server server = start(newSchema(), beans);
        server.addPeople();
        return server;
    }

    /** A server of its own on an empty schema, with beans beside those of the application and nobody in it. */
    public static synchronized Server bare(Class<?>... beans) {
        return start(newSchema(), beans);
    }

    /** A server of its own with a setting. */
    public static synchronized Server with(String setting, String value) {
        System.setProperty(setting, value);
        try {
            return with();
        } finally {
            System.clearProperty(setting);
        }
    }

    private static Server start(String schema, Class<?>... beans) {
        PrivateMariaDb db = database();
        SpringApplication application = new SpringApplication(MintShelf.class, Counting.class);
        application.addPrimarySources(List.of(beans));
        application.setDefaultProperties(Map.of(
                "spring.datasource.url",
                db.url(schema),
                "spring.datasource.username",
                db.user(),
                "spring.datasource.password",
                db.password(),
                "mint-shelf.password-strength",
                "4",
                "mint-shelf.largest-file",
                "400000000",
                "logging.level.mintshelf",
                "error"));
        application.addInitializers(context -> context.getEnvironment()
                .getPropertySources()
                .addFirst(new MapPropertySource(
                        "mail",
                        Map.of(
                                "spring.mail.host",
                                "127.0.0.1",
                                "spring.mail.port",
                                mail().getSmtp().getPort(),
                                "mint-shelf.mail-from",
                                "shelf@ebbcote.example",
                                // Mails go out when a test says so: what the clock sends in between would divide them.
                                "mint-shelf.mail-every",
                                "PT6H"))));
        application.setRegisterShutdownHook(false);
        return new Server(application.run("--server.port=0", "--server.address=127.0.0.1"), schema);
    }

    public void stop() {
        context.close();
    }

    public String schema() {
        return schema;
    }

    public String origin() {
        return "http://localhost:" + context.getEnvironment().getProperty("local.server.port");
    }

    public <T> T bean(Class<T> type) {
        return context.getBean(type);
    }

    public <T> T bean(String name, Class<T> type) {
        return context.getBean(name, type);
    }

    public DSLContext db() {
        return bean(DSLContext.class);
    }

    /** Statements that this thread has sent so far. */
    public static int statements() {
        return Counting.STATEMENTS.get();
    }

    /** Statements that all threads have sent so far. */
    public static int allStatements() {
        return Counting.ALL.get();
    }

    /** A kind like the drawing on the route on which nobody signs: most tests are about other things than rounds. */
    private synchronized void addPlainKind() {
        var house = bean(HouseStore.class);
        if (house.kinds().stream().anyMatch(k -> k.code().equals(PLAIN))) return;
        var drawing = house.kind("drawing");
        var plain = house.addKind(
                new Kind(
                        0,
                        PLAIN,
                        "plain drawing",
                        drawing.aspect(),
                        drawing.glyph(),
                        drawing.numberSeries(),
                        drawing.revisionSeries(),
                        true,
                        bean(RouteStore.class).route("straight").orElseThrow(),
                        Optional.empty()),
                20);
        // Its files are texts: no sheet is due.
        var rules = new HashMap<>(CheckRules.hints().severities());
        rules.remove(CheckRules.Rule.SHEET_READ);
        var usual = CheckRules.hints();
        bean(CheckRuleStore.class)
                .add(
                        plain.id(),
                        new CheckRuleStore.Edition(
                                1,
                                new CheckRules(rules, usual.demanded(), usual.leastText(), usual.layers()),
                                "checker"));
        house.factSheets()
                .get(drawing.id())
                .forEach(f -> house.giveFact(plain.id(), f.fact().id(), f.required(), f.cleared(), 1));
    }

    private void addPeople() {
        add("ines", "Ines Kallmar", "data-manager");
        add("priya", "Priya Malhan", "designer");
        add("tomasz", "Tomasz Okrent", "designer");
        add("hedda", "Hedda Lysgaard", "checker");
        add("oluwaseun", "Oluwaseun Adebari", "board-member");
        add("rafael", "Rafael Quiroz", "reader");
        PersonStore store = bean(PersonStore.class);
        people.put("nobody", store.add("nobody", "No Body", "", "", "", "UTC", Instant.now()));
        store.setPassword(
                people.get("nobody"), bean(BCryptPasswordEncoder.class).encode(PASSWORD));
    }

    public void add(String login, String name, String role) {
        PersonStore store = bean(PersonStore.class);
        long id = store.add(login, name, login + "@ebbcote.example", "", "", "Europe/Copenhagen", Instant.now());
        store.setPassword(id, bean(BCryptPasswordEncoder.class).encode(PASSWORD));
        bean(GrantStore.class).grantPerson(id, role, Scope.EVERYWHERE);
        people.put(login, id);
    }

    public Actor actor(String login) {
        // As a request does: the session knows the id, the person is read anew.
        PersonStore people = bean(PersonStore.class);
        long id =
                ids.computeIfAbsent(login, l -> people.byLogin(l).orElseThrow().id());
        PersonStore.Person person = people.person(id).orElseThrow();
        return new Actor(bean(GrantStore.class).access(person.id(), person.name()), login, person.zone(), "127.0.0.1");
    }

    /** A shelf of its own for a test. */
    public long shelf() {
        return bean(ReadShelf.class).addShelf(actor("ines"), "Berth " + UUID.randomUUID(), "");
    }

    public String shelfName(long shelf) {
        return bean(ShelfStore.class).shelf(shelf).orElseThrow().name();
    }

    /** The bytes of a document's latest version. */
    public byte[] bytes(long item) {
        return bytes(bean(SpineStore.class).spine(item).orElseThrow().content());
    }

    public byte[] bytes(StoredContent content) {
        try {
            ByteArrayOutputStream out = new ByteArrayOutputStream();
            bean(ContentStore.class).send(content.id(), 0, content.size(), out);
            return out.toByteArray();
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    public String bring(String login, String name, byte[] bytes) {
        try {
            ReceiveContent receive = bean(ReceiveContent.class);
            String token = receive.open(actor(login), name, bytes.length);
            receive.receive(actor(login), token, 0, new ByteArrayInputStream(bytes));
            return token;
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /** Files a text as a plain drawing with the material filled, and gives its id. */
    public long file(String login, long shelf, String name, String text, boolean hold) {
        return file(login, shelf, PLAIN, name, text.getBytes(StandardCharsets.UTF_8), hold);
    }

    /** The id of a kind. */
    public long kind(String code) {
        if (code.equals(PLAIN)) addPlainKind();
        return bean(HouseStore.class).kind(code).id();
    }

    /** Files a document of a kind with the material filled, and gives its id. */
    public long file(String login, long shelf, String kindCode, String name, byte[] bytes, boolean hold) {
        return file(login, shelf, kindCode, name, "", bytes, hold);
    }

    /** As the others, under a number; under the one that is proposed where it is empty. */
    public long file(
            String login, long shelf, String kindCode, String name, String number, byte[] bytes, boolean hold) {
        FilingSheets filing = bean(FilingSheets.class);
        long sheet = filing.open(actor(login), shelf, OptionalLong.empty(), List.of(bring(login, name, bytes)));
        FilingStore.Row row = filing.sheet(actor(login), sheet).lines().get(0).row();
        long drawing = kind(kindCode);
        Map<String, String> facts = new TreeMap<>(Map.of("material", "316L"));
        filing.keep(
                actor(login),
                sheet,
                List.of(new FilingStore.Row(
                        row.id(),
                        row.upload(),
                        true,
                        Optional.of(drawing),
                        "",
                        number.isEmpty() ? row.number() : number,
                        "",
                        row.title(),
                        "",
                        row.revision(),
                        "",
                        row.folder(),
                        facts,
                        row.sameAs(),
                        row.item())));
        FileDocuments.Result result = bean(FileDocuments.class).file(actor(login), sheet, key(), hold);
        if (!result.isFiled()) throw new IllegalStateException(result.problems().toString());
        return filing.sheet(actor(login), sheet).lines().get(0).row().item().orElseThrow();
    }

    public Document document(long item) {
        return bean(SpineStore.class).spine(item).orElseThrow().document();
    }

    public void checkOut(String login, long item) {
        bean(CheckOut.class).take(actor(login), List.of(item), key(), "", "");
    }

    /** What became of it, as {@link Became#join} writes it without the version's id: "12v2". */
    public String checkIn(String login, long item, String text, boolean keep) {
        return checkIn(login, item, text.getBytes(StandardCharsets.UTF_8), keep);
    }

    public String checkIn(String login, long item, byte[] bytes, boolean keep) {
        Document document = document(item);
        long hold = document.holder().map(h -> h.hold()).orElse(0L);
        String token = bring(login, document.fileName(), bytes);
        return Became.join(bean(CheckIn.class)
                        .take(actor(login), List.of(new CheckIn.Row(item, token, hold)), key(), "changed", keep))
                .replaceAll("\\.\\d+", "");
    }

    public void release(String login, long item) {
        bean(MoveDocument.class)
                .move(
                        actor(login),
                        item,
                        key(),
                        "release",
                        document(item).head().number(),
                        "");
    }

    /** A document at released revision A. */
    public long released(long shelf, String name) {
        return released(shelf, name, "first " + name);
    }

    public long released(long shelf, String name, String text) {
        long item = file("priya", shelf, name, text, false);
        release("priya", item);
        return item;
    }

    public static String key() {
        return UUID.randomUUID().toString();
    }

    /** A version that names a component four times, as its file would. */
    void refer(long version, long component, String path) {
        db().insertInto(Tables.VERSION_REFERENCE)
                .set(Tables.VERSION_REFERENCE.VERSION, version)
                .set(
                        Tables.VERSION_REFERENCE.SEQ,
                        db().fetchCount(Tables.VERSION_REFERENCE, Tables.VERSION_REFERENCE.VERSION.eq(version)))
                .set(Tables.VERSION_REFERENCE.ROLE, "COMPONENT")
                .set(Tables.VERSION_REFERENCE.PATH, path)
                .set(Tables.VERSION_REFERENCE.QUANTITY, 4)
                .set(Tables.VERSION_REFERENCE.STATE, "FOUND")
                .set(Tables.VERSION_REFERENCE.COMPONENT, component)
                .set(
                        Tables.VERSION_REFERENCE.CAPTURED,
                        document(component).head().version())
                .set(Tables.VERSION_REFERENCE.SOURCE, "ASSUMED")
                .execute();
    }
}
