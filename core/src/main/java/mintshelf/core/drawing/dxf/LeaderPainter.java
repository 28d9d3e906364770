package mintshelf.core.drawing.dxf;

import java.util.ArrayList;
import java.util.List;
import mintshelf.core.drawing.Source;
import mintshelf.core.drawing.Style;

/** Leaders, leaders with text, geometrical tolerances (ISO 1101) and parallel lines. */
final class LeaderPainter {
    /** The letters of the symbol font that tolerance frames are written in, with the signs of ISO 1101 that they stand for. */
    private static final String SIGNS = "∠⟂⏥⌓○∥⌭↗⌯⌖⌒ⓁⓂ⌀Ⓟ◎ⓈⒻ⌰⏤";

    private static final String LETTERS = "abcdefghijklmnprs" + "Ftu";

    private final DxfDrawing drawing;
    private final Canvas canvas;
    private final TextPainter texts;

    LeaderPainter(DxfDrawing drawing, Canvas canvas, TextPainter texts) {
        this.drawing = drawing;
        this.canvas = canvas;
        this.texts = texts;
    }

    private DxfDrawing.DimensionStyle styleOf(Entity e) {
        return drawing.dimensionStyles.getOrDefault(
                DxfDrawing.key(e.name(3, "STANDARD")), DxfDrawing.DimensionStyle.USUAL);
    }

    void leader(Entity e, Outer outer) {
        double[] xs = e.all(10);
        double[] ys = e.all(20);
        int n = Math.min(xs.length, ys.length);
        if (n < 2) return;
        Source source = canvas.source(e, outer);
        Style style = canvas.style(e, outer);
        if (e.whole(72, 0) == 1) {
            canvas.line(source, style, outer, false, Curves.through(xs, ys, false));
        } else {
            double[] points = new double[2 * n];
            for (int i = 0; i < n; i++) {
                points[2 * i] = xs[i];
                points[2 * i + 1] = ys[i];
            }
            canvas.line(source, style, outer, false, points);
        }
        DxfDrawing.DimensionStyle sizes = styleOf(e);
        if (e.whole(71, 1) != 0) {
            double scale = sizes.scale() > 0 ? sizes.scale() : 1;
            arrow(source, style, outer, xs[0], ys[0], xs[1], ys[1], sizes.arrow() * scale);
        }
    }

    private void arrow(Source source, Style style, Outer outer, double x, double y, double tx, double ty, double size) {
        double length = Math.hypot(tx - x, ty - y);
        if (length < 1e-12 || size <= 0) return;
        double ux = (tx - x) / length * size;
        double uy = (ty - y) / length * size;
        canvas.fill(source, style, outer, new double[] {
            x, y, x + ux - uy / 6, y + uy + ux / 6, x + ux + uy / 6, y + uy - ux / 6
        });
    }

    /** The lines and the text stand in the entity's context data, which is nested by brackets of its own. */
    void multi(Entity e, Outer outer) {
        Source source = canvas.source(e, outer);
        Style style = canvas.style(e, outer);
        List<String> open = new ArrayList<>();
        Curves.Points line = new Curves.Points();
        List<double[]> lines = new ArrayList<>();
        double lastX = Double.NaN;
        double lastY = Double.NaN;
        double x = 0;
        double textX = 0;
        double textY = 0;
        double height = 2.5;
        double arrow = 2.5;
        double turn = 0;
        String text = "";
        for (int i = 0; i < e.size(); i++) {
            int code = e.code(i);
            String in = open.isEmpty() ? "" : open.get(open.size() - 1);
            if ((code == 300 && e.is(i, "CONTEXT_DATA{")) || (code == 302 && e.is(i, "LEADER{"))) {
                open.add(code == 300 ? "context" : "leader");
            } else if (code == 304 && e.is(i, "LEADER_LINE{")) {
                open.add("line");
                line = new Curves.Points();
            } else if (code == 301 || code == 303 || code == 305) {
                if (in.equals("line") && line.count() > 0) {
                    if (!Double.isNaN(lastX)) line.add(lastX, lastY);
                    lines.add(line.toArray());
                }
                if (!open.isEmpty()) open.remove(open.size() - 1);
            } else if (in.equals("context") && code == 304) {
                text = e.text(i);
            } else if (in.equals("context") && code == 12) {
                textX = e.real(i);
            } else if (in.equals("context") && code == 22) {
                textY = e.real(i);
            } else if (in.equals("context") && code == 41) {
                height = e.real(i);
            } else if (in.equals("context") && code == 42) {
                turn = Math.toDegrees(e.real(i));
            } else if (in.equals("context") && code == 140) {
                arrow = e.real(i);
            } else if (in.equals("leader") && code == 10) {
                lastX = e.real(i);
            } else if (in.equals("leader") && code == 20) {
                lastY = e.real(i);
            } else if (in.equals("line") && code == 10) {
                x = e.real(i);
            } else if (in.equals("line") && code == 20) {
                line.add(x, e.real(i));
            }
        }
        for (double[] points : lines) {
            if (points.length < 4) continue;
            canvas.line(source, style, outer, false, points);
            arrow(source, style, outer, points[0], points[1], points[2], points[3], arrow);
        }
        if (!text.isBlank()) {
            texts.paragraphs(source, style, outer, text, textX, textY, height, turn, 1, 0, 1);
        }
        if (lines.isEmpty() && text.isBlank()) canvas.lacks(e.type());
    }

