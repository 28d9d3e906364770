package mintshelf.core.change;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import mintshelf.core.drawing.Primitive;
import mintshelf.core.drawing.Scene;
import mintshelf.core.drawing.Style;

/**
 * The announcement of a change: what was changed, from which revision to which, why, what becomes of the old ones, who decided. Laid out
 * as A4 pages (210 by 297 mm) of text and lines, which a writer of PDF takes; tables and documents are written of the same data.
 *
 * @param date in words
 * @param effective from when on it counts, in words; empty with the release
 * @param requests a line for each request that it answers
 * @param cost what the old ones cost, as far as it is known; empty where nothing is
 * @param unknown how many of the statements about old ones lack something
 * @param decided a sentence for each sign-off
 */
public record ChangeNotice(
        String number,
        String order,
        String title,
        String reason,
        String date,
        String effective,
        List<String> requests,
        List<Row> rows,
        List<Old> old,
        String cost,
        int unknown,
        List<String> decided) {
    public ChangeNotice {
        requests = List.copyOf(requests);
        rows = List.copyOf(rows);
        old = List.copyOf(old);
        decided = List.copyOf(decided);
    }

    /**
     * A changed document; {@code from} is a dash for one that is released for the first time, {@code to} for one that is withdrawn.
     *
     * @param what in words: "is revised"
     * @param variant which one of it; empty where it has none
     */
    public record Row(
            String number,
            String title,
            String what,
            String from,
            String to,
            int version,
            String reason,
            String hash,
            String variant) {}

    /** What becomes of the old ones of a document at one place. */
    public record Old(String number, String place, String quantity, String what, String cost, String note) {
        /** As in "in stock: 6 use as is, 792.00 EUR". */
        String words() {
            if (quantity.equals("0")) return place + ": none" + (note.isEmpty() ? "" : " (" + note + ")");
            return place + ": " + (quantity.isEmpty() ? "?" : quantity) + " "
                    + (what.isEmpty() ? "not decided" : what) + (cost.isEmpty() ? "" : ", " + cost)
                    + (note.isEmpty() ? "" : " (" + note + ")");
        }
    }

    private static final Style INK = new Style("TEXT", Style.INK, 0.25, List.of());
    private static final Style HAIR = new Style("TEXT", 0x9aa8a1, 0.18, List.of());
    private static final double LEFT = 22;
    private static final double RIGHT = 190;
    private static final double FOOT = 30;

    /** The pages. O(rows). */
    public List<Scene> pages() {
        Layout layout = new Layout();
        layout.text(LEFT, 6, "Change notice " + number);
        layout.down(9);
        layout.text(LEFT, 3.6, title);
        layout.down(7);
        layout.text(
                LEFT, 2.6, "By order " + order + ", " + date + (effective.isEmpty() ? "" : ", effective " + effective));
        layout.down(8);
        layout.paragraph(reason, 2.8, 92);
        requests.forEach(r -> layout.paragraph("Answers " + r, 2.6, 96));
        layout.down(4);
        heading(layout);
        for (Row row : rows) {
            List<String> why = wrap(row.reason(), 40);
            List<String> named = wrap(row.title(), 34);
            layout.need(5.0 * Math.max(why.size(), named.size()) + 5, () -> heading(layout));
            layout.text(LEFT, 2.6, row.number());
            layout.text(122, 2.6, row.from() + " → " + row.to());
            layout.text(142, 2.6, row.to().equals("–") ? "withdrawn" : "v" + row.version());
            layout.text(165, 1.8, row.hash().substring(0, 16));
            for (int i = 0; i < Math.max(why.size(), named.size()); i++) {
                if (i < named.size()) layout.text(58, 2.6, named.get(i));
                layout.down(5);
                if (i < why.size()) layout.text(58, 2.2, why.get(i));
            }
            layout.down(3);
            layout.rule(HAIR);
            layout.down(5);
        }
        layout.down(5);
        old(layout);
        decided.forEach(line -> layout.paragraph(line, 2.6, 96));
        return layout.pages(number);
    }

    private void old(Layout layout) {
        if (old.isEmpty()) return;
        layout.need(16, () -> {});
        layout.text(LEFT, 3, "What becomes of the old ones");
        layout.down(6);
        String before = "";
        for (Old one : old) {
            List<String> words = wrap(one.words(), 74);
            layout.need(5.0 * words.size(), () -> {});
            if (!one.number().equals(before)) layout.text(LEFT, 2.4, one.number());
            before = one.number();
            for (String line : words) {
                layout.text(58, 2.4, line);
                layout.down(5);
            }
        }
        if (!cost.isEmpty() || unknown > 0) {
            layout.paragraph(
                    (cost.isEmpty() ? "" : "Known cost " + cost + ". ")
                            + (unknown == 0
                                    ? ""
                                    : unknown == 1
                                            ? "Of one place something is unknown."
                                            : "Of " + unknown + " places something is unknown."),
                    2.6,
                    96);
        }
        layout.down(5);
    }

    private static void heading(Layout layout) {
        layout.text(LEFT, 2, "Number");
        layout.text(58, 2, "Title, and why");
        layout.text(122, 2, "Revision");
        layout.text(142, 2, "Version");
        layout.text(165, 2, "SHA-256 begins");
        layout.down(2);
        layout.rule(INK);
        layout.down(6);
    }

    /** Lines of at most {@code most} characters, broken at blanks; a longer word stands alone and is cut. */
    static List<String> wrap(String text, int most) {
        List<String> lines = new ArrayList<>();
        for (String paragraph : text.split("\n", -1)) {
            StringBuilder line = new StringBuilder();
            for (String word : paragraph.split(" +")) {
                String left = word;
                while (left.length() > most) {
                    if (line.length() > 0) lines.add(line.toString());
                    line.setLength(0);
                    lines.add(left.substring(0, most));
                    left = left.substring(most);
                }
                if (line.length() + left.length() + 1 > most && line.length() > 0) {
                    lines.add(line.toString());
                    line.setLength(0);
                }
                if (line.length() > 0) line.append(' ');
                line.append(left);
            }
            lines.add(line.toString());
        }
        return lines;
    }

    /** Puts texts and rules on pages, from the top down. */
    private static final class Layout {
        private final List<List<Primitive>> pages = new ArrayList<>();
        private double y;

        Layout() {
            page();
        }

        private void page() {
            List<Primitive> page = new ArrayList<>();
            // Nothing to see: it gives the page the size of its paper.
            page.add(new Primitive.Polyline(
                    new Style("EDGE", 0xffffff, 0.05, List.of()), new double[] {0, 0, 210, 0, 210, 297, 0, 297}, true));
            pages.add(page);
            y = 270;
        }

        void down(double by) {
            y -= by;
        }

        /** A new page where less room is left; {@code onNew} writes its head. */
        void need(double height, Runnable onNew) {
            if (y - height >= FOOT) return;
            page();
            onNew.run();
        }

        /** Several lines, each of at most so many letters. */
        void paragraph(String text, double height, int letters) {
            for (String part : wrap(text, letters)) {
                need(6, () -> {});
                text(LEFT, height, part);
                down(5);
            }
        }

        void text(double x, double height, String text) {
            pages.get(pages.size() - 1).add(new Primitive.Text(INK, x, y, height, 0, 1, 0, 0, false, text));
        }

        void rule(Style style) {
            pages.get(pages.size() - 1).add(new Primitive.Polyline(style, new double[] {LEFT, y, RIGHT, y}, false));
        }

        List<Scene> pages(String number) {
            List<Scene> scenes = new ArrayList<>();
            for (int i = 0; i < pages.size(); i++) {
                pages.get(i)
                        .add(new Primitive.Text(
                                INK,
                                LEFT,
                                16,
                                2,
                                0,
                                1,
                                0,
                                0,
                                false,
                                number + " · page " + (i + 1) + " of " + pages.size()));
                scenes.add(new Scene(pages.get(i), Map.of(), Map.of()));
            }
            return scenes;
        }
    }
}
