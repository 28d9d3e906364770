package mintshelf.core.desk;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Optional;
import java.util.OptionalInt;
import mintshelf.core.desk.DeskRules.Act;
import mintshelf.core.desk.DeskRules.Word;
import mintshelf.core.desk.SaveTold.Choice;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;

class SaveToldTest {
    private static Optional<SaveTold> told(Word word, Act act, String holder, OptionalInt differences) {
        return SaveTold.of(word, act, "TG40-3030", holder, differences);
    }

    @Test
    void ofAHeldFileItIsSaidHowFarItIsAhead() {
        SaveTold told = told(Word.AHEAD, Act.CHECK_IN, "", OptionalInt.of(4)).orElseThrow();
        assertThat(told.title()).isEqualTo("TG40-3030 is ahead: 4 differences");
        assertThat(told.choices()).containsExactly(Choice.CHECK_IN, Choice.GO_ON);
        assertThat(told(Word.AHEAD, Act.CHECK_IN, "", OptionalInt.of(1))
                        .orElseThrow()
                        .title())
                .endsWith(": 1 difference");
        assertThat(told(Word.AHEAD, Act.CHECK_IN, "", OptionalInt.of(0))
                        .orElseThrow()
                        .title())
                .endsWith(": no difference that shows");
        assertThat(told(Word.AHEAD, Act.CHECK_IN, "", OptionalInt.empty())
                        .orElseThrow()
                        .title())
                .isEqualTo("TG40-3030 is ahead");
    }

    @ParameterizedTest
    @EnumSource(
            value = Act.class,
            names = {"TAKE", "ASK", "START", "COMPARE"})
    void ofOneThatIsNotHeldItsRemedyIsSaid(Act act) {
        SaveTold told =
                told(Word.STRAYED, act, "Tomasz Okrent", OptionalInt.empty()).orElseThrow();
        assertThat(told.title()).isEqualTo("TG40-3030 was changed without a hold");
        assertThat(told.choices()).endsWith(Choice.LOOK);
        switch (act) {
            case TAKE -> assertThat(told.choices()).startsWith(Choice.TAKE);
            case ASK -> assertThat(told.says()).isEqualTo("Tomasz Okrent holds it.");
            case START -> assertThat(told.says()).contains("next revision");
            default -> assertThat(told.says()).contains("nothing of yours is lost");
        }
    }

    @Test
    void aHolderWhoIsNotShownHasNoName() {
        assertThat(told(Word.STRAYED, Act.ASK, "", OptionalInt.empty())
                        .orElseThrow()
                        .says())
                .isEqualTo("Somebody else holds it.");
    }

    @ParameterizedTest
    @EnumSource(
            value = Word.class,
            names = {"EVEN", "BEHIND", "ABSENT", "SET"})
    void whatIsAsTheShelfHasItOrHadItIsNotWorthAWord(Word word) {
        assertThat(told(word, Act.LEAVE, "", OptionalInt.empty())).isEmpty();
    }

    @Test
    void aFileThatNoDocumentHasIsToldWhereItCanBeFiled() {
        assertThat(told(Word.NEW, Act.FILE, "", OptionalInt.empty())).isPresent();
        assertThat(told(Word.NEW, Act.LEAVE, "", OptionalInt.empty())).isEmpty();
    }

    @Test
    void choicesAreAnsweredByTheirCodes() {
        assertThat(Choice.CHECK_IN.code()).isEqualTo("check-in");
        assertThat(Choice.GO_ON.code()).isEqualTo("go-on");
    }
}
