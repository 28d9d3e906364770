package mintshelf.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.stream.Stream;
import mintshelf.app.effect.run.Wish;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.Refused;
import mintshelf.app.store.run.Run;
import mintshelf.app.use.desk.Desks;
import mintshelf.app.use.desk.Desks.DeskLine;
import mintshelf.app.use.desk.Tokens;
import mintshelf.app.use.relocate.Folders;
import mintshelf.app.use.run.ActOverSet;
import mintshelf.app.use.shelf.ReadShelf;
import mintshelf.core.base.ContentHash;
import mintshelf.core.desk.DeskRules;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** What lies in a folder that comes to every desk is kept even there. */
class EveryDeskTest {
    private final Server server = Server.shared();
    private final Desks desks = server.bean(Desks.class);
    private final Folders folders = server.bean(Folders.class);
    private final Actor ines = server.actor("ines");
    private final Actor priya = server.actor("priya");
    private final long shelf = server.shelf();
    private final String mark = Server.key().substring(0, 8);
    private final long styles =
            server.bean(ReadShelf.class).addFolder(ines, shelf, OptionalLong.empty(), "styles " + mark);
    private DeskRun companion;

    @TempDir
    Path folder;

    private long style(String text) {
        long item = server.file("priya", shelf, "lines " + mark + ".txt", text, false);
        server.bean(ActOverSet.class)
                .begin(priya, Run.What.RELOCATE, List.of(item), Wish.into(styles), Optional.empty(), Server.key());
        return item;
    }

    private List<DeskLine> status(Actor actor, String name, Desks.OnDisk... disk) {
        desks.open(actor, name + mark);
        return desks.status(actor, name + mark, List.of(disk));
    }

    private static ContentHash hash(String text) {
        return ContentHash.compute(text.getBytes(StandardCharsets.UTF_8));
    }

    @Test
    void whatIsMarkedComesToDesksOnWhichItsShelfLies() {
        long item = style("thin " + mark);
        Desks.OnDisk other = new Desks.OnDisk(server.shelfName(shelf) + "/any.txt", hash("any" + mark));
        assertThat(status(priya, "A", other)).noneMatch(l -> l.seen().isPresent() && l.comes());
        assertThatThrownBy(() -> folders.everyDesk(priya, styles, true)).isInstanceOf(Refused.class);
        folders.everyDesk(ines, styles, true);
        assertThat(status(priya, "A", other))
                .filteredOn(DeskLine::comes)
                .singleElement()
                .satisfies(l -> {
                    assertThat(l.seen().orElseThrow().spine().id()).isEqualTo(item);
                    assertThat(l.standing().word()).isEqualTo(DeskRules.Word.ABSENT);
                    assertThat(l.standing().act()).isEqualTo(DeskRules.Act.BRING);
                });
        assertThat(status(priya, "B", new Desks.OnDisk("elsewhere/any.txt", hash("b" + mark))))
                .as("a desk on which nothing of the shelf lies")
                .noneMatch(DeskLine::comes);
        assertThat(status(server.actor("rafael"), "C", other))
                .as("a reader sees nothing that is not out")
                .noneMatch(DeskLine::comes);
        // What lies below comes along, and is let go with the folder above only.
        long below = server.bean(ReadShelf.class).addFolder(ines, shelf, OptionalLong.of(styles), "below");
        assertThatThrownBy(() -> folders.everyDesk(ines, below, false))
                .isInstanceOfSatisfying(
                        Refused.class, r -> assertThat(r.refusal().code()).isEqualTo("folder.above"));
        folders.everyDesk(ines, styles, false);
        assertThat(status(priya, "A", other)).noneMatch(DeskLine::comes);
    }

    private int desk(String... arguments) {
        if (companion == null) companion = new DeskRun(folder);
        return companion.run(arguments);
    }

    private Path find(String name) throws IOException {
        try (Stream<Path> files = Files.walk(folder)) {
            return files.filter(p -> p.toString().endsWith(name)).findFirst().orElseThrow();
        }
    }

    @Test
    void theCompanionBringsItToReadAndBringsItAnewAndLosesNothing() throws IOException {
        long item = style("thin " + mark);
        folders.everyDesk(ines, styles, true);
        long work = server.file("priya", shelf, "work " + mark + ".txt", "w " + mark, false);
        desk("pair", server.origin(), server.bean(Tokens.class).code(priya), "--name", "EVERY " + mark);
        assertThat(desk("fetch", server.document(work).number())).isZero();
        assertThat(desk("watch", "--seconds", "0")).isZero();
        assertThat(companion.said()).contains("which comes to every desk of its shelf");
        Path lines = find("lines " + mark + ".txt");
        assertThat(Files.readString(lines)).isEqualTo("thin " + mark);
        assertThat(Files.getPosixFilePermissions(lines).toString()).doesNotContain("OWNER_WRITE");
        // A later one comes by itself, the second time too.
        server.checkOut("priya", item);
        server.checkIn("priya", item, "thick " + mark, false);
        assertThat(desk("watch", "--seconds", "0")).isZero();
        assertThat(Files.readString(lines)).isEqualTo("thick " + mark);
        assertThat(desk("watch", "--seconds", "0")).isZero();
        assertThat(companion.said()).doesNotContain("brought");
        // Who changed it here keeps what they changed.
        assertThat(lines.toFile().setWritable(true)).isTrue();
        Files.writeString(lines, "my own");
        server.checkOut("priya", item);
        server.checkIn("priya", item, "thin again " + mark, false);
        assertThat(desk("watch", "--seconds", "0")).isZero();
        assertThat(Files.readString(lines)).isEqualTo("my own");
        // Who holds it writes it.
        assertThat(desk("fetch", server.document(item).number(), "--aside")).isZero();
        assertThat(desk("check-out", server.document(item).number())).isZero();
        assertThat(desk("fetch", server.document(item).number())).isZero();
        assertThat(Files.getPosixFilePermissions(lines).toString()).contains("OWNER_WRITE");
    }

    @Test
    void whoKeepsTheShelfSaysSoOnItsPage() {
        String page = "/shelves/" + shelf + "?folder=" + styles;
        assertThat(Web.as(server, "priya").get(page).body()).doesNotContain("Let it come to every desk");
        Web web = Web.as(server, "ines");
        assertThat(web.get(page).body()).contains("Let it come to every desk");
        web.post("/folders/" + styles + "/every-desk", Map.of("comes", "true"));
        assertThat(web.get(page).body()).contains("comes to every desk").contains("No longer to every desk");
        web.post("/folders/" + styles + "/every-desk", Map.of("comes", "false"));
        assertThat(web.get(page).body()).doesNotContain("· comes to every desk");
    }
}
