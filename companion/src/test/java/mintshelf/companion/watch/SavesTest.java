package mintshelf.companion.watch;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.Test;

class SavesTest {
    private static final long MS = 1_000_000;
    private final Saves saves = new Saves(Duration.ofMillis(700), Duration.ofSeconds(20));

    private List<String> over(long ms) {
        return saves.over(ms * MS, path -> false);
    }

    @Test
    void aSaveIsOverWhenNothingTouchedItForAMomentAndIsGivenOnce() {
        saves.touched("a.dxf", 0);
        assertThat(over(600)).isEmpty();
        saves.touched("a.dxf", 600 * MS);
        assertThat(over(1_200)).isEmpty();
        assertThat(over(1_300)).containsExactly("a.dxf");
        assertThat(over(5_000)).isEmpty();
        assertThat(saves.isOpen()).isFalse();
    }

    @Test
    void aStormOfAHundredSavesIsFewNotAHundred() {
        List<String> all = new ArrayList<>();
        for (int i = 0; i < 100; i++) {
            saves.touched("a.dxf", i * 600L * MS);
            all.addAll(over(i * 600L + 1));
        }
        all.addAll(over(100 * 600L + 1_000));
        assertThat(all)
                .as("a minute of saves, each before the one before was over")
                .hasSizeLessThanOrEqualTo(4);
    }

    @Test
    void whatAProgramHasOpenIsAskedAgainAMomentLater() {
        saves.touched("a.dxf", 0);
        assertThat(saves.over(800 * MS, path -> true)).isEmpty();
        assertThat(over(1_000)).as("asked again after a moment").isEmpty();
        assertThat(over(1_500)).containsExactly("a.dxf");
    }

    @Test
    void filesAreIndependentOfEachOther() {
        saves.touched("a.dxf", 0);
        saves.touched("b.dxf", 500 * MS);
        assertThat(over(700)).containsExactly("a.dxf");
        assertThat(over(1_200)).containsExactly("b.dxf");
    }

    @Test
    void whatProgramsWriteBesideAFileIsKnownByItsName() {
        assertThat(List.of("~$part.dxf", "part.dxf~", "part.tmp", "part.dwl2", ".~lock.part.dxf#", "PART.BAK", "x.swp"))
                .allMatch(Saves::isBeside);
        assertThat(List.of("part.dxf", "tmp.dxf", "lock plate.stp", "part")).noneMatch(Saves::isBeside);
    }
}
