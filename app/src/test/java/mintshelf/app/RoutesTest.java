package mintshelf.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.net.URI;
import java.net.http.HttpRequest;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.OptionalLong;
import java.util.Set;
import java.util.TreeSet;
import mintshelf.app.store.hold.StrayStore;
import mintshelf.app.store.person.GroupStore;
import mintshelf.app.use.change.AskForChange;
import mintshelf.app.use.filing.FilingSheets;
import mintshelf.app.use.revision.StartRevisions;
import mintshelf.app.use.run.ReadRuns;
import mintshelf.app.use.takein.TakeIns;
import org.junit.jupiter.api.Test;
import org.springframework.web.bind.annotation.RequestMethod;
import org.springframework.web.servlet.mvc.method.annotation.RequestMappingHandlerMapping;

/** Every address of the application as every role, held against a table. A new address without a row fails. */
class RoutesTest {
    private static final List<String> ROLES = List.of("", "nobody", "rafael", "hedda", "priya", "ines");

    private final Server server = Server.shared();
    private final long shelf = server.shelf();
    private final long draft = server.file("priya", shelf, "route draft.txt", "d" + System.nanoTime(), true);
    private final long released = server.released(shelf, "route released.txt");
    private final long revised = server.released(shelf, "route revised.txt");
    private final long drawn =
            server.file("priya", shelf, "drawing", "route drawn.dxf", Review.sheet(Server.key()), false);
    private final String remark = RedlineTest.noted(server, "hedda", drawn, 1, "here");
    private final String kept = KeptSearchTest.kept(server, "priya", "route");
    private final long modelled =
            server.file("priya", shelf, "part-model", "route.stp", StructureTest.assembly(Server.key()), false);
    private final long stray;
    private final long run;
    private final long sheet;
    private final long round;
    private final long order;
    private final long request;
    private final long job;
    private final long takeIn;

    RoutesTest() {
        server.bean(StartRevisions.class).start(server.actor("priya"), List.of(revised), Server.key(), "x", "", true);
        server.checkIn("priya", revised, "two", false);
        run = server.bean(ReadRuns.class)
                .mine(server.actor("priya"), Long.MAX_VALUE, 1)
                .get(0)
                .id();
        server.checkIn("tomasz", revised, "unheld", false);
        stray = server.bean(StrayStore.class).kept(revised).get(0).id();
        Review review = new Review(server);
        round = review.send("priya", review.drawing(shelf, "reviewed.dxf"));
        String asked = server.bean(AskForChange.class)
                .ask(
                        server.actor("priya"),
                        List.of(server.released(shelf, "ordered.txt")),
                        Server.key(),
                        "Order",
                        "because",
                        Map.of());
        order = Long.parseLong(asked.substring("/orders/".length()));
        request = RequestTest.asked(server, "priya", server.released(shelf, "wanted.txt"));
        job = ChangeRoutes.job(server, draft);
        takeIn = server.bean(TakeIns.class).begin(server.actor("ines"), shelf, OptionalLong.empty(), "drive");
        sheet = server.bean(FilingSheets.class)
                .open(
                        server.actor("priya"),
                        shelf,
                        OptionalLong.empty(),
                        List.of(server.bring(
                                "priya", "waiting.txt", ("w" + System.nanoTime()).getBytes(StandardCharsets.UTF_8))));
    }

