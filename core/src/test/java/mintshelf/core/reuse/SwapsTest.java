package mintshelf.core.reuse;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import mintshelf.core.base.Refusal;
import mintshelf.core.reuse.Swaps.Pair;
import mintshelf.core.structure.StructureGraph;
import mintshelf.core.structure.StructureGraph.Use;
import org.junit.jupiter.api.Test;

/** What pairs may be swapped together. */
class SwapsTest {
    private static String code(Pair... pairs) {
        return Swaps.refusal(List.of(pairs), id -> "N-" + id).map(Refusal::code).orElse("");
    }

    @Test
    void severalGoOutForOneAndForOthers() {
        assertThat(code(new Pair(1, 2))).isEmpty();
        assertThat(code(new Pair(1, 2), new Pair(3, 2), new Pair(4, 5))).isEmpty();
    }

    @Test
    void nothingComesInForItselfForTwoOrInACircle() {
        assertThat(code()).isEqualTo("swap.none");
        assertThat(code(new Pair(1, 1))).isEqualTo("swap.same");
        assertThat(code(new Pair(1, 2), new Pair(1, 3))).isEqualTo("swap.twice");
        assertThat(code(new Pair(1, 2), new Pair(2, 1))).isEqualTo("swap.circle");
        assertThat(code(new Pair(1, 2), new Pair(2, 3))).isEqualTo("swap.circle");
        List<Pair> many = new ArrayList<>();
        for (int i = 0; i <= Swaps.MOST; i++) many.add(new Pair(i, 1000 + i));
        assertThat(code(many.toArray(new Pair[0]))).isEqualTo("swap.many");
        assertThat(Swaps.refusal(List.of(new Pair(7, 7)), id -> "N-" + id)
                        .orElseThrow()
                        .reason())
                .contains("N-7");
    }

    @Test
    void whatStandsInWhatComesInWouldContainItself() {
        StructureGraph graph = StructureGraph.of(List.of(new Use(1, 2, 1, 1), new Use(2, 3, 1, 1)));
        assertThat(Swaps.wouldContainItself(1, 1, graph)).isTrue();
        assertThat(Swaps.wouldContainItself(3, 1, graph)).isTrue();
        assertThat(Swaps.wouldContainItself(1, 3, graph)).isFalse();
        assertThat(Swaps.wouldContainItself(9, 1, graph)).isFalse();
    }

    @Test
    void pairsStandInAnAddressAndWhatIsNoneIsPassedOver() {
        List<Pair> pairs = List.of(new Pair(12, 15), new Pair(18, 19));
        assertThat(Pair.many(Pair.joined(pairs))).isEqualTo(pairs);
        assertThat(Pair.many("")).isEmpty();
        assertThat(Pair.many("1-2-3,a-b,-,1,99999999999999999999-1,4-5")).containsExactly(new Pair(4, 5));
    }
}
