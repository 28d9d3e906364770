package mintshelf.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalLong;
import mintshelf.app.effect.References;
import mintshelf.app.effect.run.SetAct;
import mintshelf.app.effect.run.Wish;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.Refused;
import mintshelf.app.store.run.Run;
import mintshelf.app.store.shelf.ShelfStore;
import mintshelf.app.store.structure.Reference;
import mintshelf.app.use.relocate.Folders;
import mintshelf.app.use.relocate.Relocate;
import mintshelf.app.use.relocate.Rename;
import mintshelf.app.use.run.ActOverSet;
import mintshelf.app.use.search.Search;
import mintshelf.app.use.shelf.ReadShelf;
import mintshelf.core.base.Plan;
import mintshelf.core.base.Refusal;
import mintshelf.core.reference.Written;
import mintshelf.database.schema.Tables;
import org.junit.jupiter.api.Test;

class RelocateTest {
    private final Server server = Server.shared();
    private final ActOverSet over = server.bean(ActOverSet.class);
    private final Relocate relocate = server.bean(Relocate.class);
    private final Rename rename = server.bean(Rename.class);
    private final Actor ines = server.actor("ines");
    private final Actor priya = server.actor("priya");

    private long folder(long shelf, String name) {
        return server.bean(ReadShelf.class).addFolder(ines, shelf, OptionalLong.empty(), name);
    }

    private Plan<SetAct.PlanLine> plan(Actor actor, long to, Long... items) {
        return over.plan(actor, Run.What.RELOCATE, List.of(items), Wish.into(to));
    }

    private void move(Actor actor, long to, Long... items) {
        over.begin(actor, Run.What.RELOCATE, List.of(items), Wish.into(to), Optional.empty(), Server.key());
    }

    private static List<String> codes(Plan<SetAct.PlanLine> plan) {
        return plan.rows().stream()
                .flatMap(r -> r.refusals().stream())
                .map(Refusal::code)
                .toList();
    }

    private void rename(Actor actor, long item, String number, String file) {
        rename.rename(actor, item, Server.key(), server.document(item).head().number(), number, file, "");
    }

    private List<String> record(long item) {
        return server.db()
                .select(Tables.RECORD_ENTRY.SAYS)
                .from(Tables.RECORD_ENTRY)
                .where(Tables.RECORD_ENTRY.ITEM.eq(item))
                .orderBy(Tables.RECORD_ENTRY.SEQ)
                .fetch(Tables.RECORD_ENTRY.SAYS);
    }

    @Test
    void documentsMoveWithinAShelfAndNothingElseChanges() {
        long shelf = server.shelf();
        long to = folder(shelf, "mast");
        long released = server.released(shelf, "RL-" + shelf + "01 eye.txt");
        long draft = server.file("priya", shelf, "RL-" + shelf + "02 eye.txt", "draft " + shelf, false);
        byte[] before = server.bytes(released);
        assertThat(plan(priya, to, released, draft).going()).hasSize(2);
        move(priya, to, released, draft);
        assertThat(server.document(released).place().folders()).first().isEqualTo(to);
        assertThat(server.document(released).head().number()).isEqualTo(1);
        assertThat(server.bytes(released)).isEqualTo(before);
        assertThat(record(draft)).last().asString().isEqualTo("moved it to mast on " + server.shelfName(shelf));
        assertThat(plan(priya, to, released).going()).isEmpty();
        assertThat(codes(plan(priya, to, released))).isEmpty();
        // The way back is the same act.
        move(priya, server.bean(ShelfStore.class).root(shelf).id(), released);
        assertThat(server.document(released).place().folders()).first().isNotEqualTo(to);
        var found = server.bean(Search.class).find(priya, Search.Wish.first("RL-" + shelf + "02", 10));
        assertThat(found.total()).isEqualTo(1);
    }

    @Test
    void whatCannotMoveSaysWhy() {
        long shelf = server.shelf();
        long to = folder(shelf, "gauge");
        long held = server.file("priya", shelf, "held " + shelf + ".txt", "h " + shelf, true);
        long twin = server.file("priya", shelf, "twin " + shelf + ".txt", "t " + shelf, false);
        long there = server.file("priya", shelf, "other " + shelf + ".txt", "o " + shelf, false);
        rename(priya, there, server.document(there).number(), "moved " + shelf + ".txt");
        move(priya, to, there);
        rename(priya, there, server.document(there).number(), "TWIN " + shelf + ".txt");
        assertThat(codes(plan(priya, to, held))).containsExactly("hold.mine");
        assertThat(codes(plan(ines, to, held))).containsExactly("hold.taken");
        assertThat(codes(plan(priya, to, twin))).containsExactly("file.name");
        assertThat(codes(plan(server.actor("hedda"), to, twin))).contains("access.missing");
        // A reader learns nothing of what is not out, not even that it is there.
        assertThatThrownBy(() -> plan(server.actor("rafael"), to, twin)).isInstanceOf(NotThere.class);
        assertThatThrownBy(() -> plan(priya, 99_999_999L, twin)).isInstanceOf(NotThere.class);
    }

