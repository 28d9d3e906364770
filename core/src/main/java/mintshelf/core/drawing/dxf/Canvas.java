package mintshelf.core.drawing.dxf;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import mintshelf.core.drawing.Primitive;
import mintshelf.core.drawing.Source;
import mintshelf.core.drawing.Style;

/** Takes what entities draw in their own coordinates and keeps it as primitives in those of the sheet. */
final class Canvas {
    /** What blocks may expand to: far beyond any sheet, and within the memory of a server. */
    static final int MOST_FROM_BLOCKS = 1_000_000;
    /** After how many bytes more room is asked for again. */
    private static final long GROWN = 1 << 18;

    private static final long OBJECT = 160;

    final double tolerance;
    final List<Primitive> out = new ArrayList<>();
    final Map<String, Integer> notDrawn = new TreeMap<>();
    private final DxfDrawing drawing;
    private final boolean pensByColour;
    private final double lineScale;
    private final Map<StyleKey, Style> styles = new HashMap<>();
    private final Map<String, Style> byLayer = new HashMap<>();
    private final Map<String, DxfDrawing.Layer> layers = new HashMap<>();
    private int fromBlocks;
    private long growing;
    private int steps;

    private record StyleKey(String layer, int colour, List<Double> dashes, double weight) {}

    /** The scene has grown beyond the room that there is for it. */
    static final class NoRoom extends RuntimeException {
        NoRoom() {
            super("", null, false, false);
        }
    }

    /** Blocks expand beyond all bounds; the message is the block's name. */
    static final class TooMuch extends RuntimeException {
        TooMuch(String block) {
            super(block, null, false, false);
        }
    }

    Canvas(DxfDrawing drawing, double tolerance) {
        this.drawing = drawing;
        this.tolerance = tolerance;
        // Before AC1015 drawings know no line widths: the pen went by the colour, thick for the paper's ink.
        this.pensByColour = drawing.version().compareTo("AC1015") < 0;
        double scale = drawing.variable("$LTSCALE", 1);
        this.lineScale = scale > 0 && scale < 1e6 ? scale : 1;
    }

    void lacks(String what) {
        notDrawn.merge(what, 1, Integer::sum);
    }

    /** Counts a step inside blocks; refuses when there are too many, even of steps that draw nothing. */
    void step(String block) {
        if (++steps > 4 * MOST_FROM_BLOCKS) throw new TooMuch(block);
    }

    /** Room for that many more inserts inside blocks. */
    void room(long inserts, String block) {
        if (inserts > MOST_FROM_BLOCKS) throw new TooMuch(block);
    }

    Source source(Entity e, Outer outer) {
        long own = outer.depth() == 0 ? e.handle(5) : outer.handle();
        return new Source(own, outer.path(), e.type(), outer.depth() == 0 ? e.begin : outer.at());
    }

    /** The layer that an entity is drawn on: what stands on 0 inside a block goes with the block's insert. */
    String layerOf(Entity e, Outer outer) {
        String layer = e.name(8, "0");
        return outer.depth() > 0 && layer.equals("0") ? outer.layer() : layer;
    }

    int colourOf(Entity e, Outer outer, DxfDrawing.Layer layer) {
        int colour = e.whole(62, 256);
        if (colour == 0) return outer.colour();
        int rgb = e.whole(420, -1);
        if (rgb >= 0) return Colours.readable(rgb & 0xffffff);
        if (colour != 256) return Colours.of(colour);
        return layer.rgb() >= 0 ? Colours.readable(layer.rgb()) : Colours.of(layer.colour());
    }

    /** A layer by its name in any case; one that the tables lack is drawn in ink. */
    DxfDrawing.Layer layer(String name) {
        DxfDrawing.Layer layer = layers.get(name);
        if (layer == null) {
            layer = drawing.layers.getOrDefault(
                    DxfDrawing.key(name), new DxfDrawing.Layer(name, 7, -1, "CONTINUOUS", -3, true));
            layers.put(name, layer);
        }
        return layer;
    }

