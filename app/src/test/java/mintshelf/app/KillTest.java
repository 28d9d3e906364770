package mintshelf.app;

import static org.assertj.core.api.Assertions.assertThat;

import com.icegreen.greenmail.util.GreenMailUtil;
import jakarta.mail.internet.MimeMessage;
import java.net.http.HttpResponse;
import java.util.Arrays;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.TimeUnit;
import java.util.function.Function;
import java.util.stream.Collectors;
import mintshelf.app.effect.run.Wish;
import mintshelf.app.store.content.UploadStore;
import mintshelf.app.store.document.RevisionStore;
import mintshelf.app.store.run.Run;
import mintshelf.app.store.run.RunStore;
import mintshelf.app.use.document.ReadVersion;
import mintshelf.app.use.output.MakeOutputs;
import mintshelf.app.use.release.ReadReleasePlan;
import mintshelf.app.use.run.ActOverSet;
import mintshelf.app.use.verify.Verify;
import mintshelf.core.base.ContentHash;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;

/**
 * The application as a process of its own, killed with -9: whole afterwards, and all that was acknowledged is there. Once for each way of
 * keeping (content, a run, an order that releases two hundred); with {@code --long} many times, rounds and plans too.
 */
class KillTest {
    private final Server server = Server.shared();

    /** One process for both: first a file of a third of its heap, cut in the middle; then the kill. */
    @Test
    void aNodeInASmallHeapTakesALargeFileAndIsKilledWhileSmallOnesComeIn() throws Exception {
        killed(1, "-Xmx112m", node -> cutAndResumed(node, 40_000_000));
    }

    @Test
    @Tag("long")
    void thirtyKills() throws Exception {
        killed(30, "-Xmx256m", node -> {});
    }

    /** What is done on a node before it is killed. */
    private interface First {
        void on(Node node) throws Exception;
    }

    private void killed(int times, String heap, First first) throws Exception {
        Random random = new Random(40);
        long item = server.file("priya", server.shelf(), "killed.txt", "start " + System.nanoTime(), true);
        int acknowledged = 1;
        for (int round = 0; round < times; round++) {
            try (Node node = new Node(server, heap)) {
                first.on(node);
                Web priya = new Web(node.origin());
                priya.signIn("priya", Server.PASSWORD);
                CountDownLatch cameIn = new CountDownLatch(1);
                Thread killer = new Thread(() -> {
                    try {
                        cameIn.await(60, TimeUnit.SECONDS); // however slow the machine is, something came in
                        Thread.sleep(random.nextInt(1200));
                        node.kill();
                    } catch (InterruptedException e) {
                        Thread.currentThread().interrupt();
                    }
                });
                killer.start();
                try {
                    for (int i = 0; i < 400; i++) {
                        byte[] bytes = new byte[40_000];
                        random.nextBytes(bytes);
                        String opened = priya.send("POST", "/uploads?name=killed.txt&size=" + bytes.length, new byte[0])
                                .body();
                        String token = opened.replaceAll(".*\"token\":\"([^\"]+)\".*", "$1");
                        priya.send("PUT", "/uploads/" + token + "?from=0", bytes);
                        long hold = server.document(item).holder().orElseThrow().hold();
                        HttpResponse<String> answer = priya.post(
                                "/check-in",
                                Map.of(
                                        "actKey",
                                        Server.key(),
                                        "upload." + item,
                                        token,
                                        "hold." + item,
                                        "" + hold,
                                        "keep",
                                        "true"));
                        String to = answer.headers().firstValue("Location").orElse("");
                        // Other bytes each time: what is told to have come back is a version more.
                        if (to.startsWith("/runs/")) {
                            acknowledged++;
                            cameIn.countDown();
                        }
                    }
                } catch (RuntimeException e) {
                    // The connection ended with the node.
                }
                killer.join();
            }
            assertThat(server.document(item).head().number()).isBetween(acknowledged, acknowledged + 1);
            acknowledged = server.document(item).head().number();
        }
        assertThat(acknowledged).as("some came in before the node died").isGreaterThan(times);
        assertThat(server.bean(Verify.class).verify().problems()).isEmpty();
    }

