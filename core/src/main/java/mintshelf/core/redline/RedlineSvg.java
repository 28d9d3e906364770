package mintshelf.core.redline;

import java.util.List;
import java.util.Locale;
import java.util.Map;
import mintshelf.core.drawing.Box;
import mintshelf.core.drawing.Scene;
import mintshelf.core.drawing.svg.SvgWriter;

/** Remarks as groups of a picture of their sheet, one a remark, to be laid over it. O(points). */
public final class RedlineSvg {
    private RedlineSvg() {}

    /** A remark as it stands on a sheet. */
    public record Placed(Remark remark, Followed followed) {}

    /** The marks alone, one group each, with its id for scripts. */
    private static String groups(List<Placed> all, Box sheet, double mm) {
        StringBuilder out = new StringBuilder("<g class=\"marks\">");
        for (Placed one : all) {
            out.append("<g data-remark=\"").append(one.remark().id()).append("\">");
            if (one.remark().mark().tool() == Tool.HIGHLIGHT)
                wash(out, one.followed().mark());
            out.append(SvgWriter.inside(
                    new Scene(MarkPaint.paint(one.remark(), one.followed(), mm), Map.of(), Map.of()), sheet, false));
            out.append("</g>");
        }
        return out.append("</g>").toString();
    }

    /** What is highlighted is read through its colour. */
    private static void wash(StringBuilder out, Mark mark) {
        Box box = mark.box();
        out.append(String.format(
                Locale.ROOT,
                "<rect x=\"%.3f\" y=\"%.3f\" width=\"%.3f\" height=\"%.3f\" fill=\"#%06x\" fill-opacity=\"0.18\"/>",
                box.minX(),
                -box.maxY(),
                box.width(),
                box.height(),
                mark.look().colour().rgb()));
    }

    /** A transparent picture of the sheet's size with nothing but the marks, to be laid over its drawing. */
    public static String over(List<Placed> all, Box sheet, double mm) {
        return SvgWriter.frame(sheet, "Redlines", groups(all, sheet, mm));
    }
}
