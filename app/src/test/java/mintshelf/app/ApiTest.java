package mintshelf.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.io.PrintWriter;
import java.io.StringWriter;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import java.util.TreeSet;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.stream.Stream;
import mintshelf.app.use.desk.Tokens;
import mintshelf.app.use.hold.CheckOut;
import mintshelf.companion.Companion;
import mintshelf.core.base.ContentHash;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.springframework.web.bind.annotation.RequestMethod;
import org.springframework.web.servlet.mvc.method.annotation.RequestMappingHandlerMapping;
import picocli.CommandLine;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** The interface for programs, and the companion over it, against the real application. */
class ApiTest {
    private static final JsonMapper JSON = JsonMapper.builder().build();

    private final Server server = Server.shared();
    private final HttpClient http = HttpClient.newHttpClient();
    private final long shelf = server.shelf();
    private final String mark = Server.key().substring(0, 8);

    @TempDir
    Path folder;

    private String token(String login, boolean write) {
        return token(server, login, write);
    }

    static String token(Server server, String login, boolean write) {
        return server.bean(Tokens.class).make(server.actor(login), "test", write, 1);
    }

    private HttpResponse<String> send(String token, String method, String path, String body, String... headers) {
        HttpRequest.Builder request = HttpRequest.newBuilder(URI.create(server.origin() + "/api/v1" + path))
                .header("Content-Type", "application/json")
                .method(method, HttpRequest.BodyPublishers.ofString(body));
        if (!token.isEmpty()) request.header("Authorization", "Bearer " + token);
        for (int i = 0; i < headers.length; i += 2) request.header(headers[i], headers[i + 1]);
        try {
            return http.send(request.build(), HttpResponse.BodyHandlers.ofString());
        } catch (IOException | InterruptedException e) {
            throw new IllegalStateException(e);
        }
    }

    private HttpResponse<String> act(String token, String path, String body) {
        return send(token, "POST", path, body, "Idempotency-Key", Server.key());
    }

    private Set<String> addresses() {
        Set<String> addresses = new TreeSet<>();
        server.bean("requestMappingHandlerMapping", RequestMappingHandlerMapping.class)
                .getHandlerMethods()
                .forEach((info, handler) -> info.getPatternValues().stream()
                        .filter(p -> p.startsWith("/api/v1"))
                        .forEach(p -> info.getMethodsCondition()
                                .getMethods()
                                .forEach(m -> addresses.add(m + " " + p.substring("/api/v1".length())))));
        return addresses;
    }

    @Test
    void everyAddressIsDescribedAndAnswersNobodyWithoutAToken() {
        JsonNode paths =
                JSON.readTree(send("", "GET", "/openapi.json", "").body()).path("paths");
        Set<String> described = new TreeSet<>();
        paths.propertyNames()
                .forEach(p -> paths.path(p)
                        .propertyNames()
                        .forEach(m -> described.add(RequestMethod.valueOf(m.toUpperCase(Locale.ROOT)) + " " + p)));
        assertThat(addresses()).isEqualTo(described);
        for (String address : addresses()) {
            String[] parts = address.split(" ");
            if (parts[1].equals("/openapi.json") || parts[1].equals("/pairings")) continue;
            String path = parts[1].replaceAll("\\{[a-z]+}", "1");
            assertThat(send("", parts[0], path, "{}").statusCode()).as(address).isEqualTo(401);
            assertThat(send("mint_wrong", parts[0], path, "{}").statusCode())
                    .as(address)
                    .isEqualTo(401);
        }
    }

    @Test
    void whatACheckInDidIsAskedForByItsAddressByWhoDidIt() {
        long item = server.file("priya", shelf, "run " + mark + ".txt", "first " + mark, true);
        server.checkIn("priya", item, "second " + mark, false);
        String mine = token("priya", false);
        JsonNode run = JSON.readTree(send(mine, "GET", "/runs", "").body()).get(0);
        assertThat(run.path("says").asString()).isEqualTo(server.document(item).number() + " came back: version 2");
        assertThat(run.path("state").asString()).isEqualTo("DONE");
        String address = "/runs/" + run.path("id").asLong();
        JsonNode row = JSON.readTree(send(mine, "GET", address, "").body())
                .path("report")
                .path("rows")
                .get(0);
        assertThat(row.path("document").asLong()).isEqualTo(item);
        assertThat(row.path("became").asString()).isEqualTo("version");
        assertThat(row.path("number").asInt()).isEqualTo(2);
        assertThat(send(token("tomasz", false), "GET", address, "").statusCode())
                .isEqualTo(404);
    }

