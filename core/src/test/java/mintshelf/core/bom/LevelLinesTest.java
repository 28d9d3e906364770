package mintshelf.core.bom;

import static org.assertj.core.api.Assertions.assertThat;

import java.math.BigDecimal;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import mintshelf.core.bom.LevelLines.Quantity;
import mintshelf.core.bom.LevelLines.Said;
import org.junit.jupiter.api.Test;

class LevelLinesTest {
    private static Map<String, BigDecimal> counted(String... keys) {
        Map<String, BigDecimal> all = new LinkedHashMap<>();
        for (String key : keys) all.merge(key, BigDecimal.ONE, BigDecimal::add);
        return all;
    }

    private static Optional<Quantity> measured(String quantity, String unit) {
        return Optional.of(new Quantity(new BigDecimal(quantity), unit));
    }

    private static List<String> told(Map<String, BigDecimal> counted, Said... said) {
        return LevelLines.of(counted, List.of(said)).stream()
                .map(l -> l.find() + " " + l.key() + " " + l.quantity().quantity() + " "
                        + l.quantity().unit() + (l.byHand() ? " by hand" : ""))
                .toList();
    }

    @Test
    void whatNobodySaidAnythingOfIsCountedInTheOrderOfTheFile() {
        assertThat(told(counted("plate", "screw", "screw"))).containsExactly("1 plate 1 pc", "2 screw 2 pc");
        assertThat(told(Map.of())).isEmpty();
    }

    @Test
    void whatPeopleSaidStandsAndOthersFollowTheHighestNumber() {
        assertThat(told(
                        counted("plate", "screw", "pin"),
                        new Said("screw", true, "7", measured("0.5", "kg")),
                        new Said("grease", false, "2A", measured("20", "ml"))))
                .containsExactly("2A grease 20 ml by hand", "7 screw 0.5 kg", "8 plate 1 pc", "9 pin 1 pc");
    }

    @Test
    void aLineThatTheFileHasNoMoreKeepsItsNumberAndIsNone() {
        assertThat(told(counted("plate"), new Said("gone", true, "12", Optional.empty())))
                .containsExactly("13 plate 1 pc");
    }
}
