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

    EntityPainter(DxfDrawing drawing, Canvas canvas, SceneReader reader) {
        this.drawing = drawing;
        this.canvas = canvas;
        this.reader = reader;
        this.texts = new TextPainter(drawing, canvas);
        this.hatches = new HatchPainter(canvas);
        this.dimensions = new DimensionPainter(drawing, canvas, texts);
        this.leaders = new LeaderPainter(drawing, canvas, texts);
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
            case "LWPOLYLINE" -> lightPolyline(e, outer);
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

    private void lightPolyline(Entity e, Outer outer) {
        int n = 0;
        for (int i = 0; i < e.size(); i++) if (e.code(i) == 10) n++;
        double[] xs = new double[n];
        double[] ys = new double[n];
        double[] bulges = new double[n];
        double constant = e.real(43, 0);
        double[] widths = new double[2 * n];
        Arrays.fill(widths, constant);
        int at = -1;
        for (int i = 0; i < e.size(); i++) {
            switch (e.code(i)) {
                case 10 -> xs[++at] = e.real(i);
                case 20 -> {
                    if (at >= 0) ys[at] = e.real(i);
                }
                case 40 -> {
                    if (at >= 0) widths[2 * at] = e.real(i);
                }
                case 41 -> {
                    if (at >= 0) widths[2 * at + 1] = e.real(i);
                }
                case 42 -> {
                    if (at >= 0) bulges[at] = e.real(i);
                }
                default -> {
                    // Flags and the like.
                }
            }
        }
        Outer own = outer.at(Placement.plane(e.normal(), e.real(38, 0)));
        wide(e, outer, own, xs, ys, bulges, widths, (e.whole(70, 0) & 1) == 1);
    }

    private void wide(
            Entity e,
            Outer outer,
            Outer own,
            double[] xs,
            double[] ys,
            double[] bulges,
            double[] widths,
            boolean closed) {
        Source source = canvas.source(e, outer);
        Style style = canvas.style(e, outer);
        boolean wide = false;
        for (double width : widths) wide |= width > 0;
        if (!wide) {
            canvas.bulged(source, style, own, xs, ys, bulges, closed);
            return;
        }
        int n = xs.length;
        for (int i = 0; i < (closed ? n : n - 1); i++) {
            int k = (i + 1) % n;
            double[] points = bulges[i] == 0
                    ? new double[] {xs[i], ys[i], xs[k], ys[k]}
                    : bent(xs[i], ys[i], xs[k], ys[k], bulges[i]);
            canvas.fill(source, style, own, ribbon(points, widths[2 * i], widths[2 * i + 1]));
        }
    }

    private double[] bent(double x1, double y1, double x2, double y2, double bulge) {
        double[] a = Curves.bulge(x1, y1, x2, y2, bulge);
        return Curves.ellipse(a[0], a[1], a[2], 0, 0, a[2], a[3], a[4], canvas.tolerance);
    }

    /** The outline of a line that is {@code from} wide at its start and {@code to} at its end. */
    private static double[] ribbon(double[] p, double from, double to) {
        int n = p.length / 2;
        double[] ring = new double[4 * n];
        for (int i = 0; i < n; i++) {
            int a = Math.max(0, i - 1);
            int b = Math.min(n - 1, i + 1);
            double dx = p[2 * b] - p[2 * a];
            double dy = p[2 * b + 1] - p[2 * a + 1];
            double length = Math.max(Math.hypot(dx, dy), 1e-12);
            double half = (from + (to - from) * i / Math.max(1, n - 1)) / 2;
            ring[2 * i] = p[2 * i] - dy / length * half;
            ring[2 * i + 1] = p[2 * i + 1] + dx / length * half;
            int back = 2 * n - 1 - i;
            ring[2 * back] = p[2 * i] + dy / length * half;
            ring[2 * back + 1] = p[2 * i + 1] - dx / length * half;
        }
        return ring;
    }

    /** Old polylines: the vertices follow as entities of their own, up to an end mark. Gives whether more follows. */
    boolean polyline(Entity head, TagCursor tags, boolean more, Outer outer, boolean shown) {
        int flags = head.whole(70, 0);
        int across = Math.max(0, head.whole(71, 0));
        int along = Math.max(0, head.whole(72, 0));
        boolean closed = (flags & 1) == 1;
        double startWidth = head.real(40, 0);
        double endWidth = head.real(41, 0);
        Placement plane =
                (flags & (8 | 16 | 64)) != 0 ? Placement.IDENTITY : Placement.plane(head.normal(), head.real(30, 0));
        double[] xs = new double[16];
        double[] ys = new double[16];
        double[] bulges = new double[16];
        double[] widths = new double[32];
        int n = 0;
        boolean readable = true;
        Entity vertex = reader.scratch(outer);
        Faces faces = new Faces();
        boolean next = more;
        while (next && tags.code == 0 && tags.is("VERTEX")) {
            next = vertex.fill(tags);
            int kind = vertex.whole(70, 0);
            if ((flags & 64) != 0 && (kind & 128) != 0 && (kind & 64) == 0) {
                faces.add(vertex.whole(71, 0), vertex.whole(72, 0), vertex.whole(73, 0), vertex.whole(74, 0));
                continue;
            }
            if ((kind & 16) != 0) continue; // a control point of a fitted curve
            if (n == xs.length) {
                xs = Arrays.copyOf(xs, 2 * n);
                ys = Arrays.copyOf(ys, 2 * n);
                bulges = Arrays.copyOf(bulges, 2 * n);
                widths = Arrays.copyOf(widths, 4 * n);
            }
            xs[n] = vertex.real(10, 0);
            ys[n] = vertex.real(20, 0);
            bulges[n] = vertex.real(42, 0);
            widths[2 * n] = vertex.real(40, startWidth);
            widths[2 * n + 1] = vertex.real(41, endWidth);
            readable &= !vertex.isUnreadable();
            n++;
        }
        if (next && tags.code == 0 && tags.is("SEQEND")) next = vertex.fill(tags);
        if (!shown) return next;
        if (!readable || head.isUnreadable()) {
            reader.unreadable(head);
            return next;
        }
        xs = Arrays.copyOf(xs, n);
        ys = Arrays.copyOf(ys, n);
        if ((flags & 64) != 0) faces.draw(head, outer, xs, ys);
        else if ((flags & 16) != 0) mesh(head, outer, xs, ys, across, along, flags);
        else wide(head, outer, outer.at(plane), xs, ys, Arrays.copyOf(bulges, n), Arrays.copyOf(widths, 2 * n), closed);
        return next;
    }

    /** A net of across × along points. */
    private void mesh(Entity head, Outer outer, double[] xs, double[] ys, int across, int along, int flags) {
        if ((long) across * along > xs.length || across < 1 || along < 1) {
            canvas.lacks("POLYLINE mesh");
            return;
        }
        Source source = canvas.source(head, outer);
        Style style = canvas.style(head, outer);
        for (int i = 0; i < across; i++) {
            double[] row = new double[2 * along];
            for (int k = 0; k < along; k++) {
                row[2 * k] = xs[i * along + k];
                row[2 * k + 1] = ys[i * along + k];
            }
            canvas.line(source, style, outer, (flags & 32) != 0, row);
        }
        for (int k = 0; k < along; k++) {
            double[] column = new double[2 * across];
            for (int i = 0; i < across; i++) {
                column[2 * i] = xs[i * along + k];
                column[2 * i + 1] = ys[i * along + k];
            }
            canvas.line(source, style, outer, (flags & 1) != 0, column);
        }
    }

    /** Faces of a polyface, as numbers of vertices from 1; an edge whose number is negative is not seen. */
    private final class Faces {
        private int[] corners = new int[32];
        private int n;

        void add(int... face) {
            if (n + 4 > corners.length) corners = Arrays.copyOf(corners, n * 2);
            for (int corner : face) corners[n++] = corner;
        }

        void draw(Entity head, Outer outer, double[] xs, double[] ys) {
            Source source = canvas.source(head, outer);
            Style style = canvas.style(head, outer);
            Curves.Points ends = new Curves.Points();
            for (int f = 0; f < n; f += 4) {
                int count = 4;
                while (count > 0 && corners[f + count - 1] == 0) count--;
                for (int i = 0; i < count; i++) {
                    int a = corners[f + i];
                    int b = Math.abs(corners[f + (i + 1) % count]);
                    if (a <= 0 || a > xs.length || b < 1 || b > xs.length) continue;
                    ends.add(xs[a - 1], ys[a - 1]);
                    ends.add(xs[b - 1], ys[b - 1]);
                }
            }
            canvas.strokes(source, style, outer, ends.toArray());
        }
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
