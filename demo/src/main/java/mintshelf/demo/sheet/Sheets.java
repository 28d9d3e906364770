package mintshelf.demo.sheet;

import static mintshelf.demo.sheet.DxfWriter.Layer.CENTRE;
import static mintshelf.demo.sheet.DxfWriter.Layer.FRAME;
import static mintshelf.demo.sheet.DxfWriter.Layer.GRID;
import static mintshelf.demo.sheet.DxfWriter.Layer.HIDDEN;
import static mintshelf.demo.sheet.DxfWriter.Layer.OUTLINE;
import static mintshelf.demo.sheet.DxfWriter.Layer.TEXT;

import java.util.ArrayList;
import java.util.List;

/** The sheets of the demo: a frame with zones (ISO 5457), a title block (ISO 7200), and the views of a part. */
public final class Sheets {
    /** Trimmed sizes (ISO 5457) with their fields across and down. */
    public enum Size {
        A3(420, 297, 8, 6),
        A2(594, 420, 12, 8),
        A1(841, 594, 16, 12);

        final double width;
        final double height;
        final int columns;
        final int rows;

        Size(double width, double height, int columns, int rows) {
            this.width = width;
            this.height = height;
            this.columns = columns;
            this.rows = rows;
        }
    }

    private Sheets() {}

    /** What the title block says. */
    public record Title(
            String number,
            String title,
            String revision,
            String material,
            String surface,
            String mass,
            String scale,
            String createdBy,
            String created) {}

    /** A row of the revision block (ASME Y14.35): what changed, where, when, by whom. */
    public record Row(String revision, String zone, String text, String date, String by) {}

    /** What a part looks like: sizes in millimetres of the part. */
    public sealed interface Shape {
        /** A flat plate with rounded corners, a centre bore and a hole in each corner. */
        record Plate(
                double width,
                double height,
                double thickness,
                double corner,
                double bore,
                double hole,
                double inset,
                boolean marked)
                implements Shape {
            public Plate(
                    double width,
                    double height,
                    double thickness,
                    double corner,
                    double bore,
                    double hole,
                    double inset) {
                this(width, height, thickness, corner, bore, hole, inset, false);
            }

            /** The same with revision clouds round its holes, but for the one that the leader points to. */
            public Plate withMarks() {
                return new Plate(width, height, thickness, corner, bore, hole, inset, true);
            }
        }

        /** A turned part: steps of diameter and length along the axis. */
        record Turned(double[][] steps) implements Shape {}

        /** A ring or disc: outer and inner diameter, thickness, holes on a pitch circle. */
        record Ring(double outer, double inner, double thickness, int holes, double pitch, double hole)
                implements Shape {}

        /** A tube: outer diameter, wall, length. */
        record Tube(double outer, double wall, double length) implements Shape {}

        /**
         * An assembly: its components where they are, each with a line of the parts list.
         *
         * @param detailed drawings that are placed beside the view as external references: paths as the sheet writes them
         */
        record Assembly(Size size, List<Component> components, List<String> detailed) implements Shape {
            public Assembly(Size size, List<Component> components) {
                this(size, components, List.of());
            }

            public Assembly withDetails(String... paths) {
                return new Assembly(size, components, List.of(paths));
            }
        }

        /** An empty sheet: a template. */
        record Blank(Size size) implements Shape {}

        default Size size() {
            return this instanceof Assembly a ? a.size() : this instanceof Blank b ? b.size() : Size.A3;
        }
    }

    /**
     * A component of an assembly.
     *
     * @param box x, y, width, height in millimetres of the thing
     */
    public record Component(String number, String title, int quantity, String material, double... box) {}

    /** A sheet of a first revision. */
    public static byte[] draw(Title title, Shape shape, double scale, List<String> notes) {
        return draw(title, shape, scale, notes, List.of());
    }