    @Test
    void aPlanIsAskedForWithATokenThatReadsAndARunNeedsThePlanThatWasSeen() {
        long item = server.file("priya", shelf, "planned " + mark + ".txt", "p" + mark, false);
        long other = server.file("priya", shelf, "planned too " + mark + ".txt", "q" + mark, false);
        String wish = "{\"act\":\"move\",\"move\":\"release\",\"documents\":[" + item + "," + other + "]";
        HttpResponse<String> planned = act(token("priya", false), "/plans", wish + "}");
        assertThat(planned.statusCode()).isEqualTo(200);
        JsonNode plan = JSON.readTree(planned.body());
        assertThat(plan.path("sentence").asString()).isEqualTo("2 go.");
        assertThat(plan.path("rows").get(0).path("to").asString()).isEqualTo("Released");
        String writes = token("priya", true);
        String asked = wish + ",\"plan\":\"" + plan.path("digest").asString() + "\"}";
        assertThat(act(token("priya", false), "/runs", asked).statusCode()).isEqualTo(403);
        assertThat(act(writes, "/runs", wish + "}").body()).contains("act.plan");
        assertThat(act(writes, "/plans", "{\"act\":\"move\",\"documents\":[" + item + "]}")
                        .body())
                .contains("act.field");
        assertThat(act(writes, "/plans", "{\"act\":\"exchange\",\"documents\":[" + item + "]}")
                        .body())
                .contains("act.unknown");
        assertThat(act(token("rafael", false), "/plans", wish + "}").statusCode())
                .isEqualTo(404);

        server.checkOut("tomasz", other);
        HttpResponse<String> moved = act(writes, "/runs", asked);
        assertThat(moved.statusCode()).isEqualTo(409);
        assertThat(JSON.readTree(moved.body()).path("opens").asBoolean()).isFalse();
        assertThat(moved.body()).contains("is held by Tomasz Okrent");
        assertThat(server.document(item).released()).isEmpty();

        server.bean(CheckOut.class).undo(server.actor("tomasz"), List.of(other), Server.key());
        HttpResponse<String> done = act(writes, "/runs", asked);
        assertThat(done.statusCode()).isEqualTo(201);
        JsonNode run = JSON.readTree(done.body());
        assertThat(done.headers().firstValue("Location"))
                .contains("/api/v1/runs/" + run.path("id").asLong());
        assertThat(run.path("state").asString()).isEqualTo("DONE");
        assertThat(run.path("report").path("rows").get(1).path("became").asString())
                .isEqualTo("moved");
        assertThat(server.document(item).released()).isPresent();
    }

    @Test
    void aBrowsersSessionAsksTheSameButNeverWithAForgedRequest() {
        long item = server.file("priya", shelf, "session " + mark + ".txt", "s" + mark, false);
        Web web = Web.as(server, "priya");
        assertThat(web.get("/api/v1/me").body()).contains("Priya Malhan");
        HttpRequest.Builder forged = HttpRequest.newBuilder(URI.create(server.origin() + "/api/v1/holds"))
                .header("Content-Type", "application/json")
                .header("Idempotency-Key", Server.key())
                .POST(HttpRequest.BodyPublishers.ofString("{\"documents\":[" + item + "]}"));
        HttpResponse<String> answer = web.send(forged);
        assertThat(answer.statusCode()).isEqualTo(403);
        assertThat(answer.headers().firstValue("Content-Type")).contains("application/problem+json");
        assertThat(server.document(item).holder()).isEmpty();
        web.get("/today");
        HttpResponse<String> own = web.send(HttpRequest.newBuilder(URI.create(server.origin() + "/api/v1/holds"))
                .header("Content-Type", "application/json")
                .header("Idempotency-Key", Server.key())
                .header("X-CSRF-TOKEN", web.csrf())
                .POST(HttpRequest.BodyPublishers.ofString("{\"documents\":[" + item + "]}")));
        assertThat(own.statusCode()).isEqualTo(200);
        assertThat(server.document(item).holder()).isPresent();
    }

