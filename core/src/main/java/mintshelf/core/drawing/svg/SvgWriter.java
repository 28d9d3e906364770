package mintshelf.core.drawing.svg;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import mintshelf.core.drawing.Box;
import mintshelf.core.drawing.Lettering;
import mintshelf.core.drawing.Primitive;
import mintshelf.core.drawing.Scene;
import mintshelf.core.drawing.Style;

/**
 * Writes a scene as SVG: a group a layer, in it one path for each style, texts as texts. Styles are presentation attributes, for
 * a page's security policy blocks style attributes. O(primitives).
 */
public final class SvgWriter {
    private final StringBuilder out = new StringBuilder();
    private final double precision;
    private final boolean small;
    private boolean oneInk;
    /** Texts under a hundredth of the sheet are dust in a thumbnail. */
    private final double smallest;

    private SvgWriter(double size, boolean small) {
        this.small = small;
        this.smallest = size / 100;
        // Three places on a sheet of a metre; as many more or fewer as the sheet is smaller or larger.
        this.precision = Math.pow(10, Math.max(0, Math.min(6, 6 - Math.ceil(Math.log10(Math.max(size, 1e-3))))));
    }

    /** The picture, or an empty one for a scene without primitives. */
    public static String write(Scene scene, String label) {
        return write(scene, label, false);
    }

    /** A picture for a few dozen pixels: hair lines on white paper, hidden layers and the smallest texts left out. */
    public static String thumbnail(Scene scene) {
        return write(scene, "", true);
    }

    private static String write(Scene scene, String label, boolean small) {
        Box box = scene.extents();
        if (box.isEmpty()) box = new Box(0, 0, 100, 70);
        SvgWriter writer = new SvgWriter(size(box), small);
        if (small) writer.paper(box.grown(margin(box)));
        return frame(box, label, writer.drawn(scene));
    }

    /** A picture around what was drawn for a box, with a margin of a hundredth. */
    public static String frame(Box box, String label, String inside) {
        Box outer = box.isEmpty() ? new Box(0, 0, 100, 70) : box.grown(margin(box));
        SvgWriter writer = new SvgWriter(size(outer), false);
        writer.out.append(
                "<svg xmlns=\"http://www.w3.org/2000/svg\" role=\"img\" class=\"drawing\" preserveAspectRatio=\"xMidYMid meet\" viewBox=\"");
        writer.numbers(outer.minX(), -outer.maxY(), outer.width(), outer.height());
        writer.out
                .append("\" aria-label=\"")
                .append(escape(label))
                .append("\" color=\"#14201c\" fill=\"none\" stroke-linecap=\"round\" stroke-linejoin=\"round\">");
        return writer.out.append(inside).append("</svg>").toString();
    }

    /** A picture that lies elsewhere, as a sheet of this size. */
    public static String picture(Box box, String label, String address) {
        return frame(box, label, image(box, address));
    }

    /** A picture that lies elsewhere, over all of a box that begins at its left. */
    static String image(Box box, String address) {
        SvgWriter writer = new SvgWriter(size(box), false);
        writer.out.append("<image x=\"0\" y=\"");
        writer.numbers(-box.maxY());
        writer.out.append("\" width=\"");
        writer.numbers(box.width());
        writer.out.append("\" height=\"");
        writer.numbers(box.height());
        return writer.out
                .append("\" href=\"")
                .append(escape(address))
                .append("\"/>")
                .toString();
    }

    /** What a scene draws, for a picture of this box; {@code oneInk} draws all in the colour of the group around it. */
    public static String inside(Scene scene, Box box, boolean oneInk) {
        SvgWriter writer = new SvgWriter(size(box.isEmpty() ? new Box(0, 0, 100, 70) : box), false);
        writer.oneInk = oneInk;
        return writer.drawn(scene);
    }

    private static double margin(Box box) {
        return Math.max(size(box) * 0.01, 1e-6);
    }

