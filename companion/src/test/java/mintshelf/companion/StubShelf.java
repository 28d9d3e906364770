package mintshelf.companion;

import com.sun.net.httpserver.HttpExchange;
import com.sun.net.httpserver.HttpServer;
import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.URLDecoder;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.TreeMap;
import mintshelf.core.base.ContentHash;
import mintshelf.core.desk.DeskLink;
import tools.jackson.databind.JsonNode;

/** A shelf that knows just what the companion asks: documents with versions, holds, a desk. */
final class StubShelf implements AutoCloseable {
    static final String TOKEN = "token of the desk";
    static final String TAG = "0123456789abcdef";
    static final String CODE = "abcdefghijklmnopqrstuvwxyz";

    /** Whether its desk takes links. */
    boolean opens;
    /** What the next link of the code is for; nothing where it was taken. */
    Map<String, Object> link = Map.of();
    /** What the companion said of links. */
    final List<String> said = new ArrayList<>();
    /** Whether it answers nothing. */
    volatile boolean silent;
    /** Whether the token is revoked. */
    boolean revoked;

    final Map<Long, Document> documents = new TreeMap<>();
    final List<String> asked = new ArrayList<>();
    private final Map<String, byte[]> uploads = new TreeMap<>();
    private final HttpServer server;
    /** What happens just before an answer. */
    Runnable before = () -> {};
    /** How many uploads break in their middle. */
    int breaks;
    /** Bytes of one request that are kept. */
    int most = Integer.MAX_VALUE;

    static final class Document {
        final long id;
        final String number;
        final String path;
        final List<byte[]> versions = new ArrayList<>();
        final List<long[]> components = new ArrayList<>();
        int base;
        long hold;
        String heldBy = "";
        /** What was checked in on the line of its trial t1, and who holds that: the desk's person, or nobody. */
        final List<byte[]> tried = new ArrayList<>();

        long triedHold;
        String triedBy = "";
        /** Whether the desk works on that line. */
        boolean onTrial;

        Document(long id, String number, String path, String first) {
            this.id = id;
            this.number = number;
            this.path = path;
            versions.add(first.getBytes(StandardCharsets.UTF_8));
        }

        void add(String text) {
            versions.add(text.getBytes(StandardCharsets.UTF_8));
        }

        String latest() {
            return new String(versions.get(versions.size() - 1), StandardCharsets.UTF_8);
        }

        int versionOf(String hash, List<byte[]> all) {
            for (int i = all.size(); i > 0; i--) {
                if (ContentHash.compute(all.get(i - 1)).hex().equals(hash)) return i;
            }
            return 0;
        }

        /** The versions of a line, the oldest first. */
        List<byte[]> on(boolean trial) {
            return trial && !tried.isEmpty() ? tried : versions;
        }

        Map<String, Object> json(boolean trial) {
            long held = trial ? triedHold : hold;
            Map<String, Object> json = new LinkedHashMap<>();
            json.put("id", id);
            json.put("number", number);
            json.put("path", path);
            json.put("line", trial ? "t1" : null);
            json.put("version", on(trial).size());
            json.put(
                    "gets", (trial && !tried.isEmpty() ? "t1-" : "") + on(trial).size());
            json.put("hold", held == 0 ? null : Map.of("mine", trial || heldBy.isEmpty()));
            return json;
        }
    }

