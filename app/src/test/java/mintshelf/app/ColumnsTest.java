package mintshelf.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;
import java.util.Map;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.NotThere;
import mintshelf.app.use.columns.FactColumns;
import mintshelf.app.use.document.KeepFacts;
import mintshelf.app.use.revision.StartRevisions;
import mintshelf.database.schema.Tables;
import org.junit.jupiter.api.Test;

/** Facts as columns of lists. */
class ColumnsTest {
    private final Server server = Server.shared();
    private final long shelf = server.shelf();

    private void material(long item, String material) {
        String title = server.document(item).title();
        server.bean(KeepFacts.class)
                .keep(server.actor("priya"), item, Server.key(), title, Map.of("material", material), Map.of());
    }

    @Test
    void factsOfOnesChoiceStandInShelvesAndSearchesAsTheReaderSeesThem() {
        long item = server.file("priya", shelf, "column one.txt", "column" + shelf, false);
        material(item, "Zirconia");
        server.release("priya", item);
        server.bean(StartRevisions.class).start(server.actor("priya"), List.of(item), Server.key(), "why", "", true);
        material(item, "Corundum");
        FactColumns columns = server.bean(FactColumns.class);
        try {
            for (String login : List.of("priya", "rafael")) {
                columns.choose(server.actor(login), List.of("material", "no-such-fact"));
                assertThat(columns.choices(server.actor(login)).stream()
                                .filter(FactColumns.Choice::chosen)
                                .map(FactColumns.Choice::name))
                        .containsExactly("material");
            }
            for (String path : List.of(
                    "/shelves/" + shelf,
                    "/documents/" + item + "/row",
                    "/search?q=" + Web.encode("column on:\"" + server.shelfName(shelf) + "\""))) {
                assertThat(Web.as(server, "priya").get(path).body())
                        .as(path)
                        .contains("Corundum")
                        .doesNotContain("Zirconia");
                assertThat(Web.as(server, "rafael").get(path).body())
                        .as(path)
                        .contains("Zirconia")
                        .doesNotContain("Corundum");
            }
        } finally {
            for (String login : List.of("priya", "rafael")) columns.choose(server.actor(login), List.of());
        }
        assertThat(Web.as(server, "priya").get("/shelves/" + shelf).body()).doesNotContain("Corundum");
    }

    @Test
    void howWideTheyAreIsKeptForOneselfAndForEachKeptSearch() {
        FactColumns columns = server.bean(FactColumns.class);
        Actor hedda = server.actor("hedda");
        server.file("priya", shelf, "wide.txt", "wide " + shelf, false);
        columns.widen(hedda, "shelf", "number:140 c-stage:90");
        columns.widen(hedda, "kept-7", "number:200");
        String page = Web.as(server, "hedda").get("/shelves/" + shelf).body();
        assertThat(page).contains("data-widths=\"number:140 c-stage:90\"");
        assertThat(Web.as(server, "rafael").get("/shelves/" + shelf).body()).doesNotContain("number:140");
        columns.widen(hedda, "shelf", "");
        assertThat(Web.as(server, "hedda").get("/shelves/" + shelf).body()).doesNotContain("number:140");
        for (String wrong : List.of("number:1", "number:99999", "a b", "x:40;", "X:40", "number:40 ".repeat(30))) {
            assertThatThrownBy(() -> columns.widen(hedda, "shelf", wrong)).isInstanceOf(NotThere.class);
        }
        assertThatThrownBy(() -> columns.widen(hedda, "../shelf", "number:40")).isInstanceOf(NotThere.class);
        for (int i = 0; i < 150; i++) columns.widen(hedda, "kept-" + i, "number:40");
        assertThat(server.db()
                        .fetchCount(
                                Tables.PERSON_SETTING,
                                Tables.PERSON_SETTING.PERSON.eq(hedda.person()),
                                Tables.PERSON_SETTING.NAME.startsWith("widths.")))
                .isBetween(1, 100);
    }

    @Test
    void threeAreTheMost() {
        FactColumns columns = server.bean(FactColumns.class);
        List<String> all = columns.choices(server.actor("hedda")).stream()
                .map(FactColumns.Choice::name)
                .toList();
        columns.choose(server.actor("hedda"), all);
        assertThat(columns.choices(server.actor("hedda")).stream().filter(FactColumns.Choice::chosen))
                .hasSize(FactColumns.MOST);
        columns.choose(server.actor("hedda"), List.of());
    }
}
