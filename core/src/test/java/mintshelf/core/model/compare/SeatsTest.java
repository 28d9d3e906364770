package mintshelf.core.model.compare;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import mintshelf.core.model.compare.Seats.Fate;
import mintshelf.core.model.compare.Seats.Round;
import mintshelf.core.model.compare.Seats.Seat;
import org.junit.jupiter.api.Test;

/** Where a component is seated, and what of that another one in its place keeps. */
class SeatsTest {
    private static final double[] THERE = {1, 0, 0, 30, 0, 1, 0, 20, 0, 0, 1, 0, 0, 0, 0, 1};
    /** Turned over about x, so that its z looks down; its top lies on z = 8. */
    private static final double[] OVER = {1, 0, 0, 30, 0, -1, 0, 20, 0, 0, -1, 16, 0, 0, 0, 1};

    private static List<Round> of(String name, Blank blank, double[] matrix) {
        return Seats.of(name, blank.model().bodies().get(0)).stream()
                .map(r -> r.in(matrix))
                .toList();
    }

    private static Blank plate() {
        return new Blank(120, 80, 8).pattern(5.5, 10);
    }

    private static List<Seat> seats(Blank now) {
        List<Round> cover = of("cover", new Blank(120, 80, 8).pattern(5.5, 10).boss(0, 0, 20, 5), OVER);
        return Seats.compare(of("plate", plate().hole(0, 0, 20.2), THERE), of("plate", now, THERE), cover);
    }

    @Test
    void holesThatLieOnOneAxisAndABossInItsBoreAreSeats() {
        List<Seat> seats = seats(new Blank(120, 80, 8).pattern(5.5, 10).hole(0, 0, 20.2));
        assertThat(seats).hasSize(5).allSatisfy(s -> assertThat(s.fate()).isEqualTo(Fate.FITS));
        assertThat(seats.stream().map(Seat::says)).contains("round ⌀ 20 of cover meets ⌀ 20.2 as before");
    }

    @Test
    void whatIsLostIsNamedWithItsPlaceAndWhatIsTooNarrowDoesNotGoIn() {
        List<Seat> seats = seats(new Blank(120, 80, 8).pattern(6.6, 12).hole(0, 0, 19));
        assertThat(seats.stream().filter(s -> s.fate() == Fate.LOST)).hasSize(5);
        assertThat(seats.stream().map(Seat::says))
                .anyMatch(s -> s.startsWith("hole ⌀ 5.5 of cover at (80, 50, 12) has nothing on its axis any more"))
                .contains("round ⌀ 20 of cover meets ⌀ 19, was ⌀ 20.2: it does not go in");
        assertThat(seats(new Blank(120, 80, 8).pattern(6.6, 10).hole(0, 0, 20.2)).stream()
                        .filter(s -> s.fate() == Fate.OTHERWISE))
                .hasSize(4)
                .allSatisfy(s -> assertThat(s.says()).isEqualTo("hole ⌀ 5.5 of cover meets ⌀ 6.6, was ⌀ 5.5"));
    }

    @Test
    void whatIsFarAlongItsAxisOrMuchWiderIsNoSeat() {
        List<Round> far = of("far", new Blank(120, 80, 8).pattern(5.5, 10), new double[] {
            1, 0, 0, 30, 0, 1, 0, 20, 0, 0, 1, 40, 0, 0, 0, 1
        });
        assertThat(Seats.compare(of("plate", plate(), THERE), List.of(), far)).isEmpty();
        List<Round> wide = of("wide", new Blank(120, 80, 8).pattern(12, 10), OVER);
        assertThat(Seats.compare(of("plate", new Blank(120, 80, 8).pattern(5.5, 10), THERE), List.of(), wide))
                .isEmpty();
    }
}