    /** A sheet as a file. {@code scale} draws 1 mm of the part as that many millimetres of the sheet. */
    public static byte[] draw(Title title, Shape shape, double scale, List<String> notes, List<Row> rows) {
        Size size = shape.size();
        DxfWriter out = new DxfWriter();
        frame(out, size);
        titleBlock(out, title, size);
        revisionBlock(out, rows, size);
        if (shape instanceof Shape.Plate plate) plate(out, plate, scale);
        else if (shape instanceof Shape.Turned turned) turned(out, turned, scale);
        else if (shape instanceof Shape.Ring ring) ring(out, ring, scale);
        else if (shape instanceof Shape.Tube tube) tube(out, tube, scale);
        else if (shape instanceof Shape.Assembly assembly) AssemblySheet.draw(out, assembly, scale);
        double y = 62;
        for (String note : notes) {
            out.text(TEXT, 32, y, 3.5, note);
            y -= 6.5;
        }
        return out.bytes(size.width, size.height);
    }

    /** Trimmed size, frame 20 mm from the left and 10 from the other edges, zones of 50 mm, centring marks. */
    private static void frame(DxfWriter out, Size size) {
        double w = size.width;
        double h = size.height;
        out.box(GRID, 0, 0, w, h);
        out.box(FRAME, 20, 10, w - 10, h - 10);
        out.box(GRID, 15, 5, w - 5, h - 5);
        for (int i = 0; i < size.columns; i++) {
            double x = w / 2 + (i - size.columns / 2.0) * 50;
            if (i > 0) {
                out.line(GRID, x, h - 10, x, h - 5);
                out.line(GRID, x, 5, x, 10);
            }
            double at = (Math.max(20, x) + Math.min(w - 10, x + 50)) / 2;
            out.text(TEXT, at, h - 9, 3.5, 0, Integer.toString(i + 1), 1);
            out.text(TEXT, at, 5.8, 3.5, 0, Integer.toString(i + 1), 1);
        }
        for (int i = 0; i < size.rows; i++) {
            double y = h / 2 + (size.rows / 2.0 - i) * 50;
            if (i > 0) {
                out.line(GRID, 15, y, 20, y);
                out.line(GRID, w - 10, y, w - 5, y);
            }
            double at = (Math.min(h - 10, y) + Math.max(10, y - 50)) / 2 - 1.75;
            // Letters I and O are left out: they look like figures.
            String letter = Character.toString("ABCDEFGHJKLMN".charAt(i));
            out.text(TEXT, 17.5, at, 3.5, 0, letter, 1);
            out.text(TEXT, w - 7.5, at, 3.5, 0, letter, 1);
        }
        out.line(GRID, w / 2, 0, w / 2, 15);
        out.line(GRID, w / 2, h - 15, w / 2, h);
        out.line(GRID, 0, h / 2, 25, h / 2);
        out.line(GRID, w - 15, h / 2, w, h / 2);
    }

    private static void titleBlock(DxfWriter out, Title title, Size size) {
        List<DxfWriter.Field> fields = List.of(
                new DxfWriter.Field("MATERIAL", 3, 35, 3.5, 56, title.material()),
                new DxfWriter.Field("SURFACE", 63, 35, 3.5, 56, title.surface()),
                new DxfWriter.Field("MASS", 123, 35, 3.5, 26, title.mass()),
                new DxfWriter.Field("SCALE", 153, 35, 3.5, 26, title.scale()),
                new DxfWriter.Field("CREATED_BY", 3, 24, 3.5, 56, title.createdBy()),
                new DxfWriter.Field("CREATED", 36, 29.6, 2.5, 23, title.created()),
                new DxfWriter.Field("ISSUED", 63, 24, 3.5, 56, ""),
                new DxfWriter.Field("CHECKED_BY", 3, 13, 3.5, 56, ""),
                new DxfWriter.Field("CHECKED", 36, 18.6, 2.5, 23, ""),
                new DxfWriter.Field("APPROVED_BY", 63, 13, 3.5, 56, ""),
                new DxfWriter.Field("APPROVED", 96, 18.6, 2.5, 23, ""),
                new DxfWriter.Field("STATUS", 122, 13, 2.5, 27, ""),
                new DxfWriter.Field("FORMAT", 153, 24, 3.5, 26, size.name()),
                new DxfWriter.Field("TITLE", 63, 1.6, 5, 91, title.title()),
                new DxfWriter.Field("NUMBER", 3, 1.6, 5, 56, title.number()),
                new DxfWriter.Field("REV", 163, 1.6, 5, 16, title.revision()));
        out.titleBlock(size.width - 190, 10, () -> captions(out), fields);
    }