    @Test
    @Tag("long")
    void thirtyKillsOfReleases() throws Exception {
        killedReleasing(30);
    }

    /** A bundle of three is signed last on a node that dies at some moment: all are released or none is. */
    private void killedReleasing(int times) throws Exception {
        Random random = new Random(42);
        Review review = new Review(server);
        long shelf = server.shelf();
        int whole = 0;
        for (int i = 0; i < times; i++) {
            Server.mail().purgeEmailFromAllMailboxes(); // rounds of other tests have numbers too
            Long[] items = new Long[3];
            for (int k = 0; k < 3; k++) items[k] = review.drawing(shelf, "r" + i + "-" + k + ".dxf");
            long round = review.send("priya", items);
            review.sign("hedda", round);
            String seen = review.digest("oluwaseun", round);
            killedPosting(
                    "/rounds/" + round + "/answer",
                    Map.of("seen", seen, "decision", "signed"),
                    times > 1 && i < 2 ? i * 6_000 : random.nextInt(400));
            long released = Arrays.stream(items)
                    .filter(item -> server.document(item).released().isPresent())
                    .count();
            assertThat(released).isIn(0L, 3L);
            assertThat(review.store().round(round).orElseThrow().isOpen()).isEqualTo(released == 0);
            if (released == 0) review.sign("oluwaseun", round);
            else whole++;
            for (long item : items) awaitPdf(item);
            awaitOneMail(round);
        }
        // Of many the first node died before its act, the second one long after it.
        if (times > 1) assertThat(whole).isBetween(1, times - 1);
        assertThat(server.bean(Verify.class).verify().problems()).isEmpty();
    }

    /** Posts a form as the head of design on a node that is killed so many milliseconds later. */
    private void killedPosting(String path, Map<String, String> form, int delay) throws Exception {
        Map<String, String> fields = new HashMap<>(form);
        fields.put("actKey", Server.key());
        killedPosting(
                server,
                "oluwaseun",
                lead -> {
                    lead.get(path.replaceFirst("/answer$", ""));
                    return () -> lead.post(path, fields);
                },
                delay);
    }

    /** Acts on a node that is killed so many milliseconds after the act was sent. */
    static void killedPosting(Server server, String login, Function<Web, Runnable> act, int delay) throws Exception {
        try (Node node = new Node(server, "-Xmx256m")) {
            Web web = new Web(node.origin());
            web.signIn(login, Server.PASSWORD);
            Runnable sent = act.apply(web);
            Thread killer = new Thread(() -> {
                try {
                    Thread.sleep(delay);
                    node.kill();
                } catch (InterruptedException e) {
                    Thread.currentThread().interrupt();
                }
            });
            killer.start();
            try {
                sent.run();
            } catch (RuntimeException e) {
                // The connection ended with the node.
            }
            killer.join();
        }
    }

    @Test
    void aNodeKilledInTheMiddleOfALongRunLeavesWholePortionsAndAnotherGoesOn() throws Exception {
        killedRunning(1);
    }

    @Test
    @Tag("long")
    void twentyKillsOfRuns() throws Exception {
        killedRunning(20);
    }

