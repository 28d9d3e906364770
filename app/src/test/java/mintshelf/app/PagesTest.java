package mintshelf.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.net.URI;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.junit.jupiter.api.Test;

/** Pages over HTTP: statements, headers, hostile input, signing in. */
class PagesTest {
    private final Server server = Server.shared();

    @Test
    void aListAsksTheSameNumberOfStatementsAtItsStartAndDeepInside() {
        long shelf = server.shelf();
        long model = server.file("priya", shelf, "model.txt", "model", false);
        ManyDocuments.fill(server.db(), shelf, model, 2000);
        Web priya = Web.as(server, "priya");
        priya.get("/shelves/" + shelf);
        long deep = server.db()
                .fetchSingle(
                        "select id from item where shelf = ? order by folder desc, number_sort desc limit 1 offset 150",
                        shelf)
                .get(0, Long.class);
        int[] counts = new int[3];
        long first = server.db()
                .fetchSingle("select id from item where shelf = ? order by folder, number_sort limit 1", shelf)
                .get(0, Long.class);
        String[] addresses = {
            "/shelves/" + shelf + "/rows?order=number&show=everything&after=" + first,
            "/shelves/" + shelf + "/rows?order=number&show=everything&after=" + deep,
            "/shelves/" + shelf + "/rows?order=changed&show=pending&after=" + deep
        };
        priya.get(addresses[0]); // what the first request of a session writes of the session is none of the list's
        for (int i = 0; i < addresses.length; i++) {
            counts[i] = Integer.MAX_VALUE;
            // What the server does beside it at that moment is none of the list's: the quietest of some counts. Two
            // thousand new
            // documents keep it busy for a while.
            for (int times = 0; times < 4 || (times < 100 && counts[i] > counts[0]); times++) {
                int before = Server.allStatements();
                HttpResponse<String> answer = priya.get(addresses[i]);
                counts[i] = Math.min(counts[i], Server.allStatements() - before);
                assertThat(answer.statusCode()).isEqualTo(200);
                assertThat(answer.body().split("class=\"spine\"", -1).length - 1)
                        .as(addresses[i])
                        .isGreaterThan(20);
            }
        }
        assertThat(counts[1]).isEqualTo(counts[0]);
        assertThat(counts[2]).as("without folders").isLessThanOrEqualTo(counts[0]);
        assertThat(counts[0]).isLessThanOrEqualTo(12);
    }

    @Test
    void allRowsOfALongListCanBeReachedOnceEach() {
        long shelf = server.shelf();
        long model = server.file("priya", shelf, "walk.txt", "walk", false);
        ManyDocuments.fill(server.db(), shelf, model, 500);
        Web priya = Web.as(server, "priya");
        for (String order : new String[] {"number", "title", "changed"}) {
            List<String> seen = new ArrayList<>();
            String body = priya.get("/shelves/" + shelf + "?order=" + order).body();
            Pattern row = Pattern.compile("data-id=\"(\\d+)\"");
            Pattern next = Pattern.compile("hx-get=\"(/shelves/\\d+/rows[^\"]+)\"");
            while (true) {
                Matcher rows = row.matcher(body);
                while (rows.find()) seen.add(rows.group(1));
                Matcher more = next.matcher(body);
                if (!more.find()) break;
                body = priya.get(more.group(1).replace("&amp;", "&")).body();
            }
            assertThat(seen).as(order).doesNotHaveDuplicates().hasSize(501);
        }
    }

    @Test
    void pagesLeaveWithTheirHeaders() {
        HttpResponse<String> page = Web.as(server, "priya").get("/today");
        assertThat(page.headers().firstValue("Content-Security-Policy").orElse(""))
                .contains("default-src 'self'")
                .doesNotContain("unsafe");
        assertThat(page.headers().firstValue("X-Content-Type-Options")).contains("nosniff");
        assertThat(page.headers().firstValue("X-Frame-Options")).contains("DENY");
        assertThat(page.body())
                .doesNotContain(" style=\"")
                .doesNotContain("<script>")
                .doesNotContain("onclick");
    }

