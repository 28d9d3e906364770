package mintshelf.core.filing;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import mintshelf.core.document.FileName;
import org.junit.jupiter.api.Test;

class ProposalTest {
    private static NameReading read(String name) {
        return NameReading.of(FileName.of(name));
    }

    @Test
    void aFileNameGivesItsNumberAndItsTitle() {
        assertThat(read("tg40-3030_gland-plate.dxf"))
                .isEqualTo(new NameReading(Optional.of("TG40-3030"), "Gland plate"));
        assertThat(read("TG40-3900 Encoder head test report.pdf"))
                .isEqualTo(new NameReading(Optional.of("TG40-3900"), "Encoder head test report"));
        assertThat(read("mooring plan.svg")).isEqualTo(new NameReading(Optional.empty(), "Mooring plan"));
        assertThat(read("TG40-1010.dxf")).isEqualTo(new NameReading(Optional.of("TG40-1010"), "TG40-1010"));
    }

    @Test
    void theTitleBlockComesBeforeTheFileName() {
        Proposal p = Proposal.of(
                Optional.empty(),
                FileName.of("tg40-1.dxf"),
                Map.of("number", "TG40-3030", "title", "Gland plate", "material", "316L"));
        assertThat(p.number()).isEqualTo("TG40-3030");
        assertThat(p.numberWhy()).isEqualTo("from the title block");
        assertThat(p.title()).isEqualTo("Gland plate");
        assertThat(p.facts()).containsEntry("material", "316L");
    }

    @Test
    void withoutAnyNumberTheSeriesDrawsOne() {
        Proposal p = Proposal.of(Optional.empty(), FileName.of("note.txt"), Map.of());
        assertThat(p.number()).isEmpty();
        assertThat(p.numberWhy()).contains("series");
        assertThat(p.kindWhy()).isEqualTo("no filing rule fits");
    }

    @Test
    void theFirstRuleThatFitsWins() {
        List<FilingRule> rules = List.of(
                new FilingRule("", "template", 9, "template", "1"),
                new FilingRule("DXF", "", 1, "drawing", "2"),
                new FilingRule("TEXT", "", 4, "specification", "3"));
        assertThat(FilingRule.first(rules, FileName.of("A3 Template.dxf"), "DXF"))
                .map(FilingRule::kind)
                .contains(9L);
        assertThat(FilingRule.first(rules, FileName.of("cone.txt"), "DXF"))
                .map(FilingRule::kind)
                .contains(1L);
        assertThat(FilingRule.first(rules, FileName.of("cone.bin"), "OTHER")).isEmpty();
    }
}