    /** Pattern → address → expected statuses for: nobody signed in, no grant, reader, checker, designer, data manager. */
    private Map<String, Map<String, String>> table() {
        long p = server.actor("priya").person();
        String on = "/documents/" + drawn;
        Map<String, Map<String, String>> t = new LinkedHashMap<>();
        row(t, "/", "/", "302 302 302 302 302 302");
        row(t, "/sign-in", "/sign-in", "200 200 200 200 200 200");
        row(t, "/sign-in/house", "/sign-in/house", "302 302 302 302 302 302");
        row(t, "/first-start", "/first-start", "302 302 302 302 302 302");
        row(t, "/invitations/{token}", "/invitations/nothing", "200 200 200 200 200 200");
        row(t, "/today", "/today", "302 200 200 200 200 200");
        row(t, "/today/order", "/today/order", "302 404 404 404 404 200");
        row(t, "/shelves", "/shelves", "302 200 200 200 200 200");
        row(t, "/shelves/{id}", "/shelves/" + shelf, "302 404 200 200 200 200");
        row(
                t,
                "/shelves/{id}/rows",
                "/shelves/" + shelf + "/rows?order=number&show=everything&after=" + draft,
                "302 404 200 200 200 200");
        row(t, "/filings/{id}", "/filings/" + sheet, "302 404 404 404 200 404");
        for (String face : List.of("look", "changed", "around", "facts")) {
            row(t, "/documents/{id}/peek", "/documents/" + draft + "/peek?face=" + face, "302 404 404 200 200 200");
        }
        row(t, "/documents/{id}", "/documents/" + draft, "302 404 404 200 200 200");
        row(
                t,
                "/documents/{id}/versions/{number}/drawn",
                "/documents/" + released + "/versions/1/drawn",
                "302 404 200 200 200 200");
        row(t, "/documents/{id}", "/documents/" + released, "302 404 200 200 200 200");
        row(t, "/documents/{id}", "/documents/" + revised + "?version=2", "302 404 404 200 200 200");
        row(t, "/documents/{id}", "/documents/" + revised + "?version=1", "302 404 200 200 200 200");
        row(t, "/documents/{id}/who", "/documents/" + draft + "/who", "302 404 404 200 200 200");
        row(t, "/documents/{id}/record", "/documents/" + released + "/record", "302 404 404 200 200 200");
        row(
                t,
                "/documents/{id}/versions/{number}/file",
                "/documents/" + revised + "/versions/1/file",
                "302 404 200 200 200 200");
        row(
                t,
                "/documents/{id}/versions/{number}/file",
                "/documents/" + revised + "/versions/2/file",
                "302 404 404 200 200 200");
        row(
                t,
                "/documents/{id}/versions/{number}/picture",
                "/documents/" + revised + "/versions/2/picture",
                "302 404 404 404 404 404");
        row(
                t,
                "/documents/{id}/versions/{number}/compare",
                "/documents/" + revised + "/versions/1/compare?old=1",
                "302 404 200 200 200 200");
        row(
                t,
                "/documents/{id}/versions/{number}/compare",
                "/documents/" + revised + "/versions/2/compare",
                "302 404 404 200 200 200");
        row(
                t,
                "/documents/{id}/versions/{number}/compare",
                "/documents/" + released + "/versions/1/compare?with=" + draft,
                "302 404 404 200 200 200");
        row(t, "/check-rules", "/check-rules", "302 403 403 403 403 200");
        row(t, "/check-rules/{kind}", "/check-rules/drawing", "302 403 403 403 403 200");
        row(t, "/house/kinds", "/house/kinds", "302 403 403 403 403 200");
        row(t, "/house/kinds/{code}", "/house/kinds/drawing", "302 403 403 403 403 200");
        row(t, "/house/series", "/house/series", "302 403 403 403 403 200");
        row(t, "/house/series/{code}", "/house/series/documents", "302 403 403 403 403 200");
        row(t, "/house/routes", "/house/routes", "302 403 403 403 403 200");
        row(t, "/house/routes/{code}", "/house/routes/reviewed", "302 403 403 403 403 200");
        row(t, "/house/routes/{code}/scxml", "/house/routes/reviewed/scxml", "302 403 403 403 403 200");
        row(t, "/house/routes/{code}/draw", "/house/routes/reviewed/draw", "302 403 403 403 403 200");
        row(t, "/house/routes/{code}/move-over", "/house/routes/reviewed/move-over", "302 403 403 403 403 200");
        row(t, "/house/filing", "/house/filing", "302 403 403 403 403 200");
        row(t, "/house/facts", "/house/facts", "302 403 403 403 403 200");
        row(t, "/house/kinds/{code}/fill/{fact}", "/house/kinds/drawing/fill/material", "302 403 403 403 403 200");
        row(t, "/live/since", "/live/since?today=true", "302 200 200 200 200 200");
        row(t, "/documents/{id}/row", "/documents/" + draft + "/row", "302 404 404 200 200 200");
        row(t, "/house/facts/{code}", "/house/facts/material", "302 403 403 403 403 200");
        row(t, "/house/try", "/house/try", "302 403 403 403 403 200");
        row(t, "/house/sign-offs", "/house/sign-offs", "302 403 403 403 403 200");
        row(t, "/house/sign-offs/{code}", "/house/sign-offs/check", "302 403 403 403 403 200");
        row(t, "/house/calendar", "/house/calendar", "302 403 403 403 403 200");
        row(t, "/house/notice-form", "/house/notice-form", "302 403 403 403 403 200");
        row(t, "/house/change-control", "/house/change-control", "302 403 403 403 403 200");
        row(t, "/house/distribution", "/house/distribution", "302 403 403 403 403 200");
        row(t, "/house/running", "/house/running", "302 403 403 403 403 200");
        row(t, "/house/people", "/house/people", "302 403 403 403 403 200");
        row(t, "/house/people/directory", "/house/people/directory", "302 403 403 403 403 200");
        row(
                t,
                "/people/groups/{group}",
                "/people/groups/"
                        + server.bean(GroupStore.class).groups().stream()
                                .filter(g -> g.name().equals("Routed"))
                                .map(g -> g.id())
                                .findFirst()
                                .orElseGet(() -> server.bean(GroupStore.class).addGroup("Routed")),
                "302 200 200 200 200 200");
        row(t, "/open-rounds", "/open-rounds", "302 404 404 404 404 200");
        row(t, "/house", "/house", "302 302 302 302 302 302");
        row(t, "/sheet-maps", "/sheet-maps", "302 403 403 403 403 200");
        row(t, "/sheet-maps/new", "/sheet-maps/new", "302 403 403 403 403 200");
        row(t, "/sheet-maps/{id}", "/sheet-maps/1", "302 403 403 403 403 200");
        row(t, "/documents/{id}/route", "/documents/" + drawn + "/route", "302 404 404 200 200 200");
        row(t, "/documents/{id}/title-block", "/documents/" + drawn + "/title-block", "302 404 404 200 200 200");
        row(t, "/documents/{id}/written", "/documents/" + drawn + "/written", "302 404 404 403 200 200");
        row(t, "/write-sheets", "/write-sheets?items=" + drawn, "302 404 404 200 200 200");
        row(
                t,
                "/documents/{id}/versions/{number}/compare-with",
                "/documents/" + drawn + "/versions/1/compare-with?number=no+such+thing",
                "302 404 404 409 409 409");
        row(
                t,
                "/documents/{id}/versions/{number}/geometry",
                "/documents/" + revised + "/versions/2/geometry",
                "302 404 404 404 404 404");
        row(
                t,
                "/documents/{id}/versions/{number}/checks",
                "/documents/" + revised + "/versions/2/checks",
                "302 404 404 404 404 404");
        row(
                t,
                "/check-in/differences",
                "/check-in/differences?document=" + revised + "&upload=nothing",
                "302 404 404 404 404 404");
        row(
                t,
                "/documents/{id}/versions/{number}/sheet",
                "/documents/" + revised + "/versions/2/sheet",
                "302 404 404 404 404 404");
        row(t, "/documents/{id}/versions/{number}/remarks", on + "/versions/1/remarks", "302 404 404 200 200 200");
        row(t, "/documents/{id}/remarks", on + "/remarks", "302 404 404 302 302 302");
        row(t, "/documents/{id}/versions/{number}/marks", on + "/versions/1/marks", "302 404 404 200 200 200");
        String marked = "/documents/{id}/versions/{number}/marked.{form:dxf|pdf|json|html}";
        row(t, marked, on + "/versions/1/marked.pdf", "302 404 404 200 200 200");
        String sends = "/documents/{id}/versions/{number}/send-remarks";
        row(t, sends, on + "/versions/1/send-remarks", "302 404 404 200 200 200");
        row(t, "/release-plan", "/release-plan?items=" + drawn, "302 404 404 200 200 200");
        row(t, "/documents/{id}/remarks/{remark}", remark, "302 404 404 302 302 302");
        row(t, "/documents/{id}/remarks/{remark}/thread", remark + "/thread", "302 404 404 200 200 200");
        row(t, "/documents/{id}/remarks/{remark}/thread", on + "/remarks/999999/thread", "302 404 404 404 404 404");
        row(
                t,
                "/documents/{id}/versions/{number}/reinstate",
                "/documents/" + revised + "/versions/1/reinstate",
                "302 404 404 403 200 200");
        row(
                t,
                "/documents/{id}/versions/{number}/{format:pdf|csv|dxf|svg|png|step|xlsx|docx|xml}",
                "/documents/" + revised + "/versions/1/pdf",
                "302 404 404 404 404 404");
        row(
                t,
                "/documents/{id}/versions/{number}/thumbnail",
                "/documents/" + revised + "/versions/1/thumbnail",
                "302 404 200 200 200 200");
        row(
                t,
                "/documents/{id}/versions/{number}/thumbnail",
                "/documents/" + revised + "/versions/2/thumbnail",
                "302 404 404 200 200 200");
        row(
                t,
                "/documents/{id}/versions/{number}/page",
                "/documents/" + revised + "/versions/1/page",
                "302 404 404 404 404 404");
        row(t, "/send-to-review", "/send-to-review?items=" + draft, "302 404 404 200 200 200");
        row(t, "/rounds/{id}/look", "/rounds/" + round + "/look", "302 404 404 200 200 200");
        row(t, "/rounds/{id}", "/rounds/" + round, "302 404 404 200 200 200");
        row(t, "/shelves/{shelf}/take-ins", "/shelves/" + shelf + "/take-ins", "302 404 403 403 403 200");
        row(t, "/seal.cer", "/seal.cer", "302 200 200 200 200 200");
        SearchRoutes.rows(kept, takeIn, draft, released).forEach(r -> row(t, r.get(0), r.get(1), r.get(2)));
        ChangeRoutes.rows(order, request, released, draft, job).forEach(r -> row(t, r.get(0), r.get(1), r.get(2)));
        row(t, "/files.zip", "/files.zip?items=" + draft, "302 404 404 200 200 200");
        row(t, "/strays/{id}", "/strays/" + stray, "302 404 404 200 200 200");
        row(t, "/strays/{id}/file", "/strays/" + stray + "/file", "302 404 404 200 200 200");
        row(t, "/check-out", "/check-out?items=" + draft, "302 404 404 200 200 200");
        row(t, "/runs", "/runs", "302 200 200 200 200 200");
        row(t, "/undo-check-out", "/undo-check-out?items=" + draft, "302 404 404 200 200 200");
        row(t, "/take-up", "/take-up?items=" + draft, "302 404 404 200 200 200");
        row(t, "/desk", "/desk", "302 200 200 200 200 200");
        row(t, "/desk/programs", "/desk/programs", "302 200 200 200 200 200");
        row(t, "/desk/programs/interface", "/desk/programs/interface", "302 200 200 200 200 200");
        row(t, "/habits", "/habits", "302 200 200 200 200 200");
        for (String part : List.of("structure", "bom", "where-used", "refers-to")) {
            row(t, "/documents/{id}/" + part, "/documents/" + draft + "/" + part, "302 404 404 200 200 200");
        }
        for (String part : List.of("model", "model.json", "model-file")) {
            row(
                    t,
                    "/documents/{id}/versions/{number}/" + part,
                    "/documents/" + modelled + "/versions/1/" + part,
                    "302 404 404 200 200 200");
        }
        row(t, "/documents/{id}/structure.zip", "/documents/" + draft + "/structure.zip", "302 404 404 200 200 200");
        row(t, "/check-in", "/check-in", "302 200 200 200 200 200");
        row(t, "/check-in", "/check-in?items=" + draft, "302 200 200 200 200 200");
        row(t, "/check-in/match", "/check-in/match?name=x.txt", "302 200 200 200 200 200");
        row(t, "/runs/{id}", "/runs/" + run, "302 404 404 404 200 200");
        row(t, "/documents/{id}/break-hold", "/documents/" + draft + "/break-hold", "302 404 404 200 200 200");
        row(t, "/start-revision", "/start-revision?items=" + released, "302 404 200 200 200 200");
        row(t, "/documents/{id}/drop-revision", "/documents/" + revised + "/drop-revision", "302 404 403 403 200 200");
        row(t, "/documents/{id}/moves/{move}", "/documents/" + revised + "/moves/release", "302 404 404 200 200 200");
        row(t, "/follows", "/follows", "302 200 200 200 200 200");
        row(t, "/follow/{what}/{id}", "/follow/item/" + draft, "302 404 404 200 200 200");
        row(t, "/documents/{id}/show-to", "/documents/" + draft + "/show-to", "302 404 404 200 200 200");
        row(t, "/people/{id}/leave", "/people/" + p + "/leave", "302 403 403 403 403 200");
        row(t, "/people", "/people", "302 200 200 200 200 200");
        row(t, "/people/{id}", "/people/" + p, "302 200 200 200 200 200");
        row(t, "/people/{id}/card", "/people/" + p + "/card", "302 200 200 200 200 200");
        row(t, "/people/{id}/like", "/people/" + p + "/like", "302 403 403 403 403 200");
        row(t, "/record", "/record", "302 403 403 403 403 200");
        row(t, "/record/export", "/record/export?as=csv", "302 403 403 403 403 200");
        row(t, "/uploads/{token}", "/uploads/" + Server.key(), "302 404 404 404 404 404");
        return t;
    }