    /** Three hundred documents are moved on a node that dies at some moment of it: each portion whole or not at all, one report. */
    private void killedRunning(int times) throws Exception {
        Random random = new Random(44);
        RunStore runs = server.bean(RunStore.class);
        ActOverSet over = server.bean(ActOverSet.class);
        int cut = 0;
        for (int i = 0; i < times; i++) {
            List<Long> items = ManyDocuments.preparing(server, 300);
            Wish release = Wish.move("release", "");
            String plan = ActOverSet.digest(over.plan(server.actor("priya"), Run.What.MOVE, items, release));
            String key = Server.key();
            String body =
                    "{\"act\":\"move\",\"move\":\"release\",\"plan\":\"" + plan + "\",\"documents\":" + items + "}";
            killedPosting(server, "priya", web -> () -> web.json("/api/v1/runs", key, body), random.nextInt(1_500));
            long before = released(items);
            assertThat(before % ActOverSet.PORTION).as("whole portions").isZero();
            Optional<Run> run = runs.of(server.actor("priya").person(), key);
            assertThat(run.isPresent()).isEqualTo(before > 0);
            if (run.isEmpty()) continue;
            if (run.get().isWorking()) cut++;
            assertThat(run.get().done()).isEqualTo((int) before);
            // A dead node's lease ends by itself; here it is ended by hand.
            server.db()
                    .execute(
                            "update run set lease_until = '2020-01-01' where id = ? and state = 'WORKING'",
                            run.get().id());
            while (runs.run(run.get().id()).orElseThrow().isWorking()) over.goOnWithNext();
            assertThat(released(items)).isEqualTo(300);
            assertThat(runs.rows(run.get().id(), 0, 1000)).hasSize(300).noneMatch(Run.Row::waits);
        }
        if (times > 10) assertThat(cut).as("some died in the middle").isPositive();
        assertThat(server.bean(Verify.class).verify().problems()).isEmpty();
    }

    @Test
    @Tag("long")
    void twentyKillsOfPlans() throws Exception {
        killedReleasingTogether(20);
    }

    /** Two hundred documents are released by their plan, in one act, on a node that dies at some moment of it. */
    private void killedReleasingTogether(int times) throws Exception {
        Random random = new Random(46);
        ReadReleasePlan plans = server.bean(ReadReleasePlan.class);
        int whole = 0;
        for (int i = 0; i < times; i++) {
            List<Long> items = ManyDocuments.preparing(server, 200);
            String seen = plans.plan(server.actor("priya"), items).digest();
            Map<String, String> form = Map.of(
                    "actKey",
                    Server.key(),
                    "items",
                    items.stream().map(String::valueOf).collect(Collectors.joining(",")),
                    "seen",
                    seen);
            killedPosting(
                    server,
                    "priya",
                    web -> {
                        web.get("/today");
                        return () -> web.post("/release-plan", form);
                    },
                    times > 1 && i < 2 ? i * 12_000 : random.nextInt(2_500));
            long before = released(items);
            assertThat(before).isIn(0L, 200L);
            if (before == 200) whole++;
            // Sent again, the same form does what was not done, and nothing twice.
            Web.as(server, "priya").post("/release-plan", form);
            assertThat(released(items)).isEqualTo(200);
        }
        if (times > 1) assertThat(whole).isBetween(1, times - 1);
        assertThat(server.bean(Verify.class).verify().problems()).isEmpty();
    }

    private long released(List<Long> items) {
        return items.stream()
                .filter(item -> server.document(item).released().isPresent())
                .count();
    }

    @Test
    void aNodeKilledWhileAnOrderIsCarriedOutLeavesAllOrNothing() throws Exception {
        killedCarryingOut(1, 40);
    }

    @Test
    @Tag("long")
    void twentyKillsOfOrders() throws Exception {
        killedCarryingOut(20, 200);
    }