    StubShelf() throws IOException {
        server = HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0), 0);
        server.createContext("/api/v1", this::answer);
        server.start();
    }

    String origin() {
        return "http://127.0.0.1:" + server.getAddress().getPort();
    }

    Document add(long id, String number, String path, String first) {
        Document document = new Document(id, number, path, first);
        documents.put(id, document);
        return document;
    }

    @Override
    public void close() {
        server.stop(0);
    }

    private static final class No extends RuntimeException {
        final int status;

        No(int status, String says) {
            super(says);
            this.status = status;
        }
    }

    private void answer(HttpExchange exchange) throws IOException {
        String path = exchange.getRequestURI().getPath().substring("/api/v1".length());
        byte[] body = exchange.getRequestBody().readAllBytes();
        asked.add(exchange.getRequestMethod() + " " + path);
        if (silent) {
            exchange.close();
            return;
        }
        before.run();
        byte[] out;
        int status = 200;
        try {
            boolean open = path.equals("/pairings");
            if (!open
                    && (revoked
                            || !("Bearer " + TOKEN)
                                    .equals(exchange.getRequestHeaders().getFirst("Authorization")))) {
                throw new No(401, "Sign in.");
            }
            Object told = told(exchange, path, body);
            out = told instanceof byte[] bytes ? bytes : ShelfClient.JSON.writeValueAsBytes(told);
        } catch (No e) {
            status = e.status;
            out = ShelfClient.JSON.writeValueAsBytes(Map.of("detail", e.getMessage(), "remedy", "Ask a colleague."));
        } catch (Cut e) {
            exchange.close();
            return;
        }
        exchange.sendResponseHeaders(status, out.length == 0 ? -1 : out.length);
        if (out.length > 0) exchange.getResponseBody().write(out);
        exchange.close();
    }

    private static final class Cut extends RuntimeException {}

    private Map<String, String> query(HttpExchange exchange) {
        Map<String, String> query = new TreeMap<>();
        String raw = exchange.getRequestURI().getRawQuery();
        if (raw == null) return query;
        for (String part : raw.split("&", -1)) {
            String[] two = part.split("=", 2);
            query.put(two[0], URLDecoder.decode(two[1], StandardCharsets.UTF_8));
        }
        return query;
    }

    private Object told(HttpExchange exchange, String path, byte[] body) {
        Map<String, String> query = query(exchange);
        String[] at = path.substring(1).split("/");
        switch (at[0]) {
            case "pairings" -> {
                if (!ShelfClient.JSON.readTree(body).path("code").asString().equals("4711")) {
                    throw new No(409, "The code is not known.");
                }
                return Map.of("token", TOKEN);
            }
            case "me" -> {
                return Map.of("name", "Priya Malhan");
            }
            case "shelves" -> {
                return List.of(Map.of("name", "TG40"), Map.of("name", "LS18"));
            }
            case "desk-links" -> {
                return link(at, ShelfClient.JSON.readTree(body));
            }
            case "desks" -> {
                if (at.length == 2) return new byte[0];
                if (at[2].equals("opens")) {
                    opens = exchange.getRequestMethod().equals("PUT");
                    return opens ? Map.of("tag", TAG) : new byte[0];
                }
                return desk(at[2], ShelfClient.JSON.readTree(body));
            }
            case "documents" -> {
                if (at.length == 1) {
                    String q = query.get("q").toLowerCase(Locale.ROOT);
                    return Map.of(
                            "documents",
                            documents.values().stream()
                                    .filter(d -> (d.number + " " + d.path)
                                            .toLowerCase(Locale.ROOT)
                                            .contains(q))
                                    .map(d -> d.json(false))
                                    .toList());
                }
                Document d = document(Long.parseLong(at[1]));
                if (at.length == 2) return d.json(query.containsKey("line"));
                if (at[2].equals("structure")) return structure(d);
                if (at[2].equals("ask")) return new byte[0];
                boolean tried = at[3].startsWith("t1-");
                return d.on(tried).get(Integer.parseInt(at[3].replace("t1-", "")) - 1);
            }
            case "holds" -> {
                return holds(at.length > 1, ShelfClient.JSON.readTree(body));
            }
            case "uploads" -> {
                return upload(exchange.getRequestMethod(), at, query, body);
            }
            case "check-ins" -> {
                return checkIn(ShelfClient.JSON.readTree(body));
            }
            default -> throw new No(404, "There is no such thing.");
        }
    }

    private Object link(String[] at, JsonNode body) {
        if (at[1].equals("take")) {
            if (link.isEmpty() || !body.path("code").asString().equals(CODE)) throw new No(409, "That link was used.");
            Map<String, Object> taken = link;
            link = Map.of();
            return taken;
        }
        said.add((body.path("done").asBoolean() ? "done: " : "not done: ")
                + body.path("says").asString());
        return new byte[0];
    }

    /** Makes a link to a document. */
    String link(long document, int version, String act) {
        link = Map.of(
                "id",
                1,
                "desk",
                "bench",
                "document",
                document,
                "number",
                document(document).number,
                "version",
                version,
                "act",
                act);
        return new DeskLink(TAG, CODE).text();
    }

    private Document document(long id) {
        Document document = documents.get(id);
        if (document == null) throw new No(404, "There is no such document.");
        return document;
    }

    private Object structure(Document d) {
        List<Map<String, Object>> rows = new ArrayList<>();
        for (long[] c : d.components) {
            Map<String, Object> row = new LinkedHashMap<>();
            row.put("path", c[0] == 0 ? "elsewhere/unseen.stp" : document(c[0]).path);
            row.put("document", c[0] == 0 ? null : c[0]);
            row.put("version", c[0] == 0 ? null : c[1]);
            row.put("gets", c[0] == 0 ? null : Long.toString(c[1]));
            rows.add(row);
        }
        return Map.of("components", rows);
    }

    private Object desk(String what, JsonNode body) {
        if (what.equals("files")) {
            for (JsonNode f : body.path("files")) {
                Document d = document(f.path("document").asLong());
                String version = f.path("version").asString();
                d.onTrial = f.has("line") || version.startsWith("t1-");
                d.base = Integer.parseInt(version.replace("t1-", ""));
            }
            return new byte[0];
        }
        List<Map<String, Object>> lines = new ArrayList<>();
        Map<String, String> lying = new TreeMap<>();
        body.path("files")
                .forEach(f ->
                        lying.put(f.path("path").asString(), f.path("sha256").asString()));
        for (Document d : documents.values()) {
            String hash = lying.remove(d.path);
            if (hash == null && d.base == 0 && d.hold == 0) continue;
            List<byte[]> versions = d.on(d.onTrial);
            long hold = d.onTrial ? d.triedHold : d.heldBy.isEmpty() ? d.hold : 0;
            int is = hash == null ? 0 : d.versionOf(hash, versions);
            String word = hash == null
                    ? "absent"
                    : is == versions.size() ? "even" : is > 0 ? "behind" : hold > 0 ? "ahead" : "strayed";
            String act = switch (word) {
                case "absent", "behind" -> "bring";
                case "ahead" -> "check-in";
                case "strayed" -> d.heldBy.isEmpty() ? "take" : "ask";
                default -> "leave";
            };
            Map<String, Object> line = new LinkedHashMap<>(d.json(d.onTrial));
            line.put("document", d.id);
            line.put("word", word);
            line.put("act", act);
            line.put("says", "says " + act);
            line.put("hold", hold);
            line.put("trial", d.onTrial ? 7 : null);
            line.put("had", d.base == 0 ? null : (d.onTrial && !d.tried.isEmpty() ? "t1-" : "") + d.base);
            line.put("heldBy", d.heldBy);
            line.put("base", d.base);
            line.put("belongs", null);
            lines.add(line);
        }
        lying.forEach((path, hash) -> lines.add(Map.of("path", path, "word", "new", "act", "file", "says", "file it")));
        return lines;
    }

    private Object holds(boolean undo, JsonNode body) {
        List<Map<String, Object>> held = new ArrayList<>();
        for (JsonNode id : body.path("documents")) {
            Document d = document(id.asLong());
            if (!body.path("line").asString("").isEmpty()) {
                if (!d.triedBy.isEmpty()) throw new No(409, d.number + " t1 is held by " + d.triedBy + ".");
                d.triedHold = undo ? 0 : 200 + d.id;
                held.add(d.json(true));
                continue;
            }
            if (!d.heldBy.isEmpty()) throw new No(409, d.number + " is held by " + d.heldBy + ".");
            d.hold = undo ? 0 : 100 + d.id;
            held.add(d.json(false));
        }
        return held;
    }

    private Object upload(String method, String[] at, Map<String, String> query, byte[] body) {
        String token = method.equals("POST") ? query.get("name") + " " + query.get("size") : decoded(at[1]);
        byte[] now = uploads.computeIfAbsent(token, t -> new byte[0]);
        long size = Long.parseLong(token.substring(token.lastIndexOf(' ') + 1));
        if (method.equals("PUT")) {
            if (now.length != Long.parseLong(query.get("from"))) throw new No(409, "The upload stands elsewhere.");
            int taken = Math.min(body.length, most);
            if (breaks > 0) taken = taken / 2;
            byte[] more = Arrays.copyOf(now, now.length + taken);
            System.arraycopy(body, 0, more, now.length, taken);
            uploads.put(token, more);
            now = more;
            if (breaks > 0) {
                breaks--;
                throw new Cut();
            }
        }
        return Map.of("token", ShelfClient.encode(token), "received", now.length, "complete", now.length == size);
    }

    private static String decoded(String text) {
        return URLDecoder.decode(text, StandardCharsets.UTF_8);
    }

    private Object checkIn(JsonNode body) {
        List<Map<String, Object>> became = new ArrayList<>();
        for (JsonNode row : body.path("rows")) {
            Document d = document(row.path("document").asLong());
            byte[] bytes =
                    row.has("upload") ? uploads.get(decoded(row.path("upload").asString())) : null;
            if (d.triedHold > 0 && row.path("hold").asLong() == d.triedHold) {
                d.tried.add(bytes);
                d.triedHold = 0;
                became.add(Map.of("document", d.id, "what", "trial", "number", d.tried.size()));
                continue;
            }
            boolean held = d.hold > 0 && row.path("hold").asLong() == d.hold && d.heldBy.isEmpty();
            String what =
                    bytes == null || d.versionOf(ContentHash.compute(bytes).hex(), d.versions) == d.versions.size()
                            ? "unchanged"
                            : held ? "version" : "stray";
            if (what.equals("version")) d.versions.add(bytes);
            if (held && !body.path("keepHold").asBoolean()) d.hold = 0;
            became.add(Map.of("document", d.id, "what", what, "number", d.versions.size()));
        }
        return became;
    }
}
