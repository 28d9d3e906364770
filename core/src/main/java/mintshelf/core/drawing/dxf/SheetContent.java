package mintshelf.core.drawing.dxf;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.function.Consumer;
import mintshelf.core.drawing.Primitive;
import mintshelf.core.drawing.dxf.Attributes.Place;

/** What stands on the sheet itself, outside its blocks: single texts, and the rows of a block that is inserted once a row. */
public final class SheetContent {
    private SheetContent() {}

    /**
     * A text of the sheet.
     *
     * @param x of its insertion or alignment point, in the sheet's units
     * @param site where its value lies; empty for a text of several lines, which is read and never written
     * @param entity where the whole entity lies
     */
    public record Label(String value, double x, double y, Optional<Place> site, Place entity) {}

    /**
     * An inserted row.
     *
     * @param values by tag in capitals
     * @param sites of the values, by tag in capitals
     * @param widths of their letters, by tag in capitals
     * @param range from its insert to the end of its attributes
     */
    public record Row(
            double x,
            double y,
            Map<String, String> values,
            Map<String, List<Place>> sites,
            Map<String, LetterWidth> widths,
            Place range) {}

    /**
     * A value of the sheet as it is drawn: of a text or of an attribute, on one line.
     *
     * @param value where it begins in the file
     * @param x of the point that it stands at, in the sheet's units
     * @param across 0 from the point to the right, 1 about it, 2 up to it
     */
    public record Lettered(int value, double x, double y, double height, double angle, int across, LetterWidth width) {
        boolean isAt(Primitive.Text text) {
            return Math.abs(text.x() - x) < 1e-6 && Math.abs(text.y() - y) < 1e-6;
        }
    }

    /** The values of the sheet as they are drawn, by the place of each; those that lie turned over are left out. O(bytes). */
    public static Map<Integer, Lettered> lettered(DxfDrawing drawing) {
        Map<Integer, Lettered> all = new LinkedHashMap<>();
        Map<String, Double> defined = new HashMap<>();
        String[] block = {""};
        walk(drawing, e -> {
            if (e.type().equals("INSERT")) block[0] = e.text(2, "");
            boolean attribute = e.type().equals("ATTRIB");
            int at = e.find(1);
            if (!(attribute || e.type().equals("TEXT")) || at < 0 || e.find(1, at + 1) >= 0) return;
            int align = e.whole(72, 0);
            boolean second = (align != 0 || e.whole(attribute ? 74 : 73, 0) != 0) && e.has(11);
            if (align > 2 || e.whole(71, 0) != 0 || e.real(230, 1) < 0) return;
            double own = attribute
                    ? defined.computeIfAbsent(
                            block[0] + "/" + e.text(2, "").toUpperCase(Locale.ROOT),
                            key -> RowCells.definedWidth(drawing, key).orElse(LetterWidth.usual(drawing, e)))
                    : e.real(41, LetterWidth.usual(drawing, e));
            all.put(
                    e.start(at),
                    new Lettered(
                            e.start(at),
                            e.real(second ? 11 : 10, 0),
                            e.real(second ? 21 : 20, 0),
                            e.real(40, 0),
                            e.real(50, 0),
                            second ? align : 0,
                            LetterWidth.of(drawing, e, own)));
        });
        return all;
    }

    /** The texts of the space that a reader looks at first. O(bytes). */
    public static List<Label> labels(DxfDrawing drawing) {
        List<Label> labels = new ArrayList<>();
        walk(drawing, e -> {
            boolean one = e.type().equals("TEXT");
            if (!one && !e.type().equals("MTEXT")) return;
            int at = e.find(1);
            if (at < 0) return;
            boolean aligned = one && (e.whole(72, 0) != 0 || e.whole(73, 0) != 0) && e.has(11);
            String value = one
                    ? TextCodes.line(e.text(at))
                    : String.join(" ", TextCodes.lines(e.joined(3) + e.line(1))).strip();
            labels.add(new Label(
                    value,
                    e.real(aligned ? 11 : 10, 0),
                    e.real(aligned ? 21 : 20, 0),
                    one ? Optional.of(new Place(e.start(at), e.end(at))) : Optional.empty(),
                    new Place(e.begin, e.after)));
        });
        return labels;
    }

    /**
     * A line of the sheet or of a polyline on it.
     *
     * @param entity where the whole entity lies: several lines of one polyline have the same
     */
    public record Stroke(double x1, double y1, double x2, double y2, Place entity) {}