    @Test
    void whatPeopleBringLeavesAsAnAttachmentAndItsRangesAreServed() {
        long item = server.file("priya", server.shelf(), "page.html", "<script>alert(1)</script>", false);
        Web priya = Web.as(server, "priya");
        HttpResponse<String> file = priya.get("/documents/" + item + "/versions/1/file");
        assertThat(file.headers().firstValue("Content-Disposition").orElse(""))
                .startsWith("attachment")
                .contains("page.html");
        assertThat(file.headers().firstValue("Content-Type").orElse("")).startsWith("application/octet-stream");
        assertThat(file.headers().firstValue("Content-Security-Policy").orElse(""))
                .contains("sandbox");
        HttpResponse<String> part = priya.send(
                HttpRequest.newBuilder(URI.create(server.origin() + "/documents/" + item + "/versions/1/file"))
                        .header("Range", "bytes=1-6")
                        .GET());
        assertThat(part.statusCode()).isEqualTo(206);
        assertThat(part.body()).isEqualTo("script");
        HttpResponse<String> beyond = priya.send(
                HttpRequest.newBuilder(URI.create(server.origin() + "/documents/" + item + "/versions/1/file"))
                        .header("Range", "bytes=900-")
                        .GET());
        assertThat(beyond.statusCode()).isEqualTo(416);
        assertThat(priya.get("/documents/" + item).body()).doesNotContain("<script>alert");
    }

    @Test
    void hostileAddressesAndFormsGetASentenceAndNeverAFault() {
        Web priya = Web.as(server, "priya");
        long item = server.file("priya", server.shelf(), "safe.txt", "safe", true);
        for (String path : new String[] {
            "/documents/0",
            "/documents/-1",
            "/documents/x",
            "/documents/99999999999999999999",
            "/documents/" + item + "/versions/0/file",
            "/documents/" + item + "/peek?face=../x",
            "/shelves/0",
            "/shelves/x",
            "/check-out?items=1,x",
            "/check-out?items=",
            "/check-out",
            "/filings/0",
            "/strays/0",
            "/people/0",
            "/files.zip?items=0",
            "/runs/x",
            "/record?acts=x",
            "/nowhere",
            "/documents/" + item + "/moves/x",
            "/documents/" + item + "?version=9",
            "/static/../application.yml",
            "/actuator/env"
        }) {
            HttpResponse<String> answer = priya.get(path);
            assertThat(answer.statusCode()).as(path).isIn(400, 403, 404, 409);
            assertThat(answer.body()).as(path).doesNotContain("Exception").doesNotContain("at mintshelf");
        }
        for (String q : new String[] {
            ")(",
            "+++",
            "\"",
            "*",
            "a*b",
            "';drop table item;--",
            "%",
            "_",
            "\\",
            "\u0000",
            "x".repeat(5000),
            "TG40-",
            "@4"
        }) {
            assertThat(priya.get("/search?q=" + Web.encode(q)).statusCode())
                    .as(q)
                    .isEqualTo(200);
        }
        Map<String, String> form = new LinkedHashMap<>(Map.of(
                "actKey", Server.key(), "comment", "c".repeat(100_000), "upload." + item, "none", "hold." + item, "1"));
        HttpResponse<String> tooLong = priya.post("/check-in", form);
        assertThat(tooLong.statusCode()).isEqualTo(409);
        assertThat(tooLong.body()).contains("100\u2009000 characters");
        assertThat(priya.post("/check-in", Map.of("actKey", "x")).statusCode()).isEqualTo(409);
        assertThat(priya.post(
                                "/documents/" + item + "/versions/1/reinstate",
                                Map.of("actKey", Server.key(), "expected", "9"))
                        .statusCode())
                .isEqualTo(409);
        assertThat(priya.post("/check-out", Map.of("items", "" + item)).statusCode())
                .isEqualTo(400);
        assertThat(server.document(item).head().number()).isEqualTo(1);
    }

