package mintshelf.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.Refused;
import mintshelf.app.sight.Numbered;
import mintshelf.app.use.desk.Tokens;
import mintshelf.app.use.revision.StartRevisions;
import mintshelf.app.use.structure.KeepBomLines.Typed;
import mintshelf.app.use.structure.ReadBom;
import mintshelf.app.use.structure.ReadBom.Read;
import mintshelf.core.bom.Bom;
import mintshelf.core.bom.BomCompare;
import mintshelf.core.structure.StructureView;
import org.junit.jupiter.api.Test;

/** Bills of materials on the real database: from files, by hand, frozen with a release, compared. */
class BomTest extends InBom {
    private final ReadBom read = server.bean(ReadBom.class);

    private Read read(long item, StructureView view) {
        return read.of(priya, item, view, Optional.empty(), LocalDate.of(2100, 1, 1))
                .orElseThrow();
    }

    private List<String> tree(Read of) {
        return of.bom().tree(false, 60, 1000).rows().stream()
                .map(r -> r.find() + " "
                        + name(of.bom().part(r.line().part()).shown()) + " "
                        + r.line().quantity().toPlainString() + " " + r.line().unit())
                .toList();
    }

    private String name(String number) {
        return number.replace("B" + mark + "-", "");
    }

    private static String code(Runnable act) {
        try {
            act.run();
            return "";
        } catch (Refused e) {
            return e.refusal().code();
        }
    }

    @Test
    void whatFilesReferToAndWhatPeopleWriteIsOneList() {
        part("screw", Map.of("comes", "library", "mass", "0.01", "cost", "0.2"));
        part("hose", Map.of("comes", "bought", "unit", "m", "mass", "0.3", "cost", "5"));
        long label = part("label", Map.of("comes", "bought", "mass", "0.001", "cost", "1"));
        assembly("box", "screw", 4);
        long top = assembly("pump", "box", 2, "screw", 3, "hose", 1);
        write(top, "", "", "Grease", "5", "g");
        write(top, "", number("label"), "", "2", "pc");
        Read now = read(top, StructureView.LATEST);
        assertThat(tree(now))
                .containsExactly(
                        "1 box 2 pc", "1/1 screw 4 pc", "2 screw 3 pc", "3 hose 1 pc", "4 Grease 5 g", "5 label 2 pc");
        // A piece of what is counted in metres weighs nobody knows what.
        assertThat(now.mass().top().complete()).isFalse();
        assertThat(now.mass().lacking())
                .singleElement()
                .satisfies(l -> assertThat(l.why()).contains("1 pc of it, which is counted in m"));
        lines.say(
                priya,
                top,
                Server.key(),
                server.bean(Numbered.class)
                        .other(priya, 0, number("hose"))
                        .orElseThrow()
                        .spine()
                        .id(),
                Typed.said("", "0.5", "m"));
        now = read(top, StructureView.LATEST);
        assertThat(tree(now)).contains("3 hose 0.5 m");
        assertThat(now.mass().top().complete()).isTrue();
        // 11 screws, half a metre of hose, 5 g of grease, 2 labels.
        assertThat(now.mass().top().known()).isEqualByComparingTo("0.267");
        assertThat(now.cost().lacking()).hasSize(1);
        assertThat(now.bom().flat(Bom.For.PURCHASING)).hasSize(4);
        assertThat(Web.as(server, "priya")
                        .get("/documents/" + label + "/where-used")
                        .body())
                .contains("By hand in the bill of materials of", number("pump"))
                .doesNotContain("It stands in nothing");
        server.release("priya", label);
        assertThat(Web.as(server, "rafael")
                        .get("/documents/" + label + "/where-used")
                        .body())
                .contains("It stands in nothing")
                .doesNotContain(number("pump"));
        assertThat(Web.as(server, "priya").get("/documents/" + top + "/record").body())
                .contains("wrote line 4 of its bill of materials: 5 g Grease");
    }

