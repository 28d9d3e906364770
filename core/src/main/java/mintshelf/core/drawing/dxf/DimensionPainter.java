package mintshelf.core.drawing.dxf;

import java.util.Locale;
import mintshelf.core.drawing.Source;
import mintshelf.core.drawing.Style;

/** Dimensions whose block is missing, built from their points: extension lines, dimension line, arrows, text. */
final class DimensionPainter {
    private final DxfDrawing drawing;
    private final Canvas canvas;
    private final TextPainter texts;

    DimensionPainter(DxfDrawing drawing, Canvas canvas, TextPainter texts) {
        this.drawing = drawing;
        this.canvas = canvas;
        this.texts = texts;
    }

    /** Sizes on the sheet, with the overall scale taken in. */
    private record Sizes(double arrow, double offset, double beyond, double text, double gap) {}

    private final class Pen {
        final Source source;
        final Style style;
        final Outer outer;
        final Sizes sizes;

        Pen(Entity e, Outer outer, Sizes sizes) {
            this.source = canvas.source(e, outer);
            this.style = canvas.style(e, outer);
            this.outer = outer;
            this.sizes = sizes;
        }

        void line(double x1, double y1, double x2, double y2) {
            canvas.line(source, style, outer, false, x1, y1, x2, y2);
        }

        /** A filled arrow, its tip at the point, looking along (dx, dy). */
        void arrow(double x, double y, double dx, double dy) {
            double length = Math.max(Math.hypot(dx, dy), 1e-12);
            double ux = dx / length * sizes.arrow();
            double uy = dy / length * sizes.arrow();
            canvas.fill(source, style, outer, new double[] {
                x, y, x - ux - uy / 6, y - uy + ux / 6, x - ux + uy / 6, y - uy - ux / 6
            });
        }

        void extension(double x1, double y1, double x2, double y2) {
            double length = Math.hypot(x2 - x1, y2 - y1);
            if (length <= sizes.offset()) return;
            double ux = (x2 - x1) / length;
            double uy = (y2 - y1) / length;
            line(
                    x1 + ux * sizes.offset(),
                    y1 + uy * sizes.offset(),
                    x2 + ux * sizes.beyond(),
                    y2 + uy * sizes.beyond());
        }

        /** Angles of texts are kept readable from below and from the right (ISO 129-1). */
        void text(String text, double x, double y, double angle, int up) {
            double a = angle % 180;
            if (a > 90.001) a -= 180;
            if (a <= -89.999) a += 180;
            texts.paragraphs(source, style, outer, text, x, y, sizes.text(), a, up == 2 ? 5 : 8, 0, 1);
        }
    }

    void draw(Entity e, Outer outer) {
        if (!e.has(13) && !e.has(15)) {
            canvas.lacks("DIMENSION without its block");
            return;
        }
        DxfDrawing.DimensionStyle style = drawing.dimensionStyles.getOrDefault(
                DxfDrawing.key(e.name(3, "STANDARD")), DxfDrawing.DimensionStyle.USUAL);
        double scale = style.scale() > 0 ? style.scale() : 1;
        Sizes sizes = new Sizes(
                style.arrow() * scale,
                style.offset() * scale,
                style.beyond() * scale,
                style.text() * scale,
                Math.abs(style.gap()) * scale);
        Pen pen = new Pen(e, outer, sizes);
        int kind = e.whole(70, 0) & 15;
        if (e.type().equals("ARC_DIMENSION")) kind = 5;
        if (e.type().equals("LARGE_RADIAL_DIMENSION")) kind = 4;
        switch (kind) {
            case 0, 1 -> straight(e, pen, style, kind == 1);
            case 2 -> angle(e, pen, style, true);
            case 3, 4 -> round(e, pen, style, kind == 3);
            case 5 -> angle(e, pen, style, false);
            case 6 -> ordinate(e, pen, style);
            default -> canvas.lacks("DIMENSION without its block");
        }
    }

    private String shown(Entity e, DxfDrawing.DimensionStyle style, double measured, String sign, String unit) {
        double value = e.has(42) && e.real(42, 0) >= 0 ? e.real(42, 0) : measured;
        if (unit.equals("°") && e.has(42)) value = Math.toDegrees(value);
        if (!unit.equals("°")) value *= style.factor() == 0 ? 1 : Math.abs(style.factor());
        int places = Math.max(0, Math.min(8, unit.equals("°") ? 1 : style.decimals()));
        String number = String.format(Locale.ROOT, "%." + places + "f", value);
        if (number.contains(".")) number = number.replaceAll("0+$", "").replaceAll("\\.$", "");
        String own = sign + number + unit;
        if (!style.post().isBlank() && sign.isEmpty()) {
            own = style.post().contains("<>") ? style.post().replace("<>", own) : own + style.post();
        }
        // A blank is no text: whoever wrote it wants none to be shown.
        String text = e.line(1);
        if (text.isBlank()) return text.isEmpty() ? own : "";
        return text.strip().replace("<>", own);
    }

    private static double[] middle(Entity e, double x, double y) {
        return e.has(11) && (e.real(11, 0) != 0 || e.real(21, 0) != 0)
                ? new double[] {e.real(11, 0), e.real(21, 0)}
                : new double[] {x, y};
    }

