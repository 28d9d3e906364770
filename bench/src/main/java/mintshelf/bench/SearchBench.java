package mintshelf.bench;

import java.net.URLEncoder;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import javax.sql.DataSource;
import mintshelf.app.Server;
import mintshelf.app.Web;
import mintshelf.app.store.search.Ask;
import mintshelf.app.store.search.NodeIndex;
import mintshelf.app.use.search.ReadWords;
import mintshelf.app.use.search.Search;
import mintshelf.demo.Large;

/** How fast a hundred thousand documents of a million versions are searched, by twenty people at once. */
final class SearchBench {
    private static final int AT_ONCE = 20;
    private static final int EACH = 60;
    private static final int WARM = 20;

    private static final List<String> ASKED = List.of(
            "mooring brack",
            "W07-0001",
            "material:316L mass>2 kind:drawing",
            "is:pending \"hinge 42\"",
            "on:\"Works 03\" rev:B",
            "gauge -is:released",
            "passivated",
            "stage:released title:nozzle changed>1y");

    private SearchBench() {}

    static void aHundredThousand() {
        Server server = Server.shared();
        long shelf = server.shelf();
        for (int i = 0; i < 200; i++) {
            String text = "note " + i + (i % 40 == 0 ? " passivated" : "") + " " + Server.key();
            server.file("priya", shelf, "note " + i + "-" + shelf + ".txt", text, false);
        }
        server.bean(ReadWords.class).run();
        long start = System.nanoTime();
        Large.build(server.bean(DataSource.class), Large.DOCUMENTS);
        Bench.say("100,000 documents, 1,000,000 versions written: %.0f s", (System.nanoTime() - start) / 1e9);
        start = System.nanoTime();
        server.bean(NodeIndex.class).rebuild();
        Bench.say(
                "index of %d entries made anew: %.0f s",
                server.bean(NodeIndex.class).size(), (System.nanoTime() - start) / 1e9);
        Search search = server.bean(Search.class);
        var designer = server.actor("priya");
        var reader = server.actor("rafael");
        for (String q : ASKED) {
            Bench.say(
                    "  %s: %d hits, for a reader %d",
                    q,
                    search.find(designer, Search.Wish.first(q, 50)).total(),
                    search.find(reader, Search.Wish.first(q, 50)).total());
        }
        atOnce("search", q -> search.find(designer, Search.Wish.first(q, 50)), 100);
        atOnce("search of a reader", q -> search.find(reader, Search.Wish.first(q, 50)), 100);
        atOnce("all versions", q -> search.find(designer, new Search.Wish(q, Ask.Order.FIT, true, 0, 50, false)), 100);
        atOnce(
                "hits counted, index alone",
                q -> search.counts(designer, List.of(new Search.Count(q, false, Optional.empty()))),
                100);
        atOnce("first 8 hits, while typing", q -> search.find(designer, Search.Wish.first(q, 8)), 100);
        one("search, alone", q -> search.find(designer, Search.Wish.first(q, 50)), 100);
        one(
                "with facets, alone",
                q -> search.find(designer, new Search.Wish(q, Ask.Order.FIT, false, 0, 50, true)),
                150);
        atOnce("with facets", q -> search.find(designer, new Search.Wish(q, Ask.Order.FIT, false, 0, 50, true)), 150);
        Web web = Web.as(server, "priya");
        one("the page, alone", q -> page(web, "/search?q=" + encoded(q)), 250);
        one("hints while typing, alone", q -> page(web, "/search/hints?q=" + encoded(q)), 100);
        one("Today, alone", q -> page(web, "/today"), 250);
    }

    private static String encoded(String q) {
        return URLEncoder.encode(q, StandardCharsets.UTF_8);
    }

    private static String page(Web web, String path) {
        var answer = web.get(path);
        if (answer.statusCode() != 200) throw new IllegalStateException(path);
        return answer.body();
    }

    private interface Asking {
        Object ask(String q);
    }

    private static void one(String what, Asking asking, int most) {
        measure(what, asking, 1, most);
    }

    private static void atOnce(String what, Asking asking, int most) {
        measure(what + ", " + AT_ONCE + " at once", asking, AT_ONCE, most);
    }

    /** A closed loop without a pause: as many ask as may, each the next question when the one before is answered. */
    private static void measure(String what, Asking asking, int people, int most) {
        List<Double> times = Collections.synchronizedList(new ArrayList<>());
        ExecutorService pool = Executors.newFixedThreadPool(people);
        List<Future<?>> all = new ArrayList<>();
        long begun = System.nanoTime();
        for (int p = 0; p < people; p++) {
            int who = p;
            all.add(pool.submit(() -> {
                for (int i = 0; i < EACH + WARM; i++) {
                    String q = ASKED.get((who + i) % ASKED.size());
                    long start = System.nanoTime();
                    asking.ask(q);
                    if (i >= WARM) times.add((System.nanoTime() - start) / 1e6);
                }
            }));
        }
        try {
            for (Future<?> each : all) each.get();
        } catch (Exception e) {
            throw new IllegalStateException(e);
        }
        pool.shutdown();
        double seconds = (System.nanoTime() - begun) / 1e9;
        double[] sorted = times.stream().mapToDouble(t -> t).toArray();
        double p95 = Bench.percentile(sorted, 0.95);
        Bench.say(
                "%s: median %.0f ms, p95 %.0f ms (asked %d: %.2f of it), %.0f a second",
                what, Bench.percentile(sorted, 0.5), p95, most, p95 / most, people * (EACH + WARM) / seconds);
    }
}
