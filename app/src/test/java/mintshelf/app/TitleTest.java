package mintshelf.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Map;
import mintshelf.app.use.document.KeepFacts;
import mintshelf.app.use.revision.DropRevision;
import mintshelf.app.use.revision.StartRevisions;
import mintshelf.app.use.search.Search;
import mintshelf.database.schema.Tables;
import org.junit.jupiter.api.Test;

/** The title is a fact of the revision: what is released keeps the one that it was signed with. */
class TitleTest {
    private final Server server = Server.shared();
    private final long shelf = server.shelf();

    private void retitle(long item, String title) {
        server.bean(KeepFacts.class).keep(server.actor("priya"), item, Server.key(), title, Map.of(), Map.of());
    }

    private List<Long> found(String login, String words) {
        return server.bean(Search.class).find(server.actor(login), Search.Wish.first(words, 20)).hits().stream()
                .map(h -> h.seen().spine().id())
                .toList();
    }

    @Test
    void aPendingTitleIsNotTheReleasedOnes() {
        long item = server.released(shelf, "brollix plate.txt");
        server.bean(StartRevisions.class).start(server.actor("priya"), List.of(item), Server.key(), "why", "", false);
        retitle(item, "Snarvel plate");
        Web reader = Web.as(server, "rafael");
        Web designer = Web.as(server, "priya");
        for (String path : List.of("/documents/" + item, "/shelves/" + shelf, "/documents/" + item + "/peek")) {
            assertThat(reader.get(path).body())
                    .as(path)
                    .contains("Brollix plate")
                    .doesNotContain("Snarvel");
            assertThat(designer.get(path).body()).as(path).contains("Snarvel plate");
        }
        assertThat(found("rafael", "snarvel")).isEmpty();
        assertThat(found("rafael", "brollix")).containsExactly(item);
        assertThat(found("priya", "snarvel")).containsExactly(item);
        // Dropping the revision brings the title back; releasing it makes the new one everybody's.
        server.bean(DropRevision.class)
                .drop(
                        server.actor("priya"),
                        item,
                        Server.key(),
                        server.document(item).head().number(),
                        "no");
        assertThat(server.document(item).title()).isEqualTo("Brollix plate");
        server.bean(StartRevisions.class).start(server.actor("priya"), List.of(item), Server.key(), "why", "", true);
        retitle(item, "Snarvel plate");
        server.checkIn("priya", item, "snarvel " + item, false);
        server.release("priya", item);
        assertThat(reader.get("/documents/" + item).body()).contains("Snarvel plate");
        assertThat(found("rafael", "snarvel")).containsExactly(item);
    }

    @Test
    void aReadersListByTitleAndChangeFollowsWhatIsOut() {
        long a = server.released(shelf, "aaa.txt");
        long b = server.released(shelf, "bbb.txt");
        server.bean(StartRevisions.class).start(server.actor("priya"), List.of(a), Server.key(), "why", "", false);
        retitle(a, "Zzz");
        for (String order : List.of("title", "changed")) {
            String reader = Web.as(server, "rafael")
                    .get("/shelves/" + shelf + "?order=" + order)
                    .body();
            boolean aFirst = reader.indexOf(server.document(a).number())
                    < reader.indexOf(server.document(b).number());
            assertThat(aFirst).as(order).isEqualTo(order.equals("title"));
        }
    }

    @Test
    void aReaderIsToldThatItIsBeingRevisedAndNoMore() {
        long item = server.released(shelf, "ccc " + shelf + ".txt");
        server.bean(StartRevisions.class).start(server.actor("priya"), List.of(item), Server.key(), "hush", "", true);
        Web reader = Web.as(server, "rafael");
        assertThat(reader.get("/shelves/" + shelf).body()).contains("being revised");
        assertThat(reader.get("/documents/" + item).body())
                .contains("being revised")
                .doesNotContain("Priya Malhan since")
                .doesNotContain("hush");
        server.db()
                .update(Tables.SHELF)
                .set(Tables.SHELF.HIDES_REVISING, true)
                .where(Tables.SHELF.ID.eq(shelf))
                .execute();
        assertThat(reader.get("/shelves/" + shelf).body()).doesNotContain("being revised");
        assertThat(reader.get("/documents/" + item).body()).doesNotContain("being revised");
    }
}
