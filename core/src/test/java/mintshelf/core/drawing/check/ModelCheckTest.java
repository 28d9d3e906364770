package mintshelf.core.drawing.check;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Map;
import java.util.Set;
import mintshelf.core.drawing.check.CheckRules.Rule;
import mintshelf.core.drawing.check.CheckRules.Severity;
import mintshelf.core.fact.FactDefinition;
import mintshelf.core.fact.FactForm;
import mintshelf.core.fact.FactType;
import mintshelf.core.fact.FactUse;
import org.junit.jupiter.api.Test;

class ModelCheckTest {
    private static final FactDefinition MASS =
            new FactDefinition(1, "mass", "Mass", FactForm.of(FactType.NUMBER).in("kg"), FactUse.USUAL);
    private static final FactDefinition GRADE =
            new FactDefinition(2, "part_grade", "Grade", FactForm.of(FactType.TEXT), FactUse.USUAL);

    private static List<Finding> check(CheckRules rules, Map<String, String> said, Map<String, String> record) {
        return ModelCheck.check(rules, List.of(GRADE, MASS), said, record);
    }

    @Test
    void whatFileAndRecordSayOtherwiseIsFoundInTheOrderOfTheFacts() {
        List<Finding> found = check(
                CheckRules.hints(),
                Map.of("mass", "0.738", "part_grade", "316L"),
                Map.of("mass", "0.9", "part_grade", "304"));
        assertThat(found)
                .extracting(Finding::says)
                .containsExactly(
                        "The model says part grade “316L”, the record “304”.",
                        "The model says mass “0.738” kg, the record “0.9” kg.");
        assertThat(found).extracting(Finding::severity).containsOnly(Severity.HINT);
        assertThat(found).allMatch(f -> f.box().isEmpty() && f.zone().isEmpty());
    }

    @Test
    void aRecordThatIsRoundedAndWhatOnlyOneSaysIsNoFinding() {
        assertThat(check(CheckRules.hints(), Map.of("mass", "0.738"), Map.of("mass", "0.74")))
                .isEmpty();
        assertThat(check(CheckRules.hints(), Map.of("mass", "0.738"), Map.of("mass", "")))
                .isEmpty();
        assertThat(check(CheckRules.hints(), Map.of(), Map.of("mass", "1"))).isEmpty();
    }

    @Test
    void itIsAsStrictAsTheRulesAreAndNothingWhereTheyDoNotAsk() {
        CheckRules binding = new CheckRules(Map.of(Rule.MODEL_RECORD, Severity.BINDING), List.of(), 2.5, Set.of());
        assertThat(check(binding, Map.of("mass", "1"), Map.of("mass", "2")))
                .singleElement()
                .matches(Finding::isBinding);
        CheckRules none = new CheckRules(Map.of(Rule.LAYERS, Severity.BINDING), List.of(), 2.5, Set.of());
        assertThat(check(none, Map.of("mass", "1"), Map.of("mass", "2"))).isEmpty();
    }
}
