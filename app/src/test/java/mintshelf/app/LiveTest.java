package mintshelf.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.BufferedReader;
import java.io.InputStreamReader;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentLinkedQueue;
import java.util.function.BooleanSupplier;
import java.util.stream.Collectors;
import mintshelf.app.use.document.KeepFacts;
import mintshelf.app.use.live.Live;
import mintshelf.app.use.live.Live.Moved;
import mintshelf.app.use.live.Live.News;
import mintshelf.app.use.live.Live.Scope;
import mintshelf.app.use.revision.StartRevisions;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;

/** Open pages learn what moved, on whatever node, and nobody learns what they may not know. */
class LiveTest {
    private final Server server = Server.shared();
    private final Live live = server.bean(Live.class);
    private final long shelf = server.shelf();
    private final List<Live.Ends> ends = new ArrayList<>();

    @AfterEach
    void close() {
        ends.forEach(Live.Ends::end);
    }

    private ConcurrentLinkedQueue<News> listen(Live on, String login, Scope scope) {
        ConcurrentLinkedQueue<News> heard = new ConcurrentLinkedQueue<>();
        on.listen(server.actor(login), scope, heard::add).ifPresent(ends::add);
        return heard;
    }

    private static void await(BooleanSupplier until) {
        for (int i = 0; i < 100 && !until.getAsBoolean(); i++) {
            try {
                Thread.sleep(100);
            } catch (InterruptedException e) {
                Thread.currentThread().interrupt();
                return;
            }
        }
        assertThat(until.getAsBoolean()).isTrue();
    }

    private static List<Long> documents(ConcurrentLinkedQueue<News> heard) {
        return heard.stream()
                .flatMap(n -> n.documents().stream())
                .map(Moved::document)
                .distinct()
                .collect(Collectors.toCollection(ArrayList::new));
    }

    private static boolean says(ConcurrentLinkedQueue<News> heard, String words) {
        return heard.stream()
                .flatMap(n -> n.documents().stream())
                .anyMatch(m -> m.says().contains(words));
    }

    @Test
    void whatOthersDoOnAShelfIsHeardAndWhatHappensElsewhereIsNot() {
        long item = server.file("priya", shelf, "a.txt", "one", false);
        long elsewhere = server.file("priya", server.shelf(), "b.txt", "two", false);
        var heard = listen(live, "hedda", new Scope(shelf, 0, false));
        var ofOne = listen(live, "hedda", new Scope(0, elsewhere, false));
        server.checkOut("priya", item);
        await(() -> says(heard, "Priya Malhan checked out version 1"));
        server.checkIn("priya", item, "two", false);
        await(() -> says(heard, "checked in version 2"));
        long came = server.file("priya", shelf, "c.txt", "new", false);
        await(() -> documents(heard).contains(came));
        server.checkOut("priya", elsewhere);
        await(() -> documents(ofOne).contains(elsewhere));
        assertThat(documents(heard)).doesNotContain(elsewhere);
        assertThat(documents(ofOne)).containsExactly(elsewhere);
    }

    @Test
    void readersHearOfWhatComesIntoForceAlone() {
        long item = server.file("priya", shelf, "r.txt", "one", true);
        var reader = listen(live, "rafael", new Scope(shelf, 0, false));
        var nobody = listen(live, "nobody", new Scope(shelf, 0, false));
        var checker = listen(live, "hedda", new Scope(shelf, 0, false));
        server.checkIn("priya", item, "two", false);
        await(() -> documents(checker).contains(item));
        assertThat(reader).isEmpty();
        server.release("priya", item);
        await(() -> documents(reader).contains(item));
        assertThat(reader.stream().flatMap(n -> n.documents().stream()).map(Moved::says))
                .as("and nothing of who did it")
                .containsOnly("");
        reader.clear();
        checker.clear();
        server.bean(StartRevisions.class).start(server.actor("priya"), List.of(item), Server.key(), "longer", "", true);
        server.checkIn("priya", item, "three", false);
        await(() -> says(checker, "checked in version"));
        assertThat(reader).as("nor of what is prepared behind it").isEmpty();
        assertThat(nobody).isEmpty();
    }

    @Test
    void whatIsDoneOnAnotherNodeIsHeardHereToo() {
        Server second = server.secondNode();
        long item = server.file("priya", shelf, "n.txt", "one", false);
        var heard = listen(live, "hedda", new Scope(shelf, 0, false));
        var there = listen(second.bean(Live.class), "hedda", new Scope(0, item, false));
        second.checkOut("priya", item);
        await(() -> says(heard, "checked out version 1"));
        await(() -> says(there, "checked out version 1"));
    }

