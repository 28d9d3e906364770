package mintshelf.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import mintshelf.app.use.structure.KeepBomLines;
import mintshelf.app.use.structure.KeepBomLines.Typed;
import mintshelf.app.use.structure.ReadBom;
import mintshelf.core.bom.Bom;
import mintshelf.core.document.Document;
import mintshelf.core.structure.StructureView;
import org.junit.jupiter.api.Test;

/** A design that begins from another one has its lines by hand, and its find numbers. */
class BomDesignTest extends InDesign {
    private List<String> lines(long item) {
        Bom bom = server.bean(ReadBom.class)
                .of(priya, item, StructureView.LATEST, Optional.empty(), LocalDate.of(2100, 1, 1))
                .orElseThrow()
                .bom();
        return bom.lines(0).stream()
                .map(l -> l.find() + " " + l.quantity().toPlainString() + " " + l.unit() + " "
                        + bom.part(l.part()).shown())
                .toList();
    }

    @Test
    void linesGoAlongFilesForWhatTheyHaveInTheSamePlace() {
        KeepBomLines keep = server.bean(KeepBomLines.class);
        keep.write(priya, top, Server.key(), new Typed(0, "4", "", "Grease", "5", "g", "bought", "", ""));
        keep.say(priya, top, Server.key(), group, Typed.said("9", "2.5", "pc"));
        assertThat(lines(top))
                .containsExactly(
                        "1 2 pc " + from + "1010", "4 5 g Grease", "9 2.5 pc " + from + "1100", "10 1 pc no.stp");
        Map<Long, Document> made = make(priya, asked(Map.of()));
        assertThat(lines(of(made, top).id()))
                .contains("1 2 pc " + to + "1010", "4 5 g Grease", "9 2.5 pc " + to + "1100");
        // The original is as it was.
        assertThat(lines(top)).contains("1 2 pc " + from + "1010", "9 2.5 pc " + from + "1100");
        assertThat(lines(of(made, group).id())).contains("1 4 pc " + to + "1110", "2 1 pc " + to + "1010");
    }

    @Test
    void aNumberMeansItsModelNotItsSheet() {
        // The sheet was filed first.
        long sheet = sheet(2000);
        long model = model(2000, name(1010, " part.stp"), 3);
        assertThat(sheet).isLessThan(model);
        server.bean(KeepBomLines.class)
                .write(priya, group, Server.key(), new Typed(0, "", from + "2000", "", "1", "pc", "", "", ""));
        ReadBom.Read bom = server.bean(ReadBom.class)
                .of(priya, group, StructureView.LATEST, Optional.empty(), LocalDate.of(2100, 1, 1))
                .orElseThrow();
        assertThat(bom.bom().lines(0))
                .anyMatch(l -> l.byHand() && bom.bom().part(l.part()).item() == model);
        assertThat(Web.as(server, "priya")
                        .get("/documents/" + top + "/bom?with=" + from + "2000")
                        .body())
                .contains("3 pc → 2 pc");
    }
}