    private static void row(Map<String, Map<String, String>> table, String pattern, String address, String statuses) {
        table.computeIfAbsent(pattern, x -> new LinkedHashMap<>()).put(address, statuses);
    }

    private Set<String> patterns(RequestMethod method) {
        Set<String> patterns = new TreeSet<>();
        server.bean("requestMappingHandlerMapping", RequestMappingHandlerMapping.class)
                .getHandlerMethods()
                .forEach((info, handler) -> {
                    if (!handler.getBeanType().getName().startsWith("mintshelf")) return;
                    // Programs sign with tokens; ApiTest asks those addresses.
                    if (info.getPatternValues().stream().anyMatch(path -> path.startsWith("/api/v1"))) return;
                    // A stream does not end; LiveTest asks for it.
                    if (info.getPatternValues().contains("/live")) return;
                    if (info.getMethodsCondition().getMethods().contains(method))
                        patterns.addAll(info.getPatternValues());
                });
        return patterns;
    }

    @Test
    void everyAddressAnswersEachRoleAsTheTableSays() {
        Map<String, Map<String, String>> table = table();
        assertThat(patterns(RequestMethod.GET)).isEqualTo(new TreeSet<>(table.keySet()));
        List<String> wrong = new ArrayList<>();
        for (int i = 0; i < ROLES.size(); i++) {
            Web web = Web.as(server, ROLES.get(i));
            for (Map<String, String> addresses : table.values()) {
                for (Map.Entry<String, String> row : addresses.entrySet()) {
                    int expected = Integer.parseInt(row.getValue().split(" ")[i]);
                    int status = web.get(row.getKey()).statusCode();
                    if (status != expected)
                        wrong.add((ROLES.get(i).isEmpty() ? "anonymous" : ROLES.get(i)) + " " + row.getKey() + ": "
                                + status + ", not " + expected);
                }
            }
        }
        assertThat(wrong).isEmpty();
    }

