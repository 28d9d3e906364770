package mintshelf.core.change;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import mintshelf.core.base.Outcome;
import mintshelf.core.base.Refusal;
import mintshelf.core.change.LineTable.Does;
import mintshelf.core.change.LineTable.Line;
import mintshelf.core.change.LineTable.Planned;
import mintshelf.core.change.LineTable.Row;
import org.junit.jupiter.api.Test;

class LineTableTest {
    private static List<Row> read(boolean down, List<List<String>> cells) {
        return LineTable.read(cells, down).orElseThrow(r -> new IllegalArgumentException(r.says()));
    }

    private static String refused(List<List<String>> cells) {
        Outcome<List<Row>> read = LineTable.read(cells, false);
        return read.refusal().map(Refusal::code).orElse("granted");
    }

    private static final List<Line> LINES = List.of(
            new Line("TG40-1020", PaperLine.What.REVISE, "duplex"),
            new Line("TG40-1030", PaperLine.What.FIRST, ""),
            new Line("TG40-1040", PaperLine.What.WITHDRAW, "gone"));

    @Test
    void columnsComeInAnyOrderAndMoreOfThemAreNoHarm() {
        List<Row> rows = read(
                false,
                List.of(
                        List.of("Reason", "colour", " NUMBER "),
                        List.of("duplex 2205", "red", "TG40-1020"),
                        List.of(),
                        List.of("", "", "TG40-1030")));
        assertThat(rows)
                .containsExactly(
                        new Row(2, "TG40-1020", Optional.empty(), Optional.of("duplex 2205")),
                        new Row(4, "TG40-1030", Optional.empty(), Optional.of("")));
    }

    @Test
    void reasonsFillDownWhereThatIsWanted() {
        List<List<String>> cells = List.of(
                List.of("number", "reason"),
                List.of("A", "first"),
                List.of("B", ""),
                List.of("C", "next"),
                List.of("D"));
        assertThat(read(true, cells))
                .extracting(r -> r.reason().orElse("?"))
                .containsExactly("first", "first", "next", "next");
        assertThat(read(false, cells)).extracting(r -> r.reason().orElse("?")).containsExactly("first", "", "next", "");
        assertThat(read(false, List.of(List.of("number"), List.of("A"))).get(0).reason())
                .as("a table without reasons leaves them alone")
                .isEmpty();
    }

    @Test
    void whatIsNoTableOfLinesIsSaid() {
        assertThat(refused(List.of())).isEqualTo("table.empty");
        assertThat(refused(List.of(List.of("number")))).isEqualTo("table.empty");
        assertThat(refused(List.of(List.of("name"), List.of("A")))).isEqualTo("table.head");
        assertThat(refused(List.of(List.of("number", "reason"), List.of("", "why"))))
                .isEqualTo("table.number");
        assertThat(refused(List.of(List.of("number", "what"), List.of("A", "is scrapped"))))
                .isEqualTo("table.what");
        assertThat(refused(List.of(List.of("number", "reason"), List.of("A", "x".repeat(501)))))
                .isEqualTo("text.long");
        List<List<String>> many = new ArrayList<>();
        many.add(List.of("number"));
        for (int i = 0; i <= LineTable.MOST; i++) many.add(List.of("N" + i));
        assertThat(refused(many)).isEqualTo("table.long");
        assertThat(refused(many.subList(0, LineTable.MOST + 1))).isEqualTo("granted");
    }

    private static Planned saying(String number, String reason) {
        Row row = new Row(2, number, Optional.empty(), Optional.of(reason));
        return LineTable.plan(List.of(row), LINES, true).get(0);
    }

    private static Planned turning(String number, PaperLine.What what, boolean order) {
        Row row = new Row(2, number, Optional.of(what), Optional.empty());
        return LineTable.plan(List.of(row), LINES, order).get(0);
    }

    @Test
    void aRowSaysWhatItDoes() {
        assertThat(saying("TG40-1020", "duplex").does()).isEqualTo(Does.SAME);
        assertThat(turning("tg40–1020", PaperLine.What.REVISE, true).does())
                .as("numbers as people write them")
                .isEqualTo(Does.SAME);
        assertThat(saying("TG40-1020", "super duplex").says()).containsExactly("“super duplex”");
        assertThat(saying("TG40-1020", "").says()).containsExactly("loses its reason");
        assertThat(turning("TG40-1020", PaperLine.What.WITHDRAW, true).says()).containsExactly("is withdrawn");
        assertThat(turning("TG40-1040", PaperLine.What.FACTS, true).says()).containsExactly("changes facts only");
        assertThat(saying("TG40-2000", "why").does()).isEqualTo(Does.ADDED);
        assertThat(turning("TG40-1030", PaperLine.What.WITHDRAW, true)
                        .refusal()
                        .orElseThrow()
                        .code())
                .as("what never was in force is not withdrawn")
                .isEqualTo("table.turns");
        assertThat(turning("TG40-1020", PaperLine.What.WITHDRAW, false)
                        .refusal()
                        .orElseThrow()
                        .code())
                .as("a request withdraws nothing")
                .isEqualTo("table.turns");
        List<Planned> twice = LineTable.plan(
                List.of(
                        new Row(2, "TG40-1020", Optional.empty(), Optional.of("a")),
                        new Row(3, "TG40-1020", Optional.empty(), Optional.of("b"))),
                LINES,
                true);
        assertThat(twice.get(1).refusal().orElseThrow().code()).isEqualTo("table.twice");
    }

    /** What goes out and comes back as it was changes nothing. */
    @Test
    void aTableThatComesBackAsItWentOutChangesNothing() {
        List<List<String>> cells = new ArrayList<>();
        cells.add(LineTable.COLUMNS);
        LINES.forEach(l -> cells.add(List.of(l.number(), "title", l.what().words(), "A", "B", l.reason())));
        assertThat(LineTable.plan(read(false, cells), LINES, true))
                .allMatch(p -> p.does() == Does.SAME && p.refusal().isEmpty());
    }
}
