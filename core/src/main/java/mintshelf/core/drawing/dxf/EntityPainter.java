package mintshelf.core.drawing.dxf;

import java.util.Arrays;
import java.util.List;
import java.util.Set;
import mintshelf.core.drawing.Source;
import mintshelf.core.drawing.Style;

/** Draws entities, each by its type. */
final class EntityPainter {
    /** Drawn with what they belong to, or nothing to be seen. */
    private static final Set<String> SILENT =
            Set.of("SEQEND", "VERTEX", "ENDBLK", "EOF", "LIGHT", "SUN", "ACAD_PROXY_OBJECT");

    private final DxfDrawing drawing;
    private final Canvas canvas;
    private final SceneReader reader;
    private final TextPainter texts;
    private final HatchPainter hatches;
    private final DimensionPainter dimensions;
    private final LeaderPainter leaders;
    private final PolylinePainter polylines;

    EntityPainter(DxfDrawing drawing, Canvas canvas, SceneReader reader) {
        this.drawing = drawing;
        this.canvas = canvas;
        this.reader = reader;
        this.texts = new TextPainter(drawing, canvas);
        this.hatches = new HatchPainter(canvas);
        this.dimensions = new DimensionPainter(drawing, canvas, texts);
        this.leaders = new LeaderPainter(drawing, canvas, texts);
        this.polylines = new PolylinePainter(canvas, reader);
    }

    void draw(Entity e, Outer outer) {
        switch (e.type()) {
            case "LINE" -> line(e, outer, e.real(11, 0), e.real(21, 0));
            case "CIRCLE" -> circle(e, outer, 0, 360);
            case "ARC" -> {
                double start = e.real(50, 0);
                double sweep = (e.real(51, 0) - start) % 360;
                circle(e, outer, start, sweep <= 0 ? sweep + 360 : sweep);
            }
            case "ELLIPSE" -> ellipse(e, outer);
            case "LWPOLYLINE" -> polylines.light(e, outer);
            case "SPLINE", "HELIX" -> spline(e, outer);
            case "POINT" -> line(e, outer, e.real(10, 0), e.real(20, 0));
            case "SOLID", "TRACE" -> solid(e, outer);
            case "3DFACE" -> face(e, outer);
            case "TEXT", "ATTRIB" -> texts.line(e, outer);
            case "ATTDEF" -> {
                // A value to be filled in shows its tag on the sheet itself; in a block its insert has the value.
                if (outer.depth() == 0) texts.line(e, outer);
                else if ((e.whole(70, 0) & 2) != 0) texts.line(e, outer, TextCodes.line(e.text(1, "")));
            }
            case "MTEXT" -> texts.paragraphs(e, outer);
            case "INSERT" -> insert(e, outer);
            case "DIMENSION", "ARC_DIMENSION", "LARGE_RADIAL_DIMENSION" -> dimension(e, outer);
            case "HATCH", "MPOLYGON" -> hatches.draw(e, outer);
            case "LEADER" -> leaders.leader(e, outer);
            case "MULTILEADER", "MLEADER" -> leaders.multi(e, outer);
            case "TOLERANCE" -> leaders.tolerance(e, outer);
            case "MLINE" -> leaders.parallel(e, outer);
            case "ACAD_TABLE" -> table(e, outer);
            case "IMAGE", "WIPEOUT", "PDFUNDERLAY", "DGNUNDERLAY", "DWFUNDERLAY" -> image(e, outer);
            case "XLINE", "RAY" -> endless(e, outer);
            case "VIEWPORT" -> {
                if (outer.depth() == 0) reader.viewport(e);
            }
            default -> {
                if (!SILENT.contains(e.type())) canvas.lacks(e.type());
            }
        }
    }

    /** From the entity's first point; to itself it is a dot. */
    private void line(Entity e, Outer outer, double x, double y) {
        canvas.line(canvas.source(e, outer), canvas.style(e, outer), outer, false, e.real(10, 0), e.real(20, 0), x, y);
    }

    private Outer plane(Entity e, Outer outer) {
        return outer.at(Placement.plane(e.normal(), e.real(30, 0)));
    }

    private void circle(Entity e, Outer outer, double from, double sweep) {
        canvas.arc(
                canvas.source(e, outer),
                canvas.style(e, outer),
                plane(e, outer),
                e.real(10, 0),
                e.real(20, 0),
                e.real(40, 0),
                from,
                sweep);
    }

