package mintshelf.core.change;

import static org.assertj.core.api.Assertions.assertThat;

import java.math.BigDecimal;
import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import mintshelf.core.change.Goal.Relation;
import mintshelf.core.change.Goal.State;
import mintshelf.core.fact.FactDefinition;
import mintshelf.core.fact.FactForm;
import mintshelf.core.fact.FactType;
import mintshelf.core.fact.FactUse;
import mintshelf.core.fact.FactValue;
import org.junit.jupiter.api.Test;

class GoalTest {
    private static final FactDefinition MASS =
            new FactDefinition(1, "mass", "Mass", FactForm.of(FactType.NUMBER).in("kg"), FactUse.USUAL);
    private static final FactDefinition MATERIAL =
            new FactDefinition(2, "material", "Material", FactForm.of(FactType.TEXT), FactUse.USUAL);
    private static final FactDefinition TESTED =
            new FactDefinition(3, "tested", "Tested", FactForm.of(FactType.DATE), FactUse.USUAL);

    private static Goal goal(FactDefinition fact, Relation relation, String typed) {
        return Goal.read(7, fact, relation, typed).orElseThrow(r -> new IllegalArgumentException(r.says()));
    }

    private static String refused(FactDefinition fact, Relation relation, String typed) {
        return Goal.read(7, fact, relation, typed).refusal().orElseThrow().code();
    }

    private static Optional<FactValue> number(String value) {
        return Optional.of(new FactValue.Quantity(new BigDecimal(value)));
    }

    private static Optional<FactValue> words(String value) {
        return Optional.of(new FactValue.Words(value));
    }

    @Test
    void eachVariantThatSaysItOtherwiseMeetsItToo() {
        Goal most = goal(MASS, Relation.AT_MOST, "+10 %");
        Map<String, FactValue> was = Map.of("left", number("2").orElseThrow());
        Goal.Judgement left = most.judge(
                number("10"), number("10.5"), was, Map.of("left", number("2.3").orElseThrow()));
        assertThat(left.state()).isEqualTo(State.NOT_MET);
        assertThat(left.says("kg")).isEqualTo("left: 2 kg before, 2.3 kg after: +15.0 %");
        assertThat(most.judge(
                                number("10"),
                                number("10.5"),
                                was,
                                Map.of("left", number("2.1").orElseThrow()))
                        .variant())
                .as("all meet it: the document is told")
                .isEmpty();
        assertThat(most.judge(
                                number("10"),
                                number("12"),
                                was,
                                Map.of("left", number("9").orElseThrow()))
                        .variant())
                .as("the document does not")
                .isEmpty();
        assertThat(most.judge(
                                number("10"),
                                number("10"),
                                Map.of(),
                                Map.of("new", number("11.5").orElseThrow()))
                        .says("kg"))
                .as("one that is new is held against the document")
                .startsWith("new: 10 kg before");
    }

    @Test
    void aValueIsHeldAgainstWhatIsPrepared() {
        Goal least = goal(MASS, Relation.AT_LEAST, "34");
        assertThat(least.words()).isEqualTo("Mass at least 34 kg");
        assertThat(least.judge(number("24"), number("35")).state()).isEqualTo(State.MET);
        assertThat(least.judge(number("24"), number("34.0")).state()).isEqualTo(State.MET);
        assertThat(least.judge(number("24"), number("33.9")).state()).isEqualTo(State.NOT_MET);
        assertThat(least.judge(Optional.empty(), number("35")).state())
                .as("before is not needed")
                .isEqualTo(State.MET);
        assertThat(least.judge(number("24"), Optional.empty()).state()).isEqualTo(State.OPEN);
    }

    @Test
    void aPercentageIsReckonedFromWhatItWas() {
        Goal most = goal(MASS, Relation.AT_MOST, "+10 %");
        assertThat(most.words()).isEqualTo("Mass at most +10 %");
        Goal.Judgement judged = most.judge(number("3.9"), number("4.29"));
        assertThat(judged.state()).isEqualTo(State.MET);
        assertThat(judged.limit().orElseThrow()).isEqualByComparingTo("4.29");
        assertThat(judged.says("kg")).isEqualTo("3.9 kg before, 4.29 kg after: +10.0 %");
        assertThat(most.judge(number("3.9"), number("4.3")).state()).isEqualTo(State.NOT_MET);
        assertThat(most.judge(Optional.empty(), number("4")).state())
                .as("of what is not known")
                .isEqualTo(State.OPEN);
        assertThat(goal(MASS, Relation.AT_MOST, "10%").words()).isEqualTo("Mass at most +10 %");
        assertThat(goal(MASS, Relation.AT_MOST, "-5,5 %")
                        .judge(number("100"), number("94.5"))
                        .state())
                .isEqualTo(State.MET);
        assertThat(most.judge(number("0"), number("0")).change())
                .as("of nothing no part")
                .isEmpty();
        assertThat(most.judge(number("-10"), number("-9")).limit().orElseThrow())
                .as("of a debt the percentage goes upwards")
                .isEqualByComparingTo("-9");
    }