    @Test
    void aReleaseFreezesItAndFindNumbersStayWithTheNextRevision() {
        long screw = part("s", Map.of("comes", "library", "mass", "0.01"));
        long lid = part("lid", Map.of("mass", "1"));
        long top = assembly("head", "lid", 1, "s", 6);
        write(top, "9", "", "Glue", "1", "ml");
        server.release("priya", screw);
        server.release("priya", lid);
        server.release("priya", top);
        assertThat(code(() -> write(top, "", "", "Late", "1", "pc"))).isEqualTo("bom.frozen");
        server.bean(StartRevisions.class).start(priya, List.of(top, lid), Server.key(), "lighter", "", true);
        // What is written before anything is checked in is of the revision that has begun.
        write(top, "", "", "Rag", "1", "pc");
        assertThat(tree(read(top, StructureView.LATEST)))
                .containsExactly("1 lid 1 pc", "2 s 6 pc", "9 Glue 1 ml", "10 Rag 1 pc");
        assertThat(tree(read(top, StructureView.AS_SAVED))).hasSize(4);
        assertThat(tree(read(top, StructureView.AS_RELEASED))).containsExactly("1 lid 1 pc", "2 s 6 pc", "9 Glue 1 ml");
        lines.drop(priya, top, Server.key(), 4);
        server.checkIn("priya", lid, model("lighter lid"), false);
        server.release("priya", lid);
        part("pin", Map.of("mass", "0.02"));
        server.checkIn("priya", top, model("head", "s", 8, "pin", 2, "lid", 1), false);
        Read b = read(top, StructureView.LATEST);
        // Those that were there keep their numbers, whatever the order of the file is; what is new comes behind all of
        // them.
        assertThat(tree(b)).containsExactly("1 lid 1 pc", "2 s 8 pc", "9 Glue 1 ml", "10 pin 2 pc");
        Read a = read(top, StructureView.AS_RELEASED);
        assertThat(tree(a)).containsExactly("1 lid 1 pc", "2 s 6 pc", "9 Glue 1 ml");
        assertThat(a.bom().part(a.bom().lines(0).get(0).part()).revision()).isEqualTo("A");
        assertThat(b.bom().part(b.bom().lines(0).get(0).part()).revision()).isEqualTo("B");
        BomCompare.Result result = BomCompare.of(a.bom(), b.bom());
        assertThat(result.differences())
                .extracting(d -> d.what() + " " + name(d.part().shown()) + " " + String.join(", ", d.says()))
                .containsExactlyInAnyOrder("CHANGED lid A → B", "CHANGED s 6 pc → 8 pc", "ADDED pin ");
        assertThat(result.unknownMass()).isZero();
        assertThat(result.mass()).isEqualByComparingTo("0.06");
        // What is gone is not given again; what is in force says it still.
        server.checkOut("priya", top);
        server.checkIn("priya", top, model("head", "pin", 2, "lid", 1), false);
        assertThat(code(() -> write(top, "2", "", "Other", "1", "pc"))).isEqualTo("bom.find_taken");
        assertThat(code(() -> write(top, "1", "", "Other", "1", "pc"))).isEqualTo("bom.find_taken");
        assertThat(code(() -> write(top, "2", number("s"), "", "1", "pc"))).isEqualTo("bom.find_taken");
        server.release(
                "priya",
                server.bean(Numbered.class)
                        .other(priya, 0, number("pin"))
                        .orElseThrow()
                        .spine()
                        .id());
        server.release("priya", top);
        Read released = read(top, StructureView.AS_RELEASED);
        assertThat(tree(released)).containsExactly("1 lid 1 pc", "9 Glue 1 ml", "10 pin 2 pc");
    }

    @Test
    void whatCannotBeALineIsRefusedInWordsAndChangesNothing() {
        long top = assembly("rack");
        long other = assembly("shelf", "rack", 1);
        assertThat(code(() -> write(top, "", "", "Paint", "-1", "l"))).isEqualTo("bom.quantity");
        assertThat(code(() -> write(top, "", "", "Paint", "1e308", "l"))).isEqualTo("bom.quantity");
        assertThat(code(() -> write(top, "", "", "Paint", "1", "gallon"))).isEqualTo("bom.unit");
        assertThat(code(() -> write(top, "x", "", "Paint", "1", "l"))).isEqualTo("bom.find");
        assertThat(code(() -> write(top, "", number("nowhere"), "", "1", "pc"))).isEqualTo("number.unknown");
        assertThat(code(() -> write(top, "", number("shelf"), "", "1", "pc"))).isEqualTo("bom.ring");
        assertThat(code(() -> lines.write(
                        priya, top, Server.key(), new Typed(0, "", "", "Paint", "1", "l", "bought", "NaN", ""))))
                .isEqualTo("bom.amount");
        assertThat(read(top, StructureView.LATEST).bom().lines(0)).isEmpty();
        write(top, "", "", "Paint", "1", "l");
        assertThat(code(() -> write(top, "1", "", "Thinner", "1", "l"))).isEqualTo("bom.find_taken");
        server.checkOut("tomasz", top);
        assertThat(code(() -> write(top, "", "", "Brush", "1", "pc"))).isEqualTo("hold.taken");
        assertThatThrownBy(() -> lines.write(
                        server.actor("rafael"), other, Server.key(), new Typed(0, "", "", "a", "1", "", "", "", "")))
                .isInstanceOf(NotThere.class);
        assertThatThrownBy(() -> lines.drop(server.actor("tomasz"), top, Server.key(), 77))
                .isInstanceOf(NotThere.class);
        lines.drop(server.actor("tomasz"), top, Server.key(), 1);
        assertThat(read(top, StructureView.LATEST).bom().lines(0)).isEmpty();
    }

