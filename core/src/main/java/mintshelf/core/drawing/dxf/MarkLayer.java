package mintshelf.core.drawing.dxf;

import java.util.List;
import java.util.Optional;
import mintshelf.core.base.Outcome;
import mintshelf.core.drawing.Primitive;
import mintshelf.core.drawing.Style;
import mintshelf.core.drawing.dxf.Attributes.Place;

/**
 * Puts marks into a copy of a drawing, on a layer of their own: as lines, arcs, circles, texts and solids, which every version of the
 * format has. Every byte of the drawing stays; what is new is inserted, and the next free handle is told. O(bytes + marks).
 */
public final class MarkLayer {
    private final DxfDrawing drawing;
    private final DxfEdit edit;
    private final boolean marked;
    private final boolean handles;
    private final long firstHandle;
    private long nextHandle;
    private final String layer;

    private MarkLayer(DxfDrawing drawing, String layer) {
        this.drawing = drawing;
        this.edit = new DxfEdit(drawing);
        this.marked = drawing.isMarked();
        this.firstHandle = RowBlock.firstFree(drawing);
        this.nextHandle = firstHandle;
        this.handles = firstHandle > 0;
        this.layer = free(drawing, layer);
    }

    /** A name that the drawing has no layer of. */
    private static String free(DxfDrawing drawing, String wanted) {
        String name = wanted;
        for (int n = 2; drawing.layers.containsKey(DxfDrawing.key(name)); n++) name = wanted + "_" + n;
        return name;
    }

    /**
     * The drawing with marks on its sheet.
     *
     * @param layer wanted name of their layer; one that is taken gets a number behind
     * @return its bytes, or why nothing can be put into it
     */
    public static Outcome<byte[]> with(DxfDrawing drawing, List<Primitive> marks, String layer) {
        boolean tables = drawing.layersEnd >= 0 || !drawing.isMarked();
        if (!tables || !RowBlock.isEnded(drawing)) {
            return Outcome.refused(
                    "sheet.no_tables",
                    "The drawing has no table of layers, or no end, that marks could go before.",
                    "Save it once more from the program that drew it.");
        }
        return Outcome.granted(new MarkLayer(drawing, layer).written(marks));
    }

    private byte[] written(List<Primitive> marks) {
        if (drawing.layersEnd >= 0) edit.insert(drawing.layersEnd, record());
        TagWriter out = new TagWriter(drawing.source);
        for (Primitive p : marks) entity(out, p);
        edit.insert(drawing.room().to(), out.bytes());
        if (nextHandle != firstHandle) RowBlock.keepSeed(drawing, edit, nextHandle);
        return edit.bytes();
    }

    /** As the first layer of the table is, with another name and handle: what a version asks of a layer, that one has. */
    private byte[] record() {
        TagWriter out = new TagWriter(drawing.source);
        Optional<Place> like = drawing.firstLayer;
        if (like.isEmpty()) {
            return out.text(0, "LAYER")
                    .text(2, layer)
                    .whole(70, 0)
                    .whole(62, 1)
                    .text(6, "CONTINUOUS")
                    .bytes();
        }
        for (TagCursor tags = new TagCursor(drawing.source, like.get().from(), 1);
                tags.at < like.get().to() && tags.next(); ) {
            switch (tags.code) {
                case 2 -> out.text(2, layer);
                case 5 -> out.handle(5, nextHandle++);
                case 62 -> out.whole(62, 1);
                case 70 -> out.whole(70, 0);
                case 420 -> {}
                default -> out.copy(tags.begin, tags.at);
            }
        }
        return out.bytes();
    }

    private void begin(TagWriter out, String type, int colour, String mark) {
        out.text(0, type);
        if (handles) out.handle(5, nextHandle++);
        if (marked) {
            long owner = drawing.sheetRecord();
            if (owner > 0) out.handle(330, owner);
            out.text(100, "AcDbEntity");
        }
        if (!drawing.sheet().equals(DxfDrawing.MODEL)) out.whole(67, 1);
        out.text(8, layer).whole(62, nearest(colour));
        if (marked) out.text(100, mark);
    }

