package mintshelf.core.drawing.check;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import mintshelf.core.drawing.Primitive;
import mintshelf.core.drawing.Scene;
import mintshelf.core.drawing.Style;
import org.junit.jupiter.api.Test;

class TextRoomTest {
    private static final Style STYLE = new Style("0", Style.INK, 0.25, List.of());

    private static Primitive text(double x, double y, double factor, int across, String says) {
        return new Primitive.Text(STYLE, x, y, 2.5, 0, factor, across, 0, false, says);
    }

    private static Primitive line(double... points) {
        return new Primitive.Polyline(STYLE, points, false);
    }

    /** Two cells side by side, 30 and 20 wide, 6 high. */
    private static List<Primitive> table() {
        return new ArrayList<>(List.of(
                line(0, 0, 50, 0), line(0, 6, 50, 6), line(0, 0, 0, 6), line(30, 0, 30, 6), line(50, 0, 50, 6)));
    }

    private static TextRoom room(List<Primitive> all) {
        return TextRoom.of(new Scene(all, Map.of(), Map.of()));
    }

    private static List<String> leaving(Primitive... texts) {
        List<Primitive> all = table();
        all.addAll(List.of(texts));
        return room(all).leaving().stream().map(Primitive.Text::text).toList();
    }

    @Test
    void aTextThatRunsOverItsCellsSideIsTold() {
        assertThat(leaving(text(1, 2, 1, 0, "holes"), text(1, 2, 1, 0, "holes for the M6 glands, four")))
                .containsExactly("holes for the M6 glands, four");
        assertThat(leaving(text(48, 2, 1, 2, "reaches back to the left"))).hasSize(1);
        assertThat(leaving(text(15, 2, 1, 1, "in the middle of the first"))).hasSize(1);
        assertThat(leaving(text(1, 2, 0.5, 0, "holes for the M6 glands, four"))).isEmpty();
    }

    @Test
    void aTextAcrossALineThatIsNoCellsSideIsNotTold() {
        List<Primitive> all = table();
        all.add(text(1, 22, 1, 0, "a note over a centre line of the view"));
        all.add(line(20, 15, 20, 40));
        assertThat(room(all).leaving()).isEmpty();
        // A short tick between the lines is no side.
        all = new ArrayList<>(List.of(line(0, 0, 50, 0), line(0, 6, 50, 6), line(20, 2, 20, 4)));
        all.add(text(1, 2, 1, 0, "holes for the M6 glands"));
        assertThat(room(all).leaving()).isEmpty();
    }

    @Test
    void textsThatMeetAreToldAndTheSameOneTwiceIsNot() {
        Primitive first = text(10, 100, 1, 0, "Ebbcote Gauge Works");
        assertThat(room(List.of(first, text(20, 101, 1, 0, "In preparation"))).meeting())
                .hasSize(1);
        assertThat(room(List.of(first, first)).meeting()).isEmpty();
        assertThat(room(List.of(first, text(10, 103, 1, 0, "In preparation"))).meeting())
                .isEmpty();
        assertThat(room(List.of(first, text(200, 100, 1, 0, "In preparation"))).meeting())
                .isEmpty();
    }

    @Test
    void aSheetFullOfTextsIsLookedThroughQuickly() {
        List<Primitive> all = new ArrayList<>();
        for (int i = 0; i < 40_000; i++)
            all.add(text(i % 200 * 60, Math.floorDiv(i, 200) * 5.0, 1, 0, "one of many texts"));
        TextRoom room = room(all);
        assertThat(room.meeting()).isEmpty();
        assertThat(room.leaving()).isEmpty();
    }
}
