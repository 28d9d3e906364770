package mintshelf.core.fact;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.LocalDate;
import java.util.EnumSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import mintshelf.core.access.Access;
import mintshelf.core.access.Grant;
import mintshelf.core.access.Place;
import mintshelf.core.access.Right;
import mintshelf.core.access.Role;
import mintshelf.core.access.Scope;
import mintshelf.core.base.Outcome;
import mintshelf.core.revision.StageClass;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

class FactFormsTest {
    private static final Place HERE = new Place(1, List.of(2L), 3, false);

    private static FactDefinition fact(FactForm form) {
        return new FactDefinition(1, "x", "X", form, FactUse.USUAL);
    }

    private static Access with(Right... rights) {
        Set<Right> all = EnumSet.noneOf(Right.class);
        all.addAll(List.of(rights));
        return new Access(
                7,
                "Somebody",
                List.of(new Grant(1, "Somebody", new Role("role", "Role", all), Scope.EVERYWHERE, "everywhere")));
    }

    @ParameterizedTest
    @CsvSource({"0.5, true", "40, true", "40.0, true", "0.49, false", "40.01, false", "-1, false", "'0,5 kg', true"})
    void aNumberLiesWithinItsRange(String typed, boolean fits) {
        FactDefinition mass = fact(FactForm.of(FactType.NUMBER).in("kg").within("0.5", "40"));
        assertThat(FactReader.read(mass, typed, FactLookup.AS_SAID).isGranted()).isEqualTo(fits);
    }

    @Test
    void oneEndOfARangeIsEnoughAndTheRefusalSaysWhichOneWasPassed() {
        FactDefinition least = fact(FactForm.of(FactType.NUMBER).in("kg").within("2", ""));
        assertThat(FactReader.read(least, "1000000", FactLookup.AS_SAID).isGranted())
                .isTrue();
        assertThat(FactReader.read(least, "1", FactLookup.AS_SAID)
                        .refusal()
                        .orElseThrow()
                        .reason())
                .isEqualTo("X: 1 is less than 2 kg.");
        FactDefinition day = fact(FactForm.of(FactType.DATE).within("", "2026-12-31"));
        assertThat(FactReader.read(day, "2026-12-31", FactLookup.AS_SAID).isGranted())
                .isTrue();
        assertThat(FactReader.read(day, "2027-01-01", FactLookup.AS_SAID)
                        .refusal()
                        .orElseThrow()
                        .reason())
                .isEqualTo("X: 2027-01-01 is after 2026-12-31.");
    }

    @Test
    void whoAndWhatIsNamedIsLookedFor() {
        FactLookup lookup = new FactLookup() {
            @Override
            public Outcome<String> person(String said) {
                return said.equals("Priya Maan")
                        ? Outcome.granted("priya")
                        : Outcome.refused("fact.person", "“" + said + "” is nobody here.", "Choose somebody.");
            }

            @Override
            public Outcome<String> document(String said) {
                return Outcome.granted(said.toUpperCase(Locale.ROOT));
            }
        };
        assertThat(FactReader.read(fact(FactForm.of(FactType.PERSON)), "Priya Maan", lookup)
                        .orElseThrow(r -> new IllegalStateException(r.says())))
                .contains(new FactValue.Words("priya"));
        assertThat(FactReader.read(fact(FactForm.of(FactType.PERSON)), "Nobody", lookup)
                        .refusal()
                        .orElseThrow()
                        .reason())
                .isEqualTo("X: “Nobody” is nobody here.");
        assertThat(FactReader.read(fact(FactForm.of(FactType.DOCUMENT)), "tg40-1", lookup)
                        .orElseThrow(r -> new IllegalStateException(r.says())))
                .contains(new FactValue.Words("TG40-1"));
    }

    @Test
    void aPresetKnowsTheDayAndWhoFiles() {
        LocalDate day = LocalDate.of(2026, 11, 27);
        assertThat(FactUse.USUAL.preset("today").presetFor(FactType.DATE, "priya", day))
                .isEqualTo("2026-11-27");
        assertThat(FactUse.USUAL.preset("me").presetFor(FactType.PERSON, "priya", day))
                .isEqualTo("priya");
        // The words mean nothing special for a text.
        assertThat(FactUse.USUAL.preset("today").presetFor(FactType.TEXT, "priya", day))
                .isEqualTo("today");
        assertThat(FactUse.USUAL.presetFor(FactType.TEXT, "priya", day)).isEmpty();
    }

