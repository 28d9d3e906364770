package mintshelf.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Optional;
import java.util.OptionalLong;
import mintshelf.app.effect.References;
import mintshelf.app.effect.run.SetAct;
import mintshelf.app.effect.run.Wish;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.NotThere;
import mintshelf.app.store.run.Run;
import mintshelf.app.store.structure.Reference;
import mintshelf.app.use.relocate.Rename;
import mintshelf.app.use.run.ActOverSet;
import mintshelf.app.use.shelf.ReadShelf;
import mintshelf.app.use.structure.WriteNames;
import mintshelf.core.base.Plan;
import org.junit.jupiter.api.Test;

/** Names of now are written into the files that say others. */
class NamesInFilesTest {
    private final Server server = Server.shared();
    private final ActOverSet over = server.bean(ActOverSet.class);
    private final WriteNames names = server.bean(WriteNames.class);
    private final Rename rename = server.bean(Rename.class);
    private final Actor priya = server.actor("priya");
    private final long shelf = server.shelf();
    private final String mark = Server.key().substring(0, 8);
    private final String ring = "ring" + mark + ".stp";
    private final long part = model(ring, StructureTest.assembly("ring " + mark));

    private long model(String name, byte[] bytes) {
        return server.file("priya", shelf, "part-model", name, bytes, false);
    }

    private void renamed(String name) {
        rename.rename(
                priya,
                part,
                Server.key(),
                server.document(part).head().number(),
                server.document(part).number(),
                name,
                "");
    }

    private Plan<SetAct.PlanLine> plan(Actor actor, Long... files) {
        return over.plan(actor, Run.What.WRITE_NAMES, List.of(files), Wish.NONE);
    }

    private void write(Long... files) {
        over.begin(priya, Run.What.WRITE_NAMES, List.of(files), Wish.NONE, Optional.empty(), Server.key());
    }

    private List<Reference> refersTo(long item) {
        return server.bean(References.class).of(server.document(item).head().version());
    }

    private String text(long item) {
        return new String(server.bytes(item), StandardCharsets.US_ASCII);
    }

    @Test
    void aNameIsWrittenIntoAllThatSayItAndEveryOtherByteStays() {
        long head = model("head" + mark + ".stp", StructureTest.assembly("h " + mark, ".\\\\" + ring, 3, "no.stp", 1));
        long mast = model("mast" + mark + ".stp", StructureTest.assembly("m " + mark, ring, 1));
        String before = text(head);
        assertThat(names.namingOtherwise(priya, List.of(part))).isEmpty();
        renamed("gland" + mark + ".stp");
        assertThat(names.namingOtherwise(priya, List.of(part))).containsExactlyInAnyOrder(head, mast);
        assertThat(plan(priya, head).going().get(0).says())
                .containsExactly(".\\" + ring + " → .\\gland" + mark + ".stp");
        write(head, mast);
        assertThat(text(head)).isEqualTo(before.replace(ring, "gland" + mark + ".stp"));
        assertThat(server.document(head).head().number()).isEqualTo(2);
        assertThat(refersTo(head))
                .extracting(r -> r.written().path() + " " + r.written().quantity() + " " + r.isFound())
                .containsExactly(".\\gland" + mark + ".stp 3 true", "no.stp 1 false");
        assertThat(refersTo(mast).get(0).component().orElseThrow().item()).isEqualTo(part);
        assertThat(names.namingOtherwise(priya, List.of(part))).isEmpty();
        // The second round: nothing is left to write, and another name is written again.
        assertThat(plan(priya, head, mast).going()).isEmpty();
        renamed("seal" + mark + ".stp");
        write(head);
        assertThat(text(head)).isEqualTo(before.replace(ring, "seal" + mark + ".stp"));
        assertThat(server.document(head).head().number()).isEqualTo(3);
    }

    @Test
    void whatCannotBeWrittenSaysWhyAndGoesOnMeaningTheSame() {
        long held = model("held" + mark + ".stp", StructureTest.assembly("e " + mark, ring, 1));
        long free = model("free" + mark + ".stp", StructureTest.assembly("f " + mark, ring, 1));
        server.checkOut("tomasz", held);
        assertThat(names.naming(priya, part)).hasSize(2);
        renamed("gasket" + mark + ".stp");
        Plan<SetAct.PlanLine> plan = plan(priya, held, free);
        assertThat(plan.going()).hasSize(1);
        assertThat(plan.rows().stream().flatMap(r -> r.refusals().stream()))
                .singleElement()
                .satisfies(r -> assertThat(r.code()).isEqualTo("hold.taken"));
        write(free);
        assertThat(server.document(held).head().number()).isEqualTo(1);
        // He works on with the former name, which means the same; then it can be written.
        server.checkIn("tomasz", held, StructureTest.assembly("e2 " + mark, ring, 2), false);
        assertThat(refersTo(held).get(0).component().orElseThrow().item()).isEqualTo(part);
        write(held);
        assertThat(refersTo(held).get(0).written().path()).isEqualTo("gasket" + mark + ".stp");
        assertThat(refersTo(held).get(0).written().quantity()).isEqualTo(2);
    }

    @Test
    void aMovedFileIsNamedByItsFolderWhereAFolderIsNamed() {
        long sub = server.bean(ReadShelf.class)
                .addFolder(server.actor("ines"), shelf, OptionalLong.empty(), "parts " + mark);
        long byName = model("byname" + mark + ".stp", StructureTest.assembly("b " + mark, ring, 1));
        long byPlace = model("byplace" + mark + ".stp", StructureTest.assembly("p " + mark, "old/" + ring, 1));
        over.begin(priya, Run.What.RELOCATE, List.of(part), Wish.into(sub), Optional.empty(), Server.key());
        assertThat(names.namingOtherwise(priya, List.of(part))).containsExactly(byPlace);
        write(byPlace);
        assertThat(refersTo(byPlace).get(0).written().path()).isEqualTo("parts " + mark + "/" + ring);
        assertThat(server.document(byName).head().number()).isEqualTo(1);
    }

    @Test
    void aFileThatDoesNotLetItselfBeWrittenKeepsNoOtherOneBack() {
        byte[] plain = StructureTest.assembly("s " + mark, ring, 1);
        String signed =
                new String(plain, StandardCharsets.US_ASCII).replace("END-ISO", "SIGNATURE;\nabc\nENDSEC;\nEND-ISO");
        long seal = model("sealed" + mark + ".stp", signed.getBytes(StandardCharsets.US_ASCII));
        long free = model("open" + mark + ".stp", StructureTest.assembly("o " + mark, ring, 1));
        renamed("gland" + mark + ".stp");
        write(seal, free);
        assertThat(text(seal)).isEqualTo(signed);
        assertThat(server.document(seal).head().number()).isEqualTo(1);
        assertThat(server.document(free).head().number()).isEqualTo(2);
        assertThat(refersTo(seal).get(0).component().orElseThrow().item()).isEqualTo(part);
    }

    @Test
    void whoDoesNotSeeADocumentLearnsNoNameOfItAndWritesNone() {
        long head = model("hidden" + mark + ".stp", StructureTest.assembly("s " + mark, ring, 1));
        renamed("secret" + mark + ".stp");
        Actor reader = server.actor("rafael");
        assertThat(names.naming(reader, part)).isEmpty();
        assertThat(names.namingOtherwise(reader, List.of(part))).isEmpty();
        assertThatThrownBy(() -> plan(reader, head)).isInstanceOf(NotThere.class);
        assertThat(plan(server.actor("hedda"), head).rows().get(0).refusals())
                .extracting(r -> r.code())
                .contains("access.missing");
    }
}
