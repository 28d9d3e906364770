package mintshelf.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.stream.Stream;
import mintshelf.app.store.search.Ask;
import mintshelf.app.store.search.IndexSource;
import mintshelf.app.store.search.NodeIndex;
import mintshelf.app.use.document.DropDocument;
import mintshelf.app.use.document.KeepFacts;
import mintshelf.app.use.revision.StartRevisions;
import mintshelf.app.use.search.FacetViews;
import mintshelf.app.use.search.ReadWords;
import mintshelf.app.use.search.Search;
import mintshelf.core.base.Texts;
import mintshelf.database.schema.Tables;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Searches by what documents are, as texts are typed; on a shelf of its own. */
class SearchQuestionsTest {
    private final Server server = Server.shared();
    private final long shelf = server.shelf();
    private final String on = " on:\"" + server.shelfName(shelf) + "\"";

    private Search.Found ask(String login, String q, boolean versions) {
        server.bean(ReadWords.class).run();
        return server.bean(Search.class)
                .find(server.actor(login), new Search.Wish(q, Ask.Order.NUMBER, versions, 0, 50, true));
    }

    private List<String> titles(String login, String q) {
        Search.Found found = ask(login, q + on, false);
        assertThat(found.question().notUnderstood()).as(q).isEmpty();
        assertThat(found.total()).as(q).isEqualTo(found.hits().size());
        return found.hits().stream()
                .map(h -> h.seen().document().title())
                .sorted()
                .toList();
    }

    private long drawing(String title, String material) {
        long item = server.file("priya", shelf, title + " " + Server.key() + ".txt", title + Server.key(), false);
        facts(item, title, material);
        return item;
    }

    private void facts(long item, String title, String material) {
        server.bean(KeepFacts.class)
                .keep(server.actor("priya"), item, Server.key(), title, Map.of("material", material), Map.of());
    }

    @Test
    void eachQuestionFindsWhatItSaysAndNothingElse() {
        long plate = drawing("Plate", "316L");
        long ring = drawing("Ring", "POM-C black");
        long cone = drawing("Cone", "316Ti");
        drawing("Bare", "");
        server.checkOut("priya", plate);
        server.checkOut("tomasz", ring);
        server.release("priya", cone);
        assertThat(titles("priya", "material:316L")).containsExactly("Plate");
        assertThat(titles("priya", "material:316")).containsExactly("Cone", "Plate");
        assertThat(titles("priya", "material:pom-c,316ti")).containsExactly("Cone", "Ring");
        assertThat(titles("priya", "material:\"c black\"")).containsExactly("Ring");
        assertThat(titles("priya", "-material:*")).containsExactly("Bare");
        assertThat(titles("priya", "held:me")).containsExactly("Plate");
        assertThat(titles("priya", "held:tomasz")).containsExactly("Ring");
        assertThat(titles("priya", "is:held")).containsExactly("Plate", "Ring");
        assertThat(titles("priya", "held:nobody")).containsExactly("Bare", "Cone");
        assertThat(titles("priya", "-held:me is:pending")).containsExactly("Bare", "Ring");
        assertThat(titles("priya", "held>1d")).isEmpty();
        assertThat(titles("priya", "held<1d")).containsExactly("Plate", "Ring");
        assertThat(titles("priya", "is:released")).containsExactly("Cone");
        assertThat(titles("priya", "stage:released released>=today")).containsExactly("Cone");
        assertThat(titles("priya", "stage:\"in prep\" -ring")).containsExactly("Bare", "Plate");
        assertThat(titles("priya", "changed<2001")).isEmpty();
        assertThat(titles("priya", "kind:\"plain drawing\" title:co")).containsExactly("Cone");
        assertThat(titles("priya", "rev:a")).contains("Cone");
        String number = server.document(plate).number();
        assertThat(titles("priya", number)).containsExactly("Plate");
        assertThat(titles("priya", number.replace("-", ""))).containsExactly("Plate");
        assertThat(titles("priya", "number:" + number)).containsExactly("Plate");
    }

    @Test
    void aFormerNumberFindsAndSaysSo() {
        long item = drawing("Renamed", "");
        String former = "ZQ-" + item;
        server.db()
                .insertInto(Tables.NUMBER_CLAIM)
                .set(Tables.NUMBER_CLAIM.ASPECT, "DRAWING")
                .set(Tables.NUMBER_CLAIM.NUMBER_KEY, Texts.key(former))
                .set(Tables.NUMBER_CLAIM.NUMBER, former)
                .set(Tables.NUMBER_CLAIM.ITEM, item)
                .set(Tables.NUMBER_CLAIM.STATE, "FORMER")
                .set(Tables.NUMBER_CLAIM.AT, java.time.LocalDateTime.now(java.time.ZoneOffset.UTC))
                .execute();
        facts(item, "Renamed again", "");
        assertThat(ask("priya", former, false).hits())
                .extracting(h -> h.seen().document().title() + ": " + h.says())
                .containsExactly("Renamed again: was " + former);
    }

