package mintshelf.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.net.http.HttpResponse;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Map;
import mintshelf.app.setup.Backup;
import org.junit.jupiter.api.Test;

/** What waits, what failed, what is kept and when it was backed up is told, with what to do; and programs read it too. */
class RunningTest extends InAHouse {
    private static String page() {
        return Web.as(server, "ines").get("/house/running").body();
    }

    @Test
    void whatFailedIsToldAndTriedAgain() {
        Review review = new Review(server);
        long item = review.drawing(server.shelf(), "failing " + mark + ".dxf");
        long round = review.send("priya", item);
        server.db()
                .execute(
                        "update delivery set state = 'FAILED', says = ?, lease_until = null where event in (select id from outbox_event where round = ?)",
                        "550 no such mailbox " + mark,
                        round);
        assertThat(page())
                .contains("something is to be looked at", "failed in two weeks", "550 no such mailbox " + mark);
        Web ines = Web.as(server, "ines");
        HttpResponse<String> again = ines.post("/house/running/again/mails", Map.of("actKey", Server.key()));
        assertThat(again.headers().firstValue("Location").orElseThrow()).contains("/house/running?again=");
        assertThat(server.db()
                        .fetch(
                                "select distinct state from delivery where event in (select id from outbox_event where round = ?)",
                                round)
                        .getValues(0, String.class))
                .doesNotContain("FAILED");
        assertThat(page()).doesNotContain("550 no such mailbox " + mark);
        assertThat(ines.post("/house/running/again/everything", Map.of("actKey", Server.key()))
                        .statusCode())
                .isEqualTo(404);
    }

    @Test
    void whatIsKeptIsCountedByShelf() {
        long shelf = server.shelf();
        long item = server.file("priya", shelf, "kept " + mark + ".txt", "x".repeat(3000), true);
        server.checkIn("priya", item, "y".repeat(5000), false);
        String name = server.shelfName(shelf);
        String page = page();
        String row = page.substring(page.indexOf(name), page.indexOf("</tr>", page.indexOf(name)));
        assertThat(row.replaceAll("<[^>]*>", " ").replaceAll("\\s+", " ")).contains(name + " 1 2 8.0 kB");
    }

    @Test
    void aBackupIsToldOfOnceItIsWritten() throws Exception {
        Path file = Files.createTempDirectory("mint-shelf-").resolve("night o'clock.sql.gz");
        new Backup(Server.database().url(server.schema()), "mint", "mint").write(file);
        assertThat(page()).contains("The last one today: night_o_clock.sql.gz");
        server.db().execute("update backup_taken set at = at - interval 9 day");
        assertThat(page()).contains("9 days ago", "Let the machine run ./shelf backup each night");
    }

    @Test
    void programsReadHealthAndInstruments() {
        Web anybody = new Web(server.origin());
        assertThat(anybody.get("/actuator/health").body()).contains("UP");
        assertThat(anybody.get("/actuator/health/readiness").body()).contains("UP");
        assertThat(anybody.get("/actuator/health/liveness").body())
                .contains("UP")
                .doesNotContain("db");
        String read = anybody.get("/actuator/prometheus").body();
        assertThat(read)
                .contains("mint_rounds_open", "mint_mails_waiting", "mint_people_there", "jvm_memory_used_bytes");
        assertThat(read).as("nobody's name, no document").doesNotContain("Priya");
        assertThat(anybody.get("/actuator/env").statusCode()).isIn(302, 401, 403, 404);
        assertThat(anybody.get("/actuator").statusCode()).isIn(302, 401, 403, 404);
    }
}
