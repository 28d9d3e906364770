package mintshelf.core.search;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Random;
import mintshelf.core.search.SearchText.Asked;
import mintshelf.core.search.SearchText.Compare;
import mintshelf.core.search.SearchText.Said;
import org.junit.jupiter.api.Test;

class SearchTextTest {
    private static List<SearchText.Part> parts(String text) {
        return SearchText.read(text).parts();
    }

    @Test
    void wordsPhrasesAndQuestionsArePartedAsTheyStand() {
        assertThat(parts("gland \"hole pattern\" mass>2 stage:\"in review\",released -kind:drawing -held"))
                .containsExactly(
                        new Said("gland", false, false, "gland"),
                        new Said("hole pattern", true, false, "\"hole pattern\""),
                        new Asked("mass", Compare.MORE, List.of("2"), false, "mass>2"),
                        new Asked(
                                "stage",
                                Compare.IS,
                                List.of("in review", "released"),
                                false,
                                "stage:\"in review\",released"),
                        new Asked("kind", Compare.IS, List.of("drawing"), true, "-kind:drawing"),
                        new Said("held", false, true, "-held"));
        assertThat(parts("a>=1 a<=1 a<1 a=1"))
                .extracting(p -> ((Asked) p).compare())
                .containsExactly(Compare.AT_LEAST, Compare.AT_MOST, Compare.LESS, Compare.IS);
    }

    @Test
    void whatOnlyLooksLikeAQuestionIsWords() {
        assertThat(parts("Note: 4X O5.5 3:1 -3030 TG40-3030 - :x"))
                .allSatisfy(p -> assertThat(p).isInstanceOf(Said.class))
                .extracting(SearchText.Part::not)
                .containsOnly(false);
        assertThat(SearchText.read("AB 12 kind:drawing 034 -x").plain()).isEqualTo("AB 12 034");
        assertThat(SearchText.words(")( +gland -plate* @@ TG40-3030"))
                .containsExactly("gland", "plate", "tg40", "3030");
    }

    @Test
    void whatIsNotReadIsSaid() {
        assertThat(SearchText.read("   ").isEmpty()).isTrue();
        assertThat(SearchText.read("word ".repeat(10_000)).leftOut())
                .containsExactly("all behind the first 500 letters", "all behind the first 20 conditions");
        assertThat(SearchText.read("w".repeat(500)).leftOut()).isEmpty();
        assertThat(SearchText.read("a\u202Eb \u0000c").parts())
                .extracting(SearchText.Part::source)
                .containsExactly("ab", "c");
    }

    /** Whatever is typed is read, and its parts put together give it back. */
    @Test
    void everyTextIsReadAndPartedWithoutLoss() {
        Random random = new Random(18);
        String signs = "ab:<>=\",-  (){}[]*~^\\/&|!+.é中";
        for (int n = 0; n < 3000; n++) {
            StringBuilder text = new StringBuilder();
            for (int i = random.nextInt(30); i > 0; i--) text.append(signs.charAt(random.nextInt(signs.length())));
            SearchText read = SearchText.read(text.toString());
            String together = String.join(
                    "", read.parts().stream().map(SearchText.Part::source).toList());
            assertThat(together.replace(" ", ""))
                    .as(text.toString())
                    .isEqualTo(read.leftOut().isEmpty() ? text.toString().replace(" ", "") : together.replace(" ", ""));
        }
    }

    @Test
    void theLineThatHasMostOfTheWordsIsShown() {
        assertThat(SearchText.line(List.of("brack", "slu"), "sluice\nthe brackish sluice\nx"))
                .isEqualTo("the brackish sluice");
        assertThat(SearchText.line(List.of("ice"), "sluice")).isEmpty();
    }
}