    List<Double> dashesOf(Entity e, Outer outer, DxfDrawing.Layer layer) {
        String type = DxfDrawing.key(e.name(6, "BYLAYER"));
        if (type.equals("BYBLOCK")) return outer.dashes();
        if (type.equals("BYLAYER")) type = DxfDrawing.key(layer.lineType());
        List<Double> dashes = drawing.lineTypes.getOrDefault(type, List.of());
        if (dashes.isEmpty()) return List.of();
        double scale = lineScale * Math.abs(e.real(48, 1));
        List<Double> scaled = new ArrayList<>();
        for (double dash : dashes) scaled.add(Math.max(Math.abs(dash) * scale, 0.05 * scale));
        return scaled.size() % 2 == 0 ? scaled : List.of();
    }

    double weightOf(Entity e, Outer outer, DxfDrawing.Layer layer, int colour) {
        int weight = e.whole(370, -1);
        if (weight == -2) return outer.weight();
        if (weight < 0) weight = layer.weight();
        if (weight > 0) return weight / 100.0;
        return pensByColour && colour == Style.INK ? 0.5 : 0.25;
    }

    Style style(Entity e, Outer outer) {
        String name = layerOf(e, outer);
        // Most entities leave all to their layer: then one lookup is enough.
        if (outer.depth() == 0 && !e.hasStyle()) {
            Style known = byLayer.get(name);
            if (known == null) {
                known = resolved(e, outer, name);
                byLayer.put(name, known);
            }
            return known;
        }
        return resolved(e, outer, name);
    }

    private Style resolved(Entity e, Outer outer, String name) {
        DxfDrawing.Layer layer = layer(name);
        int colour = colourOf(e, outer, layer);
        StyleKey key = new StyleKey(layer.name(), colour, dashesOf(e, outer, layer), weightOf(e, outer, layer, colour));
        return styles.computeIfAbsent(key, k -> new Style(k.layer(), k.colour(), k.weight(), k.dashes()));
    }

    void add(Primitive primitive, Outer outer) {
        if (outer.depth() > 0 && ++fromBlocks > MOST_FROM_BLOCKS) throw new TooMuch(outer.path());
        out.add(primitive);
        growing += size(primitive);
        if (growing < GROWN) return;
        if (!drawing.meter().takes(growing)) throw new NoRoom();
        growing = 0;
    }

    /** Bytes of memory that a primitive takes, as an object and in the picture that is written of it; about. */
    private static long size(Primitive primitive) {
        if (primitive instanceof Primitive.Polyline p) return OBJECT + 24L * p.points().length;
        if (primitive instanceof Primitive.Strokes s) return OBJECT + 24L * s.ends().length;
        if (primitive instanceof Primitive.Text t) return OBJECT + 6L * t.text().length();
        if (primitive instanceof Primitive.Fill f) {
            long size = OBJECT;
            for (double[] ring : f.rings()) size += OBJECT / 2 + 24L * ring.length;
            return size;
        }
        return OBJECT;
    }

    static boolean finite(double... numbers) {
        for (double n : numbers) if (!(Math.abs(n) <= 1e15)) return false;
        return true;
    }

    static double[] place(Placement p, double[] points) {
        if (p.isIdentity()) return points;
        double[] placed = new double[points.length];
        for (int i = 0; i + 1 < points.length; i += 2) {
            placed[i] = p.x(points[i], points[i + 1]);
            placed[i + 1] = p.y(points[i], points[i + 1]);
        }
        return placed;
    }

    void line(Source source, Style style, Outer outer, boolean closed, double... points) {
        double[] placed = place(outer.placement(), points);
        if (placed.length >= 4 && finite(placed)) add(new Primitive.Polyline(source, style, placed, closed), outer);
    }