    @Test
    void whatIsWrittenAlikeIsTakenWhereNothingFitsAndIsSaid() {
        drawing("Wrangborel clamp", "");
        Search.Found found = ask("priya", "wrangbrel clmap" + on, false);
        assertThat(found.alike()).isTrue();
        assertThat(found.hits()).hasSize(1);
        assertThat(ask("priya", "wrangborel" + on, false).alike()).isFalse();
        assertThat(Web.as(server, "priya")
                        .get("/search?q=" + Web.encode("wrangbrel"))
                        .body())
                .contains("Nothing is written so.")
                .contains("Wrangborel clamp");
    }

    @Test
    void facetsCountWhatTheirLinksFind() {
        drawing("Aa", "316L");
        drawing("Bb", "316L");
        server.checkOut("priya", drawing("Cc", "NBR"));
        server.release("priya", drawing("Dd", "NBR 70"));
        Search.Found found = ask("priya", on, false);
        assertThat(found.facets()).extracting(FacetViews.View::name).contains("Stage", "Held by", "Material");
        int values = 0;
        for (FacetViews.View facet : found.facets()) {
            for (FacetViews.Value value : facet.values()) {
                if (facet.name().equals("Material")) continue; // beginnings find more than the value itself
                assertThat(ask("priya", value.narrowed(), false).total())
                        .as(value.narrowed())
                        .isEqualTo(value.hits());
                values++;
            }
        }
        assertThat(values).isGreaterThanOrEqualTo(4);
    }

    @Test
    void allVersionsAreLookedThroughAndReadersFindOnlyThoseThatWereOut() {
        long item = server.file("priya", shelf, "words of old.txt", "first glorvin", true);
        server.checkIn("priya", item, "second glorvin", false);
        server.release("priya", item);
        server.bean(StartRevisions.class).start(server.actor("priya"), List.of(item), Server.key(), "why", "", true);
        server.checkIn("priya", item, "third hidden glorvin", false);
        List<Integer> mine = numbers("priya", "text:glorvin");
        assertThat(mine).hasSizeGreaterThanOrEqualTo(3).contains(1, 2);
        List<Integer> readers = numbers("rafael", "text:glorvin");
        assertThat(readers).hasSize(1);
        assertThat(mine).containsAll(readers).hasSizeGreaterThan(readers.size());
        assertThat(numbers("rafael", "text:hidden")).isEmpty();
        assertThat(ask("rafael", "text:hidden", false).total()).isZero();
        assertThat(Web.as(server, "priya")
                        .get("/search?versions=true&q=glorvin")
                        .body())
                .contains(">v1</a>")
                .contains(">v2</a>");
    }

    private List<Integer> numbers(String login, String q) {
        return ask(login, q + on, true).hits().stream()
                .map(h -> h.version().orElseThrow().number())
                .toList();
    }

    @Test
    void aReaderCountsNothingThatIsHidden() {
        long out = drawing("Shown", "316L");
        server.release("priya", out);
        drawing("Draft", "316L");
        Map<String, Integer> before = counted("rafael");
        assertThat(before).containsEntry("all", 1);
        server.bean(StartRevisions.class).start(server.actor("priya"), List.of(out), Server.key(), "why", "", true);
        facts(out, "Secret title", "NBR");
        drawing("Another draft", "NBR");
        assertThat(counted("rafael")).isEqualTo(before);
        assertThat(titles("rafael", "material:NBR")).isEmpty();
        assertThat(titles("rafael", "secret")).isEmpty();
        assertThat(titles("rafael", "held:priya")).isEmpty();
        assertThat(titles("rafael", "is:pending")).isEmpty();
        assertThat(titles("priya", "material:NBR")).containsExactly("Another draft", "Secret title");
        assertThat(ask("nobody", "316L", false).total()).isZero();
    }

    private Map<String, Integer> counted(String login) {
        Search.Found found = ask(login, on, false);
        Map<String, Integer> counts = new TreeMap<>(Map.of("all", found.total()));
        found.facets().forEach(f -> f.values().forEach(v -> counts.put(v.term(), v.hits())));
        return counts;
    }

    @Test
    void aDroppedDocumentIsFoundNoMoreAndComesBack() {
        long item = drawing("Dropped one", "");
        assertThat(titles("priya", "\"dropped one\"")).hasSize(1);
        server.bean(DropDocument.class).drop(server.actor("priya"), item, Server.key(), "by mistake");
        assertThat(titles("priya", "\"dropped one\"")).isEmpty();
        server.bean(DropDocument.class).bringBack(server.actor("ines"), item, Server.key());
        assertThat(titles("priya", "\"dropped one\"")).hasSize(1);
    }