    /** The axes of an ellipse are the world's: the minor one is the normal times the major one. */
    private void ellipse(Entity e, Outer outer) {
        double[] n = e.normal();
        double dx = e.real(11, 1);
        double dy = e.real(21, 0);
        double dz = e.real(31, 0);
        double ratio = e.real(40, 1);
        double ex = (n[1] * dz - n[2] * dy) * ratio;
        double ey = (n[2] * dx - n[0] * dz) * ratio;
        double from = Math.toDegrees(e.real(41, 0));
        double sweep = Math.toDegrees(e.real(42, 2 * Math.PI)) - from;
        sweep %= 360.0000001;
        if (sweep <= 1e-9) sweep += 360;
        canvas.line(
                canvas.source(e, outer),
                canvas.style(e, outer),
                outer,
                sweep >= 359.999999,
                open(
                        Curves.ellipse(e.real(10, 0), e.real(20, 0), dx, dy, ex, ey, from, sweep, canvas.tolerance),
                        sweep >= 359.999999));
    }

    /** Without the last point where it is the first again. */
    private static double[] open(double[] points, boolean closed) {
        return closed ? Arrays.copyOf(points, points.length - 2) : points;
    }

    /** Old polylines: the vertices follow as entities of their own, up to an end mark. Gives whether more follows. */
    boolean polyline(Entity head, TagCursor tags, boolean more, Outer outer, boolean shown) {
        return polylines.old(head, tags, more, outer, shown);
    }

    private void spline(Entity e, Outer outer) {
        double[] xs = e.all(10);
        double[] ys = e.all(20);
        int flags = e.whole(70, 0);
        double[] points = xs.length > 1
                ? Curves.spline(e.whole(71, 3), e.all(40), xs, ys, e.all(41), canvas.tolerance)
                : Curves.through(e.all(11), e.all(21), (flags & 1) == 1);
        canvas.line(canvas.source(e, outer), canvas.style(e, outer), outer, false, points);
    }

    /** The corners go round in the order 1, 2, 4, 3. */
    private static double[] corners(Entity e) {
        return new double[] {
            e.real(10, 0), e.real(20, 0), e.real(11, 0), e.real(21, 0),
            e.real(13, e.real(12, 0)), e.real(23, e.real(22, 0)), e.real(12, 0), e.real(22, 0)
        };
    }

    private void solid(Entity e, Outer outer) {
        canvas.fill(canvas.source(e, outer), canvas.style(e, outer), plane(e, outer), corners(e));
    }

    private void face(Entity e, Outer outer) {
        double[] x = {e.real(10, 0), e.real(11, 0), e.real(12, 0), e.real(13, e.real(12, 0))};
        double[] y = {e.real(20, 0), e.real(21, 0), e.real(22, 0), e.real(23, e.real(22, 0))};
        int unseen = e.whole(70, 0);
        Curves.Points ends = new Curves.Points();
        for (int i = 0; i < 4; i++) {
            int k = (i + 1) % 4;
            if ((unseen >> i & 1) == 1 || (x[i] == x[k] && y[i] == y[k])) continue;
            ends.add(x[i], y[i]);
            ends.add(x[k], y[k]);
        }
        canvas.strokes(canvas.source(e, outer), canvas.style(e, outer), outer, ends.toArray());
    }

    private void insert(Entity e, Outer outer) {
        String name = e.name(2, "");
        DxfDrawing.Block block = drawing.blocks.get(DxfDrawing.key(name));
        if (block == null) {
            canvas.lacks("INSERT of a missing block");
            return;
        }
        if (block.isReference()) {
            canvas.lacks("INSERT of an external reference");
            return;
        }
        int columns = Math.max(1, e.whole(70, 1));
        int rows = Math.max(1, e.whole(71, 1));
        canvas.room((long) columns * rows, name);
        Placement at = plane(e, outer)
                .placement()
                .of(Placement.move(e.real(10, 0), e.real(20, 0)))
                .of(Placement.turn(e.real(50, 0)));
        Placement inner = Placement.scale(e.real(41, 1), e.real(42, 1)).of(Placement.move(-block.x(), -block.y()));
        double across = e.real(44, 0);
        double up = e.real(45, 0);
        if (e.isUnreadable()) return;
        Outer head = within(e, outer, name);
        for (int row = 0; row < rows; row++) {
            for (int column = 0; column < columns; column++) {
                Placement cell = row == 0 && column == 0 ? at : at.of(Placement.move(column * across, row * up));
                canvas.step(name);
                reader.block(
                        block,
                        new Outer(
                                cell.of(inner),
                                head.layer(),
                                head.colour(),
                                head.dashes(),
                                head.weight(),
                                head.path(),
                                head.handle(),
                                head.at(),
                                head.depth()));
            }
        }
    }

