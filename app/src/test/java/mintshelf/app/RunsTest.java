package mintshelf.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import mintshelf.app.store.run.Run;
import mintshelf.app.use.document.DropDocument;
import mintshelf.app.use.hold.CheckIn;
import mintshelf.app.use.hold.CheckOut;
import mintshelf.app.use.run.ReadRuns;
import org.junit.jupiter.api.Test;

/** What an act over a set did has an address that stays, for who did it. */
class RunsTest {
    private final Server server = Server.shared();
    private final ReadRuns runs = server.bean(ReadRuns.class);
    private final String login = designer();

    private String designer() {
        String name = "r" + Server.key().substring(0, 8);
        server.add(name, "Runner " + name, "designer");
        return name;
    }

    private Run last() {
        return runs.mine(server.actor(login), Long.MAX_VALUE, 1).get(0);
    }

    private long held(String name) {
        return server.file(login, server.shelf(), name + Server.key() + ".txt", "first " + name, true);
    }

    private CheckIn.Row row(long item, String text) {
        String token = server.bring(login, server.document(item).fileName(), text.getBytes(StandardCharsets.UTF_8));
        return new CheckIn.Row(
                item, token, server.document(item).holder().orElseThrow().hold());
    }

    @Test
    void aCheckInSaysInOneSentenceWhatBecameOfItAndRowByRowOnItsPage() {
        long changed = held("changed");
        long same = held("same");
        String key = Server.key();
        List<CheckIn.Row> rows = List.of(row(changed, "second " + key), row(same, "first same"));
        CheckIn checkIn = server.bean(CheckIn.class);
        checkIn.take(server.actor(login), rows, key, "both", false);
        Run run = last();
        assertThat(run.says()).endsWith(" and 1 more came back: 1 new version, 1 unchanged");
        assertThat(runs.rows(run, 0, 100))
                .containsExactlyInAnyOrder(new Run.Row(changed, "version", 2), new Run.Row(same, "unchanged", 1));
        assertThat(runs.address(server.actor(login), key)).isEqualTo("/runs/" + run.id());
        checkIn.take(server.actor(login), rows, key, "both", false);
        assertThat(last().id()).as("the same form posted twice is one run").isEqualTo(run.id());

        String page = Web.as(server, login).get("/runs/" + run.id()).body();
        assertThat(page).contains("new version 2", "nothing changed: no version was made");
        assertThat(Web.as(server, login).get("/runs").body())
                .contains(run.says())
                .contains("/runs/" + run.id());
    }

    @Test
    void aRunIsItsPersonsAndWhoKeepsTheHouseReadsIt() {
        long item = held("mine");
        server.checkIn(login, item, "second " + Server.key(), false);
        long run = last().id();
        assertThat(Web.as(server, login).get("/runs/" + run).statusCode()).isEqualTo(200);
        assertThat(Web.as(server, "ines").get("/runs/" + run).statusCode()).isEqualTo(200);
        assertThat(Web.as(server, "tomasz").get("/runs/" + run).statusCode()).isEqualTo(404);
        assertThat(Web.as(server, "rafael").get("/runs/" + run).statusCode()).isEqualTo(404);
        assertThat(Web.as(server, "rafael").get("/runs").body()).contains("Nothing yet");
    }

    @Test
    void whatIsGoneSinceIsCountedAndTheAddressStays() {
        long item = held("gone");
        long stays = held("stays");
        server.bean(CheckIn.class)
                .take(
                        server.actor(login),
                        List.of(row(item, "second"), row(stays, "second too")),
                        Server.key(),
                        "",
                        false);
        long run = last().id();
        server.bean(DropDocument.class).drop(server.actor("ines"), item, Server.key(), "filed by mistake");
        String page = Web.as(server, login).get("/runs/" + run).body();
        assertThat(page)
                .contains("1 document of it is not there for you any more.")
                .contains(server.document(stays).number());
    }

    @Test
    void aCheckOutOfManyHasAnAddressWhateverItsLength() {
        long shelf = server.shelf();
        List<Long> items = new ArrayList<>();
        for (int i = 0; i < 60; i++) {
            items.add(server.file(login, shelf, "many " + i + Server.key() + ".txt", "many " + i, false));
        }
        String to = server.bean(CheckOut.class).take(server.actor(login), items, Server.key(), "", "");
        assertThat(to).isEqualTo("/runs/" + last().id());
        assertThat(last().says()).isEqualTo(server.document(items.get(0)).number() + " and 59 more checked out");
        assertThat(Web.as(server, login).get(to).body()).contains("You hold 60 documents");
        for (int i = 0; i < 61; i++) {
            long one = items.get(i % 60);
            server.checkIn(login, one, "again " + i + Server.key(), true);
        }
        String newest = Web.as(server, login).get("/runs").body();
        assertThat(newest).contains("Earlier");
        List<Run> all = runs.mine(server.actor(login), Long.MAX_VALUE, 100);
        List<Run> later = runs.mine(server.actor(login), all.get(59).id(), 100);
        assertThat(later).as("no run stands on two pages").isEqualTo(all.subList(60, all.size()));
    }
}
