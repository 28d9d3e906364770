package mintshelf.core.change;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;

class PaperSpotTest {
    private static final List<PaperSpot> CHAPTERS = List.of(
            new PaperSpot("4 Tests", 5),
            new PaperSpot("4.2 Pressure test", 7),
            new PaperSpot("Pressure", 9),
            new PaperSpot("14.2 Pressure of the wind", 12));

    private static Optional<Integer> page(String typed) {
        return PaperSpot.chapter(typed, CHAPTERS).map(PaperSpot::page);
    }

    @Test
    void aChapterIsNamedByItsTitleItsBeginningOrAWordOfIt() {
        assertThat(page("pressure")).as("the one that is called so goes first").contains(9);
        assertThat(page(" 4.2 ")).contains(7);
        assertThat(page("4.2  PRESSURE test")).contains(7);
        assertThat(page("wind")).contains(12);
        assertThat(page("salt")).isEmpty();
        assertThat(page("  ")).isEmpty();
    }

    @Test
    void aPageIsNamedByItsNumber() {
        assertThat(PaperSpot.page("page 7")).contains(7);
        assertThat(PaperSpot.page("P. 12")).contains(12);
        assertThat(PaperSpot.page("7")).isEmpty();
        assertThat(PaperSpot.page("page 9999999")).isEmpty();
        assertThat(new PaperSpot("", 7).says()).isEqualTo("page 7");
        assertThat(new PaperSpot("4.2 Pressure test", 7).says()).isEqualTo("4.2 Pressure test, page 7");
    }
}
