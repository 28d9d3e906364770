package mintshelf.bench;

import java.io.IOException;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.util.ArrayDeque;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import mintshelf.app.ManyDocuments;
import mintshelf.app.Server;
import mintshelf.app.sight.StructureMirror;
import mintshelf.app.use.desk.Desks;
import mintshelf.app.use.desk.Tokens;
import mintshelf.core.base.ContentHash;
import mintshelf.core.structure.StructureGraph.Use;

/** Structures as the running application answers them, out of MariaDB; how many files a desk may have. */
final class DeskBench {
    private static final int DOCUMENTS = 100_000;
    private static final int TURNS = 15;

    private DeskBench() {}

    private static long fill(Server server, int documents) {
        long shelf = server.shelf();
        ManyDocuments.fill(
                server.db(), shelf, server.file("priya", shelf, "model.txt", "model " + shelf, false), documents);
        return shelf;
    }

    /** A million references between 100,000 documents; each answer includes what is asked of MariaDB. */
    static void structureServed() {
        Server server = Server.shared();
        long shelf = fill(server, DOCUMENTS);
        server.db()
                .execute(
                        "insert into version_reference (version, seq, role, path, quantity, state, component, captured, source)"
                                + " select l.head_version, s.seq, 'COMPONENT', concat('m', s.seq, '.txt'), 1 + mod(i.id + s.seq, 4), 'FOUND', c.item, c.head_version, 'DESK'"
                                + " from item i join line l on l.item = i.id join seq_1_to_10 s"
                                + " join line c on c.item = i.id + 1 + mod(crc32(concat(i.id, '-', s.seq)), 2000)"
                                + " join item ci on ci.id = c.item and ci.shelf = i.shelf where i.shelf = ?",
                        shelf);
        server.db().execute("analyze table version_reference, line, version");
        StructureMirror mirror = server.secondNode().bean(StructureMirror.class);
        long start = System.nanoTime();
        StructureMirror.Snapshot first = mirror.now();
        double cold = millis(start);
        long[] ids = first.graph().documents();
        long top = ids[ids.length - 10_500];
        long low = ids[10_500];
        Map<Long, Set<Long>> plain = new HashMap<>();
        for (long id : ids) {
            Set<Long> components = new HashSet<>();
            for (Use use : first.graph().usesOf(id)) components.add(use.component());
            plain.put(id, components);
        }
        double[] below = new double[TURNS];
        double[] above = new double[TURNS];
        double[] needed = new double[TURNS];
        double[] dated = new double[TURNS];
        double[] walk = new double[TURNS];
        int found = 0;
        for (int i = 0; i < TURNS; i++) {
            start = System.nanoTime();
            found = mirror.now().graph().components(top).length;
            below[i] = millis(start);
            start = System.nanoTime();
            mirror.now().graph().whereUsed(low);
            above[i] = millis(start);
            start = System.nanoTime();
            mirror.now().graph().neededAbove(low);
            needed[i] = millis(start);
            start = System.nanoTime();
            if (breadthFirst(plain, top) != found) throw new IllegalStateException("the walks differ");
            walk[i] = millis(start);
            // Something moved since: the log is read, the change taken in, and what is out of date worked out anew.
            server.db().execute("insert into structure_log (item) values (?)", ids[i]);
            start = System.nanoTime();
            StructureMirror.Snapshot now = mirror.now();
            Map<Long, Boolean> old = now.outOfDate();
            long rows = 0;
            for (long id : now.graph().components(top)) if (old.containsKey(id)) rows++;
            if (rows > found) throw new IllegalStateException();
            dated[i] = millis(start);
        }
        Bench.say("%d documents, a million references: read from MariaDB once in %.0f ms", ids.length, cold);
        Bench.say(
                "components of one (%d) %.1f ms, where used %.1f ms, with quantities %.1f ms (asked: 50); a breadth-first walk over sets %.1f ms: ratio %.2f",
                found,
                Bench.percentile(below, 0.5),
                Bench.percentile(above, 0.5),
                Bench.percentile(needed, 0.5),
                Bench.percentile(walk, 0.5),
                Bench.percentile(below, 0.5) / Bench.percentile(walk, 0.5));
        Bench.say(
                "with out of date, after something moved: median %.0f ms, p95 %.0f ms (asked: 150)",
                Bench.percentile(dated, 0.5), Bench.percentile(dated, 0.95));
    }