    @Test
    void fileNamesWithTricksAreKeptAsPlainNames() {
        long item = server.file("priya", server.shelf(), "..\\..\\up/\u202Egnp.exe\u0007 ring.txt", "trick", false);
        assertThat(server.document(item).fileName()).isEqualTo("gnp.exe ring.txt");
    }

    @Test
    void uploadsOverHttpTellWhereTheyStand() {
        Web priya = Web.as(server, "priya");
        String body =
                priya.send("POST", "/uploads?name=a.txt&size=6", new byte[0]).body();
        String token = body.replaceAll(".*\"token\":\"([^\"]+)\".*", "$1");
        assertThat(priya.send("PUT", "/uploads/" + token + "?from=3", new byte[] {1})
                        .body())
                .contains("\"received\":0");
        assertThat(priya.send("PUT", "/uploads/" + token + "?from=0", new byte[7])
                        .statusCode())
                .isEqualTo(409);
        assertThat(priya.send("PUT", "/uploads/" + token + "?from=0", "berth3".getBytes(StandardCharsets.UTF_8))
                        .body())
                .contains("\"complete\":true");
        HttpResponse<String> large = priya.send("POST", "/uploads?name=a.txt&size=900000000000", new byte[0]);
        assertThat(large.statusCode()).isEqualTo(409);
        assertThat(large.body()).contains("file.large").contains("400 MB");
    }

    @Test
    void manyWrongPasswordsAreBrakedByAccountOnEveryNode() {
        server.add("braked", "Brake D", "reader");
        Server second = server.secondNode();
        try {
            for (int i = 0; i < 8; i++) {
                Web web = new Web((i % 2 == 0 ? server : second).origin());
                assertThat(web.signIn("braked", "wrong password " + i)).contains("wrong");
            }
            assertThat(new Web(second.origin()).signIn("braked", Server.PASSWORD))
                    .contains("braked");
            assertThat(new Web(server.origin()).signIn("BRAKED", Server.PASSWORD))
                    .contains("braked");
            server.db().execute("delete from sign_in_attempt");
            assertThat(new Web(second.origin()).signIn("braked", Server.PASSWORD))
                    .contains("/today");
        } finally {
            second.stop();
        }
    }

    @Test
    void aSessionAndAnActHoldOnBothNodes() {
        long item = server.file("priya", server.shelf(), "nodes.txt", "nodes", false);
        Server second = server.secondNode();
        try {
            Web one = Web.as(server, "priya");
            String key = Server.key();
            String to = one.post("/check-out", Map.of("items", "" + item, "actKey", key))
                    .headers()
                    .firstValue("Location")
                    .orElseThrow();
            Web two = Web.as(second, "priya");
            String again = two.post("/check-out", Map.of("items", "" + item, "actKey", key))
                    .headers()
                    .firstValue("Location")
                    .orElseThrow();
            assertThat(again.replace(second.origin(), "")).isEqualTo(to.replace(server.origin(), ""));
            assertThat(two.get("/documents/" + item).body()).contains("held by");
            assertThat(Web.as(second, "tomasz")
                            .post("/check-out", Map.of("items", "" + item, "actKey", Server.key()))
                            .statusCode())
                    .isEqualTo(409);
        } finally {
            second.stop();
        }
    }

    @Test
    void aMailedAddressSurvivesTheSignIn() {
        long item = server.file("priya", server.shelf(), "mailed.txt", "mailed", false);
        Web web = new Web(server.origin());
        assertThat(web.get("/documents/" + item).statusCode()).isEqualTo(302);
        web.get("/sign-in");
        String to = web.post("/sign-in", Map.of("login", "priya", "password", Server.PASSWORD))
                .headers()
                .firstValue("Location")
                .orElse("");
        assertThat(to).contains("/documents/" + item);
    }
}
