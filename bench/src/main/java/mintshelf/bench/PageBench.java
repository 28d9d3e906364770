package mintshelf.bench;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.concurrent.atomic.AtomicInteger;
import mintshelf.app.ManyDocuments;
import mintshelf.app.Server;
import mintshelf.app.Web;
import mintshelf.app.ground.Refused;
import mintshelf.app.store.search.NodeIndex;
import mintshelf.app.use.hold.CheckIn;
import mintshelf.app.use.hold.CheckOut;
import mintshelf.core.document.Document;

/** How fast pages come, and how many people work at once. */
final class PageBench {
    private static final int PEOPLE = 200;

    private PageBench() {}

    /** The page of a shelf of 10,000 documents and rows deep inside it, over HTTP. */
    static void shelfOfTenThousand() {
        Server server = Server.shared();
        long shelf = server.shelf();
        ManyDocuments.fill(
                server.db(), shelf, server.file("priya", shelf, "model.txt", "model " + shelf, false), 10_000);
        server.db().execute("analyze table item, line, version, revision");
        server.bean(NodeIndex.class).rebuild();
        Web web = Web.as(server, "priya");
        List<Long> ids = server.db()
                .fetch(
                        "select i.id from item i join folder f on f.id = i.folder where i.shelf = ? order by f.ordinal, i.number_sort",
                        shelf)
                .map(r -> r.get(0, Long.class));
        measure(web, "shelf page, 10,000 documents", "/shelves/" + shelf);
        measure(
                web,
                "60 rows behind row 100",
                "/shelves/" + shelf + "/rows?order=number&show=everything&after=" + ids.get(99));
        measure(
                web,
                "60 rows behind row 9,800",
                "/shelves/" + shelf + "/rows?order=number&show=everything&after=" + ids.get(9799));
        measure(web, "search", "/search?q=mooring+brack");
    }

    private static void measure(Web web, String what, String path) {
        double[] times = new double[120];
        for (int i = -30; i < times.length; i++) {
            long start = System.nanoTime();
            if (web.get(path).statusCode() != 200) throw new IllegalStateException(path);
            if (i >= 0) times[i] = (System.nanoTime() - start) / 1e6;
        }
        Bench.say("%s: median %.0f ms, p95 %.0f ms", what, Bench.percentile(times, 0.5), Bench.percentile(times, 0.95));
    }

    /**
     * A closed loop of 200 people: each takes a set of one to four documents that overlaps those of others, thinks for a second,
     * checks it in; small files. Refusals are answers, not errors; a document that two hold at once is an error.
     */
    static void twoHundredPeopleForAMinute() {
        Server server = Server.shared();
        long shelf = server.shelf();
        List<Long> items = new ArrayList<>();
        for (int i = 0; i < 400; i++)
            items.add(server.file("priya", shelf, "load" + i + ".txt", "load " + i + shelf, false));
        for (int i = 0; i < PEOPLE; i++) server.add("load" + i, "Load " + i, "designer");
        CheckOut checkOut = server.bean(CheckOut.class);
        CheckIn checkIn = server.bean(CheckIn.class);
        // The first half minute warms up, and is not counted.
        long from = System.nanoTime() + 30_000_000_000L;
        long until = from + 60_000_000_000L;
        AtomicInteger errors = new AtomicInteger();
        AtomicInteger refused = new AtomicInteger();
        AtomicInteger twice = new AtomicInteger();
        Map<Long, Integer> holding = new ConcurrentHashMap<>();
        List<Double> outs = Collections.synchronizedList(new ArrayList<>());
        List<Double> ins = Collections.synchronizedList(new ArrayList<>());
        List<Double> uploads = Collections.synchronizedList(new ArrayList<>());
        List<Double> sets = Collections.synchronizedList(new ArrayList<>());
        ExecutorService pool = Executors.newFixedThreadPool(PEOPLE);
        List<Future<?>> all = new ArrayList<>();
        for (int i = 0; i < PEOPLE; i++) {
            int who = i;
            all.add(pool.submit(() -> {
                Random random = new Random(who);
                String login = "load" + who;
                pause(random.nextInt(1000));
                while (System.nanoTime() < until) {
                    int at = random.nextInt(items.size() - 4);
                    List<Long> set = items.subList(at, at + 1 + random.nextInt(4));
                    try {
                        timed(from, outs, () -> checkOut.take(server.actor(login), set, Server.key(), "", ""));
                        for (long item : set) if (holding.put(item, who) != null) twice.incrementAndGet();
                        pause(1000);
                        set.forEach(holding::remove);
                        timed(from, sets, () -> {
                            List<CheckIn.Row> rows = new ArrayList<>();
                            for (long item : set) {
                                Document document = server.document(item);
                                byte[] file = ("load " + random.nextLong()).getBytes(StandardCharsets.US_ASCII);
                                timed(
                                        from,
                                        uploads,
                                        () -> rows.add(new CheckIn.Row(
                                                item,
                                                server.bring(login, document.fileName(), file),
                                                document.holder().orElseThrow().hold())));
                            }
                            timed(
                                    from,
                                    ins,
                                    () -> checkIn.take(server.actor(login), rows, Server.key(), "load", false));
                        });
                    } catch (Refused no) {
                        refused.incrementAndGet();
                    } catch (RuntimeException e) {
                        errors.incrementAndGet();
                    }
                    pause(1000);
                }
            }));
        }
        try {
            for (Future<?> each : all) each.get();
        } catch (Exception e) {
            errors.incrementAndGet();
        }
        pool.shutdown();
        say("check-outs", outs);
        say("uploads", uploads);
        say("check-ins", ins);
        say("sets, uploads and check-in together", sets);
        Bench.say(
                "200 people for a minute: %d refused, %d errors, %d granted twice (asked: p95 under 500 ms, none, none)",
                refused.get(), errors.get(), twice.get());
    }

    private static void say(String what, List<Double> times) {
        double[] t = times.stream().mapToDouble(x -> x).toArray();
        Bench.say(
                "%d %s: median %.0f ms, p95 %.0f ms",
                t.length, what, Bench.percentile(t, 0.5), Bench.percentile(t, 0.95));
    }

    private static void timed(long from, List<Double> times, Runnable act) {
        long start = System.nanoTime();
        act.run();
        if (start > from) times.add((System.nanoTime() - start) / 1e6);
    }

    private static void pause(long millis) {
        try {
            Thread.sleep(millis);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }
}