    /** A frame with a cell for each part between the marks %%v. */
    void tolerance(Entity e, Outer outer) {
        DxfDrawing.DimensionStyle sizes = styleOf(e);
        double h = sizes.text() * (sizes.scale() > 0 ? sizes.scale() : 1);
        Source source = canvas.source(e, outer);
        Style style = canvas.style(e, outer);
        double angle = Math.toDegrees(Math.atan2(e.real(21, 0), e.real(11, 1)));
        Outer own = outer.at(Placement.move(e.real(10, 0), e.real(20, 0)).of(Placement.turn(angle)));
        double y = 0;
        for (String row : e.text(1, "").split("\\^J|\\\\n", 16)) {
            double x = 0;
            String[] cells = row.split("%%[vV]", 16);
            int last = cells.length;
            while (last > 0 && cells[last - 1].isBlank()) last--;
            for (int i = 0; i < last; i++) {
                String text = signs(cells[i]);
                double w = Math.max(2 * h, (text.length() * 0.9 + 0.8) * h);
                canvas.line(source, style, own, true, x, y - h, x + w, y - h, x + w, y + h, x, y + h);
                canvas.text(source, style, own, x + w / 2, y, h, 0, 1, 1, 2, text);
                x += w;
            }
            y -= 2 * h;
        }
    }

    /** {\Fgdt;j} becomes the sign of position, and so on; other texts stay. */
    static String signs(String cell) {
        StringBuilder out = new StringBuilder();
        int at = 0;
        while (at < cell.length()) {
            int from = cell.indexOf("{\\F", at);
            int semicolon = from < 0 ? -1 : cell.indexOf(';', from);
            int end = semicolon < 0 ? -1 : cell.indexOf('}', semicolon);
            if (end < 0) break;
            out.append(TextCodes.line(cell.substring(at, from)));
            String letters = cell.substring(semicolon + 1, end);
            for (char c : letters.toCharArray()) {
                int index = LETTERS.indexOf(c);
                out.append(index < 0 ? c : SIGNS.charAt(index));
            }
            at = end + 1;
        }
        return out.append(TextCodes.line(cell.substring(at))).toString();
    }

    /** Each element runs at its own offsets along the miters of the vertices. */
    void parallel(Entity e, Outer outer) {
        int vertices = 0;
        for (int i = 0; i < e.size(); i++) if (e.code(i) == 11) vertices++;
        int elements = Math.max(0, Math.min(16, e.whole(73, 0)));
        double[][] offsets = new double[vertices][elements];
        double[] xs = e.all(11);
        double[] ys = e.all(21);
        double[] mx = e.all(13);
        double[] my = e.all(23);
        int vertex = -1;
        int element = -1;
        boolean first = false;
        for (int i = 0; i < e.size(); i++) {
            if (e.code(i) == 11) {
                vertex++;
                element = -1;
            } else if (e.code(i) == 74) {
                element++;
                first = true;
            } else if (e.code(i) == 41 && first && vertex >= 0 && element >= 0 && element < elements) {
                offsets[vertex][element] = e.real(i);
                first = false;
            }
        }
        int n = Math.min(vertices, Math.min(ys.length, Math.min(mx.length, my.length)));
        if (n < 2 || elements == 0) {
            canvas.lacks("MLINE");
            return;
        }
        for (int k = 0; k < elements; k++) {
            double[] points = new double[2 * n];
            for (int i = 0; i < n; i++) {
                points[2 * i] = xs[i] + mx[i] * offsets[i][k];
                points[2 * i + 1] = ys[i] + my[i] * offsets[i][k];
            }
            canvas.line(canvas.source(e, outer), canvas.style(e, outer), outer, (e.whole(71, 0) & 2) != 0, points);
        }
    }
}
