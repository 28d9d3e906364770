package mintshelf.core.model.step;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Map;
import mintshelf.core.fact.FactDefinition;
import mintshelf.core.fact.FactForm;
import mintshelf.core.fact.FactSource;
import mintshelf.core.fact.FactType;
import mintshelf.core.fact.FactUse;
import org.junit.jupiter.api.Test;

class ModelFactsTest {
    private static FactDefinition fact(String name, FactType type, String unit, FactUse use) {
        return new FactDefinition(1, name, name, new FactForm(type, unit, "", List.of(), "", ""), use);
    }

    private static String mass(String text, String unit, String wanted) {
        FactDefinition mass = fact("mass", FactType.NUMBER, wanted, FactUse.USUAL.of("MASS"));
        return ModelFacts.of(Map.of("Mass", new StepProperty(text, unit)), List.of(mass))
                .getOrDefault("mass", "");
    }

    @Test
    void measuresComeInTheUnitOfTheFact() {
        assertThat(mass("485", "g", "kg")).isEqualTo("0.485");
        assertThat(mass("0.485", "kg", "kg")).isEqualTo("0.485");
        assertThat(mass("1", "lb", "kg")).isEqualTo("0.45359237");
        assertThat(mass("3", "g", "t")).isEqualTo("0.000003");
        assertThat(mass("100000", "mm3", "cm³")).isEqualTo("100");
        assertThat(mass("1", "in2", "mm^2")).isEqualTo("645.16");
        assertThat(mass("1", "ft", "in")).isEqualTo("12");
        assertThat(mass("0.1", "mm", "mm")).isEqualTo("0.1");
    }

    /** Nothing is better than a number that is a thousand times wrong. */
    @Test
    void whatDoesNotLeadToTheFactsUnitIsLeftOut() {
        assertThat(mass("485", "mm", "kg")).isEmpty();
        assertThat(mass("485", "mm3", "mm2")).isEmpty();
        assertThat(mass("485", StepProperty.UNKNOWN, "kg")).isEmpty();
        assertThat(mass("485", "stone", "kg")).isEmpty();
        assertThat(mass("99999999999999999999", "km", "mm")).isEmpty();
        assertThat(mass("485", "g", "pieces")).isEmpty();
    }

    @Test
    void textsAreTakenAsTheyStand() {
        assertThat(mass("0.485", "", "kg")).as("typed by who drew it").isEqualTo("0.485");
        assertThat(mass("73512.5", "mm3", "")).as("a fact without a unit").isEqualTo("73512.5");
    }

    @Test
    void onlyWhatIsReadAndNamesAPropertyIsTaken() {
        Map<String, StepProperty> said = Map.of("Material", new StepProperty("316L", ""));
        assertThat(ModelFacts.of(
                        said,
                        List.of(
                                fact("a", FactType.TEXT, "", FactUse.USUAL.of("material")),
                                fact("b", FactType.TEXT, "", FactUse.USUAL),
                                fact("c", FactType.TEXT, "", FactUse.USUAL.of("finish")),
                                fact(
                                        "d",
                                        FactType.TEXT,
                                        "",
                                        FactUse.USUAL.of("material").from(FactSource.TYPED, "")),
                                fact(
                                        "e",
                                        FactType.TEXT,
                                        "",
                                        FactUse.USUAL.of("material").from(FactSource.SHEET, "")))))
                .isEqualTo(Map.of("a", "316L", "e", "316L"));
    }

    @Test
    void massVolumeAndMaterialComeInTheUnitsOfTheHouse() {
        FactDefinition volume = new FactDefinition(
                1, "volume", "Volume", FactForm.of(FactType.NUMBER).in("cm3"), FactUse.USUAL.of("volume"));
        FactDefinition material =
                new FactDefinition(2, "material", "Material", FactForm.of(FactType.TEXT), FactUse.USUAL.of("material"));
        assertThat(ModelFacts.of(
                        Map.of("Volume", new StepProperty("485000", "mm3"), "material", new StepProperty("316L", "")),
                        List.of(volume, material)))
                .containsEntry("volume", "485")
                .containsEntry("material", "316L");
        assertThat(ModelFacts.of(Map.of("volume", new StepProperty("3", "kg")), List.of(volume)))
                .as("a unit that leads nowhere")
                .isEmpty();
    }
}
