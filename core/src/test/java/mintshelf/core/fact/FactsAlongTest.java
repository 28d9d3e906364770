package mintshelf.core.fact;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Map;
import mintshelf.core.fact.FactsAlong.Sheet;
import org.junit.jupiter.api.Test;

class FactsAlongTest {
    private static FactDefinition fact(String name, FactUse use) {
        return new FactDefinition(1, name, name, FactForm.of(FactType.TEXT), use);
    }

    @Test
    void whatTheKindWantsSaidAnewStaysBehind() {
        FactDefinition material = fact("material", FactUse.USUAL);
        FactDefinition mass = fact("mass", FactUse.USUAL);
        FactDefinition name = fact("name", FactUse.USUAL.from(FactSource.COMPUTED, "{material}"));
        FactDefinition surface = fact("surface", FactUse.USUAL);
        FactsAlong along = FactsAlong.of(
                Map.of("material", "316L", "mass", "0.62", "name", "316L", "other", "of another kind"),
                List.of(
                        new Sheet(material, false),
                        new Sheet(mass, true),
                        new Sheet(name, false),
                        new Sheet(surface, true)));
        assertThat(along.kept()).containsExactly(Map.entry("material", "316L"));
        assertThat(along.cleared())
                .as("what was empty is not said to be cleared")
                .containsExactly(mass);
    }
}
