package mintshelf.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.catchThrowableOfType;

import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.time.LocalDate;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.Refused;
import mintshelf.app.store.house.HouseStore;
import mintshelf.app.use.desk.Desks;
import mintshelf.app.use.document.FetchFiles;
import mintshelf.app.use.document.KeepFacts;
import mintshelf.app.use.document.ReadDocument;
import mintshelf.app.use.part.BeginPart;
import mintshelf.app.use.revision.StartRevisions;
import mintshelf.app.use.structure.KeepBomLines;
import mintshelf.app.use.structure.KeepBomLines.Typed;
import mintshelf.app.use.structure.ReadBom;
import mintshelf.core.base.ContentHash;
import mintshelf.core.document.Document;
import mintshelf.core.next.Act;
import mintshelf.core.structure.StructureView;
import org.junit.jupiter.api.Test;

/** Parts that have neither drawing nor model: made, changed, released, revised, named in bills of materials. */
class BoughtPartsTest {
    private final Server server = Server.shared();
    private final long shelf = server.shelf();
    private final String mark = Server.key().substring(0, 6);
    private final Actor priya = server.actor("priya");
    private final BeginPart parts = server.bean(BeginPart.class);
    private final KeepFacts facts = server.bean(KeepFacts.class);
    private final KeepBomLines lines = server.bean(KeepBomLines.class);

    private long kind() {
        return server.bean(HouseStore.class).kind("bought-part").id();
    }

    private long folder() {
        return server.db()
                .fetchSingle("select id from folder where shelf = ? and parent is null", shelf)
                .get(0, Long.class);
    }

    private long make(String number, Map<String, String> said) {
        return id(parts.make(
                priya,
                Server.key(),
                new BeginPart.Wish(Optional.of(folder()), Optional.of(kind()), number, "Grease " + mark, said)));
    }

    /** One that priya made at the top of a shelf, with a mass. */
    static long made(Server server, long shelf, String title) {
        long top = server.db()
                .fetchSingle("select id from folder where shelf = ? and parent is null", shelf)
                .get(0, Long.class);
        long kind = server.bean(HouseStore.class).kind("bought-part").id();
        return id(server.bean(BeginPart.class)
                .make(
                        server.actor("priya"),
                        Server.key(),
                        new BeginPart.Wish(
                                Optional.of(top),
                                Optional.of(kind),
                                "",
                                title,
                                Map.of("comes", "bought", "mass", "0.1"))));
    }

    private static long id(String address) {
        return Long.parseLong(address.substring("/documents/".length()));
    }

    private long make() {
        return make("G" + mark, Map.of("comes", "bought", "unit", "g", "mass", "0.001", "cost", "0.03"));
    }

    private void say(long item, String fact, String value) {
        facts.keep(priya, item, Server.key(), server.document(item).title(), Map.of(fact, value), Map.of());
    }

    private static String code(Runnable act) {
        return catchThrowableOfType(Refused.class, act::run).refusal().code();
    }

    private long assembly() {
        return server.file(
                "priya",
                shelf,
                "assembly-model",
                "head" + mark + ".stp",
                "H" + mark,
                StructureTest.assembly("head" + mark),
                false);
    }

    private void line(long item, String number, String quantity, String unit) {
        lines.write(priya, item, Server.key(), new Typed(0, "", number, "", quantity, unit, "", "", ""));
    }

    @Test
    void itIsNamedInABillOfMaterialsAndCountsThere() throws Exception {
        long grease = make();
        long head = assembly();
        line(head, "G" + mark, "20", "g");
        ReadBom.Read read = server.bean(ReadBom.class)
                .of(priya, head, StructureView.LATEST, Optional.empty(), LocalDate.EPOCH)
                .orElseThrow();
        assertThat(read.cost().top().known()).isEqualByComparingTo("0.6");
        assertThat(read.mass().top().known()).isEqualByComparingTo("0.02");
        String used = Web.as(server, "priya")
                .get("/documents/" + grease + "/where-used")
                .body();
        assertThat(used).contains("By hand in the bill of materials", "H" + mark, ">20 g<", ">0.02 kg<", ">0.60 EUR<");
        // The page of the part shows it, too, and offers nothing that wants a file.
        String page = Web.as(server, "priya").get("/documents/" + grease).body();
        assertThat(page)
                .contains("It has no drawing and no model", "Change what it says…")
                .doesNotContain("Work on it", "Fetch a copy", "Bring to my desk", "Start a trial", "Put another in");
    }

