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
        inside.append(RingedSvg.rings(boxes(comparison), box));
        return SvgWriter.frame(box, "Both sheets, one over the other", inside.toString());
    }

    /** The new sheet as it is, with a ring round each difference. */
    public static String ringed(Scene now, Comparison comparison) {
        Box box = now.extents();
        return SvgWriter.frame(
                box,
                "The sheet, with its differences",
                SvgWriter.inside(now, box, false) + RingedSvg.rings(boxes(comparison), box));
    }

    private static List<Box> boxes(Comparison comparison) {
        return comparison.differences().stream().map(Difference::box).toList();
    }

    private static String group(List<Primitive> primitives, Scene scene, Box box) {
        return SvgWriter.inside(new Scene(primitives, scene.layers(), Map.of(), List.of()), box, true);
    }
}
