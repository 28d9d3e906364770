package mintshelf.companion;

import java.io.IOException;
import java.io.PrintWriter;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.concurrent.Callable;
import mintshelf.companion.Companion.Unreadable;
import mintshelf.companion.machine.Machine;
import mintshelf.core.document.VersionName;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Spec;
import tools.jackson.databind.JsonNode;

/** What all commands of a desk share. */
abstract class OnDesk implements Callable<Integer> {
    /** What the main line is called where a line is named. */
    static final String MAIN = "main";

    @Option(names = "--desk", description = "the desk's folder; else the one in which you stand")
    Path folder = Path.of("");

    @Spec
    CommandSpec spec;

    Machine machine() {
        return ((Companion) spec.root().userObject()).machine();
    }

    PrintWriter out() {
        return spec.commandLine().getOut();
    }

    @Override
    public Integer call() throws IOException {
        try {
            return run();
        } catch (ShelfClient.Refusal e) {
            spec.commandLine().getErr().println(e.getMessage());
            return 1;
        } finally {
            out().flush();
        }
    }

    abstract int run() throws IOException;

    static JsonNode status(DeskFolder desk, ShelfClient client) {
        return status(desk, client, desk.files());
    }

    /** How some files stand, by their hashes; what else lies on the desk is not looked at, and stands as absent. */
    static JsonNode status(DeskFolder desk, ShelfClient client, Map<String, String> hashes) {
        List<Map<String, String>> files = new ArrayList<>();
        hashes.forEach((path, hash) -> files.add(Map.of("path", path, "sha256", hash)));
        return client.post("/desks/" + ShelfClient.encode(desk.name()) + "/status", Map.of("files", files));
    }

    static void note(DeskFolder desk, ShelfClient client, List<Map<String, Object>> brought) {
        if (brought.isEmpty()) return;
        client.post("/desks/" + ShelfClient.encode(desk.name()) + "/files", Map.of("files", brought));
    }

    /** The document of a number, or of a path on the desk. */
    static JsonNode document(DeskFolder desk, ShelfClient client, String said) {
        String path = desk.path(Path.of(said)).orElse(said);
        String name = Path.of(said).getFileName().toString();
        List<JsonNode> named = new ArrayList<>();
        for (String q : new LinkedHashSet<>(List.of(said, name))) {
            for (JsonNode d :
                    client.get("/documents?q=" + ShelfClient.encode(q)).path("documents")) {
                if (d.path("path").asString().equals(path)) return d;
                boolean same = d.path("number").asString().equalsIgnoreCase(said);
                if (same
                        && named.stream()
                                .noneMatch(n ->
                                        n.path("id").asLong() == d.path("id").asLong())) {
                    named.add(d);
                }
            }
        }
        if (named.size() == 1) return named.get(0);
        if (named.isEmpty()) throw new Unreadable("No document that you see is “" + said + "”.");
        StringBuilder says = new StringBuilder(said + " is several documents; name the file:");
        named.forEach(d -> says.append("\n  ").append(d.path("path").asString()));
        throw new Unreadable(says.toString());
    }

    /**
     * A document on a line.
     *
     * @param line a trial's, as "t1"; "main" for the main one; without words that on which the desk works with it
     */
    static JsonNode onLine(ShelfClient client, Map<String, JsonNode> standings, JsonNode document, String line) {
        String asked = line.isEmpty() ? lineOf(standings, document) : line;
        if (asked.isEmpty() || asked.equals(MAIN)) return document;
        return document(client, document.path("id").asLong(), asked);
    }

    private static String lineOf(Map<String, JsonNode> standings, JsonNode document) {
        return standings.values().stream()
                .filter(s -> s.path("document").asLong() == document.path("id").asLong())
                .map(s -> s.path("line").asString(""))
                .findFirst()
                .orElse("");
    }

    /** How it stands now, for one that stood before. */
    static JsonNode document(ShelfClient client, JsonNode standing) {
        return document(
                client,
                standing.path("document").asLong(),
                standing.path("line").asString(""));
    }

    /** A document on the line of a trial; on its main one where that is empty. */
    static JsonNode document(ShelfClient client, long id, String line) {
        return client.get("/documents/" + id + (line.isEmpty() ? "" : "?line=" + ShelfClient.encode(line)));
    }

    /** What a version of a document consists of; on the line of a trial what its latest one does, with what else is tried there. */
    static JsonNode components(ShelfClient client, JsonNode document, String version) {
        String line = document.path("line").asString("");
        return client.get("/documents/" + document.path("id").asLong() + "/structure?"
                        + (line.isEmpty() ? "version=" + version : "line=" + line))
                .path("components");
    }

