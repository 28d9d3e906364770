package mintshelf.demo.sheet;

import java.nio.charset.Charset;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import mintshelf.core.drawing.Lettering;

/**
 * Writes an ASCII exchange drawing of release 12, which every drafting program opens: layers with line types and colours,
 * lines, circles, arcs, texts, dimensions with their blocks, and a title block with attributes. Units: millimetres on the sheet.
 */
public final class DxfWriter {
    private static final Charset WINDOWS = Charset.forName("windows-1252");

    private final StringBuilder entities = new StringBuilder();
    private final Map<String, String> blocks = new LinkedHashMap<>();
    private final Map<String, String> externals = new LinkedHashMap<>();
    private StringBuilder target = entities;
    private int dimensions;

    /** Outlines, hidden edges, centre lines, dimensions, texts, hatching, frame. */
    public enum Layer {
        OUTLINE(7, "CONTINUOUS"),
        HIDDEN(8, "DASHED"),
        CENTRE(1, "CENTER"),
        DIM(3, "CONTINUOUS"),
        TEXT(7, "CONTINUOUS"),
        HATCH(8, "CONTINUOUS"),
        FRAME(7, "CONTINUOUS"),
        GRID(250, "CONTINUOUS");

        private final int colour;
        private final String lineType;

        Layer(int colour, String lineType) {
            this.colour = colour;
            this.lineType = lineType;
        }
    }

    private void tag(int code, String value) {
        target.append(String.format(Locale.ROOT, "%3d", code))
                .append("\r\n")
                .append(value)
                .append("\r\n");
    }

    private void tag(int code, double value) {
        String text = String.format(Locale.ROOT, "%.4f", value);
        tag(code, text.replaceAll("0+$", "").replaceAll("\\.$", ".0"));
    }

    private void entity(String type, Layer layer) {
        tag(0, type);
        tag(8, layer.name());
    }

    public void line(Layer layer, double x1, double y1, double x2, double y2) {
        entity("LINE", layer);
        tag(10, x1);
        tag(20, y1);
        tag(11, x2);
        tag(21, y2);
    }

    public void box(Layer layer, double x1, double y1, double x2, double y2) {
        line(layer, x1, y1, x2, y1);
        line(layer, x2, y1, x2, y2);
        line(layer, x2, y2, x1, y2);
        line(layer, x1, y2, x1, y1);
    }

    public void circle(Layer layer, double x, double y, double radius) {
        entity("CIRCLE", layer);
        tag(10, x);
        tag(20, y);
        tag(40, radius);
    }

    /** Counter-clockwise, angles in degrees. */
    public void arc(Layer layer, double x, double y, double radius, double from, double to) {
        entity("ARC", layer);
        tag(10, x);
        tag(20, y);
        tag(40, radius);
        tag(50, from);
        tag(51, to);
    }

    public void text(Layer layer, double x, double y, double height, String text) {
        text(layer, x, y, height, 0, text, 0);
    }

    /** {@code middle}: 1 puts the text's middle at the point, 0 its left end. */
    public void text(Layer layer, double x, double y, double height, double angle, String text, int middle) {
        entity("TEXT", layer);
        tag(10, x);
        tag(20, y);
        tag(40, height);
        tag(1, text);
        if (angle != 0) tag(50, angle);
        if (middle == 1) {
            tag(72, "1");
            tag(11, x);
            tag(21, y);
        }
    }

    /** A centre cross over a hole. */
    public void cross(double x, double y, double reach) {
        line(Layer.CENTRE, x - reach, y, x + reach, y);
        line(Layer.CENTRE, x, y - reach, x, y + reach);
    }

    /** A rounded rectangle. */
    public void roundedBox(Layer layer, double x1, double y1, double x2, double y2, double r) {
        line(layer, x1 + r, y1, x2 - r, y1);
        line(layer, x2, y1 + r, x2, y2 - r);
        line(layer, x2 - r, y2, x1 + r, y2);
        line(layer, x1, y2 - r, x1, y1 + r);
        arc(layer, x1 + r, y1 + r, r, 180, 270);
        arc(layer, x2 - r, y1 + r, r, 270, 360);
        arc(layer, x2 - r, y2 - r, r, 0, 90);
        arc(layer, x1 + r, y2 - r, r, 90, 180);
    }

    /** A revision cloud round a box: a closed line of arcs that bulge outwards, about 4 mm each. */
    public void cloud(double x1, double y1, double x2, double y2) {
        entity("POLYLINE", Layer.TEXT);
        tag(66, "1");
        tag(70, "1");
        int across = (int) Math.max(2, Math.round((x2 - x1) / 4));
        int up = (int) Math.max(2, Math.round((y2 - y1) / 4));
        for (int i = 0; i < across; i++) lobe(x1 + (x2 - x1) * i / across, y1);
        for (int i = 0; i < up; i++) lobe(x2, y1 + (y2 - y1) * i / up);
        for (int i = 0; i < across; i++) lobe(x2 - (x2 - x1) * i / across, y2);
        for (int i = 0; i < up; i++) lobe(x1, y2 - (y2 - y1) * i / up);
        entity("SEQEND", Layer.TEXT);
    }