    private static double size(Box box) {
        return Math.max(box.width(), box.height());
    }

    private void paper(Box box) {
        out.append("<rect fill=\"#fff\" x=\"");
        number(out, box.minX());
        out.append("\" y=\"");
        number(out, -box.maxY());
        out.append("\" width=\"100%\" height=\"100%\"/>");
    }

    private String drawn(Scene scene) {
        Map<String, Map<Style, StringBuilder>> paths = new TreeMap<>();
        Map<String, StringBuilder> texts = new TreeMap<>();
        for (Primitive p : scene.primitives()) {
            // What covers other things up has to come after them: what was gathered so far is written first.
            if (p.style().colour() == Style.PAPER) flush(scene, paths, texts);
            add(p, paths, texts);
            if (p.style().colour() == Style.PAPER) flush(scene, paths, texts);
        }
        flush(scene, paths, texts);
        return out.toString();
    }

    /** Writes what was gathered, a group a layer, and starts anew. */
    private void flush(Scene scene, Map<String, Map<Style, StringBuilder>> paths, Map<String, StringBuilder> texts) {
        Set<String> layers = new TreeSet<>(paths.keySet());
        layers.addAll(texts.keySet());
        for (String layer : layers) {
            boolean shown = scene.layers().getOrDefault(layer, true);
            if (small && !shown) continue;
            out.append("<g data-layer=\"").append(escape(layer)).append('"');
            if (!shown) out.append(" visibility=\"hidden\"");
            out.append('>');
            paths.getOrDefault(layer, Map.of()).forEach(this::path);
            out.append(texts.getOrDefault(layer, new StringBuilder())).append("</g>");
        }
        paths.clear();
        texts.clear();
    }

    private void path(Style style, StringBuilder d) {
        boolean fill = style.weight() == 0;
        out.append("<path d=\"").append(d).append('"');
        if (fill) {
            out.append(" fill=\"").append(colour(style)).append("\" fill-rule=\"evenodd\" stroke=\"none\"/>");
            return;
        }
        out.append(" stroke=\"")
                .append(colour(style))
                .append("\" stroke-width=\"")
                .append(style.weight() >= 0.4 ? (small ? "0.9" : "1.5") : (small ? "0.35" : "0.8"))
                .append("\" vector-effect=\"non-scaling-stroke\"");
        if (!style.dashes().isEmpty() && !small) {
            out.append(" stroke-dasharray=\"").append(dashes(style.dashes())).append('"');
        }
        out.append("/>");
    }

    /** In screen units, like the line's width: dashes that follow the zoom would vanish on large sheets. */
    private static String dashes(List<Double> dashes) {
        StringBuilder text = new StringBuilder();
        double longest = dashes.stream().mapToDouble(d -> d).max().orElse(1);
        for (double dash : dashes) {
            if (text.length() > 0) text.append(' ');
            text.append(String.format(Locale.ROOT, "%.1f", Math.max(1.2, dash / longest * 11)));
        }
        return text.toString();
    }

    private String colour(Style style) {
        if (oneInk && style.colour() != Style.PAPER) return "currentColor";
        if (style.colour() == Style.PAPER) return "#fff";
        return style.colour() == Style.INK ? "currentColor" : String.format(Locale.ROOT, "#%06x", style.colour());
    }

    private void add(Primitive p, Map<String, Map<Style, StringBuilder>> paths, Map<String, StringBuilder> texts) {
        if (p instanceof Primitive.Text text) {
            if (small && text.height() < smallest) return;
            text(text, texts.computeIfAbsent(text.style().layer(), l -> new StringBuilder()));
            return;
        }
        Style style = p instanceof Primitive.Fill
                ? new Style(p.style().layer(), p.style().colour(), 0, List.of())
                : p.style();
        StringBuilder d = paths.computeIfAbsent(style.layer(), l -> new LinkedHashMap<>())
                .computeIfAbsent(style, s -> new StringBuilder());
        if (p instanceof Primitive.Polyline line) points(d, line.points(), line.closed());
        else if (p instanceof Primitive.Fill fill) for (double[] ring : fill.rings()) points(d, ring, true);
        else if (p instanceof Primitive.Strokes strokes) strokes(d, strokes.ends());
        else arc(d, (Primitive.Arc) p);
    }