    /** Documents by the lines of trials on which they stand; an empty one for the main lines. */
    static Map<String, List<Long>> byLine(Collection<JsonNode> lines, String id) {
        Map<String, List<Long>> byLine = new TreeMap<>();
        for (JsonNode one : lines)
            byLine.computeIfAbsent(one.path("line").asString(""), k -> new ArrayList<>())
                    .add(one.path(id).asLong());
        return byLine;
    }

    /**
     * Takes holds for a desk.
     *
     * @param line of a trial; empty for the main lines
     */
    static JsonNode hold(DeskFolder desk, ShelfClient client, List<Long> documents, String line, String purpose) {
        return client.post(
                "/holds", Map.of("documents", documents, "desk", desk.name(), "purpose", purpose, "line", line));
    }

    /** Gives holds back, of a line as {@link #hold} took them. */
    static void giveBack(ShelfClient client, List<Long> documents, String line) {
        client.post("/holds/undo", Map.of("documents", documents, "line", line));
    }

    /** What a document is called on its line: "TG40-2010", "TG40-2010 t1". */
    static String called(JsonNode one) {
        String number = one.path("number").asString("");
        String line = one.path("line").asString("");
        return line.isEmpty() ? number : number + " " + line;
    }

    /** Brings a version unless that would lose bytes that are in no version. */
    static boolean bring(
            PrintWriter out,
            DeskFolder desk,
            ShelfClient client,
            Map<String, JsonNode> standings,
            JsonNode document,
            String version,
            boolean aside,
            List<Map<String, Object>> brought)
            throws IOException {
        String path = document.path("path").asString();
        JsonNode standing = standings.get(path);
        String word = standing == null ? "" : standing.path("word").asString();
        boolean there = Files.exists(desk.place(path));
        if (there && Set.of("ahead", "strayed", "new").contains(word)) {
            if (!aside) {
                out.println(path + " is " + word + " and was left as it is; --aside keeps it under another name.");
                return false;
            }
            out.println(path + " was set aside as “" + desk.aside(path) + "”.");
        }
        String line = document.path("line").asString("");
        boolean latest = version.equals(document.path("gets").asString());
        boolean here = there
                && word.equals("even")
                && latest
                && line.equals(standing.path("line").asString(""));
        boolean comes = standing != null && standing.path("comes").asBoolean();
        // What everybody has is for reading, but for who holds it.
        boolean reads = comes && standing.path("hold").asLong() == 0;
        if (comes) desk.protect(path, false);
        boolean kept = !here && !desk.bring(client, document.path("id").asLong(), version, path);
        if (comes) desk.protect(path, reads);
        if (kept) {
            out.println(path + " was changed meanwhile and was left as it is.");
            return false;
        }
        Map<String, Object> row = new LinkedHashMap<>();
        row.put("document", document.path("id").asLong());
        row.put("version", version);
        row.put("path", path);
        row.put("onPurpose", !latest);
        if (!line.isEmpty()) row.put("line", line);
        brought.add(row);
        return true;
    }

    /** Brings what comes to every desk of its shelf and is not as the shelf has it; how all stands then. */
    static JsonNode evened(PrintWriter out, DeskFolder desk, ShelfClient client, JsonNode status) throws IOException {
        List<Map<String, Object>> brought = new ArrayList<>();
        Map<String, JsonNode> standings = byPath(status);
        for (JsonNode s : status) {
            String word = s.path("word").asString();
            if (!s.path("comes").asBoolean() || !Set.of("absent", "behind").contains(word)) continue;
            JsonNode d = document(client, s);
            if (bring(out, desk, client, standings, d, d.path("gets").asString(), false, brought)) {
                out.println("brought  " + s.path("path").asString() + ", which comes to every desk of its shelf");
            }
        }
        note(desk, client, brought);
        return brought.isEmpty() ? status : status(desk, client);
    }

    /** A version as it is read: "v7", "t1/2". */
    static String shown(String version) {
        return VersionName.of(version).map(VersionName::shortly).orElse(version);
    }

    static Map<String, JsonNode> byPath(JsonNode status) {
        Map<String, JsonNode> byPath = new TreeMap<>();
        status.forEach(s -> byPath.put(s.path("path").asString(), s));
        return byPath;
    }

    static void print(PrintWriter out, JsonNode status) {
        for (JsonNode s : status) {
            String number = called(s);
            String word = s.path("word").asString();
            if (word.equals("set")) word = "set at " + shown(s.path("had").asString(""));
            String act = s.path("act").asString().equals("leave")
                    ? ""
                    : "  " + s.path("says").asString();
            out.println(String.format(
                    "%-10s %-14s %s%s", word, number, s.path("path").asString(), act));
            if (!s.path("belongs").isNull() && !s.path("belongs").isMissingNode()) {
                out.println(" ".repeat(26) + "belongs at " + s.path("belongs").asString());
            }
        }
    }
}
