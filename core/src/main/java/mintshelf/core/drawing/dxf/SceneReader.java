package mintshelf.core.drawing.dxf;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.TreeMap;
import mintshelf.core.base.Outcome;
import mintshelf.core.drawing.Primitive;
import mintshelf.core.drawing.Scene;
import mintshelf.core.drawing.Style;

/**
 * Flattens the model space of an exchange drawing into a scene: blocks are expanded where they are inserted, BYLAYER and BYBLOCK
 * are resolved, dimensions are drawn by their blocks. What it does not know is counted by type.
 *
 * <p>O(tags + primitives); the expansion of blocks is bounded in depth and number, so that nested arrays end in a refusal that
 * names the block.
 */
public final class SceneReader {
    private static final int DEEPEST = 24;
    private static final int MOST = 400_000;

    private final DxfTags tags;
    private final Map<String, Layer> layers = new TreeMap<>();
    private final Map<String, List<Double>> lineTypes = new HashMap<>();
    private final Map<String, Block> blocks = new HashMap<>();
    private final List<Primitive> out = new ArrayList<>();
    private final Map<String, Integer> notDrawn = new TreeMap<>();
    private final boolean pensByColour;

    private record Layer(int colour, String lineType, int weight, boolean shown) {}

    private record Block(int from, int to, double x, double y) {}

    /** What an entity takes from the insert that it stands in. */
    private record Outer(Placement placement, String layer, int colour, int depth) {}

    private static final class TooMuch extends RuntimeException {
        TooMuch(String block) {
            super(block, null, false, false);
        }
    }

    private SceneReader(DxfTags tags) {
        this.tags = tags;
        // Before AC1015 drawings know no line widths: the pen went by the colour, thick for the paper's ink.
        this.pensByColour = tags.version().compareTo("AC1015") < 0;
    }

    /** Reads the scene, or says which block expands without end. */
    public static Outcome<Scene> read(DxfTags tags) {
        SceneReader reader = new SceneReader(tags);
        try {
            reader.sections();
        } catch (TooMuch e) {
            return Outcome.refused(
                    "dxf.blocks",
                    "The block “" + e.getMessage() + "” expands beyond all bounds.",
                    "It is kept without a picture.");
        }
        Map<String, Boolean> shown = new TreeMap<>();
        reader.layers.forEach((name, layer) -> shown.put(name, layer.shown()));
        reader.out.forEach(p -> shown.putIfAbsent(p.style().layer(), true));
        return Outcome.granted(new Scene(reader.out, shown, reader.notDrawn));
    }

    private void sections() {
        int entities = -1;
        for (int i = 0; i < tags.size(); i++) {
            if (!tags.is(i, 0, "SECTION") || i + 1 >= tags.size()) continue;
            if (tags.is(i + 1, 2, "TABLES")) tables(i + 2);
            else if (tags.is(i + 1, 2, "BLOCKS")) blocks(i + 2);
            else if (tags.is(i + 1, 2, "ENTITIES")) entities = i + 2;
        }
        if (entities >= 0) {
            walk(entities, tags.size(), new Outer(Placement.IDENTITY, "0", 7, 0), "ENTITIES");
        }
    }

    private int next(int from) {
        int i = from + 1;
        while (i < tags.size() && tags.code(i) != 0) i++;
        return i;
    }

    private void tables(int from) {
        for (int i = from; i < tags.size() && !tags.is(i, 0, "ENDSEC"); i = next(i)) {
            if (tags.is(i, 0, "LAYER")) {
                Entity e = entity(i);
                int colour = e.whole(62, 7);
                boolean shown = colour >= 0 && (e.whole(70, 0) & 1) == 0;
                layers.put(
                        e.text(2, "0"), new Layer(Math.abs(colour), e.text(6, "CONTINUOUS"), e.whole(370, -3), shown));
            } else if (tags.is(i, 0, "LTYPE")) {
                Entity e = entity(i);
                List<Double> dashes = new ArrayList<>();
                for (double dash : e.all(49)) dashes.add(Math.max(Math.abs(dash), 0.1));
                lineTypes.put(e.text(2, "").toUpperCase(Locale.ROOT), dashes.size() % 2 == 0 ? dashes : List.of());
            }
        }
    }

    private void blocks(int from) {
        for (int i = from; i < tags.size() && !tags.is(i, 0, "ENDSEC"); i = next(i)) {
            if (!tags.is(i, 0, "BLOCK")) continue;
            Entity head = entity(i);
            int start = next(i);
            int end = start;
            while (end < tags.size() && !tags.is(end, 0, "ENDBLK") && !tags.is(end, 0, "ENDSEC")) end = next(end);
            blocks.put(key(head.text(2, "")), new Block(start, end, head.number(10, 0), head.number(20, 0)));
            i = end - 1;
            while (i >= 0 && tags.code(i) != 0) i--;
            if (i < start) i = start - 1;
        }
    }