    private static final double[] ROW_COLUMNS = {0, 12, 26, 110, 136, 180};
    private static final String[] ROW_TAGS = {"REV", "ZONE", "DESCRIPTION", "DATE", "BY"};

    /** Rows above the title block, the first revision lowest, headings at the foot; a first revision has an empty row. */
    private static void revisionBlock(DxfWriter out, List<Row> rows, Size size) {
        double left = size.width - 190;
        double foot = 54;
        String[] heads = {"Rev.", "Zone", "Revision", "Date", "By"};
        for (int i = 0; i < heads.length; i++) {
            out.line(i == 0 ? FRAME : GRID, left + ROW_COLUMNS[i], foot, left + ROW_COLUMNS[i], foot + 5);
            out.text(TEXT, left + ROW_COLUMNS[i] + 1, foot + 1.25, 2.5, heads[i]);
        }
        out.line(GRID, left, foot + 5, left + 180, foot + 5);
        out.attributed("REVISION_ROW", () -> rowLines(out), cells(new Row("", "", "", "", "")));
        double y = foot + 5;
        for (Row row : rows.isEmpty() ? List.of(new Row("", "", "", "", "")) : rows) {
            out.insert("REVISION_ROW", left, y, cells(row));
            y += 6;
        }
    }

    private static void rowLines(DxfWriter out) {
        out.line(FRAME, 0, 6, 180, 6);
        for (int i = 0; i < ROW_TAGS.length; i++) {
            out.line(i == 0 ? FRAME : GRID, ROW_COLUMNS[i], 0, ROW_COLUMNS[i], 6);
        }
    }

    private static List<DxfWriter.Field> cells(Row row) {
        String[] values = {row.revision(), row.zone(), row.text(), row.date(), row.by()};
        List<DxfWriter.Field> cells = new ArrayList<>();
        for (int i = 0; i < values.length; i++) {
            double room = ROW_COLUMNS[i + 1] - ROW_COLUMNS[i] - 2;
            cells.add(new DxfWriter.Field(ROW_TAGS[i], ROW_COLUMNS[i] + 1.5, 1.75, 2.5, room, values[i]));
        }
        return cells;
    }

    private static void captions(DxfWriter out) {
        out.box(FRAME, 0, 0, 180, 44);
        for (double y : new double[] {11, 22, 33}) out.line(GRID, 0, y, 180, y);
        out.line(GRID, 60, 0, 60, 44);
        out.line(GRID, 120, 11, 120, 44);
        out.line(GRID, 150, 11, 150, 44);
        out.line(GRID, 155, 0, 155, 11);
        String[][] words = {
            {"1", "40.6", "Material"},
            {"61", "40.6", "Surface treatment"},
            {"121", "40.6", "Mass"},
            {"151", "40.6", "Scale"},
            {"1", "29.6", "Created by"},
            {"61", "29.6", "Date of issue"},
            {"121", "29.6", "Sheet 1/1"},
            {"151", "29.6", "Format"},
            {"1", "18.6", "Checked by"},
            {"61", "18.6", "Approved by"},
            {"121", "18.6", "Status"},
            {"1", "7.8", "Identification number"},
            {"61", "7.8", "Title"},
            {"156", "7.8", "Rev."}
        };
        for (String[] word : words)
            out.text(TEXT, Double.parseDouble(word[0]), Double.parseDouble(word[1]), 2.5, word[2]);
        out.text(TEXT, 152, 17, 2.5, "Ebbcote");
        out.text(TEXT, 152, 12.8, 2.5, "Gauge Works");
    }