    @Test
    void toAnotherShelfMovesWhoKeepsBoth() {
        long shelf = server.shelf();
        long other = server.shelf();
        long to = server.bean(ShelfStore.class).root(other).id();
        long item = server.released(shelf, "RL-" + shelf + "11.txt");
        assertThat(codes(plan(priya, to, item))).containsExactly("relocate.keeps");
        assertThat(plan(ines, to, item).going().get(0).says())
                .first()
                .asString()
                .contains("that shelf's grants");
        move(ines, to, item);
        assertThat(server.document(item).place().shelf()).isEqualTo(other);
        assertThat(record(item))
                .last()
                .asString()
                .endsWith(", from another shelf")
                .doesNotContain(server.shelfName(shelf));
    }

    @Test
    void aPlanThatIsOldIsNotDone() {
        long shelf = server.shelf();
        long to = folder(shelf, "late");
        long elsewhere = folder(shelf, "sooner");
        long item = server.file("priya", shelf, "late " + shelf + ".txt", "l " + shelf, false);
        String digest = ActOverSet.digest(plan(priya, to, item));
        move(priya, elsewhere, item);
        assertThatThrownBy(() -> over.begin(
                        priya, Run.What.RELOCATE, List.of(item), Wish.into(to), Optional.of(digest), Server.key()))
                .isInstanceOf(RuntimeException.class);
        assertThat(server.document(item).place().folders()).first().isEqualTo(elsewhere);
    }

    @Test
    void whatHasTheSameNumberBelongsAlong() {
        long shelf = server.shelf();
        long drawing = new Review(server).drawing(shelf, "along " + shelf + ".dxf");
        String number = server.document(drawing).number();
        long paper = server.file(
                "priya",
                shelf,
                "specification",
                number + " notes.txt",
                ("notes " + shelf).getBytes(StandardCharsets.UTF_8),
                false);
        assertThat(server.document(paper).number()).isEqualTo(number);
        assertThat(relocate.withTheirs(priya, List.of(drawing))).containsExactlyInAnyOrder(drawing, paper);
    }

    @Test
    void theOldNumberKeepsFindingItAndIsNobodyElses() {
        long shelf = server.shelf();
        String was = "RN-" + shelf + "21";
        long item = server.released(shelf, was + ".txt");
        assertThat(server.document(item).number()).isEqualTo(was);
        rename(priya, item, "RN-" + shelf + "22", server.document(item).fileName());
        assertThat(server.document(item).number()).isEqualTo("RN-" + shelf + "22");
        assertThat(server.document(item).head().number()).isEqualTo(1);
        assertThat(rename.view(priya, item).former()).containsExactly(was);
        var found = server.bean(Search.class).find(priya, Search.Wish.first(was, 10));
        assertThat(found.total()).isEqualTo(1);
        long other = server.file("priya", shelf, "other " + shelf + ".txt", "o " + shelf, false);
        for (String taken : List.of(was, "rn-" + shelf + "22")) {
            assertThatThrownBy(() ->
                            rename(priya, other, taken, server.document(other).fileName()))
                    .isInstanceOfSatisfying(
                            Refused.class, r -> assertThat(r.refusal().code()).isEqualTo("number.used"));
        }
        // Back to what it was: its own to take.
        rename(priya, item, was, server.document(item).fileName());
        assertThat(server.document(item).number()).isEqualTo(was);
        assertThat(rename.view(priya, item).former()).containsExactly("RN-" + shelf + "22");
        assertThat(record(item)).last().asString().startsWith("gave it the number " + was + " in place of");
    }

