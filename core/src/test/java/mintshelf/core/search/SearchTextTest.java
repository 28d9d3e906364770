package mintshelf.core.search;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;

class SearchTextTest {
    @Test
    void onlyLettersAndDigitsReachAQuery() {
        assertThat(SearchText.read(")( +gland -plate* \"x\" @@").words()).containsExactly("gland", "plate");
        assertThat(SearchText.read("TG40-3030").words()).containsExactly("tg40", "3030");
        assertThat(SearchText.read("   ").isEmpty()).isTrue();
        assertThat(SearchText.read("a b").words()).isEmpty();
    }

    @Test
    void aLongTextIsCut() {
        assertThat(SearchText.read("word ".repeat(10_000)).words()).hasSizeLessThanOrEqualTo(12);
        assertThat(SearchText.read("w".repeat(10_000)).text()).hasSizeLessThanOrEqualTo(200);
    }

    @Test
    void whatAsksForAFactIsNotSearchedForAsWords() {
        SearchText mixed = SearchText.read("gland mass>2 stage:\"in review\" held:me plate rev=B");
        assertThat(mixed.words()).containsExactly("gland", "plate");
        assertThat(mixed.notUnderstood()).containsExactly("mass>2", "stage:\"in review\"", "held:me", "rev=B");
        assertThat(SearchText.read("Note: 4X O5.5 3:1").notUnderstood()).isEmpty();
        assertThat(SearchText.read("mass>2").words()).isEmpty();
    }
}