    private static void plate(DxfWriter out, Shape.Plate p, double s) {
        double cx = 150;
        double cy = 175;
        double w = p.width() * s / 2;
        double h = p.height() * s / 2;
        out.roundedBox(OUTLINE, cx - w, cy - h, cx + w, cy + h, p.corner() * s);
        if (p.bore() > 0) {
            out.circle(OUTLINE, cx, cy, p.bore() * s / 2);
            out.cross(cx, cy, p.bore() * s / 2 + 5);
        }
        double hx = w - p.inset() * s;
        double hy = h - p.inset() * s;
        for (int i = 0; i < 4; i++) {
            double x = cx + (i % 2 == 0 ? -hx : hx);
            double y = cy + (i < 2 ? -hy : hy);
            out.circle(OUTLINE, x, y, p.hole() * s / 2);
            out.cross(x, y, p.hole() * s / 2 + 3);
            double r = p.hole() * s / 2 + 5;
            if (p.marked() && i < 3) out.cloud(x - r, y - r, x + r, y + r);
        }
        out.across(cx - hx, cy + hy, cx + hx, cy + hy, cy + h + 12, 1 / s, "");
        out.across(cx - w, cy - h, cx + w, cy - h, cy - h - 14, 1 / s, "");
        out.upright(cx - hx, cy - hy, cx - hx, cy + hy, cx - w - 10, 1 / s, "");
        out.upright(cx - w, cy - h, cx - w, cy + h, cx - w - 22, 1 / s, "");
        double nx = cx + hx + p.hole() * s * 0.36;
        double ny = cy + hy + p.hole() * s * 0.36;
        out.line(DxfWriter.Layer.DIM, nx, ny, cx + w + 14, ny + 14);
        out.text(TEXT, cx + w + 15, ny + 13, 3.5, "4x %%c" + trim(p.hole()));
        if (p.bore() > 0) {
            out.line(DxfWriter.Layer.DIM, cx + p.bore() * s * 0.36, cy - p.bore() * s * 0.36, cx + w + 14, cy - h + 6);
            out.text(TEXT, cx + w + 15, cy - h + 5, 3.5, "%%c" + trim(p.bore()) + " H11");
        }
        double sx = 330;
        double t = Math.max(3, p.thickness() * s);
        out.box(OUTLINE, sx, cy - h, sx + t, cy + h);
        if (p.bore() > 0) {
            out.hatch(sx, cy + p.bore() * s / 2, sx + t, cy + h, 3);
            out.hatch(sx, cy - h, sx + t, cy - p.bore() * s / 2, 3);
            out.line(OUTLINE, sx, cy + p.bore() * s / 2, sx + t, cy + p.bore() * s / 2);
            out.line(OUTLINE, sx, cy - p.bore() * s / 2, sx + t, cy - p.bore() * s / 2);
        }
        out.line(CENTRE, sx - 6, cy, sx + t + 6, cy);
        out.across(sx, cy + h, sx + t, cy + h, cy + h + 12, p.thickness() / t, "");
    }

    private static String trim(double n) {
        return n == Math.rint(n) ? Long.toString((long) n) : Double.toString(n);
    }

    private static void turned(DxfWriter out, Shape.Turned p, double s) {
        double length = 0;
        for (double[] step : p.steps()) length += step[1];
        double x = 200 - length * s / 2;
        double cy = 175;
        out.line(CENTRE, x - 8, cy, x + length * s + 8, cy);
        double last = 0;
        double at = x;
        double deepest = 0;
        for (double[] step : p.steps()) {
            double r = step[0] * s / 2;
            double to = at + step[1] * s;
            out.line(OUTLINE, at, cy + r, to, cy + r);
            out.line(OUTLINE, at, cy - r, to, cy - r);
            double wall = Math.max(last, r);
            out.line(OUTLINE, at, cy - wall, at, cy + wall);
            last = r;
            deepest = Math.max(deepest, r);
            at = to;
        }
        out.line(OUTLINE, at, cy - last, at, cy + last);
        at = x;
        double level = cy - deepest - 14;
        for (double[] step : p.steps()) {
            double to = at + step[1] * s;
            out.across(at, cy - step[0] * s / 2, to, cy - step[0] * s / 2, level, 1 / s, "");
            out.text(TEXT, (at + to) / 2 - 5, cy + step[0] * s / 2 + 4, 3.5, "%%c" + trim(step[0]));
            at = to;
        }
        out.across(x, cy - p.steps()[0][0] * s / 2, at, cy - last, level - 12, 1 / s, "");
        // The end view stays off the frame, and far enough from the side view.
        double end = Math.min(360, Size.A3.width - 10 - deepest - 12);
        out.circle(OUTLINE, end, cy, deepest);
        out.circle(OUTLINE, end, cy, last);
        out.cross(end, cy, deepest + 5);
    }

