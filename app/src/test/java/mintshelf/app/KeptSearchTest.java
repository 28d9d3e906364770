package mintshelf.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.time.LocalTime;
import java.time.ZoneId;
import java.util.Base64;
import java.util.Map;
import java.util.Optional;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.Refused;
import mintshelf.app.store.person.GroupStore;
import mintshelf.app.store.search.Ask;
import mintshelf.app.store.search.KeptSearchStore;
import mintshelf.app.use.desk.Tokens;
import mintshelf.app.use.search.KeptSearches;
import mintshelf.app.use.search.TellNewHits;
import mintshelf.database.schema.Tables;
import org.junit.jupiter.api.Test;

/** Searches that are kept: counted on Today, as feeds, by mail. */
class KeptSearchTest {
    private final Server server = Server.shared();
    private final long shelf = server.shelf();
    private final String q = "on:\"" + server.shelfName(shelf) + "\"";
    private final KeptSearches searches = server.bean(KeptSearches.class);

    private long keep(String login, String name, Optional<Long> group, boolean told) {
        String to = searches.keep(
                server.actor(login), Server.key(), new KeptSearchStore.New(name, q, Ask.Order.FIT, false, group), told);
        return Long.parseLong(to.substring("/searches/".length()));
    }

    /** Keeps a search for somebody; its address. */
    static String kept(Server server, String login, String q) {
        return server.bean(KeptSearches.class)
                .keep(
                        server.actor(login),
                        Server.key(),
                        new KeptSearchStore.New(q, q, Ask.Order.FIT, false, Optional.empty()),
                        false);
    }

    private KeptSearches.Line line(String login, long id) {
        return searches.lines(server.actor(login)).stream()
                .filter(l -> l.kept().filter(k -> k.id() == id).isPresent())
                .findFirst()
                .orElseThrow();
    }

    @Test
    void itsListHasColumnsOfItsOwn() {
        server.file("priya", shelf, "columns.txt", "columns" + shelf, false);
        long id = keep("priya", "Columns " + shelf, Optional.empty(), false);
        Web web = Web.as(server, "priya");
        String plain = "/search?q=" + q.replace("\"", "%22").replace(" ", "%20");
        String address = plain + "&kept=" + id;
        assertThat(web.get(address).body()).doesNotContain("c-more");
        HttpResponse<String> chosen = web.post("/me/columns", Map.of("column", "material", "back", address));
        String with = chosen.headers().firstValue("Location").orElseThrow();
        assertThat(with).endsWith("&columns=material");
        assertThat(web.get(path(with)).body()).contains("c-more").contains("Keep it as it stands now");
        assertThat(web.get(plain).body()).as("other lists stay as they are").doesNotContain("c-more");
        web.post(
                "/searches/" + id,
                Map.of("name", "Columns", "q", q, "columns", "material,nonsense", "actKey", Server.key()));
        assertThat(searches.kept(server.actor("priya"), id).columns()).containsExactly("material");
        assertThat(shown(web, id)).contains("c-more").contains("Change…");
        assertThat(web.get("/me/columns?chosen=material").body()).contains("checked");
        web.post("/searches/" + id, Map.of("name", "Columns", "q", q, "columns", "", "actKey", Server.key()));
        assertThat(shown(web, id)).doesNotContain("c-more");
    }

    private static String path(String location) {
        return location.substring(location.indexOf("/search"));
    }

    /** The list to which a kept search leads. */
    private static String shown(Web web, long id) {
        return web.get(path(web.get("/searches/" + id)
                        .headers()
                        .firstValue("Location")
                        .orElseThrow()))
                .body();
    }

    @Test
    void whatMovedSinceOneLookedIsCounted() {
        server.file("priya", shelf, "one.txt", "one" + shelf, false);
        long id = keep("priya", "Mine " + shelf, Optional.empty(), false);
        assertThat(line("priya", id).hits()).isEqualTo(1);
        assertThat(line("priya", id).fresh()).as("what was there is not new").isZero();
        server.file("tomasz", shelf, "two.txt", "two" + shelf, false);
        assertThat(line("priya", id).fresh()).isEqualTo(1);
        Web web = Web.as(server, "priya");
        assertThat(web.get("/today").body()).contains("Mine " + shelf).contains("1 moved");
        String shown = web.get(web.get("/searches/" + id)
                        .headers()
                        .firstValue("Location")
                        .orElseThrow())
                .body();
        assertThat(shown).contains("Kept as").contains("2 hits");
        assertThat(line("priya", id).fresh()).isZero();
        assertThatThrownBy(() -> searches.look(server.actor("tomasz"), id)).isInstanceOf(NotThere.class);
    }