    @Test
    void itsVersionsAreWhatItSays() {
        long grease = make();
        assertThat(document(grease).head().number()).isEqualTo(1);
        // What changes freely once released is in no version.
        say(grease, "cost", "0.04");
        assertThat(document(grease).head().number()).isEqualTo(1);
        say(grease, "mass", "0.0011");
        assertThat(document(grease).head().number()).isEqualTo(2);
        say(grease, "mass", "0.0011");
        assertThat(document(grease).head().number()).isEqualTo(2);
        server.release("priya", grease);
        say(grease, "cost", "0.05");
        assertThat(code(() -> say(grease, "mass", "0.2"))).isEqualTo("fact.closed");

        server.bean(StartRevisions.class).start(priya, List.of(grease), Server.key(), "thicker", "", true);
        assertThat(document(grease).holder()).isEmpty();
        Refused early = catchThrowableOfType(Refused.class, () -> server.release("priya", grease));
        assertThat(early.refusal().says()).contains("Nothing of it was changed for revision B yet", "what it says");
        say(grease, "mass", "0.0012");
        assertThat(document(grease).head().number()).isEqualTo(3);
        server.release("priya", grease);
        assertThat(document(grease).released().orElseThrow().shown()).isEqualTo("B");
        assertThat(new String(server.bytes(grease), StandardCharsets.UTF_8))
                .contains("\"mass\" : \"0.0012\"")
                .doesNotContain("cost");
    }

    @Test
    void aFirstChangeInARevisionIsItsVersionThoughTheCardIsTheSame() {
        long grease = make();
        server.release("priya", grease);
        server.bean(StartRevisions.class).start(priya, List.of(grease), Server.key(), "dearer", "", false);
        say(grease, "cost", "0.09");
        assertThat(document(grease).head().number()).isEqualTo(2);
        server.release("priya", grease);
        assertThat(document(grease).released().orElseThrow().shown()).isEqualTo("B");
    }

    @Test
    void nothingIsCheckedOutFetchedOrTriedThatHasNoFile() throws Exception {
        long grease = make();
        assertThat(code(() -> server.checkOut("priya", grease))).isEqualTo("check_out.refused");
        HttpResponse<String> file = Web.as(server, "priya").get("/documents/" + grease + "/versions/1/file");
        assertThat(file.statusCode()).isEqualTo(409);
        assertThat(file.body()).contains("has no file");
        assertThat(Web.as(server, "priya").get("/trials/new?items=" + grease).body())
                .contains("has no file");
        assertThat(Web.as(server, "priya").get("/swap?items=" + grease).statusCode())
                .isEqualTo(404);
        assertThat(server.bean(ReadDocument.class).view(priya, grease).next().act())
                .isEqualTo(Act.CHANGE_FACTS);
        // Nothing offers to hold it.
        assertThat(Web.as(server, "priya").get("/documents/" + grease + "/new").body())
                .doesNotContain("You hold it");
        server.release("priya", grease);
        assertThat(Web.as(server, "priya")
                        .get("/start-revision?items=" + grease)
                        .body())
                .contains("Start the revision")
                .doesNotContain("and check out");
        String kinds = Web.as(server, "priya")
                .get("/change-kind?items=" + grease + "&to=" + server.kind("drawing"))
                .body();
        assertThat(kinds).contains("has no file");
    }

    @Test
    void amongOthersItIsLeftOutOfWhatIsFetchedAndOfDesks() {
        long grease = make();
        long head = assembly();
        FetchFiles fetch = server.bean(FetchFiles.class);
        assertThat(fetch.fetchLatest(priya, List.of(grease, head), false))
                .extracting(p -> p.path())
                .containsExactly("head" + mark + ".stp");
        assertThat(code(() -> fetch.fetchLatest(priya, List.of(grease), false))).isEqualTo("part.no_file");
        // A folder that comes to every desk brings no cards, and a file that is called as one is nobody's.
        server.db().execute("update folder set every_desk = true where id = ?", folder());
        Desks desks = server.bean(Desks.class);
        String desk = "BENCH-" + mark;
        desks.open(priya, desk);
        String shelfName = server.shelfName(shelf);
        List<Desks.DeskLine> lines = desks.status(
                priya,
                desk,
                List.of(
                        new Desks.OnDisk(shelfName + "/G" + mark + ".json", ContentHash.compute(new byte[] {1})),
                        new Desks.OnDisk(shelfName + "/head" + mark + ".stp", ContentHash.compute(new byte[] {2}))));
        assertThat(lines)
                .filteredOn(l -> l.seen().isPresent() && l.path().startsWith(shelfName))
                .hasSize(1);
        assertThat(lines)
                .filteredOn(l -> l.path().endsWith("G" + mark + ".json"))
                .hasSize(1);
    }

    @Test
    void aPartIsMadeThoughAFileIsCalledAsItsCard() {
        server.file("priya", shelf, "G" + mark + ".json", "{}", false);
        long grease = make();
        assertThat(document(grease).fileName()).isEqualTo("G" + mark + " 2.json");
    }