    private void lobe(double x, double y) {
        entity("VERTEX", Layer.TEXT);
        tag(10, x);
        tag(20, y);
        tag(42, 0.7);
    }

    /** Hatching under 45 degrees as single lines, clipped to a box. */
    public void hatch(double x1, double y1, double x2, double y2, double step) {
        double height = y2 - y1;
        for (double x = x1 - height + step; x < x2; x += step) {
            double from = Math.max(x, x1);
            double to = Math.min(x + height, x2);
            if (to > from) line(Layer.HATCH, from, y1 + (from - x), to, y1 + (to - x));
        }
    }

    /** A horizontal dimension at height {@code y} over two points; {@code shown} empty: the measured length. */
    public void across(double x1, double y1, double x2, double y2, double y, double scale, String shown) {
        String text = shown.isEmpty() ? measured(Math.abs(x2 - x1) * scale) : shown;
        String block = begin();
        line(Layer.DIM, x1, y1 + Math.signum(y - y1), x1, y + Math.signum(y - y1) * 2);
        line(Layer.DIM, x2, y2 + Math.signum(y - y2), x2, y + Math.signum(y - y2) * 2);
        line(Layer.DIM, x1, y, x2, y);
        arrow(x1, y, 1, 0);
        arrow(x2, y, -1, 0);
        text(Layer.DIM, (x1 + x2) / 2, y + 1, 3.5, 0, text, 1);
        end(block);
        dimension(block, x1, y1, x2, y2, (x1 + x2) / 2, y, 0, shown);
    }

    /** A vertical dimension at {@code x} over two points. */
    public void upright(double x1, double y1, double x2, double y2, double x, double scale, String shown) {
        String text = shown.isEmpty() ? measured(Math.abs(y2 - y1) * scale) : shown;
        String block = begin();
        line(Layer.DIM, x1 + Math.signum(x - x1), y1, x + Math.signum(x - x1) * 2, y1);
        line(Layer.DIM, x2 + Math.signum(x - x2), y2, x + Math.signum(x - x2) * 2, y2);
        line(Layer.DIM, x, y1, x, y2);
        arrow(x, Math.min(y1, y2), 0, 1);
        arrow(x, Math.max(y1, y2), 0, -1);
        text(Layer.DIM, x - 1, (y1 + y2) / 2, 3.5, 90, text, 1);
        end(block);
        dimension(block, x1, y1, x2, y2, x, (y1 + y2) / 2, 90, shown);
    }

    private static String measured(double length) {
        double rounded = Math.round(length * 10) / 10.0;
        return rounded == Math.rint(rounded) ? Long.toString((long) rounded) : Double.toString(rounded);
    }

    private void arrow(double x, double y, double dx, double dy) {
        entity("SOLID", Layer.DIM);
        tag(10, x);
        tag(20, y);
        tag(11, x + dx * 3 - dy * 0.5);
        tag(21, y + dy * 3 - dx * 0.5);
        tag(12, x + dx * 3 + dy * 0.5);
        tag(22, y + dy * 3 + dx * 0.5);
        tag(13, x + dx * 3 + dy * 0.5);
        tag(23, y + dy * 3 + dx * 0.5);
    }

    private String begin() {
        target = new StringBuilder();
        return "*D" + ++dimensions;
    }

    private void end(String block) {
        blocks.put(block, target.toString());
        target = entities;
    }

    private void dimension(
            String block,
            double x1,
            double y1,
            double x2,
            double y2,
            double tx,
            double ty,
            double angle,
            String shown) {
        entity("DIMENSION", Layer.DIM);
        tag(2, block);
        tag(10, angle == 0 ? x2 : tx);
        tag(20, angle == 0 ? ty : y2);
        tag(11, tx);
        tag(21, ty);
        tag(70, "0");
        if (!shown.isEmpty()) tag(1, shown);
        tag(13, x1);
        tag(23, y1);
        tag(14, x2);
        tag(24, y2);
        if (angle != 0) tag(50, angle);
    }

    /** A field of a title block: its tag, its place, its letters, its value. */
    public record Field(String tag, double x, double y, double height, double room, String value) {
        /** Letters that would leave the field are narrowed, as a designer does it. */
        double factor() {
            return Lettering.fit(value, room / height, 1, 1, true).factor();
        }
    }

