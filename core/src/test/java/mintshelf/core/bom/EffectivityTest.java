package mintshelf.core.bom;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.LocalDate;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import mintshelf.core.bom.Effectivity.Holds;
import mintshelf.core.bom.Effectivity.Product;
import mintshelf.core.bom.Effectivity.Typed;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class EffectivityTest {
    private static final LocalDate DAY = LocalDate.of(2026, 3, 10);

    private static Effectivity read(String from, String to, String first, String last, String lots) {
        return Effectivity.read(new Typed(from, to, first, last, lots))
                .toOptional()
                .orElseThrow();
    }

    private static Product serial(String serial) {
        return new Product(DAY, Serial.read(serial).toOptional(), Optional.empty());
    }

    @Test
    void bothEndsBelongToIt() {
        Effectivity e = read("", "", "0150", "0200", "");
        assertThat(e.of(serial("149"))).isEqualTo(Holds.NO);
        assertThat(e.of(serial("150"))).isEqualTo(Holds.YES);
        assertThat(e.of(serial("0200"))).isEqualTo(Holds.YES);
        assertThat(e.of(serial("0201"))).isEqualTo(Holds.NO);
        assertThat(read("2026-03-10", "2026-03-10", "", "", "").of(Product.on(DAY)))
                .isEqualTo(Holds.YES);
        assertThat(read("2026-03-11", "", "", "", "").of(Product.on(DAY))).isEqualTo(Holds.NO);
        assertThat(read("", "2026-03-09", "", "", "").of(Product.on(DAY))).isEqualTo(Holds.NO);
    }

    @Test
    void whatNobodyAskedForIsOpenAndADayThatDoesNotFitDecidesAlone() {
        assertThat(read("", "", "0150", "", "").of(Product.on(DAY))).isEqualTo(Holds.OPEN);
        assertThat(read("", "", "", "", "L3").of(serial("1"))).isEqualTo(Holds.OPEN);
        assertThat(read("2027-01-01", "", "0150", "", "").of(Product.on(DAY))).isEqualTo(Holds.NO);
        assertThat(read("", "", "0150", "", "L3").of(serial("149"))).isEqualTo(Holds.NO);
        assertThat(read("", "", "0150", "", "L3").of(serial("151"))).isEqualTo(Holds.OPEN);
        assertThat(Effectivity.ALWAYS.of(Product.on(DAY))).isEqualTo(Holds.YES);
    }

    @Test
    void serialsOfAnotherSeriesAreNotOfIt() {
        Effectivity e = read("", "", "TG-10", "TG-20", "");
        assertThat(e.of(serial("15"))).isEqualTo(Holds.NO);
        assertThat(e.of(serial("LS-15"))).isEqualTo(Holds.NO);
        assertThat(e.of(serial("tg-15"))).isEqualTo(Holds.YES);
        assertThat(e.of(serial("TG15"))).isEqualTo(Holds.YES);
    }

    @Test
    void lotsAreToldWhateverTheirCase() {
        Effectivity e = read("", "", "", "", "l3; L4  L3");
        assertThat(e.lots()).containsExactly("L3", "L4");
        assertThat(e.of(new Product(DAY, Optional.empty(), Effectivity.lot("l4"))))
                .isEqualTo(Holds.YES);
        assertThat(e.of(new Product(DAY, Optional.empty(), Effectivity.lot("L5"))))
                .isEqualTo(Holds.NO);
        assertThat(Effectivity.lot("a b")).isEmpty();
    }

    @ParameterizedTest
    @CsvSource(
            nullValues = "-",
            value = {
                "2026-02-30,-,-,-,-,bom.day",
                "03/10/2026,-,-,-,-,bom.day",
                "+12026-01-01,-,-,-,-,bom.day",
                "2026-03-02,2026-03-01,-,-,-,bom.days",
                "-,-,A1B,-,-,bom.serial",
                "-,-,1234567890123,-,-,bom.serial",
                "-,-,-5,-,-,bom.serial",
                "-,-,10,9,-,bom.serials",
                "-,-,TG-1,LS-2,-,bom.series",
                "-,-,-,-,a b c d e f,bom.lots",
                "-,-,-,-,L<3>,bom.lots"
            })
    void whatIsNoLimitIsRefusedInWords(String from, String to, String first, String last, String lots, String code) {
        Typed typed = new Typed(text(from), text(to), text(first), text(last), text(lots));
        assertThat(Effectivity.read(typed).refusal().orElseThrow().code()).isEqualTo(code);
    }

    private static String text(String cell) {
        return cell == null ? "" : cell;
    }

    @Test
    void itIsSaidInWords() {
        assertThat(read("2026-01-01", "", "0150", "", "L3").says())
                .isEqualTo("serial 0150 on, from 2026-01-01, lot L3");
        assertThat(read("", "2026-01-01", "", "9", "A,B").says())
                .isEqualTo("serial up to 9, until 2026-01-01, lots A, B");
        assertThat(read("2026-01-01", "2026-02-01", "1", "9", "").says())
                .isEqualTo("serial 1 to 9, 2026-01-01 to 2026-02-01");
        assertThat(Effectivity.ALWAYS.says()).isEmpty();
    }

    /** What is read again of what is kept is the same, and each product of it or not as each limit by itself says. */
    @Test
    void limitsHoldOneByOne() {
        Random random = new Random(4);
        for (int i = 0; i < 1000; i++) {
            int first = random.nextInt(20);
            int last = first + random.nextInt(20);
            LocalDate from = DAY.plusDays(random.nextInt(9) - 4L);
            Effectivity e = read(
                    random.nextBoolean() ? from.toString() : "",
                    random.nextBoolean() ? from.plusDays(random.nextInt(4)).toString() : "",
                    random.nextBoolean() ? "" + first : "",
                    random.nextBoolean() ? "" + last : "",
                    random.nextBoolean() ? "L" + random.nextInt(3) : "");
            assertThat(Effectivity.read(Typed.of(e)).toOptional()).contains(e);
            int serial = random.nextInt(40);
            String lot = "L" + random.nextInt(3);
            Product product = new Product(DAY, Serial.read("" + serial).toOptional(), Optional.of(lot));
            boolean all = e.from().map(d -> !DAY.isBefore(d)).orElse(true)
                    && e.to().map(d -> !DAY.isAfter(d)).orElse(true)
                    && e.fromSerial().map(s -> serial >= s.number()).orElse(true)
                    && e.toSerial().map(s -> serial <= s.number()).orElse(true)
                    && (e.lots().isEmpty() || e.lots().equals(List.of(lot)));
            assertThat(e.of(product)).isEqualTo(all ? Holds.YES : Holds.NO);
        }
    }
}