    @Test
    void aFormulaHasAValueWhenAllItsPartsHave() {
        Formula formula =
                Formula.parse("{material}, {thickness} mm $1 \\").orElseThrow(r -> new IllegalStateException(r.says()));
        assertThat(formula.facts()).containsExactly("material", "thickness");
        assertThat(formula.of(Map.of("material", "316L", "thickness", "8"))).contains("316L, 8 mm $1 \\");
        assertThat(formula.of(Map.of("material", "a$2\\b", "thickness", "8"))).contains("a$2\\b, 8 mm $1 \\");
        assertThat(formula.of(Map.of("material", "316L"))).isEmpty();
        assertThat(formula.of(Map.of("material", "316L", "thickness", " "))).isEmpty();
        assertThat(formula.of(Map.of("material", "x".repeat(600), "thickness", "8"))
                        .orElseThrow())
                .hasSize(FactReader.LONGEST);
    }

    @ParameterizedTest
    @ValueSource(strings = {"", "no fact", "{Material}", "{material", "material}", "{{material}}", "{}"})
    void whatNamesNoFactIsNoFormula(String text) {
        assertThat(Formula.parse(text).isGranted()).isFalse();
    }

    @Test
    void onlyWhatIsPutTogetherIsComputed() {
        FactDefinition typed = fact(FactForm.of(FactType.TEXT));
        FactDefinition computed = new FactDefinition(
                2, "y", "Y", FactForm.of(FactType.TEXT), FactUse.USUAL.from(FactSource.COMPUTED, "{x} of {z}"));
        assertThat(Computed.of(List.of(typed, computed), Map.of("x", "a", "z", "b")))
                .containsExactly(Map.entry(computed, "a of b"));
        assertThat(Computed.of(List.of(typed, computed), Map.of("x", "a"))).containsExactly(Map.entry(computed, ""));
    }

    @Test
    void whatIsInForceMayAskForAReason() {
        FactHands free = new FactHands(Optional.empty(), Optional.empty(), Optional.of(Right.CHANGE));
        FactHands reasoned = new FactHands(Optional.empty(), Optional.empty(), Optional.of(Right.CHANGE), true);
        assertThat(free.unsaid("Cost", StageClass.RELEASED, "")).isEmpty();
        assertThat(reasoned.unsaid("Cost", StageClass.PREPARING, "")).isEmpty();
        assertThat(reasoned.unsaid("Cost", StageClass.RELEASED, "the yard asks less"))
                .isEmpty();
        assertThat(reasoned.unsaid("Cost", StageClass.RELEASED, " ")
                        .orElseThrow()
                        .reason())
                .isEqualTo("Cost changes with a reason once released.");
        assertThat(reasoned.says()).endsWith("by those who may change documents, with a reason");
        assertThat(free.says()).doesNotContain("reason");
    }

    @Test
    void whoMayTypeAFactDependsOnWhereItsRevisionStands() {
        FactHands hands = new FactHands(
                Optional.of(Right.CHANGE), Optional.of(Right.KEEP_SHELF), Optional.of(Right.KEEP_HOUSE_RULES));
        Access designer = with(Right.CHANGE);
        Access keeper = with(Right.CHANGE, Right.KEEP_SHELF, Right.KEEP_HOUSE_RULES);
        assertThat(hands.ask("Mass", StageClass.PREPARING, designer, HERE)).isEmpty();
        assertThat(hands.ask("Mass", StageClass.DECIDING, designer, HERE)
                        .orElseThrow()
                        .reason())
                .isEqualTo("Mass is changed in review by those who may keep the shelf in order.");
        assertThat(hands.ask("Mass", StageClass.DECIDING, keeper, HERE)).isEmpty();
        assertThat(hands.ask("Mass", StageClass.RELEASED, designer, HERE)).isPresent();
        assertThat(hands.ask("Mass", StageClass.RELEASED, keeper, HERE)).isEmpty();
        for (StageClass over : List.of(StageClass.SUPERSEDED, StageClass.WITHDRAWN, StageClass.CLOSED)) {
            assertThat(hands.ask("Mass", over, keeper, HERE).orElseThrow().code())
                    .isEqualTo("fact.closed");
        }
        assertThat(FactHands.USUAL
                        .ask("Mass", StageClass.RELEASED, keeper, HERE)
                        .orElseThrow()
                        .reason())
                .isEqualTo("Mass does not change once released.");
        assertThat(FactHands.USUAL.says())
                .isEqualTo("in preparation and in review by those who may change documents; once released by nobody");
    }
}