    @Test
    void anUploadWhoseTokenIsRevokedGoesOnWithTheNextOneOfThePerson() {
        Tokens tokens = server.bean(Tokens.class);
        server.add("sigrid-" + mark, "Sigrid Moen", "designer");
        String first = token("sigrid-" + mark, true);
        String upload = JSON.readTree(
                        send(first, "POST", "/uploads?name=a.txt&size=8", "").body())
                .path("token")
                .asString();
        assertThat(send(first, "PUT", "/uploads/" + upload + "?from=0", "half").statusCode())
                .isEqualTo(200);
        var actor = server.actor("sigrid-" + mark);
        tokens.of(actor).forEach(t -> tokens.revoke(actor, t.id()));
        assertThat(send(first, "PUT", "/uploads/" + upload + "?from=4", "file").statusCode())
                .isEqualTo(401);
        String second = token("sigrid-" + mark, true);
        JsonNode stands =
                JSON.readTree(send(second, "GET", "/uploads/" + upload, "").body());
        // Bytes that fill no piece yet may have to be sent once more: the server says where it stands.
        int at = stands.path("received").asInt();
        assertThat(JSON.readTree(send(second, "PUT", "/uploads/" + upload + "?from=" + at, "halffile".substring(at))
                                .body())
                        .path("complete")
                        .asBoolean())
                .isTrue();
    }

    @Test
    void goingOnInTheMiddleOfAFileIsOneFetchInTheRecord() {
        long item = server.file("priya", shelf, "slices " + mark + ".txt", "0123456789" + mark, false);
        String token = token("priya", false);
        String content = "/documents/" + item + "/versions/1/content";
        assertThat(send(token, "GET", content, "", "Range", "bytes=0-3").body()).isEqualTo("0123");
        assertThat(send(token, "GET", content, "", "Range", "bytes=4-9").body()).isEqualTo("456789");
        assertThat(send(token("rafael", false), "GET", content, "", "Range", "bytes=4-9")
                        .statusCode())
                .isEqualTo(404);
        String record =
                Web.as(server, "ines").get("/documents/" + item + "/record").body();
        assertThat(record.split("fetched version 1", -1)).hasSize(2);
    }

    @Test
    void aTokenReadsWhatItsPersonMayAndNoMoreOnceItIsRevoked() {
        long draft = server.file("priya", shelf, "api " + mark + ".txt", "one" + mark, false);
        String priya = token("priya", true);
        JsonNode found =
                JSON.readTree(send(priya, "GET", "/documents/" + draft, "").body());
        assertThat(found.path("version").asInt()).isEqualTo(1);
        assertThat(found.path("sha256").asString())
                .isEqualTo(ContentHash.compute(("one" + mark).getBytes(StandardCharsets.UTF_8))
                        .hex());
        assertThat(send(token("rafael", true), "GET", "/documents/" + draft, "").statusCode())
                .as("a reader does not see work in preparation")
                .isEqualTo(404);
        String reading = token("priya", false);
        assertThat(act(reading, "/holds", "{\"documents\":[" + draft + "]}").statusCode())
                .as("a token that may only read")
                .isEqualTo(403);
        server.bean(Tokens.class)
                .of(server.actor("priya"))
                .forEach(t -> server.bean(Tokens.class).revoke(server.actor("priya"), t.id()));
        assertThat(send(priya, "GET", "/me", "").statusCode()).isEqualTo(401);
    }

    @Test
    void refusalsAreProblemsWithCodeReasonAndRemedy() {
        long item = server.file("priya", shelf, "held " + mark + ".txt", "h" + mark, false);
        server.checkOut("tomasz", item);
        HttpResponse<String> refused = act(token("priya", true), "/holds", "{\"documents\":[" + item + "]}");
        assertThat(refused.statusCode()).isEqualTo(409);
        assertThat(refused.headers().firstValue("Content-Type")).contains("application/problem+json");
        JsonNode problem = JSON.readTree(refused.body());
        assertThat(problem.path("code").asString()).isEqualTo("check_out.refused");
        assertThat(problem.path("detail").asString()).contains("Tomasz Okrent");
        assertThat(act(token("priya", true), "/holds", "{nonsense").statusCode())
                .isEqualTo(400);
    }

