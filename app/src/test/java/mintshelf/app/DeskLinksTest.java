package mintshelf.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.PrintWriter;
import java.io.StringWriter;
import java.net.URLEncoder;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.Refused;
import mintshelf.app.store.desk.DeskLinkStore.Act;
import mintshelf.app.use.desk.DeskLinks;
import mintshelf.app.use.desk.Desks;
import mintshelf.app.use.desk.Tokens;
import mintshelf.companion.Companion;
import mintshelf.companion.machine.Machine;
import mintshelf.core.desk.DeskLink;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.function.Executable;
import org.junit.jupiter.api.io.TempDir;
import picocli.CommandLine;

/** Links by which a page has the companion bring a file and open it, against the real application. */
class DeskLinksTest {
    private final Server server = Server.shared();
    private final DeskLinks links = server.bean(DeskLinks.class);
    private final long shelf = server.shelf();
    private final Actor priya = server.actor("priya");
    private final Actor tomasz = server.actor("tomasz");
    private final String desk = "BENCH " + Server.key().substring(0, 8);

    @TempDir
    Path home;

    private String tag(Actor actor) {
        server.bean(Desks.class).open(actor, desk);
        return links.open(actor, desk);
    }

    private static String code(Executable act) {
        try {
            act.execute();
        } catch (Refused e) {
            return e.refusal().code();
        } catch (NotThere e) {
            return "not there";
        } catch (Throwable e) {
            throw new IllegalStateException(e);
        }
        return "done";
    }

    private String offered(Actor actor, long item, Act act) {
        return links.offer(actor, item, Optional.empty(), act, desk).link();
    }

    private static String codeOf(String link) {
        return DeskLink.read(link).orElseThrow().code();
    }

    @Test
    void aLinkSaysItsDeskAndIsGoodOnceForItsOwnPerson() {
        long item = server.file("priya", shelf, "gland plate.txt", "gland", false);
        String tag = tag(priya);
        assertThat(links.open(priya, desk)).as("asked again it is the same").isEqualTo(tag);
        tag(tomasz);
        DeskLinks.Offered made = links.offer(priya, item, Optional.empty(), Act.WORK, desk);
        assertThat(DeskLink.read(made.link()).orElseThrow().tag()).isEqualTo(tag);
        assertThat(made.link()).doesNotContain("gland");
        assertThat(links.how(priya, made.id()).state()).isEqualTo(DeskLinks.State.WAITING);
        assertThat(code(() -> links.take(tomasz, codeOf(made.link()))))
                .as("another's")
                .isEqualTo("desk.link");
        DeskLinks.Wanted wanted = links.take(priya, codeOf(made.link()));
        assertThat(wanted.item()).isEqualTo(item);
        assertThat(wanted.desk()).isEqualTo(desk);
        assertThat(wanted.act()).isEqualTo(Act.WORK);
        assertThat(code(() -> links.take(priya, codeOf(made.link()))))
                .as("twice")
                .isEqualTo("desk.link");
        assertThat(links.how(priya, made.id()).state()).isEqualTo(DeskLinks.State.TAKEN);
        assertThat(code(() -> links.how(tomasz, made.id()))).isEqualTo("not there");
        links.told(tomasz, made.id(), true, "mine now");
        links.told(priya, made.id(), true, "It is open.");
        links.told(priya, made.id(), false, "said twice");
        assertThat(links.how(priya, made.id())).isEqualTo(new DeskLinks.How(DeskLinks.State.DONE, "It is open."));
    }

    @Test
    void whoDoesNotSeeTheDocumentOrHasNoSuchDeskGetsNoLink() {
        long item = server.file("priya", shelf, "unseen.txt", "u", false);
        tag(priya);
        Actor rafael = server.actor("rafael");
        server.bean(Desks.class).open(rafael, desk);
        links.open(rafael, desk);
        assertThat(code(() -> offered(rafael, item, Act.LOOK))).isEqualTo("not there");
        assertThat(code(() -> offered(tomasz, item, Act.LOOK))).isEqualTo("desk.gone");
        links.close(priya, desk);
        assertThat(code(() -> offered(priya, item, Act.LOOK))).isEqualTo("desk.closed");
        links.close(priya, desk);
        assertThat(links.open(priya, desk)).as("a tag of its own again").hasSize(DeskLink.TAG);
    }

