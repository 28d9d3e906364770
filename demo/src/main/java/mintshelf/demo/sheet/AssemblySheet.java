package mintshelf.demo.sheet;

import static mintshelf.demo.sheet.DxfWriter.Layer.CENTRE;
import static mintshelf.demo.sheet.DxfWriter.Layer.DIM;
import static mintshelf.demo.sheet.DxfWriter.Layer.FRAME;
import static mintshelf.demo.sheet.DxfWriter.Layer.GRID;
import static mintshelf.demo.sheet.DxfWriter.Layer.OUTLINE;
import static mintshelf.demo.sheet.DxfWriter.Layer.TEXT;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import mintshelf.demo.sheet.Sheets.Component;
import mintshelf.demo.sheet.Sheets.Shape.Assembly;

/** An assembly: its view, balloons (ISO 6433) and the parts list (ISO 7573) in the upper right corner, read downwards. */
final class AssemblySheet {
    private static final double[] COLUMNS = {0, 14, 28, 70, 138, 180};
    private static final String[] TAGS = {"FIND", "QTY", "NUMBER", "TITLE", "MATERIAL"};
    private static final String[] HEADS = {"Find", "Qty", "Number", "Title", "Material"};
    private static final double ROW = 7;

    private AssemblySheet() {}

    static void draw(DxfWriter out, Assembly assembly, double s) {
        List<Component> components = assembly.components();
        double width = components.stream()
                .mapToDouble(c -> c.box()[0] + c.box()[2])
                .max()
                .orElse(0);
        double height = components.stream()
                .mapToDouble(c -> c.box()[1] + c.box()[3])
                .max()
                .orElse(0);
        // In the middle of what the notes and the blocks at the right leave free.
        double left = Math.max(60, 30 + (assembly.size().width - 230 - width * s) / 2);
        double foot = Math.max(95, 90 + (assembly.size().height - 110 - height * s) / 2);
        double right = left;
        double top = foot;
        for (Component c : components) {
            double[] b = c.box();
            double x = left + b[0] * s;
            double y = foot + b[1] * s;
            outline(out, x, y, b[2] * s, b[3] * s);
            right = Math.max(right, x + b[2] * s);
            top = Math.max(top, y + b[3] * s);
        }
        out.line(CENTRE, (left + right) / 2, foot - 6, (left + right) / 2, top + 6);
        out.across(left, foot, right, foot, foot - 14, 1 / s, "");
        out.upright(left, foot, left, top, left - 18, 1 / s, "");
        balloons(out, components, s, left, foot, right + 34);
        // Other sheets, small, in a row above the notes.
        for (int i = 0; i < assembly.detailed().size(); i++) {
            out.external(assembly.detailed().get(i), 32 + i * 48.0, 92, 0.1);
        }
        partsList(out, components, assembly.size().width - 190, assembly.size().height - 10);
    }

    private static void outline(DxfWriter out, double x, double y, double w, double h) {
        out.box(OUTLINE, x, y, x + w, y + h);
        // What is longer than wide is turned: its axis shows.
        if (h > w * 1.8) out.line(CENTRE, x + w / 2, y - 3, x + w / 2, y + h + 3);
        if (w > h * 1.8) out.line(CENTRE, x - 3, y + h / 2, x + w + 3, y + h / 2);
    }

    /** In one column beside the view, in the order of what they point at, so that no two lines cross. */
    private static void balloons(
            DxfWriter out, List<Component> components, double s, double left, double foot, double column) {
        record Pointed(int find, double x, double y) {}
        List<Pointed> all = new ArrayList<>();
        for (int i = 0; i < components.size(); i++) {
            double[] b = components.get(i).box();
            all.add(new Pointed(i + 1, left + (b[0] + b[2] * 0.9) * s, foot + (b[1] + b[3] / 2) * s));
        }
        all.sort(Comparator.comparingDouble(Pointed::y).thenComparing(p -> -p.x()));
        double y = Math.max(foot, all.get(0).y());
        for (Pointed p : all) {
            y = Math.max(y, p.y());
            double length = Math.hypot(column - p.x(), y - p.y());
            out.line(DIM, p.x(), p.y(), column - 5 * (column - p.x()) / length, y - 5 * (y - p.y()) / length);
            out.circle(DIM, column, y, 5);
            out.text(TEXT, column, y - 1.75, 3.5, 0, Integer.toString(p.find()), 1);
            y += 13;
        }
    }

    private static void partsList(DxfWriter out, List<Component> components, double left, double top) {
        for (int i = 0; i < HEADS.length; i++) {
            out.text(TEXT, left + COLUMNS[i] + 1.5, top - 5, 2.5, HEADS[i]);
        }
        out.line(FRAME, left, top, left, top - ROW * (components.size() + 1));
        out.line(FRAME, left, top - ROW, left + 180, top - ROW);
        for (int i = 1; i < HEADS.length; i++) {
            out.line(GRID, left + COLUMNS[i], top, left + COLUMNS[i], top - ROW * (components.size() + 1));
        }
        out.attributed("PARTS_ROW", () -> out.line(GRID, 0, -ROW, 180, -ROW), cells(0, new Component("", "", 0, "")));
        for (int i = 0; i < components.size(); i++) {
            out.insert("PARTS_ROW", left, top - ROW * (i + 1), cells(i + 1, components.get(i)));
        }
    }

    private static List<DxfWriter.Field> cells(int find, Component c) {
        String[] values = {Integer.toString(find), Integer.toString(c.quantity()), c.number(), c.title(), c.material()};
        List<DxfWriter.Field> cells = new ArrayList<>();
        for (int i = 0; i < TAGS.length; i++) {
            double room = (i + 1 < COLUMNS.length ? COLUMNS[i + 1] : 180) - COLUMNS[i] - 2;
            cells.add(new DxfWriter.Field(TAGS[i], COLUMNS[i] + 1.5, -5, 2.5, room, find == 0 ? "" : values[i]));
        }
        return cells;
    }
}
