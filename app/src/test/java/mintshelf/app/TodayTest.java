package mintshelf.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Map;
import java.util.OptionalLong;
import java.util.Set;
import java.util.stream.Collectors;
import mintshelf.app.use.change.AskForChange;
import mintshelf.app.use.change.MoveOrder;
import mintshelf.app.use.filing.FilingSheets;
import mintshelf.app.use.structure.ReadStructure;
import mintshelf.app.use.structure.ReadStructure.Standing;
import mintshelf.app.use.structure.ReadStructure.Structure;
import mintshelf.app.use.today.ReadToday;
import mintshelf.core.signoff.Decision;
import org.assertj.core.groups.Tuple;
import org.junit.jupiter.api.Test;

/** What the start page counts and says, and how an assembly's components stand before work begins. */
class TodayTest {
    private final Server server = Server.shared();
    private final Review review = new Review(server);
    private final long shelf = server.shelf();

    private String designer() {
        String login = "t" + Server.key().substring(0, 8);
        server.add(login, "Person " + login, "designer");
        return login;
    }

    private long file(String login, String name) {
        return server.file(login, shelf, "drawing", name, Review.sheet(name + Server.key()), true);
    }

    @Test
    void aDayWithoutAnythingSaysSo() {
        String page = Web.as(server, designer()).get("/today").body();
        assertThat(page).contains("Nothing. What others ask of you stands here.", "You hold nothing");
        assertThat(page).doesNotContain("waits for you.", "Your changes", "You were told");
    }

    @Test
    void whatCameBackStandsFirstUntilItIsSentAgain() {
        String login = designer();
        long item = file(login, "came back.dxf");
        server.checkIn(login, item, Review.sheet("second " + Server.key()), false);
        long round = review.send(login, item);
        ReadToday today = server.bean(ReadToday.class);
        assertThat(today.today(server.actor(login)).back()).isEmpty();
        review.answer("hedda", round, Decision.RETURNED, "the groove squeezes the ring by 36 %");
        assertThat(today.today(server.actor(login)).back())
                .singleElement()
                .satisfies(b -> assertThat(b.returning().remark()).contains("36 %"));
        String page = Web.as(server, login).get("/today").body();
        assertThat(page)
                .contains("One thing waits for you; it came back.", "returned by Hedda Lysgaard", "Correct it")
                .contains("the groove squeezes the ring by 36 %");
        assertThat(Web.as(server, "tomasz").get("/today").body())
                .as("it came back to who sent it")
                .doesNotContain("the groove squeezes the ring by 36 %");
        review.send(login, item);
        assertThat(today.today(server.actor(login)).back()).isEmpty();
    }

    @Test
    void anOrderThatIsAskedForWaitsForWhoMayStartItUntilItIsStartedOrStopped() {
        String login = designer();
        long item = file(login, "to be changed.dxf");
        review.release(login, item);
        String title = "Wider seat " + Server.key().substring(0, 6);
        String order = server.bean(AskForChange.class)
                .ask(server.actor(login), List.of(item), Server.key(), title, "It rattles.", Map.of());
        Web board = Web.as(server, "oluwaseun");
        assertThat(board.get("/today").body())
                .contains(title)
                .contains("Person " + login + " asks for it")
                .doesNotContain("Person " + login + " asks for CO");
        assertThat(Web.as(server, login).get("/today").body()).doesNotContain("start the work, or stop it");
        long id = Long.parseLong(order.substring("/orders/".length()));
        server.bean(MoveOrder.class).start(server.actor("oluwaseun"), id, Server.key());
        assertThat(board.get("/today").body())
                .as("what was answered is not told either")
                .doesNotContain("Person " + login + " asks for");
    }

    @Test
    void filingSheetsSayTheirShelfAndHowManyFiles() {
        String login = designer();
        List<String> tokens = List.of(
                server.bring(login, "one.txt", ("1" + Server.key()).getBytes(StandardCharsets.UTF_8)),
                server.bring(login, "two.txt", ("2" + Server.key()).getBytes(StandardCharsets.UTF_8)));
        server.bean(FilingSheets.class).open(server.actor(login), shelf, OptionalLong.empty(), tokens);
        assertThat(server.bean(FilingSheets.class).waiting(server.actor(login)))
                .singleElement()
                .satisfies(w -> assertThat(w.files()).isEqualTo(2));
        assertThat(Web.as(server, login).get("/today").body()).contains("2 files are not filed yet, for ");
    }

    @Test
    void whatMovedOftenIsOneLineWithItsCount() {
        String login = designer();
        long item = file(login, "moved often.dxf");
        for (int i = 0; i < 3; i++) server.checkIn(login, item, Review.sheet("again " + Server.key()), true);
        assertThat(server.bean(ReadToday.class).today(server.actor("tomasz")).moved())
                .filteredOn(l -> l.seen().spine().id() == item)
                .singleElement()
                .satisfies(l -> assertThat(l.moved().times()).isEqualTo(4));
    }

    @Test
    void anAssemblySaysHowItsComponentsStandAndShowsThoseRows() {
        long out = server.released(shelf, "standing out.txt");
        long work = server.file("priya", shelf, "standing work.txt", "w" + Server.key(), false);
        long held = server.file("tomasz", shelf, "standing held.txt", "h" + Server.key(), true);
        long top = server.file("priya", shelf, "standing top.txt", "t" + Server.key(), false);
        for (long component : List.of(out, work, held)) {
            server.refer(server.document(top).head().version(), component, component + ".dxf");
        }
        Structure structure = server.bean(ReadStructure.class).firstLevel(server.actor("priya"), top);
        assertThat(structure.standing())
                .extracting(Standing::count, Standing::words)
                .containsExactly(
                        Tuple.tuple(1, "released"),
                        Tuple.tuple(2, "in preparation"),
                        Tuple.tuple(1, "held by Tomasz Okrent"));
        assertThat(structure.only("pending").rows()).hasSize(2);
        long tomasz = server.actor("tomasz").person();
        Set<Long> shown = structure.only("held-" + tomasz).rows().stream()
                .map(r -> r.seen().orElseThrow().spine().id())
                .collect(Collectors.toSet());
        assertThat(shown).containsExactly(held);
        Web priya = Web.as(server, "priya");
        assertThat(priya.get("/documents/" + top).body()).contains("2 in preparation", "held by Tomasz Okrent");
        assertThat(priya.get("/documents/" + top + "/structure?only=released").body())
                .contains("all of them")
                .contains("Standing out")
                .doesNotContain("Standing work");
        assertThat(priya.get("/documents/" + top + "/structure?only=nonsense").body())
                .contains("Standing work")
                .doesNotContain("all of them");
        assertThat(Web.as(server, "rafael").get("/documents/" + out).body()).doesNotContain("held by");
    }
}
