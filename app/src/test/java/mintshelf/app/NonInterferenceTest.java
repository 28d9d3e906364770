package mintshelf.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.time.Clock;
import java.time.Instant;
import java.time.ZoneId;
import java.time.ZoneOffset;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import mintshelf.app.store.structure.LinkStore;
import mintshelf.app.use.change.AskForChange;
import mintshelf.app.use.change.MoveOrder;
import mintshelf.app.use.desk.Tokens;
import mintshelf.app.use.document.KeepFacts;
import mintshelf.app.use.output.MakeOutputs;
import mintshelf.app.use.redline.TalkOfRemarks;
import mintshelf.app.use.revision.StartRevisions;
import mintshelf.app.use.search.ReadWords;
import mintshelf.app.use.shelf.ReadShelf;
import mintshelf.app.use.structure.KeepBomLines;
import mintshelf.app.use.structure.KeepVariants;
import mintshelf.core.bom.RollUp;
import mintshelf.core.bom.Variant;
import mintshelf.core.signoff.Decision;
import mintshelf.database.schema.Tables;
import org.junit.jupiter.api.Test;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Primary;

/**
 * Readers learn nothing of work in preparation: every page, list, search and answer of a reader is byte for byte the same before that
 * work and with it. Tokens are masked; "being revised" is the one difference allowed, and none where a shelf hides it.
 */
class NonInterferenceTest {
    private static final Pattern SPACE = Pattern.compile("\\s++");

    /** Form tokens; hashes are shorter. */
    private static final Pattern TOKEN = Pattern.compile("(?<![A-Za-z0-9_-])[A-Za-z0-9_-]{90,}+");

    private static final Pattern FIELD = Pattern.compile("(name=\"(?:csrf|_csrf|actKey)\" (?:content|value)=\")[^\"]*");
    private static final Pattern REVISED = Pattern.compile(" ?<span class=\"(?:flag|quiet)\">· being revised</span>");
    private static final Pattern LINK = Pattern.compile("(?:href|src|hx-get)=\"(/[^\"#]*)(?:#[^\"]*)?\"");

    /** Time stands still, so that ages do not tell pages apart. No stereotype: other tests' servers are not to find it. */
    static class Still {
        @Bean
        @Primary
        Clock still() {
            return new Clock() {
                private final Instant now = Instant.parse("2026-11-26T09:00:00Z");

                @Override
                public Instant instant() {
                    return now.plusMillis(later);
                }

                @Override
                public ZoneId getZone() {
                    return ZoneOffset.UTC;
                }

                @Override
                public Clock withZone(ZoneId zone) {
                    return this;
                }
            };
        }

        static volatile long later;
    }

    private final Server server = Server.with(Still.class);
    private final Review review = new Review(server);
    private String kept = "";
    private final HttpClient http = HttpClient.newHttpClient();