    private void strokes(StringBuilder d, double[] ends) {
        for (int i = 0; i + 3 < ends.length; i += 4) {
            points(d, new double[] {ends[i], ends[i + 1], ends[i + 2], ends[i + 3]}, false);
        }
    }

    private void points(StringBuilder d, double[] points, boolean closed) {
        for (int i = 0; i + 1 < points.length; i += 2) {
            d.append(i == 0 ? 'M' : 'L');
            number(d, points[i]);
            d.append(' ');
            number(d, -points[i + 1]);
        }
        if (closed) d.append('Z');
    }

    private void arc(StringBuilder d, Primitive.Arc arc) {
        // An arc of SVG cannot be a whole circle: two halves can.
        int parts = arc.sweep() > 180 ? 2 : 1;
        double step = arc.sweep() / parts;
        for (int i = 0; i <= parts; i++) {
            double a = Math.toRadians(arc.from() + i * step);
            if (i == 0) {
                d.append('M');
            } else {
                d.append('A');
                number(d, arc.radius());
                d.append(' ');
                number(d, arc.radius());
                d.append(" 0 0 0 ");
            }
            number(d, arc.x() + arc.radius() * Math.cos(a));
            d.append(' ');
            number(d, -(arc.y() + arc.radius() * Math.sin(a)));
        }
    }

    private void text(Primitive.Text t, StringBuilder words) {
        String anchor = t.across() == 1 ? "middle" : t.across() == 2 ? "end" : "start";
        // Heights of drawings are those of capitals.
        double size = t.height() * 1000 / Lettering.CAPITAL;
        double drop = t.up() == 3 ? t.height() : t.up() == 2 ? t.height() / 2 : 0;
        words.append("<text transform=\"translate(");
        number(words, t.x());
        words.append(' ');
        number(words, -t.y());
        words.append(')');
        if (t.angle() != 0) {
            words.append("rotate(");
            number(words, -t.angle());
            words.append(')');
        }
        if (t.mirrored() || t.width() != 1) {
            words.append("scale(");
            number(words, t.width());
            words.append(t.mirrored() ? " -1)" : " 1)");
        }
        words.append("\" font-size=\"");
        number(words, size);
        words.append("\" text-anchor=\"").append(anchor).append('"');
        if (drop != 0) {
            words.append(" y=\"");
            number(words, drop);
            words.append('"');
        }
        words.append(" fill=\"")
                .append(colour(t.style()))
                .append("\">")
                .append(escape(t.text()))
                .append("</text>");
    }

    private void numbers(double... values) {
        for (int i = 0; i < values.length; i++) {
            if (i > 0) out.append(' ');
            number(out, values[i]);
        }
    }

    private void number(StringBuilder to, double value) {
        double rounded = Math.rint(value * precision) / precision;
        if (rounded == Math.rint(rounded) && Math.abs(rounded) < 1e15) to.append((long) rounded);
        else to.append(rounded);
    }

    private static String escape(String text) {
        StringBuilder safe = new StringBuilder(text.length());
        text.codePoints()
                .filter(c -> c >= 0x20 && c != 0xfffe && c != 0xffff && !(c >= 0xd800 && c <= 0xdfff))
                .forEach(c -> {
                    switch (c) {
                        case '<' -> safe.append("&lt;");
                        case '>' -> safe.append("&gt;");
                        case '&' -> safe.append("&amp;");
                        case '"' -> safe.append("&quot;");
                        case '\'' -> safe.append("&#39;");
                        default -> safe.appendCodePoint(c);
                    }
                });
        return safe.toString();
    }
}
