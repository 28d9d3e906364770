package mintshelf.core.change;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import mintshelf.core.drawing.Primitive;
import mintshelf.core.drawing.Scene;
import mintshelf.core.drawing.Style;

/**
 * The announcement of a change: what was changed, from which revision to which, why, who decided. Laid out as A4 pages (210 by
 * 297 mm) of text and lines, which a writer of PDF takes.
 *
 * @param date in words
 * @param decided a sentence for each sign-off
 */
public record ChangeNotice(
        String number, String order, String title, String reason, String date, List<Row> rows, List<String> decided) {
    public ChangeNotice {
        rows = List.copyOf(rows);
        decided = List.copyOf(decided);
    }

    /** A changed document; {@code from} is a dash for one that is released for the first time. */
    public record Row(String number, String title, String from, String to, int version, String reason, String hash) {}

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
        layout.text(LEFT, 2.6, "By order " + order + ", " + date);
        layout.down(8);
        for (String line : wrap(reason, 92)) {
            layout.text(LEFT, 2.8, line);
            layout.down(5);
        }
        layout.down(4);
        heading(layout);
        for (Row row : rows) {
            List<String> why = wrap(row.reason(), 40);
            List<String> named = wrap(row.title(), 34);
            layout.need(5.0 * Math.max(why.size(), named.size()) + 5, () -> heading(layout));
            layout.text(LEFT, 2.6, row.number());
            layout.text(122, 2.6, row.from() + " → " + row.to());
            layout.text(142, 2.6, "v" + row.version());
            layout.text(155, 1.8, row.hash().substring(0, 16));
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
        for (String line : decided) {
            for (String part : wrap(line, 96)) {
                layout.need(6, () -> {});
                layout.text(LEFT, 2.6, part);
                layout.down(5);
            }
        }
        return layout.pages(number);
    }

    private static void heading(Layout layout) {
        layout.text(LEFT, 2, "Number");
        layout.text(58, 2, "Title, and why");
        layout.text(122, 2, "Revision");
        layout.text(142, 2, "Version");
        layout.text(155, 2, "SHA-256 begins");
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