    @Test
    void aReaderSeesTheSameWithAndWithoutWorkInPreparation() {
        try {
            long open = server.shelf();
            long hidden = server.shelf();
            server.db()
                    .update(Tables.SHELF)
                    .set(Tables.SHELF.HIDES_REVISING, true)
                    .where(Tables.SHELF.ID.eq(hidden))
                    .execute();
            List<Long> released = new ArrayList<>();
            for (long shelf : List.of(open, hidden)) {
                for (String name : List.of("cone", "ring", "pipe", "clamp")) {
                    long item = review.drawing(shelf, name + " " + shelf + ".dxf");
                    review.release(item);
                    released.add(item);
                }
                long component = server.released(shelf, "liner " + shelf + ".txt");
                released.add(component);
                released.add(assembly(shelf, component));
            }
            for (long shelf : List.of(open, hidden)) {
                long clasp = BoughtPartsTest.made(server, shelf, "clasp " + shelf);
                server.release("priya", clasp);
                released.add(clasp);
            }
            server.bean(ReadWords.class).run();
            server.bean(MakeOutputs.class).run();
            kept = KeptSearchTest.kept(server, "rafael", "-report");
            Web reader = Web.as(server, "rafael");
            String token = server.bean(Tokens.class).make(server.actor("rafael"), "reader", false, 9);
            reader.get(kept); // to look is theirs, too
            open(reader, released); // what the reader opened is theirs to see, and that their token was used
            ask(token, "/me");
            Map<String, String> before = crawl(reader, token, released);

            Still.later = 1;
            work(open, released.subList(0, 6));
            work(hidden, released.subList(6, 12));
            bought(released);
            server.bean(ReadWords.class).run();

            Map<String, String> after = crawl(reader, token, released);
            System.out.println(before.size() + " pages and answers compared");
            assertThat(before.size()).isGreaterThan(150);
            assertThat(after.keySet()).isEqualTo(before.keySet());
            assertThat(differences(before, after)).isEmpty();
            assertThat(reader.get("/shelves/" + open).body()).contains("being revised");
            assertThat(reader.get("/shelves/" + hidden).body()).doesNotContain("being revised");
            assertThat(reader.get("/documents/" + released.get(6)).body()).doesNotContain("being revised");
        } finally {
            server.stop();
        }
    }

    private long assembly(long shelf, long component) {
        long item = server.file(
                "priya",
                shelf,
                Server.PLAIN,
                "well " + shelf + ".txt",
                ("well " + shelf).getBytes(StandardCharsets.UTF_8),
                false);
        refer(server.document(item).head().version(), component);
        server.release("priya", item);
        return item;
    }

    private void refer(long version, long component) {
        server.refer(version, component, "part.dxf");
        server.db()
                .insertInto(Tables.STRUCTURE_LOG)
                .set(Tables.STRUCTURE_LOG.ITEM, component)
                .execute();
    }

    /** Parts without a file are revised, and named by hand in what is being prepared. */
    private void bought(List<Long> all) {
        for (long clasp : all.subList(12, 14)) {
            server.bean(StartRevisions.class)
                    .start(server.actor("priya"), List.of(clasp), Server.key(), "zebra clasp", "", false);
            server.bean(KeepFacts.class)
                    .keep(server.actor("priya"), clasp, Server.key(), "zebra clasp", Map.of("mass", "0.77"), Map.of());
            server.bean(KeepBomLines.class)
                    .write(
                            server.actor("priya"),
                            all.get(clasp == all.get(12) ? 0 : 6),
                            Server.key(),
                            new KeepBomLines.Typed(0, "", server.document(clasp).number(), "", "3", "pc", "", "", ""));
        }
    }

    /** Lines by hand, variants, other sums. */
    private void bill(long item, int n) {
        server.bean(KeepBomLines.class)
                .write(
                        server.actor("priya"),
                        item,
                        Server.key(),
                        new KeepBomLines.Typed(0, "", "", "zebra line", "2", "pc", "bought", "1", "1"));
        server.bean(KeepVariants.class)
                .keep(
                        server.actor("priya"),
                        item,
                        Server.key(),
                        List.of(new Variant("zebra variant", "ZV-" + item + n, Map.of("mass", "3"))));
        server.bean(KeepVariants.class)
                .say(server.actor("priya"), item, Server.key(), RollUp.Of.MASS, "4", "zebra weighed");
    }

