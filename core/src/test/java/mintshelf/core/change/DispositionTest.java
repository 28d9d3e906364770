package mintshelf.core.change;

import static org.assertj.core.api.Assertions.assertThat;

import java.math.BigDecimal;
import java.util.List;
import java.util.Optional;
import mintshelf.core.base.Outcome;
import mintshelf.core.base.Refusal;
import mintshelf.core.change.Disposition.Place;
import mintshelf.core.change.Disposition.Written;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class DispositionTest {
    private static Outcome<Optional<Disposition>> read(
            String quantity, String what, String cost, String currency, String note) {
        return Disposition.of(5, Place.STOCK, new Written(quantity, what, cost, currency, note));
    }

    private static Disposition said(Place place, String quantity, String what, String cost, String currency) {
        return Disposition.of(5, place, new Written(quantity, what, cost, currency, ""))
                .orElseThrow(r -> new IllegalArgumentException(r.says()))
                .orElseThrow();
    }

    @Test
    void whatIsLeftEmptyIsNotSaid() {
        assertThat(read(" ", "", "", "EUR", " ")).isEqualTo(Outcome.granted(Optional.empty()));
    }

    @ParameterizedTest
    @CsvSource({
        "1e308, disposition.quantity",
        "-1, disposition.quantity",
        "'1,5', disposition.quantity",
        "1.2345, disposition.quantity",
        "1234567890123, disposition.quantity",
        "NaN, disposition.quantity",
        "٣, disposition.quantity"
    })
    void aQuantityIsWrittenInDigits(String quantity, String code) {
        assertThat(read(quantity, "SCRAP", "", "", "").refusal().map(Refusal::code))
                .contains(code);
    }

    @ParameterizedTest
    @CsvSource({
        "4, '', disposition.currency",
        "4, XYZQ, disposition.currency",
        "4.123, EUR, disposition.cost",
        "-4, EUR, disposition.cost"
    })
    void aCostHasACurrency(String cost, String currency, String code) {
        assertThat(read("2", "SCRAP", cost, currency, "").refusal().map(Refusal::code))
                .contains(code);
    }

    @Test
    void nothingElseBecomesOfThem() {
        assertThat(read("2", "MELT", "", "", "").refusal().map(Refusal::code)).contains("disposition.what");
        assertThat(read("2", "USE", "", "", "x".repeat(201)).isGranted()).isFalse();
    }

    @Test
    void whatIsUnknownIsSaid() {
        assertThat(said(Place.STOCK, "6", "USE", "", "").unknown()).isEmpty();
        assertThat(said(Place.STOCK, "0", "", "", "").unknown()).isEmpty();
        assertThat(said(Place.FIELD, "14", "", "", "").unknown())
                .containsExactly("what becomes of them", "what it costs");
        assertThat(said(Place.ORDERED, "", "RETURN", "12", "eur").unknown()).containsExactly("how many");
        assertThat(said(Place.ORDERED, "", "RETURN", "12", "eur").words()).isEqualTo("? return");
        assertThat(said(Place.FIELD, "14.500", "", "", "").words()).isEqualTo("14.5 not decided");
        assertThat(said(Place.MAKING, "0", "SCRAP", "", "").words()).isEqualTo("none");
    }

    @Test
    void totalsAddWhatIsKnownAndCountWhatIsNot() {
        Disposition.Totals totals = Disposition.totals(List.of(
                said(Place.STOCK, "6", "USE", "", ""),
                said(Place.STOCK, "9.5", "SCRAP", "792", "EUR"),
                said(Place.FIELD, "14", "", "", ""),
                said(Place.ORDERED, "10", "RETURN", "90.5", "NOK"),
                said(Place.MAKING, "2", "REWORK", "488", "EUR")));
        assertThat(totals.quantities())
                .containsEntry(Place.STOCK, new BigDecimal("15.5"))
                .containsEntry(Place.FIELD, new BigDecimal("14"));
        assertThat(totals.cost()).isEqualTo("1,280.00 EUR and 90.50 NOK");
        assertThat(totals.unknown()).isEqualTo(1);
        assertThat(totals.at(Place.STOCK)).isEqualTo("15.5");
        assertThat(Disposition.totals(List.of()).at(Place.STOCK)).isEmpty();
        assertThat(Disposition.totals(List.of()).cost()).isEmpty();
    }
}