    @Test
    void readersGetWhatIsReleasedAndNothingMoves() throws Exception {
        long screw = part("sc", Map.of("comes", "library", "mass", "0.01", "cost", "0.2"));
        long top = assembly("open", "sc", 2);
        server.release("priya", screw);
        server.release("priya", top);
        Settled.of(server, top);
        Settled.of(server, screw);
        Web rafael = Web.as(server, "rafael");
        List<String> pages = List.of(
                "/documents/" + top + "/bom",
                "/documents/" + top + "/bom?view=latest-released&who=purchasing",
                "/documents/" + top + "/bom?view=latest",
                "/documents/" + top + "/bom.csv");
        List<String> before = pages.stream().map(p -> rafael.get(p).body()).toList();
        assertThat(before.get(0)).contains(number("sc"), "0.40 EUR");
        server.bean(StartRevisions.class).start(priya, List.of(top), Server.key(), "more", "", true);
        part("secret", Map.of("cost", "9"));
        server.checkIn("priya", top, model("open", "sc", 3, "secret", 1), false);
        write(top, "", "", "Secret glue", "1", "ml");
        for (int i = 0; i < pages.size(); i++) {
            String now = rafael.get(pages.get(i)).body();
            assertThat(now).as(pages.get(i)).doesNotContain("secret", "Secret", "3 pc");
            assertThat(plain(now)).as(pages.get(i)).isEqualTo(plain(before.get(i)));
        }
        assertThat(rafael.get("/documents/" + top + "/bom/line").statusCode()).isEqualTo(404);
        assertThat(rafael.get("/documents/" + top + "/bom?version=2").body()).doesNotContain("Secret");
        assertThat(rafael.get("/documents/" + top + "/bom?with=v2").body()).doesNotContain("Secret");
        assertThat(Web.as(server, "nobody").get("/documents/" + top + "/bom").statusCode())
                .isEqualTo(404);
    }

    private static String plain(String page) {
        return page.replaceAll("[A-Za-z0-9_-]{60,}", "")
                .replaceAll("[0-9a-f-]{36}", "")
                .replaceAll("(?s)<header class=\"structure-head.*?</header>", "");
    }