    /** All that may be under way: revisions, holds, facts, titles, rounds, returns, strays, orders, drafts, links, references. */
    private void work(long shelf, List<Long> items) {
        for (int i = 0; i < 4; i++) {
            long item = items.get(i);
            server.bean(StartRevisions.class)
                    .start(server.actor("priya"), List.of(item), Server.key(), "zebra reason", "zebra details", true);
            server.checkIn("priya", item, Review.sheet("zebra " + item), i == 3);
            server.bean(KeepFacts.class)
                    .keep(
                            server.actor("priya"),
                            item,
                            Server.key(),
                            "Zebra title " + item,
                            Map.of("material", "zebra metal"),
                            Map.of());
            if (i < 3) bill(item, i);
        }
        server.checkIn("tomasz", items.get(0), "zebra stray", false);
        long round = review.send("priya", items.get(1));
        review.answer("hedda", round, Decision.RETURNED, "zebra remark");
        review.sign("hedda", review.send("priya", items.get(2)));
        // On sheets of old and of what is under way, with a thread.
        for (long item : items.subList(0, 3)) {
            for (int version : List.of(1, server.document(item).head().number())) {
                String made = RedlineTest.noted(server, "hedda", item, version, "zebra mark");
                long id = Long.parseLong(made.substring(made.lastIndexOf('/') + 1));
                server.bean(TalkOfRemarks.class).reply(server.actor("priya"), item, id, Server.key(), "zebra reply");
            }
        }
        long order = Long.parseLong(server.bean(AskForChange.class)
                .ask(
                        server.actor("priya"),
                        List.of(items.get(0), items.get(4)),
                        Server.key(),
                        "Zebra order",
                        "zebra",
                        Map.of())
                .substring("/orders/".length()));
        server.bean(MoveOrder.class).start(server.actor("oluwaseun"), order, Server.key());
        long draft = review.drawing(shelf, "zebra draft " + shelf + ".dxf");
        long parent = server.file("priya", shelf, "zebra parent " + shelf + ".txt", "zebra parent " + shelf, false);
        refer(server.document(parent).head().version(), items.get(4));
        server.bean(LinkStore.class)
                .add(
                        draft,
                        LinkStore.Kind.EVIDENCE,
                        items.get(5),
                        false,
                        server.actor("priya").person(),
                        Instant.now());
        server.bean(ReadShelf.class);
    }

    /** As the crawl leaves it behind: what was opened, in that order. */
    private static void open(Web reader, List<Long> released) {
        reader.get("/today");
        for (int round = 0; round < 2; round++) {
            for (long item : released) reader.get("/documents/" + item);
        }
    }

    private Map<String, String> crawl(Web reader, String token, List<Long> released) {
        Map<String, String> all = new TreeMap<>();
        Deque<String> waiting = new ArrayDeque<>(List.of(
                "/today",
                "/shelves",
                "/changes",
                "/people",
                "/search?q=zebra",
                "/search?q=ring",
                "/search?q=material",
                "/search/hints?q=ze",
                "/search/hints?q=c",
                "/search",
                "/search?q=material:*",
                "/search?q=material:zebra",
                "/search?q=kind:drawing&by=changed",
                "/search?q=is:pending",
                "/search?q=held:priya",
                "/search?q=is:released+-ring&by=title",
                "/search?versions=true&q=ring",
                "/search?versions=true&q=comment:zebra",
                "/search?q=zebrra",
                "/search/hits.csv?q=kind:drawing",
                kept,
                "/desk",
                "/in-tray",
                "/habits"));
        for (long item : released) {
            for (String what : List.of(
                    "/peek?face=look",
                    "/peek?face=changed",
                    "/peek?face=around",
                    "/peek?face=facts",
                    "/who",
                    "/structure",
                    "/structure?view=latest",
                    "/structure?view=as-saved",
                    "/structure?view=on-date",
                    "/bom?with=as-released",
                    "/bom?view=latest-released&who=purchasing",
                    "/bom.csv",
                    "/bom.stp",
                    "/bom?serial=0150&lot=L1",
                    "/variants",
                    "/item",
                    "/parts-list",
                    "/where-used",
                    "/where-used?versions=all",
                    "/refers-to",
                    "/record",
                    "/versions/2/file",
                    "/versions/3/file",
                    "/versions/4/file",
                    "/versions/5/file",
                    "/versions/4/compare",
                    "/title-block")) {
                waiting.add("/documents/" + item + what);
            }
        }
        while (!waiting.isEmpty()) {
            String path = waiting.remove();
            // To look at an order is to choose it: those come last, in one sequence.
            if (all.containsKey(path)
                    || path.contains("order=")
                    || path.startsWith("/static/")
                    || path.startsWith("/webjars/")
                    // A workbook says when it was written; the CSV beside it has its rows. One level is part of its
                    // tree.
                    || path.contains(".xlsx")
                    || path.contains("shape=level")) continue;
            var answer = reader.get(path);
            // Two pages that break alike are alike too.
            assertThat(answer.statusCode()).as(path).isLessThan(500);
            String etag = answer.headers().firstValue("ETag").orElse("");
            all.put(path, answer.statusCode() + " " + etag + " " + masked(answer.body()));
            Matcher link = LINK.matcher(answer.body());
            if (answer.headers().firstValue("Content-Type").orElse("").startsWith("text/html")) {
                while (link.find()) {
                    // Each search leads to narrower ones, without end: those that are looked at stand above.
                    if (!link.group(1).startsWith("/search"))
                        waiting.add(link.group(1).replace("&amp;", "&"));
                }
            }
        }
        for (String order : List.of("title", "changed", "number")) {
            for (long shelf : List.of(1L, 2L)) {
                String path = "/shelves/" + shelf + "?order=" + order;
                all.put(path, masked(reader.get(path).body()));
            }
        }
        for (String path : api(released)) all.put("API " + path, ask(token, path));
        return all;
    }