    @Test
    void filesThatNameTheOldNameMeanTheSameDocument() {
        long shelf = server.shelf();
        long part = server.file("priya", shelf, "part " + shelf + ".txt", "part " + shelf, false);
        long parent = server.file("priya", shelf, "parent " + shelf + ".txt", "parent " + shelf, false);
        rename(priya, part, server.document(part).number(), "clamp " + shelf + ".txt");
        List<Reference> means = server.bean(References.class)
                .resolve(
                        parent,
                        List.of(new Written(Written.Role.COMPONENT, "part " + shelf + ".txt", 1)),
                        Optional.empty(),
                        Map.of())
                .orElseThrow(Refused::new);
        assertThat(means.get(0).component().orElseThrow().item()).isEqualTo(part);
        // A file that has the name now goes before one that had it.
        long now = server.file("priya", shelf, "part " + shelf + ".txt", "another " + shelf, false);
        means = server.bean(References.class)
                .resolve(
                        parent,
                        List.of(new Written(Written.Role.COMPONENT, "PART " + shelf + ".TXT", 1)),
                        Optional.empty(),
                        Map.of())
                .orElseThrow(Refused::new);
        assertThat(means.get(0).component().orElseThrow().item()).isEqualTo(now);
    }

    @Test
    void aNameThatCannotBeIsRefusedInWords() {
        long shelf = server.shelf();
        long item = server.file("priya", shelf, "name " + shelf + ".txt", "n " + shelf, false);
        String number = server.document(item).number();
        Map<String, String> wrong = Map.of(
                "a/b.txt",
                "name.file_system",
                "name " + shelf + ".dxf",
                "name.ending",
                "name " + shelf + ".txt",
                "rename.same");
        wrong.forEach((file, code) -> assertThatThrownBy(() -> rename(priya, item, number, file))
                .as(file)
                .isInstanceOfSatisfying(
                        Refused.class, r -> assertThat(r.refusal().code()).isEqualTo(code)));
        long other = server.file("priya", shelf, "second " + shelf + ".txt", "s " + shelf, false);
        assertThatThrownBy(() -> rename(priya, other, server.document(other).number(), "NAME " + shelf + ".txt"))
                .isInstanceOfSatisfying(
                        Refused.class, r -> assertThat(r.refusal().code()).isEqualTo("file.name"));
        assertThatThrownBy(() -> rename(server.actor("hedda"), item, number, "x.txt"))
                .isInstanceOf(Refused.class);
        assertThatThrownBy(() -> rename(server.actor("rafael"), item, number, "x.txt"))
                .isInstanceOf(NotThere.class);
        // Its letters may change: it is the same name.
        rename(priya, item, number, "NAME " + shelf + ".txt");
        assertThat(server.document(item).fileName()).isEqualTo("NAME " + shelf + ".txt");
    }

    @Test
    void foldersGetOtherNamesFromWhoKeepsTheShelf() {
        long shelf = server.shelf();
        long folder = folder(shelf, "old name");
        folder(shelf, "taken");
        Folders folders = server.bean(Folders.class);
        assertThatThrownBy(() -> folders.rename(priya, folder, "mine")).isInstanceOf(Refused.class);
        assertThatThrownBy(() -> folders.rename(ines, folder, "TAKEN"))
                .isInstanceOfSatisfying(
                        Refused.class, r -> assertThat(r.refusal().code()).isEqualTo("folder.name"));
        assertThatThrownBy(() -> folders.rename(ines, folder, "a/b")).isInstanceOf(Refused.class);
        folders.rename(ines, folder, "A new name");
        List<String> names = new ArrayList<>();
        server.bean(ShelfStore.class).folders(shelf).forEach(f -> names.add(f.name()));
        assertThat(names).containsExactly(server.shelfName(shelf), "A new name", "taken");
    }

    @Test
    void thePagesShowThePlanAndDoIt() {
        long shelf = server.shelf();
        long to = folder(shelf, "by page");
        long item = server.file("priya", shelf, "page " + shelf + ".txt", "p " + shelf, false);
        Web web = Web.as(server, "priya");
        String page = web.get("/relocate?items=" + item + "&to=" + to).body();
        assertThat(page).contains("Move 1 document").contains("by page").contains("goes");
        web.post("/relocate", Map.of("items", "" + item, "to", "" + to, "actKey", Server.key()));
        assertThat(server.document(item).place().folders()).first().isEqualTo(to);
        assertThat(web.get("/documents/" + item + "/rename").body()).contains("page " + shelf + ".txt");
        String answer = web.post(
                        "/documents/" + item + "/rename",
                        Map.of(
                                "number",
                                "x/y",
                                "file",
                                "page " + shelf + ".txt",
                                "expected",
                                "1",
                                "actKey",
                                Server.key()))
                .body();
        assertThat(answer).contains("holds a character that a file name cannot").contains("value=\"x/y\"");
    }
}