    @Test
    void whatWaitsForSomebodyIsHeardOnToday() {
        Review review = new Review(server);
        long item = review.drawing(shelf, "t.dxf");
        var hedda = listen(live, "hedda", new Scope(0, 0, true));
        long round = review.send("priya", item);
        review.sign("hedda", round);
        var priya = listen(live, "priya", new Scope(0, 0, true));
        review.sign("oluwaseun", round);
        await(() -> priya.stream().anyMatch(News::today));
        assertThat(hedda.stream().flatMap(n -> n.documents().stream())).isEmpty();
    }

    @Test
    void ownActsBeforeThePageAreNotToldAgainAndNobodyReadsWhileNobodyListens() {
        long item = server.file("priya", shelf, "o.txt", "one", false);
        server.checkOut("priya", item);
        var own = listen(live, "priya", new Scope(shelf, 0, false));
        var other = listen(live, "hedda", new Scope(shelf, 0, false));
        server.bean(KeepFacts.class)
                .keep(
                        server.actor("priya"),
                        item,
                        Server.key(),
                        server.document(item).title(),
                        Map.of("material", "2205"),
                        Map.of());
        await(() -> says(other, "changed Material"));
        await(() -> says(own, "changed Material"));
        assertThat(says(own, "checked out")).isFalse();
        int before = live.listening();
        ends.forEach(Live.Ends::end);
        assertThat(live.listening()).isEqualTo(before - 2);
    }

    @Test
    void aPersonsPagesAreCounted() {
        for (int i = 0; i < 12; i++) listen(live, "tomasz", new Scope(shelf, 0, false));
        assertThat(live.listen(server.actor("tomasz"), new Scope(shelf, 0, false), n -> {}))
                .isEqualTo(Optional.empty());
        assertThat(Web.as(server, "tomasz").get("/live?shelf=" + shelf).statusCode())
                .as("their page is told that it is one too many, and asks from then on")
                .isEqualTo(204);
        assertThat(live.listen(server.actor("hedda"), new Scope(shelf, 0, false), n -> {}))
                .hasValueSatisfying(ends::add);
    }

    @Test
    void whoCannotListenAsks() {
        Web hedda = Web.as(server, "hedda");
        long item = server.file("priya", shelf, "p.txt", "one", false);
        String first = hedda.get("/live/since?shelf=" + shelf).body();
        assertThat(first).contains("\"documents\":[]");
        long now = Long.parseLong(first.replaceAll(".*\"now\":(\\d+).*", "$1"));
        server.checkOut("priya", item);
        String then = hedda.get("/live/since?shelf=" + shelf + "&since=" + now).body();
        assertThat(then).contains("\"document\":" + item, "checked out version 1");
        assertThat(Web.as(server, "rafael")
                        .get("/live/since?shelf=" + shelf + "&since=" + now)
                        .body())
                .contains("\"documents\":[]");
        String row = hedda.get("/documents/" + item + "/row").body();
        assertThat(row).contains("id=\"d" + item + "\"", "Priya Malhan").doesNotContain("<html");
    }

    @Test
    void theStreamIsAStreamOfEvents() throws Exception {
        long item = server.file("priya", shelf, "s.txt", "one", false);
        Web hedda = Web.as(server, "hedda");
        List<String> lines = Collections.synchronizedList(new ArrayList<>());
        try (var body = hedda.stream("/live?shelf=" + shelf)) {
            // Closing the reader would wait for its next line.
            Thread reads = new Thread(() -> new BufferedReader(new InputStreamReader(body, StandardCharsets.UTF_8))
                    .lines()
                    .forEach(lines::add));
            reads.setUncaughtExceptionHandler((thread, e) -> lines.add("ended"));
            reads.setDaemon(true);
            reads.start();
            await(() -> lines.stream().anyMatch(l -> l.startsWith(":")));
            server.checkOut("priya", item);
            await(() -> lines.stream().anyMatch(l -> l.startsWith("data:") && l.contains("\"document\":" + item)));
            assertThat(lines).contains("event:moved");
        }
        assertThat(new Web(server.origin()).get("/live?shelf=" + shelf).statusCode())
                .as("who is not signed in")
                .isEqualTo(302);
    }
}