    private String ask(String token, String path) {
        try {
            var answer = http.send(
                    HttpRequest.newBuilder(URI.create(server.origin() + "/api/v1" + path))
                            .header("Authorization", "Bearer " + token)
                            .build(),
                    HttpResponse.BodyHandlers.ofString());
            assertThat(answer.statusCode()).as(path).isLessThan(500);
            return answer.statusCode() + " "
                    + answer.headers().firstValue("ETag").orElse("") + " " + answer.body();
        } catch (IOException | InterruptedException e) {
            throw new IllegalStateException(e);
        }
    }

    private static List<String> api(List<Long> released) {
        List<String> all = new ArrayList<>(List.of(
                "/me",
                "/shelves",
                "/documents?q=zebra",
                "/documents?q=ring",
                "/documents?q=d",
                "/documents?q=kind:drawing&facets=stage,kind,on,in,rev,held,material",
                "/searches",
                "/searches/1/feed",
                "/holds"));
        for (long item : released) {
            for (String what : List.of(
                    "",
                    "/versions",
                    "/structure",
                    "/structure?view=latest",
                    "/bom",
                    "/where-used",
                    "/versions/4/content",
                    "/versions/3/content")) {
                all.add("/documents/" + item + what);
            }
        }
        return all;
    }

    /** A page without what is drawn anew for each answer. */
    static String masked(String body) {
        // What is gone first is not looked at again: pages have a megabyte, and there are thousands.
        String plain = SPACE.matcher(body).replaceAll(" ");
        plain = TOKEN.matcher(plain).replaceAll("");
        plain = FIELD.matcher(plain).replaceAll("$1");
        return REVISED.matcher(plain)
                .replaceAll("")
                .replace(", being revised", "")
                .replaceAll("last seen [^<]*", "last seen"); // the reader's own session goes on while they look
    }

    private static List<String> differences(Map<String, String> before, Map<String, String> after) {
        List<String> differ = new ArrayList<>();
        before.forEach((path, body) -> {
            String now = after.getOrDefault(path, "");
            if (!body.equals(now)) differ.add(path + "\n" + difference(body, now));
        });
        return differ;
    }

    private static String difference(String one, String two) {
        int at = 0;
        while (at < Math.min(one.length(), two.length()) && one.charAt(at) == two.charAt(at)) at++;
        return "was  …" + one.substring(Math.max(0, at - 80), Math.min(one.length(), at + 120)) + "\nnow  …"
                + two.substring(Math.max(0, at - 80), Math.min(two.length(), at + 120));
    }
}