    /** The dimension line runs through (10, 20), along 50 degrees or along the measured points. */
    private void straight(Entity e, Pen pen, DxfDrawing.DimensionStyle style, boolean aligned) {
        double x1 = e.real(13, 0);
        double y1 = e.real(23, 0);
        double x2 = e.real(14, 0);
        double y2 = e.real(24, 0);
        double a = aligned ? Math.atan2(y2 - y1, x2 - x1) : Math.toRadians(e.real(50, 0));
        double ux = Math.cos(a);
        double uy = Math.sin(a);
        double px = e.real(10, x2);
        double py = e.real(20, y2);
        double t1 = (x1 - px) * ux + (y1 - py) * uy;
        double t2 = (x2 - px) * ux + (y2 - py) * uy;
        double ax = px + t1 * ux;
        double ay = py + t1 * uy;
        double bx = px + t2 * ux;
        double by = py + t2 * uy;
        pen.extension(x1, y1, ax, ay);
        pen.extension(x2, y2, bx, by);
        pen.line(ax, ay, bx, by);
        double way = Math.signum(t1 - t2);
        pen.arrow(ax, ay, ux * way, uy * way);
        pen.arrow(bx, by, -ux * way, -uy * way);
        double lift = pen.sizes.gap();
        double turned = Math.toDegrees(a);
        double[] m = middle(e, (ax + bx) / 2 - uy * lift, (ay + by) / 2 + ux * lift);
        pen.text(shown(e, style, Math.abs(t1 - t2), "", ""), m[0], m[1], turned, e.has(11) ? 2 : 0);
    }

    private void round(Entity e, Pen pen, DxfDrawing.DimensionStyle style, boolean diameter) {
        double x1 = e.real(10, 0);
        double y1 = e.real(20, 0);
        double x2 = e.real(15, 0);
        double y2 = e.real(25, 0);
        double length = Math.hypot(x2 - x1, y2 - y1);
        pen.line(x1, y1, x2, y2);
        pen.arrow(x2, y2, x2 - x1, y2 - y1);
        if (diameter) pen.arrow(x1, y1, x1 - x2, y1 - y2);
        double[] m = middle(e, x2 + (x2 - x1) * 0.3, y2 + (y2 - y1) * 0.3);
        pen.text(shown(e, style, length, diameter ? "⌀" : "R", ""), m[0], m[1], 0, 2);
    }

    private void angle(Entity e, Pen pen, DxfDrawing.DimensionStyle style, boolean twoLines) {
        double cx = e.real(15, 0);
        double cy = e.real(25, 0);
        double ax = e.real(13, 0);
        double ay = e.real(23, 0);
        double bx = e.real(14, 0);
        double by = e.real(24, 0);
        double rx = e.real(10, 0);
        double ry = e.real(20, 0);
        if (twoLines) {
            // Lines 13 to 14 and 10 to 15; the arc passes through 16.
            double d = (ax - bx) * (ry - cy) - (ay - by) * (rx - cx);
            if (Math.abs(d) < 1e-12) return;
            double p = ax * by - ay * bx;
            double q = rx * cy - ry * cx;
            double mx = (p * (rx - cx) - (ax - bx) * q) / d;
            double my = (p * (ry - cy) - (ay - by) * q) / d;
            double ex = Math.hypot(cx - mx, cy - my) > Math.hypot(rx - mx, ry - my) ? cx : rx;
            double ey = Math.hypot(cx - mx, cy - my) > Math.hypot(rx - mx, ry - my) ? cy : ry;
            if (Math.hypot(ax - mx, ay - my) < Math.hypot(bx - mx, by - my)) {
                ax = bx;
                ay = by;
            }
            bx = ex;
            by = ey;
            rx = e.real(16, 0);
            ry = e.real(26, 0);
            cx = mx;
            cy = my;
        }
        double r = Math.hypot(rx - cx, ry - cy);
        double from = Math.toDegrees(Math.atan2(ay - cy, ax - cx));
        double to = Math.toDegrees(Math.atan2(by - cy, bx - cx));
        double at = Math.toDegrees(Math.atan2(ry - cy, rx - cx));
        double sweep = ((to - from) % 360 + 360) % 360;
        if (((at - from) % 360 + 360) % 360 > sweep) {
            from = to;
            sweep = 360 - sweep;
        }
        if (r < 1e-12 || sweep <= 0) return;
        canvas.arc(pen.source, pen.style, pen.outer, cx, cy, r, from, sweep);
        for (double end : new double[] {from, from + sweep}) {
            double a = Math.toRadians(end);
            double way = end == from ? -1 : 1;
            double ex = cx + r * Math.cos(a);
            double ey = cy + r * Math.sin(a);
            pen.arrow(ex, ey, -Math.sin(a) * way, Math.cos(a) * way);
        }
        double half = Math.toRadians(from + sweep / 2);
        double[] m =
                middle(e, cx + (r + pen.sizes.text()) * Math.cos(half), cy + (r + pen.sizes.text()) * Math.sin(half));
        boolean length = e.type().equals("ARC_DIMENSION");
        pen.text(
                shown(e, style, length ? Math.toRadians(sweep) * r : sweep, length ? "⌒" : "", length ? "" : "°"),
                m[0],
                m[1],
                0,
                2);
    }

    private void ordinate(Entity e, Pen pen, DxfDrawing.DimensionStyle style) {
        double x1 = e.real(13, 0);
        double y1 = e.real(23, 0);
        double x2 = e.real(14, 0);
        double y2 = e.real(24, 0);
        pen.line(x1, y1, x2, y2);
        boolean ofX = (e.whole(70, 0) & 64) != 0;
        double measured = Math.abs(ofX ? x1 - e.real(10, 0) : y1 - e.real(20, 0));
        double[] m = middle(e, x2, y2);
        pen.text(shown(e, style, measured, "", ""), m[0], m[1], ofX ? 90 : 0, 2);
    }
}