    private static String key(String name) {
        return name.toUpperCase(Locale.ROOT);
    }

    private Entity entity(int at) {
        return new Entity(tags, at, next(at));
    }

    private void walk(int from, int to, Outer outer, String block) {
        if (outer.depth() > DEEPEST) throw new TooMuch(block);
        int i = from;
        while (i < to && !tags.is(i, 0, "ENDSEC")) {
            Entity e = entity(i);
            int after = e.end();
            if (e.type().equals("POLYLINE")) {
                while (after < to && !tags.is(after, 0, "SEQEND") && tags.is(after, 0, "VERTEX")) after = next(after);
                polyline(e, after, outer);
                if (after < to && tags.is(after, 0, "SEQEND")) after = next(after);
            } else if (e.whole(67, 0) == 0 && e.whole(60, 0) == 0) {
                draw(e, outer);
            }
            if (out.size() > MOST) throw new TooMuch(block);
            i = after;
        }
    }

    private void draw(Entity e, Outer outer) {
        Outer own = e.number(230, 1) < 0
                ? new Outer(outer.placement().of(Placement.scale(-1, 1)), outer.layer(), outer.colour(), outer.depth())
                : outer;
        switch (e.type()) {
            case "LINE" ->
                line(style(e, outer), outer, e.number(10, 0), e.number(20, 0), e.number(11, 0), e.number(21, 0));
            case "CIRCLE" -> arc(style(e, outer), own, e.number(10, 0), e.number(20, 0), e.number(40, 0), 0, 360);
            case "ARC" -> {
                double start = e.number(50, 0);
                double sweep = (e.number(51, 0) - start) % 360;
                arc(
                        style(e, outer),
                        own,
                        e.number(10, 0),
                        e.number(20, 0),
                        e.number(40, 0),
                        start,
                        sweep <= 0 ? sweep + 360 : sweep);
            }
            case "ELLIPSE" -> ellipse(e, own);
            case "LWPOLYLINE" ->
                bulged(style(e, outer), own, e.all(10), e.all(20), e.bulges(), (e.whole(70, 0) & 1) == 1);
            case "SOLID", "TRACE", "3DFACE" -> solid(e, own);
            case "TEXT", "ATTRIB" -> text(e, own);
            case "MTEXT" -> mtext(e, own);
            case "INSERT" -> insert(e, own);
            case "DIMENSION" -> dimension(e, outer);
            case "HATCH" -> hatch(e, own);
            case "ATTDEF", "SEQEND", "VERTEX", "ENDBLK", "EOF", "VIEWPORT", "POINT" -> {
                // Nothing to draw, or drawn with what it belongs to.
            }
            default -> notDrawn.merge(e.type(), 1, Integer::sum);
        }
    }

    private Style style(Entity e, Outer outer) {
        String layer = e.text(8, "0");
        if (layer.equals("0") && outer.depth() > 0) layer = outer.layer();
        Layer own = layers.getOrDefault(layer, new Layer(7, "CONTINUOUS", -3, true));
        int colour = e.whole(62, 256);
        if (colour == 256) colour = own.colour();
        else if (colour == 0) colour = outer.colour();
        int rgb = e.has(420) ? Colours.readable(e.whole(420, 0) & 0xffffff) : Colours.of(colour);
        String lineType = e.text(6, "BYLAYER");
        if (key(lineType).equals("BYLAYER")) lineType = own.lineType();
        int weight = e.whole(370, -1);
        if (weight < 0) weight = own.weight();
        double width = weight > 0 ? weight / 100.0 : pensByColour && rgb == Style.INK ? 0.5 : 0.25;
        return new Style(layer, rgb, width, lineTypes.getOrDefault(key(lineType), List.of()));
    }

    private void add(Primitive primitive) {
        out.add(primitive);
    }

    private static boolean finite(double... numbers) {
        for (double n : numbers) if (!Double.isFinite(n) || Math.abs(n) > 1e15) return false;
        return true;
    }

    private void line(Style style, Outer outer, double... points) {
        poly(style, outer, points, false);
    }

    private void poly(Style style, Outer outer, double[] points, boolean closed) {
        double[] placed = place(outer, points);
        if (placed.length < 4 || !finite(placed)) return;
        add(new Primitive.Polyline(style, placed, closed));
    }

    private static double[] place(Outer outer, double[] points) {
        double[] placed = new double[points.length];
        for (int i = 0; i + 1 < points.length; i += 2) {
            placed[i] = outer.placement().x(points[i], points[i + 1]);
            placed[i + 1] = outer.placement().y(points[i], points[i + 1]);
        }
        return placed;
    }

