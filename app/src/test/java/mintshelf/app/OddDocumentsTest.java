package mintshelf.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import mintshelf.app.use.revision.MoveDocument;
import org.junit.jupiter.api.Test;
import org.springframework.web.bind.annotation.RequestMethod;
import org.springframework.web.servlet.mvc.method.annotation.RequestMappingHandlerMapping;

/** Every address of a document breaks on none: whatever it is made of, and wherever it stands. */
class OddDocumentsTest {
    private static final Pattern PART = Pattern.compile("\\{([a-z]+)(?::([a-z|]+))?}");

    /** What may stand in the parts of an address that choose among words. */
    private static final Map<String, List<String>> WORDS = Map.of(
            "number", List.of("1"),
            "line", List.of("t1"),
            "move", List.of("release", "send", "withdraw"),
            "remark", List.of("1"),
            "form", List.of("pdf", "step"),
            "format", List.of("csv", "xlsx"));

    private static final String TRIED = "one with a trial beside it";
    private static final String WITHDRAWN = "one that is withdrawn, for a reader";

    private final Server server = Server.shared();
    private final long shelf = server.shelf();
    private final Map<String, Long> documents = new LinkedHashMap<>();

    private static byte[] bytes(String text) {
        return (text + Server.key()).getBytes(StandardCharsets.UTF_8);
    }

    private void file(String what, String kind, String name, byte[] content) {
        documents.put(what, server.file("priya", shelf, kind, name, content, false));
    }

    private void documents() throws Exception {
        Review review = new Review(server);
        documents.put("a part without a file", BoughtPartsTest.made(server, shelf, "odd grease"));
        file("a drawing that is none", "drawing", "odd none.dxf", bytes("no drawing "));
        file("a drawing that is cut", "drawing", "odd cut.dxf", cut(Review.sheet(Server.key())));
        file("a model that is none", "part-model", "odd none.stp", bytes("ISO-10303-21; "));
        file("a paper that is none", Server.PLAIN, "odd none.pdf", bytes("%PDF-1.7 "));
        file("a picture that is none", Server.PLAIN, "odd none.png", bytes("\u0089PNG "));
        file("a file without an ending", Server.PLAIN, "ODD", bytes("odd "));
        file("a name that asks for care", Server.PLAIN, "odd 50% & <b>#1?.txt", bytes("odd "));
        long drawn = review.drawing(shelf, "odd tried.dxf");
        InTrial.begun(server, drawn);
        documents.put(TRIED, drawn);
        long withdrawn = server.released(shelf, "odd withdrawn.txt");
        server.bean(MoveDocument.class)
                .move(server.actor("ines"), withdrawn, Server.key(), "withdraw", 1, "nobody builds it");
        documents.put(WITHDRAWN, withdrawn);
    }

    private static byte[] cut(byte[] content) {
        return Arrays.copyOf(content, content.length / 2);
    }

    private Set<String> patterns(String begin) {
        Set<String> patterns = new TreeSet<>();
        server.bean("requestMappingHandlerMapping", RequestMappingHandlerMapping.class)
                .getHandlerMethods()
                .forEach((info, handler) -> {
                    if (!info.getMethodsCondition().getMethods().contains(RequestMethod.GET)) return;
                    info.getPatternValues().stream()
                            .filter(p -> p.startsWith(begin))
                            .forEach(patterns::add);
                });
        return patterns;
    }

    /** The addresses of one pattern: each word in each of its places. */
    private static List<String> addresses(String pattern, long id, boolean tried) {
        Matcher part = PART.matcher(pattern);
        if (!part.find()) return List.of(pattern);
        String name = part.group(1);
        List<String> words = part.group(2) != null
                ? List.of(part.group(2).split("\\|"))
                : name.equals("id")
                        ? List.of(Long.toString(id))
                        : name.equals("number") && tried ? List.of("2", "t1") : WORDS.getOrDefault(name, List.of("1"));
        List<String> all = new ArrayList<>();
        for (String word : words)
            all.addAll(addresses(pattern.substring(0, part.start()) + word + pattern.substring(part.end()), id, tried));
        return all;
    }

    @Test
    void noAddressOfADocumentBreaks() throws Exception {
        documents();
        Web priya = Web.as(server, "priya");
        Web rafael = Web.as(server, "rafael");
        List<String> wrong = new ArrayList<>();
        Set<String> patterns = patterns("/documents/{id}");
        assertThat(patterns).hasSizeGreaterThan(60);
        documents.forEach((what, id) -> {
            for (String pattern : patterns) {
                for (String address : addresses(pattern, id, what.equals(TRIED))) {
                    int status = (what.equals(WITHDRAWN) ? rafael : priya)
                            .get(address)
                            .statusCode();
                    if (status >= 500) wrong.add(what + ": " + address + " " + status);
                }
            }
            for (String face : List.of("look", "changed", "around", "facts")) {
                String address = "/documents/" + id + "/peek?face=" + face;
                if (priya.get(address).statusCode() >= 500) wrong.add(what + ": " + address);
            }
        });
        Broken.take(); // told here, with what they were asked of
        assertThat(wrong).isEmpty();
    }
}