    private static int breadthFirst(Map<Long, Set<Long>> graph, long top) {
        Set<Long> seen = new HashSet<>();
        ArrayDeque<Long> open = new ArrayDeque<>(List.of(top));
        while (!open.isEmpty()) {
            for (long c : graph.getOrDefault(open.poll(), Set.of())) if (seen.add(c)) open.add(c);
        }
        return seen.size();
    }

    /** The status of a desk of 20,000 files over HTTP, and of 100,000, the most that one may have. */
    static void deskStatus() {
        Server server = Server.shared();
        for (int files : new int[] {20_000, 100_000}) {
            long shelf = fill(server, files);
            Desks desks = server.bean(Desks.class);
            String name = "bench " + files;
            desks.open(server.actor("priya"), name);
            server.db()
                    .execute(
                            "insert into desk_file (desk, item, line, version, path, on_purpose, at)"
                                    + " select d.id, i.id, l.id, l.head_version, concat(s.name, '/', f.name, '/', i.file_name), 0, now(6)"
                                    + " from desk d join item i on i.shelf = ? join shelf s on s.id = i.shelf join folder f on f.id = i.folder and f.root_mark is null"
                                    + " join line l on l.item = i.id where d.name = ?",
                            shelf,
                            name);
            StringBuilder body = new StringBuilder("{\"files\":[");
            String even = server.db()
                    .fetchOne(
                            "select lower(hex(c.sha256)) from content c join version_file f on f.content = c.id join line l on l.head_version = f.version join item i on i.id = l.item where i.shelf = ? limit 1",
                            shelf)
                    .get(0, String.class);
            int[] at = {0};
            server.db()
                    .fetch("select f.path from desk_file f join desk d on d.id = f.desk where d.name = ?", name)
                    .forEach(r -> {
                        String hash = at[0] % 20 == 0
                                ? ContentHash.compute(new byte[] {1, (byte) at[0]})
                                        .hex()
                                : even;
                        if (at[0]++ > 0) body.append(',');
                        body.append("{\"path\":\"")
                                .append(r.get(0, String.class))
                                .append("\",\"sha256\":\"")
                                .append(hash)
                                .append("\"}");
                    });
            body.append("]}");
            String token = server.bean(Tokens.class).make(server.actor("priya"), "bench", true, 1);
            double[] times = new double[5];
            int answered = 0;
            for (int i = -1; i < times.length; i++) {
                long start = System.nanoTime();
                answered = post(server.origin() + "/api/v1/desks/" + name.replace(" ", "%20") + "/status", token, body);
                if (i >= 0) times[i] = millis(start) / 1000;
            }
            Bench.say(
                    "status of %d files (%.0f MB answered): median %.2f s, slowest %.2f s%s",
                    at[0],
                    answered / 1e6,
                    Bench.percentile(times, 0.5),
                    Bench.percentile(times, 1),
                    files == 20_000 ? " (asked: 2)" : "");
        }
    }

    private static int post(String address, String token, CharSequence body) {
        try {
            HttpResponse<byte[]> answer = HttpClient.newHttpClient()
                    .send(
                            HttpRequest.newBuilder(URI.create(address))
                                    .header("Content-Type", "application/json")
                                    .header("Authorization", "Bearer " + token)
                                    .POST(HttpRequest.BodyPublishers.ofString(body.toString()))
                                    .build(),
                            HttpResponse.BodyHandlers.ofByteArray());
            if (answer.statusCode() != 200)
                throw new IllegalStateException(new String(answer.body(), StandardCharsets.UTF_8));
            return answer.body().length;
        } catch (IOException | InterruptedException e) {
            throw new IllegalStateException(e);
        }
    }

    private static double millis(long start) {
        return (System.nanoTime() - start) / 1e6;
    }
}