    @Test
    void wordsAndDaysAreHeldAgainstEachOther() {
        Goal steel = goal(MATERIAL, Relation.EQUAL, "1.4462");
        assertThat(steel.judge(words("1.4404"), words("1.4462")).state()).isEqualTo(State.MET);
        assertThat(steel.judge(words("1.4404"), words("1.4404")).state()).isEqualTo(State.NOT_MET);
        assertThat(steel.judge(words("1.4404"), Optional.empty()).says(""))
                .isEqualTo("1.4404 before, nothing prepared yet");
        Goal by = goal(TESTED, Relation.AT_MOST, "2026-12-04");
        assertThat(by.judge(Optional.empty(), Optional.of(new FactValue.Day(LocalDate.parse("2026-12-04"))))
                        .state())
                .isEqualTo(State.MET);
        assertThat(by.judge(Optional.empty(), Optional.of(new FactValue.Day(LocalDate.parse("2026-12-05"))))
                        .state())
                .isEqualTo(State.NOT_MET);
    }

    @Test
    void whatCannotBeAGoalIsRefused() {
        assertThat(refused(MATERIAL, Relation.AT_MOST, "1.4462")).isEqualTo("goal.order");
        assertThat(refused(MATERIAL, Relation.EQUAL, "+10 %")).isEqualTo("goal.percent");
        assertThat(refused(TESTED, Relation.AT_LEAST, "10 %")).isEqualTo("goal.percent");
        for (String typed : List.of("1e308 %", "99999 %", "+ %", "%", "٣ %")) {
            assertThat(refused(MASS, Relation.AT_MOST, typed)).as(typed).isEqualTo("goal.percent");
        }
        for (String typed : List.of("1e308", "NaN", "heavy", "1,000.5", "123456789012345678901")) {
            assertThat(refused(MASS, Relation.AT_MOST, typed)).as(typed).isEqualTo("fact.form");
        }
        assertThat(refused(MASS, Relation.AT_MOST, "  ")).isEqualTo("goal.empty");
    }

    @Test
    void ofTwoNumbersAlwaysOneRelationHoldsAndBothWhereTheyAreEqual() {
        Random random = new Random(4);
        for (int i = 0; i < 2000; i++) {
            String limit = Integer.toString(random.nextInt(9) - 4);
            Optional<FactValue> after = number(Integer.toString(random.nextInt(9) - 4));
            boolean most =
                    goal(MASS, Relation.AT_MOST, limit).judge(after, after).state() == State.MET;
            boolean least =
                    goal(MASS, Relation.AT_LEAST, limit).judge(after, after).state() == State.MET;
            boolean equal =
                    goal(MASS, Relation.EQUAL, limit).judge(after, after).state() == State.MET;
            assertThat(most || least).isTrue();
            assertThat(most && least).isEqualTo(equal);
        }
    }

    @Test
    void similarOnesShareDocumentsOrSeveralWords() {
        Similar.Of one = new Similar.Of(1, List.of(10L, 11L), "Intake cone pits at berth 3", "FIELD");
        List<Similar> found = Similar.of(
                one,
                List.of(
                        new Similar.Of(1, List.of(10L), "itself", "FIELD"),
                        new Similar.Of(2, List.of(11L, 10L), "Another thing", ""),
                        new Similar.Of(3, List.of(99L), "The cone of the intake, berth 7", "FIELD"),
                        new Similar.Of(4, List.of(99L), "A cone", "FIELD"),
                        new Similar.Of(5, List.of(10L), "one at 3", "")),
                10);
        assertThat(found).extracting(Similar::request).containsExactly(2L, 3L, 5L);
        assertThat(found.get(0).why()).isEqualTo("2 documents alike");
        assertThat(found.get(1).why()).isEqualTo("“berth”, “cone”, “intake”");
        assertThat(Similar.of(one, List.of(new Similar.Of(6, List.of(10L), "", "")), 0))
                .isEmpty();
    }
}
