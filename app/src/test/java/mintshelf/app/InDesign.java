package mintshelf.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import mintshelf.app.effect.References;
import mintshelf.app.effect.run.Wish;
import mintshelf.app.ground.Actor;
import mintshelf.app.store.run.Run;
import mintshelf.app.store.run.RunStore;
import mintshelf.app.store.structure.Reference;
import mintshelf.app.use.design.MakeDesign;
import mintshelf.app.use.design.Outline;
import mintshelf.app.use.design.ReadDesign;
import mintshelf.app.use.design.ReadDesign.Asked;
import mintshelf.app.use.design.ReadDesign.View;
import mintshelf.app.use.run.ActOverSet;
import mintshelf.core.base.Refusal;
import mintshelf.core.document.Document;
import mintshelf.core.structure.StructureView;

/** A design of four models and a sheet, on a shelf of its own, from which tests begin others. */
abstract class InDesign {
    final Server server = Server.shared();
    final ReadDesign read = server.bean(ReadDesign.class);
    final ActOverSet over = server.bean(ActOverSet.class);
    final RunStore runs = server.bean(RunStore.class);
    final Actor priya = server.actor("priya");
    final long shelf = server.shelf();
    final String mark = Server.key().substring(0, 6);
    final String from = "G" + mark + "-";
    final String to = "H" + mark + "-";

    String name(int number, String end) {
        return from.toLowerCase(java.util.Locale.ROOT) + number + end;
    }

    long model(int number, Object... filesAndCounts) {
        return server.file(
                "priya",
                shelf,
                "part-model",
                name(number, " part.stp"),
                from + number,
                StructureTest.assembly(from + number, filesAndCounts),
                false);
    }

    long sheet(int number) {
        byte[] sheet = Review.sheet(from + number + " " + mark);
        return server.file("priya", shelf, "drawing", name(number, " sheet.dxf"), from + number, sheet, false);
    }

    /** The top 1000 with two of 1010, one of 1100 in which 1110 stands, and one of 1010; 1000 and 1010 have sheets. */
    final long part = model(1010);

    final long screw = model(1110);
    final long group = model(1100, name(1110, " part.stp"), 4, name(1010, " part.stp"), 1);
    final long top = model(1000, name(1010, " part.stp"), 2, name(1100, " part.stp"), 1, "no.stp", 1);
    final long topSheet = sheet(1000);

    Wish.Design wish(Map<Long, String> typed) {
        return new Wish.Design(top, StructureView.LATEST, typed, Optional.empty(), "", List.of(), List.of(), true);
    }

    Asked asked(Map<Long, String> typed) {
        return new Asked(from + "####", to + "####", false, wish(typed));
    }

    Map<Long, Document> make(Actor actor, Asked asked) {
        View view = read.of(actor, asked);
        assertThat(view.refusals()).isEmpty();
        Outline outline = view.outline();
        long run = over.begin(
                actor,
                Run.What.NEW_DESIGN,
                outline.copies().stream().map(c -> c.from().id()).toList(),
                Wish.design(MakeDesign.said(asked.wish(), outline)),
                Optional.empty(),
                Server.key());
        Map<Long, Document> made = new LinkedHashMap<>();
        for (Run.Row row : runs.rows(run, 0, 10_000)) {
            assertThat(row.became()).isEqualTo("made");
            made.put(row.item(), server.document(row.number()));
        }
        return made;
    }

    static Document of(Map<Long, Document> made, long id) {
        return Optional.ofNullable(made.get(id)).orElseThrow();
    }

    List<Reference> refersTo(Document document) {
        return server.bean(References.class).of(document.head().version());
    }

    static List<Long> meant(List<Reference> references) {
        return references.stream()
                .flatMap(r -> r.component().stream())
                .map(Reference.Component::item)
                .toList();
    }

    String text(long item) {
        return new String(server.bytes(item), StandardCharsets.US_ASCII);
    }

    String refused(Map<Long, String> typed) {
        return read.of(priya, asked(typed)).refusals().stream()
                .map(Refusal::code)
                .findFirst()
                .orElse("");
    }

    static byte[] plate(String hole, String note) {
        StringBuilder lines = new StringBuilder();
        for (int i = 0; i < 30; i++)
            lines.append("0\nLINE\n8\n0\n10\n0\n20\n" + i * 9 + "\n11\n400\n21\n" + (i * 9 + 1) + "\n");
        return ("0\nSECTION\n2\nHEADER\n9\n$ACADVER\n1\nAC1009\n0\nENDSEC\n0\nSECTION\n2\nENTITIES\n" + lines
                        + "0\nCIRCLE\n8\n0\n10\n200\n20\n290\n40\n" + hole
                        + "\n0\nTEXT\n8\n0\n10\n20\n20\n320\n40\n5\n1\n"
                        + note + "\n0\nENDSEC\n0\nEOF\n")
                .getBytes(StandardCharsets.US_ASCII);
    }
}