    @Test
    void whoAsksForVeryManyIsBraked() {
        long item = server.file("priya", shelf, "many.txt", "m", false);
        tag(tomasz);
        String last = "";
        for (int i = 0; i < 70 && last.isEmpty(); i++) {
            String now = code(() -> offered(tomasz, item, Act.LOOK));
            if (!now.equals("done")) last = now;
        }
        assertThat(last).isEqualTo("desk.links");
    }

    @Test
    void thePageShowsBothAndWhatTheyAskForIsAnsweredInWords() {
        long item = server.file("priya", shelf, "paged.txt", "p", false);
        tag(priya);
        Web web = Web.as(server, "priya");
        assertThat(web.get("/documents/" + item).body()).contains("data-part=\"desk/open\"", "data-open=\"work\"");
        assertThat(web.get("/desk/programs?opens=" + URLEncoder.encode(desk, StandardCharsets.UTF_8))
                        .body())
                .contains(desk + " takes links of pages now.", "data-part=\"desk/opens\"");
        assertThat(web.get("/desk/programs?opens=%3Cb%3E").body()).doesNotContain("takes links of pages now.");
        server.release("priya", item);
        assertThat(Web.as(server, "rafael").get("/documents/" + item).body())
                .contains("data-open=\"look\"")
                .doesNotContain("data-open=\"work\"");
    }

    /** The whole way without a browser: paired, registered, the link of a page, saved, checked in from the file manager's entry. */
    @Test
    void theCompanionTakesALinkAndItsCheckInOpensThePlanWithTheFileInIt() throws Exception {
        long item = server.file("priya", shelf, "trip.txt", "as filed", false);
        Path bin = Files.createDirectories(home.resolve("bin"));
        Path opened = home.resolve("opened");
        Path opener = bin.resolve("xdg-open");
        Files.writeString(opener, "#!/bin/sh\nprintf '%s\\n' \"$1\" >> '" + opened + "'\n");
        Files.setPosixFilePermissions(opener, PosixFilePermissions.fromString("rwxr-xr-x"));
        Machine machine = new Machine(Machine.Kind.LINUX, home, Map.of("PATH", bin.toString()));
        Path folder = Files.createDirectories(home.resolve("desk"));
        String pairing = server.bean(Tokens.class).code(priya);
        assertThat(run(machine, "pair", server.origin(), pairing, "--name", desk, "--desk", folder.toString()))
                .isEmpty();
        assertThat(run(machine, "register", "--desk", folder.toString())).isEmpty();
        awaited(opened, 1);
        DeskLinks.Offered made = links.offer(priya, item, Optional.empty(), Act.WORK, desk);
        assertThat(run(machine, "open", made.link())).isEmpty();
        Path file = folder.resolve(server.shelfName(shelf)).resolve("trip.txt");
        assertThat(file).hasContent("as filed");
        assertThat(awaited(opened, 2).get(1)).isEqualTo(file.toString());
        assertThat(links.how(priya, made.id()).says()).contains("version 1 is open on " + desk + "; you hold it now.");
        assertThat(server.document(item).holder()).isPresent();

        Files.writeString(file, "changed on the bench");
        assertThat(run(machine, "act", "check-in", "--", file.toString())).isEmpty();
        String plan = awaited(opened, 3).get(2);
        assertThat(plan).startsWith(server.origin() + "/check-in?items=" + item);
        String token = plan.replaceAll(".*brought=" + item + "\\.", "");
        String page = Web.as(server, "priya")
                .get(plan.substring(server.origin().length()))
                .body();
        assertThat(page).contains("value=\"" + token + "\"", "data-brought-size=\"20\"", "value=\"" + desk + "\"");
        assertThat(Web.as(server, "tomasz")
                        .get(plan.substring(server.origin().length()))
                        .body())
                .as("another person's upload is nobody's business")
                .doesNotContain(token);
    }

    private static List<String> awaited(Path opened, int many) throws Exception {
        for (int i = 0; i < 100; i++) {
            if (Files.exists(opened) && Files.readAllLines(opened).size() >= many) break;
            Thread.sleep(50);
        }
        return Files.readAllLines(opened);
    }

    /** What a command says against what was asked; empty where it did it. */
    private static String run(Machine machine, String... arguments) {
        StringWriter err = new StringWriter();
        CommandLine line = Companion.commandLine(machine);
        line.setOut(new PrintWriter(new StringWriter())).setErr(new PrintWriter(err));
        String[] all = new String[arguments.length + 1];
        all[0] = "desk";
        System.arraycopy(arguments, 0, all, 1, arguments.length);
        int status = line.execute(all);
        return status == 0 ? "" : status + " " + err;
    }
}
