package mintshelf.core.drawing.svg;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import mintshelf.core.drawing.Box;
import mintshelf.core.drawing.Primitive;
import mintshelf.core.drawing.Scene;
import mintshelf.core.drawing.compare.Comparison;
import mintshelf.core.drawing.compare.Comparison.Difference;

/**
 * Draws two sheets one over the other: what is the same in grey, what stands only in the old one dashed, what stands only in the
 * new one solid, and a ring with a number at each difference. O(primitives).
 */
public final class CompareSvg {
    private CompareSvg() {}

    /** The layers of an overlay as the inside of one picture: groups of class same, old, now and ring. */
    public static String whole(Scene old, Scene now, Comparison comparison) {
        Set<Integer> olds = new HashSet<>();
        Set<Integer> nows = new HashSet<>();
        for (Difference d : comparison.differences()) {
            olds.addAll(d.olds());
            nows.addAll(d.nows());
        }
        List<Primitive> same = new ArrayList<>();
        List<Primitive> onlyNew = new ArrayList<>();
        for (int i = 0; i < now.primitives().size(); i++) {
            (nows.contains(i) ? onlyNew : same).add(now.primitives().get(i));
        }
        List<Primitive> onlyOld = new ArrayList<>();
        for (int i : olds.stream().sorted().toList())
            onlyOld.add(old.primitives().get(i));
        Box box = old.extents().with(now.extents());
        StringBuilder inside = new StringBuilder();
        inside.append("<g class=\"same\" color=\"#aab4ae\">")
                .append(group(same, now, box))
                .append("</g>");
        inside.append("<g class=\"old\" color=\"#9a5b00\">")
                .append(group(onlyOld, old, box))
                .append("</g>");
        inside.append("<g class=\"now\" color=\"#0a5fb4\">")
                .append(group(onlyNew, now, box))
                .append("</g>");
        inside.append(rings(comparison, box));
        return SvgWriter.frame(box, "Both sheets, one over the other", inside.toString());
    }

    /** The new sheet as it is, with a ring round each difference. */
    public static String ringed(Scene now, Comparison comparison) {
        Box box = now.extents();
        return SvgWriter.frame(
                box, "The sheet, with its differences", SvgWriter.inside(now, box, false) + rings(comparison, box));
    }

    private static String group(List<Primitive> primitives, Scene scene, Box box) {
        return SvgWriter.inside(new Scene(primitives, scene.layers(), Map.of(), List.of()), box, true);
    }

    /** A ring round each difference with its number on a leader. */
    private static String rings(Comparison comparison, Box box) {
        StringBuilder out = new StringBuilder("<g class=\"ring\" color=\"#74358f\">");
        double sheet = Math.max(box.width(), box.height());
        double least = sheet * 0.008;
        for (Difference d : comparison.differences()) {
            double rx = Math.max(d.box().width() * 0.56 + least, least * 1.5);
            double ry = Math.max(d.box().height() * 0.56 + least, least * 1.5);
            double x = d.box().middleX();
            double y = -d.box().middleY();
            double k = Math.sqrt(0.5);
            double size = sheet * 0.016;
            out.append("<g data-difference=\"").append(d.number()).append("\">");
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
                    .append(d.number())
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
