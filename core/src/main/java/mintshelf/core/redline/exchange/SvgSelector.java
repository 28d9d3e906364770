package mintshelf.core.redline.exchange;

import java.io.StringReader;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import javax.xml.stream.XMLInputFactory;
import javax.xml.stream.XMLStreamConstants;
import javax.xml.stream.XMLStreamException;
import javax.xml.stream.XMLStreamReader;
import mintshelf.core.redline.Mark;
import mintshelf.core.redline.Point;
import mintshelf.core.redline.Tool;

/**
 * The shape of a mark as an SvgSelector says it (Web Annotation Data Model, 4.2.7): paths of straight lines in the sheet's units, y
 * downwards as SVG has it. What is read is shapes alone: scripts, links, transformations and documents within are none.
 */
final class SvgSelector {
    private SvgSelector() {}

    /**
     * What was read.
     *
     * @param strokes y upwards
     * @param closed whether it is a shape round something, not a line
     */
    record Shape(List<List<Point>> strokes, boolean closed) {}

    static String write(Mark mark) {
        StringBuilder out = new StringBuilder("<svg xmlns=\"http://www.w3.org/2000/svg\">");
        for (List<Point> stroke : mark.strokes()) {
            out.append("<path fill=\"none\" stroke=\"#000\" d=\"");
            for (int i = 0; i < stroke.size(); i++) {
                Point p = stroke.get(i);
                out.append(i == 0 ? "M" : "L").append(number(p.x())).append(' ').append(number(-p.y()));
            }
            out.append("\"/>");
        }
        return out.append("</svg>").toString();
    }

    private static String number(double value) {
        String text = String.format(Locale.ROOT, "%.6f", value).replaceAll("0+$", "");
        return text.endsWith(".") ? text.substring(0, text.length() - 1) : text;
    }

    /** Nothing for what is no picture of lines, or has more points than a mark may have. */
    static Optional<Shape> read(String svg) {
        XMLInputFactory factory = XMLInputFactory.newFactory();
        factory.setProperty(XMLInputFactory.SUPPORT_DTD, false);
        factory.setProperty(XMLInputFactory.IS_SUPPORTING_EXTERNAL_ENTITIES, false);
        List<List<Point>> strokes = new ArrayList<>();
        boolean closed = false;
        try {
            XMLStreamReader xml = factory.createXMLStreamReader(new StringReader(svg));
            while (xml.hasNext()) {
                if (xml.next() != XMLStreamConstants.START_ELEMENT) continue;
                // Where a shape is moved about its place is not known here.
                if (xml.getAttributeValue(null, "transform") != null) return Optional.empty();
                closed |= shape(xml, strokes);
                if (strokes.stream().mapToInt(List::size).sum() > Mark.MOST_POINTS) return Optional.empty();
            }
        } catch (XMLStreamException | NumberFormatException e) {
            return Optional.empty();
        }
        return strokes.isEmpty() ? Optional.empty() : Optional.of(new Shape(strokes, closed));
    }

    /** Whether it is a shape round something. */
    private static boolean shape(XMLStreamReader xml, List<List<Point>> strokes) {
        switch (xml.getLocalName()) {
            case "path" -> {
                return path(attribute(xml, "d"), strokes);
            }
            case "polyline", "polygon" -> {
                double[] v = numbers(attribute(xml, "points"));
                List<Point> stroke = new ArrayList<>();
                for (int i = 0; i + 1 < v.length; i += 2) stroke.add(new Point(v[i], -v[i + 1]));
                if (!stroke.isEmpty()) strokes.add(stroke);
                return xml.getLocalName().equals("polygon");
            }
            case "line" ->
                strokes.add(List.of(
                        new Point(real(xml, "x1"), -real(xml, "y1")), new Point(real(xml, "x2"), -real(xml, "y2"))));
            case "rect" -> {
                double x = real(xml, "x");
                double y = real(xml, "y");
                box(strokes, x, y, x + real(xml, "width"), y + real(xml, "height"));
                return true;
            }
            case "circle", "ellipse" -> {
                boolean circle = xml.getLocalName().equals("circle");
                double rx = real(xml, circle ? "r" : "rx");
                double ry = real(xml, circle ? "r" : "ry");
                double x = real(xml, "cx");
                double y = real(xml, "cy");
                box(strokes, x - rx, y - ry, x + rx, y + ry);
                return true;
            }
            default -> {}
        }
        return false;
    }

    private static void box(List<List<Point>> strokes, double x1, double y1, double x2, double y2) {
        strokes.add(List.of(new Point(x1, -y1), new Point(x2, -y2)));
    }

    private static String attribute(XMLStreamReader xml, String name) {
        String value = xml.getAttributeValue(null, name);
        return value == null ? "" : value;
    }

    private static double real(XMLStreamReader xml, String name) {
        String value = attribute(xml, name).strip().replaceFirst("(px|mm)$", "");
        return value.isEmpty() ? 0 : finite(value);
    }

    private static double finite(String text) {
        double value = Double.parseDouble(text);
        if (!Double.isFinite(value)) throw new NumberFormatException(text);
        return value;
    }

    private static double[] numbers(String text) {
        List<Double> all = new ArrayList<>();
        for (String part : text.strip().split("[\\s,]+")) if (!part.isEmpty()) all.add(finite(part));
        return all.stream().mapToDouble(d -> d).toArray();
    }

    /** Commands one after the other; of curves their ends (SVG 2, 9.3). */
    private static boolean path(String d, List<List<Point>> strokes) {
        List<Point> stroke = new ArrayList<>();
        boolean closed = false;
        double x = 0;
        double y = 0;
        for (String part : d.split("(?=[MmLlHhVvZzCcSsQqTtAa])")) {
            if (part.isBlank()) continue;
            char command = part.strip().charAt(0);
            double[] v = numbers(part.strip().substring(1));
            boolean relative = Character.isLowerCase(command);
            char kind = Character.toUpperCase(command);
            if (kind == 'Z') {
                closed = true;
                continue;
            }
            int step = switch (kind) {
                case 'H', 'V' -> 1;
                case 'C' -> 6;
                case 'S', 'Q' -> 4;
                case 'A' -> 7;
                default -> 2;
            };
            if (kind == 'M' && !stroke.isEmpty()) {
                strokes.add(stroke);
                stroke = new ArrayList<>();
            }
            for (int i = 0; i + step <= v.length; i += step) {
                double toX = kind == 'H' ? v[i] : kind == 'V' ? (relative ? 0 : x) : v[i + step - 2];
                double toY = kind == 'V' ? v[i] : kind == 'H' ? (relative ? 0 : y) : v[i + step - 1];
                x = relative ? x + toX : toX;
                y = relative ? y + toY : toY;
                stroke.add(new Point(x, -y));
                if (stroke.size() > Mark.MOST_POINTS) break;
            }
        }
        if (!stroke.isEmpty()) strokes.add(stroke);
        return closed;
    }

    /** The points of a tool, as its own form wants them; nothing where they are none. */
    static Optional<List<List<Point>>> of(Tool tool, Shape shape) {
        return tool == Tool.INK || shape.strokes().size() == 1 ? Optional.of(shape.strokes()) : Optional.empty();
    }
}
