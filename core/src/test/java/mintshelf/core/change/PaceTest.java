package mintshelf.core.change;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.OptionalInt;
import java.util.Random;
import mintshelf.core.change.Pace.Stays;
import org.junit.jupiter.api.Test;

class PaceTest {
    @Test
    void theStageWherePapersStayLongestComesFirstRequestsBeforeOrders() {
        List<Pace> paces = Pace.of(
                List.of(
                        new Stays(PaperType.ORDER, "Under way", 0, 20, 1),
                        new Stays(PaperType.REQUEST, "Being written", 0, 1, 4),
                        new Stays(PaperType.REQUEST, "Being written", 1, 3, 1),
                        new Stays(PaperType.REQUEST, "Before the board", 1, 6, 2)),
                3);
        assertThat(paces)
                .containsExactly(
                        new Pace(PaperType.REQUEST, "Before the board", 2, 6, 6, of(-1, 6, -1)),
                        new Pace(PaperType.REQUEST, "Being written", 5, 1, 3, of(1, 3, -1)),
                        new Pace(PaperType.ORDER, "Under way", 1, 20, 20, of(20, -1, -1)));
    }

    private static List<OptionalInt> of(int... days) {
        List<OptionalInt> all = new ArrayList<>();
        for (int day : days) all.add(day < 0 ? OptionalInt.empty() : OptionalInt.of(day));
        return all;
    }

    @Test
    void nothingHasNoPaceAndAPartOutsideCountsWithTheNearest() {
        assertThat(Pace.of(List.of(), 4)).isEmpty();
        assertThat(Pace.of(List.of(new Stays(PaperType.ORDER, "s", 0, 3, 0)), 4))
                .isEmpty();
        assertThat(Pace.of(
                                List.of(
                                        new Stays(PaperType.ORDER, "s", 9, 3, 1),
                                        new Stays(PaperType.ORDER, "s", -2, 5, 1)),
                                2)
                        .get(0)
                        .medians())
                .isEqualTo(of(5, 3));
    }

    /** Counted by days it is what it is counted one by one. */
    @Test
    void ranksAreThoseOfTheSortedDays() {
        for (long seed = 0; seed < 300; seed++) {
            Random random = new Random(seed);
            List<Integer> days = new ArrayList<>();
            List<Stays> stays = new ArrayList<>();
            for (int i = 0; i <= random.nextInt(12); i++) {
                int stayed = random.nextInt(40);
                int papers = 1 + random.nextInt(5);
                stays.add(new Stays(PaperType.REQUEST, "s", random.nextInt(4), stayed, papers));
                days.addAll(Collections.nCopies(papers, stayed));
            }
            Collections.sort(days);
            Pace pace = Pace.of(stays, 4).get(0);
            assertThat(pace.papers()).isEqualTo(days.size());
            assertThat(pace.median()).as("seed %s", seed).isEqualTo(days.get((days.size() * 50 + 99) / 100 - 1));
            assertThat(pace.ninety()).as("seed %s", seed).isEqualTo(days.get((days.size() * 90 + 99) / 100 - 1));
        }
    }
}