    @Test
    void anActThatIsSentTwiceIsDoneOnceAndOfTwoAtOnceOneWins() throws Exception {
        long item = server.file("priya", shelf, "race " + mark + ".txt", "r" + mark, false);
        String key = Server.key();
        String priya = token("priya", true);
        String tomasz = token("tomasz", true);
        String body = "{\"documents\":[" + item + "]}";
        for (int i = 0; i < 2; i++) {
            assertThat(send(priya, "POST", "/holds", body, "Idempotency-Key", key)
                            .statusCode())
                    .isEqualTo(200);
        }
        assertThat(act(priya, "/holds/undo", body).statusCode()).isEqualTo(204);
        var pool = Executors.newFixedThreadPool(2);
        for (int round = 0; round < 8; round++) {
            List<Future<Integer>> answers = new ArrayList<>();
            for (String who : List.of(priya, tomasz)) {
                answers.add(pool.submit(() -> act(who, "/holds", body).statusCode()));
            }
            List<Integer> codes = List.of(answers.get(0).get(), answers.get(1).get());
            assertThat(codes).containsExactlyInAnyOrder(200, 409);
            act(codes.get(0) == 200 ? priya : tomasz, "/holds/undo", body);
        }
        pool.shutdown();
    }

    @Test
    void anUploadThatBrokeGoesOnWhereTheServerStandsAndContentsAnswerRanges() {
        long item = server.file("priya", shelf, "up " + mark + ".txt", "first" + mark, false);
        String priya = token("priya", true);
        act(priya, "/holds", "{\"documents\":[" + item + "]}");
        String text = "second content of " + mark;
        JsonNode opened = JSON.readTree(send(priya, "POST", "/uploads?name=up.txt&size=" + text.length(), "")
                .body());
        String upload = opened.path("token").asString();
        send(
                priya,
                "PUT",
                "/uploads/" + upload + "?from=0",
                text.substring(0, 7),
                "Content-Type",
                "application/octet-stream");
        JsonNode stands =
                JSON.readTree(send(priya, "GET", "/uploads/" + upload, "").body());
        int at = stands.path("received").asInt();
        assertThat(stands.path("complete").asBoolean()).isFalse();
        send(priya, "PUT", "/uploads/" + upload + "?from=" + at, text.substring(at));
        long hold = server.document(item).holder().orElseThrow().hold();
        HttpResponse<String> in = act(
                priya,
                "/check-ins",
                "{\"rows\":[{\"document\":" + item + ",\"upload\":\"" + upload + "\",\"hold\":" + hold
                        + "}],\"comment\":\"by a program\"}");
        assertThat(JSON.readTree(in.body()).get(0).path("what").asString()).isEqualTo("version");
        HttpResponse<String> part =
                send(priya, "GET", "/documents/" + item + "/versions/2/content", "", "Range", "bytes=7-13");
        assertThat(part.statusCode()).isEqualTo(206);
        assertThat(part.body()).isEqualTo("content");
    }

    private Path find(String name) throws IOException {
        try (Stream<Path> files = Files.walk(folder)) {
            return files.filter(p -> p.toString().endsWith(name)).findFirst().orElseThrow();
        }
    }

    private final StringWriter out = new StringWriter();
    private final StringWriter err = new StringWriter();

    private int desk(String... arguments) {
        List<String> all = new ArrayList<>(List.of("desk"));
        all.addAll(List.of(arguments));
        all.addAll(List.of("--desk", folder.toString()));
        out.getBuffer().setLength(0);
        err.getBuffer().setLength(0);
        CommandLine line = Companion.commandLine();
        line.setOut(new PrintWriter(out)).setErr(new PrintWriter(err));
        return line.execute(all.toArray(String[]::new));
    }

