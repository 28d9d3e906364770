package mintshelf.demo;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import mintshelf.app.Server;
import mintshelf.app.Web;
import org.junit.jupiter.api.Test;

/** Every link of every page as every role, four of each shape, on the demo's own data: none leads nowhere. */
class LinksTest {
    private static final int OF_A_SHAPE = 4;
    private static final Pattern LINK = Pattern.compile("(?:href|src|hx-get)=\"(/[^\"#]*)(?:#[^\"]*)?\"");
    /** What no person is to read: names of classes, values of the machine, what a template left over. */
    private static final Pattern RAW = Pattern.compile(
            "Optional\\[|Optional\\.empty|mintshelf\\.(?:app|core)|java\\.(?:lang|util)|Exception|>null<|\\$\\{|@\\{|\\bth:[a-z]+=|>true<|>false<|[A-Z]+_[A-Z]+</");

    private final List<String> wrong = new ArrayList<>();
    private int followed;

    @Test
    void everyLinkOfEveryPageLeadsSomewhere() {
        Server server = Server.bare(DemoApplication.class);
        try {
            for (Cast.Person person : Cast.ALL) follow(server, person.login());
            System.out.println(followed + " links followed");
            assertThat(wrong).isEmpty();
            assertThat(followed).isGreaterThan(1_000);
        } finally {
            server.stop();
        }
    }

    private void follow(Server server, String login) {
        Web web = new Web(server.origin());
        web.signIn(login, Cast.PASSWORD);
        Map<String, Integer> shapes = new HashMap<>();
        Set<String> seen = new HashSet<>();
        Deque<String[]> waiting = new ArrayDeque<>();
        for (String start : List.of(
                "/today", "/shelves", "/changes", "/desk", "/in-tray", "/people", "/search?q=tg40", "/habits")) {
            waiting.add(new String[] {start, "the band"});
        }
        while (!waiting.isEmpty()) {
            String[] next = waiting.remove();
            String path = next[0];
            if (!seen.add(path) || path.startsWith("/static/") || path.startsWith("/webjars/")) continue;
            if (shapes.merge(shape(path), 1, Integer::sum) > OF_A_SHAPE) continue;
            var answer = web.get(path);
            followed++;
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
