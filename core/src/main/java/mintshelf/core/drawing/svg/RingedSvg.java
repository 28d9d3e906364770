package mintshelf.core.drawing.svg;

import java.util.List;
import mintshelf.core.drawing.Box;
import mintshelf.core.drawing.Scene;

/** Draws rings with numbers over a sheet. */
public final class RingedSvg {
    private RingedSvg() {}

    /** A sheet as it is, with a ring at each place. O(primitives). */
    public static String of(Scene scene, List<Box> places) {
        Box box = scene.extents();
        return SvgWriter.frame(
                box, "The sheet, with numbered places", SvgWriter.inside(scene, box, false) + rings(places, box));
    }

    /** A ring round each place with its number, from 1, on a leader; empty boxes have a number and no ring. */
    static String rings(List<Box> places, Box box) {
        StringBuilder out = new StringBuilder("<g class=\"ring\" color=\"#74358f\">");
        double sheet = Math.max(box.width(), box.height());
        double least = sheet * 0.008;
        for (int i = 0; i < places.size(); i++) {
            Box place = places.get(i);
            if (place.isEmpty()) continue;
            double rx = Math.max(place.width() * 0.56 + least, least * 1.5);
            double ry = Math.max(place.height() * 0.56 + least, least * 1.5);
            double x = place.middleX();
            double y = -place.middleY();
            double k = Math.sqrt(0.5);
            double size = sheet * 0.016;
            out.append("<g data-difference=\"").append(i + 1).append("\">");
            out.append("<ellipse cx=\"").append(text(x)).append("\" cy=\"").append(text(y));
            out.append("\" rx=\"").append(text(rx)).append("\" ry=\"").append(text(ry));
            out.append(
                    "\" fill=\"none\" stroke=\"currentColor\" stroke-width=\"1.6\" vector-effect=\"non-scaling-stroke\"/>");
            out.append("<path d=\"M").append(text(x + rx * k)).append(' ').append(text(y - ry * k));
            out.append('L').append(text(x + rx * k + size)).append(' ').append(text(y - ry * k - size));
            out.append("\" stroke=\"currentColor\" stroke-width=\"1.2\" vector-effect=\"non-scaling-stroke\"/>");
            out.append("<text x=\"").append(text(x + rx * k + size * 1.15)).append("\" y=\"");
            out.append(text(y - ry * k - size * 0.9)).append("\" font-size=\"").append(text(size * 1.5));
            out.append("\" font-weight=\"600\" fill=\"currentColor\">")
                    .append(i + 1)
                    .append("</text></g>");
        }
        return out.append("</g>").toString();
    }

    private static String text(double value) {
        double rounded = Math.rint(value * 1e4) / 1e4;
        return rounded == Math.rint(rounded) && Math.abs(rounded) < 1e15
                ? Long.toString((long) rounded)
                : Double.toString(rounded);
    }
}
