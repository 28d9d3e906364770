package mintshelf.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.catchThrowableOfType;

import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.time.Instant;
import java.util.Map;
import mintshelf.app.ground.Refused;
import mintshelf.app.store.Times;
import mintshelf.app.store.hold.StrayStore;
import mintshelf.app.use.document.LetBytesGo;
import mintshelf.app.use.hold.Strays;
import mintshelf.app.use.version.Reinstate;
import mintshelf.database.schema.Tables;
import org.junit.jupiter.api.Test;

/** Whatever the rules take a file for, its bytes are somewhere. */
class LostWorkTest {
    private final Server server = Server.shared();
    private final Strays strays = server.bean(Strays.class);
    private final long shelf = server.shelf();

    private static byte[] drawing(String saved, String text) {
        return ("0\nSECTION\n2\nHEADER\n9\n$ACADVER\n1\nAC1027\n9\n$TDUPDATE\n40\n" + saved
                        + "\n0\nENDSEC\n0\nSECTION\n2\nENTITIES\n0\nTEXT\n10\n1.0\n20\n2.0\n40\n2.5\n1\n" + text
                        + "\n0\nENDSEC\n0\nEOF\n")
                .getBytes(StandardCharsets.UTF_8);
    }

    private StrayStore.Stray saved(String login, long item) {
        return server.bean(StrayStore.class)
                .savedBy(server.actor(login).person(), item, Instant.now())
                .get(0);
    }

    @Test
    void aChangeBehindTheLastSaveMarkIsAVersion() {
        long item = server.file("priya", shelf, Server.PLAIN, "mark.dxf", drawing("1.5", "PLATE"), true);
        assertThat(server.checkIn("priya", item, drawing("2.5", "PLATES"), false))
                .isEqualTo(item + "v2");
    }

    @Test
    void whatWasOnlySavedIsKeptForItsAuthorWhoMayStillMakeItAVersion() {
        long item = server.file("priya", shelf, Server.PLAIN, "saved.dxf", drawing("1.5", "PLATE"), true);
        assertThat(server.checkIn("priya", item, drawing("2.5", "PLATE"), false))
                .isEqualTo(item + "o1");
        StrayStore.Stray stray = saved("priya", item);
        Web priya = Web.as(server, "priya");
        assertThat(priya.get("/documents/" + item).body()).contains("only saved once more");
        assertThat(priya.get("/strays/" + stray.id()).body()).contains("Make it version 2");
        // It is nobody else's business, and no flag on the shelf.
        Web tomasz = Web.as(server, "tomasz");
        assertThat(tomasz.get("/strays/" + stray.id()).statusCode()).isEqualTo(404);
        assertThat(tomasz.get("/documents/" + item).body()).doesNotContain("only saved once more");
        strays.adopt(server.actor("priya"), stray.id(), Server.key(), 1, "more than that");
        assertThat(server.bytes(item)).isEqualTo(drawing("2.5", "PLATE"));
    }

    @Test
    void afterThirtyDaysItGoes() {
        long item = server.file("priya", shelf, Server.PLAIN, "gone.dxf", drawing("1.5", "GONE"), true);
        server.checkIn("priya", item, drawing("2.5", "GONE"), false);
        StrayStore.Stray stray = saved("priya", item);
        server.db()
                .update(Tables.STRAY)
                .set(Tables.STRAY.AT, Times.utc(Instant.now().minus(Duration.ofDays(31))))
                .where(Tables.STRAY.ID.eq(stray.id()))
                .execute();
        Refused refused = catchThrowableOfType(
                Refused.class, () -> strays.adopt(server.actor("priya"), stray.id(), Server.key(), 1, ""));
        assertThat(refused.refusal().code()).isEqualTo("stray.decided");
        server.bean(LetBytesGo.class).letGo();
        assertThat(server.bean(StrayStore.class).stray(stray.id())).isEmpty();
        assertThat(server.db()
                        .fetchExists(
                                Tables.CONTENT,
                                Tables.CONTENT.ID.eq(stray.content().id())))
                .isFalse();
    }

    @Test
    void nothingSlipsUnderAHold() {
        long item = server.file("priya", shelf, "held " + shelf + ".txt", "one", true);
        server.checkIn("priya", item, "two", true);
        server.checkIn("tomasz", item, "tomasz's", false);
        long base = server.document(item).holder().orElseThrow().baseVersion();
        Refused reinstated = catchThrowableOfType(
                Refused.class,
                () -> server.bean(Reinstate.class).reinstate(server.actor("priya"), item, Server.key(), 1, 2, ""));
        assertThat(reinstated.refusal().code()).isEqualTo("hold.mine");
        long stray = server.bean(StrayStore.class).kept(item).get(0).id();
        Refused adopted = catchThrowableOfType(
                Refused.class, () -> strays.adopt(server.actor("priya"), stray, Server.key(), 2, ""));
        assertThat(adopted.refusal().code()).isEqualTo("hold.mine");
        assertThat(server.document(item).holder().orElseThrow().baseVersion()).isEqualTo(base);
        // The page says so and offers nothing else.
        Web priya = Web.as(server, "priya");
        assertThat(priya.get("/strays/" + stray).body()).contains("Check it in or undo the check-out first");
        assertThat(priya.get("/documents/" + item + "?version=1").body()).doesNotContain("Make version 1 current");
    }

    @Test
    void reinstatingShowsWhatItDoesBeforeItDoesIt() {
        long item = server.file("priya", shelf, Server.PLAIN, "back.dxf", drawing("1.5", "OLD TEXT"), true);
        server.checkIn("priya", item, drawing("1.5", "NEW TEXT"), false);
        Web priya = Web.as(server, "priya");
        String page = priya.get("/documents/" + item + "/versions/1/reinstate").body();
        assertThat(page).contains("1 difference").contains("Make 1 current again as 3");
        String to = priya.post(
                        "/documents/" + item + "/versions/1/reinstate",
                        Map.of("actKey", Server.key(), "expected", "2", "comment", ""))
                .headers()
                .firstValue("Location")
                .orElseThrow();
        assertThat(to).endsWith("/documents/" + item + "?reinstated");
        assertThat(priya.get("/documents/" + item + "?reinstated").body())
                .contains("Version 1 is current again as version 3");
    }
}
