package mintshelf.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.nio.charset.StandardCharsets;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.zip.ZipEntry;
import java.util.zip.ZipInputStream;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.Refused;
import mintshelf.app.use.revision.StartRevisions;
import mintshelf.app.use.structure.KeepBaselines;
import mintshelf.app.use.structure.KeepBaselines.Kept;
import mintshelf.app.use.structure.KeepBaselines.Of;
import mintshelf.app.use.structure.KeepBomLines;
import mintshelf.app.use.structure.KeepBomLines.Typed;
import mintshelf.app.use.structure.KeepPack;
import mintshelf.app.use.structure.PackStructure;
import mintshelf.core.reference.PackNames.Layout;
import mintshelf.core.structure.StructureView;
import org.junit.jupiter.api.Test;

/** Baselines on the real database: kept, compared with now and with each other, fetched at the versions that they have. */
class BaselineTest {
    private final Server server = Server.shared();
    private final KeepBaselines baselines = server.bean(KeepBaselines.class);
    private final long shelf = server.shelf();
    private final String mark = Server.key().substring(0, 6);
    private final Actor priya = server.actor("priya");

    private long file(String name, Object... filesAndCounts) {
        return server.file(
                "priya", shelf, "part-model", name + mark + ".stp", number(name), model(name, filesAndCounts), false);
    }

    private String number(String name) {
        return "L" + mark + "-" + name;
    }

    private byte[] model(String says, Object... filesAndCounts) {
        Object[] marked = filesAndCounts.clone();
        for (int i = 0; i < marked.length; i += 2) marked[i] = marked[i] + mark + ".stp";
        return StructureTest.assembly(says + mark, marked);
    }

    private long keep(Of of, String name) {
        String address = baselines.keep(priya, Server.key(), of, name, "for the customer");
        return Long.parseLong(address.substring(address.lastIndexOf('/') + 1));
    }

    private static Of structure(long top) {
        return Of.structure(top, StructureView.LATEST, LocalDate.of(2100, 1, 1));
    }

    private List<String> differs(long id, String with) {
        Kept kept = baselines.kept(priya, id, with);
        List<String> told = new ArrayList<>(kept.lines().stream()
                .filter(l -> !l.differs().isEmpty())
                .map(l -> name(l) + " " + l.differs())
                .toList());
        kept.added().forEach(l -> told.add(name(l) + " added"));
        return told;
    }

    private String name(KeepBaselines.Line line) {
        return line.seen().document().number().replace("L" + mark + "-", "");
    }

    private void change(long item, byte[] bytes) {
        server.checkOut("priya", item);
        server.checkIn("priya", item, bytes, false);
    }

    @Test
    void whatWasKeptStaysAndSaysWhatHasChangedSince() throws Exception {
        long screw = file("screw");
        long box = file("box", "screw", 4);
        long top = file("pump", "box", 2);
        server.bean(KeepBomLines.class)
                .write(priya, top, Server.key(), new Typed(0, "", "", "Grease", "5", "g", "bought", "", ""));
        KeepBaselines.Plan plan = baselines.plan(priya, structure(top));
        assertThat(plan.absent()).containsExactly("Grease: a line by hand");
        long first = keep(structure(top), "Acceptance");
        assertThat(differs(first, "now")).isEmpty();
        Kept kept = baselines.kept(priya, first, "");
        assertThat(kept.lines())
                .extracting(l -> name(l) + " v" + l.row().number() + " "
                        + l.row().needed().orElseThrow().toPlainString())
                .containsExactly("box v1 2", "pump v1 1", "screw v1 8");
        byte[] before = server.bytes(screw);
        change(screw, model("stronger screw"));
        file("ring");
        change(box, model("box", "screw", 6, "ring", 1));
        assertThat(differs(first, "now")).containsExactly("box v1 → v2", "screw v1 → v2, 8 → 12 pc", "ring added");
        long second = keep(structure(top), "Delivery");
        assertThat(differs(second, String.valueOf(first)))
                .containsExactly("box v2 → v1", "ring gone", "screw v2 → v1, 12 → 8 pc");
        Map<String, byte[]> files = new HashMap<>();
        try (ZipInputStream zip =
                new ZipInputStream(Web.as(server, "priya").stream("/baselines/" + first + "/files.zip"))) {
            for (ZipEntry e = zip.getNextEntry(); e != null; e = zip.getNextEntry())
                files.put(e.getName().replaceFirst(".*/", ""), zip.readAllBytes());
        }
        assertThat(files.get("screw" + mark + ".stp")).isEqualTo(before);
        assertThat(Web.as(server, "priya").get("/documents/" + top + "/record").body())
                .contains("kept baseline “Acceptance” of 3 documents");
    }