    @Test
    void noActIsDoneForAReaderNorWithoutTheToken() {
        Web reader = Web.as(server, "rafael");
        for (String pattern : patterns(RequestMethod.POST)) {
            String path = pattern.replace("{shelf}", "" + shelf)
                    .replace("{number}", "1")
                    .replace("{move}", "release")
                    .replace("{token}", "x")
                    .replace("{kind}", "drawing")
                    .replace("{word}", "kinds")
                    .replace("{what}", pattern.startsWith("/follow") ? "item" : "mails")
                    .replace("{grant}", "1")
                    .replace("{group}", "1")
                    .replace("{code}", "reviewed")
                    .replace("{fact}", "material")
                    .replace("{range}", "1")
                    .replace("{waiver}", "1")
                    .replace("{seq}", "1")
                    .replace("{ask}", "1")
                    .replace("{item}", "1")
                    .replace("{at}", "1")
                    .replace("{folder}", "1")
                    .replace("{goal}", "1")
                    .replace("{wish}", "1")
                    .replace("{name}", "none")
                    .replace("{remark}", remark.substring(remark.lastIndexOf('/') + 1))
                    .replace("{id}", id(pattern));
            String form = "items=" + revised + "&actKey=" + Server.key()
                    + "&edition=0&waivedby=checker&finding=f&words=w&reason=r&why=w&hold=1&expected=2&name=N&title=T&size=3&uploads=x&message=m&value=v&password=p&login=l&seen=x&seen.one=x&document=1&decision=signed&due=2027-01-04&"
                    + "scope=s&count=3&note=n&series=s&revisions=r&taken=start&route=r&label=L&type=TEXT&pattern=p&counts=SERVER&number=1&act=back&text=t&shelf=1&person=1&folder=1&who=p1&policy=FIRST_RETURN&role=reader&from=2027-01-04&until=2027-01-05&"
                    + "upload." + revised + "=x";
            assertThat(reader.postRaw(path, form).statusCode())
                    .as("without token " + path)
                    .isEqualTo(403);
            if (SearchRoutes.OWN.contains(pattern)) continue;
            reader.get("/today");
            assertThat(reader.post(path, parse(form)).statusCode())
                    .as("reader " + path)
                    .isIn(400, 403, 404, 409);
        }
        assertThat(server.document(revised).head().number()).isEqualTo(2);
        assertThat(server.document(revised).pending()).isPresent();
    }

