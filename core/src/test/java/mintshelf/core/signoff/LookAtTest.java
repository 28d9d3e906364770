package mintshelf.core.signoff;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import mintshelf.core.base.Outcome;
import org.junit.jupiter.api.Test;

/** Papers beside a round, as somebody writes them. */
class LookAtTest {
    private static List<LookAt> read(String typed) {
        return ((Outcome.Granted<List<LookAt>>) LookAt.read(typed)).value();
    }

    /** With up to two versions: the one that is looked at, the one that it is compared with. */
    private static LookAt of(String number, Integer... versions) {
        return new LookAt(
                number,
                Stream.of(versions).findFirst(),
                Stream.of(versions).skip(1).findFirst());
    }

    @Test
    void numbersWithVersionsAndWhatDiffersAreRead() {
        assertThat(read("TG40-3030, TG40-3030 v3\nTG40-3030 V3 to v5;  TG40 3040 v2-v1 "))
                .containsExactly(of("TG40-3030"), of("TG40-3030", 3), of("TG40-3030", 5, 3), of("TG40 3040", 2, 1));
    }

    @Test
    void nothingIsNothingAndTheSameTwiceIsOnce() {
        assertThat(read("  ,\n;")).isEmpty();
        assertThat(read("A-1,A-1 , A-1")).containsExactly(of("A-1"));
        assertThat(read("A-1 v4 to v4")).containsExactly(of("A-1", 4));
    }

    @Test
    void aNumberThatLooksLikeAVersionStaysANumber() {
        assertThat(read("v3")).containsExactly(of("v3"));
        assertThat(read("A v12345678901")).containsExactly(of("A v12345678901"));
    }

    @Test
    void moreThanAnybodyLooksAtIsRefused() {
        String many = IntStream.rangeClosed(1, LookAt.MOST + 1)
                .mapToObj(i -> "N-" + i)
                .collect(Collectors.joining(","));
        assertThat(LookAt.read(many).refusal()).isPresent();
        assertThat(LookAt.read(many.substring(0, many.lastIndexOf(','))).isGranted())
                .isTrue();
    }
}
