package mintshelf.demo;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Collections;
import java.util.Deque;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import mintshelf.app.Browser;
import mintshelf.app.Server;
import mintshelf.app.Web;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import org.openqa.selenium.WebElement;

/** Every link of every page as every role, four of each shape, on the demo's own data: none leads nowhere. */
class LinksTest {
    private static final int OF_A_SHAPE = 4;
    private static final Pattern LINK = Pattern.compile("(?:href|src|hx-get)=\"(/[^\"#]*)(?:#[^\"]*)?\"");
    /** What no person is to read: names of classes, values of the machine, what a template left over. */
    private static final Pattern RAW = Pattern.compile(
            "Optional\\[|Optional\\.empty|mintshelf\\.(?:app|core)|java\\.(?:lang|util)|Exception|>null<|\\$\\{|@\\{|\\bth:[a-z]+=|>true<|>false<|[A-Z]+_[A-Z]+</");

    private final List<String> wrong = Collections.synchronizedList(new ArrayList<>());
    private static final int MOST_SEARCHES = 8;
    private final AtomicInteger followed = new AtomicInteger();

    /** One demo for both tests: to write its story takes longer than to look at it. */
    private static final Server SERVER = Server.bare(DemoApplication.class);

    @AfterAll
    static void stop() {
        SERVER.stop();
    }

    @Test
    void everyLinkOfEveryPageLeadsSomewhere() {
        // Side by side: the server answers several, as it does all day.
        Cast.ALL.parallelStream().forEach(person -> follow(SERVER, person.login()));
        System.out.println(followed + " links followed");
        assertThat(wrong).isEmpty();
        assertThat(followed.get()).isGreaterThan(1_000);
    }

    /** Nothing leaves the screen of a phone to the side, on the pages that are meant for one. */
    @Test
    @Tag("browser")
    void nothingLeavesTheScreenOfAPhone() {
        long round = SERVER.db()
                .fetchSingle("select max(id) from round where state = 'OPEN'")
                .get(0, Long.class);
        long gland = item("TG40-3030", "dxf");
        long head = item("TG40-3000", "stp");
        long order = SERVER.db()
                .fetchSingle("select max(item) from paper where type = 'ORDER'")
                .get(0, Long.class);
        long shelf = SERVER.db()
                .fetchSingle("select shelf from item where id = ?", gland)
                .get(0, Long.class);
        List<String> pages = List.of(
                "/today",
                "/in-tray",
                "/rounds/" + round,
                "/documents/" + gland,
                "/documents/" + head,
                "/documents/" + gland + "/versions/7/compare?old=4",
                "/documents/" + gland + "/record",
                "/documents/" + head + "/structure",
                "/documents/" + head + "/where-used",
                "/orders/" + order,
                "/changes",
                "/shelves",
                "/shelves/" + shelf,
                "/search?q=gland");
        List<String> leaving = new ArrayList<>();
        try (Browser browser = new Browser(SERVER.origin())) {
            browser.signIn("hedda", Cast.PASSWORD);
            browser.size(390, 844);
            for (String page : pages) {
                browser.open(page);
                Object wide = browser.driver().executeScript("return document.documentElement.scrollWidth");
                if (((Number) wide).intValue() > 390) {
                    Object who = browser.driver().executeScript("""
                            const out = [];
                            for (const e of document.querySelectorAll('main *')) {
                              const r = e.getBoundingClientRect();
                              let p = e.parentElement, held = false;
                              for (; p && p !== document.body; p = p.parentElement)
                                if (getComputedStyle(p).overflowX !== 'visible') held = true;
                              if (!held && r.right > 391 && r.width > 0) out.push(e.tagName + '.' + e.getAttribute('class') + ' ' + Math.round(r.right));
                            }
                            return out.slice(0, 4).join('; ');""");
                    leaving.add(page + " is " + wide + ": " + who);
                }
                // What unfolds from its acts stays on the screen too.
                for (WebElement more : browser.all(".nameplate details.more > summary")) {
                    more.click();
                    Object right = browser.driver()
                            .executeScript(
                                    "const r = arguments[0].nextElementSibling.getBoundingClientRect(); return Math.max(r.right - innerWidth, -r.left)",
                                    more);
                    if (((Number) right).doubleValue() > 1) leaving.add(page + ": More leaves by " + right);
                }
            }
        }
        assertThat(leaving).isEmpty();
    }

    private static long item(String number, String extension) {
        return SERVER.db()
                .fetchSingle("select id from item where number = ? and file_name like ?", number, "%." + extension)
                .get(0, Long.class);
    }

    private void follow(Server server, String login) {
        Web web = new Web(server.origin());
        web.signIn(login, Cast.PASSWORD);
        Map<String, Integer> shapes = new HashMap<>();
        Set<String> seen = new HashSet<>();
        int searches = 0;
        Deque<String[]> waiting = new ArrayDeque<>();
        for (String start : List.of(
                "/today", "/shelves", "/changes", "/desk", "/in-tray", "/people", "/search?q=tg40", "/habits")) {
            waiting.add(new String[] {start, "the band"});
        }
        while (!waiting.isEmpty()) {
            String[] next = waiting.remove();
            String path = next[0];
            if (!seen.add(path) || path.startsWith("/static/") || path.startsWith("/webjars/")) continue;
            // Each search leads to narrower ones, without end.
            if (path.startsWith("/search?") && ++searches > MOST_SEARCHES) continue;
            if (shapes.merge(shape(path), 1, Integer::sum) > OF_A_SHAPE) continue;
            var answer = web.get(path);
            followed.incrementAndGet();
            int status = answer.statusCode();
            String type = answer.headers().firstValue("Content-Type").orElse("");
            if (status == 302) {
                String to = answer.headers().firstValue("Location").orElse("").replace(server.origin(), "");
                if (to.startsWith("/sign-in")) wrong.add(login + ": " + path + " from " + next[1] + " asks to sign in");
                else waiting.add(new String[] {to, path});
                continue;
            }
            if (status >= 400) {
                wrong.add(login + ": " + path + " from " + next[1] + " is " + status);
                continue;
            }
            if (!type.startsWith("text/html")) continue;
            String page = answer.body();
            Matcher raw = RAW.matcher(page.replaceAll("(?s)<(script|svg|pre)\\b.*?</\\1>", ""));
            if (raw.find()) {
                wrong.add(login + ": " + path + " says “"
                        + page.substring(Math.max(0, raw.start() - 60), Math.min(page.length(), raw.end() + 40)) + "”: "
                        + raw.group());
            }
            Matcher link = LINK.matcher(page);
            while (link.find()) waiting.add(new String[] {link.group(1).replace("&amp;", "&"), path});
        }
    }

    private static String shape(String path) {
        String bare = path.replaceAll("\\d+(?:,\\d+)*", "N").replaceAll("=[^&]*", "=");
        return bare.replaceAll(
                "/(?:drawing|part-model|assembly-model|specification|report|picture|template|change-[a-z]+)\\b",
                "/KIND");
    }
}