    private String id(String pattern) {
        Map<String, Long> ids = new LinkedHashMap<>(Map.of("/shelves", shelf, "/orders", order, "/changes", order));
        ids.putAll(Map.of("/requests", request, "/rounds", round, "/strays", stray, "/filings", sheet));
        ids.putAll(Map.of("/take-ins", takeIn, "/uploads/take-ins", takeIn));
        ids.put("/jobs", job);
        ids.put("/people", server.actor("priya").person());
        return ids.entrySet().stream()
                .filter(e -> pattern.startsWith(e.getKey()))
                .findFirst()
                .map(e -> "" + e.getValue())
                .orElse("" + revised);
    }

    private static Map<String, String> parse(String form) {
        Map<String, String> fields = new LinkedHashMap<>();
        for (String pair : form.split("&"))
            fields.put(pair.substring(0, pair.indexOf('=')), pair.substring(pair.indexOf('=') + 1));
        return fields;
    }

    @Test
    void aReaderFindsNoTraceOfAPendingRevision() {
        Web reader = Web.as(server, "rafael");
        // Form tokens are random letters, which may say anything.
        String page = reader.get("/documents/" + revised).body().replaceAll("[\\w-]{60,}", "");
        assertThat(page).doesNotContainPattern("csrf\" content=\"[\\w-]{9}");
        assertThat(page)
                .doesNotContain("v2")
                .contains("being revised") // the one thing that readers may know
                .doesNotContain("In preparation")
                .doesNotContain("stray");
        String list = reader.get("/shelves/" + shelf).body();
        assertThat(list).doesNotContain("route draft").doesNotContain("title=\"Revision B");
        assertThat(reader.get("/search?q=route").body()).doesNotContain("Route draft");
        assertThat(reader.send(HttpRequest.newBuilder(
                                        URI.create(server.origin() + "/documents/" + revised + "/versions/2/file"))
                                .header("Range", "bytes=0-1")
                                .GET())
                        .statusCode())
                .isEqualTo(404);
    }
}