    @Test
    void aGroupSharesOneAndItsOwnerAloneChangesIt() {
        long group = server.bean(GroupStore.class).addGroup("Keepers " + shelf);
        for (String login : new String[] {"priya", "tomasz"}) {
            server.bean(GroupStore.class).join(group, server.actor(login).person());
        }
        long id = keep("priya", "Ours " + shelf, Optional.of(group), false);
        assertThat(line("tomasz", id).kept().orElseThrow().groupName()).isEqualTo("Keepers " + shelf);
        assertThatThrownBy(() -> searches.drop(server.actor("tomasz"), Server.key(), id))
                .isInstanceOf(Refused.class)
                .hasMessageContaining("Priya");
        assertThatThrownBy(() -> keep("hedda", "Not mine", Optional.of(group), false))
                .isInstanceOf(NotThere.class);
        server.bean(GroupStore.class).leave(group, server.actor("tomasz").person());
        assertThatThrownBy(() -> searches.kept(server.actor("tomasz"), id)).isInstanceOf(NotThere.class);
        searches.drop(server.actor("priya"), Server.key(), id);
        assertThatThrownBy(() -> searches.kept(server.actor("priya"), id)).isInstanceOf(NotThere.class);
    }

    @Test
    void whatAsksForNothingIsNotKept() {
        assertThatThrownBy(() -> searches.keep(
                        server.actor("priya"),
                        Server.key(),
                        new KeptSearchStore.New("Nothing", "colour:red", Ask.Order.FIT, false, Optional.empty()),
                        false))
                .isInstanceOf(Refused.class);
    }

    @Test
    void aFeedIsReadWithATokenAndHoldsWhatItsReaderSees() throws Exception {
        long out = server.released(shelf, "feed released.txt");
        server.file("priya", shelf, "feed draft.txt", "draft" + shelf, false);
        long id = keep("rafael", "Read " + shelf, Optional.empty(), false);
        String token = server.bean(Tokens.class).make(server.actor("rafael"), "feeds", false, 9);
        String path = "/api/v1/searches/" + id + "/feed";
        String basic = Base64.getEncoder().encodeToString(("any:" + token).getBytes(StandardCharsets.UTF_8));
        HttpResponse<String> feed = get(path, "Basic " + basic);
        assertThat(feed.statusCode()).isEqualTo(200);
        assertThat(feed.headers().firstValue("Content-Type").orElse("")).startsWith("application/atom+xml");
        assertThat(feed.body())
                .contains("<title>Read " + shelf + "</title>")
                .contains(server.document(out).number())
                .doesNotContain("draft");
        assertThat(get(path, "Bearer " + token).statusCode()).isEqualTo(200);
        assertThat(get(path, "Basic " + Base64.getEncoder().encodeToString("a:b".getBytes(StandardCharsets.UTF_8)))
                        .statusCode())
                .isEqualTo(401);
        assertThat(get("/api/v1/me", "Basic " + basic).statusCode())
                .as("a password that a browser sends by itself opens nothing else")
                .isEqualTo(401);
    }

    private HttpResponse<String> get(String path, String authorization) throws Exception {
        return HttpClient.newHttpClient()
                .send(
                        HttpRequest.newBuilder(URI.create(server.origin() + path))
                                .header("Authorization", authorization)
                                .build(),
                        HttpResponse.BodyHandlers.ofString());
    }

    @Test
    void eachMorningWhatMovedIsToldOnce() {
        long id = keep("priya", "Told " + shelf, Optional.empty(), true);
        long person = server.actor("priya").person();
        server.file("tomasz", shelf, "fresh.txt", "fresh" + shelf, false);
        // As if they had been told two days ago.
        server.db()
                .update(Tables.KEPT_SEARCH_LOOK)
                .set(
                        Tables.KEPT_SEARCH_LOOK.TOLD_AT,
                        java.time.LocalDateTime.now(java.time.ZoneOffset.UTC).minusDays(2))
                .set(
                        Tables.KEPT_SEARCH_LOOK.LOOKED_AT,
                        java.time.LocalDateTime.now(java.time.ZoneOffset.UTC).minusDays(2))
                .where(Tables.KEPT_SEARCH_LOOK.SEARCH.eq(id))
                .execute();
        server.bean(TellNewHits.class).run();
        server.bean(TellNewHits.class).run();
        int told = server.db()
                .fetchCount(Tables.NOTICE, Tables.NOTICE.PERSON.eq(person), Tables.NOTICE.TARGET.eq("/searches/" + id));
        // Morning is theirs.
        ZoneId theirs = ZoneId.of(server.actor("priya").zone());
        boolean early = LocalTime.now(theirs).getHour() < 7;
        assertThat(told).isEqualTo(early ? 0 : 1);
    }
}