    void fill(Source source, Style style, Outer outer, double[]... rings) {
        double[][] placed = new double[rings.length][];
        for (int i = 0; i < rings.length; i++) {
            placed[i] = place(outer.placement(), rings[i]);
            if (!finite(placed[i])) return;
        }
        add(new Primitive.Fill(source, style, placed), outer);
    }

    void strokes(Source source, Style style, Outer outer, double[] ends) {
        double[] placed = place(outer.placement(), ends);
        if (placed.length >= 4 && finite(placed)) add(new Primitive.Strokes(source, style, placed), outer);
    }

    /** A circle's arc; sweeps of either sign. Under uneven scales it becomes points of an ellipse. */
    void arc(Source source, Style style, Outer outer, double x, double y, double r, double from, double sweep) {
        if (sweep < 0) {
            from += sweep;
            sweep = -sweep;
        }
        Placement p = outer.placement();
        if (!finite(x, y, r, from, sweep) || r <= 0) return;
        if (p.keepsCircles()) {
            double start = p.isMirrored() ? p.angle() - from - sweep : p.angle() + from;
            double px = p.x(x, y);
            double py = p.y(x, y);
            double pr = r * p.size();
            if (finite(px, py, pr)) {
                start = start % 360;
                add(
                        new Primitive.Arc(
                                source, style, px, py, pr, start < 0 ? start + 360 : start, Math.min(sweep, 360)),
                        outer);
            }
        } else {
            line(source, style, outer, sweep >= 360, Curves.ellipse(x, y, r, 0, 0, r, from, sweep, tolerance));
        }
    }

    /**
     * Vertices with bulges: straight runs as one polyline, arcs as arcs, so that their centres can be found. Whole polylines
     * without bulges stay closed.
     */
    void bulged(Source source, Style style, Outer outer, double[] xs, double[] ys, double[] bulges, boolean closed) {
        int n = Math.min(xs.length, ys.length);
        if (n < 2) {
            if (n == 1) line(source, style, outer, false, xs[0], ys[0], xs[0], ys[0]);
            return;
        }
        boolean straight = true;
        for (int i = 0; i < n && straight; i++) straight = i >= bulges.length || bulges[i] == 0;
        if (straight) {
            double[] points = new double[2 * n];
            for (int i = 0; i < n; i++) {
                points[2 * i] = xs[i];
                points[2 * i + 1] = ys[i];
            }
            line(source, style, outer, closed && n > 2, points);
            return;
        }
        Curves.Points run = new Curves.Points();
        run.add(xs[0], ys[0]);
        for (int i = 0; i < (closed ? n : n - 1); i++) {
            int next = (i + 1) % n;
            double bulge = i < bulges.length ? bulges[i] : 0;
            boolean same = xs[i] == xs[next] && ys[i] == ys[next];
            if (bulge == 0 || same) {
                if (!same) run.add(xs[next], ys[next]);
                continue;
            }
            if (run.count() > 1) line(source, style, outer, false, run.toArray());
            double[] arc = Curves.bulge(xs[i], ys[i], xs[next], ys[next], bulge);
            arc(source, style, outer, arc[0], arc[1], arc[2], arc[3], arc[4]);
            run = new Curves.Points();
            run.add(xs[next], ys[next]);
        }
        if (run.count() > 1) line(source, style, outer, false, run.toArray());
    }

    void text(
            Source source,
            Style style,
            Outer outer,
            double x,
            double y,
            double height,
            double angle,
            double width,
            int across,
            int up,
            String text) {
        Placement p = outer.placement().of(Placement.turn(angle));
        double h = height * p.heightOf();
        double px = outer.placement().x(x, y);
        double py = outer.placement().y(x, y);
        if (text.isBlank() || !finite(px, py, h) || h <= 0) return;
        double wide = width * p.size() / Math.max(p.heightOf(), 1e-12);
        add(
                new Primitive.Text(
                        source,
                        style,
                        px,
                        py,
                        h,
                        p.angle(),
                        Math.max(0.1, Math.min(wide, 10)),
                        across,
                        up,
                        p.isMirrored(),
                        text),
                outer);
    }
}
