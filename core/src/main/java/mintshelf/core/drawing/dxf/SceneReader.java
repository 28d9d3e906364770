package mintshelf.core.drawing.dxf;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.TreeMap;
import mintshelf.core.base.Outcome;
import mintshelf.core.drawing.Box;
import mintshelf.core.drawing.Primitive;
import mintshelf.core.drawing.Scene;
import mintshelf.core.drawing.Source;
import mintshelf.core.drawing.Style;

/**
 * Flattens a space of an exchange drawing into a scene: blocks are expanded where they are inserted, what is by layer and by
 * block is resolved, viewports show model space through their frames. What it does not know is counted by type.
 *
 * <p>O(bytes + primitives); the expansion of blocks is bounded in depth and number, so that nested arrays end in a refusal that
 * names the block.
 */
final class SceneReader {
    private static final int DEEPEST = 24;

    private final DxfDrawing drawing;
    private final Canvas canvas;
    private final EntityPainter painter;
    private final List<Entity> buffers = new ArrayList<>();
    private final List<Endless> endless = new ArrayList<>();
    private final List<Viewport> viewports = new ArrayList<>();
    private final TreeMap<Integer, Integer> unreadable = new TreeMap<>();

    /** A construction line: drawn across all else once that is known. */
    record Endless(Style style, Source source, double x, double y, double dx, double dy, boolean ray) {}

    private SceneReader(DxfDrawing drawing, double tolerance) {
        this.drawing = drawing;
        this.canvas = new Canvas(drawing, tolerance);
        this.painter = new EntityPainter(drawing, canvas, this);
    }

    /** Reads a space, or says which block expands without end. */
    static Outcome<Scene> read(DxfDrawing drawing, String layout, double tolerance) {
        if (!drawing.layouts().contains(layout)) {
            return Outcome.refused(
                    "dxf.layout",
                    "The drawing has no layout “" + layout + "”.",
                    "It has " + String.join(", ", drawing.layouts()) + ".");
        }
        SceneReader reader = new SceneReader(drawing, tolerance);
        try {
            boolean model = layout.equals(DxfDrawing.MODEL);
            reader.space(model ? "" : drawing.blockOf(layout).orElse("*Paper_Space"), !model);
            reader.lookThrough();
        } catch (Canvas.TooMuch e) {
            return Outcome.refused(
                    "dxf.blocks",
                    "The block “" + e.getMessage() + "” expands beyond all bounds.",
                    "It is kept without a picture.");
        } catch (Canvas.NoRoom e) {
            return noRoom();
        }
        try {
            reader.endless();
        } catch (Canvas.NoRoom e) {
            return noRoom();
        }
        return Outcome.granted(reader.scene());
    }

    private static Outcome<Scene> noRoom() {
        return Outcome.refused(
                "dxf.room",
                "It draws more than this server has room for.",
                "It is kept without a picture; the server can be given more memory.");
    }

    private Scene scene() {
        Map<String, Boolean> shown = new TreeMap<>();
        drawing.layers.values().forEach(layer -> shown.put(layer.name(), layer.shown()));
        canvas.out.forEach(p -> shown.putIfAbsent(p.style().layer(), true));
        List<String> said = new ArrayList<>(drawing.said());
        int count = unreadable.values().stream().mapToInt(n -> n).sum();
        if (count > 0) {
            String where = (drawing.source.binary ? "tag " : "line ")
                    + String.format(Locale.ROOT, "%,d", unreadable.firstKey());
            said.add(
                    count == 1
                            ? "1 entity in " + where + " could not be read."
                            : count + " entities from " + where + " on could not be read.");
        }
        return new Scene(canvas.out, shown, canvas.notDrawn, said);
    }

    private void space(String block, boolean paper) {
        Outer sheet = Outer.sheet(Style.INK, 0.25);
        if (DxfDrawing.isActive(block)) {
            if (drawing.entities >= 0) {
                walk(drawing.entities, drawing.entitiesEnd, drawing.entitiesLine, sheet, "ENTITIES", paper ? 1 : 0);
            }
            return;
        }
        DxfDrawing.Block own = drawing.blocks.get(DxfDrawing.key(block));
        if (own != null) walk(own.from(), own.to(), own.line(), sheet, own.name(), -1);
    }