    private static void ring(DxfWriter out, Shape.Ring p, double s) {
        double cx = 140;
        double cy = 180;
        out.circle(OUTLINE, cx, cy, p.outer() * s / 2);
        out.circle(OUTLINE, cx, cy, p.inner() * s / 2);
        out.cross(cx, cy, p.outer() * s / 2 + 6);
        if (p.holes() > 0) {
            out.circle(CENTRE, cx, cy, p.pitch() * s / 2);
            for (int i = 0; i < p.holes(); i++) {
                double a = 2 * Math.PI * (i + 0.5) / p.holes();
                out.circle(
                        OUTLINE,
                        cx + Math.cos(a) * p.pitch() * s / 2,
                        cy + Math.sin(a) * p.pitch() * s / 2,
                        p.hole() * s / 2);
            }
            out.text(
                    TEXT,
                    cx + p.outer() * s / 2 * 0.8 + 4,
                    cy + p.outer() * s / 2 * 0.8 + 4,
                    3.5,
                    p.holes() + "x %%c" + trim(p.hole()) + " on %%c" + trim(p.pitch()));
        }
        double x = 310;
        double t = Math.max(4, p.thickness() * s);
        double ro = p.outer() * s / 2;
        double ri = p.inner() * s / 2;
        for (int side = -1; side <= 1; side += 2) {
            double a = cy + side * ri;
            double b = cy + side * ro;
            out.box(OUTLINE, x, Math.min(a, b), x + t, Math.max(a, b));
            out.hatch(x, Math.min(a, b), x + t, Math.max(a, b), 3);
        }
        out.line(OUTLINE, x, cy - ri, x, cy + ri);
        out.line(OUTLINE, x + t, cy - ri, x + t, cy + ri);
        out.line(CENTRE, x - 6, cy, x + t + 6, cy);
        out.upright(x, cy - ro, x, cy + ro, x - 22, 1 / s, "%%c" + trim(p.outer()));
        out.upright(x, cy - ri, x, cy + ri, x - 10, 1 / s, "%%c" + trim(p.inner()));
        out.across(x, cy + ro, x + t, cy + ro, cy + ro + 12, p.thickness() / t, "");
    }

    private static void tube(DxfWriter out, Shape.Tube p, double s) {
        double cy = 185;
        double x1 = 60;
        double x2 = x1 + Math.min(240, p.length() * s);
        double ro = p.outer() * s / 2;
        double ri = ro - Math.max(1, p.wall() * s);
        out.box(OUTLINE, x1, cy - ro, x2, cy + ro);
        out.line(HIDDEN, x1, cy + ri, x2, cy + ri);
        out.line(HIDDEN, x1, cy - ri, x2, cy - ri);
        out.line(CENTRE, x1 - 8, cy, x2 + 8, cy);
        out.across(x1, cy - ro, x2, cy - ro, cy - ro - 16, p.length() / (x2 - x1), "");
        double cx = 355;
        out.circle(OUTLINE, cx, cy, ro);
        out.circle(OUTLINE, cx, cy, ri);
        out.cross(cx, cy, ro + 6);
        out.upright(cx, cy - ro, cx, cy + ro, cx - ro - 12, 1 / s, "%%c" + trim(p.outer()));
        out.text(TEXT, cx - 14, cy - ro - 12, 3.5, "wall " + trim(p.wall()));
    }
}