    private void arc(Style style, Outer outer, double x, double y, double r, double from, double sweep) {
        Placement p = outer.placement();
        if (!finite(x, y, r, from, sweep) || r <= 0) return;
        if (p.keepsCircles()) {
            double start = p.isMirrored() ? p.angle() - from - sweep : p.angle() + from;
            add(new Primitive.Arc(style, p.x(x, y), p.y(x, y), r * p.size(), start, sweep));
        } else {
            poly(style, outer, sampled(x, y, r, 0, 1, from, sweep), false);
        }
    }

    /** Points along an ellipse: major axis (dx, dy), ratio of the minor one. */
    private static double[] sampled(double x, double y, double dx, double dy, double ratio, double from, double sweep) {
        int steps = Math.max(8, (int) Math.ceil(Math.abs(sweep) / 5));
        double[] points = new double[2 * (steps + 1)];
        for (int i = 0; i <= steps; i++) {
            double a = Math.toRadians(from + sweep * i / steps);
            points[2 * i] = x + dx * Math.cos(a) - dy * ratio * Math.sin(a);
            points[2 * i + 1] = y + dy * Math.cos(a) + dx * ratio * Math.sin(a);
        }
        return points;
    }

    private void ellipse(Entity e, Outer outer) {
        double from = Math.toDegrees(e.number(41, 0));
        double sweep = Math.toDegrees(e.number(42, 2 * Math.PI)) - from;
        poly(
                style(e, outer),
                outer,
                sampled(
                        e.number(10, 0),
                        e.number(20, 0),
                        e.number(11, 1),
                        e.number(21, 0),
                        e.number(40, 1),
                        from,
                        sweep <= 0 ? sweep + 360 : sweep),
                false);
    }

    private void polyline(Entity head, int end, Outer outer) {
        if (head.whole(67, 0) != 0) return;
        int flags = head.whole(70, 0);
        if ((flags & 16) != 0 || (flags & 64) != 0) {
            notDrawn.merge("POLYLINE mesh", 1, Integer::sum);
            return;
        }
        List<Double> xs = new ArrayList<>();
        List<Double> ys = new ArrayList<>();
        List<Double> bulges = new ArrayList<>();
        for (int i = head.end(); i < end; i = next(i)) {
            Entity vertex = entity(i);
            if ((vertex.whole(70, 0) & 16) != 0) continue; // a control point of a fitted curve
            xs.add(vertex.number(10, 0));
            ys.add(vertex.number(20, 0));
            bulges.add(vertex.number(42, 0));
        }
        Outer own = head.number(230, 1) < 0
                ? new Outer(outer.placement().of(Placement.scale(-1, 1)), outer.layer(), outer.colour(), outer.depth())
                : outer;
        bulged(style(head, outer), own, xs, ys, bulges, (flags & 1) == 1);
    }

    /** A bulge is the tangent of a quarter of the arc's angle; positive turns left. */
    private void bulged(
            Style style, Outer outer, List<Double> xs, List<Double> ys, List<Double> bulges, boolean closed) {
        int n = Math.min(xs.size(), ys.size());
        if (n < 2) return;
        List<Double> points = new ArrayList<>();
        for (int i = 0; i < n; i++) {
            double x1 = xs.get(i);
            double y1 = ys.get(i);
            points.add(x1);
            points.add(y1);
            double bulge = i < bulges.size() ? bulges.get(i) : 0;
            if (bulge == 0 || (!closed && i == n - 1)) continue;
            double x2 = xs.get((i + 1) % n);
            double y2 = ys.get((i + 1) % n);
            double angle = 4 * Math.atan(bulge);
            double cx = (x1 + x2) / 2 - (y2 - y1) / 2 * (1 - bulge * bulge) / (2 * bulge);
            double cy = (y1 + y2) / 2 + (x2 - x1) / 2 * (1 - bulge * bulge) / (2 * bulge);
            double start = Math.atan2(y1 - cy, x1 - cx);
            double r = Math.hypot(x1 - cx, y1 - cy);
            int steps = (int) Math.max(2, Math.ceil(Math.abs(Math.toDegrees(angle)) / 6));
            for (int s = 1; s < steps; s++) {
                double a = start + angle * s / steps;
                points.add(cx + r * Math.cos(a));
                points.add(cy + r * Math.sin(a));
            }
        }
        poly(style, outer, points.stream().mapToDouble(d -> d).toArray(), closed);
    }

