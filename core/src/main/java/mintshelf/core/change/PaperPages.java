package mintshelf.core.change;

import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.stream.Collectors;
import mintshelf.core.drawing.Scene;

/** A request or an order as it was decided, to be read: what its canonical version says, laid out as A4 pages, with who decided. */
public final class PaperPages {
    private PaperPages() {}

    /**
     * The pages. O(values).
     *
     * @param paper what the version says, in its order: texts, and lists of rows
     * @param hash SHA-256 of the version, in hexadecimal digits
     * @param decided a sentence for each sign-off
     */
    public static List<Scene> pages(Map<String, Object> paper, String hash, List<String> decided) {
        PaperLayout layout = new PaperLayout();
        boolean order = paper.containsKey("order");
        String number = text(paper.getOrDefault(order ? "order" : "request", ""));
        layout.text(PaperLayout.LEFT, 6, (order ? "Change order " : "Change request ") + number);
        layout.down(9);
        layout.text(PaperLayout.LEFT, 3.6, text(paper.getOrDefault("title", "")));
        layout.down(8);
        layout.paragraph(text(paper.getOrDefault("reason", "")), 2.8, 92);
        layout.down(3);
        paper.forEach((key, value) -> {
            if (List.of("order", "request", "title", "reason").contains(key)) return;
            if (value instanceof List<?> rows) rows(layout, key, rows);
            else if (!text(value).isEmpty()) layout.paragraph(named(key) + ": " + text(value), 2.6, 96);
        });
        layout.need(20, () -> {});
        layout.down(4);
        layout.text(PaperLayout.LEFT, 3, "Decided");
        layout.down(6);
        decided.forEach(line -> layout.paragraph(line, 2.6, 96));
        layout.paragraph("SHA-256 of what was signed: " + hash, 2, 110);
        return layout.pages(number);
    }

    private static void rows(PaperLayout layout, String key, List<?> rows) {
        layout.need(16, () -> {});
        layout.down(3);
        layout.text(PaperLayout.LEFT, 3, named(key));
        layout.down(6);
        for (Object row : rows) {
            layout.paragraph(row instanceof Map<?, ?> fields ? fields(fields) : text(row), 2.6, 96);
            layout.rule(PaperLayout.HAIR);
            layout.down(4);
        }
    }

    /** As in "TG40-1020 Intake cone, is revised, from A to B: duplex". */
    private static String fields(Map<?, ?> fields) {
        String document = of(fields, "document");
        String title = fields.containsKey("title") ? " " + of(fields, "title") : "";
        String rest = fields.entrySet().stream()
                .filter(e -> !e.getKey().equals("document") && !e.getKey().equals("title"))
                .filter(e -> !text(e.getValue()).isEmpty())
                .map(e -> named(text(e.getKey())).toLowerCase(Locale.ROOT) + " " + text(e.getValue()))
                .collect(Collectors.joining(", "));
        return document + title + (rest.isEmpty() ? "" : ": " + rest);
    }

    private static String named(String key) {
        return switch (key) {
            case "old" -> "What becomes of the old ones";
            case "lines" -> "Lines";
            case "facts" -> "Facts that change";
            case "shown" -> "Shown by";
            case "reach" -> "What was said against the rule of how far it reaches";
            case "sha256" -> "SHA-256";
            default -> key.substring(0, 1).toUpperCase(Locale.ROOT) + key.substring(1);
        };
    }

    private static String of(Map<?, ?> fields, String key) {
        Object value = fields.get(key);
        return value == null ? "" : text(value);
    }

    private static String text(Object value) {
        if (value instanceof Boolean is) return is ? "yes" : "no";
        if (value instanceof Map<?, ?> fields) return "(" + fields(fields) + ")";
        return value.toString();
    }
}
