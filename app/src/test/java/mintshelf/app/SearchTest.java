package mintshelf.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import mintshelf.app.ground.UnitOfWork;
import mintshelf.app.store.content.TextStore;
import mintshelf.app.use.change.AskForChange;
import mintshelf.app.use.revision.StartRevisions;
import mintshelf.app.use.search.ReadWords;
import mintshelf.app.use.search.Search;
import mintshelf.core.content.ContentKind;
import org.jooq.impl.DSL;
import org.junit.jupiter.api.Test;

/** Words of contents are found by those who may see the version that says them. */
class SearchTest {
    private final Server server = Server.shared();
    private final long shelf = server.shelf();

    private List<String> found(String login, String text) {
        server.bean(ReadWords.class).run();
        return server.bean(Search.class).find(server.actor(login), Search.Wish.first(text, 20)).hits().stream()
                .map(hit -> hit.seen().document().title() + ": " + hit.says())
                .toList();
    }

    private static byte[] sheet(String note) {
        return new String(Review.sheet(Server.key()), StandardCharsets.ISO_8859_1)
                .replace("316L", note)
                .getBytes(StandardCharsets.ISO_8859_1);
    }

    @Test
    void wordsOnADrawingAreFoundInTheVersionsThatAPersonSees() {
        long item = server.file("priya", shelf, Server.PLAIN, "plate of words.dxf", sheet("quenched zwirl old"), true);
        assertThat(found("priya", "zwirl quen")).containsExactly("Gland plate: says “quenched zwirl old”");
        assertThat(found("rafael", "zwirl")).as("not released yet").isEmpty();
        server.checkIn("priya", item, sheet("tempered zwirl"), false);
        server.release("priya", item);
        assertThat(found("rafael", "zwirl")).containsExactly("Gland plate: says “tempered zwirl”");
        assertThat(found("priya", "quenched zwirl"))
                .as("only former versions say it")
                .isEmpty();
        server.bean(StartRevisions.class).start(server.actor("priya"), List.of(item), Server.key(), "why", "", true);
        server.checkIn("priya", item, sheet("polished zwirl"), false);
        assertThat(found("rafael", "polished")).as("in preparation").isEmpty();
        assertThat(found("priya", "polished zwirl")).hasSize(1);
        assertThat(found("rafael", "tempered")).hasSize(1);
        assertThat(Web.as(server, "rafael").get("/search?q=tempered+zwirl").body())
                .contains("says “tempered zwirl”");
    }

    /** Rows that the database reads for a search: counted on its own connection, whatever else the server does. */
    private long readFor(String text) {
        return server.bean(UnitOfWork.class).run(() -> {
            long before = read();
            server.bean(Search.class).find(server.actor("priya"), Search.Wish.first(text, 20));
            return read() - before;
        });
    }

    private long read() {
        return server.db().fetch("show session status like 'Handler_read%'").stream()
                .mapToLong(r -> Long.parseLong(r.get(1, String.class)))
                .sum();
    }

    /** The search of ten thousand documents went from 75 to 600 ms unseen when it began to read every version. */
    @Test
    void aSearchReadsNoMoreWhenDocumentsHaveMoreVersions() {
        List<Long> items = new ArrayList<>();
        for (int i = 0; i < 6; i++) {
            items.add(server.file("priya", shelf, "vrondel " + i + ".txt", "vrondel number " + i + Server.key(), true));
        }
        server.bean(ReadWords.class).run();
        assertThat(found("priya", "vrondel")).hasSize(6);
        long few = readFor("vrondel");
        int added = 0;
        for (long item : items) {
            for (int n = 0; n < 20; n++, added++) {
                String says = n == 19 ? "vrondel " : "other words ";
                server.checkIn("priya", item, says + n + " " + Server.key(), true);
            }
        }
        server.bean(ReadWords.class).run();
        assertThat(found("priya", "vrondel")).hasSize(6);
        // In a house of thousands the database may read what is in force as a whole, once or twice, where it looked it
        // up before.
        int documents = server.db().fetchCount(DSL.table("item"));
        assertThat(readFor("vrondel") - few)
                .as("rows more for " + added + " versions more of " + documents + " documents, after " + few)
                .isLessThan(added + 3L * documents);
    }

    @Test
    void linesOfATextAreFoundAndNumbersComeFirst() {
        long item = server.file("priya", shelf, "notes on xylot.txt", "line one\nthe brackish 8842 sluice\n", false);
        assertThat(found("priya", "brackish slui")).containsExactly("Notes on xylot: says “the brackish 8842 sluice”");
        String number = server.document(item).number();
        server.file("priya", shelf, "others.txt", "see " + number + " for more " + Server.key(), false);
        assertThat(found("priya", number).get(0)).startsWith("Notes on xylot");
    }

    @Test
    void whatCannotBeReadSaysNothingAndIsNotTriedAgain() {
        server.file("priya", shelf, "broken sheet.dxf", "  0\nSECTION\n  2\nENTITIES\n  0\nTEXT\n  1\nzzqx", false);
        assertThat(found("priya", "zzqx")).hasSizeLessThanOrEqualTo(1);
        assertThat(server.bean(TextStore.class).unread(List.of(ContentKind.DXF), 0, 10))
                .isEmpty();
    }

    @Test
    void whatIsNotUnderstoodIsSaidAndLeftOut() {
        server.file("priya", shelf, "mass balance.txt", "2 masses", false);
        Web web = Web.as(server, "priya");
        assertThat(web.get("/search?q=" + Web.encode("balance colour:red")).body())
                .contains("Not understood:")
                .contains("nothing here is called “colour”")
                .contains("Mass balance");
        assertThat(web.get("/search/hints?q=" + Web.encode("held:otto")).body()).contains("“otto” is nobody here");
        assertThat(web.get("/search?q=mass").body())
                .doesNotContain("Not understood")
                .contains("Mass balance");
    }

    @Test
    void anOrderIsFoundByItsSentencesNotByItsData() {
        long item = new Review(server).drawing(shelf, "for order " + shelf + ".dxf");
        server.bean(AskForChange.class)
                .ask(
                        server.actor("priya"),
                        List.of(item),
                        Server.key(),
                        "Vexillar intake",
                        "the quoriate seal leaks",
                        Map.of());
        assertThat(found("priya", "quoriate leaks")).containsExactly("Vexillar intake: says “the quoriate seal leaks”");
        assertThat(found("priya", "reason")).noneMatch(hit -> hit.contains("\"reason\""));
    }
}