    @Test
    void pagesTablesAndFormsAnswer() {
        part("nut", Map.of("comes", "library", "mass", "0.01", "cost", "0.2"));
        part("arm", Map.of("mass", "2", "cost", "30"));
        long top = assembly("stand", "nut", 4, "arm", 1);
        write(top, "", "EGW-1", "Oil", "3", "ml");
        Web web = Web.as(server, "priya");
        String at = "/documents/" + top + "/bom";
        assertThat(web.get(at).body())
                .contains(number("arm"), "over 2.04 kg", "1 part lacks it", "Write a line by hand");
        for (String view : List.of("as-saved", "latest", "latest-released", "as-released", "on-date"))
            assertThat(web.get(at + "?view=" + view).statusCode()).as(view).isEqualTo(200);
        for (String who : List.of("engineering", "purchasing", "manufacturing"))
            for (String shape : List.of("tree", "level", "flat"))
                assertThat(web.get(at + "?who=" + who + "&shape=" + shape).body())
                        .as(who + shape)
                        .contains("Oil");
        for (String bad : List.of("?who=x", "?shape=x", "?view=x"))
            assertThat(web.get(at + bad).statusCode()).as(bad).isEqualTo(404);
        assertThat(web.get(at + "?with=" + number("arm")).body()).contains("To " + number("arm"), "added");
        assertThat(web.get(at + "?with=v99").body()).contains("“v99” has no bill of materials");
        assertThat(web.get(at + "?with=nowhere").body()).contains("“nowhere” has no bill of materials");
        assertThat(web.get(at + "?with=v1").body()).contains("nothing differs");
        String csv = web.get(at + ".csv").body();
        assertThat(csv.lines().toList()).hasSize(4);
        assertThat(csv).contains("3,1,EGW-1,Oil,,,3,ml,bought,,,3 ml,,,");
        assertThat(web.get(at + ".csv?who=purchasing").body()).contains(number("nut"), "Oil");
        assertThat(web.get(at + "?who=purchasing&pieces=25").body())
                .contains("100 pc", "75 ml", "over 51 kg", "over 770.00 EUR")
                .doesNotContain("4 pc");
        assertThat(web.get(at + ".csv?who=purchasing&pieces=25").body()).contains("needed for 25", "100 pc", "75 ml");
        for (String none : List.of("0", "-3", "99999999"))
            assertThat(web.get(at + "?who=purchasing&pieces=" + none).statusCode())
                    .as(none)
                    .isEqualTo(200);
        assertThat(web.get(at + "?who=purchasing&pieces=x").statusCode()).isEqualTo(400);
        assertThat(web.get(at + ".xlsx").body()).startsWith("PK");
        assertThat(web.get(at + ".txt").statusCode()).isEqualTo(404);
        assertThat(web.get(at + "/line").body()).contains("A line by hand");
        assertThat(web.get(at + "/line?find=3").body()).contains("EGW-1", "Take the line away");
        assertThat(web.get(at + "/line?find=1").body()).contains("Line 1: " + number("nut"));
        assertThat(web.get(at + "/line?find=8").statusCode()).isEqualTo(404);
        String seq = "3"; // behind what the file has
        assertThat(web.post(
                                at + "/lines",
                                Map.of(
                                        "actKey",
                                        Server.key(),
                                        "seq",
                                        seq,
                                        "find",
                                        "3",
                                        "number",
                                        "EGW-2",
                                        "title",
                                        "Oil",
                                        "quantity",
                                        "4",
                                        "unit",
                                        "ml",
                                        "comes",
                                        "bought",
                                        "mass",
                                        "0.001",
                                        "cost",
                                        "1"))
                        .statusCode())
                .isEqualTo(302);
        assertThat(web.get(at).body()).contains("EGW-2", "4 ml", "2.044 kg").doesNotContain("EGW-1");
        assertThat(web.post(at + "/lines", Map.of("actKey", Server.key(), "seq", "0", "title", "Half"))
                        .statusCode())
                .isEqualTo(409);
        assertThat(new String(server.bytes(top), StandardCharsets.US_ASCII)).contains("stand");
    }

    @Test
    void programsReadItToo() throws Exception {
        part("rod", Map.of("comes", "bought", "mass", "0.5", "cost", "7"));
        long one = assembly("gate", "rod", 2);
        long other = assembly("gate2", "rod", 3);
        String token = server.bean(Tokens.class).make(priya, "bills", false, 9);
        String bill = api(token, "/documents/" + one + "/bom");
        assertThat(bill)
                .contains("\"find\":\"1\"", "\"quantity\":2", "\"make\":\"BOUGHT\"", "\"complete\":true")
                .contains("\"value\":1.0", "\"value\":14");
        assertThat(api(token, "/documents/" + one + "/bom?shape=flat&for=purchasing&as=saved"))
                .contains("\"depth\":0", number("rod"));
        assertThat(api(token, "/documents/" + one + "/bom?shape=heap")).contains("\"status\":404");
        assertThat(api(token, "/documents/" + one + "/bom/compare?with=" + other + "&with-as=latest"))
                .contains("\"what\":\"CHANGED\"", "3 pc → 2 pc", "\"mass\":-0.5");
        assertThat(api(token, "/documents/" + one + "/bom/compare")).contains("\"status\":404");
        String readers = server.bean(Tokens.class).make(server.actor("rafael"), "bills", false, 9);
        assertThat(api(readers, "/documents/" + one + "/bom")).contains("\"status\":404");
    }

    private String api(String token, String path) throws Exception {
        return HttpClient.newHttpClient()
                .send(
                        HttpRequest.newBuilder(URI.create(server.origin() + "/api/v1" + path))
                                .header("Authorization", "Bearer " + token)
                                .build(),
                        HttpResponse.BodyHandlers.ofString())
                .body();
    }
}