    /** What the entities of a block take over from the entity that shows it. */
    private Outer within(Entity e, Outer outer, String name) {
        String layer = canvas.layerOf(e, outer);
        DxfDrawing.Layer own = canvas.layer(layer);
        int colour = canvas.colourOf(e, outer, own);
        return new Outer(
                outer.placement(),
                layer,
                colour,
                canvas.dashesOf(e, outer, own),
                canvas.weightOf(e, outer, own, colour),
                outer.path().isEmpty() ? name : outer.path() + "/" + name,
                outer.depth() == 0 ? e.handle(5) : outer.handle(),
                outer.depth() == 0 ? e.begin : outer.at(),
                outer.depth() + 1);
    }

    private void dimension(Entity e, Outer outer) {
        String name = e.name(2, "");
        DxfDrawing.Block block = drawing.blocks.get(DxfDrawing.key(name));
        if (block == null || block.to() - block.from() < 10) {
            dimensions.draw(e, outer);
            return;
        }
        reader.block(block, within(e, outer, name));
    }

    private void table(Entity e, Outer outer) {
        String name = e.name(2, "");
        DxfDrawing.Block block = drawing.blocks.get(DxfDrawing.key(name));
        if (block == null) {
            canvas.lacks("ACAD_TABLE without its block");
            return;
        }
        double angle = Math.toDegrees(Math.atan2(e.real(21, 0), e.real(11, 1)));
        Outer inner = within(e, outer, name);
        reader.block(
                block, inner.at(Placement.move(e.real(10, 0), e.real(20, 0)).of(Placement.turn(angle))));
    }

    /** An image is a frame; a mask covers what was drawn before it. */
    private void image(Entity e, Outer outer) {
        if (!e.type().equals("IMAGE") && !e.type().equals("WIPEOUT")) {
            canvas.lacks(e.type());
            return;
        }
        double x = e.real(10, 0);
        double y = e.real(20, 0);
        double ux = e.real(11, 1);
        double uy = e.real(21, 0);
        double vx = e.real(12, 0);
        double vy = e.real(22, 1);
        double w = e.real(13, 1);
        double h = e.real(23, 1);
        double[] cx = e.all(14);
        double[] cy = e.all(24);
        double[] ring;
        if (e.whole(71, 1) == 2 && Math.min(cx.length, cy.length) > 2) {
            int n = Math.min(cx.length, cy.length);
            ring = new double[2 * n];
            for (int i = 0; i < n; i++) {
                // Pixels count from the upper left corner's middle, downwards.
                double px = cx[i] + 0.5;
                double py = h - cy[i] - 0.5;
                ring[2 * i] = x + px * ux + py * vx;
                ring[2 * i + 1] = y + px * uy + py * vy;
            }
        } else {
            ring = new double[] {
                x, y, x + w * ux, y + w * uy, x + w * ux + h * vx, y + w * uy + h * vy, x + h * vx, y + h * vy
            };
        }
        Source source = canvas.source(e, outer);
        Style style = canvas.style(e, outer);
        if (e.type().equals("WIPEOUT")) {
            canvas.fill(source, new Style(style.layer(), Style.PAPER, style.weight(), List.of()), outer, ring);
        } else {
            canvas.line(source, style, outer, true, ring);
            canvas.lacks("IMAGE (its frame is drawn)");
        }
    }

    private void endless(Entity e, Outer outer) {
        Placement p = outer.placement();
        double x = e.real(10, 0);
        double y = e.real(20, 0);
        double dx = e.real(11, 1);
        double dy = e.real(21, 0);
        if (e.isUnreadable()) return;
        reader.endless(new SceneReader.Endless(
                canvas.style(e, outer),
                canvas.source(e, outer),
                p.x(x, y),
                p.y(x, y),
                p.a() * dx + p.c() * dy,
                p.b() * dx + p.d() * dy,
                e.type().equals("RAY")));
    }
}
