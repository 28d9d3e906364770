package mintshelf.core.drawing;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;

/**
 * A table on pages of A4 across (297 by 210 mm): what it is, its columns, its rows, as many pages as they need. Texts that are wider
 * than their column go on below, words broken at blanks and after slashes, longer ones where the column ends; nothing is left out.
 * Linear in the number of letters.
 */
public final class TablePages {
    private static final double WIDE = 297;
    private static final double HIGH = 210;
    private static final double LEFT = 18;
    private static final double TOP = HIGH - 18;
    private static final double FOOT = 18;
    /** Height of capitals, and from one line to the next, in mm. */
    private static final double LETTERS = 1.9;

    private static final double LINE = 4;
    private static final Style INK = new Style("TEXT", Style.INK, 0.25, List.of());
    private static final Style HAIR = new Style("TEXT", 0x9aa8a1, 0.18, List.of());

    private final List<Column> columns;
    private final List<List<Primitive>> pages = new ArrayList<>();
    private double y;

    private TablePages(List<Column> columns) {
        this.columns = columns;
    }

    /** @param letters how many of them a line of it takes */
    public record Column(String name, int letters) {}

    /**
     * @param title in larger letters on the first page, and with the number of each page in its foot
     * @param says lines below the title
     * @param rows a text for each column
     */
    public static List<Scene> of(String title, List<String> says, List<Column> columns, List<List<String>> rows) {
        TablePages table = new TablePages(columns);
        table.page();
        table.text(LEFT, 3.2, title);
        table.y -= 6;
        int whole = columns.stream().mapToInt(Column::letters).sum();
        for (String one : says)
            for (String line : wrap(one, whole)) {
                table.need(LINE);
                table.text(LEFT, LETTERS, line);
                table.y -= LINE;
            }
        table.y -= LINE / 2;
        table.head();
        rows.forEach(table::row);
        return table.scenes(title);
    }

    private void page() {
        List<Primitive> page = new ArrayList<>();
        // Nothing to see: it gives the page the size of its paper.
        page.add(new Primitive.Polyline(
                new Style("EDGE", 0xffffff, 0.05, List.of()), new double[] {0, 0, WIDE, 0, WIDE, HIGH, 0, HIGH}, true));
        pages.add(page);
        y = TOP;
    }

    private boolean need(double height) {
        if (y - height >= FOOT) return false;
        page();
        return true;
    }

    private void head() {
        double x = LEFT;
        for (Column column : columns) {
            text(x, LETTERS, column.name());
            x += wide(column);
        }
        y -= LINE / 2;
        rule(INK);
        y -= LINE;
    }

    private void row(List<String> cells) {
        List<List<String>> wrapped = new ArrayList<>();
        int lines = 1;
        for (int i = 0; i < columns.size(); i++) {
            List<String> parts = wrap(cells.get(i), columns.get(i).letters());
            wrapped.add(parts);
            lines = Math.max(lines, parts.size());
        }
        for (int line = 0; line < lines; line++) {
            if (need(LINE)) head();
            double x = LEFT;
            for (int i = 0; i < columns.size(); i++) {
                if (line < wrapped.get(i).size())
                    text(x, LETTERS, wrapped.get(i).get(line));
                x += wide(columns.get(i));
            }
            y -= LINE;
        }
        y += LINE / 2;
        rule(HAIR);
        y -= LINE;
    }

    /** The columns share the width of the page by their letters. */
    private double wide(Column column) {
        int whole = columns.stream().mapToInt(Column::letters).sum();
        return (WIDE - 2 * LEFT) * column.letters() / whole;
    }

    private void text(double x, double height, String text) {
        if (!text.isEmpty())
            pages.get(pages.size() - 1).add(new Primitive.Text(INK, x, y, height, 0, 1, 0, 0, false, text));
    }

    private void rule(Style style) {
        pages.get(pages.size() - 1).add(new Primitive.Polyline(style, new double[] {LEFT, y, WIDE - LEFT, y}, false));
    }

    private List<Scene> scenes(String title) {
        List<Scene> scenes = new ArrayList<>();
        for (int i = 0; i < pages.size(); i++) {
            y = 10;
            String foot = title + " · page " + (i + 1) + " of " + pages.size();
            pages.get(i).add(new Primitive.Text(INK, LEFT, y, LETTERS, 0, 1, 0, 0, false, foot));
            scenes.add(new Scene(pages.get(i), Map.of(), Map.of()));
        }
        return scenes;
    }

    /** Lines of at most {@code most} letters, less one between columns; broken behind blanks and slashes where there are any. */
    static List<String> wrap(String text, int most) {
        int room = Math.max(1, most - 1);
        List<String> lines = new ArrayList<>();
        for (String paragraph : text.split("\n", -1)) {
            String left = paragraph.strip();
            while (left.length() > room) {
                int at = Math.max(left.lastIndexOf(' ', room - 1), left.lastIndexOf('/', room - 1)) + 1;
                if (at <= room / 3) at = room;
                lines.add(left.substring(0, at).strip());
                left = left.substring(at).strip();
            }
            lines.add(left);
        }
        return lines;
    }
}