    /** Puts a title block: lines and captions in a block of its own, the values as attributes of its insert. */
    public void titleBlock(double x, double y, Runnable drawing, List<Field> fields) {
        attributed("TITLE", drawing, fields);
        insert("TITLE", x, y, fields);
    }

    /** Defines a block of lines with attributes. */
    public void attributed(String block, Runnable drawing, List<Field> fields) {
        target = new StringBuilder();
        drawing.run();
        for (Field field : fields) {
            tag(0, "ATTDEF");
            tag(8, Layer.TEXT.name());
            tag(10, field.x());
            tag(20, field.y());
            tag(40, field.height());
            tag(1, "");
            tag(3, field.tag());
            tag(2, field.tag());
            tag(70, "0");
        }
        blocks.put(block, target.toString());
        target = entities;
    }

    /** Inserts such a block with its values. */
    public void insert(String block, double x, double y, List<Field> fields) {
        entity("INSERT", Layer.FRAME);
        tag(66, "1");
        tag(2, block);
        tag(10, x);
        tag(20, y);
        for (Field field : fields) {
            entity("ATTRIB", Layer.TEXT);
            tag(10, x + field.x());
            tag(20, y + field.y());
            tag(40, field.height());
            if (field.factor() < 1) tag(41, field.factor());
            tag(1, field.value());
            tag(2, field.tag());
            tag(70, "0");
        }
        entity("SEQEND", Layer.FRAME);
    }

    /** The whole file in code page 1252 with CR LF. */
    public byte[] bytes(double width, double height) {
        StringBuilder all = new StringBuilder();
        target = all;
        tag(999, "made for the demo of Mint Shelf");
        section("HEADER");
        variable("$ACADVER", 1, "AC1009");
        variable("$DWGCODEPAGE", 3, "ANSI_1252");
        tag(9, "$EXTMIN");
        tag(10, 0.0);
        tag(20, 0.0);
        tag(9, "$EXTMAX");
        tag(10, width);
        tag(20, height);
        tag(0, "ENDSEC");
        section("TABLES");
        lineTypes();
        tag(0, "TABLE");
        tag(2, "LAYER");
        tag(70, Integer.toString(Layer.values().length));
        for (Layer layer : Layer.values()) {
            tag(0, "LAYER");
            tag(2, layer.name());
            tag(70, "0");
            tag(62, Integer.toString(layer.colour));
            tag(6, layer.lineType);
        }
        tag(0, "ENDTAB");
        tag(0, "ENDSEC");
        section("BLOCKS");
        blocks.forEach((name, body) -> {
            tag(0, "BLOCK");
            tag(8, "0");
            tag(2, name);
            tag(70, name.startsWith("*") ? "1" : "2");
            tag(10, 0.0);
            tag(20, 0.0);
            tag(3, name);
            all.append(body);
            tag(0, "ENDBLK");
            tag(8, "0");
        });
        externals.forEach((name, path) -> {
            tag(0, "BLOCK");
            tag(8, "0");
            tag(2, name);
            tag(70, "4");
            tag(10, 0.0);
            tag(20, 0.0);
            tag(3, name);
            tag(1, path);
            tag(0, "ENDBLK");
            tag(8, "0");
        });
        tag(0, "ENDSEC");
        section("ENTITIES");
        all.append(entities);
        tag(0, "ENDSEC");
        tag(0, "EOF");
        return all.toString().getBytes(WINDOWS);
    }

    /** Places another drawing: a block that is an external reference, and its insert. */
    public void external(String path, double x, double y, double scale) {
        String block = "DETAIL_" + (externals.size() + 1);
        externals.put(block, path);
        entity("INSERT", Layer.FRAME);
        tag(2, block);
        tag(10, x);
        tag(20, y);
        tag(41, scale);
        tag(42, scale);
    }

    private void section(String name) {
        tag(0, "SECTION");
        tag(2, name);
    }

    private void variable(String name, int code, String value) {
        tag(9, name);
        tag(code, value);
    }

    private void lineTypes() {
        tag(0, "TABLE");
        tag(2, "LTYPE");
        tag(70, "3");
        lineType("CONTINUOUS", List.of());
        lineType("DASHED", List.of(4.0, -2.0));
        lineType("CENTER", List.of(10.0, -2.0, 1.0, -2.0));
        tag(0, "ENDTAB");
    }

    private void lineType(String name, List<Double> dashes) {
        tag(0, "LTYPE");
        tag(2, name);
        tag(70, "0");
        tag(3, "");
        tag(72, "65");
        tag(73, Integer.toString(dashes.size()));
        tag(40, new ArrayList<>(dashes).stream().mapToDouble(Math::abs).sum());
        for (double dash : dashes) tag(49, dash);
    }
}