    /** Keeps a viewport of a layout for when the sheet itself is drawn. */
    void viewport(Entity e) {
        Viewport.of(e, drawing, viewports.size()).ifPresent(viewports::add);
    }

    void endless(Endless line) {
        endless.add(line);
    }

    /** Draws an insert's block. */
    void block(DxfDrawing.Block block, Outer outer) {
        walk(block.from(), block.to(), block.line(), outer, block.name(), -1);
    }

    /**
     * Draws the entities between two places.
     *
     * @param space 0 for those of model space, 1 for those of the active layout, -1 for all
     */
    private void walk(int from, int to, int line, Outer outer, String block, int space) {
        if (outer.depth() > DEEPEST) throw new Canvas.TooMuch(block);
        TagCursor tags = new TagCursor(drawing.source, from, line);
        while (buffers.size() <= outer.depth() + 1) buffers.add(new Entity(drawing.source, drawing.names));
        Entity e = buffers.get(outer.depth());
        boolean more = tags.at < to && tags.next();
        while (true) {
            while (!more || tags.code != 0) {
                if (tags.at >= to) return;
                if (!more && !drawing.mend(tags)) return;
                more = tags.next();
            }
            if (tags.begin >= to || tags.is("ENDSEC") || tags.is("ENDBLK") || tags.is("EOF")) return;
            more = e.fill(tags);
            if (outer.depth() > 0) canvas.step(block);
            if (tags.damaged) {
                unreadable.merge(e.line, 1, Integer::sum);
                continue;
            }
            boolean here = space < 0 || e.whole(67, 0) == space;
            if (e.type().equals("POLYLINE")) {
                more = painter.polyline(e, tags, more, outer, here && e.whole(60, 0) == 0);
            } else if (here && e.whole(60, 0) == 0) {
                int drawn = canvas.out.size();
                painter.draw(e, outer);
                if (e.isUnreadable()) {
                    // Half an entity would be a lie: what it drew is taken back.
                    if (!e.type().equals("INSERT"))
                        canvas.out.subList(drawn, canvas.out.size()).clear();
                    unreadable.merge(e.line, 1, Integer::sum);
                }
            }
        }
    }

    void unreadable(Entity e) {
        unreadable.merge(e.line, 1, Integer::sum);
    }

    Entity scratch(Outer outer) {
        return buffers.get(outer.depth() + 1);
    }

    /** Model space through the viewports of the sheet. */
    private void lookThrough() {
        if (viewports.isEmpty()) return;
        SceneReader model = new SceneReader(drawing, canvas.tolerance);
        model.space("", false);
        for (Viewport viewport : viewports) {
            if (viewport.fromAside()) canvas.lacks("VIEWPORT not from above");
            else viewport.show(model.canvas.out, canvas);
        }
        model.canvas.notDrawn.forEach((type, n) -> canvas.notDrawn.merge(type, n, Integer::sum));
        model.unreadable.forEach((line, n) -> unreadable.merge(line, n, Integer::sum));
    }

    private void endless() {
        if (endless.isEmpty()) return;
        Box box = Box.EMPTY;
        for (Primitive p : canvas.out) box = box.with(p.box());
        for (Endless line : endless) box = box.with(line.x(), line.y());
        double margin = Math.max(Math.max(box.width(), box.height()) * 0.05, 1);
        double far = Math.hypot(box.width() + 2 * margin, box.height() + 2 * margin);
        for (Endless line : endless) {
            double length = Math.hypot(line.dx(), line.dy());
            if (length < 1e-12) continue;
            double ux = line.dx() / length * far;
            double uy = line.dy() / length * far;
            double[] points = {
                line.x() - (line.ray() ? 0 : ux), line.y() - (line.ray() ? 0 : uy), line.x() + ux, line.y() + uy
            };
            double[] cut = Clip.segment(points, box.grown(margin));
            if (cut.length == 4) {
                canvas.out.add(new Primitive.Polyline(line.source(), line.style(), cut, false));
            }
        }
    }
}
