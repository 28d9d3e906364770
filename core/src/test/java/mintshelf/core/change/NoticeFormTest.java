package mintshelf.core.change;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Map;
import mintshelf.core.base.Refusal;
import mintshelf.core.change.NoticeForm.Block;
import mintshelf.core.change.NoticeForm.Show;
import mintshelf.core.drawing.Box;
import mintshelf.core.drawing.Primitive;
import mintshelf.core.drawing.Scene;
import mintshelf.core.drawing.Style;
import mintshelf.core.drawing.compare.Comparison;
import org.assertj.core.data.Offset;
import org.junit.jupiter.api.Test;

class NoticeFormTest {
    private static final Style THICK = new Style("0", Style.INK, 0.7, List.of(4.0, 2.0));

    private static List<String> codes(Block... blocks) {
        return new NoticeForm(List.of(blocks)).ask().stream().map(Refusal::code).toList();
    }

    private static Block words(String text) {
        return new Block(Show.TEXT, text);
    }

    @Test
    void aFormNamesItsNoticeAndItsLines() {
        assertThat(NoticeForm.USUAL.ask()).isEmpty();
        assertThat(codes(Block.of(Show.HEAD), Block.of(Show.LINES))).isEmpty();
        assertThat(codes(Block.of(Show.REASON))).containsExactly("notice.lacks", "notice.lacks");
        assertThat(codes(Block.of(Show.HEAD), Block.of(Show.LINES), Block.of(Show.LINES)))
                .containsExactly("notice.twice");
        assertThat(codes(Block.of(Show.HEAD), Block.of(Show.LINES), words("a"), words("b")))
                .as("own words as often as wanted")
                .isEmpty();
        assertThat(codes(Block.of(Show.HEAD), Block.of(Show.LINES), words(" "))).containsExactly("notice.empty");
        assertThat(codes(Block.of(Show.HEAD), Block.of(Show.LINES), words("x".repeat(1001))))
                .containsExactly("notice.words");
        List<Block> many = new ArrayList<>(Collections.nCopies(30, words("a")));
        many.add(Block.of(Show.HEAD));
        many.add(Block.of(Show.LINES));
        assertThat(new NoticeForm(many).ask()).extracting(Refusal::code).containsExactly("notice.long");
    }

    @Test
    void aFieldThatDoesNotExistIsNamed() {
        List<Refusal> wrong = new NoticeForm(
                        List.of(Block.of(Show.HEAD), Block.of(Show.LINES), words("For {order} of {customer}, {}")))
                .ask();
        assertThat(wrong)
                .extracting(Refusal::reason)
                .containsExactly("A notice has no field {customer}.", "A notice has no field {}.");
        assertThat(NoticeForm.filled("{order}: {cost}, {other} $1", Map.of("order", "CO 1 $2", "cost", "")))
                .isEqualTo("CO 1 $2: , {other} $1");
    }

    @Test
    void blocksStandInTheirOrderOnThePages() {
        ChangeNotice notice = new ChangeNotice(
                "CN 1",
                "CO 1",
                "Duplex",
                "pits",
                "23 Nov 2026",
                "",
                List.of(),
                List.of(new ChangeNotice.Row(
                        "TG40-1020",
                        "Cone",
                        "is revised",
                        "A",
                        "B",
                        2,
                        "why",
                        "ab".repeat(32),
                        "left: mass 0.41 → 0.43",
                        "EGW-1 added (4 pc)")),
                List.of(),
                "",
                0,
                List.of("Hedda signed."),
                List.of());
        NoticeForm form = new NoticeForm(List.of(
                Block.of(Show.DECIDED), words("Hang up beside {order}"), Block.of(Show.LINES), Block.of(Show.HEAD)));
        List<String> texts = notice.pages(form).stream()
                .flatMap(p -> p.primitives().stream())
                .filter(p -> p instanceof Primitive.Text)
                .map(p -> ((Primitive.Text) p).text())
                .toList();
        assertThat(texts)
                .containsSubsequence(
                        "Hedda signed.",
                        "Hang up beside CO 1",
                        "TG40-1020",
                        "Parts: EGW-1 added (4 pc)",
                        "Change notice CN 1")
                .contains("Variants: left: mass 0.41 → 0.43");
        assertThat(texts).doesNotContain("pits");
    }

    private static Scene sheet(int lines) {
        List<Primitive> drawn = new ArrayList<>();
        drawn.add(new Primitive.Polyline(THICK, new double[] {100, 100, 520, 100, 520, 397, 100, 397}, true));
        for (int i = 0; i < lines; i++) {
            drawn.add(new Primitive.Arc(THICK, 200, 200, 10 + i % 50, 0, 360));
        }
        drawn.add(new Primitive.Text(THICK, 120, 120, 5, 0, 1, 0, 0, false, "note"));
        return new Scene(drawn, Map.of(), Map.of());
    }

    private static Comparison compared(Box... boxes) {
        List<Comparison.Difference> all = new ArrayList<>();
        for (Box box : boxes) {
            all.add(new Comparison.Difference(
                    all.size() + 1, Comparison.Kind.CHANGED, box, "C4", "hole", false, false, List.of(), List.of()));
        }
        return new Comparison(1, 1, 0, all.size(), 0, 0, 0, all);
    }

    @Test
    void aSmallPictureFitsAndRingsEachDifference() {
        List<Primitive> drawn = DifferencePicture.of(
                        sheet(3), compared(new Box(195, 195, 205, 205), new Box(480, 350, 481, 351)), 80, 56)
                .orElseThrow();
        Box box = Box.EMPTY;
        for (Primitive one : drawn.subList(0, 5)) box = box.with(one.box());
        assertThat(box.minX()).isEqualTo(0, Offset.offset(1e-9));
        assertThat(box.width()).isLessThanOrEqualTo(80.000001);
        assertThat(box.height()).isLessThanOrEqualTo(56.000001);
        assertThat(drawn.get(0).style().weight()).isLessThan(0.7).isGreaterThanOrEqualTo(0.05);
        assertThat(drawn.get(0).style().dashes())
                .as("dashes shrink with the sheet")
                .allMatch(d -> d < 1);
        List<Primitive> rings = drawn.subList(5, drawn.size());
        assertThat(rings).hasSize(4);
        assertThat(((Primitive.Arc) rings.get(0)).radius()).isGreaterThan(2);
        assertThat(((Primitive.Text) rings.get(3)).text()).isEqualTo("2");
        Primitive moved = DifferencePicture.at(drawn, 22, 200).get(0);
        assertThat(moved.box().minX()).isEqualTo(22, Offset.offset(1e-9));
        assertThat(moved.style()).isEqualTo(drawn.get(0).style());
    }

    @Test
    void whatIsEmptyOrDrawsTooMuchIsNoSmallPicture() {
        assertThat(DifferencePicture.of(new Scene(List.of(), Map.of(), Map.of()), compared(), 80, 56))
                .isEmpty();
        assertThat(DifferencePicture.of(sheet(20_001), compared(), 80, 56)).isEmpty();
        assertThat(DifferencePicture.of(sheet(1), compared(), 80, 56)).isPresent();
    }
}