    @Test
    void packedItIsWhatWasKeptAndNothingThatCameSince() throws Exception {
        long screw = file("screw");
        long top = file("pump", "screw", 4);
        byte[] before = server.bytes(screw);
        long id = keep(structure(top), "Acceptance");
        change(screw, model("stronger screw"));
        file("ring");
        change(top, model("pump", "screw", 4, "ring", 1));
        Web web = Web.as(server, "priya");
        String page = web.get("/documents/" + top + "/pack?baseline=" + id).body();
        assertThat(page)
                .contains("those of the baseline", "Pack 2 files")
                .doesNotContain("name=\"sheets\"", number("ring"));
        assertThat(web.get("/baselines/" + id).body()).contains("/documents/" + top + "/pack?baseline=" + id);
        long pack = server.bean(KeepPack.class)
                .keep(
                        priya,
                        top,
                        Server.key(),
                        new PackStructure.Asked(
                                StructureView.LATEST,
                                Optional.empty(),
                                Optional.of(id),
                                LocalDate.of(2100, 1, 1),
                                Layout.ONE_FOLDER,
                                true,
                                false,
                                false),
                        "the customer",
                        "to accept");
        Map<String, byte[]> files = new HashMap<>();
        try (ZipInputStream zip = new ZipInputStream(web.stream("/packs/" + pack + "/files.zip"))) {
            for (ZipEntry e = zip.getNextEntry(); e != null; e = zip.getNextEntry())
                files.put(e.getName(), zip.readAllBytes());
        }
        assertThat(files).doesNotContainKey("ring" + mark + ".stp");
        assertThat(files.get("screw" + mark + ".stp")).isEqualTo(before);
        assertThat(new String(files.get("contents.txt"), StandardCharsets.UTF_8))
                .startsWith(number("pump") + ", baseline " + id + ", for the customer: to accept");
        assertThat(web.get("/documents/" + screw + "/pack?baseline=" + id).statusCode())
                .as("a baseline of another")
                .isEqualTo(404);
        assertThat(Web.as(server, "rafael")
                        .get("/documents/" + top + "/pack?baseline=" + id)
                        .statusCode())
                .isEqualTo(404);
        assertThat(web.get("/documents/" + top + "/pack?baseline=").body()).contains("name=\"sheets\"");
    }

    @Test
    void aSetOfDocumentsIsABaselineTooAndARevisionThatBeginsChangesNone() {
        long one = file("one");
        long other = file("other");
        server.release("priya", one);
        long id = keep(Of.documents(List.of(other, one)), "Two");
        server.bean(StartRevisions.class).start(priya, List.of(one), Server.key(), "next", "", true);
        assertThat(differs(id, "now")).isEmpty();
        server.checkIn("priya", one, model("one, changed"), false);
        assertThat(differs(id, "now")).containsExactly("one A → B, v1 → v2");
        assertThatThrownBy(() -> baselines.plan(priya, Of.documents(List.of()))).isInstanceOf(NotThere.class);
        assertThatThrownBy(() -> baselines.keep(priya, Server.key(), Of.documents(List.of(one)), " ", ""))
                .isInstanceOf(Refused.class);
    }

    @Test
    void whoReadsWhatIsReleasedKnowsOfNone() {
        long top = file("gate");
        server.release("priya", top);
        long id = keep(structure(top), "Handed over");
        Web rafael = Web.as(server, "rafael");
        for (String path : List.of(
                "/baselines/" + id,
                "/baselines/" + id + "/files.zip",
                "/baselines/" + id + "/list.csv",
                "/baselines?of=" + top,
                "/baselines/new?of=" + top,
                "/baselines/new?items=" + top)) {
            assertThat(rafael.get(path).statusCode()).as(path).isEqualTo(404);
        }
        assertThat(rafael.get("/baselines").body()).doesNotContain("Handed over");
        assertThat(rafael.get("/documents/" + top + "/bom").body()).doesNotContain("baseline");
        assertThatThrownBy(() -> baselines.keep(server.actor("rafael"), Server.key(), structure(top), "Mine", ""))
                .isInstanceOf(NotThere.class);
        Web web = Web.as(server, "priya");
        assertThat(web.get("/baselines").body()).contains("Handed over");
        assertThat(web.get("/baselines?of=" + top).body()).contains("Handed over");
        assertThat(web.get("/baselines/" + id).body()).contains("Handed over", "for the customer", number("gate"));
        assertThat(web.get("/baselines/" + id + "?only=differing").body()).contains("Nothing differs");
        assertThat(web.get("/baselines/" + id + "?only=&from=0").body()).doesNotContain("Nothing differs");
        assertThat(web.get("/baselines/" + id + "?with=none").statusCode()).isEqualTo(200);
        assertThat(web.get("/baselines/" + id + "?with=999999999").statusCode()).isEqualTo(404);
        assertThat(web.get("/baselines/" + id + "?with=x").statusCode()).isEqualTo(404);
        assertThat(web.get("/baselines/" + id + "/list.csv").body()).contains(number("gate") + ",Gate");
        assertThat(web.get("/baselines/new?of=" + top + "&view=as-released").body())
                .contains("1 document at the versions");
        assertThat(web.post(
                                "/baselines",
                                Map.of("actKey", Server.key(), "of", "" + top, "name", "By the page", "note", ""))
                        .headers()
                        .firstValue("Location")
                        .orElse(""))
                .contains("/baselines/");
    }
}