    private void solid(Entity e, Outer outer) {
        double[] p = {
            e.number(10, 0), e.number(20, 0), e.number(11, 0), e.number(21, 0),
            e.number(13, e.number(12, 0)), e.number(23, e.number(22, 0)), e.number(12, 0), e.number(22, 0)
        };
        if (e.type().equals("3DFACE")) {
            line(style(e, outer), outer, p[0], p[1], p[2], p[3], p[6], p[7], p[4], p[5], p[0], p[1]);
            return;
        }
        double[] placed = place(outer, p);
        if (finite(placed)) add(new Primitive.Fill(style(e, outer), placed));
    }

    private void text(Entity e, Outer outer) {
        if (e.type().equals("ATTRIB") && (e.whole(70, 0) & 1) == 1) return;
        int across = e.whole(72, 0);
        int up = e.type().equals("ATTRIB") ? e.whole(74, 0) : e.whole(73, 0);
        boolean second = (across != 0 || up != 0) && e.has(11);
        double x = second ? e.number(11, 0) : e.number(10, 0);
        double y = second ? e.number(21, 0) : e.number(20, 0);
        if (across == 3 || across == 5) {
            across = 1;
            x = (e.number(10, 0) + e.number(11, 0)) / 2;
            y = (e.number(20, 0) + e.number(21, 0)) / 2;
        }
        if (across == 4) {
            across = 1;
            up = 2;
        }
        place(
                style(e, outer),
                outer,
                x,
                y,
                e.number(40, 2.5),
                e.number(50, 0),
                e.number(41, 1),
                across,
                up,
                TextCodes.line(e.text(1, "")));
    }

    private void place(
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
        add(new Primitive.Text(
                style, px, py, h, p.angle(), Math.max(0.1, Math.min(width, 10)), across, up, p.isMirrored(), text));
    }

    private void mtext(Entity e, Outer outer) {
        List<String> lines = TextCodes.lines(e.joined(3) + e.text(1, ""));
        double height = e.number(40, 2.5);
        int at = Math.max(1, Math.min(9, e.whole(71, 1)));
        int across = (at - 1) % 3;
        int row = (at - 1) / 3;
        double angle = e.has(11) ? Math.toDegrees(Math.atan2(e.number(21, 0), e.number(11, 1))) : e.number(50, 0);
        double step = height * 5 / 3 * e.number(44, 1);
        double total = (lines.size() - 1) * step;
        double first = row == 0 ? 0 : row == 1 ? total / 2 : total;
        double r = Math.toRadians(angle);
        for (int i = 0; i < lines.size(); i++) {
            double down = i * step - first;
            place(
                    style(e, outer),
                    outer,
                    e.number(10, 0) + Math.sin(r) * down,
                    e.number(20, 0) - Math.cos(r) * down,
                    height,
                    angle,
                    1,
                    across,
                    row == 0 ? 3 : row == 1 ? 2 : 1,
                    lines.get(i));
        }
    }

    private void insert(Entity e, Outer outer) {
        Block block = blocks.get(key(e.text(2, "")));
        if (block == null) {
            notDrawn.merge("INSERT of a missing block", 1, Integer::sum);
            return;
        }
        int columns = Math.max(1, e.whole(70, 1));
        int rows = Math.max(1, e.whole(71, 1));
        if ((long) columns * rows > MOST) throw new TooMuch(e.text(2, ""));
        Style style = style(e, outer);
        int colour = e.whole(62, 256);
        if (colour == 256)
            colour = layers.getOrDefault(style.layer(), new Layer(7, "", -3, true))
                    .colour();
        else if (colour == 0) colour = outer.colour();
        Placement at = outer.placement()
                .of(Placement.move(e.number(10, 0), e.number(20, 0)))
                .of(Placement.turn(e.number(50, 0)));
        for (int row = 0; row < rows; row++) {
            for (int column = 0; column < columns; column++) {
                Placement placed = at.of(Placement.move(column * e.number(44, 0), row * e.number(45, 0)))
                        .of(Placement.scale(e.number(41, 1), e.number(42, 1)))
                        .of(Placement.move(-block.x(), -block.y()));
                walk(
                        block.from(),
                        block.to(),
                        new Outer(placed, style.layer(), colour, outer.depth() + 1),
                        e.text(2, ""));
            }
        }
    }

    private void dimension(Entity e, Outer outer) {
        Block block = blocks.get(key(e.text(2, "")));
        if (block == null) {
            notDrawn.merge("DIMENSION without its block", 1, Integer::sum);
            return;
        }
        Style style = style(e, outer);
        walk(
                block.from(),
                block.to(),
                new Outer(outer.placement(), style.layer(), outer.colour(), outer.depth() + 1),
                e.text(2, ""));
    }

    /** The outline only: paths of vertices (92 with bit 2) and of lines and arcs. */
    private void hatch(Entity e, Outer outer) {
        Style style = style(e, outer);
        for (Entity.HatchPath path : e.hatchPaths()) bulged(style, outer, path.xs(), path.ys(), path.bulges(), true);
    }
}
