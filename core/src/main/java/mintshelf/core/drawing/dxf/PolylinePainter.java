package mintshelf.core.drawing.dxf;

import java.util.Arrays;
import mintshelf.core.drawing.Source;
import mintshelf.core.drawing.Style;

/** Draws polylines of both forms: with their vertices in one entity, and with a vertex an entity; nets and faces too. */
final class PolylinePainter {
    private final Canvas canvas;
    private final SceneReader reader;

    PolylinePainter(Canvas canvas, SceneReader reader) {
        this.canvas = canvas;
        this.reader = reader;
    }

    void light(Entity e, Outer outer) {
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
    boolean old(Entity head, TagCursor tags, boolean more, Outer outer, boolean shown) {
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
}