    @Test
    void anIndexMadeAnewFindsTheSameAndASecondNodeToo() {
        List<String> before = new ArrayList<>();
        for (int i = 0; i < 5; i++)
            before.add(server.document(drawing("Same " + i, "316L")).title());
        assertThat(titles("priya", "same material:316L")).containsExactlyElementsOf(before);
        server.bean(NodeIndex.class).rebuild();
        assertThat(titles("priya", "same material:316L")).containsExactlyElementsOf(before);
        Server second = server.secondNode();
        try {
            drawing("Same 5", "316L");
            second.bean(NodeIndex.class).catchUp();
            assertThat(second.bean(Search.class)
                            .find(second.actor("priya"), Search.Wish.first("same material:316L" + on, 20))
                            .total())
                    .isEqualTo(6);
        } finally {
            second.stop();
        }
    }

    @Test
    void anIndexThatIsKeptIsReadOnAndWhatIsNoneIsMadeAnew(@TempDir Path folder) throws IOException {
        drawing("Kept one", "");
        IndexSource source = server.bean(IndexSource.class);
        int first;
        try (NodeIndex index = new NodeIndex(source, Optional.of(folder), Clock.systemUTC())) {
            index.catchUp();
            first = index.size();
        }
        assertThat(first).isPositive();
        drawing("Kept two", "");
        try (NodeIndex index = new NodeIndex(source, Optional.of(folder), Clock.systemUTC());
                Stream<Path> folders = Files.list(folder)) {
            index.catchUp();
            assertThat(index.size()).isGreaterThan(first);
            assertThat(folders).as("it was gone on with").hasSize(1);
            index.rebuild();
        }
        // Half an index, of a start that was killed.
        Files.createDirectories(folder.resolve("99"));
        Files.writeString(folder.resolve("99").resolve("left"), "over");
        try (NodeIndex index = new NodeIndex(source, Optional.of(folder), Clock.systemUTC())) {
            index.catchUp();
            assertThat(index.size()).isGreaterThan(first);
        }
        assertThat(folder.resolve("99").resolve("left")).doesNotExist();
    }

    @Test
    void hostileSearchesAreAnsweredInWords() {
        Web web = Web.as(server, "priya");
        for (String q : List.of(
                "x".repeat(10_000),
                "(".repeat(2000),
                "\"".repeat(501),
                "[]{}^~*?\\/:!+-&|",
                "\u202E\u200Fabc\u0000",
                "mass>1e999999 mass<-1e308 mass:..",
                "changed>99999999-01-01 changed:0000 held>9999y",
                "material:" + "a,".repeat(200),
                "-".repeat(300) + " --a -\"",
                "title:\"\" text:: a:b:c:d")) {
            var answer = web.get("/search?q=" + Web.encode(q));
            assertThat(answer.statusCode()).as(Texts.shorten(q, 30)).isEqualTo(200);
            assertThat(web.get("/search/hints?q=" + Web.encode(q)).statusCode()).isEqualTo(200);
            assertThat(web.get("/search?versions=true&from=2000000000&by=x&q=" + Web.encode(q))
                            .statusCode())
                    .isEqualTo(200);
        }
        assertThat(web.get("/search?q=" + Web.encode("x".repeat(10_000))).body())
                .contains("all behind the first 500 letters");
    }

    @Test
    void theFiftyFirstHitStandsOnTheNextPageAndTheTenThousandthIsTheLast() {
        ManyDocuments.fill(server.db(), shelf, drawing("Of many", ""), 120);
        server.bean(NodeIndex.class).rebuild();
        Web web = Web.as(server, "priya");
        String q = Web.encode("mooring" + on);
        assertThat(web.get("/search?q=" + q).body()).contains("120 hits").contains("The next 50");
        assertThat(web.get("/search?by=number&from=50&q=" + q).body())
                .contains("from 51 on")
                .contains("The next 20");
        String last = web.get("/search?versions=true&from=100&q=" + q).body();
        assertThat(last).contains("120 versions").doesNotContain("The next");
        assertThat(web.get("/search?from=10000&q=" + q).statusCode()).isEqualTo(200);
        assertThat(web.get("/search/hits.csv?q=" + q).body().lines()).hasSize(121);
    }

    @Test
    void hitsGoIntoATable() {
        drawing("=cmd", "316L");
        drawing("Second", "316L");
        String csv = Web.as(server, "priya")
                .get("/search/hits.csv?q=" + Web.encode("material:316L" + on))
                .body();
        assertThat(csv.lines().toList()).hasSize(3);
        assertThat(csv).startsWith("number,title,revision").contains("'=cmd").contains("Second");
    }
}
