package mintshelf.core.drawing.dxf;

import java.util.List;
import mintshelf.core.drawing.Source;
import mintshelf.core.drawing.Style;

/** TEXT, ATTRIB, ATTDEF and MTEXT. */
final class TextPainter {
    private final DxfDrawing drawing;
    private final Canvas canvas;

    TextPainter(DxfDrawing drawing, Canvas canvas) {
        this.drawing = drawing;
        this.canvas = canvas;
    }

    private static final DxfDrawing.TextStyle USUAL = new DxfDrawing.TextStyle(0, 1, "");

    private DxfDrawing.TextStyle styleOf(Entity e) {
        return drawing.textStyles.getOrDefault(DxfDrawing.key(e.name(7, "STANDARD")), USUAL);
    }

    void line(Entity e, Outer outer) {
        boolean attribute = e.type().equals("ATTRIB") || e.type().equals("ATTDEF");
        if (attribute && (e.whole(70, 0) & 1) == 1) return;
        line(e, outer, TextCodes.line(e.line(e.type().equals("ATTDEF") ? 2 : 1)));
    }

    void line(Entity e, Outer outer, String text) {
        boolean attribute = e.type().equals("ATTRIB") || e.type().equals("ATTDEF");
        int across = e.whole(72, 0);
        int up = attribute ? e.whole(74, 0) : e.whole(73, 0);
        boolean second = (across != 0 || up != 0) && e.has(11);
        double x = second ? e.real(11, 0) : e.real(10, 0);
        double y = second ? e.real(21, 0) : e.real(20, 0);
        double height = e.real(40, 2.5);
        double width = e.real(41, styleOf(e).width());
        double angle = e.real(50, 0);
        if ((across == 3 || across == 5) && e.has(11)) {
            double dx = e.real(11, 0) - e.real(10, 0);
            double dy = e.real(21, 0) - e.real(20, 0);
            double length = Math.hypot(dx, dy);
            x = e.real(10, 0) + dx / 2;
            y = e.real(20, 0) + dy / 2;
            if (length > 0) {
                angle = Math.toDegrees(Math.atan2(dy, dx));
                // Fitted texts keep their height and squeeze their letters; aligned ones grow with their length.
                double natural = Math.max(1, text.length()) * 0.72;
                if (across == 5 && height > 0) width = length / (natural * height);
                if (across == 3) height = Math.min(height, length / natural / Math.max(width, 0.1));
            }
            across = 1;
            up = 0;
        }
        if (across == 4) {
            across = 1;
            up = 2;
        }
        int turned = e.whole(71, 0);
        Placement at = Placement.plane(e.normal(), e.real(30, 0));
        if ((turned & 6) != 0) {
            Placement mirror = Placement.move(x, y)
                    .of(Placement.turn(angle))
                    .of(Placement.scale((turned & 2) != 0 ? -1 : 1, (turned & 4) != 0 ? -1 : 1))
                    .of(Placement.turn(-angle))
                    .of(Placement.move(-x, -y));
            at = at.of(mirror);
        }
        canvas.text(
                canvas.source(e, outer),
                canvas.style(e, outer),
                outer.at(at),
                x,
                y,
                height,
                angle,
                width <= 0 ? 1 : width,
                across,
                up,
                text);
    }

    void paragraphs(Entity e, Outer outer) {
        String raw = e.joined(3) + e.line(1);
        int direction = e.find(11);
        double angle = direction >= 0 && (e.real(11, 0) != 0 || e.real(21, 0) != 0)
                ? Math.toDegrees(Math.atan2(e.real(21, 0), e.real(11, 1)))
                : e.real(50, 0);
        double height = e.real(40, 2.5);
        double own = TextCodes.height(raw, height);
        paragraphs(
                canvas.source(e, outer),
                canvas.style(e, outer),
                outer,
                raw,
                e.real(10, 0),
                e.real(20, 0),
                own > 0 ? own : height,
                angle,
                Math.max(1, Math.min(9, e.whole(71, 1))),
                e.real(41, 0),
                e.real(44, 1));
    }

    /**
     * A text of several lines.
     *
     * @param at which of nine places of its box stands at the point: 1 top left, 2 top middle, to 9 bottom right
     * @param width of its column, 0 for any
     */
    void paragraphs(
            Source source,
            Style style,
            Outer outer,
            String raw,
            double x,
            double y,
            double height,
            double angle,
            int at,
            double width,
            double spacing) {
        List<String> lines = TextCodes.wrapped(TextCodes.lines(raw), width, height * 0.76);
        int across = (at - 1) % 3;
        int row = (at - 1) / 3;
        double step = height * 5 / 3 * (spacing > 0 ? spacing : 1);
        double total = (lines.size() - 1) * step;
        double first = row == 0 ? 0 : row == 1 ? total / 2 : total;
        double r = Math.toRadians(angle);
        for (int i = 0; i < lines.size(); i++) {
            double down = i * step - first;
            canvas.text(
                    source,
                    style,
                    outer,
                    x + Math.sin(r) * down,
                    y - Math.cos(r) * down,
                    height,
                    angle,
                    1,
                    across,
                    row == 0 ? 3 : row == 1 ? 2 : 1,
                    lines.get(i).stripTrailing());
        }
    }
}
