package mintshelf.bench;

import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Random;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.concurrent.atomic.AtomicInteger;
import mintshelf.app.ManyDocuments;
import mintshelf.app.Server;
import mintshelf.app.Web;
import mintshelf.app.use.Refused;

/** How fast pages come, and how many people work at once. */
final class PageBench {
    private PageBench() {}

    /** The page of a shelf of 10,000 documents and rows deep inside it, over HTTP. */
    static void shelfOfTenThousand() {
        Server server = Server.shared();
        long shelf = server.shelf();
        ManyDocuments.fill(
                server.db(), shelf, server.file("priya", shelf, "model.txt", "model " + shelf, false), 10_000);
        server.db().execute("analyze table item, line, version, revision");
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

    /** A closed loop: check out, think, check in, look at the shelf; small files; refusals are answers, not errors. */
    static void fiftyPeopleForAMinute() {
        Server server = Server.shared();
        long shelf = server.shelf();
        List<Long> items = new ArrayList<>();
        for (int i = 0; i < 60; i++)
            items.add(server.file("priya", shelf, "load" + i + ".txt", "load " + i + shelf, false));
        for (int i = 0; i < 50; i++) server.add("load" + i, "Load " + i, "designer");
        long until = System.nanoTime() + 60_000_000_000L;
        AtomicInteger errors = new AtomicInteger();
        List<Double> times = Collections.synchronizedList(new ArrayList<>());
        ExecutorService pool = Executors.newFixedThreadPool(50);
        List<Future<?>> all = new ArrayList<>();
        for (int i = 0; i < 50; i++) {
            int who = i;
            all.add(pool.submit(() -> {
                Random random = new Random(who);
                String login = "load" + who;
                while (System.nanoTime() < until) {
                    long item = items.get(random.nextInt(items.size()));
                    try {
                        timed(times, () -> server.checkOut(login, item));
                        pause(300 + random.nextInt(700));
                        timed(times, () -> server.checkIn(login, item, "load " + random.nextLong(), false));
                    } catch (Refused refused) {
                        pause(100);
                    } catch (RuntimeException e) {
                        errors.incrementAndGet();
                    }
                    pause(random.nextInt(700));
                }
            }));
        }
        try {
            for (Future<?> each : all) each.get();
        } catch (Exception e) {
            errors.incrementAndGet();
        }
        pool.shutdown();
        double[] t = times.stream().mapToDouble(x -> x).toArray();
        Bench.say(
                "50 people for a minute: %d acts, %d errors, median %.0f ms, p95 %.0f ms",
                t.length, errors.get(), Bench.percentile(t, 0.5), Bench.percentile(t, 0.95));
    }

    private static void timed(List<Double> times, Runnable act) {
        long start = System.nanoTime();
        act.run();
        times.add((System.nanoTime() - start) / 1e6);
    }

    private static void pause(long millis) {
        try {
            Thread.sleep(millis);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }
}