    @Test
    void aPartOfItsOwnHasNoNumberOfAModelOrDrawing() {
        long head = assembly();
        assertThat(head).isPositive();
        assertThat(code(() -> make("H" + mark, Map.of()))).isEqualTo("part.described");
        make("G" + mark, Map.of());
        assertThat(code(() -> make("G" + mark, Map.of()))).isEqualTo("number.used");
    }

    @Test
    void aPartBegunFromAnotherHasACardOfItsOwn() {
        long grease = make();
        Map<String, String> form = new HashMap<>();
        form.put("number", "W" + mark);
        form.put("title", "Winter grease");
        form.put("kind", Long.toString(kind()));
        form.put("folder", Long.toString(folder()));
        form.put("fact.mass", "0.0013");
        form.put("fact.comes", "bought");
        form.put("fact.unit", "g");
        form.put("hold", "true");
        form.put("actKey", Server.key());
        String to = Web.as(server, "priya")
                .post("/documents/" + grease + "/new", form)
                .headers()
                .firstValue("Location")
                .orElseThrow();
        long winter = id(to.substring(to.indexOf("/documents/")));
        assertThat(new String(server.bytes(winter), StandardCharsets.UTF_8)).contains("0.0013", "\"g\"");
        // What it costs is said anew, and there is nothing to hold.
        assertThat(document(winter).holder()).isEmpty();
        ReadDocument.View view = server.bean(ReadDocument.class).view(priya, winter);
        assertThat(view.facts())
                .filteredOn(f -> f.fact().fact().name().equals("cost"))
                .extracting(f -> f.value())
                .containsExactly("");
        // A drawing is no part, and a part no drawing.
        form.put("kind", Long.toString(server.kind("drawing")));
        form.put("number", "");
        form.put("actKey", Server.key());
        assertThat(Web.as(server, "priya")
                        .post("/documents/" + grease + "/new", form)
                        .statusCode())
                .isEqualTo(404);
    }

    @Test
    void readersKnowOfItWhatIsReleased() throws Exception {
        long grease = make();
        assertThat(Web.as(server, "rafael").get("/documents/" + grease).statusCode())
                .isEqualTo(404);
        server.release("priya", grease);
        server.bean(StartRevisions.class).start(priya, List.of(grease), Server.key(), "thicker", "", false);
        say(grease, "mass", "0.0077");
        String page = Web.as(server, "rafael").get("/documents/" + grease).body();
        assertThat(page).contains("Grease " + mark, "0.001").doesNotContain("0.0077", "thicker");
        assertThat(Web.as(server, "rafael").get("/parts/new").statusCode()).isEqualTo(404);
        assertThat(Web.as(server, "rafael")
                        .get("/documents/" + grease + "/versions/2/file")
                        .statusCode())
                .isEqualTo(404);
    }

    @Test
    void whatIsWrongIsSaidAndNothingIsMade() throws Exception {
        Map<String, String> form = new HashMap<>();
        form.put("kind", Long.toString(kind()));
        form.put("folder", Long.toString(folder()));
        form.put("title", "Tape " + mark);
        form.put("number", "X" + mark);
        for (String wrong : List.of("-1", "1e308", "NaN", "two")) {
            form.put("fact.mass", wrong);
            HttpResponse<String> answer = Web.as(server, "priya").post("/parts/new", form);
            assertThat(answer.statusCode()).as(wrong).isEqualTo(200);
            assertThat(answer.body()).as(wrong).contains("role=\"alert\"", "Tape " + mark, "X" + mark);
        }
        form.put("fact.mass", "");
        form.put("actKey", Server.key());
        form.put("folder", "999999");
        assertThat(Web.as(server, "priya").post("/parts/new", form).statusCode())
                .isEqualTo(404);
        form.put("folder", Long.toString(folder()));
        assertThat(Web.as(server, "rafael").post("/parts/new", form).statusCode())
                .isEqualTo(404);
        assertThat(Web.as(server, "priya").post("/parts/new", form).statusCode())
                .isEqualTo(302);
    }

    private Document document(long item) {
        return server.document(item);
    }

    @Test
    void itsPeekShowsItsCardInEveryFace() {
        long part = make("PEEK-" + mark, Map.of("mass", "0.4"));
        Web web = Web.as(server, "priya");
        for (String face : List.of("look", "changed", "around", "facts")) {
            HttpResponse<String> peek = web.get("/documents/" + part + "/peek?face=" + face);
            assertThat(peek.statusCode()).as(face).isEqualTo(200);
        }
        assertThat(web.get("/documents/" + part + "/peek?face=facts").body()).doesNotContain(">File<");
        assertThat(web.get("/documents/" + part + "/peek?face=look").body())
                .contains("bills of materials name it by its number", "part-sheet");
    }
}