    private void entity(TagWriter out, Primitive p) {
        int colour = p.style().colour();
        // What covers other things up on the screen would hide the drawing in a file.
        if (colour == Style.PAPER) return;
        if (p instanceof Primitive.Polyline line) lines(out, line.points(), line.closed(), colour);
        else if (p instanceof Primitive.Strokes strokes) {
            double[] e = strokes.ends();
            for (int i = 0; i + 3 < e.length; i += 4) line(out, colour, e[i], e[i + 1], e[i + 2], e[i + 3]);
        } else if (p instanceof Primitive.Arc arc) arc(out, arc);
        else if (p instanceof Primitive.Fill fill) solid(out, fill, colour);
        else text(out, (Primitive.Text) p);
    }

    private void lines(TagWriter out, double[] p, boolean closed, int colour) {
        int corners = p.length / 2;
        for (int i = 0; i < (closed ? corners : corners - 1); i++) {
            int k = (i + 1) % corners;
            line(out, colour, p[2 * i], p[2 * i + 1], p[2 * k], p[2 * k + 1]);
        }
    }

    private void line(TagWriter out, int colour, double x1, double y1, double x2, double y2) {
        begin(out, "LINE", colour, "AcDbLine");
        out.point(10, x1, y1).point(11, x2, y2);
    }

    private void arc(TagWriter out, Primitive.Arc arc) {
        boolean whole = arc.sweep() >= 360;
        begin(out, whole ? "CIRCLE" : "ARC", arc.style().colour(), "AcDbCircle");
        out.point(10, arc.x(), arc.y()).real(40, arc.radius());
        if (whole) return;
        if (marked) out.text(100, "AcDbArc");
        out.real(50, turn(arc.from())).real(51, turn(arc.from() + arc.sweep()));
    }

    private static double turn(double angle) {
        return (angle % 360 + 360) % 360;
    }

    /** A ring of three or four corners; others are drawn by their outline. */
    private void solid(TagWriter out, Primitive.Fill fill, int colour) {
        for (double[] ring : fill.rings()) {
            if (ring.length != 6 && ring.length != 8) {
                lines(out, ring, true, colour);
                continue;
            }
            begin(out, "SOLID", colour, "AcDbTrace");
            int last = ring.length == 8 ? 6 : 4;
            // The third and the fourth corner of a solid change places (DXF Reference, SOLID).
            out.point(10, ring[0], ring[1]).point(11, ring[2], ring[3]);
            out.point(12, ring[last], ring[last + 1]).point(13, ring[4], ring[5]);
        }
    }

    private void text(TagWriter out, Primitive.Text t) {
        begin(out, "TEXT", t.style().colour(), "AcDbText");
        out.point(10, t.x(), t.y()).real(40, t.height()).text(1, t.text());
        if (t.angle() != 0) out.real(50, t.angle());
        if (t.width() != 1) out.real(41, t.width());
        boolean placed = t.across() != 0 || t.up() != 0;
        if (placed) out.whole(72, t.across()).point(11, t.x(), t.y());
        if (marked) out.text(100, "AcDbText");
        if (placed) out.whole(73, t.up());
    }

    /** The number of the palette that comes nearest to a colour. */
    private static int nearest(int rgb) {
        int best = 7;
        double least = Double.POSITIVE_INFINITY;
        for (int i = 1; i < 250; i++) {
            int other = Colours.of(i);
            if (other < 0) continue;
            double off = 0;
            for (int shift = 0; shift <= 16; shift += 8)
                off += Math.pow((rgb >> shift & 255) - (other >> shift & 255), 2);
            if (off < least) {
                least = off;
                best = i;
            }
        }
        return best;
    }
}