    /** An order over so many documents is carried out on a node that dies at some moment of it. */
    private void killedCarryingOut(int times, int lines) throws Exception {
        Random random = new Random(43);
        Orders orders = new Orders(server);
        int whole = 0;
        for (int i = 0; i < times; i++) {
            List<Long> items = ManyDocuments.preparing(server, lines);
            long order = orders.ask("priya", items.toArray(Long[]::new));
            orders.start(order);
            orders.signed(order);
            killedPosting(
                    "/orders/" + order + "/carry-out",
                    Map.of("told", "" + server.actor("priya").person()),
                    times > 1 && i < 2 ? i * 12_000 : random.nextInt(2_500));
            long released = released(items);
            var view = orders.view("ines", order);
            assertThat(released).isIn(0L, (long) lines);
            assertThat(view.notice().isPresent()).isEqualTo(released == lines);
            assertThat(view.stage()).isEqualTo(released == lines ? "carried-out" : "board");
            if (released == 0) orders.carryOut(order);
            else whole++;
            // Told once, and the notice is there in every form.
            String says = "carried out " + server.document(order).number();
            assertThat(orders.told("priya")).filteredOn(s -> s.contains(says)).hasSize(1);
            long notice =
                    orders.view("ines", order).notice().orElseThrow().spine().id();
            for (String format : List.of("CSV", "XLSX", "DOCX", "XML")) {
                assertThat(server.bean(ReadVersion.class)
                                .output(server.actor("ines"), notice, 1, format)
                                .size())
                        .isPositive();
            }
        }
        if (times > 1) assertThat(whole).isBetween(1, times - 1);
        assertThat(server.bean(Verify.class).verify().problems()).isEmpty();
    }

    /** What a dead node took under its lease is made by another one when the lease ends: here the lease is ended by hand. */
    private void awaitPdf(long item) {
        server.db().execute("update output set lease_until = null where state = 'WAITING'");
        var runs = server.bean(MakeOutputs.class);
        while (runs.makeNext()) {
            // until nothing waits
        }
        int out = server.bean(RevisionStore.class)
                .revisions(item)
                .get(0)
                .releasedVersion()
                .orElseThrow();
        assertThat(server.bean(ReadVersion.class)
                        .output(server.actor("rafael"), item, out, "PDF")
                        .size())
                .isPositive();
    }

    /** To the author that it is released: sent at least once, under one identification. */
    private void awaitOneMail(long round) throws Exception {
        server.db().execute("update delivery set lease_until = null, next_at = now() where state = 'WAITING'");
        server.post();
        Set<String> ids = new HashSet<>();
        for (MimeMessage message : Server.mail().getReceivedMessages()) {
            boolean ours = String.valueOf(GreenMailUtil.getBody(message))
                    .replaceAll("=\\r?\\n", "")
                    .contains("/rounds/" + round);
            boolean toAuthor = message.getAllRecipients()[0].toString().startsWith("priya");
            if (ours && toAuthor) ids.add(message.getMessageID());
        }
        assertThat(ids).hasSize(1);
    }

    @Test
    @Tag("long")
    void threeHundredMegabytesInAQuarterOfThem() throws Exception {
        try (Node node = new Node(server, "-Xmx256m")) {
            cutAndResumed(node, 300_000_000);
        }
    }

    private void cutAndResumed(Node node, int size) throws Exception {
        byte[] bytes = new byte[size];
        new Random(41).nextBytes(bytes);
        Web priya = new Web(node.origin());
        priya.signIn("priya", Server.PASSWORD);
        String opened = priya.send("POST", "/uploads?name=large.stp&size=" + size, new byte[0])
                .body();
        String token = opened.replaceAll(".*\"token\":\"([^\"]+)\".*", "$1");
        long at = 0;
        boolean cut = false;
        while (at < size) {
            int n = (int) Math.min(8 << 20, size - at);
            if (!cut && at > size * 0.6) {
                cut = true;
                priya.abort("/uploads/" + token + "?from=" + at, bytes, (int) at, n);
                Thread.sleep(300);
                at = received(priya.get("/uploads/" + token).body());
                continue;
            }
            byte[] slice = Arrays.copyOfRange(bytes, (int) at, (int) at + n);
            at = received(priya.send("PUT", "/uploads/" + token + "?from=" + at, slice)
                    .body());
        }
        assertThat(cut).isTrue();
        assertThat(server.bean(UploadStore.class).upload(token).orElseThrow().hash())
                .contains(ContentHash.compute(bytes));
    }

    private static long received(String body) {
        return Long.parseLong(body.replaceAll(".*\"received\":(\\d+).*", "$1"));
    }
}
