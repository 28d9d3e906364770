package mintshelf.core.change;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import mintshelf.core.drawing.Primitive;
import mintshelf.core.drawing.Scene;
import org.junit.jupiter.api.Test;

class PaperPagesTest {
    private static List<String> texts(List<Scene> pages) {
        return pages.stream()
                .flatMap(p -> p.primitives().stream())
                .filter(p -> p instanceof Primitive.Text)
                .map(p -> ((Primitive.Text) p).text())
                .toList();
    }

    private static Map<String, Object> line(int i) {
        Map<String, Object> line = new LinkedHashMap<>();
        line.put("document", "TG40-" + (1000 + i));
        line.put("title", "Intake cone");
        line.put("what", "is revised");
        line.put("from", "A");
        line.put("to", "B");
        line.put("reason", "");
        line.put("interchangeable", true);
        return line;
    }

    @Test
    void allThatWasSignedStandsOnThePages() {
        Map<String, Object> paper = new LinkedHashMap<>();
        paper.put("order", "CO 26-007");
        paper.put("title", "Intake in duplex 2205");
        paper.put("reason", "Pits at berth 3.\nDuplex below low water.");
        List<Map<String, Object>> lines = new ArrayList<>();
        for (int i = 0; i < 80; i++) lines.add(line(i));
        paper.put("lines", lines);
        paper.put("effective", "from serial 0152");
        List<Scene> pages = PaperPages.pages(paper, "ab".repeat(32), List.of("Hedda signed, 24 Nov 2026."));
        List<String> texts = texts(pages);
        assertThat(pages).hasSizeGreaterThan(2);
        assertThat(texts)
                .contains(
                        "Change order CO 26-007",
                        "Intake in duplex 2205",
                        "Pits at berth 3.",
                        "Effective: from serial 0152",
                        "TG40-1000 Intake cone: what is revised, from A, to B, interchangeable yes",
                        "Hedda signed, 24 Nov 2026.",
                        "SHA-256 of what was signed: " + "ab".repeat(32));
        for (int i = 0; i < 80; i++) {
            String number = "TG40-" + (1000 + i);
            assertThat(texts).filteredOn(t -> t.startsWith(number)).hasSize(1);
        }
        pages.forEach(p -> p.primitives().stream()
                .filter(x -> x instanceof Primitive.Text)
                .forEach(x -> assertThat(((Primitive.Text) x).y()).isBetween(14.0, 280.0)));
    }
}
