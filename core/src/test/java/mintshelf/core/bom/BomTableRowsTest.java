package mintshelf.core.bom;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import mintshelf.core.base.Outcome;
import mintshelf.core.base.Refusal;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class BomTableRowsTest {
    private static List<BomTableRows.Row> rows(List<List<String>> cells) {
        return BomTableRows.read(cells).toOptional().orElseThrow();
    }

    private static String code(Outcome<?> outcome) {
        return outcome.refusal().map(Refusal::code).orElse("");
    }

    @Test
    void headsStandInAnyOrderAndWhatNobodyKnowsIsLeftAside() {
        List<BomTableRows.Row> rows = rows(List.of(
                List.of("Cost of one, EUR", "QTY", "colour", "Title", "mass of one, kg", "from serial"),
                List.of("1.5", "2", "red", "Lamp", "0.2", "0150"),
                List.of("", " ", "", ""),
                List.of("", "3")));
        assertThat(rows).hasSize(2);
        assertThat(rows.get(0).at()).isEqualTo(2);
        assertThat(rows.get(0).shown()).isEqualTo("Lamp");
        assertThat(rows.get(0).mass()).isEqualTo("0.2");
        assertThat(rows.get(0).cost()).isEqualTo("1.5");
        assertThat(rows.get(0).when().fromSerial()).isEqualTo("0150");
        assertThat(rows.get(0).limits()).isTrue();
        assertThat(rows.get(0).or("comes", "", "bought")).isEqualTo("bought");
        assertThat(rows.get(0).or("cost", "1.5", "9")).isEqualTo("1.5");
        // A row that is shorter says nothing in the columns that it lacks.
        assertThat(rows.get(1).at()).isEqualTo(4);
        assertThat(rows.get(1).title()).isEmpty();
    }

    @Test
    void whatStandsFurtherDownIsOfOtherBoms() {
        List<BomTableRows.Row> rows = rows(List.of(
                List.of("find", "level", "number", "quantity"),
                List.of("1", "1", "A", "1"),
                List.of("1/1", "2", "B", "4"),
                List.of("2", "", "C", "1")));
        assertThat(rows).extracting(BomTableRows.Row::number).containsExactly("A", "C");
    }

    @Test
    void aTableWithoutHeadsOrOfTooManyRowsIsRefused() {
        assertThat(code(BomTableRows.read(List.of()))).isEqualTo("bom.table_heads");
        assertThat(code(BomTableRows.read(List.of(List.of("number", "title"))))).isEqualTo("bom.table_heads");
        assertThat(code(BomTableRows.read(List.of(List.of("quantity"))))).isEqualTo("bom.table_heads");
        List<List<String>> many = new ArrayList<>(List.of(List.of("number", "quantity")));
        many.addAll(Collections.nCopies(BomTableRows.MOST, List.of("A", "1")));
        assertThat(rows(many)).hasSize(BomTableRows.MOST);
        many.add(List.of("A", "1"));
        assertThat(code(BomTableRows.read(many))).isEqualTo("bom.table_long");
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {"6,2|6.2", "0,125|0.125", "12,5000|12.5000", "1234,567|1234.567", "6.2|6.2", "12|12", "1e3|1e3"})
    void aDecimalCommaBecomesAPoint(String typed, String read) {
        assertThat(BomTableRows.decimal(typed).toOptional()).contains(read);
    }

    @Test
    void whereItMayPartThousandsNobodyGuesses() {
        assertThat(code(BomTableRows.decimal("1,000"))).isEqualTo("bom.comma");
        assertThat(code(BomTableRows.decimal("12,500"))).isEqualTo("bom.comma");
        BomTableRows.Row row = rows(List.of(List.of("number", "quantity"), List.of("A", "1,000")))
                .get(0);
        assertThat(row.refusal().orElseThrow().reason()).isEqualTo("“1,000” may be 1.000 or 1000.");
    }
}