    @Test
    void theCompanionBringsAnAssemblyChangesAPartAndChecksItIn() throws Exception {
        long part = server.file(
                "priya", shelf, "part-model", "pin " + mark + ".stp", StructureTest.assembly("pin" + mark), false);
        long top = server.file(
                "priya",
                shelf,
                "part-model",
                "frame " + mark + ".stp",
                StructureTest.assembly("frame", "pin " + mark + ".stp", 2),
                false);
        String code = server.bean(Tokens.class).code(server.actor("priya"));
        assertThat(desk("pair", server.origin(), "WRONG-CODE2")).isEqualTo(1);
        assertThat(desk("pair", server.origin(), code, "--name", "BENCH " + mark))
                .as(err::toString)
                .isZero();
        assertThat(desk("pair", server.origin(), code))
                .as("a code is good once")
                .isEqualTo(1);
        String number = server.document(top).number();

        assertThat(desk("fetch", number, "--components")).as(err::toString).isZero();
        Path pin = find("pin " + mark + ".stp");
        assertThat(Files.readAllBytes(pin)).isEqualTo(StructureTest.assembly("pin" + mark));
        desk("status");
        assertThat(out.toString()).contains("even").doesNotContain("behind");

        Files.write(pin, StructureTest.assembly("pin, longer " + mark));
        desk("status");
        assertThat(out.toString()).contains("strayed").contains("take it now");
        assertThat(desk("fetch", server.document(part).number())).isZero();
        assertThat(out.toString()).contains("was left as it is");
        assertThat(desk("check-in", "--take", "-m", "longer")).as(err::toString).isZero();
        assertThat(out.toString()).contains("version 2");
        assertThat(server.document(part).head().number()).isEqualTo(2);
        assertThat(server.document(part).holder()).isEmpty();

        assertThat(desk("check-out", number)).as(err::toString).isZero();
        assertThat(server.document(top).holder().orElseThrow().desk()).isEqualTo("BENCH " + mark);
        assertThat(desk("check-in", number)).as(err::toString).isZero();
        assertThat(out.toString()).as("it takes the part up that the desk has").contains("version 2");
        assertThat(desk("check-out", number)).isZero();
        assertThat(desk("undo", number)).isZero();
        assertThat(server.document(top).holder()).isEmpty();

        assertThat(desk("fetch", server.document(part).number(), "--version", "1"))
                .isZero();
        desk("status");
        assertThat(out.toString()).contains("set at v1");
        Files.delete(pin);
        Files.writeString(folder.resolve("notes.txt"), "mine");
        desk("status");
        assertThat(out.toString()).contains("absent").contains("new").contains("file it");
        assertThat(desk("fetch")).isZero();
        assertThat(Files.exists(pin)).isTrue();
        assertThat(desk("watch", "--seconds", "0")).isZero();
    }

    @Test
    void aChangedFileIsSetAsideNeverOverwritten() throws Exception {
        long item = server.file("priya", shelf, "keep " + mark + ".txt", "shelf " + mark, false);
        String number = server.document(item).number();
        desk("pair", server.origin(), server.bean(Tokens.class).code(server.actor("priya")), "--name", "ASIDE " + mark);
        desk("fetch", number);
        Path file = find("keep " + mark + ".txt");
        Files.writeString(file, "my work");
        desk("fetch", number);
        assertThat(Files.readString(file)).isEqualTo("my work");
        assertThat(desk("fetch", number, "--aside")).isZero();
        assertThat(Files.readString(file)).isEqualTo("shelf " + mark);
        assertThat(Files.readString(file.resolveSibling("keep " + mark + " (mine).txt")))
                .isEqualTo("my work");
    }

    @Test
    void aKeyThatWasUsedWithAnotherBodyIsNotAnsweredAsDone() {
        long a = server.file("priya", shelf, "key a " + mark + ".txt", "a" + mark, false);
        long b = server.file("priya", shelf, "key b " + mark + ".txt", "b" + mark, false);
        String token = token("priya", true);
        String key = Server.key();
        String first = "{\"documents\":[" + a + "]}";
        assertThat(send(token, "POST", "/holds", first, "Idempotency-Key", key).statusCode())
                .isEqualTo(200);
        assertThat(send(token, "POST", "/holds", first, "Idempotency-Key", key).statusCode())
                .as("sent twice, done once")
                .isEqualTo(200);
        HttpResponse<String> other =
                send(token, "POST", "/holds", "{\"documents\":[" + b + "]}", "Idempotency-Key", key);
        assertThat(other.statusCode()).isEqualTo(409);
        assertThat(other.body()).contains("act.other");
        assertThat(server.document(b).holder()).isEmpty();
    }
}
