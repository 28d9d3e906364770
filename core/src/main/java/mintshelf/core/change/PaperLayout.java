package mintshelf.core.change;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import mintshelf.core.drawing.Primitive;
import mintshelf.core.drawing.Scene;
import mintshelf.core.drawing.Style;

/** Puts texts and rules on A4 pages (210 by 297 mm), from the top down. */
final class PaperLayout {
    static final Style INK = new Style("TEXT", Style.INK, 0.25, List.of());
    static final Style HAIR = new Style("TEXT", 0x9aa8a1, 0.18, List.of());
    static final double LEFT = 22;
    private static final double RIGHT = 190;
    private static final double FOOT = 30;

    private final List<List<Primitive>> pages = new ArrayList<>();
    private double y;

    PaperLayout() {
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

    /** A picture that stands on the line, so many millimetres from the left. */
    void picture(double x, List<Primitive> drawn) {
        pages.get(pages.size() - 1).addAll(DifferencePicture.at(drawn, x, y));
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
}
