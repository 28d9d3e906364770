package mintshelf.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import mintshelf.app.effect.TableFiles;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.NotThere;
import mintshelf.app.use.family.SizeFamilies;
import org.junit.jupiter.api.Test;

/** Sizes of families on library shelves, typed and measured. */
class SizesTest {
    private final Server server = Server.shared();
    private final SizeFamilies families = server.bean(SizeFamilies.class);
    private final Actor ines = server.actor("ines");
    private final long shelf = server.shelf();
    private final String mark = Server.key().substring(0, 6).toUpperCase(Locale.ROOT);

    private void library() {
        server.db().execute("update shelf set library = 1 where id = " + shelf);
    }

    private long family(String name, String text) {
        return server.file("ines", shelf, "report", name, text.getBytes(StandardCharsets.UTF_8), false);
    }

    private List<String> parts(SizeFamilies.View view) {
        return view.lines().stream().map(l -> l.match().size().number()).toList();
    }

    @Test
    void aSizeIsPickedByTypingAndLeadsToItsPart() {
        long ring = server.file(
                "ines", shelf, "part-model", "SZ" + mark + "-40 ring.stp", StructureTest.assembly("r" + mark), false);
        String number = server.document(ring).number();
        long family = family(
                "rings " + mark + ".csv",
                "number,\"d1, mm\",\"d2, mm\"\n" + number + ",40,2\nSZ" + mark + "-44,44,3\n");
        assertThatThrownBy(() -> families.view(ines, family, Map.of()))
                .as("on a shelf that is no library it is a table")
                .isInstanceOf(NotThere.class);
        library();
        SizeFamilies.View view = families.view(ines, family, Map.of("d1", "40,0", "d2", "words"));
        assertThat(parts(view)).containsExactly(number, "SZ" + mark + "-44");
        assertThat(view.lines().get(0).part().orElseThrow().spine().id()).isEqualTo(ring);
        assertThat(view.lines().get(1).part()).as("no document has that number").isEmpty();
        String page = Web.as(server, "ines")
                .get("/documents/" + family + "/sizes?m.d1=43&m.d2=3")
                .body();
        assertThat(page)
                .contains("1 more")
                .contains("not on a shelf that you see")
                .contains("Bring to my desk");
        assertThat(page.indexOf("SZ" + mark + "-44")).isLessThan(page.indexOf(">" + number + "<"));
        assertThat(Web.as(server, "ines").get("/documents/" + family).body()).contains("Pick a size…");
        assertThatThrownBy(() -> families.view(server.actor("rafael"), family, Map.of()))
                .as("not out")
                .isInstanceOf(NotThere.class);
    }

    @Test
    void aMeasuredLengthFindsTheSizesThatHaveIt() {
        library();
        double odd = 7_000_000 + shelf;
        byte[] book = TableFiles.xlsx(
                "sizes",
                List.of(
                        List.of("number", "length mm"),
                        List.of("SZ" + mark + "-1", Double.toString(odd)),
                        List.of("SZ" + mark + "-2", "3")));
        long family = server.file("ines", shelf, "report", "lengths " + mark + ".xlsx", book, false);
        long none = family("no family " + mark + ".csv", "a,b\n1,2\n");
        assertThat(Web.as(server, "ines").get("/documents/" + none + "/sizes").body())
                .as("a table that is none says why")
                .contains("is no size family that can be read");
        family("broken " + mark + ".xlsx", "PK no workbook");
        List<SizeFamilies.Found> found = families.near(ines, odd);
        assertThat(found)
                .filteredOn(f -> f.family().spine().id() == family)
                .singleElement()
                .satisfies(f -> assertThat(f.near().match().size().number()).isEqualTo("SZ" + mark + "-1"));
        Web web = Web.as(server, "ines");
        assertThat(web.get("/sizes?at=" + (long) odd).body()).contains("SZ" + mark + "-1");
        assertThat(web.get("/sizes?at=words").body()).contains("Write a number");
        assertThat(web.get("/sizes?at=1e308").body()).contains("Write a number");
        assertThat(families.near(server.actor("rafael"), odd))
                .as("a reader is told of no family that is not out")
                .noneMatch(f -> f.family().spine().id() == family);
    }
}
