package mintshelf.core.reference;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Map;
import mintshelf.core.reference.PackNames.File;
import mintshelf.core.reference.PackNames.Layout;
import org.junit.jupiter.api.Test;

/** Files of a pack and how they name each other. */
class PackNamesTest {
    private static final List<File> FILES = List.of(
            new File(1, List.of("TG40", "3000 Head"), "head.stp"),
            new File(2, List.of("TG40", "3000 Head"), "lid.stp"),
            new File(3, List.of("Library", "Screws"), "LID.stp"),
            new File(4, List.of("TG40"), "a:b.stp"));

    @Test
    void inOneFolderEqualNamesGetANumber() {
        assertThat(PackNames.places(FILES, Layout.ONE_FOLDER))
                .isEqualTo(Map.of(1L, "head.stp", 2L, "lid.stp", 3L, "LID (2).stp", 4L, "a_b.stp"));
    }

    @Test
    void asOnTheShelvesFoldersAreKeptAndMadeSafe() {
        assertThat(PackNames.places(FILES, Layout.AS_ON_SHELVES))
                .isEqualTo(Map.of(
                        1L, "TG40/3000 Head/head.stp",
                        2L, "TG40/3000 Head/lid.stp",
                        3L, "Library/Screws/LID.stp",
                        4L, "TG40/a_b.stp"));
        assertThat(PackNames.places(List.of(new File(1, List.of("..", "/etc"), "../x")), Layout.AS_ON_SHELVES)
                        .get(1L))
                .doesNotContain("..");
    }

    @Test
    void whatIsWrittenLeadsFromOneToTheOtherWhereverItIsUnpacked() {
        String head = "TG40/3000 Head/head.stp";
        assertThat(PackNames.written("lid.stp", head, "TG40/3000 Head/lid.stp")).isEmpty();
        assertThat(PackNames.written(".\\lid.stp", head, "TG40/3000 Head/lid.stp"))
                .isEmpty();
        assertThat(PackNames.written("..\\..\\Library\\Screws\\s.stp", head, "Library/Screws/s.stp"))
                .isEmpty();
        assertThat(PackNames.written("C:\\work\\s.stp", head, "Library/Screws/s.stp"))
                .contains("../../Library/Screws/s.stp");
        assertThat(PackNames.written("../../Library/Screws/s.stp", "head.stp", "s.stp"))
                .contains("s.stp");
        assertThat(PackNames.written("lid.stp", "head.stp", "LID (2).stp")).contains("LID (2).stp");
    }

    @Test
    void aLayoutStandsInAnAddress() {
        for (Layout one : Layout.values()) assertThat(Layout.of(one.code())).isEqualTo(one);
        assertThat(Layout.of("other")).isEqualTo(Layout.ONE_FOLDER);
    }
}
