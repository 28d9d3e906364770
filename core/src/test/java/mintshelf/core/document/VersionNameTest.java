package mintshelf.core.document;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

class VersionNameTest {
    @Test
    void isCalledByItsLineAndNumber() {
        assertThat(VersionName.main(7).says()).isEqualTo("7");
        assertThat(VersionName.main(7).address()).isEqualTo("7");
        assertThat(new VersionName(2, 13).says()).isEqualTo("t2/13");
        assertThat(new VersionName(2, 13).address()).isEqualTo("t2-13");
        assertThat(VersionName.line(3)).isEqualTo("t3");
    }

    @Test
    void readsWhatItWrote() {
        for (VersionName one : new VersionName[] {VersionName.main(1), VersionName.main(1200), new VersionName(9, 4)})
            assertThat(VersionName.of(one.address())).contains(one);
        assertThat(VersionName.line("t12")).contains(12);
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "",
                "0",
                "-1",
                "t1",
                "t0-1",
                "t1-0",
                "t1/2",
                "T1-2",
                "1 ",
                "١",
                "t1-2-3",
                "9999999999",
                "t123456-1"
            })
    void readsNothingElse(String written) {
        assertThat(VersionName.of(written)).isEmpty();
    }

    @ParameterizedTest
    @ValueSource(strings = {"", "main", "t0", "t", "1", "T1", "t1-2"})
    void readsNoOtherLine(String written) {
        assertThat(VersionName.line(written)).isEmpty();
    }
}