    /** The straight lines of the space that a reader looks at first; bulged ones are left out. O(bytes). */
    public static List<Stroke> strokes(DxfDrawing drawing) {
        List<Stroke> strokes = new ArrayList<>();
        Outline outline = new Outline();
        walk(drawing, e -> {
            switch (e.type()) {
                case "LINE" ->
                    strokes.add(new Stroke(
                            e.real(10, 0), e.real(20, 0), e.real(11, 0), e.real(21, 0), new Place(e.begin, e.after)));
                case "LWPOLYLINE" -> {
                    outline.begin(e);
                    double[] xs = e.all(10);
                    double[] ys = e.all(20);
                    for (int i = 0; i < Math.min(xs.length, ys.length); i++) outline.to(xs[i], ys[i]);
                    if (!e.has(42)) outline.end(e.after, strokes);
                }
                case "POLYLINE" -> outline.begin(e);
                case "VERTEX" -> outline.to(e.real(10, 0), e.real(20, 0));
                case "SEQEND" -> outline.end(e.after, strokes);
                default -> outline.from = -1;
            }
        });
        return strokes;
    }

    /** A polyline while its points come. */
    private static final class Outline {
        private final List<double[]> points = new ArrayList<>();
        private int from = -1;
        private boolean closed;

        void begin(Entity e) {
            points.clear();
            from = e.begin;
            closed = (e.whole(70, 0) & 1) != 0;
        }

        void to(double x, double y) {
            points.add(new double[] {x, y});
        }

        void end(int after, List<Stroke> strokes) {
            if (from < 0) return;
            Place entity = new Place(from, after);
            for (int i = 0; i + 1 < points.size(); i++) add(points.get(i), points.get(i + 1), entity, strokes);
            if (closed && points.size() > 2) add(points.get(points.size() - 1), points.get(0), entity, strokes);
            from = -1;
        }

        private static void add(double[] a, double[] b, Place entity, List<Stroke> strokes) {
            strokes.add(new Stroke(a[0], a[1], b[0], b[1], entity));
        }
    }

    /** The inserts of a block on the sheet, in the order of the file; without case. O(bytes). */
    public static List<Row> rows(DxfDrawing drawing, String block) {
        List<Row> rows = new ArrayList<>();
        Building building = new Building(drawing);
        walk(drawing, e -> {
            switch (e.type()) {
                case "INSERT" -> {
                    building.end(rows);
                    if (e.text(2, "").equalsIgnoreCase(block)) building.begin(e);
                }
                case "ATTRIB" -> building.attribute(e);
                case "SEQEND" -> building.last(e);
                default -> building.end(rows);
            }
        });
        building.end(rows);
        return rows;
    }

    private static final class Building {
        private final DxfDrawing drawing;
        private boolean open;
        private double x;
        private double y;
        private int from;
        private int to;
        private Map<String, String> values = new LinkedHashMap<>();
        private Map<String, List<Place>> sites = new LinkedHashMap<>();
        private Map<String, LetterWidth> widths = new LinkedHashMap<>();

        Building(DxfDrawing drawing) {
            this.drawing = drawing;
        }

        void begin(Entity e) {
            open = true;
            x = e.real(10, 0);
            y = e.real(20, 0);
            from = e.begin;
            to = e.after;
            values = new LinkedHashMap<>();
            sites = new LinkedHashMap<>();
            widths = new LinkedHashMap<>();
        }

        void attribute(Entity e) {
            if (!open) return;
            to = e.after;
            int at = e.find(1);
            String tag = e.text(2, "").toUpperCase(Locale.ROOT);
            if (at < 0 || values.putIfAbsent(tag, TextCodes.line(e.text(at))) != null) return;
            List<Place> places = new ArrayList<>();
            for (int i = at; i >= 0; i = e.find(1, i + 1)) places.add(new Place(e.start(i), e.end(i)));
            sites.put(tag, places);
            widths.put(tag, LetterWidth.of(drawing, e, LetterWidth.usual(drawing, e)));
        }

        void last(Entity e) {
            if (open) to = e.after;
        }

        void end(List<Row> rows) {
            if (open) rows.add(new Row(x, y, values, sites, widths, new Place(from, to)));
            open = false;
        }
    }

    /** Walks over the entities of the sheet itself. What a buffer holds ends with the call. */
    private static void walk(DxfDrawing drawing, Consumer<Entity> each) {
        DxfDrawing.Room room = drawing.room();
        if (room.from() < 0) return;
        TagCursor tags = new TagCursor(drawing.source, room.from(), 1);
        Entity e = new Entity(drawing.source, drawing.names);
        boolean more = tags.next();
        // Attributes and end marks carry no space of their own in files of old releases: they follow their insert.
        boolean here = true;
        while (true) {
            while (!more || tags.code != 0) {
                if (tags.at >= room.to()) return;
                if (!more && (!tags.damaged || !tags.resume())) return;
                more = tags.next();
            }
            if (tags.begin >= room.to()) return;
            more = e.fill(tags);
            boolean part = e.type().equals("ATTRIB")
                    || e.type().equals("SEQEND")
                    || e.type().equals("VERTEX");
            if (!part) here = room.space() < 0 || e.whole(67, 0) == room.space();
            if (here) each.accept(e);
        }
    }
}
