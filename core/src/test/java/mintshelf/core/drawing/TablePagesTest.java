package mintshelf.core.drawing;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.Test;

class TablePagesTest {
    private static final List<TablePages.Column> COLUMNS =
            List.of(new TablePages.Column("number", 20), new TablePages.Column("file", 30));

    private static List<String> texts(Scene page) {
        return page.primitives().stream()
                .filter(Primitive.Text.class::isInstance)
                .map(p -> ((Primitive.Text) p).text())
                .toList();
    }

    @Test
    void saysWhatItIsAndItsRows() {
        List<Scene> pages =
                TablePages.of("Pack", List.of("for the yard"), COLUMNS, List.of(List.of("TG40-3030", "plate.dxf")));
        assertThat(pages).hasSize(1);
        assertThat(texts(pages.get(0)))
                .containsExactly(
                        "Pack", "for the yard", "number", "file", "TG40-3030", "plate.dxf", "Pack · page 1 of 1");
    }

    @Test
    void hasAHeadOnEveryPageAndEveryRowOnOne() {
        List<List<String>> rows = new ArrayList<>();
        for (int i = 0; i < 1500; i++) rows.add(List.of("N-" + i, "f" + i));
        List<Scene> pages = TablePages.of("Pack", List.of(), COLUMNS, rows);
        assertThat(pages.size()).isBetween(30, 60);
        List<String> all = new ArrayList<>();
        for (Scene page : pages) {
            assertThat(texts(page)).contains("number", "file");
            page.primitives().stream()
                    .filter(Primitive.Text.class::isInstance)
                    .map(Primitive.Text.class::cast)
                    .forEach(t -> assertThat(t.y()).isBetween(9.0, 200.0));
            all.addAll(texts(page));
        }
        for (int i = 0; i < 1500; i++) assertThat(all).containsOnlyOnce("N-" + i);
        assertThat(texts(pages.get(pages.size() - 1))).contains("Pack · page " + pages.size() + " of " + pages.size());
    }

    @Test
    void aRowThatIsHigherThanAPageGoesOnOnTheNext() {
        String long1 = "word ".repeat(900).strip();
        List<Scene> pages = TablePages.of("Pack", List.of(), COLUMNS, List.of(List.of("N", long1)));
        assertThat(pages.size()).isGreaterThan(1);
        String said = pages.stream()
                .flatMap(p -> texts(p).stream())
                .filter(t -> t.startsWith("word"))
                .reduce("", (a, b) -> a + " " + b)
                .strip();
        assertThat(said).isEqualTo(long1);
    }

    @Test
    void breaksBehindBlanksAndSlashesElseWhereTheColumnEnds() {
        assertThat(TablePages.wrap("TG40 Tide gauge/3000 Encoder head/plate.dxf", 20))
                .containsExactly("TG40 Tide gauge/", "3000 Encoder head/", "plate.dxf");
        assertThat(TablePages.wrap("x".repeat(25), 11)).containsExactly("x".repeat(10), "x".repeat(10), "x".repeat(5));
        assertThat(TablePages.wrap("", 10)).containsExactly("");
        assertThat(TablePages.wrap("a\nb", 10)).containsExactly("a", "b");
        assertThat(TablePages.wrap("abc", 1)).containsExactly("a", "b", "c");
        for (String line : TablePages.wrap("some words / and/paths of all kinds", 12))
            assertThat(line.length()).isLessThan(12);
    }
}
