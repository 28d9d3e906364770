package mintshelf.core.desk;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Optional;
import mintshelf.core.base.ContentHash;
import mintshelf.core.desk.DeskRules.Act;
import mintshelf.core.desk.DeskRules.Brought;
import mintshelf.core.desk.DeskRules.Held;
import mintshelf.core.desk.DeskRules.OnShelf;
import mintshelf.core.desk.DeskRules.Standing;
import mintshelf.core.desk.DeskRules.Word;
import mintshelf.core.document.VersionName;
import org.junit.jupiter.api.Test;

class DeskRulesTest {
    private static final ContentHash THREE = ContentHash.compute(new byte[] {3});
    private static final ContentHash FOUR = ContentHash.compute(new byte[] {4});
    private static final ContentHash MINE = ContentHash.compute(new byte[] {9});

    private static Optional<Brought> brought(int version, ContentHash content) {
        return Optional.of(new Brought(VersionName.main(version), content, false));
    }

    private static Optional<OnShelf> shelf(Held held, boolean canTake, boolean canStart) {
        return Optional.of(new OnShelf(VersionName.main(4), FOUR, Optional.empty(), held, canTake, canStart));
    }

    private static Standing standing(Optional<Brought> record, ContentHash disk, Optional<OnShelf> shelf) {
        return DeskRules.standing(record, Optional.of(disk), shelf);
    }

    @Test
    void aFileIsEvenBehindAbsentOrNew() {
        Optional<OnShelf> free = shelf(Held.BY_NOBODY, true, false);
        assertThat(standing(brought(4, FOUR), FOUR, free)).isEqualTo(new Standing(Word.EVEN, Act.LEAVE));
        assertThat(standing(Optional.empty(), FOUR, free).word())
                .as("without a record the bytes tell")
                .isEqualTo(Word.EVEN);
        assertThat(standing(brought(3, THREE), THREE, free)).isEqualTo(new Standing(Word.BEHIND, Act.BRING));
        assertThat(DeskRules.standing(brought(4, FOUR), Optional.empty(), free))
                .isEqualTo(new Standing(Word.ABSENT, Act.BRING));
        assertThat(standing(Optional.empty(), MINE, Optional.empty())).isEqualTo(new Standing(Word.NEW, Act.FILE));
    }

    @Test
    void aFileWithoutARecordWhoseBytesAreAnOlderVersionsIsBehind() {
        Optional<OnShelf> known = Optional.of(
                new OnShelf(VersionName.main(4), FOUR, Optional.of(VersionName.main(2)), Held.BY_NOBODY, true, false));
        assertThat(standing(Optional.empty(), THREE, known).word()).isEqualTo(Word.BEHIND);
    }

    @Test
    void whatWasBroughtAtAnOlderVersionOnPurposeIsLeftAlone() {
        assertThat(standing(
                        Optional.of(new Brought(VersionName.main(3), THREE, true)),
                        THREE,
                        shelf(Held.BY_NOBODY, true, false)))
                .isEqualTo(new Standing(Word.SET, Act.LEAVE));
    }

    @Test
    void aChangedFileIsAheadUnderMyHoldAndStrayedWithoutOne() {
        assertThat(standing(brought(4, FOUR), MINE, shelf(Held.BY_ME, false, false)))
                .isEqualTo(new Standing(Word.AHEAD, Act.CHECK_IN));
        assertThat(standing(brought(4, FOUR), MINE, shelf(Held.BY_NOBODY, true, false)))
                .isEqualTo(new Standing(Word.STRAYED, Act.TAKE));
        assertThat(standing(brought(4, FOUR), MINE, shelf(Held.BY_ANOTHER, false, false)))
                .isEqualTo(new Standing(Word.STRAYED, Act.ASK));
        assertThat(standing(brought(4, FOUR), MINE, shelf(Held.BY_NOBODY, false, true)))
                .isEqualTo(new Standing(Word.STRAYED, Act.START));
    }

    @Test
    void whenTheShelfMovedOnMeanwhileTheTwoAreCompared() {
        assertThat(standing(brought(3, THREE), MINE, shelf(Held.BY_ME, false, false)))
                .isEqualTo(new Standing(Word.STRAYED, Act.COMPARE));
        assertThat(standing(Optional.empty(), MINE, shelf(Held.BY_NOBODY, true, false))
                        .act())
                .as("its true base is not known")
                .isEqualTo(Act.COMPARE);
    }

    @Test
    void nothingIsOverwrittenWhileItsBytesAreInNoVersion() {
        Optional<OnShelf> free = shelf(Held.BY_NOBODY, true, false);
        for (ContentHash disk : new ContentHash[] {THREE, FOUR, MINE}) {
            for (Optional<Brought> record : List.of(Optional.<Brought>empty(), brought(3, THREE), brought(4, FOUR))) {
                boolean known = disk.equals(FOUR)
                        || record.filter(r -> r.content().equals(disk)).isPresent();
                assertThat(DeskRules.wouldLose(record, Optional.of(disk), free)).isEqualTo(!known);
            }
        }
    }

    /** "t1/3" is another version than "3": what was brought of a trial is no base of the main line, nor the other way round. */
    @Test
    void aVersionOfATrialIsNoneOfTheMainLine() {
        OnShelf main = shelf(Held.BY_ME, false, false).orElseThrow();
        OnShelf trial = new OnShelf(new VersionName(1, 4), FOUR, Optional.empty(), Held.BY_ME, false, false);
        Optional<Brought> ofTrial = Optional.of(new Brought(new VersionName(1, 4), FOUR, false));
        assertThat(standing(ofTrial, MINE, Optional.of(trial))).isEqualTo(new Standing(Word.AHEAD, Act.CHECK_IN));
        assertThat(standing(brought(4, FOUR), MINE, Optional.of(trial)))
                .isEqualTo(new Standing(Word.STRAYED, Act.COMPARE));
        assertThat(standing(ofTrial, MINE, Optional.of(main))).isEqualTo(new Standing(Word.STRAYED, Act.COMPARE));
        assertThat(standing(Optional.of(new Brought(new VersionName(1, 2), THREE, false)), THREE, Optional.of(main))
                        .word())
                .as("a trial is over: its version lies here unchanged")
                .isEqualTo(Word.BEHIND);
    }
}
