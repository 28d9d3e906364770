package mintshelf.core.redline;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import mintshelf.core.drawing.Box;
import mintshelf.core.drawing.Primitive;
import mintshelf.core.drawing.Scene;

/**
 * Finds what a mark marks: the line under an arrow's tip and under each end of a size, what lies inside a cloud, under a highlight
 * or within an ink's ring. Layers that are hidden and what spans the sheet, such as its frame, are marked by nobody.
 */
public final class Pins {
    /** Of what a cloud encloses the nearest to its middle: enough to know how it moved. */
    private static final int MOST = 40;
    /** How far a tip may be from what it points at, as a part of the sheet. */
    private static final double REACH = 0.006;

    private static final double SPANS = 0.6;

    private Pins() {}

    /** The mark with its anchors on this sheet. O(primitives). */
    public static Mark pin(Mark mark, Scene sheet) {
        Box extents = sheet.extents();
        if (extents.isEmpty()) return mark;
        double size = Math.max(extents.width(), extents.height());
        List<Anchor> pins = new ArrayList<>();
        switch (mark.tool()) {
            case ARROW_NOTE, NOTE -> tip(sheet, mark.point(0), 0, size, pins);
            case SIZE -> {
                tip(sheet, mark.point(0), 0, size, pins);
                tip(sheet, mark.point(1), 1, size, pins);
            }
            case CLOUD, HIGHLIGHT, INK -> inside(sheet, mark.box(), size, pins);
            case STAMP -> {}
        }
        return mark.with(pins);
    }

    private static boolean isMarked(Scene sheet, Primitive p, double size) {
        if (!sheet.layers().getOrDefault(p.style().layer(), true)) return false;
        Box box = p.box();
        return !box.isEmpty() && Math.max(box.width(), box.height()) < size * SPANS;
    }

    private static void tip(Scene sheet, Point tip, int point, double size, List<Anchor> pins) {
        double reach = size * REACH;
        Primitive best = null;
        double nearest = reach;
        for (Primitive p : sheet.primitives()) {
            Box box = p.box().grown(reach);
            boolean away = tip.x() < box.minX() || tip.x() > box.maxX() || tip.y() < box.minY() || tip.y() > box.maxY();
            if (away) continue;
            // Who points at the centre of a circle means the circle, not the cross of lines in it.
            boolean centre = p instanceof Primitive.Arc arc
                    && Math.hypot(tip.x() - arc.x(), tip.y() - arc.y()) <= Math.max(size * 1e-6, 1e-9);
            double off =
                    centre ? -1 / Math.max(((Primitive.Arc) p).radius(), 1e-9) : Near.distance(p, tip.x(), tip.y());
            if (off > nearest || (best != null && off == nearest) || !isMarked(sheet, p, size)) continue;
            best = p;
            nearest = off;
        }
        if (best != null) pins.add(anchor(best, point, tip));
    }

    private static void inside(Scene sheet, Box box, double size, List<Anchor> pins) {
        Point middle = new Point(box.middleX(), box.middleY());
        record At(Primitive p, double off) {}
        List<At> held = new ArrayList<>();
        List<At> crossed = new ArrayList<>();
        for (Primitive p : sheet.primitives()) {
            Box own = p.box();
            if (!own.touches(box) || !isMarked(sheet, p, size)) continue;
            double off = Math.hypot(own.middleX() - middle.x(), own.middleY() - middle.y());
            boolean in = own.middleX() >= box.minX()
                    && own.middleX() <= box.maxX()
                    && own.middleY() >= box.minY()
                    && own.middleY() <= box.maxY();
            // A centre line through a marked hole is not what is marked; the hole is.
            boolean small = own.width() <= box.width() * 1.5 && own.height() <= box.height() * 1.5;
            if (in && small) held.add(new At(p, off));
            else if (Near.distance(p, middle.x(), middle.y()) <= Math.max(box.width(), box.height()) / 2) {
                crossed.add(new At(p, Near.distance(p, middle.x(), middle.y())));
            }
        }
        List<At> marked = held.isEmpty() ? crossed : held;
        marked.stream()
                .sorted(Comparator.comparingDouble(At::off))
                .limit(held.isEmpty() ? 1 : MOST)
                .forEach(at -> pins.add(anchor(at.p(), -1, middle)));
    }

    private static Anchor anchor(Primitive p, int point, Point place) {
        Box box = p.box();
        return new Anchor(
                point, p.source().handle(), p.source().path(), place, new Point(box.middleX(), box.middleY()));
    }
}
