package mintshelf.core.hold;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import mintshelf.core.hold.Became.Fate;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

class BecameTest {
    @Test
    void whatIsWrittenIsReadBack() {
        List<Became> all = List.of(
                new Became(12, Fate.VERSION, 3, 88),
                new Became(7, Fate.STRAY, 901, 0),
                new Became(8, Fate.UNCHANGED, 1, 5),
                new Became(10, Fate.TRIAL, 2, 91),
                new Became(9, Fate.ONLY_SAVED, 44, 6));
        assertThat(Became.join(all)).isEqualTo("12v3.88,7s901.0,8u1.5,10t2.91,9o44.6");
        assertThat(Became.read(Became.join(all))).isEqualTo(all);
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "",
                ",",
                "12v3.1,",
                "12x3.1",
                "v3.1",
                "12v.1",
                "12v3",
                "12v3.",
                "12v3.1;7s1.0",
                "-1v3.1",
                "1234567890123456789v1.1",
                "12v3.1 "
            })
    void madeUpAddressesSayNothing(String joined) {
        assertThat(Became.read(joined)).isEmpty();
    }
}
